// SPDX-License-Identifier: GPL-3.0-or-later
// Raw edges that lie open inside the finished bag are bound where the cloth frays.
#include "checks/finding.hpp"

#include <algorithm>

namespace tectonis {

namespace {

/// Woven cloth frays at a cut edge; what is coated or grown does not (common practice, no source).
bool frays(const Material& m) { return m.kind != "vinyl" && m.kind != "leather" && m.kind != "coated"; }

} // namespace

void checkRawEdges(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    const auto fraying = [&](const std::vector<EdgeUse>& side) {
        return std::any_of(side.begin(), side.end(), [&](const EdgeUse& use) {
            const Piece* piece = p.piece(use.piece);
            const auto cloth = piece ? p.materials.find(piece->material) : p.materials.end();
            return cloth != p.materials.end() && frays(p.material(cloth->second));
        });
    };
    for (const auto& seam : p.seams)
        if (seam.rawInside && seam.bound.empty() && !seam.overcast && (fraying(seam.a) || fraying(seam.b)))
            out.push_back({Severity::Warning, "raw-edge", "", say("Seam “{}”", seam.name), seam.key, "Fittings",
                say("its raw edges lie open inside the bag and would fray: add a binding that covers them, or overcast "
                    "them."),
                {}});
}

} // namespace tectonis
