// SPDX-License-Identifier: GPL-3.0-or-later
// What lies on a flap must not lie where the flap turns over the mouth's edges: it would be bent with it.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {

void checkFlaps(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    for (const auto& flap : p.hinged) {
        if (!flap.over)
            continue;
        const double up = p.of(flap.piece.owner(), "hinge"), down = up + p.values.at("mouth.way") + flap.ease;
        for (const auto& overlay : p.overlays) {
            const Piece *piece = p.piece(overlay.piece), *below = p.piece(overlay.on);
            if (!piece || !below || (below->key != flap.piece && below->whole != flap.piece))
                continue;
            Box box; // of what shows, on the flap
            const auto face = piece->areas.find("face");
            for (const Point q : flattened(face != piece->areas.end() ? face->second : piece->stitch(), 0.1))
                box.add(overlay.placement(q));
            const double from = flap.hinge - box.y1, to = flap.hinge - box.y0; // from the hinge
            const bool bent = (from < up - 1 && to > up + 1) || (from < down - 1 && to > down + 1);
            if (!bent)
                continue;
            const std::string drop = overlay.piece.owner().text() + ".drop";
            std::optional<Repair> repair;
            if (const auto at = p.values.find(drop); at != p.values.end()) {
                const double beyond = std::ceil(at->second + down + 6 - from);
                repair = Repair{say("Set its drop to {}: it then lies before the front", Len(beyond)),
                    {fmt::format("{}={}", drop, beyond)}, false};
            }
            out.push_back({Severity::Warning, "flap", "", piece->name, drop, "Fittings",
                say("it lies from {} to {} below the flap's hinge. The flap turns over the mouth's edges at {} and {} "
                    "from there, and bends it. Move it off the edges.",
                    Len(from), Len(to), Len(up), Len(down)),
                repair});
        }
    }
}

} // namespace tectonis
