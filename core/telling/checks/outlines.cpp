// SPDX-License-Identifier: GPL-3.0-or-later
// No outline crosses itself, the cut line holds the stitch line, curves are wide enough for their allowance.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {

void checkOutlines(const CheckInput& in, Findings& out)
{
    constexpr double sagitta = 0.1; // mm: the polygon that stands for a curve here
    for (const auto& piece : in.pattern.pieces) {
        const auto subject = [&] { return say("Piece {} {}", piece.code, piece.name); };
        const Run stitch = piece.stitch();
        const Polyline stitchLine = flattened(stitch, sagitta), cutLine = flattened(piece.cut, sagitta);
        const auto crossing = [&](const Polyline& line, const Label& what) {
            if (const auto at = selfCrossing(line))
                out.push_back({Severity::Error, "outline", "", subject(), piece.key, "Draft",
                    say("the {} crosses or touches itself near {} / {}. It cannot be cut; change the dimensions that "
                        "meet there.",
                        what, Len(at->x), Len(at->y)),
                    {}});
        };
        crossing(stitchLine, label("stitch line"));
        crossing(cutLine, label("cut line"));
        if (areaOf(stitch) <= 0 || areaOf(piece.cut) <= 0)
            out.push_back({Severity::Error, "outline", "", subject(), piece.key, "Draft",
                say("the outline encloses no area. Change the dimensions that shape it."), {}});
        else if (!containsOutline(cutLine, stitchLine, sagitta * 1.5))
            out.push_back({Severity::Error, "outline", "", subject(), piece.key, "Draft",
                say("the cut line does not lie outside the stitch line all round. Allowances and corners do not fit "
                    "together."),
                {}});
        std::set<std::pair<double, double>> tight;
        // Only what is sewn is clipped; a cover is drawn over its edge.
        const auto sewn = [&](const Edge& e) {
            const auto uses = [&](const std::vector<EdgeUse>& side) {
                return std::any_of(side.begin(), side.end(),
                    [&](const EdgeUse& u) { return u.edge == e.name && u.piece == piece.key; });
            };
            return std::any_of(in.pattern.seams.begin(), in.pattern.seams.end(),
                [&](const Seam& s) { return s.stitch == "construction" && (uses(s.a) || uses(s.b)); });
        };
        for (const auto& e : piece.edges)
            for (const auto& s : e.stitch)
                if (const auto* arc = std::get_if<Arc>(&s); arc && arc->radius < e.allowance && sewn(e))
                    tight.insert({arc->radius, e.allowance});
        for (const auto& [radius, allowance] : tight)
            out.push_back({Severity::Warning, "tight-curve", "", subject(), piece.key, "Draft",
                say("a corner of radius {} is tighter than its allowance of {}. The allowance cannot be "
                    "clipped to lie flat; use a larger radius or a narrower allowance.",
                    Len(radius), Len(allowance)),
                {}});
    }
}

} // namespace tectonis
