// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/spec.hpp"

#include "design/formula.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

namespace tectonis {
const DimensionSpec* DesignSpec::dimension(const std::string& name) const
{
    const auto it = std::find_if(dimensions.begin(), dimensions.end(), [&](const auto& d) { return d.name == name; });
    return it == dimensions.end() ? nullptr : &*it;
}

std::string DesignSpec::meant(const std::string& name, const std::string& dimension) const
{
    if (onParts.empty() || !name.starts_with("face."))
        return name;
    const auto dot = dimension.rfind('.');
    const auto it = dot == std::string::npos ? onParts.end() : onParts.find(dimension.substr(0, dot + 1));
    return it == onParts.end() ? name : it->second + name;
}

std::vector<SiteSpec> frontAndBack(bool seam)
{
    return {{"front", "Front", false, seam}, {"back", "Back", false, seam},
        {"lining front", "Lining front", true, false}, {"lining back", "Lining back", true, false}};
}

std::vector<SiteSpec> sideWalls()
{
    std::vector<SiteSpec> out;
    for (const auto& [name, label] : {std::pair{"left", "Left side"}, {"right", "Right side"},
             {"lining left", "Lining left"}, {"lining right", "Lining right"}})
        out.push_back({.name = name,
            .label = label,
            .lining = std::string(name).starts_with("lining"),
            .small = true,
            .own = "side."});
    return out;
}

const ChoiceSpec* DesignSpec::choice(const std::string& name) const
{
    const auto it = std::find_if(choices.begin(), choices.end(), [&](const auto& c) { return c.name == name; });
    return it == choices.end() ? nullptr : &*it;
}

std::size_t sizeIndex(const Design& design, const std::string& size)
{
    const auto it = std::find(design.sizes.begin(), design.sizes.end(), size);
    if (it == design.sizes.end())
        throw InputError(say("size"), say("the design has no size “{}”", size));
    return std::size_t(it - design.sizes.begin());
}

namespace {

/// Is the choice in @p when ("name=value|value") one of its values? None if it speaks of no choice.
std::optional<bool> chosen(const std::string& when, const std::map<std::string, std::string>& choices)
{
    const auto equals = when.find('=');
    const auto choice = equals == std::string::npos ? choices.end() : choices.find(when.substr(0, equals));
    if (choice == choices.end())
        return {};
    return ("|" + when.substr(equals + 1) + "|").find("|" + choice->second + "|") != std::string::npos;
}

} // namespace

bool counts(const DerivedSpec& spec, const std::map<std::string, std::string>& choices)
{
    return spec.when.empty() || chosen(spec.when, choices).value_or(true);
}

bool counts(const ChoiceSpec& spec, const std::map<std::string, std::string>& choices)
{
    return spec.when.empty() || chosen(spec.when, choices).value_or(true);
}

bool counts(const DimensionSpec& spec, const std::function<double(const std::string&)>& valueOf,
    const std::map<std::string, std::string>& choices)
{
    if (spec.when.empty())
        return true;
    const auto known = chosen(spec.when, choices);
    return known ? *known : evaluateFormula(spec.when, valueOf) != 0;
}

} // namespace tectonis
