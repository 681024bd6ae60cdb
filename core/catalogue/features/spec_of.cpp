// SPDX-License-Identifier: GPL-3.0-or-later
#include "features/spec_of.hpp"

#include "design/evaluate.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <deque>
#include <functional>
#include <set>

namespace tectonis {
namespace {

/// Inside a feature "@hinge" stands for its own dimension, "flap.hinge" in a feature called flap,
/// and "#connectors.ring" for that of the first feature of a kind.
void ownNames(
    std::string& formula, const std::string& id, const std::function<std::string(const std::string& kind)>& first)
{
    for (auto at = formula.find('#'); at != std::string::npos; at = formula.find('#')) {
        const auto dot = formula.find('.', at);
        formula.replace(at, dot - at, first(formula.substr(at + 1, dot - at - 1)));
    }
    for (auto at = formula.find('@'); at != std::string::npos; at = formula.find('@'))
        formula.replace(at, 1, id + ".");
}

/// Dimensions and choices under a part's id are the part's alone: they go with it.
void requireOwnName(const DesignSpec& spec, const std::string& id)
{
    const auto under = [&](const std::string& name) { return name == id || name.starts_with(id + "."); };
    const bool taken = std::any_of(spec.dimensions.begin(), spec.dimensions.end(), [&](const auto& d) {
        return under(d.name);
    }) || std::any_of(spec.choices.begin(), spec.choices.end(), [&](const auto& c) { return under(c.name); });
    if (taken)
        throw InputError(
            say("parts"), say("a part is called “{}”, which is a name of the form; call it otherwise", id));
}

DesignSpec makeSpec(const Design& design)
{
    const Form& form = formOf(design.form);
    DesignSpec spec{form.dimensions(), {}, form.choices()};
    spec.choices.push_back({"templates", "Printed templates",
        "Symmetric pieces are printed whole, or as the half (of doubly symmetric ones the quarter) that is laid on the "
        "folded cloth.",
        {{"whole", "Whole"}, {"half", "Half, on the fold"}, {"quarter", "Quarter, folded twice"}}});
    spec.choices.push_back({"washing", "Washing the cloth",
        "Cloth is used as it comes, or washed before it is cut: then it shrinks no more, and as much more is bought.",
        {{"no", "As it comes"}, {"before", "Washed before cutting"}}});
    spec.choices.push_back({"corners", "Round corners",
        "Round corners are cut with the piece, or it is cut square there and rounded by its template once its layers "
        "are on.",
        {{"cut", "Cut round"}, {"after", "Rounded after the layers are on"}}});
    spec.choices.push_back({"topstitching", "Topstitching",
        "Seams and edges that are topstitched get one row, or a second one further in where the piece is wide enough.",
        {{"one", "One row"}, {"two", "Two rows"}}});
    spec.derived = form.derived();
    std::set<std::string> ids;
    for (const auto& feature : design.features) {
        if (!ids.insert(feature.id).second)
            throw InputError(say("features"), say("two features are called “{}”", feature.id));
        const FeatureKind& kind = featureKind(feature.kind);
        const auto first = [&](const std::string& wanted) -> std::string {
            for (const auto& f : design.features)
                if (f.kind == wanted)
                    return f.id;
            return "";
        };
        if (const auto reason = kind.unfit(form); !reason.empty())
            throw InputError(feature.id, reason);
        for (const auto& wanted : kind.needs(form))
            if (first(wanted).empty())
                throw InputError(feature.id,
                    say("{} needs a feature of kind “{}”: add one, or take this one out", Label{kind.name()},
                        Label{featureKind(wanted).name()}));
        requireOwnName(spec, feature.id);
        for (auto d : kind.dimensions()) {
            d.name = feature.id + "." + d.name;
            for (std::string* formula : {&d.value, &d.min, &d.max, &d.when})
                ownNames(*formula, feature.id, first);
            spec.dimensions.push_back(std::move(d));
        }
        for (auto c : kind.choices(form)) {
            if (c.options.empty())
                throw InputError(labelled(Label{kind.name()}),
                    say("the form “{}” has no face that can carry it", Label{form.name()}));
            ownNames(c.when, feature.id, first);
            c.name = feature.id + "." + c.name;
            spec.choices.push_back(std::move(c));
        }
    }
    return spec;
}

} // namespace

const DesignSpec& specOf(const Design& design)
{
    thread_local std::map<std::string, DesignSpec> known; // std::map: references stay good
    std::string key = design.form;
    for (const auto& f : design.features)
        key += "\n" + f.id + "\t" + f.kind;
    if (const auto it = known.find(key); it != known.end())
        return it->second;
    // A long day's parts come and go; whoever holds a spec has let go of it long before so many others were asked for.
    constexpr std::size_t most = 256;
    thread_local std::deque<std::string> order;
    if (order.size() == most) {
        known.erase(order.front());
        order.pop_front();
    }
    DesignSpec& made = known.emplace(key, makeSpec(design)).first->second;
    order.push_back(std::move(key));
    return made;
}

Design newDesign(const std::string& formId)
{
    const Form& form = formOf(formId);
    Design design;
    design.name = form.name();
    design.form = formId;
    design.sizes = {"S", "M", "L"};
    design.baseSize = "M";
    form.furnish(design);
    fillIn(design);
    return design;
}

std::vector<std::string> fillIn(Design& design)
{
    const DesignSpec& spec = specOf(design);
    std::vector<std::string> filled;
    for (const auto& d : spec.dimensions) {
        if (design.dimensions.contains(d.name))
            continue;
        for (const auto& [name, unused] : design.dimensions)
            if (!spec.dimension(name) && lettersApart(name, d.name) < 3)
                throw InputError(d.name, say("the design lacks this dimension but has “{}”; is it misspelt?", name));
        filled.push_back(d.name);
    }
    for (const auto& d : spec.dimensions)
        design.dimensions.try_emplace(d.name, Dimension{d.value, d.rule, {}, {}});
    for (const auto& c : spec.choices)
        if (design.choices.try_emplace(c.name, c.options.front().first).second)
            filled.push_back(c.name);
    Design furnished;
    formOf(design.form).furnish(furnished);
    for (const auto& f : design.features)
        furnished.materials.merge(featureKind(f.kind).materials());
    for (const auto& [role, id] : furnished.materials)
        design.materials.try_emplace(role, id);
    return filled;
}

} // namespace tectonis
