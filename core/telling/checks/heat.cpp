// SPDX-License-Identifier: GPL-3.0-or-later
// Nothing is fused to cloth that heat harms.
#include "checks/finding.hpp"

#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"
#include "library/library.hpp"

#include <fmt/format.h>

namespace tectonis {

void checkHeat(const CheckInput& in, Findings& out)
{
    for (const auto& piece : in.pattern.pieces) {
        const auto face = in.pattern.materials.find(piece.material);
        if (face == in.pattern.materials.end() || in.pattern.material(face->second).heat)
            continue;
        const Proposal proposal = proposedLayers(piece.role, in.pattern.material(face->second));
        for (const auto& layer : piece.layers)
            if (layer.fixing == "fused" || in.pattern.material(layer.material).kind == "fusible")
                out.push_back({Severity::Error, "heat", "", say("Piece {} {}", piece.code, piece.name), piece.key,
                    "Build-up",
                    together(say("{} ({}) is fused to {}, which heat harms. Use a sew-in interlining, basted or glued.",
                                 layer.code, in.pattern.material(layer.material).name,
                                 in.pattern.material(face->second).name),
                        say("Common practice: {}", proposal.why)),
                    Repair{say("Take the layers that suit the cloth"),
                        {"layers." + rulesFor(in.design, piece) + "=" + layersText(proposal.layers)}}});
    }
}

} // namespace tectonis
