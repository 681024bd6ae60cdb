// SPDX-License-Identifier: GPL-3.0-or-later
#include "geometry/outline.hpp"

#include <algorithm>
#include <cstdint>
#include <numeric>

namespace tectonis {
namespace {

constexpr double kSame = 1e-7;           // mm: two points are one
constexpr double kNearlyStraight = 0.15; // sine of the turn below which lines go on from one another
constexpr double kNearlyTangent = 0.06;  // the same where one of them is an arc
constexpr double kStraight = 1e-9;       // sine of the turn below which two tangents are one

/// One segment of the new line, before its ends are joined to its neighbours.
struct Lane {
    Segment shape;
    double distance = 0;           // at its end
    Corner corner = Corner::Mitre; // at its end
    bool hem = false;
    Point vertex;       // the stitch point at its end
    bool steady = true; // the same distance all along
};

std::optional<Segment> offsetSegment(const Segment& s, double a, double b)
{
    if (const auto* l = std::get_if<Line>(&s)) {
        const Point out = rightOf(unit(l->b - l->a));
        return Line{l->a + out * a, l->b + out * b};
    }
    const auto& arc = std::get<Arc>(s);
    const double radius = arc.radius + (arc.sweep >= 0 ? a : -a);
    if (radius <= kSame)
        return std::nullopt;
    return Arc{arc.centre, radius, arc.start, arc.sweep};
}

std::vector<Lane> lanesOf(const std::vector<OffsetEdge>& edges)
{
    std::vector<Lane> lanes;
    lanes.reserve(2 * edges.size());
    Run chords; // of an edge with free curves
    for (const auto& edge : edges) {
        std::span<const Segment> simple = edge.run;
        const auto isFree = [](const Segment& s) { return std::holds_alternative<Cubic>(s); };
        if (std::any_of(simple.begin(), simple.end(), isFree)) {
            chords.clear();
            for (const auto& s : edge.run)
                if (isFree(s))
                    for (const auto& chord : lineRun(flattened({s}, 0.002)))
                        chords.push_back(chord);
                else
                    chords.push_back(s);
            simple = chords;
        }
        const bool steady = edge.atStart == edge.atEnd;
        double whole = 0, along = 0;
        if (!steady)
            for (const auto& s : simple)
                whole += lengthOf(s);
        for (const auto& s : simple) {
            const double n = lengthOf(s);
            if (n <= kSame)
                continue;
            const double a = steady ? edge.atStart : std::lerp(edge.atStart, edge.atEnd, along / whole);
            const double b = steady ? edge.atEnd : std::lerp(edge.atStart, edge.atEnd, (along + n) / whole);
            along += n;
            if (const auto shape = offsetSegment(s, a, b))
                lanes.push_back({*shape, b, Corner::Mitre, edge.hem, endOf(s), a == b});
        }
        if (!lanes.empty())
            lanes.back().corner = edge.corner;
    }
    return lanes;
}

struct Ray {
    Point at, along;
};

std::optional<Point> meet(Ray a, Ray b)
{
    const double turn = cross(a.along, b.along);
    if (std::abs(turn) < kStraight)
        return std::nullopt;
    return a.at + a.along * (cross(b.at - a.at, b.along) / turn);
}

/// Crossing of a circle and a straight line nearest to @p near.
std::optional<Point> meet(const Arc& arc, Ray ray, Point near)
{
    const Point to = ray.at - arc.centre;
    const double b = dot(to, ray.along), c = dot(to, to) - arc.radius * arc.radius;
    const double q = b * b - c;
    if (q < 0)
        return std::nullopt;
    const Point p = ray.at + ray.along * (-b + std::sqrt(q)), r = ray.at + ray.along * (-b - std::sqrt(q));
    return distance(p, near) < distance(r, near) ? p : r;
}

std::optional<Point> meet(const Arc& a, const Arc& b, Point near)
{
    const Point d = b.centre - a.centre;
    const double n = norm(d);
    if (n < kSame || n > a.radius + b.radius || n < std::abs(a.radius - b.radius))
        return std::nullopt;
    const double along = (n * n + a.radius * a.radius - b.radius * b.radius) / (2 * n);
    const double off = std::sqrt(std::max(0.0, a.radius * a.radius - along * along));
    const Point foot = a.centre + unit(d) * along, side = rightOf(unit(d)) * off;
    return distance(foot + side, near) < distance(foot - side, near) ? foot + side : foot - side;
}

/// Ends @p s at @p p, or starts it there; p lies on its carrier.
Segment endingAt(const Segment& s, Point p)
{
    if (const auto* l = std::get_if<Line>(&s))
        return Line{l->a, p};
    Arc arc = std::get<Arc>(s);
    double sweep = std::remainder(std::atan2(p.y - arc.centre.y, p.x - arc.centre.x) - arc.start, 2 * pi);
    if (arc.sweep > 0 && sweep < -1e-9)
        sweep += 2 * pi;
    if (arc.sweep < 0 && sweep > 1e-9)
        sweep -= 2 * pi;
    arc.sweep = sweep;
    return arc;
}

Segment startingAt(const Segment& s, Point p) { return reversed(endingAt(reversed(s), p)); }

/// True if moving the end of the line to @p p turns it round: nothing of it is left.
bool consumed(const Segment& s, Point newEnd)
{
    const auto* l = std::get_if<Line>(&s);
    return l && dot(newEnd - l->a, l->b - l->a) <= 0;
}

/// Mirrored hem: the cut line of the side is reflected about the hem's stitch line.
void foldBack(const Lane& hem, const Lane& side, bool hemFirst, Run& between)
{
    const Point along = tangentOf(hem.shape, hemFirst ? 1 : 0);
    const Point hemAt = hemFirst ? endOf(hem.shape) : startOf(hem.shape);
    const Point stitchAt = hemAt - rightOf(along) * hem.distance;
    const Point sideAlong = tangentOf(side.shape, hemFirst ? 0 : 1);
    const Ray sideRay{hemFirst ? startOf(side.shape) : endOf(side.shape), sideAlong};
    const auto fold = meet(Ray{stitchAt, along}, sideRay);
    if (!fold)
        return;
    const Point mirrored = along * (2 * dot(sideAlong, along)) - sideAlong;
    const auto tip = meet(Ray{*fold, mirrored}, Ray{hemAt, along});
    if (!tip)
        return;
    if (hemFirst)
        between = lineRun({*tip, *fold});
    else
        between = lineRun({*fold, *tip});
}

/// Joins lane @p a to lane @p b; returns what lies between them. False if one of them is consumed by the join.
bool join(Lane& a, Lane& b, double limit, Run& between, bool& aGone)
{
    const Point p = endOf(a.shape), q = startOf(b.shape);
    if (distance(p, q) < kSame)
        return true;
    const Point ta = tangentOf(a.shape, 1), tb = tangentOf(b.shape, 0);
    const double turn = cross(ta, tb);
    if (std::abs(turn) < 1e-6 && dot(ta, tb) > 0) {
        between = lineRun({p, q});
        return true;
    }
    // Almost straight on, as where an evenly widening allowance begins: where the carriers meet may lie far away and
    // says nothing. The ends lie beside each other but for the turn of the stitch line, which moves them along by
    // distance × turn.
    const bool lineA = std::holds_alternative<Line>(a.shape), lineB = std::holds_alternative<Line>(b.shape);
    if (std::abs(turn) < (lineA && lineB ? kNearlyStraight : kNearlyTangent) && dot(ta, tb) > 0) {
        // The turn itself moves them apart by distance × (1 − cos turn).
        const double byTurn = std::max(std::abs(a.distance), std::abs(b.distance)) * (1 - dot(ta, tb));
        if (std::abs(cross(q - p, ta)) > byTurn + (a.steady && b.steady ? 0.02 : 1)) {
            between = lineRun({p, q}); // a step from one allowance to the other
            return true;
        }
        // An arc keeps its end, and a line whose distance is steady keeps its line: the widening one gives way.
        Point shared = lineA && lineB ? lerp(p, q, 0.5) : lineA ? q : p;
        if (lineA && lineB && a.steady != b.steady)
            shared = a.steady ? p : q;
        if (const auto x = lineA && lineB && a.steady && b.steady ? meet(Ray{p, ta}, Ray{q, tb}) : std::nullopt;
            x && distance(*x, p) < distance(p, q) + 0.1)
            shared = *x;
        if (lineA)
            a.shape = endingAt(a.shape, shared);
        if (lineB)
            b.shape = startingAt(b.shape, shared);
        if (!lineA && !lineB)
            between = lineRun({p, q});
        return true;
    }
    if (a.corner == Corner::FoldBack) {
        foldBack(a.hem ? a : b, a.hem ? b : a, a.hem, between);
        if (!between.empty()) {
            a.shape = endingAt(a.shape, startOf(between));
            b.shape = startingAt(b.shape, endOf(between));
            return true;
        }
    }
    const bool gap = turn * (a.distance + b.distance) >= 0;
    const auto* arcA = std::get_if<Arc>(&a.shape);
    const auto* arcB = std::get_if<Arc>(&b.shape);
    if (gap) {
        if (a.corner == Corner::Square) {
            between = lineRun({p, p + ta * std::abs(b.distance), q - tb * std::abs(a.distance), q});
            if (const auto x = meet(Ray{p, ta}, Ray{q, tb}); x && dot(ta, tb) > -kStraight)
                between = lineRun({p, *x, q});
            return true;
        }
        const auto x = meet(Ray{p, ta}, Ray{q, tb});
        const double wide = std::max(std::abs(a.distance), std::abs(b.distance));
        if (a.corner == Corner::Blunt || !x || distance(*x, a.vertex) > limit * wide) {
            between = lineRun({p, q});
            return true;
        }
        // Arcs run on along their tangents; lines simply get longer.
        if (arcA)
            between.push_back(Line{p, *x});
        else
            a.shape = endingAt(a.shape, *x);
        if (arcB)
            between.push_back(Line{*x, q});
        else
            b.shape = startingAt(b.shape, *x);
        return true;
    }
    std::optional<Point> x;
    if (arcA && arcB)
        x = meet(*arcA, *arcB, a.vertex);
    else if (arcA)
        x = meet(*arcA, Ray{q, tb}, a.vertex);
    else if (arcB)
        x = meet(*arcB, Ray{p, ta}, a.vertex);
    else
        x = meet(Ray{p, ta}, Ray{q, tb});
    if (!x) {
        between = lineRun({p, q});
        return true;
    }
    if (consumed(a.shape, *x)) {
        aGone = true;
        return false;
    }
    if (consumed(reversed(b.shape), *x)) {
        aGone = false;
        return false;
    }
    a.shape = endingAt(a.shape, *x);
    b.shape = startingAt(b.shape, *x);
    return true;
}

bool crossing(Point a, Point b, Point c, Point d, Point& where)
{
    const double denominator = cross(b - a, d - c);
    if (std::abs(denominator) < 1e-12)
        return false;
    const double t = cross(c - a, d - c) / denominator, u = cross(c - a, b - a) / denominator;
    constexpr double e = 1e-9;
    if (t <= e || t >= 1 - e || u <= e || u >= 1 - e)
        return false;
    where = lerp(a, b, t);
    return true;
}

} // namespace

Run offsetOutline(const std::vector<OffsetEdge>& edges, double mitreLimit)
{
    std::vector<Lane> fresh = lanesOf(edges), lanes;
    // A lane that a join consumes is dropped and all joins are made again without it.
    for (;;) {
        lanes = fresh;
        if (lanes.size() < 2)
            break;
        std::vector<Run> between(lanes.size());
        bool again = false;
        for (std::size_t i = 0; i < lanes.size() && !again; ++i) {
            const std::size_t next = (i + 1) % lanes.size();
            bool aGone = false;
            if (!join(lanes[i], lanes[next], mitreLimit, between[i], aGone)) {
                fresh.erase(fresh.begin() + std::ptrdiff_t(aGone ? i : next));
                again = true;
            }
        }
        if (again)
            continue;
        Run out;
        out.reserve(2 * lanes.size());
        for (std::size_t i = 0; i < lanes.size(); ++i) {
            if (lengthOf(lanes[i].shape) > kSame)
                out.push_back(lanes[i].shape);
            for (const auto& s : between[i])
                if (lengthOf(s) > kSame)
                    out.push_back(s);
        }
        return out;
    }
    Run out;
    for (const auto& lane : lanes)
        out.push_back(lane.shape);
    return out;
}

namespace {

/// Square of a point's distance from the straight between two points.
double squareTo(Point a, Point b, Point p)
{
    const Point d = b - a, to = p - a;
    const double n = dot(d, d), t = n > 0 ? std::clamp(dot(to, d) / n, 0.0, 1.0) : 0;
    const Point off = to - d * t;
    return dot(off, off);
}

/// Where one span's end lies on the other, both being parts of @p closed and not neighbours.
std::optional<Point> touch(const Polyline& closed, std::size_t a, std::size_t b)
{
    constexpr double within = 0.001; // mm
    const std::size_t n = closed.size() - 1, apart = std::max(a, b) - std::min(a, b);
    if (apart < 2 || apart + 1 >= n)
        return std::nullopt;
    // Chords about a very short one are near each other because of that.
    if (apart == 2 && distance(closed[std::min(a, b) + 1], closed[std::min(a, b) + 2]) < 10 * within)
        return std::nullopt;
    if (apart + 2 == n && distance(closed[(std::max(a, b) + 1) % n], closed[(std::max(a, b) + 2) % n]) < 10 * within)
        return std::nullopt;
    for (const auto& [end, span] : {std::pair{a, b}, {a + 1, b}, {b, a}, {b + 1, a}})
        if (squareTo(closed[span], closed[span + 1], closed[end]) < within * within)
            return closed[end];
    return std::nullopt;
}

} // namespace

std::optional<Point> selfCrossing(const Polyline& closed)
{
    struct Span {
        double x0, x1, y0, y1;
        std::size_t at;
    };
    std::vector<Span> spans;
    for (std::size_t i = 0; i + 1 < closed.size(); ++i) {
        const auto [x0, x1] = std::minmax(closed[i].x, closed[i + 1].x);
        const auto [y0, y1] = std::minmax(closed[i].y, closed[i + 1].y);
        spans.push_back({x0, x1, y0, y1, i});
    }
    std::sort(spans.begin(), spans.end(), [](const Span& a, const Span& b) { return a.x0 < b.x0; });
    Point where;
    for (std::size_t i = 0; i < spans.size(); ++i)
        for (std::size_t k = i + 1; k < spans.size() && spans[k].x0 <= spans[i].x1; ++k) {
            if (spans[k].y0 > spans[i].y1 || spans[k].y1 < spans[i].y0)
                continue;
            const auto a = spans[i].at, b = spans[k].at;
            if (crossing(closed[a], closed[a + 1], closed[b], closed[b + 1], where))
                return where;
            if (const auto there = touch(closed, a, b))
                return there;
        }
    return std::nullopt;
}

namespace {

/// Does a straight pass a point on the right, at the point's height?
inline bool passesRightOf(Point a, Point b, Point p)
{
    return (a.y > p.y) != (b.y > p.y) && p.x < a.x + (p.y - a.y) / (b.y - a.y) * (b.x - a.x);
}

} // namespace

bool insideOutline(const Polyline& closed, Point p)
{
    bool inside = false;
    for (std::size_t i = 0; i < closed.size(); ++i) // an end that misses its beginning by a hair leaves no gap
        inside ^= passesRightOf(closed[i], closed[(i + 1) % closed.size()], p);
    return inside;
}

double distanceTo(const Polyline& line, Point p)
{
    double best = 1e300;
    for (std::size_t i = 0; i + 1 < line.size(); ++i)
        best = std::min(best, squareTo(line[i], line[i + 1], p));
    return line.size() < 2 ? best : std::sqrt(best);
}

bool containsOutline(const Polyline& outer, const Polyline& inner, double slack)
{
    if (outer.empty() || inner.empty())
        return inner.empty();
    // The sides of the outer one by what heights they pass, so that a point is compared with those at its own only.
    const auto [low, high] = std::minmax_element(
        outer.begin(), outer.end(), [](const Point& a, const Point& b) { return a.y < b.y; });
    const std::size_t bands = std::clamp<std::size_t>(outer.size() / 2, 1, 64);
    const double least = low->y, most = high->y, perMm = most > least ? double(bands) / (most - least) : 0;
    const auto bandOf = [&](double y) { return std::min(bands - 1, std::size_t((y - least) * perMm)); };
    std::vector<std::pair<std::uint32_t, std::uint32_t>> sides; // band and side
    sides.reserve(4 * outer.size());
    for (std::size_t i = 0; i < outer.size(); ++i) {
        const auto [y0, y1] = std::minmax(outer[i].y, outer[(i + 1) % outer.size()].y);
        if (y0 < y1)
            for (std::size_t band = bandOf(y0), last = bandOf(y1); band <= last; ++band)
                sides.emplace_back(band, i);
    }
    std::vector<std::uint32_t> begins(bands + 1, 0);
    for (const auto& side : sides)
        ++begins[side.first + 1];
    std::partial_sum(begins.begin(), begins.end(), begins.begin());
    std::vector<std::pair<Point, Point>> byBand(sides.size());
    std::vector<std::uint32_t> next(begins.begin(), begins.end() - 1);
    for (const auto& [band, i] : sides)
        byBand[next[band]++] = {outer[i], outer[(i + 1) % outer.size()]};
    const auto inside = [&](Point p) {
        if (p.y < least || p.y > most)
            return false;
        bool in = false;
        const std::size_t band = bandOf(p.y);
        for (std::size_t i = begins[band]; i < begins[band + 1]; ++i)
            in ^= passesRightOf(byBand[i].first, byBand[i].second, p);
        return in;
    };
    return std::all_of(inner.begin(), inner.end(), [&](Point p) { return inside(p) || distanceTo(outer, p) <= slack; });
}

} // namespace tectonis
