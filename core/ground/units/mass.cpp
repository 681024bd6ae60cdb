// SPDX-License-Identifier: GPL-3.0-or-later
#include "units/mass.hpp"

#include "units/error.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <string>

namespace tectonis {

double parseGrams(std::string_view given)
{
    std::string text;
    for (const char c : given)
        if (c != ' ')
            text += c == ',' ? '.' : c;
    if (text.empty())
        return 0;
    double value = 0;
    const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), value);
    const std::string_view unit(end, std::size_t(text.data() + text.size() - end));
    const double times = unit.empty() || unit == "g" ? 1
        : unit == "kg"                               ? 1000
        : unit == "lb"                               ? gramsPerPound
        : unit == "oz"                               ? gramsPerPound / 16
                                                     : 0;
    if (problem != std::errc() || times == 0 || !std::isfinite(value) || value < 0)
        throw InputError(
            std::string(given.substr(0, 40)), say("this is no weight; write 450, 450 g, 1.2 kg, 3 oz or 2 lb"));
    return value * times;
}

} // namespace tectonis
