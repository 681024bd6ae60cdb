// SPDX-License-Identifier: GPL-3.0-or-later
// Bags of pockets that hang free behind a face, and the seams round it that would catch them.
#pragma once

#include "pattern/pattern.hpp"

#include <vector>

namespace tectonis {

/// A bag whose raw edges reach past the stitch line of a seam that is sewn once it hangs there.
struct CaughtBag {
    enum class Way { Left, Right, Below, Above };
    const PocketBag* bag = nullptr; ///< of the pattern, which must outlive this
    const Seam* seam = nullptr;
    Way way = Way::Left; ///< where the seam lies, as the face stands upright
    double by = 0;       ///< mm past the stitch line at most
};

/// All of them: a seam once for each way in which a bag reaches past it.
std::vector<CaughtBag> caughtBags(const Pattern& pattern);

} // namespace tectonis
