// SPDX-License-Identifier: GPL-3.0-or-later
// Polygons cut along bends: what of an outline lies between them.
#pragma once

#include "geometry/run.hpp"

#include <utility>
#include <vector>

namespace tectonis {

/// Corners of a closed run for the eye (curves as chords within 0.4 mm), the last not repeated.
Polyline openOutline(const Run& run);

/// Part of a polygon between two parallels to an axis; @p axis picks the coordinate that is bounded.
Polyline band(Polyline polygon, double low, double high, double Point::*axis);

/// Distance in mm of a point from a line through two points: positive to its left.
double sideOf(const Line& l, Point p);

/// Part of a polygon on one side of a line: @p side 1 for its left, -1 for its right.
Polyline beside(const Polyline& polygon, const Line& line, double side);

/// Bands between the bends that lie within @p low and @p high; the outer ones reach beyond.
std::vector<std::pair<double, double>> bandsOf(std::vector<double> bends, double low, double high);

} // namespace tectonis
