// SPDX-License-Identifier: GPL-3.0-or-later
// Changes of single values: dimensions, rules, choices, materials, seams, and anything by its name.
#include "editing/edits.hpp"

#include "buildup/proposal.hpp"
#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
#include "design/carried_library.hpp"
#include "design/formula.hpp"
#include "design/limits.hpp"
#include "design/seam_care.hpp"
#include "design/ways.hpp"
#include "editing/validated.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

Dimension& dimensionOf(Design& design, const std::string& name)
{
    const auto it = design.dimensions.find(name);
    if (it == design.dimensions.end())
        throw InputError(name, say("the design has no such dimension"));
    return it->second;
}

std::string exactText(double v) { return fmt::format("{}", v); } // shortest text that reads back the same

/// The base value that gives @p value in size @p seenIn under the dimension's rule.
double baseFor(const Design& design, const Dimension& d, double value, const std::string& seenIn)
{
    const double k = double(sizeIndex(design, seenIn)) - double(sizeIndex(design, design.baseSize));
    if (d.rule.kind == SizeRule::Kind::Step)
        return value - k * d.rule.amount;
    if (d.rule.kind == SizeRule::Kind::Ratio)
        return value / std::pow(d.rule.amount, k);
    if (d.rule.kind == SizeRule::Kind::Stock)
        return value - k * d.rule.amount;
    return value;
}

void place(Design& design, const std::string& name, const std::string& text, bool number, double value,
    const std::optional<std::string>& size, const std::optional<std::string>& seenIn)
{
    Dimension& d = dimensionOf(design, name);
    const std::string& seen = size ? *size : seenIn.value_or(design.baseSize);
    sizeIndex(design, seen);
    if (size || d.bySize.contains(seen)) {
        if (size == design.baseSize && !d.bySize.contains(seen))
            d.value = number ? exactText(value) : text;
        else
            d.bySize[seen] = number ? exactText(value) : text;
        return;
    }
    d.value = number ? exactText(baseFor(design, d, value, seen)) : text;
}

/// A length or a formula that reads as one. @throws InputError with the dimension's name.
std::optional<double> numberIn(const std::string& name, const std::string& text, bool length, Unit bare)
{
    try {
        const bool degrees = !length && text.ends_with("°");
        return parseLength(
            degrees ? text.substr(0, text.size() - std::string("°").size()) : text, length ? bare : Unit::Mm);
    } catch (const InputError& e) {
        // Not a length: a formula, if it reads as one.
        if (text.find_first_of("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ") == std::string::npos
            && text.find_first_of("+*(") == std::string::npos)
            throw e.at(name);
        if (text.find("nan") == 0 || text.find("inf") == 0)
            throw e.at(name);
        try {
            namesIn(text);
        } catch (const InputError& bad) {
            throw bad.at(name);
        }
        return std::nullopt;
    }
}

} // namespace

namespace change {

void dimension(Design& design, const std::string& name, const std::string& text, const std::optional<std::string>& size,
    Unit bare, const std::optional<std::string>& seenIn)
{
    dimensionOf(design, name);
    const DimensionSpec* spec = specOf(design).dimension(name);
    const auto number = numberIn(name, text, !spec || spec->quantity == DimensionSpec::Quantity::Length, bare);
    place(design, name, text, number.has_value(), number.value_or(0), size, seenIn);
}

void dimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn)
{
    if (!std::isfinite(mm))
        throw InputError(name, say("not a number"));
    place(design, name, "", true, mm, {}, seenIn);
}

void noOwnValue(Design& design, const std::string& name, const std::string& size)
{
    dimensionOf(design, name).bySize.erase(size);
}

void rule(Design& design, const std::string& name, const SizeRule& rule)
{
    Dimension& d = dimensionOf(design, name);
    if (rule.kind == SizeRule::Kind::Stock && !design.library->stock(rule.stock))
        throw InputError(name, say("there is no stock table “{}”", rule.stock));
    d.rule = rule;
}

void choice(Design& design, const std::string& name, const std::string& value)
{
    if (!specOf(design).choice(name))
        throw InputError(name, say("the design makes no such choice"));
    design.choices[name] = value;
    rehouse(design, name);
    if (name.ends_with(".site"))
        fitOnFace(design, name.substr(0, name.size() - 5));
}

void material(Design& design, const std::string& role, const std::string& materialId)
{
    if (!design.materials.contains(role))
        throw InputError("material." + role, say("the design has no such material"));
    design.materials[role] = materialId;
}

void exchangeMaterial(Design& design, const std::string& now, const std::string& then)
{
    bool found = false;
    for (auto& [role, id] : design.materials)
        if (id == now)
            id = then, found = true;
    for (auto& rule : design.layers)
        if (rule.material == now) {
            if (rule.fixing == usualFixing(design.library->material(now)))
                rule.fixing = usualFixing(design.library->material(then));
            rule.material = then, found = true;
        }
    if (!found)
        throw InputError(now, say("the design has no such material"));
}

void run(Design& design, const std::string& size, int bags)
{
    sizeIndex(design, size);
    design.run[size] = int(within(say("run {}", size), bags, 0, limits::bags, ""));
    std::erase_if(design.run, [](const auto& each) { return each.second == 0; });
}

void takeGood(Design& design, const std::string& id)
{
    const auto& goods = design.library->goods();
    if (std::none_of(goods.begin(), goods.end(), [&](const Good& g) { return g.id == id; }))
        throw InputError(id, say("the library has no such thing"));
    std::erase(design.goods, id);
    design.goods.insert(design.goods.begin(), id);
}

void leaveGood(Design& design, const std::string& id)
{
    if (std::erase(design.goods, id) == 0)
        throw InputError(id, say("it was not taken by name"));
}

void workshop(Design& design, const std::string& name) { design.workshop = design.library->workshop(name); }

void ways(Design& design)
{
    for (const auto& [name, value] : otherWays(design)) {
        Design next = design;
        try {
            setChoice(next, name, value);
            validate(next);
        } catch (const InputError&) {
            continue; // this form cannot
        }
        design = std::move(next);
    }
}

void newerValues(Design& design, const Library& mine)
{
    design.library = SharedLibrary(libraryFor(design, mine)->with(mine));
    for (const auto& w : mine.workshops())
        if (w.machine == design.workshop.machine)
            design.workshop = w;
}

void seamEnds(Design& design, const std::string& seam, const SeamEnds& ends)
{
    if (!draft(design, specOf(design), sizeIndex(design, design.baseSize)).seam(seam))
        throw InputError("seam." + seam, say("the pattern has no such seam; “tectonis-cli walk” lists them"));
    if (ends == SeamEnds{})
        design.seamEnds.erase(seam);
    else
        design.seamEnds[seam] = ends;
}

void seamCare(Design& design, const std::string& key, const SeamCare& care)
{
    const Pattern base = draft(design, specOf(design), sizeIndex(design, design.baseSize));
    const Seam* seam = base.seam(key);
    if (!seam)
        throw InputError("seam." + key, say("the pattern has no such seam; “tectonis-cli walk” lists them"));
    if (care.graded)
        if (const Message why = whyNotGraded(base, *seam); !why.empty())
            throw InputError("seam." + key, say("one of its allowances cannot be graded: {}", why));
    if (care.open)
        if (const Message why = whyNotOpened(base, *seam); !why.empty())
            throw InputError("seam." + key, say("it cannot be pressed open: {}", why));
    if (care == SeamCare{})
        design.seamCare.erase(key);
    else
        design.seamCare[key] = care;
}

void endCare(Design& design, const std::string& piece, const SeamCare& care)
{
    const auto ends = strapEnds(draft(design, specOf(design), sizeIndex(design, design.baseSize)));
    if (std::none_of(ends.begin(), ends.end(), [&](const StrapEnd& end) { return end.piece.text() == piece; }))
        throw InputError(
            "end." + piece, say("the pattern has no strap, handle or belt of that id with ends sewn down"));
    if (care.graded || care.open || care.aside)
        throw InputError("end." + piece, say("an end of a strap can be hammered or sewn by hand, nothing else"));
    if (care == SeamCare{})
        design.endCare.erase(piece);
    else
        design.endCare[piece] = care;
}

void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size)
{
    const auto equals = assignment.find('=');
    if (equals == std::string::npos || equals == 0)
        throw InputError(assignment, say("write NAME=VALUE"));
    const std::string name = assignment.substr(0, equals), value = assignment.substr(equals + 1);
    if (size)
        sizeIndex(design, *size);
    if (design.dimensions.contains(name))
        return dimension(design, name, value, size);
    if (size)
        throw InputError(name, say("only dimensions have own values for a size"));
    if (name == "name")
        design.name = value;
    else if (name == "studio")
        design.studio = value;
    else if (name == "notes")
        design.notes = value;
    else if (name == "sizes") {
        const auto names = sizeNames(value);
        sizes(design, names,
            std::find(names.begin(), names.end(), design.baseSize) != names.end() ? design.baseSize : "");
    } else if (name.starts_with("run."))
        run(design, name.substr(4), int(std::lround(parseLength(value))));
    else if (name.starts_with("good."))
        value == "no" ? leaveGood(design, name.substr(5)) : takeGood(design, name.substr(5));
    else if (name == "workshop")
        workshop(design, value);
    else if (name == "base")
        sizes(design, std::vector(design.sizes), value);
    else if (name.starts_with("seam.") && (name.ends_with(".start") || name.ends_with(".end"))) {
        const bool start = name.ends_with(".start");
        const std::string key = name.substr(5, name.size() - 5 - (start ? 6 : 4));
        SeamEnds ends = design.seamEnds.contains(key) ? design.seamEnds.at(key) : SeamEnds{};
        (start ? ends.start : ends.end) = parseLength(value);
        seamEnds(design, key, ends);
    } else if (name.starts_with("seam.") && name.ends_with(".care"))
        seamCare(design, name.substr(5, name.size() - 10), parseCare(value));
    else if (name.starts_with("end.") && name.ends_with(".care"))
        endCare(design, name.substr(4, name.size() - 9), parseCare(value));
    else if (name.starts_with("layers."))
        layers(design, name.substr(7), parseLayers(value));
    else if (name.starts_with("material."))
        material(design, name.substr(9), value);
    else if (specOf(design).choice(name))
        choice(design, name, value);
    else
        throw InputError(
            name, say("the design has no dimension or choice of that name; “tectonis-cli forms” lists them"));
}

} // namespace change

void setDimension(Design& design, const std::string& name, const std::string& text,
    const std::optional<std::string>& size, Unit bare, const std::optional<std::string>& seenIn)
{
    edit(design, [&](Design& next) { change::dimension(next, name, text, size, bare, seenIn); });
}

void setDimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn)
{
    edit(design, [&](Design& next) { change::dimensionMm(next, name, mm, seenIn); });
}

void setRule(Design& design, const std::string& name, const SizeRule& rule)
{
    edit(design, [&](Design& next) { change::rule(next, name, rule); });
}

void setChoice(Design& design, const std::string& name, const std::string& value)
{
    edit(design, [&](Design& next) { change::choice(next, name, value); });
}

void setMaterial(Design& design, const std::string& role, const std::string& materialId)
{
    edit(design, [&](Design& next) { change::material(next, role, materialId); });
}

void setSeamEnds(Design& design, const std::string& seam, const SeamEnds& ends)
{
    edit(design, [&](Design& next) { change::seamEnds(next, seam, ends); });
}

void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size)
{
    edit(design, [&](Design& next) { change::assign(next, assignment, size); });
}

} // namespace tectonis
