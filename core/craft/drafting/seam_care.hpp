// SPDX-License-Identifier: GPL-3.0-or-later
// What the design wants done at thick seams, as acts of the steps that sew them.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// Hammers the ends of straps, handles and belts that the design says, before they are sewn down.
void careForEnds(Drafter& d);

/// Grades, opens, hammers the seams that the design says, in the steps that sew them; seams that are not there, and
/// what cannot be done at one, are passed over (checks/bulk tells it). Then marks every seam that a step presses open
/// or grades.
void careForSeams(Drafter& d);

} // namespace tectonis
