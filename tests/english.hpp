// SPDX-License-Identifier: GPL-3.0-or-later
// Messages as tests read them: in English, lengths in mm, or as "{9.525}" where the exact figure matters.
#pragma once

#include "units/length.hpp"
#include "words/language.hpp"

#include <ostream>

namespace tectonis {

inline bool operator==(const Message& m, const char* english) { return words(m) == english; }
inline std::ostream& operator<<(std::ostream& out, const Message& m) { return out << words(m); }

/// In English with every length as its millimetres in braces.
inline std::string exactly(const Message& m)
{
    const std::function<Message(const Message&)> braced = [&](const Message& each) {
        std::vector<MessageArgument> out(each.arguments().begin(), each.arguments().end());
        for (auto& a : out)
            if (const auto* length = std::get_if<Len>(&a))
                a = "{" + formatNumber(length->mm, 3) + "}";
            else if (const auto* inside = std::get_if<Message>(&a))
                a = braced(*inside);
        return each.withArguments(std::move(out));
    };
    return words(braced(m));
}

} // namespace tectonis
