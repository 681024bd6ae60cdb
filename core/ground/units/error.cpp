// SPDX-License-Identifier: GPL-3.0-or-later
#include "units/error.hpp"

#include <cmath>

namespace tectonis {

Message outside(double value, double least, double most, const char* unit)
{
    const bool shown = std::isfinite(value) && std::abs(value) < 1e15;
    if (std::string_view(unit) == "mm")
        return shown
            ? say("{} is outside the allowed {} to {}", Len(value, value < least ? least : most), Len(least), Len(most))
            : say("that is outside the allowed {} to {}", Len(least), Len(most));
    // Each a literal, so that translators get it.
    [[maybe_unused]] static const Label units[] = {
        label("m a minute"), label("an hour"), label("min"), label("%"), label("g/m²")};
    const Message range = *unit ? say("{} {}", Num(most), label(unit)) : say("{}", Num(most));
    return shown ? say("{} is outside the allowed {} to {}", Num(value), Num(least), range)
                 : say("that is outside the allowed {} to {}", Num(least), range);
}

} // namespace tectonis
