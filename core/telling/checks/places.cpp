// SPDX-License-Identifier: GPL-3.0-or-later
// Pockets and windows lie inside their panel, clear of its seams and of one another.
#include "checks/finding.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kClear = 10; // mm from a placement line to the stitch line (common practice, no source)

} // namespace

void checkPlaces(const CheckInput& in, Findings& out)
{
    for (const auto& piece : in.pattern.pieces) {
        if (piece.lines.empty())
            continue;
        const Polyline stitch = flattened(piece.stitch(), 0.1);
        for (const auto& line : piece.lines) {
            if (line.kind != FaceLine::Kind::Placement)
                continue;
            double nearest = 1e300;
            bool inside = true;
            for (const Point p : flattened(line.run, 0.1)) {
                inside &= insideOutline(stitch, p);
                nearest = std::min(nearest, distanceTo(stitch, p));
            }
            const auto subject = [&] {
                return say("{} on {} {}", edgeLabel(in.pattern, line.name), piece.code, piece.name);
            };
            if (!inside)
                out.push_back({Severity::Error, "place", "", subject(), piece.key, "Draft",
                    say("it reaches over the stitch line by {}. It would be caught in the seam; make it "
                        "smaller or move it.",
                        Len(nearest)),
                    {}});
            else if (nearest < kClear - 0.01)
                out.push_back({Severity::Warning, "place", "", subject(), piece.key, "Draft",
                    say("only {} lie between it and the stitch line; leave {} so that it can be sewn.",
                        Len(nearest, kClear), Len(kClear)),
                    {}});
        }
    }
    // Two parts on one face do not lie on each other.
    for (const auto& piece : in.pattern.pieces)
        for (std::size_t i = 0; i < piece.lines.size(); ++i)
            for (std::size_t k = i + 1; k < piece.lines.size(); ++k) {
                const FaceLine &a = piece.lines[i], &b = piece.lines[k];
                if (a.kind != FaceLine::Kind::Placement || b.kind != FaceLine::Kind::Placement)
                    continue;
                const Box p = boundsOf(a.run), q = boundsOf(b.run);
                const double across = std::min(p.x1, q.x1) - std::max(p.x0, q.x0),
                             up = std::min(p.y1, q.y1) - std::max(p.y0, q.y0);
                if (across > 0.01 && up > 0.01)
                    out.push_back({Severity::Warning, "collision", "",
                        say("{} and {} on {} {}", edgeLabel(in.pattern, a.name), edgeLabel(in.pattern, b.name),
                            piece.code, piece.name),
                        piece.key, "Draft",
                        say("they lie on each other by {} across and {} up. One would be sewn over the other; "
                            "move or shrink one of them.",
                            Len(across), Len(up)),
                        {}});
            }
    // The pocket bag hangs free behind the lining and must end above the bottom.
    for (const auto& f : in.design.features) {
        if (f.kind != "zip-pocket")
            continue;
        const auto& v = in.pattern.values;
        const double wide = v.at(f.id + ".length") + 2 * v.at(f.id + ".margin");
        const double room = v.at("face.width") - 2 * v.at(f.id + ".allowance");
        if (wide > room + 0.01)
            out.push_back({Severity::Warning, "place", "", say("Zip pocket bag"), f.id + ".bag", "Draft",
                say("it is {} wider than the lining's mouth leaves room for. It will be caught in the side "
                    "seams; shorten the zip or narrow the margin.",
                    Len(wide - room)),
                {}});
    }
}

} // namespace tectonis
