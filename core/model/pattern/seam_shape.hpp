// SPDX-License-Identifier: GPL-3.0-or-later
// What the hand meets along a seam: curves, corners, straights, on either side. Plane geometry of the stitch lines.
#pragma once

#include "pattern/pattern.hpp"

#include <limits>

namespace tectonis {

/// One side of a seam from its start to its end.
struct SideShape {
    static constexpr double none = std::numeric_limits<double>::infinity();
    double convex = none, concave = none; ///< mm: the tightest radius of curves that bulge out of the piece, or into it
    int convexCorners = 0, concaveCorners = 0; ///< where the stitch line turns by more than 15° at once
    bool straights = false;                    ///< some of it is straight, for 20 mm or more
    bool bends() const { return convex < none || concave < none || convexCorners + concaveCorners > 0; }
};
SideShape shapeOf(const Pattern& pattern, const std::vector<EdgeUse>& side);

/// The pieces of one side, each once.
std::vector<PieceId> piecesOf(const std::vector<EdgeUse>& side);

/// The least and the greatest allowance beside a seam, mm; both 0 where it lies on faces only.
std::pair<double, double> allowancesOf(const Pattern& pattern, const Seam& seam);

/// Is there a mark to be matched anywhere on it?
bool hasMarks(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
