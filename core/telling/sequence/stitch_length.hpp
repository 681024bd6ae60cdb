// SPDX-License-Identifier: GPL-3.0-or-later
// How long stitches are, and how much thread a lockstitch takes.
#pragma once

#include "pattern/pattern.hpp"

#include <vector>

namespace tectonis {

/// What a row is sewn for.
enum class RowKind { Join, Topstitch, Baste };

/// In mm, from the shortest to the longest that will do.
struct StitchLength {
    double least = 0, most = 0;
    double middle() const { return (least + most) / 2; }
};

/// 2.5 to 3 mm to join, 3.5 to 4 to topstitch, 4 to 5 to baste; at least 3 where needle holes stay (common practice,
/// no source). A cloth that asks for a longer stitch gets it, half a millimetre being left to the sewer.
StitchLength stitchLength(const Pattern& pattern, const std::vector<PieceId>& through, RowKind kind);

/// Thread of both spools for each mm of a row of lockstitch (ISO 4915, type 301): 2·(1 + t/s). Geometry of a balanced
/// stitch: each thread runs along its side, s, and at every stitch to the middle of the stack and back, t.
/// @param stack t, mm under the foot; not less than 0.
/// @param stitch s, mm; more than 0.
double lockstitchUse(double stack, double stitch);

} // namespace tectonis
