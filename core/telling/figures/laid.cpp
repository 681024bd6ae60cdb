// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/laid.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

std::optional<Placement> laidOn(const Run& upper, const Run& lower, bool mirror, double slack)
{
    const double lu = lengthOf(upper), ll = lengthOf(lower);
    if (upper.empty() || lower.empty() || lu <= 0 || ll <= 0)
        return {};
    const auto turned = [&](double share) {
        Point p = pointAlong(upper, share * lu);
        if (mirror)
            p.x = -p.x;
        return p;
    };
    // By the ends; a run that closes has none, so a third of it has to do.
    const double far = distance(startOf(lower), endOf(lower)) > 0.2 * ll ? 1 : 1.0 / 3;
    const Point u = turned(far) - turned(0), l = pointAlong(lower, far * ll) - startOf(lower);
    Placement out;
    out.mirror = mirror;
    out.angle = std::atan2(l.y, l.x) - std::atan2(u.y, u.x);
    const Placement spin{0, 0, out.angle, mirror};
    const Point middle = (spin(pointAlong(upper, 0)) + spin(pointAlong(upper, far * lu))) * 0.5,
                wanted = (startOf(lower) + pointAlong(lower, far * ll)) * 0.5;
    out.dx = wanted.x - middle.x, out.dy = wanted.y - middle.y;
    for (int i = 0; i <= 12; ++i)
        if (distance(out(pointAlong(upper, lu * i / 12)), pointAlong(lower, ll * i / 12)) > slack)
            return {};
    return out;
}

StoodRound::StoodRound(
    const Run& own, bool ownLeft, const Run& edge, double from, double length, bool left, double squeeze)
    : m_own(flattened(own, 0.2)),
      m_edge(edge),
      m_ownLength(lengthOf(own)),
      m_from(from),
      m_length(length),
      m_squeeze(squeeze),
      m_ownLeft(ownLeft),
      m_left(left)
{
    m_along.push_back(0);
    for (std::size_t i = 1; i < m_own.size(); ++i)
        m_along.push_back(m_along.back() + distance(m_own[i - 1], m_own[i]));
    const auto corner = [&](const Segment& before, const Segment& after, double at) {
        const Point in = tangentOf(before, 1), out = tangentOf(after, 0);
        const double turn = std::atan2(cross(in, out), dot(in, out)) * (left ? 1 : -1); // inwards
        if (turn > radians(10))
            m_corners.push_back({at, std::tan(std::min(turn, radians(150)) / 2)});
    };
    double at = 0;
    for (std::size_t i = 0; i + 1 < edge.size(); ++i)
        corner(edge[i], edge[i + 1], at += lengthOf(edge[i]));
    if (edge.size() > 1 && distance(startOf(edge), endOf(edge)) < 0.1) {
        corner(edge.back(), edge.front(), 0);
        corner(edge.back(), edge.front(), lengthOf(edge));
    }
}

Point StoodRound::placed(Point p) const
{
    double best = 1e300, along = 0, inside = 0;
    for (std::size_t i = 0; i + 1 < m_own.size(); ++i) {
        const Point a = m_own[i], b = m_own[i + 1], v = b - a;
        const double n = norm(v);
        if (n <= 0)
            continue;
        // Past the ends the first and the last piece go straight on.
        const double low = i == 0 ? -1e9 : 0, high = i + 2 == m_own.size() ? 1e9 : 1;
        const double t = std::clamp(dot(p - a, v) / (n * n), low, high);
        const double d = distance(p, a + v * t);
        if (d < best - 1e-9) {
            best = d;
            along = m_along[i] + t * n;
            inside = cross(v, p - a) / n * (m_ownLeft ? 1 : -1) >= 0 ? d : -d;
        }
    }
    const double share = m_ownLength > 0 ? along / m_ownLength : 0, deep = inside > 0 ? inside * m_squeeze : inside;
    // On the edge's own stretch, and clear of its corners by the mitre.
    double s = m_from + std::clamp(share, 0.0, 1.0) * m_length;
    const double past = (share - std::clamp(share, 0.0, 1.0)) * m_length;
    for (const auto& c : m_corners)
        if (const double least = deep * c.slope; deep > 0 && std::abs(s - c.at) < least) {
            const bool after = std::abs(m_from - c.at) < 0.5 || (s > c.at && std::abs(m_from + m_length - c.at) > 0.5);
            s = after ? c.at + least : c.at - least;
        }
    const double whole = lengthOf(m_edge), on = std::clamp(s, 1e-6, whole - 1e-6);
    const Point tangent = tangentAlong(m_edge, std::clamp(on, m_from + 1e-4, m_from + m_length - 1e-4)),
                in = rightOf(tangent) * (m_left ? -1 : 1);
    return pointAlong(m_edge, on) + tangent * past + in * deep;
}

Polyline StoodRound::operator()(const Polyline& closed) const
{
    Polyline out;
    for (const Point p : dense(closed, 6))
        out.push_back(placed(p));
    return out;
}

Polyline dense(const Polyline& closed, double step)
{
    Polyline out;
    for (std::size_t i = 0; i < closed.size(); ++i) {
        const Point a = closed[i], b = closed[(i + 1) % closed.size()];
        const int n = std::max(1, int(std::ceil(distance(a, b) / step)));
        for (int k = 0; k < n; ++k)
            out.push_back(lerp(a, b, double(k) / n));
    }
    return out;
}

Polyline cutOff(const Polyline& closed, Point at, Point normal)
{
    Polyline out;
    for (std::size_t i = 0; i < closed.size(); ++i) {
        const Point a = closed[i], b = closed[(i + 1) % closed.size()];
        const double da = dot(a - at, normal), db = dot(b - at, normal);
        if (da >= 0)
            out.push_back(a);
        if ((da < 0) != (db < 0))
            out.push_back(lerp(a, b, da / (da - db)));
    }
    return out;
}

Polyline mirrored(const Polyline& points, Point at, Point normal)
{
    Polyline out;
    for (const Point p : points)
        out.push_back(p - normal * (2 * dot(p - at, normal)));
    return out;
}

} // namespace tectonis
