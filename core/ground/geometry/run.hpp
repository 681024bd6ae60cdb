// SPDX-License-Identifier: GPL-3.0-or-later
// A run: lines, arcs and cubics end to end. Stitch lines, cut lines and placement lines are all runs.
#pragma once

#include "geometry/point.hpp"

#include <variant>
#include <vector>

namespace tectonis {

using Polyline = std::vector<Point>;

struct Line {
    Point a, b;
};

/// Circular arc about @c centre from @c start (radians) through @c sweep: positive turns left (counter-clockwise).
struct Arc {
    Point centre;
    double radius = 0, start = 0, sweep = 0;
};

/// Cubic Bézier curve.
struct Cubic {
    Point p0, p1, p2, p3;
};

using Segment = std::variant<Line, Arc, Cubic>;
using Run = std::vector<Segment>;

Point startOf(const Segment& s);
Point endOf(const Segment& s);
/// Length in mm: exact for lines and arcs, Gauss-Legendre to better than 1e-6 mm for cubics of bag size.
double lengthOf(const Segment& s);
/// Unit tangent at parameter @p t in 0..1; for a zero-length segment the zero vector.
Point tangentOf(const Segment& s, double t);
/// The point at distance @p along (mm) from the start, clamped to the ends.
Point pointAlong(const Segment& s, double along);
Segment reversed(const Segment& s);
Segment placed(const Segment& s, const Placement& m);
/// The part between distances @p from and @p to (mm) from the start.
Segment part(const Segment& s, double from, double to);

double lengthOf(const Run& r);
Point startOf(const Run& r);
Point endOf(const Run& r);
Point pointAlong(const Run& r, double along);
Point tangentAlong(const Run& r, double along);
Run reversed(const Run& r);
Run placed(const Run& r, const Placement& m);
Run part(const Run& r, double from, double to);

/// Corner points of a run; curves are broken into chords no further than @p sagitta mm from the curve.
/// The last point of a closed run repeats the first.
Polyline flattened(const Run& r, double sagitta = 0.02);
Box boundsOf(const Run& r);
/// Signed area in mm² enclosed by a closed run: positive when it turns left. Exact (Green's theorem) for lines, arcs
/// and cubics.
double areaOf(const Run& r);

/// Straight run through points.
Run lineRun(const std::vector<Point>& points);
/// Circle or part of one, about the centre.
Run circleRun(Point centre, double radius);
Run rectangleRun(double x0, double y0, double x1, double y1);

} // namespace tectonis
