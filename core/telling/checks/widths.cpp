// SPDX-License-Identifier: GPL-3.0-or-later
// Every piece and interlining can be cut from its cloth's width with its grain along the cloth.
#include "checks/finding.hpp"

#include "cutting/cut_list.hpp"
#include "library/library.hpp"

#include <fmt/format.h>

namespace tectonis {

void checkWidths(const CheckInput& in, Findings& out)
{
    for (const auto& item : cutItems(in.pattern)) {
        const Material& m = in.pattern.material(item.material);
        if (m.width <= 0)
            continue;
        const Box box = boundsOf(alongCloth(item));
        const double across = m.oneWay || m.use == "face" ? box.height() : std::min(box.width(), box.height());
        if (across > m.width + 0.01)
            out.push_back({Severity::Error, "cloth-width", "", say("{} {}", item.code, item.name), item.pieceKey, "Cut",
                say("it is {} across the grain; {} is {} wide. Join it from two pieces or use a wider cloth.",
                    Len(across), m.name, Len(m.width)),
                {}});
    }
}

} // namespace tectonis
