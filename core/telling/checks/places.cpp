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

/// The nearest points of two lines, corner against line both ways, from the first to the second.
struct Nearest {
    double away = 1e300;
    Point from, to;
    Point inward; ///< square to the stitch line there, into the piece
};
Nearest nearestOf(const Polyline& line, const Polyline& stitch)
{
    Nearest out;
    for (const Point p : line)
        for (std::size_t i = 0; i + 1 < stitch.size(); ++i) {
            const Point along = stitch[i + 1] - stitch[i];
            const double length = dot(along, along),
                         t = length > 0 ? std::clamp(dot(p - stitch[i], along) / length, 0.0, 1.0) : 0;
            const Point on = lerp(stitch[i], stitch[i + 1], t);
            if (const double away = distance(p, on); away < out.away)
                out = {away, p, on, {-along.y, along.x}};
        }
    return out;
}

/// The part's own drop, or its way from the sides, by which it comes clear of the stitch line.
std::optional<Repair> movedAway(const CheckInput& in, const FaceLine& line, const Nearest& nearest, bool inside)
{
    // Where more room is; what lies on the stitch line goes inwards.
    const bool on = nearest.away < 1e-6;
    const Point apart = on ? nearest.inward : nearest.from - nearest.to;
    const double lacks = inside ? kClear - nearest.away : kClear + nearest.away, size = std::hypot(apart.x, apart.y);
    if (size < 1e-9)
        return {};
    const Point way = apart * ((inside || on ? 1 : -1) / size);
    const auto to = [&](const std::string& name, double by) -> std::optional<Repair> {
        const auto at = in.pattern.values.find(line.owner.text() + "." + name);
        if (at == in.pattern.values.end())
            return {};
        const double value = by > 0 ? std::ceil(2 * (at->second + by) - 1e-6) / 2
                                    : std::floor(2 * (at->second + by) + 1e-6) / 2;
        const DimensionSpec* spec = in.spec.dimension(at->first);
        return Repair{say("Make “{}” {}", Label{spec ? spec->label : name}, Len(value)),
            {fmt::format("{}={}", at->first, value)}, false};
    };
    if (std::abs(way.y) > std::abs(way.x))
        for (const char* name : {"drop", "down"})
            if (auto repair = to(name, -lacks / way.y))
                return repair;
    if (std::abs(way.x) > 0.3) {
        if (auto repair = to("inset", lacks / std::abs(way.x)))
            return repair;
        return to("across", lacks / way.x);
    }
    return {};
}

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
            const Polyline points = flattened(line.run, 0.1);
            const bool inside = std::all_of(
                points.begin(), points.end(), [&](Point p) { return insideOutline(stitch, p); });
            Nearest at = nearestOf(points, stitch);
            if (!inside) { // how far it reaches over: its outermost point
                at.away = 0;
                for (const Point p : points)
                    if (!insideOutline(stitch, p))
                        if (const Nearest out = nearestOf({p}, stitch); out.away > at.away)
                            at = out;
            }
            const double nearest = at.away;
            const auto subject = [&] {
                return say("{} on {} {}", edgeLabel(in.pattern, line.name), piece.code, piece.name);
            };
            if (!inside)
                out.push_back({Severity::Error, "place", "", subject(), piece.key, "Draft",
                    say("it reaches over the stitch line by {}. It would be caught in the seam; make it "
                        "smaller or move it.",
                        Len(nearest)),
                    movedAway(in, line, at, false)});
            else if (nearest < kClear - 0.01)
                out.push_back({Severity::Warning, "place", "", subject(), piece.key, "Draft",
                    say("only {} lie between it and the stitch line; leave {} so that it can be sewn.",
                        Len(nearest, kClear), Len(kClear)),
                    movedAway(in, line, at, true)});
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
