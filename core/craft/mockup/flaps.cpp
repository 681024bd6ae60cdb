// SPDX-License-Identifier: GPL-3.0-or-later
// Flaps of the folded bag: closed, a flap lies taut over the section of the body below it.
#include "mockup/folder.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kLean = 0.35;     // radians from the vertical of an open flap that goes over the mouth
constexpr double kLifted = pi / 3; // the same of one that hangs down

/// Part of a flat polygon in space with dot(v, along) >= at.
std::vector<Vec3> beyond(const std::vector<Vec3>& corners, Vec3 along, double at)
{
    std::vector<Vec3> out;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const Vec3 a = corners[i], b = corners[(i + 1) % corners.size()];
        const double da = dot(a, along) - at, db = dot(b, along) - at;
        if (da >= 0)
            out.push_back(a);
        if ((da > 0 && db < 0) || (da < 0 && db > 0))
            out.push_back(a + (b - a) * (da / (da - db)));
    }
    return out;
}

/// Corners of the convex hull, counter-clockwise (monotone chain).
Polyline hullOf(Polyline points)
{
    std::sort(points.begin(), points.end(), [](Point a, Point b) { return a.x != b.x ? a.x < b.x : a.y < b.y; });
    Polyline hull;
    const auto add = [&hull](Point q, std::size_t least) {
        // Corners nearer than a hundredth of a millimetre to the line are none.
        while (hull.size() > least + 1) {
            const Point a = hull[hull.size() - 2], b = hull.back();
            if (cross(b - a, q - a) > 0.01 * distance(a, q))
                break;
            hull.pop_back();
        }
        hull.push_back(q);
    };
    for (const Point q : points)
        add(q, 0);
    const std::size_t lower = hull.size() - 1;
    for (std::size_t i = points.size(); i-- > 0;)
        add(points[i], lower);
    hull.pop_back();
    return hull;
}

/// Twice the tangent of half the turn at b: mm that a parallel line is longer there per mm of distance.
double turnOf(Point a, Point b, Point c)
{
    return 2 * std::tan(std::abs(std::atan2(cross(b - a, c - b), dot(b - a, c - b))) / 2);
}

/// The way of a flap from its hinge at (0, 0), x outwards from the face, y up: taut over the body's section, but for
/// @p ease, by which it is longer on its way to the other face.
Polyline wayOver(const Polyline& section, double ease)
{
    const Polyline hull = hullOf(section);
    const std::size_t n = hull.size();
    if (n < 3)
        return {{0, 0}, {0, 1}};
    const auto at = [&](std::size_t i) { return hull[i % n]; };
    std::size_t first = 0; // the side on which the hinge lies
    double nearest = 1e9, share = 0;
    for (std::size_t i = 0; i < n; ++i) {
        const Point side = at(i + 1) - at(i);
        const double t = std::clamp(dot(at(i) * -1, side) / dot(side, side), 0.0, 1.0),
                     away = distance(lerp(at(i), at(i + 1), t), {0, 0});
        if (away < nearest - 1e-9)
            nearest = away, first = i, share = t;
    }
    double turned = 0; // until it comes down on the other side
    for (std::size_t i = first; i < first + n; ++i) {
        if (const Point side = at(i + 1) - at(i); side.y < -0.5 * distance(at(i), at(i + 1)))
            break;
        turned += turnOf(at(i), at(i + 1), at(i + 2));
    }
    const double lift = turned > 0 ? ease / turned : 0;
    const auto out = [](Point a, Point b) {
        const Point side = (b - a) * (1 / distance(a, b));
        return Point{side.y, -side.x};
    };
    Polyline way{lerp(at(first), at(first + 1), share) + out(at(first), at(first + 1)) * lift};
    for (std::size_t i = first + 1; i <= first + n; ++i) {
        const Point u = out(at(i - 1), at(i)), v = out(at(i), at(i + 1));
        way.push_back(at(i) + (u + v) * (lift / (1 + dot(u, v))));
    }
    return way;
}

} // namespace

bool Folder::layHinged(const Hinged& flap, Mockup& m)
{
    const Laid* under = find(flap.on, 0);
    const Piece *piece = m_pattern.piece(flap.piece), *lining = m_pattern.piece(flap.lining);
    if (!under || !piece)
        return false;
    // On a wall it hangs straight down; on what lies flat it lies flat as well.
    const Vec3 origin = under->at(flap.at), normal = normalAt(under->at, flap.at), level{normal.x, 0, normal.z};
    const bool lies = dot(level, level) < 0.1;
    const Vec3 up = lies ? unitOf(under->at(flap.at + Point{0, 0.1}) - origin) : Vec3{0, 1, 0},
               out = lies ? normal : unitOf(level), right = cross(up, out);
    const Box box = boundsOf(piece->stitch());
    Polyline way{{0, 0}, {flap.ease, 0}, {flap.ease, -box.height()}};
    if (flap.over) {
        Polyline section;
        const double half = box.width() / 2, middle = dot(origin, right);
        for (const auto& f : m.facets)
            if (f.kind == "cloth" || (f.kind == "zip" && dot(f.facing, f.facing) == 0))
                for (const Vec3 v : beyond(beyond(f.corners, right, middle - half), right * -1, -middle - half))
                    for (const double deeper : {0.0, m_filled})
                        section.push_back({dot(v - origin, out) - deeper, v.y - origin.y});
        way = wayOver(section, flap.ease);
    }
    std::vector<double> along{0}, bends;
    for (std::size_t i = 1; i < way.size(); ++i) {
        along.push_back(along.back() + distance(way[i - 1], way[i]));
        bends.push_back(flap.hinge - along.back());
    }
    // A flap that comes over the mouth has its right on the left of the face that it hangs from.
    const Vec3 across = flap.over ? right * -1 : right;
    const Fold closed = [=](Point q) {
        const double s = flap.hinge - q.y;
        std::size_t i = 1;
        while (i + 1 < way.size() && along[i] < s)
            ++i;
        const Point p = lerp(way[i - 1], way[i], (s - along[i - 1]) / std::max(1e-9, along[i] - along[i - 1]));
        return origin + across * q.x + out * p.x + up * p.y;
    };
    const Fold raised = [=, lean = flap.over ? kLean : kLifted](Point q) {
        const double s = flap.hinge - q.y;
        return origin + across * q.x + up * (s * std::cos(lean)) + out * (s * std::sin(lean));
    };
    Laid outer{
        piece, 0, flap.over && m_open ? raised : closed, {}, bends, "flap", false, {}, raised, Facet::Flap::Outside};
    // The lining is drawn as it is seen from its own side. It shows as the flap's back; what is set into it shows
    // there.
    const auto turned = [](const Fold& at) -> Fold { return [at](Point q) { return at({-q.x, q.y}); }; };
    addFacets(outer, m);
    m_laid.push_back(outer);
    if (lining)
        m_laid.push_back(
            {lining, 0, turned(outer.at), {}, bends, "flap lining", false, {}, turned(raised), Facet::Flap::Inside});
    return true;
}

} // namespace tectonis
