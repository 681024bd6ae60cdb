// SPDX-License-Identifier: GPL-3.0-or-later
// A strap longer than the cloth is wide: cut in equal strips that are joined.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

struct LongStrip {
    PieceId piece;
    std::string code;
    Message name, strip; ///< of the piece when it is one, and when it is several
    Message join;        ///< how its joins are called, of their number
    std::string material;
    double width = 0, cut = 0, length = 0, allowance = 0; ///< mm: finished and cut width, length of the whole
};

/// Draws it as copies of one piece, with the seams between them and the working of their length. Every join costs two
/// allowances; strips are no longer than the cloth is wide, less 20 mm for its edges (common practice, no source).
/// Webbing is bought as long as it is needed.
struct DrawnStrip {
    int count = 1;
    std::vector<SeamId> joins;
    std::vector<Act> make; ///< joined and folded, or its ends sealed
};
DrawnStrip drawLongStrip(FeatureScope& f, const LongStrip& strip);

} // namespace tectonis
