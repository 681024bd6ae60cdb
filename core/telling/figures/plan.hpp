// SPDX-License-Identifier: GPL-3.0-or-later
// What lies on what in a step: its leading act seen from above.
#pragma once

#include "figures/scene.hpp"
#include "pattern/pattern.hpp"

#include <optional>

namespace tectonis {

/// Empty where a step handles no piece.
Scene planOf(const Pattern& pattern, const Step& step);

/// One side of a seam from its start to its end, in the coordinates of its pieces.
Run runOf(const Pattern& pattern, const std::vector<EdgeUse>& side);

/// Is the inside of its first piece to the left of that run? Outlines go counter-clockwise.
bool insideLeft(const Pattern& pattern, const std::vector<EdgeUse>& side);

/// Where a piece comes to lie, wrong side up, on the right side of another one, its seam's run on @p edge and its
/// inside on the side where the other's is: to the left if @p left. None if the runs part by more than @p slack mm.
std::optional<Placement> laidOver(
    const Pattern& pattern, const std::vector<EdgeUse>& upper, const Run& edge, bool left, double slack);

/// What a piece looks like from its right side.
Skin skinOf(const Piece& piece);

/// The act of a step that its plan shows: the one that moves most.
const Act* leadingAct(const Step& step);
/// Does it put pieces together or turn them, rather than work on what lies there?
bool movesPieces(const Act& act);

} // namespace tectonis
