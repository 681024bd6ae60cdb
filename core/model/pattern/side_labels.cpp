// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/side_labels.hpp"

#include <algorithm>

namespace tectonis {

Label sideLabel(const std::string& side)
{
    // Each a literal, so that translators get it.
    static const std::vector<Label> all{label("left"), label("right"), label("front"), label("back"), label("top"),
        label("bottom"), label("across"), label("up"), label("front half"), label("flap half"), label("flap lining"),
        label("front of the bag"), label("left mouth"), label("right mouth"), label("base"), label("face")};
    const auto it = std::find_if(all.begin(), all.end(), [&](const Label& l) { return l.source == side; });
    return it == all.end() ? Label{side} : *it;
}

} // namespace tectonis
