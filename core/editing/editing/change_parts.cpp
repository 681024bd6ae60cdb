// SPDX-License-Identifier: GPL-3.0-or-later
// Parts that come, go and move.
#include "editing/edits.hpp"

#include "checks/finding.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <limits>
#include <utility>

namespace tectonis {

void sitWhereItFits(Design& design, const FeatureKind& kind, const std::string& id, std::size_t before)
{
    auto choices = kind.choices(formOf(design.form));
    const auto choice = std::find_if(
        choices.begin(), choices.end(), [](const ChoiceSpec& c) { return c.name == "site"; });
    if (choice == choices.end())
        return;
    std::erase_if(choice->options, [](const auto& option) { return option.first.find('.') != std::string::npos; });
    if (choice->options.empty())
        return; // on parts alone
    // What belongs into the lining looks for room there first, what belongs outside, outside.
    const auto inside = [&](const auto& option) { return option.first.starts_with("lining"); };
    const bool within = inside(choice->options.front());
    std::stable_partition(
        choice->options.begin(), choice->options.end(), [&](const auto& option) { return inside(option) == within; });
    // Strips and flaps are taken where a hand puts something there, or where there is nothing else.
    const auto sites = formOf(design.form).sites();
    std::stable_partition(choice->options.begin(), choice->options.end(), [&](const auto& option) {
        return std::none_of(
            sites.begin(), sites.end(), [&](const SiteSpec& s) { return s.small && s.name == option.first; });
    });
    std::string& site = design.choices.at(id + ".site");
    std::string best = site;
    std::size_t fewest = std::numeric_limits<std::size_t>::max();
    for (const auto& [name, unused] : choice->options)
        try {
            site = name;
            if (before == anyFace) {
                validate(design);
                return;
            }
            if (const std::size_t faults = checkAll(design, validated(design)).size(); faults < fewest)
                best = name, fewest = faults;
            if (fewest <= before)
                break;
        } catch (const InputError&) {}
    site = best;
}

namespace {

const std::string& textOf(const std::string& name) { return name; }
template <class Kind> const std::string& textOf(const Id<Kind>& id) { return id.text(); }

bool lacks(const Design& design, const std::string& kind)
{
    return std::none_of(
        design.features.begin(), design.features.end(), [&](const Feature& f) { return f.kind == kind; });
}

/// A face of a part that can carry a new part which needs others that the design lacks: a snap goes under a pocket's
/// flap where there is no flap. Empty if there is none.
std::string faceInstead(const Design& design, const FeatureKind& feature)
{
    const auto needs = feature.needs(formOf(design.form));
    if (std::none_of(needs.begin(), needs.end(), [&](const auto& kind) { return lacks(design, kind); }))
        return {};
    for (const auto& choice : feature.choices(carrierFor(design)))
        if (choice.name == "site")
            for (const auto& [face, unused] : choice.options)
                if (face.find('.') != std::string::npos)
                    return face;
    return {};
}

/// @p best: on the face where it is in nobody's way; else on the first that can carry it.
std::string add(Design& next, const std::string& kind, bool best)
{
    const FeatureKind& feature = featureKind(kind);
    const std::string host = faceInstead(next, feature);
    if (host.empty())
        for (const auto& needed : feature.needs(formOf(next.form)))
            if (lacks(next, needed))
                change::addPart(next, needed);
    const auto patterns = validated(next);
    const std::size_t before = best ? checkAll(next, patterns).size() : anyFace;
    // Names under the id must be the part's alone: "zip.length" may be the form's, and so may the piece "band".
    const DesignSpec& spec = specOf(next);
    const auto taken = [&](const std::string& name) {
        const auto under = [&](const auto& id) {
            const std::string& other = textOf(id);
            return other == name || other.starts_with(name + ".");
        };
        const auto any = [&](const auto& list, auto field) {
            return std::any_of(list.begin(), list.end(), [&](const auto& each) { return under(each.*field); });
        };
        return any(next.features, &Feature::id) || any(spec.dimensions, &DimensionSpec::name)
            || any(spec.choices, &ChoiceSpec::name)
            || std::any_of(patterns.begin(), patterns.end(), [&](const Pattern& p) {
                   return any(p.pieces, &Piece::key) || any(p.seams, &Seam::key) || any(p.steps, &Step::id);
               });
    };
    std::string id = feature.shortName();
    for (int i = 2; taken(id); ++i)
        id = feature.shortName() + std::to_string(i);
    next.features.push_back({id, kind});
    if (!host.empty())
        next.choices[id + ".site"] = host;
    fillIn(next);
    feature.settle(next, id);
    if (host.empty())
        sitWhereItFits(next, feature, id, before);
    return id;
}

} // namespace

std::string change::addPart(Design& design, const std::string& kind) { return add(design, kind, true); }

std::string addFeature(Design& design, const std::string& kind)
{
    std::string id;
    edit(design, [&](Design& next) { id = change::addPart(next, kind); });
    return id;
}

Message whyNotAdd(const Design& design, const std::string& kind)
{
    try {
        edited(design, [&](Design& next) { add(next, kind, false); });
        return {};
    } catch (const InputError& e) {
        return e.problem();
    }
}

namespace {

/// Replaces a name's beginning wherever a name begins in a formula. True if there was one.
bool renameIn(std::string& formula, const std::string& from, const std::string& to)
{
    const auto partOfName = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_' || c == '.'; };
    bool found = false;
    for (std::size_t at = formula.find(from); at != std::string::npos; at = formula.find(from, at)) {
        const bool begins = at == 0 || !partOfName(formula[at - 1]);
        if (begins)
            formula.replace(at, from.size(), to);
        found |= begins;
        at += begins ? to.size() : from.size();
    }
    return found;
}

/// Dimensions whose names begin with @p those and that ask a part that is about to go keep the values they have, in
/// every size.
void keepValuesWithout(Design& design, const std::string& id, const std::string& those)
{
    std::vector<Values> values;
    const DesignSpec& spec = specOf(design);
    for (std::size_t i = 0; i < design.sizes.size(); ++i)
        values.push_back(evaluate(design, spec, i));
    const auto asks = [&](std::string formula) { return renameIn(formula, id + ".", id + "."); };
    const std::size_t base = sizeIndex(design, design.baseSize);
    for (auto& [name, d] : design.dimensions) {
        if (name.starts_with(id + ".") || !name.starts_with(those))
            continue;
        for (auto& [size, own] : d.bySize)
            if (asks(own))
                own = formatNumber(values[sizeIndex(design, size)].at(name), 6);
        if (!asks(d.value))
            continue;
        d.value = formatNumber(values[base].at(name), 6);
        // Where the size rule makes another value of that number, the size gets its own.
        for (std::size_t i = 0; i < values.size(); ++i)
            if (const double was = values[i].at(name);
                std::abs(grown(d.rule, values[base].at(name), double(i) - double(base), *design.library) - was) > 1e-6)
                d.bySize.try_emplace(design.sizes[i], formatNumber(was, 6));
    }
}

/// A part on a face of another part sits on @p below instead, or where it cannot, on the first face that can carry it.
void sitBelow(Design& design, const std::string& id, const std::string& below)
{
    const ChoiceSpec* choice = specOf(design).choice(id + ".site");
    if (!choice)
        return;
    const bool offered = std::any_of(
        choice->options.begin(), choice->options.end(), [&](const auto& option) { return option.first == below; });
    design.choices.at(choice->name) = offered ? below : choice->options.front().first;
    change::fitOnFace(design, id);
}

void takeOut(Design& design, const std::string& id)
{
    const auto named = [](const std::string& wanted) { return [wanted](const Feature& f) { return f.id == wanted; }; };
    const auto it = std::find_if(design.features.begin(), design.features.end(), named(id));
    if (it == design.features.end())
        throw InputError(id, say("the design has no such feature"));
    const auto other = std::find_if(design.features.begin(), design.features.end(),
        [&](const Feature& f) { return f.kind == it->kind && f.id != id; });
    if (other != design.features.end()) {
        // Formulas that asked for its dimensions ask the other one, which cannot ask itself.
        keepValuesWithout(design, id, other->id + ".");
        for (auto& [name, d] : design.dimensions) {
            if (name.starts_with(id + "."))
                continue;
            renameIn(d.value, id + ".", other->id + ".");
            for (auto& [size, own] : d.bySize)
                renameIn(own, id + ".", other->id + ".");
        }
    } else {
        // What cannot be without it goes first.
        std::vector<std::string> lost;
        for (const auto& f : design.features)
            if (const auto needs = featureKind(f.kind).needs(formOf(design.form));
                hostOf(design, f.id).empty() && std::find(needs.begin(), needs.end(), it->kind) != needs.end())
                lost.push_back(f.id);
        for (const auto& dependent : lost)
            takeOut(design, dependent);
        keepValuesWithout(design, id, "");
    }
    std::vector<std::string> guests; // what sits on it stays where it was
    for (const auto& f : design.features)
        if (hostOf(design, f.id) == id)
            guests.push_back(f.id);
    const auto own = design.choices.find(id + ".site");
    const std::string below = own == design.choices.end() ? "" : own->second;
    design.features.erase(std::find_if(design.features.begin(), design.features.end(), named(id)));
    std::erase_if(design.dimensions, [&](const auto& d) { return d.first.starts_with(id + "."); });
    std::erase_if(design.choices, [&](const auto& c) { return c.first.starts_with(id + "."); });
    for (const auto& guest : guests)
        sitBelow(design, guest, below);
}

/// A face that the form has, though maybe not with these choices.
bool hadFace(const Design& design, const std::string& site)
{
    const auto sites = formOf(design.form).sites();
    return std::any_of(sites.begin(), sites.end(), [&](const SiteSpec& s) { return s.name == site; });
}

/// "lining front" of "lining back".
std::string otherWall(std::string site)
{
    if (const auto at = site.rfind("back"); at != std::string::npos)
        return site.replace(at, 4, "front");
    return site;
}

} // namespace

void change::fitOnFace(Design& design, const std::string& id)
{
    const DesignSpec& spec = specOf(design);
    const auto face = spec.onParts.find(id + ".");
    // In the part's own formulas the face goes by its plain name.
    const auto bound = [&](std::string formula) {
        if (face != spec.onParts.end())
            for (auto at = formula.find(face->second); at != std::string::npos; at = formula.find(face->second, at))
                formula.erase(at, face->second.size());
        return formula;
    };
    for (const auto& d : spec.dimensions) {
        const auto own = design.dimensions.find(d.name);
        if (!d.name.starts_with(id + ".") || own == design.dimensions.end())
            continue;
        bool over = false, under = false;
        Range every{-1e300, 1e300}; // what all sizes allow
        for (std::size_t size = 0; size < design.sizes.size(); ++size) {
            const Values values = evaluateUnchecked(design, spec, size);
            const Range range = rangeOf(d, values);
            const double v = values.at(d.name);
            every = {std::max(every.min, range.min), std::min(every.max, range.max)};
            over |= v > range.max + 1e-9 && range.max >= range.min;
            under |= v < range.min - 1e-9 && range.max >= range.min;
            if (v > range.max + 1e-9 || v < range.min - 1e-9)
                own->second.bySize.erase(design.sizes[size]);
        }
        if (!over && !under)
            continue;
        std::string& value = own->second.value;
        if (over)
            value = fmt::format("min({}, {})", value, bound(d.max));
        if (under)
            value = fmt::format("max({}, {})", value, bound(d.min));
        own->second.rule = follow();
        try {
            evaluateUnchecked(design, spec, 0);
        } catch (const InputError&) { // what bounds it asks for it: a number then
            value = formatNumber(over ? std::floor(every.max * 10) / 10 : std::ceil(every.min * 10) / 10, 1);
            own->second.rule = hold();
        }
    }
}

std::vector<Message> fittedBesides(const Design& before, const Design& after)
{
    std::vector<Message> out;
    for (const auto& feature : after.features) {
        const auto was = before.choices.find(feature.id + ".site"), is = after.choices.find(feature.id + ".site");
        if (was == before.choices.end() || is == after.choices.end() || was->second == is->second)
            continue;
        for (const auto& spec : specOf(after).dimensions) {
            const auto old = before.dimensions.find(spec.name), now = after.dimensions.find(spec.name);
            if (!spec.name.starts_with(feature.id + ".") || old == before.dimensions.end()
                || now == after.dimensions.end() || old->second == now->second
                || (!now->second.value.starts_with("min(") && !now->second.value.starts_with("max(")))
                continue;
            const auto said = [&](const Dimension& d) {
                return isFormula(d.value) || spec.quantity != DimensionSpec::Quantity::Length
                    ? naming(d.value)
                    : say("{}", Len(std::stod(d.value)));
            };
            out.push_back(say("{}: {} instead of {}, so that it fits its new face.", Label{spec.label},
                said(now->second), said(old->second)));
        }
    }
    return out;
}

void change::rehouse(Design& design, const std::string& but)
{
    for (bool again = true; std::exchange(again, false);)
        for (const auto& feature : design.features) {
            const std::string host = hostOf(design, feature.id), name = feature.id + ".site";
            const ChoiceSpec* choice = specOf(design).choice(name);
            if (!choice || name == but || (host.empty() && !hadFace(design, design.choices.at(name)))
                || std::any_of(choice->options.begin(), choice->options.end(),
                    [&](const auto& option) { return option.first == design.choices.at(name); }))
                continue;
            const auto below = design.choices.find(host + ".site");
            sitBelow(design, feature.id,
                host.empty()                        ? otherWall(design.choices.at(name))
                    : below == design.choices.end() ? ""
                                                    : below->second);
            again = true; // what is offered may be something else now
        }
}

void change::removePart(Design& design, const std::string& id) { takeOut(design, id); }

void removeFeature(Design& design, const std::string& id)
{
    edit(design, [&](Design& next) { takeOut(next, id); });
}

} // namespace tectonis
