// SPDX-License-Identifier: GPL-3.0-or-later
// What can be done to have less of a seam under the foot.
#pragma once

#include "buildup/bulk.hpp"

namespace tectonis {

/// Where along its making a seam is thick.
enum class ThickSpot { Row, Crossing, Topstitch, TopstitchCrossing };
/// In a topstitched row, not in the seam's own?
bool isRow(ThickSpot spot);

/// Does a step topstitch it?
bool isTopstitched(const Pattern& pattern, const Seam& seam);

/// Where it is too thick for the workshop's machine, or else where it is thickest when it is sewn.
ThickSpot worstSpot(const Pattern& pattern, const Seam& seam);

/// What lies under the foot there.
double thickAt(const Pattern& pattern, const Seam& seam, ThickSpot spot, const Instead& instead = {});

/// Something that makes less of a seam lie under the foot.
struct Remedy {
    enum class Kind { Trim, Grade, Open, ZipEnd, Aside, Hammer, Hand };
    Kind kind = Kind::Trim;
    std::vector<SeamId> seams{}; ///< at which it is done: the seam, or what crosses it
    BulkPart layer{};            ///< that is trimmed, of Trim
    ZipId zip{};                 ///< whose end is made another way, of ZipEnd
    tectonis::ZipEnd::Kind end{};
    double gain = 0, leaves = 0; ///< mm less at the spot, and what lies there with it
    bool done = false;           ///< it is done already
    Message whyNot{};            ///< why it cannot be done, or is no use; empty where it can
    bool useful() const { return !done && whyNot.empty(); }
};
/// All of them in the order of the trade: trim interlining out of the allowance, grade, press open, change the order,
/// hammer flat, sew by hand; and where an end of a zip lies there, another way to make it that is thinner.
std::vector<Remedy> remediesFor(const Pattern& pattern, const Seam& seam, ThickSpot spot);

/// Of a seam that is sewn by hand where the machine does not take it: mm of its row that are. @p spot Row or Topstitch.
double sewnByHand(const Pattern& pattern, const Seam& seam, ThickSpot spot);

/// Why one of its allowances cannot be graded, or it cannot be pressed open; empty where it can.
Message whyNotGraded(const Pattern& pattern, const Seam& seam);
Message whyNotOpened(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
