// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/evaluate.hpp"

#include "design/formula.hpp"
#include "design/limits.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <vector>

namespace tectonis {

std::size_t lettersApart(const std::string& a, const std::string& b)
{
    std::vector<std::size_t> row(b.size() + 1);
    for (std::size_t k = 0; k < row.size(); ++k)
        row[k] = k;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        std::size_t diagonal = row[0];
        row[0] = i;
        for (std::size_t k = 1; k < row.size(); ++k) {
            const std::size_t cost = diagonal + (a[i - 1] == b[k - 1] ? 0 : 1);
            diagonal = row[k];
            row[k] = std::min({cost, row[k] + 1, row[k - 1] + 1});
        }
    }
    return row.back();
}

namespace {

/// The dimension whose name is nearest to a mistyped one; empty if none is near.
std::string nearest(const std::string& name, const std::map<std::string, Dimension>& all)
{
    std::string best;
    std::size_t bestDistance = 3;
    for (const auto& [candidate, unused] : all)
        if (const std::size_t apart = lettersApart(name, candidate); apart < bestDistance)
            best = candidate, bestDistance = apart;
    return best;
}

class Evaluation {
public:
    Evaluation(const Design& design, const DesignSpec& spec, std::size_t size)
        : m_design(design),
          m_spec(spec),
          m_size(design.sizes[size]),
          m_step(double(size) - double(sizeIndex(design, design.baseSize)))
    {
        m_values.reserve(design.dimensions.size() + spec.derived.size());
    }

    double value(const std::string& name)
    {
        if (const auto known = m_values.find(name); known != m_values.end())
            return known->second;
        if (const auto it = m_design.dimensions.find(name); it != m_design.dimensions.end())
            return value(it->first, it->second);
        const auto derived = std::find_if(m_spec.derived.begin(), m_spec.derived.end(),
            [&](const auto& d) { return d.name == name && counts(d, m_design.choices); });
        if (derived == m_spec.derived.end()) {
            const auto near = nearest(name, m_design.dimensions);
            throw InputError(m_open.empty() ? "" : *m_open.back(),
                near.empty() ? say("the formula names “{}”, which is no dimension of this design", name)
                             : say("the formula names “{}”, which is no dimension of this design; did you mean “{}”?",
                                 name, near));
        }
        return opened(name, [&] { return formula(name, derived->formula); });
    }

    /// The same of a dimension of the design.
    double value(const std::string& name, const Dimension& dimension)
    {
        if (const auto known = m_values.find(name); known != m_values.end())
            return known->second;
        return opened(name, [&] { return worked(name, dimension); });
    }

    Values& values() { return m_values; }

private:
    /// Works out what is not known yet, and remembers meanwhile that it is being asked for.
    double opened(const std::string& name, const auto& work)
    {
        const auto same = [&](const std::string* open) { return *open == name; };
        if (auto at = std::find_if(m_open.begin(), m_open.end(), same); at != m_open.end()) {
            std::string round;
            for (; at != m_open.end(); ++at)
                round += **at + " → ";
            throw InputError(name, say("the formula leads back to itself ({}{})", round, name));
        }
        if (m_open.size() >= std::size_t(limits::formulaChain))
            throw InputError(
                *m_open.front(), say("its formula leads through more than {} others", limits::formulaChain));
        m_open.push_back(&name);
        const double v = work();
        m_open.pop_back();
        return m_values.emplace(name, v).first->second;
    }

    double formula(const std::string& name, const std::string& text)
    {
        try {
            return evaluateFormula(text, [&](const std::string& other) {
                return m_spec.onParts.empty() ? value(other) : value(m_spec.meant(other, name));
            });
        } catch (const InputError& e) {
            throw e.place().empty() ? e.at(name) : e;
        }
    }

    double worked(const std::string& name, const Dimension& d)
    {
        if (const auto own = d.bySize.find(m_size); own != d.bySize.end())
            return formula(name, own->second);
        const double base = formula(name, d.value);
        try {
            return grown(d.rule, base, m_step, *m_design.library);
        } catch (const InputError& e) {
            throw e.at(name);
        }
    }

    const Design& m_design;
    const DesignSpec& m_spec;
    std::string m_size;
    double m_step;
    Values m_values;
    std::vector<const std::string*> m_open; ///< what is being worked out, outermost first
};

/// @p beside: what it is compared with.
Message shown(const DimensionSpec& spec, double v, double beside)
{
    return spec.quantity == DimensionSpec::Quantity::Length ? say("{}", Len(v, beside))
        : spec.quantity == DimensionSpec::Quantity::Angle   ? say("{}°", Num(v))
                                                            : say("{}", Num(v));
}

void checkRange(const Design& design, const DimensionSpec& spec, const Values& values, std::size_t size)
{
    const double v = values.at(spec.name);
    const Range range = rangeOf(spec, values);
    const auto place = [&] { return say("{} in size {}", spec.name, design.sizes[size]); };
    if (v < range.min - 1e-9 || v > range.max + 1e-9) {
        const Message is = shown(spec, v, v < range.min ? range.min : range.max), least = shown(spec, range.min, v),
                      most = shown(spec, range.max, v);
        if (range.min > range.max)
            throw InputError(
                place(), say("there is no room for it: it needs {} at least, and {} are there", least, most));
        throw InputError(place(),
            isFormula(spec.max) ? say("{} is outside the allowed {} to {} (at most {})", is, least, most, spec.max)
                                : say("{} is outside the allowed {} to {}", is, least, most));
    }
    if (spec.quantity == DimensionSpec::Quantity::Count && std::abs(v - std::round(v)) > 1e-9)
        throw InputError(place(), say("{} is no whole number", Num(v)));
}

} // namespace

double grown(const SizeRule& rule, double base, double steps, const Library& library)
{
    switch (rule.kind) {
    case SizeRule::Kind::Step: return base + steps * rule.amount;
    case SizeRule::Kind::Ratio: return base * std::pow(rule.amount, steps);
    case SizeRule::Kind::Stock: return library.snapped(rule.stock, base + steps * rule.amount);
    case SizeRule::Kind::Hold:
    case SizeRule::Kind::Follow: break;
    }
    return base;
}

std::string prefixOf(const std::string& dimension)
{
    const auto dot = dimension.rfind('.');
    return dot == std::string::npos ? "" : dimension.substr(0, dot + 1);
}

bool isFormula(const std::string& text)
{
    double v = 0;
    const auto [end, ec] = std::from_chars(text.data(), text.data() + text.size(), v);
    return ec != std::errc{} || end != text.data() + text.size() || !std::isfinite(v); // "inf" is a name here
}

Range rangeOf(const DimensionSpec& spec, const Values& values)
{
    const auto ask = [&](const std::string& name) { return values.at(name); };
    return {evaluateFormula(spec.min, ask), evaluateFormula(spec.max, ask)};
}

Values evaluateUnchecked(const Design& design, const DesignSpec& spec, std::size_t size)
{
    Evaluation e(design, spec, size);
    for (const auto& derived : spec.derived)
        e.value(derived.name);
    for (const auto& [name, dimension] : design.dimensions) // the user's own among them, which no form asks for
        e.value(name, dimension);
    for (const auto& d : spec.dimensions)
        e.value(d.name);
    return std::move(e.values());
}

Values evaluate(const Design& design, const DesignSpec& spec, std::size_t size)
{
    Values values = evaluateUnchecked(design, spec, size);
    for (const auto& d : spec.dimensions)
        checkRange(design, d, values, size);
    return values;
}

Derivation derivationOf(
    const Design& design, const DesignSpec& spec, const Values& values, const std::string& name, std::size_t size)
{
    const Dimension& d = design.dimensions.at(name);
    const std::string& sizeName = design.sizes[size];
    const auto own = d.bySize.find(sizeName);
    const std::string text = own != d.bySize.end() ? own->second : d.value;
    Derivation out;
    out.result = values.at(name);
    out.own = !isFormula(text);
    out.formula = naming(text);
    if (!out.own) {
        for (const auto& used : namesIn(text))
            out.inputs.emplace_back(used, values.at(spec.meant(used, name)));
    }
    const long k = long(size) - long(sizeIndex(design, design.baseSize));
    if (own != d.bySize.end()) {
        out.formula = say("{}  (own value for size {})", text, sizeName);
        return out;
    }
    if (d.rule.kind == SizeRule::Kind::Step && k != 0)
        out.formula = k < 0 ? say("{} − {} × {}", text, -k, Num(d.rule.amount))
                            : say("{} + {} × {}", text, k, Num(d.rule.amount));
    if (d.rule.kind == SizeRule::Kind::Ratio && k != 0)
        out.formula = say("{} × {}^{}", text, Num(d.rule.amount, 4), k);
    if (d.rule.kind == SizeRule::Kind::Stock)
        out.formula = say("{}, snapped to stock “{}”", out.formula, d.rule.stock);
    return out;
}

} // namespace tectonis
