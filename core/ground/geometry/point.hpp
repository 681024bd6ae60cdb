// SPDX-License-Identifier: GPL-3.0-or-later
// Points and vectors of the piece plane: millimetres, x to the right, y up.
#pragma once

#include <algorithm>
#include <cmath>
#include <numbers>

namespace tectonis {

constexpr double pi = std::numbers::pi;
constexpr double degrees(double radians) { return radians * 180 / pi; }
constexpr double radians(double degrees) { return degrees * pi / 180; }

struct Point {
    double x = 0, y = 0;
    friend constexpr Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
    friend constexpr Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
    friend constexpr Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
    friend constexpr bool operator==(Point a, Point b) = default;
};

constexpr double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }
constexpr double cross(Point a, Point b) { return a.x * b.y - a.y * b.x; }
/// A length in mm: nothing here is near the ends of what a double holds, which std::hypot would mind at a price.
inline double norm(Point a) { return std::sqrt(a.x * a.x + a.y * a.y); }
inline double distance(Point a, Point b) { return norm(b - a); }
constexpr Point lerp(Point a, Point b, double t) { return a + (b - a) * t; }
/// The vector turned a quarter to the right (clockwise): the outside of a counter-clockwise outline.
constexpr Point rightOf(Point v) { return {v.y, -v.x}; }
/// Unit vector; the zero vector stays zero.
inline Point unit(Point v)
{
    const double n = norm(v);
    return n > 0 ? v * (1 / n) : Point{};
}
inline Point polar(double angle) { return {std::cos(angle), std::sin(angle)}; }

struct Box {
    double x0 = 1e300, y0 = 1e300, x1 = -1e300, y1 = -1e300;
    bool empty() const { return x1 < x0; }
    double width() const { return empty() ? 0 : x1 - x0; }
    double height() const { return empty() ? 0 : y1 - y0; }
    Point centre() const { return {(x0 + x1) / 2, (y0 + y1) / 2}; }
    void add(Point p)
    {
        x0 = std::min(x0, p.x), y0 = std::min(y0, p.y), x1 = std::max(x1, p.x), y1 = std::max(y1, p.y);
    }
    void add(const Box& b)
    {
        if (!b.empty())
            add(Point{b.x0, b.y0}), add(Point{b.x1, b.y1});
    }
    bool contains(Point p, double slack = 0) const
    {
        return p.x >= x0 - slack && p.x <= x1 + slack && p.y >= y0 - slack && p.y <= y1 + slack;
    }
};

inline Box boxAround(Point middle, double halfWidth, double halfHeight)
{
    return {middle.x - halfWidth, middle.y - halfHeight, middle.x + halfWidth, middle.y + halfHeight};
}

/// Turned by quarters, counter-clockwise about the origin, without rounding.
inline Point quarterTurned(Point p, int quarters)
{
    switch ((quarters % 4 + 4) % 4) {
    case 1: return {-p.y, p.x};
    case 2: return {-p.x, -p.y};
    case 3: return {p.y, -p.x};
    default: return p;
    }
}

/// Rigid motion: turn by @c angle (radians, counter-clockwise) about the origin, then move; @c mirror flips x first.
struct Placement {
    double dx = 0, dy = 0, angle = 0;
    bool mirror = false;
    Point operator()(Point p) const
    {
        if (mirror)
            p.x = -p.x;
        const double c = std::cos(angle), s = std::sin(angle);
        return {p.x * c - p.y * s + dx, p.x * s + p.y * c + dy};
    }
};

} // namespace tectonis
