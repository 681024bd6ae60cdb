// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/spec.hpp"

#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace tectonis {

SizeRule parseRule(const std::string& text)
{
    const auto space = text.find(' ');
    const std::string word = text.substr(0, space), rest = space == std::string::npos ? "" : text.substr(space + 1);
    const auto amount = [&](const std::string& s) {
        double plain = 0; // as it is written to a file, also "1e-05"
        if (const auto [end, error] = std::from_chars(s.data(), s.data() + s.size(), plain);
            error == std::errc{} && end == s.data() + s.size() && std::isfinite(plain))
            return plain;
        try {
            return parseLength(s);
        } catch (const InputError&) {
            throw InputError(say("size rule"), say("“{}” is no amount", s));
        }
    };
    if (word == "hold" && rest.empty())
        return hold();
    if (word == "follow" && rest.empty())
        return follow();
    if (word == "step")
        return step(amount(rest));
    if (word == "ratio")
        return ratio(amount(rest));
    if (word == "stock") {
        const auto split = rest.find(' ');
        SizeRule rule = stock(rest.substr(0, split));
        if (rule.stock.empty())
            throw InputError(say("size rule"), say("name a stock table: stock zip"));
        if (split != std::string::npos)
            rule.amount = amount(rest.substr(split + 1));
        return rule;
    }
    throw InputError(
        say("size rule"), say("“{}” is no rule; write hold, follow, step 20, ratio 1.08 or stock zip", text));
}

std::string ruleText(const SizeRule& rule)
{
    switch (rule.kind) {
    case SizeRule::Kind::Hold: return "hold";
    case SizeRule::Kind::Follow: return "follow";
    case SizeRule::Kind::Step: return fmt::format("step {}", rule.amount);
    case SizeRule::Kind::Ratio: return fmt::format("ratio {}", rule.amount);
    case SizeRule::Kind::Stock:
        return rule.amount == 0 ? "stock " + rule.stock : fmt::format("stock {} {}", rule.stock, rule.amount);
    }
    return "hold";
}

} // namespace tectonis
