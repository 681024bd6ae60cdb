// SPDX-License-Identifier: GPL-3.0-or-later
// Closed plans of bases: counter-clockwise about the origin, beginning at the middle of the left end. Millimetres.
#pragma once

#include "geometry/run.hpp"

namespace tectonis {

/// Rectangle with round corners; @p radius 0 for square ones, at most half the shorter side.
Run roundedPlan(double width, double depth, double radius);
/// Two half circles of diameter @p depth joined by straights; a circle if width is depth. Width is at least depth.
Run stadiumPlan(double width, double depth);
/// Ellipse on its axes, or its parallel curve @p inset mm inside: no ellipse, and 2π·inset shorter. As cubics whose
/// length is right to better than 0.001 mm at bag size. Where the ends are rounder than the inset allows, the curve is
/// closed at two tips on the long axis.
Run ellipsePlan(double width, double depth, double inset = 0);
/// Regular polygon with a side at the bottom, by the length of its sides; begins at its lowest left corner.
Run polygonPlan(int sides, double side);
/// Polygon by its own sides and interior angles (degrees): the first side lies at the bottom, angles[i] lies between
/// sides i and i + 1, and one more side closes it. Centred on its box; begins at the first side's left end. @throws
/// InputError if it does not close to a face without crossing itself.
Run polygonPlan(const std::vector<double>& sides, const std::vector<double>& angles);

} // namespace tectonis
