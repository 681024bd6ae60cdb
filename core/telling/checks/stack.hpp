// SPDX-License-Identifier: GPL-3.0-or-later
// What lies on one spot of the bag, whatever piece it belongs to: walls and the parts that they are cut into, what is
// laid on them, the lining behind.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// A piece's place on a wall: coordinates of the piece to those of the wall.
struct OnWall {
    PieceId wall; ///< the whole piece
    Placement to;
};

/// The walls that a piece is, is part of, or lies on: several for a patch with copies.
std::vector<OnWall> wallsOf(const Pattern& pattern, const Piece& piece);

/// The lining behind a wall that carries parts, with the way from the wall's coordinates to the lining's: seen from
/// inside, so mirrored, mouths level. Nothing where the wall has no lining of its own.
std::optional<OnWall> behind(const Pattern& pattern, const PieceId& wall);

} // namespace tectonis
