// SPDX-License-Identifier: GPL-3.0-or-later
// What is moved on a face can be lined up with the face's middle, its quarters, its edges, other parts.
#pragma once

#include "design/design.hpp"
#include "editing/movables.hpp"
#include "pattern/pattern.hpp"

#include <optional>
#include <string>
#include <vector>

namespace tectonis {

/// A line on the face that what is moved snaps to.
struct Alignment {
    bool upright = true; ///< it holds it sideways; else its height
    double at = 0;   ///< mm on the face as it stands: where Movable::at comes to, x of an upright one, y of a level one
    double line = 0; ///< where it is drawn: what is lined up may be an edge of what is moved
    /// What the dimension that follows becomes, so that it stays lined up in every size; empty: the number alone.
    std::string value;
    Message what; ///< "middle", "as Label"
};

/// Of what lies on @p site, or comes there, @p at; by what is said first: middle, quarters, edges, other parts.
std::vector<Alignment> alignmentsFor(
    const Design& design, const Pattern& seenIn, const Movable& moved, const Site& site, Point at);

/// The place with the nearest upright and the nearest level guide within @p reach mm, and within a third of the way to
/// the next one, and these.
struct LinedUp {
    Point at;
    std::vector<Alignment> with;
};
LinedUp linedUp(const std::vector<Alignment>& guides, Point at, double reach);

} // namespace tectonis
