// SPDX-License-Identifier: GPL-3.0-or-later
// What follows from an edit, in words: which pieces are cut otherwise and why, which layers, needles, stitches, tools,
// things and steps come and go, how much more is needed, what is wrong then.
#pragma once

#include "pattern/pattern.hpp"

#include <vector>

namespace tectonis {

struct Consequence {
    enum class Of { Cut, Layer, Work, Thing, Step, Sum, Snag } of = Of::Cut;
    Message what; ///< "strap: cut 31 × 1450 instead of 124 × 1450 (edges meet behind)"
};

/// From @p before to @p after, both in the base size of their design; by kind, in the pattern's order. Both are drafted
/// here. @throws InputError if either does not hold.
std::vector<Consequence> consequencesOf(const Design& before, const Design& after);

} // namespace tectonis
