// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/ways.hpp"

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

std::string trimmed(const std::string& text)
{
    const auto from = text.find_first_not_of(' '), to = text.find_last_not_of(' ');
    return from == std::string::npos ? std::string() : text.substr(from, to - from + 1);
}

} // namespace

std::vector<std::pair<std::string, std::string>> parsedWays(const std::string& text)
{
    std::vector<std::pair<std::string, std::string>> out;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t comma = std::min(text.find(',', from), text.size());
        const std::string one = text.substr(from, comma - from);
        if (const auto equals = one.find('='); equals != std::string::npos)
            if (std::string name = trimmed(one.substr(0, equals)), value = trimmed(one.substr(equals + 1));
                !name.empty() && !value.empty())
                out.emplace_back(std::move(name), std::move(value));
        from = comma + 1;
    }
    return out;
}

std::vector<std::pair<std::string, std::string>> otherWays(const Design& design)
{
    std::vector<std::pair<std::string, std::string>> out;
    std::set<std::string> said; // the first word about a choice counts
    const auto want = [&](const std::string& name, const std::string& value) {
        const auto chosen = design.choices.find(name);
        if (chosen != design.choices.end() && said.insert(name).second && chosen->second != value)
            out.emplace_back(name, value);
    };
    for (const auto& [name, value] : parsedWays(design.workshop.schools)) {
        want(name, value);
        const auto dot = name.find('.');
        for (const auto& part : design.features)
            if (dot != std::string::npos && part.kind == name.substr(0, dot))
                want(part.id + name.substr(dot), value);
    }
    return out;
}

} // namespace tectonis
