// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/lays.hpp"

#include <algorithm>

namespace tectonis {

std::vector<Lay> laysFor(const std::vector<Bags>& run, int most)
{
    int all = 0;
    for (const auto& each : run)
        all += std::max(0, each.count);
    const int lays = (all + most - 1) / most;
    std::vector<Lay> out;
    int extra = 0; // where the next size's odd bags begin: they go round, so that no lay gets them all
    std::vector<std::vector<Bags>> each(static_cast<std::size_t>(lays));
    for (const auto& [pattern, count] : run) {
        for (int i = 0; i < lays; ++i) {
            const int odd = (i - extra + lays) % lays < count % lays ? 1 : 0;
            if (const int here = count / lays + odd; here > 0)
                each[std::size_t(i)].push_back({pattern, here});
        }
        extra = lays > 0 ? (extra + count) % lays : 0;
    }
    for (auto& bags : each) {
        const auto alike = std::find_if(out.begin(), out.end(), [&](const Lay& lay) { return lay.bags == bags; });
        if (alike != out.end())
            ++alike->times;
        else if (!bags.empty())
            out.push_back({bags, 1, makeMarkers(bags)});
    }
    return out;
}

double lengthFor(const std::vector<Lay>& lays, const MaterialId& material)
{
    double out = 0;
    for (const auto& lay : lays)
        for (const auto& marker : lay.markers)
            if (marker.material == material)
                out += lay.times * marker.length / (1 - marker.shrinks / 100);
    return out;
}

} // namespace tectonis
