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
    double turn = 0;                                      ///< mm turned in at each long edge; more than 0: it is faced
    /// How its strips are joined: end to end, aslant at 45°, or lapped flat by twice the allowance and stitched
    /// through.
    enum class Joins { Straight, Diagonal, Lapped } joins = Joins::Straight;
    bool padded = false; ///< foam lies between it and its facing
    double clear = 0;    ///< mm at both ends that are left without it, where it is one strip
};

/// The choice "joins" of a part whose strap may be longer than its cloth is wide.
ChoiceSpec joinsChoice(const std::string& when);
/// What was chosen, of its value.
LongStrip::Joins joinsOf(const std::string& chosen);

/// Draws it as copies of one piece, with the seams between them and the working of their length. Every join costs two
/// allowances; strips are no longer than the cloth is wide, less 20 mm for its edges (common practice, no source).
/// Strips that are joined aslant are cut aslant at both ends, so that no two layers of the join lie on one spot when it
/// is folded; the outer ends are cut square in the end, which takes the strip's width once. Webbing is bought as long
/// as it is needed.
struct DrawnStrip {
    int count = 1;
    std::vector<PieceId> pieces; ///< the strip, and its facing
    std::vector<Act> make;       ///< joined and folded, or its ends sealed
};
DrawnStrip drawLongStrip(FeatureScope& f, const LongStrip& strip);

} // namespace tectonis
