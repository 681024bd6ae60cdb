// SPDX-License-Identifier: GPL-3.0-or-later
// What a bag weighs, and what its straps and handles carry: that and the things inside.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

struct Load {
    double cloth = 0;    ///< g of cloth and layers
    double fittings = 0; ///< g of metal, zips and other bought things whose weight the library knows
    double thread = 0;   ///< g, by its length and its Tex number (g for 1000 m)
    double things = 0;   ///< g of all things carried whose weight is known
    int unweighed = 0;   ///< things carried whose weight is not
    int unknown = 0;     ///< kinds of bought things whose weight is not
    double bag() const { return cloth + fittings + thread; }
    /// In g: of the bag, and of all that a strap carries.
    Working bagWorking(const SubjectId& subject) const;
    Working working(const SubjectId& subject) const;
};

Load loadOf(const Design& design, const Pattern& pattern);

} // namespace tectonis
