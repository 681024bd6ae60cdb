// SPDX-License-Identifier: GPL-3.0-or-later
// What is used up over many bags: needles, adhesive, edge paint.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// So much of it one bag takes. Common practice, no source: a needle sews for eight hours; contact adhesive goes on
/// both sides, 150 g/m² each; edge paint twice, 0.3 mm thick, at 1.1 g/ml.
struct Consumable {
    Ware kind = Ware::Needle;
    double size = 0;   ///< mm: of a needle's blade, its number by a hundredth
    Message sizeText;  ///< "number 80"
    double amount = 0; ///< needles, or g
};
std::vector<Consumable> consumablesOf(const Pattern& pattern);

} // namespace tectonis
