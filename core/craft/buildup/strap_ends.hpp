// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot where ends of straps, belts and handles are sewn down.
#pragma once

#include "buildup/bulk.hpp"

namespace tectonis {

/// How often a strap lies on itself where its end is sewn down: folded back over ring or slider, once more where its
/// raw end is turned under; both ends together on the wrist, lapped over each other where it is worn doubled; a belt's
/// end is folded over twice.
int layersAtEnd(Strap::Worn worn, bool turned);

struct StrapEnd {
    PieceId piece;
    Message name; ///< "End of the strap"
    Bulk bulk;
    int times = 1;     ///< how often the strap itself lies there
    double others = 0; ///< mm of what it is sewn to
};

/// Does the act sew down ends of its first piece: of a strap, a handle, a belt, a padded strap?
bool sewsEnds(const Act& act);

/// Are they sewn by hand, because the design says so and the machine does not take them?
bool endsByHand(const Pattern& pattern, const Act& act);

/// All of them: straps and belts at their hardware, handles and padded straps on their faces, webbing at its sliders.
std::vector<StrapEnd> strapEnds(const Pattern& pattern);

} // namespace tectonis
