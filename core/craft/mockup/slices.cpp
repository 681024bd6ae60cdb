// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/slices.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

Polyline openOutline(const Run& run)
{
    Polyline line = flattened(run, 0.4);
    if (line.size() > 1 && distance(line.front(), line.back()) < 1e-6)
        line.pop_back();
    return line;
}

Polyline band(Polyline polygon, double low, double high, double Point::*axis)
{
    // Sutherland-Hodgman, twice.
    for (const double sign : {1.0, -1.0}) {
        const double limit = sign > 0 ? low : -high;
        Polyline kept;
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point a = polygon[i], b = polygon[(i + 1) % polygon.size()];
            const double da = sign * a.*axis - limit, db = sign * b.*axis - limit;
            if (da >= 0)
                kept.push_back(a);
            if ((da > 0 && db < 0) || (da < 0 && db > 0))
                kept.push_back(lerp(a, b, da / (da - db)));
        }
        polygon = kept;
    }
    return polygon;
}

double sideOf(const Line& l, Point p) { return cross(unit(l.b - l.a), p - l.a); }

Polyline beside(const Polyline& polygon, const Line& line, double side)
{
    Polyline kept;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point a = polygon[i], b = polygon[(i + 1) % polygon.size()];
        const double da = side * sideOf(line, a), db = side * sideOf(line, b);
        if (da >= -1e-9)
            kept.push_back(a);
        if ((da > 1e-9 && db < -1e-9) || (da < -1e-9 && db > 1e-9))
            kept.push_back(lerp(a, b, da / (da - db)));
    }
    return kept;
}

std::vector<std::pair<double, double>> bandsOf(std::vector<double> bends, double low, double high)
{
    std::erase_if(bends, [&](double b) { return b <= low + 1e-6 || b >= high - 1e-6; });
    std::sort(bends.begin(), bends.end());
    std::vector<std::pair<double, double>> out;
    double from = low - 1;
    for (const double b : bends) {
        out.push_back({from, b});
        from = b;
    }
    out.push_back({from, high + 1});
    return out;
}

} // namespace tectonis
