// SPDX-License-Identifier: GPL-3.0-or-later
// A neutral figure of chosen height beside or wearing the bag, to judge its size and the drop of strap or handle.
#pragma once

#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// How a bag is worn, in words and numbers.
struct Worn {
    Label how;             ///< "on the shoulder", "in the hand", "on the back", "on the floor"
    double drop = 0;       ///< mm from where it is held down to the mouth; 0 if it stands
    double mouthAbove = 0; ///< mm of the mouth above the floor
};

/// By strap, handles or shoulder straps, in that order; else it stands on the floor. The strap is taken at its longest,
/// halved over the shoulder.
Worn wornBy(const Pattern& pattern, double stature);

/// The figure's outline as facets of kind "figure", placed so that the bag is where it is worn. @p stature in mm.
/// Proportions of seven and a half heads as drawing teachers give them (common practice, no source).
std::vector<Facet> figureOf(const Pattern& pattern, double stature);

} // namespace tectonis
