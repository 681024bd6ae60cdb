// SPDX-License-Identifier: GPL-3.0-or-later
// What one bag costs: cloth by the marker, notions and thread by the library, labour and overhead by the workshop.
#pragma once

#include "cutting/consumables.hpp"
#include "cutting/cut_list.hpp"
#include "design/design.hpp"

namespace tectonis {

struct Cost {
    struct Notion {
        Hardware bought;
        const Good* good = nullptr; ///< that it is priced by; null: the library has none, and it costs nothing here
        double cost = 0;
    };
    /// A share of a needle, some adhesive or edge paint.
    struct UsedUp {
        Consumable what;
        const Good* good = nullptr; ///< as above
        double cost = 0;
    };
    double cloth = 0;
    std::vector<Notion> notions;
    std::vector<UsedUp> usedUp;
    double notionsCost = 0; ///< of both
    double minutes = 0, labour = 0, overhead = 0;
    double whole() const { return cloth + notionsCost + labour + overhead; }
};

/// The entry of a library that a thing is priced by: of a ready-made zip by its length, of what is cut from a length by
/// its kind alone. Null: the library has none.
const Good* goodFor(const Library& library, const Hardware& bought, const std::vector<std::string>& taken = {});

/// Money as in library and workshop. What is sold by the metre is charged by its length, of a spool of thread the share
/// that is used, of a needle, a tin of adhesive or edge paint likewise, all else by the piece. The minutes of the last
/// trial of that size that has any, else those predicted.
Cost costOf(const Design& design, const Pattern& pattern);

} // namespace tectonis
