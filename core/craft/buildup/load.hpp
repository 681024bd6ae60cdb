// SPDX-License-Identifier: GPL-3.0-or-later
// What a bag's straps and handles carry: its own weight and that of the things inside.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

struct Load {
    double bag = 0;                                  ///< g of cloth and layers; metal, zips and thread are not known
    double things = 0;                               ///< g of all things whose weight is known
    int unweighed = 0;                               ///< things whose weight is not
    Working working(const SubjectId& subject) const; ///< in g
};

Load loadOf(const Design& design, const Pattern& pattern);

} // namespace tectonis
