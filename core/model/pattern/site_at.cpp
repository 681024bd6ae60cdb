// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/site_at.hpp"

#include <algorithm>

namespace tectonis {

const Site* siteAt(const Pattern& p, const PieceId& piece, const std::optional<Point>& on)
{
    const Site* best = nullptr;
    double nearest = 1e300;
    for (const auto& site : p.sites)
        if (std::find(site.pieces.begin(), site.pieces.end(), piece) != site.pieces.end()) {
            const double y = on ? site.upright(*on).y : site.top;
            if (const double away = std::max({0.0, y - site.top, site.top - site.height - y}); away < nearest)
                best = &site, nearest = away;
        }
    return best;
}

} // namespace tectonis
