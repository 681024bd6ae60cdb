// SPDX-License-Identifier: GPL-3.0-or-later
// Match marks: notches at the same stitch length on both mates of a seam.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Places notches on both runs of every construction seam, at the same share of their stitch length: joins of the mate,
/// stop squares at its sharp corners (over 15°) and where a partial seam ends, where curves begin and end, the centre
/// of every matched edge of 60 mm or more, and the quarters of each piece's run over 400 mm or once round. What shows
/// itself, a piece's own join or sharp corner, is not marked. Centres and quarters give way to what lies within 4 mm;
/// joins and stops never do. Common practice, no source. Needs measured seams.
void placeMatchMarks(Pattern& pattern);

} // namespace tectonis
