// SPDX-License-Identifier: GPL-3.0-or-later
// What ends of zips bring into the seams that catch them: tabs, tape, chain.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

inline constexpr double kTabLap = 12; ///< mm of tape that a tab laps (common practice, no source)

/// The zip whose chain a seam's run passes over there, at one of its ends; null if it lies on cloth.
const Zip* zipUnder(const Pattern& pattern, const EdgeUse& use);

/// The zip that was laid on a piece's edge at the mouth, its ends in or near the sides; null for none.
const Zip* zipOn(const Pattern& pattern, const PieceId& wall);

/// Of a zip at the mouth the end on one side, as seen from the face.
const ZipEnd& endAt(const Zip& zip, bool right);

/// mm under the foot where a seam catches that end; all 0 where it ends short of the seam.
struct CaughtEnd {
    double cloth = 0; ///< the tab, folded, with its layers
    double tape = 0;  ///< of one side, if it goes as far
    double chain = 0; ///< closed, with its tapes; 0 where it does not run through, or its teeth are pulled. About 0.4
                      ///< of the gauge (common practice, no source; from memory)
    double beside(double hammered) const { return cloth * hammered + tape; }
    double middle(double hammered) const { return cloth * hammered + chain; }
};
CaughtEnd caughtOf(const Pattern& pattern, const Zip& zip, const ZipEnd& end);

} // namespace tectonis
