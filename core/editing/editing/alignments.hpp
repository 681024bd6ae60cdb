// SPDX-License-Identifier: GPL-3.0-or-later
// What a part that is moved on a face can be lined up with: the face's middle, its quarters, its edges, other parts.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"

#include <optional>
#include <string>
#include <vector>

namespace tectonis {

/// A line on the face that the part snaps to.
struct Alignment {
    bool upright = true; ///< it holds the middle of the part's upper edge sideways; else the upper edge's height
    double at = 0;       ///< mm on the face's piece: x of an upright one, y of a level one
    double line = 0;     ///< where it is drawn: what is lined up may be another edge of the part
    /// What "PART.across" or "PART.drop" becomes, so that it stays lined up in every size; empty: the number alone.
    std::string value;
    Message what; ///< "middle", "as Label"
};

/// Of a part that lies on @p site, or comes there; by what is said first: middle, quarters, edges, other parts.
std::vector<Alignment> alignmentsFor(
    const Design& design, const Pattern& seenIn, const PartId& part, const Site& site, Point upperMiddle);

/// The place with the nearest upright and the nearest level guide within @p reach mm, and these.
struct LinedUp {
    Point at;
    std::vector<Alignment> with;
};
LinedUp linedUp(const std::vector<Alignment>& guides, Point upperMiddle, double reach);

} // namespace tectonis
