// SPDX-License-Identifier: GPL-3.0-or-later
// Things to carry, set into the bag: where each stands, and whether it fits.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// A thing in its place. x, y, z as in the mock-up: centre, bottom, centre; mm.
struct PlacedThing {
    std::size_t index = 0; ///< of the thing in the design's list: names may be alike
    std::string name, place;
    double x = 0, y = 0, z = 0, width = 0, height = 0, thickness = 0;
    double overWidth = 0, overHeight = 0, overDepth = 0; ///< mm too large; positive: does not fit
};

/// Sets the things of the main space one behind the other from the front wall, others into their pockets.
/// A wide thing between round corners stands where the corners let it: it rises until it fits between them.
std::vector<PlacedThing> placeCarried(const Design& design, const Pattern& pattern);

/// How far a box of width @p thing rises in a space of width @p space with bottom corners of radius @p r before it
/// touches them.
double cornerRise(double thing, double space, double r);

/// Extra width a flat pocket needs beyond a thing's width and thickness (common practice, no source).
constexpr double pocketEase = 12;

/// Depth in mm that a thing of width @p thing finds in a space @p width × @p depth whose corners seen from above have
/// radius @p r.
double depthAt(double thing, double width, double depth, double r);

} // namespace tectonis
