// SPDX-License-Identifier: GPL-3.0-or-later
// How narrow the allowance of a cloth may be.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// What is left of an allowance must hold the row. Common practice, no source: 3 mm beside the row; 2.5 mm more for
/// what frays away, 1 mm where a fused layer holds the threads, or the edge is turned in; 1 mm more where needle holes
/// stay, so that the edge does not tear off along them; and twice the thickness of what lies in it, which turns over
/// when the seam is pressed open or to a side.
struct LeastAllowance {
    double least = 0;   ///< mm
    double thick = 0;   ///< mm: the cloth with the layers that stay in the seam
    bool frays = false; ///< the cloth does
    bool held = false;  ///< by a fused layer, or turned in
    bool holes = false; ///< stay in it
    Working working(const SubjectId& subject) const;
    Message why() const; ///< "frays; 0.75 mm thick"
};

/// Of a piece's cloth with the layers that are fused or quilted into the allowance of an edge; @p turnedIn: it lies
/// between layers that are turned.
LeastAllowance leastAllowance(const Pattern& pattern, const Piece& piece, const EdgeId& edge, bool turnedIn = false);
/// The largest of all edges that a seam joins.
LeastAllowance leastAllowance(const Pattern& pattern, const Seam& seam);
/// The largest of all construction seams of a coat, those of its mouth left out.
LeastAllowance leastAllowance(const Pattern& pattern, Coat coat);

} // namespace tectonis
