// SPDX-License-Identifier: GPL-3.0-or-later
// Walking a seam: one run rolled along its mate, and what meets on the way.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// A mark or a join on one or both runs. Distances are mm of stitch line from the seam's start; negative: that run has
/// nothing there.
struct WalkStop {
    double onA = -1, onB = -1;
    Message what; ///< "start", "centre", "join: A Front to C Gusset", "end"
    /// How far the two marks lie apart once the run's ease is shared out evenly; 0 where only one run has a mark.
    double apart = 0;
};

/// Start, end, joins between pieces, and every notch of both runs in order. Marks of the two runs within 2 mm of each
/// other are one stop.
std::vector<WalkStop> walked(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
