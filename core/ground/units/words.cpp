// SPDX-License-Identifier: GPL-3.0-or-later
#include "units/words.hpp"

#include <cctype>
#include <charconv>

namespace tectonis {

std::string lengthToken(double mm) { return "{" + formatNumber(mm, 3) + "}"; }

std::string verbatim(const std::string& name)
{
    std::string out;
    for (const char c : name)
        out += c == '{' ? "{{" : std::string(1, c);
    return out;
}

std::string inUnit(std::string_view words, Unit unit)
{
    std::string out;
    out.reserve(words.size() + 16);
    while (!words.empty()) {
        const auto open = words.find('{');
        out += words.substr(0, open);
        if (open == std::string_view::npos)
            break;
        const auto close = words.find('}', open);
        double mm = 0;
        const char* const first = words.data() + open + 1;
        const char* const last = close == std::string_view::npos ? first : words.data() + close;
        if (const auto read = std::from_chars(first, last, mm);
            last > first && read.ec == std::errc() && read.ptr == last) {
            out += formatLength(mm, unit);
            words.remove_prefix(close + 1);
        } else {
            const bool twice = words.substr(open).starts_with("{{");
            out += '{';
            words.remove_prefix(open + (twice ? 2 : 1));
        }
    }
    return out;
}

std::string lowered(std::string name)
{
    if (!name.empty())
        name[0] = char(std::tolower(static_cast<unsigned char>(name[0])));
    return name;
}

} // namespace tectonis
