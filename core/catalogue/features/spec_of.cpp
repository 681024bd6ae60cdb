// SPDX-License-Identifier: GPL-3.0-or-later
#include "features/spec_of.hpp"

#include "design/evaluate.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <iterator>
#include <list>
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

/// The choices of a part, as far as faces depend on them; as in a design that has not said them yet where it has not.
std::string chosen(const Design& design, const std::string& name)
{
    const auto it = design.choices.find(name);
    return it == design.choices.end() ? std::string() : it->second;
}

/// Is a face of the form there, by the form's choices?
bool isThere(const Design& design, const Form& form, const SiteSpec& site)
{
    if (site.when.empty())
        return true;
    const auto equals = site.when.find('=');
    const std::string name = site.when.substr(0, equals), wanted = site.when.substr(equals + 1);
    const auto choices = form.choices();
    const auto choice = std::find_if(choices.begin(), choices.end(), [&](const auto& c) { return c.name == name; });
    const std::string said = chosen(design, name);
    return (said.empty() && choice != choices.end() ? choice->options.front().first : said) == wanted;
}

/// Is a face of a part there, by the part's choices ("@lid=yes")?
bool isThere(const Design& design, const Feature& feature, const PartFace& face)
{
    if (face.when.empty())
        return true;
    const auto equals = face.when.find('=');
    return chosen(design, feature.id + face.when.substr(0, equals).replace(0, 1, ".")) == face.when.substr(equals + 1);
}

} // namespace

std::string hostOf(const Design& design, const std::string& id)
{
    const std::string site = chosen(design, id + ".site");
    const auto dot = site.rfind('.');
    return dot == std::string::npos ? std::string() : site.substr(0, dot);
}

bool sitsOn(const Design& design, std::string id, const std::string& host)
{
    for (std::size_t i = 0; i <= design.features.size(); ++i) {
        if (id.empty() || id == host)
            return !id.empty();
        id = hostOf(design, id);
    }
    return true; // they go round in a circle: a file that was written by hand
}

namespace {

/// Names of the face that it lies on, in a formula of a part that sits on another part.
void onFaceOf(std::string& formula, const std::string& prefix)
{
    for (const char* name : {"face.width", "face.height"})
        for (auto at = formula.find(name); at != std::string::npos; at = formula.find(name, at + prefix.size() + 1))
            if (at == 0 || formula[at - 1] != '.')
                formula.insert(at, prefix);
}

constexpr const char* kSide = "side."; ///< before the names of a side wall's face

/// What stands before the names of that face of a form, where it has measures of its own.
std::string ownFace(const Form& form, const std::string& site)
{
    for (const auto& each : form.sites())
        if (each.name == site)
            return each.own;
    return {};
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
    if (std::none_of(spec.derived.begin(), spec.derived.end(), [](const auto& d) { return d.name == "mouth.way"; }))
        spec.derived.push_back({"mouth.way", "mouth.depth"}); // of a flap, from the top of one face to the other's
    if (!form.numbersSides())
        spec.derived.push_back({"face.sides", "4"});
    const auto sites = form.sites();
    if (std::any_of(sites.begin(), sites.end(), [](const SiteSpec& s) { return s.own == kSide; })) {
        // As wide as the bag is deep (addFaces()).
        spec.derived.push_back({std::string(kSide) + "face.width", "mouth.depth"});
        if (std::none_of(spec.derived.begin(), spec.derived.end(),
                [](const auto& d) { return d.name == std::string(kSide) + "face.height"; }))
            spec.derived.push_back({std::string(kSide) + "face.height", "face.height"});
    }
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
        const Carrier carrier = carrierFor(design, feature.id);
        const std::string site = chosen(design, feature.id + ".site");
        const bool onPart = std::any_of(
            carrier.parts.begin(), carrier.parts.end(), [&](const SiteSpec& face) { return face.name == site; });
        // What "face." means in its formulas: that of another part, of a side wall, or the form's.
        const std::string face = onPart ? site + "." : ownFace(form, site);
        if (!face.empty())
            spec.onParts[feature.id + "."] = face;
        for (const auto& wanted : kind.needs(form))
            if (!onPart && first(wanted).empty())
                throw InputError(feature.id,
                    say("{} needs a feature of kind “{}”: add one, or take this one out", Label{kind.name()},
                        Label{featureKind(wanted).name()}));
        requireOwnName(spec, feature.id);
        for (auto d : kind.dimensions()) {
            d.name = feature.id + "." + d.name;
            for (std::string* formula : {&d.value, &d.min, &d.max, &d.when})
                ownNames(*formula, feature.id, first);
            if (!face.empty())
                for (std::string* formula : {&d.min, &d.max, &d.when})
                    onFaceOf(*formula, face);
            spec.dimensions.push_back(std::move(d));
        }
        for (auto c : kind.choices(carrier)) {
            if (c.options.empty())
                throw InputError(labelled(Label{kind.name()}),
                    say("the form “{}” has no face that can carry it", Label{form.name()}));
            ownNames(c.when, feature.id, first);
            c.name = feature.id + "." + c.name;
            spec.choices.push_back(std::move(c));
        }
        for (const auto& offered : kind.faces()) {
            if (!isThere(design, feature, offered))
                continue;
            const std::string name = feature.id + "." + offered.name;
            for (const auto& [what, formula] : {std::pair{"width", offered.width}, {"height", offered.height}}) {
                std::string own = formula;
                ownNames(own, feature.id, first);
                if (!face.empty())
                    onFaceOf(own, face);
                spec.derived.push_back({name + ".face." + what, own});
            }
        }
    }
    return spec;
}

} // namespace

Carrier carrierFor(const Design& design, const std::string& without)
{
    const Form& form = formOf(design.form);
    Carrier out(form);
    std::erase_if(out.sites, [&](const SiteSpec& site) { return !isThere(design, form, site); });
    for (const auto& other : design.features)
        if (without.empty() || !sitsOn(design, other.id, without))
            for (const auto& face : featureKind(other.kind).faces())
                if (isThere(design, other, face))
                    out.parts.push_back({.name = other.id + "." + face.name,
                        .label = face.label,
                        .covered = face.covered,
                        .strip = face.strip});
    return out;
}

std::vector<const Feature*> hostsFirst(const Design& design)
{
    const auto depth = [&](const Feature& feature) {
        std::size_t out = 0;
        for (std::string host = hostOf(design, feature.id); !host.empty(); host = hostOf(design, host))
            if (++out > design.features.size())
                throw InputError(say("parts"), say("parts sit on each other in a circle"));
        return out;
    };
    std::vector<std::pair<std::size_t, const Feature*>> all;
    for (const auto& feature : design.features)
        all.emplace_back(2 * depth(feature) + (featureKind(feature.kind).cutsAcross() ? 0 : 1), &feature);
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<const Feature*> out;
    std::transform(all.begin(), all.end(), std::back_inserter(out), [](const auto& each) { return each.second; });
    return out;
}

const DesignSpec& specOf(const Design& design)
{
    struct Kept {
        DesignSpec spec;
        std::list<std::string>::iterator asked;
    };
    thread_local std::map<std::string, Kept> known; // std::map: references stay good
    thread_local std::list<std::string> asked;      // by when they were last asked for
    std::string key = design.form;
    const Form& form = formOf(design.form);
    for (const auto& site : form.sites())
        key += site.when.empty() || isThere(design, form, site) ? "" : "\t-" + site.name;
    for (const auto& f : design.features) {
        key += "\n" + f.id + "\t" + f.kind;
        // Faces of parts come and go with choices, and what sits on them means them.
        if (const std::string site = chosen(design, f.id + ".site");
            site.find('.') != std::string::npos || !ownFace(form, site).empty())
            key += "\t" + site;
        for (const auto& face : featureKind(f.kind).faces())
            key += isThere(design, f, face) ? "\t+" : "\t-";
    }
    if (const auto it = known.find(key); it != known.end()) {
        asked.splice(asked.end(), asked, it->second.asked);
        return it->second.spec;
    }
    // A long day's parts come and go. What was asked for longest ago goes first: whoever holds a spec has let go of it
    // long before so many others were asked for.
    constexpr std::size_t most = 256;
    DesignSpec fresh = makeSpec(design);
    if (known.size() == most) {
        known.erase(asked.front());
        asked.pop_front();
    }
    asked.push_back(key);
    return known.emplace(std::move(key), Kept{std::move(fresh), std::prev(asked.end())}).first->second.spec;
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
