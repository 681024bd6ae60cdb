// SPDX-License-Identifier: GPL-3.0-or-later
// Cloth that gives when it is pulled grows while it is sewn, and the bag with its load: something firm lies behind it.
#include "checks/finding.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kGives = 5; // % that a bag's cloth may give (common practice, no source)

} // namespace

void checkStretch(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    for (const auto& piece : p.pieces) {
        const auto role = p.materials.find(piece.material);
        if (piece.coat == Coat::Interlining || role == p.materials.end())
            continue;
        const Material& cloth = p.material(role->second);
        const bool held = std::any_of(piece.layers.begin(), piece.layers.end(),
            [&](const Layer& layer) { return layer.wholePiece && p.material(layer.material).stretch <= kGives; });
        if (cloth.stretch > kGives && !held)
            out.push_back(
                {Severity::Warning, "stretch", "", say("{} {}", piece.code, piece.name), piece.key, "Build-up",
                    say("{} gives by {} % when it is pulled, and nothing that lies behind the whole piece holds it: it "
                        "grows "
                        "while it is sewn. Put an interlining behind it that does not give.",
                        cloth.name, Num(cloth.stretch)),
                    {}});
    }
}

} // namespace tectonis
