// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/plans.hpp"

#include "geometry/outline.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {

Run roundedPlan(double width, double depth, double radius)
{
    const double w = width / 2, d = depth / 2, r = std::clamp(radius, 0.0, std::min(w, d));
    Run out;
    const auto line = [&](Point a, Point b) {
        if (distance(a, b) > 1e-9)
            out.push_back(Line{a, b});
    };
    const auto arc = [&](Point centre, double start) {
        if (r > 1e-9)
            out.push_back(Arc{centre, r, start, pi / 2});
    };
    line({-w, 0}, {-w, -d + r});
    arc({-w + r, -d + r}, pi);
    line({-w + r, -d}, {w - r, -d});
    arc({w - r, -d + r}, 1.5 * pi);
    line({w, -d + r}, {w, 0});
    line({w, 0}, {w, d - r});
    arc({w - r, d - r}, 0);
    line({w - r, d}, {-w + r, d});
    arc({-w + r, d - r}, pi / 2);
    line({-w, d - r}, {-w, 0});
    return out;
}

Run stadiumPlan(double width, double depth) { return roundedPlan(std::max(width, depth), depth, depth / 2); }

Run ellipsePlan(double width, double depth, double inset)
{
    const double a = width / 2, b = depth / 2;
    // A point of the parallel curve and its derivative: the ellipse's own, shortened by the curvature.
    const auto speed = [&](double t) { return std::hypot(a * std::sin(t), b * std::cos(t)); };
    const auto at = [&](double t) {
        return Point{
            a * std::cos(t) - inset * b * std::cos(t) / speed(t), b * std::sin(t) - inset * a * std::sin(t) / speed(t)};
    };
    const auto way = [&](double t) {
        return Point{-a * std::sin(t), b * std::cos(t)} * (1 - inset * a * b / std::pow(speed(t), 3));
    };
    // The ends turn with radius b²/a: a wider inset leaves a tip on the long axis, where the curve meets its mirror
    // image.
    double tip = 0;
    if (inset * a > b * b && a > b)
        tip = std::asin(std::sqrt(std::clamp((inset * inset * a * a / (b * b) - b * b) / (a * a - b * b), 0.0, 1.0)));
    constexpr int half = 16; // cubics of a half
    Run out;
    for (const double from : {pi + tip, 2 * pi + tip}) // the lower half, then the upper one
        for (int i = 0; i < half; ++i) {
            const double span = (pi - 2 * tip) / half, t0 = from + span * i, t1 = t0 + span,
                         k = 4.0 / 3 * std::tan(span / 4);
            out.push_back(Cubic{at(t0), at(t0) + way(t0) * k, at(t1) - way(t1) * k, at(t1)});
        }
    return out;
}

Run polygonPlan(int sides, double side)
{
    const double radius = side / (2 * std::sin(pi / sides));
    std::vector<Point> corners;
    for (int i = 0; i <= sides; ++i)
        corners.push_back(polar(-pi / 2 - pi / sides + 2 * pi * i / sides) * radius);
    corners.back() = corners.front();
    return lineRun(corners);
}

Run polygonPlan(const std::vector<double>& sides, const std::vector<double>& angles)
{
    std::vector<Point> corners{{0, 0}};
    double way = 0;
    for (std::size_t i = 0; i < sides.size(); ++i) {
        corners.push_back(corners.back() + polar(way) * sides[i]);
        if (i < angles.size())
            way += pi - radians(angles[i]);
    }
    Box box;
    for (const Point p : corners)
        box.add(p);
    for (Point& p : corners)
        p = p - box.centre();
    corners.push_back(corners.front());
    const std::size_t n = corners.size() - 1;
    const double last = distance(corners[n - 1], corners[0]);
    Run out = lineRun(corners);
    if (last < 5 || areaOf(out) <= 0 || selfCrossing(corners))
        throw InputError("angle",
            say("these sides and angles do not close to a face: the last side would be {} long, or cross another. The "
                "corners of {} sides sum up to {}°",
                Len(last), n, (n - 2) * 180));
    return out;
}

} // namespace tectonis
