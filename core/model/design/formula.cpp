// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/formula.hpp"

#include "geometry/point.hpp"
#include "ids/glance.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>
#include <muParser.h>

#include <charconv>
#include <deque>
#include <memory>
#include <unordered_map>

namespace tectonis {
namespace {

constexpr std::size_t kMostNames = 40;

struct Compiled {
    mu::Parser parser;
    std::deque<double> slots; // std::deque: muParser keeps the addresses
    std::vector<std::string> names;

    static double* addName(const char* name, void* self)
    {
        auto& c = *static_cast<Compiled*>(self);
        c.names.emplace_back(name);
        return &c.slots.emplace_back(1.0);
    }

    explicit Compiled(const std::string& formula)
    {
        // A file may come from anywhere: muParser's own depth grows with the text.
        if (formula.size() > 400)
            throw InputError("", say("the formula is longer than 400 characters"));
        parser.DefineNameChars("0123456789_.abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ");
        parser.DefineConst("pi", pi);
        parser.DefinePostfixOprt("mm", [](double v) { return v; });
        parser.DefinePostfixOprt("cm", [](double v) { return v * 10; });
        parser.DefinePostfixOprt("in", [](double v) { return v * mmPerInch; });
        parser.SetVarFactory(addName, this);
        try {
            parser.SetExpr(formula);
            parser.Eval();
        } catch (const mu::Parser::exception_type& e) {
            throw InputError("", say("the formula “{}” cannot be read: {}", formula, e.GetMsg()));
        }
        if (names.size() > kMostNames)
            throw InputError("", say("the formula “{}” uses more than {} names", formula, kMostNames));
    }
};

Compiled& compiled(const std::string& formula)
{
    // Never emptied: a formula in use must stay. A session knows a few hundred at most.
    thread_local std::unordered_map<std::string, std::unique_ptr<Compiled>, GlanceHash, std::equal_to<>> cache;
    auto& slot = cache[formula];
    if (!slot) {
        try {
            slot = std::make_unique<Compiled>(formula);
        } catch (...) {
            cache.erase(formula);
            throw;
        }
    }
    return *slot;
}

} // namespace

double evaluateFormula(const std::string& formula, const std::function<double(const std::string&)>& valueOf)
{
    double plain = 0;
    const auto [end, ec] = std::from_chars(formula.data(), formula.data() + formula.size(), plain);
    if (ec == std::errc{} && end == formula.data() + formula.size() && std::isfinite(plain))
        return plain;
    Compiled& c = compiled(formula);
    // Answering may evaluate this very formula for another design's name: slots are filled only when all answers are
    // in.
    double values[kMostNames];
    for (std::size_t i = 0; i < c.names.size(); ++i)
        values[i] = valueOf(c.names[i]);
    std::copy_n(values, c.names.size(), c.slots.begin());
    double result = 0;
    try {
        result = c.parser.Eval();
    } catch (const mu::Parser::exception_type& e) {
        throw InputError("", say("the formula “{}” cannot be worked out: {}", formula, e.GetMsg()));
    }
    if (!std::isfinite(result))
        throw InputError("", say("the formula “{}” gives no finite number", formula));
    return result;
}

std::set<std::string> namesIn(const std::string& formula)
{
    const auto& names = compiled(formula).names;
    return {names.begin(), names.end()};
}

} // namespace tectonis
