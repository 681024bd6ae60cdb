// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/limits.hpp"

#include "files/files.hpp"
#include "library/fields.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

/// @p lines: may hold line ends and tabs.
void requireText(const Message& place, const std::string& s, std::size_t most = limits::name, bool lines = false)
{
    if (!isUtf8(s))
        throw InputError(place, say("the text is not UTF-8"));
    if (s.size() > most)
        throw InputError(place, say("the text is longer than {} bytes", most));
    for (const char c : s)
        if ((static_cast<unsigned char>(c) < 32 && !(lines && (c == '\n' || c == '\t' || c == '\r'))) || c == 127)
            throw InputError(place, say("the text holds a control character"));
}

void requireCount(const Message& what, std::size_t count, std::size_t most)
{
    if (count > most)
        throw InputError(what, say("there are {}; a design holds at most {}", count, most));
}

bool letter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }
bool digit(char c) { return c >= '0' && c <= '9'; }

/// A name that formulas can ask for; @p dotted: a dimension's, else a part's.
bool usable(const std::string& name, bool dotted)
{
    if (name.empty() || name.size() > 80 || !letter(name.front()) || name.back() == '.')
        return false;
    if (!std::all_of(name.begin(), name.end(),
            [&](char c) { return letter(c) || digit(c) || c == '_' || (dotted && c == '.'); }))
        return false;
    // Words that formulas read otherwise: numbers in words, the constant, units, functions.
    static const char* taken[] = {"inf", "infinity", "nan", "pi", "mm", "cm", "in", "sin", "cos", "tan", "asin", "acos",
        "atan", "sinh", "cosh", "tanh", "asinh", "acosh", "atanh", "log2", "log10", "log", "ln", "exp", "sqrt", "sign",
        "rint", "abs", "min", "max", "sum", "avg"};
    std::string small = name;
    std::transform(
        small.begin(), small.end(), small.begin(), [](char c) { return c >= 'A' && c <= 'Z' ? char(c + 32) : c; });
    return std::none_of(std::begin(taken), std::end(taken), [&](const char* word) { return small == word; });
}

void requireSizes(const Design& d)
{
    if (d.sizes.empty())
        throw InputError(say("sizes"), say("a design needs at least one size"));
    requireCount(say("sizes"), d.sizes.size(), limits::sizes);
    for (const auto& s : d.sizes) {
        requireText(say("sizes"), s, 40);
        if (s.empty() || s.front() == ' ' || s.back() == ' ')
            throw InputError(say("sizes"), say("“{}” is no name for a size", s));
        if (std::count(d.sizes.begin(), d.sizes.end(), s) > 1)
            throw InputError(say("sizes"), say("two sizes are called “{}”", s));
    }
}

void requireDimensions(const Design& d)
{
    requireCount(say("dimensions"), d.dimensions.size(), limits::dimensions);
    for (const auto& [name, dimension] : d.dimensions) {
        if (!usable(name, true))
            throw InputError(say("dimensions"),
                say("“{}” is no name for a dimension: write letters, digits and dots, beginning with a letter, and no "
                    "word that formulas know already",
                    name.substr(0, 60)));
        requireText(naming(name), dimension.value, 400);
        const SizeRule& rule = dimension.rule;
        if (!std::isfinite(rule.amount)
            || (rule.kind == SizeRule::Kind::Ratio && (rule.amount <= 0 || rule.amount > 10)))
            throw InputError(
                name, say("a size rule of {} makes no size; a ratio lies between 0 and 10", Num(rule.amount, 4)));
        within(say("{}, size rule", name), rule.amount, -limits::length, limits::length);
        for (const auto& [size, own] : dimension.bySize) {
            sizeIndex(d, size);
            requireText(naming(name), own, 400);
        }
    }
}

void requireWorkshop(const Workshop& w)
{
    requireText(say("workshop"), w.machine);
    within(say("machine limit"), w.machineLimit, 1, 40);
    for (const double width : {w.footWidth, w.zipFoot, w.walkingFoot, w.nonStickFoot})
        within(say("foot width"), width, 0, 40);
    within(say("smallest round"), w.leastRound, 0, 2000);
    within(say("stitch speed"), w.stitchSpeed, 0.01, 100, "m a minute");
    within(say("set-up"), w.setUp, 0, 600, "min");
    within(say("labour rate"), w.labourRate, 0, 100000, "an hour");
    within(say("overhead"), w.overhead, 0, 1000, "%");
    requireText(say("workshop"), w.lacks);
    requireText(say("workshop"), w.printer);
    within(say("cutter’s bed"), w.bedWidth, 0, 10000);
    within(say("cutter’s bed"), w.bedLength, 0, 100000);
    requireText(say("workshop"), w.schools);
    Workshop read;
    for (const auto& field : fieldsOf<Workshop>())
        if (std::string_view(field.name) == "unit")
            if (const Message problem = setField(read, field, w.unit); !problem.empty())
                throw InputError(say("workshop"), problem);
}

void requireSteps(const Design& d)
{
    const auto requireId = [](const std::string& id) {
        requireText(say("steps"), id);
        if (id.empty())
            throw InputError(say("steps"), say("a step has no id"));
    };
    requireCount(say("own steps"), d.ownSteps.size(), limits::ownSteps);
    std::set<std::string> ids;
    for (const auto& s : d.ownSteps) {
        requireId(s.id);
        if (!s.id.starts_with("own step ") || !ids.insert(s.id).second)
            throw InputError(say("own steps"), say("“{}” is no id of a step of one's own, or there is another", s.id));
        requireText(say("own steps"), s.title);
        if (s.title.empty())
            throw InputError(say("own steps"), say("a step of one's own needs a title"));
        requireText(say("own steps"), s.text, limits::text, true);
        requireText(say("own steps"), s.after);
        within(say("own steps, minutes"), s.minutes, 0, limits::minutes, "min");
    }
    requireCount(say("wishes"), d.wishes.size(), limits::wishes);
    for (const auto& w : d.wishes) {
        requireId(w.first), requireId(w.then);
        if (w.first == w.then)
            throw InputError(say("wishes"), say("a step cannot come before itself"));
    }
    requireCount(say("divided steps"), d.splits.size(), limits::wishes);
    for (const auto& s : d.splits) {
        requireId(s.step), requireText(say("divided steps"), s.verb);
        within(say("divided steps"), s.nth, 1, limits::wishes);
    }
    requireCount(say("joined steps"), d.joined.size(), limits::wishes);
    for (const auto& j : d.joined) {
        requireId(j.first), requireId(j.then);
        if (j.first == j.then)
            throw InputError(say("joined steps"), say("a step cannot be joined to itself"));
    }
    requireCount(say("own words"), d.ownWords.size(), limits::steps);
    for (const auto& [step, own] : d.ownWords) {
        requireId(step);
        requireText(say("own words"), own.text, limits::text, true);
        requireText(say("own words"), own.was, limits::text, true);
    }
    requireCount(say("hidden steps"), d.hiddenSteps.size(), limits::steps);
    for (const auto& id : d.hiddenSteps)
        requireId(id);
}

void requireTrials(const Design& d)
{
    requireCount(say("run"), d.run.size(), limits::sizes);
    for (const auto& [size, bags] : d.run)
        within(say("run {}", size), bags, 0, limits::bags, "");
    requireCount(say("goods"), d.goods.size(), limits::goods);
    for (const auto& id : d.goods)
        requireText(say("goods"), id, limits::name);
    requireCount(say("trials"), d.trials.size(), limits::trials);
    for (const auto& t : d.trials) {
        requireText(say("trial"), t.date, 40);
        requireText(say("trial"), t.size, 40);
        requireText(say("trial, note"), t.note, limits::text, true);
        for (const auto& [what, v] : {std::pair{label("finished width"), t.width}, {label("finished height"), t.height},
                 {label("finished depth"), t.depth}, {label("strap, longest"), t.strapLongest},
                 {label("zip opening"), t.zipOpening}})
            within(say("trial, {}", what), v, 0, limits::length);
        within(say("trial, minutes"), t.minutes, 0, limits::minutes, "min");
        within(say("trial, minutes"), t.predicted, 0, limits::minutes, "min");
        requireCount(say("trial, steps"), t.steps.size(), limits::steps);
        for (const auto& [step, timed] : t.steps) {
            requireText(say("trial, steps"), step);
            within(say("trial, minutes"), timed.minutes, 0, limits::minutes, "min");
            within(say("trial, minutes"), timed.predicted, 0, limits::minutes, "min");
        }
    }
    requireCount(say("revisions"), d.revisions.size(), limits::revisions);
    for (const auto& r : d.revisions) {
        requireText(say("revision"), r.date, 40);
        requireText(say("revision"), r.text, limits::text, true);
    }
}

} // namespace

double within(const Message& place, double value, double least, double most, const char* unit)
{
    if (!(value >= least && value <= most)) // also refuses what is no number
        throw InputError(place, outside(value, least, most, unit));
    return value;
}

void requireSound(const Design& d)
{
    requireText(say("name"), d.name);
    requireText(say("studio"), d.studio);
    requireText(say("notes"), d.notes, limits::text, true);
    requireSizes(d);
    requireDimensions(d);
    requireCount(say("parts"), d.features.size(), limits::parts);
    for (const auto& f : d.features)
        if (!usable(f.id, false))
            throw InputError(say("parts"),
                say("“{}” is no name for a part: write letters and digits, beginning with a letter",
                    f.id.substr(0, 60)));
    requireCount(say("things carried"), d.carried.size(), limits::things);
    for (const auto& c : d.carried) {
        requireText(say("thing carried"), c.name);
        requireText(say("thing carried"), c.place);
        for (const auto& [what, v] :
            {std::pair{label("width"), c.width}, {label("height"), c.height}, {label("thickness"), c.thickness}})
            within(say("{}, {}", c.name.empty() ? say("thing carried") : naming(c.name), what), v, 0, limits::length);
        within(
            say("{}, weight", c.name.empty() ? say("thing carried") : naming(c.name)), c.weight, 0, limits::grams, "g");
    }
    requireCount(say("layers"), d.layers.size(), limits::layers);
    for (const auto& l : d.layers) {
        requireCount(say("layers"), l.edges.size(), limits::entries);
        for (const auto* s : {&l.pieces, &l.material, &l.fixing, &l.trim, &l.area, &l.grain})
            requireText(say("layers"), *s);
        for (const auto& [edge, trim] : l.edges)
            requireText(say("layers"), edge), requireText(say("layers"), trim);
    }
    requireWorkshop(d.workshop);
    requireTrials(d);
    for (const auto* map : {&d.choices, &d.materials}) {
        requireCount(say("choices and materials"), map->size(), limits::entries);
        for (const auto& [name, value] : *map)
            requireText(say("choices and materials"), name), requireText(say("choices and materials"), value);
    }
    requireCount(say("seams"), d.seamEnds.size(), limits::entries);
    for (const auto& [seam, ends] : d.seamEnds) {
        requireText(say("seam"), seam);
        within(naming("seam." + seam + ".start"), ends.start, 0, limits::length);
        within(naming("seam." + seam + ".end"), ends.end, 0, limits::length);
    }
    requireCount(say("seams"), d.seamCare.size(), limits::entries);
    for (const auto& [seam, care] : d.seamCare)
        requireText(say("seam"), seam);
    requireCount(say("strap ends"), d.endCare.size(), limits::entries);
    for (const auto& [piece, care] : d.endCare)
        requireText(say("strap end"), piece);
    requireSteps(d);
    requireCount(say("steps"), d.stepOrder.size(), limits::steps);
    for (const auto& id : d.stepOrder)
        requireText(say("steps"), id);
}

} // namespace tectonis
