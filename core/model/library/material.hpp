// SPDX-License-Identifier: GPL-3.0-or-later
// Cloths and interlinings, from data/materials.json. Trade values: common practice, no source.
#pragma once

#include <string>
#include <vector>

namespace tectonis {

struct Material {
    std::string id, name;
    std::string use; ///< "face", "interlining", "strap"
    std::string
        kind; ///< "cotton", "canvas", "waxed", "vinyl", "leather", "coated", "fusible", "sewin", "board", "webbing"
    double thickness = 0;  ///< mm, as it lies
    double compressed = 1; ///< share of the thickness left under the foot
    double gsm = 0;        ///< g/m²
    double width = 0;      ///< usable cloth width, mm; 0 for goods by the metre
    bool heat = true;      ///< bears the iron
    bool oneWay = false;   ///< pattern or nap has a direction
    bool rigid = false;    ///< cannot be folded when turning
    double price = 0;      ///< money per metre
    double underFoot() const { return thickness * compressed; }
};

const std::vector<Material>& materials();

/// @throws InputError if there is no material of that id.
const Material& material(const std::string& id);

/// g/m² of a cloth given in oz/yd²: 33.906 each (28.3495 g over 0.83613 m²).
constexpr double gsmOfOunces(double ozPerSquareYard) { return ozPerSquareYard * 28.349523125 / 0.83612736; }
/// mm of leather given in ounces: 1/64 in each.
constexpr double mmOfLeatherOunces(double oz) { return oz * 25.4 / 64; }

} // namespace tectonis
