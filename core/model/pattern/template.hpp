// SPDX-License-Identifier: GPL-3.0-or-later
// What is printed of a piece: the whole of it, or the half that is laid on the folded cloth.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// The cut line that follows from a piece's edges and their allowances; an edge on the fold gets none.
Run cutLineOf(const Piece& piece);

/// Is the piece its own mirror image about the vertical through its middle: cut line, marks on the face and layers,
/// within 0.01 mm?
bool isSymmetric(const Piece& piece);

/// How often the piece's template can be folded, at most @p most times: about the vertical, and then about the
/// horizontal through its middle.
int foldsOf(const Piece& piece, int most);

/// The printed template. Of a piece cut on the fold: its right half, or upper right quarter, closed by edges on the
/// folds. Needs the cut line.
Piece templateOf(const Piece& piece);

} // namespace tectonis
