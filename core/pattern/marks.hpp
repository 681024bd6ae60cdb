// SPDX-License-Identifier: GPL-3.0-or-later
// Match marks: notches at the same stitch length on both mates of a seam.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Places notches on both runs of every construction seam: centre of every matched edge, quarters on runs over 400 mm,
/// where a corner begins and ends, and the joins of the mate. Needs measured seams.
void placeMatchMarks(Pattern& pattern);

} // namespace tectonis
