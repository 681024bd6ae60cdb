// SPDX-License-Identifier: GPL-3.0-or-later
// Parts, and what of them can be taken hold of, are moved on the faces; parts are mirrored.
#include "editing/edits.hpp"
#include "editing/movables.hpp"

#include "checks/finding.hpp"
#include "units/error.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace tectonis {
namespace {

/// Sets the choice of its face; true if ranges of that face are others: its old place may not lie in them.
bool chooseFace(Design& design, const std::string& id, const Site& face)
{
    const auto choice = design.choices.find(id + ".site");
    if (choice == design.choices.end())
        return false;
    const auto faceMeant = [&] {
        const auto& faces = specOf(design).onParts;
        const auto meant = faces.find(id + ".");
        return meant == faces.end() ? std::string() : meant->second;
    };
    const std::string before = faceMeant();
    choice->second = face.name.text();
    return before != faceMeant();
}

/// Sets a dimension, kept inside what every size allows.
void put(Design& design, const Pattern& seenIn, const std::string& name, double value)
{
    const DesignSpec& spec = specOf(design);
    const DimensionSpec* s = spec.dimension(name);
    if (!s || !design.dimensions.contains(name))
        return;
    Range range{-1e300, 1e300};
    for (std::size_t size = 0; size < design.sizes.size(); ++size) {
        const Range here = rangeOf(*s, evaluate(design, spec, size));
        range = {std::max(range.min, here.min), std::min(range.max, here.max)};
    }
    change::dimensionMm(design, name, std::clamp(value, range.min, std::max(range.min, range.max)), seenIn.size);
}

/// Takes a guide's formula for a dimension, if every size can.
void takeFormula(Design& design, const std::string& name, const std::string& formula)
{
    Design lined = design;
    if (formula.empty() || !lined.dimensions.contains(name))
        return;
    Dimension& place = lined.dimensions.at(name);
    place.value = formula, place.bySize.clear();
    if (std::any_of(formula.begin(), formula.end(), [](char c) { return std::isalpha(c); }))
        place.rule = follow();
    const DesignSpec& spec = specOf(lined);
    try {
        for (std::size_t size = 0; size < lined.sizes.size(); ++size) {
            const auto values = evaluate(lined, spec, size);
            const Range range = rangeOf(*spec.dimension(name), values);
            const double value = values.at(name);
            if (value < range.min || value > range.max)
                throw InputError(name, say("outside"));
        }
        design = std::move(lined);
    } catch (const InputError&) {
        return; // it goes round, or another size cannot follow: the number stays
    }
}

} // namespace

void change::move(Design& design, const Pattern& seenIn, const Movable& moved, const Site& face, Point to,
    const std::vector<Alignment>& with)
{
    if (moved.wanders && chooseFace(design, moved.part.text(), face)) {
        const DesignSpec& spec = specOf(design);
        for (const auto& way : moved.ways)
            if (const DimensionSpec* s = spec.dimension(way.dimension);
                s && design.dimensions.contains(way.dimension)) {
                Dimension& place = design.dimensions.at(way.dimension);
                place.value = s->value;
                place.bySize.clear();
            }
        fitOnFace(design, moved.part.text());
    }
    for (const bool upright : {false, true}) // a way sideways may count with the drop
        for (const auto& way : moved.ways)
            if (way.sideways() == upright)
                put(design, seenIn, way.dimension, valueAt(seenIn, moved, way, face, to));
    for (const auto& guide : with)
        if (const MovableWay* way = moved.way(guide.upright))
            takeFormula(design, way->dimension, guide.value);
}

void change::movePart(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at,
    const std::vector<Alignment>& with)
{
    const Site* face = seenIn.site(site);
    if (!face)
        throw InputError(site, say("this form has no such face"));
    if (!design.dimensions.contains(id + ".drop"))
        throw InputError(id, say("this part has no place of its own to be moved"));
    Movable part{.part = PartId(id), .piece = {}, .face = *face, .area = {}, .at = {}, .ways = {}, .wanders = true};
    part.ways = {{id + ".drop", {0, -1}, 1, Handle::From::Top}, {id + ".across", {1, 0}, 1, Handle::From::Middle}};
    move(design, seenIn, part, *face, face->upright(at), with);
}

std::string change::mirrorPart(Design& design, const std::string& id)
{
    const auto across = design.dimensions.find(id + ".across");
    if (across == design.dimensions.end())
        throw InputError(id, say("this part has no way sideways to be mirrored"));
    const auto values = evaluate(design, specOf(design), sizeIndex(design, design.baseSize));
    if (std::abs(values.at(id + ".across")) < 0.5)
        throw InputError(id + ".across", say("it lies in the middle of its face: its mirror image would lie on it"));
    const auto part = std::find_if(
        design.features.begin(), design.features.end(), [&](const auto& each) { return each.id == id; });
    const std::map<std::string, Dimension> dimensions(design.dimensions.begin(), design.dimensions.end());
    const auto choices = design.choices;
    std::string other = addPart(design, part->kind);
    for (auto& [name, dimension] : design.dimensions)
        if (name.starts_with(other + "."))
            if (const auto like = dimensions.find(id + name.substr(other.size())); like != dimensions.end()) {
                // Each follows the first, whatever that becomes.
                dimension.value = (name == other + ".across" ? "-" : "") + like->first;
                dimension.bySize.clear();
                dimension.rule = follow();
            }
    for (const auto& [name, value] : choices)
        if (name.starts_with(id + "."))
            design.choices[other + name.substr(id.size())] = value;
    for (auto& [name, dimension] : design.dimensions) // adding it may have moved the first aside
        if (name.starts_with(id + "."))
            dimension = dimensions.at(name);
    return other;
}

void moveFeature(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at)
{
    edit(design, [&](Design& next) { change::movePart(next, seenIn, id, site, at); });
}

} // namespace tectonis
