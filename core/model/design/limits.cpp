// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/limits.hpp"

#include "files/files.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

/// @p lines: may hold line ends and tabs.
void requireText(const std::string& place, const std::string& s, std::size_t most = limits::name, bool lines = false)
{
    if (!isUtf8(s))
        throw InputError(place, "the text is not UTF-8");
    if (s.size() > most)
        throw InputError(place, fmt::format("the text is longer than {} bytes", most));
    for (const char c : s)
        if ((static_cast<unsigned char>(c) < 32 && !(lines && (c == '\n' || c == '\t' || c == '\r'))) || c == 127)
            throw InputError(place, "the text holds a control character");
}

void requireCount(const char* what, std::size_t count, std::size_t most)
{
    if (count > most)
        throw InputError(what, fmt::format("there are {}; a design holds at most {}", count, most));
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
        throw InputError("sizes", "a design needs at least one size");
    requireCount("sizes", d.sizes.size(), limits::sizes);
    for (const auto& s : d.sizes) {
        requireText("sizes", s, 40);
        if (s.empty() || s.front() == ' ' || s.back() == ' ')
            throw InputError("sizes", fmt::format("“{}” is no name for a size", s));
        if (std::count(d.sizes.begin(), d.sizes.end(), s) > 1)
            throw InputError("sizes", fmt::format("two sizes are called “{}”", s));
    }
}

void requireDimensions(const Design& d)
{
    requireCount("dimensions", d.dimensions.size(), limits::dimensions);
    for (const auto& [name, dimension] : d.dimensions) {
        if (!usable(name, true))
            throw InputError("dimensions",
                fmt::format("“{}” is no name for a dimension: write letters, digits and dots, beginning with a letter, "
                            "and no word that formulas know already",
                    name.substr(0, 60)));
        requireText(name, dimension.value, 400);
        const SizeRule& rule = dimension.rule;
        if (!std::isfinite(rule.amount)
            || (rule.kind == SizeRule::Kind::Ratio && (rule.amount <= 0 || rule.amount > 10)))
            throw InputError(name,
                fmt::format(
                    "a size rule of {} makes no size; a ratio lies between 0 and 10", formatNumber(rule.amount, 4)));
        within(name + ", size rule", rule.amount, -limits::length, limits::length);
        for (const auto& [size, own] : dimension.bySize) {
            sizeIndex(d, size);
            requireText(name, own, 400);
        }
    }
}

void requireWorkshop(const Workshop& w)
{
    requireText("workshop", w.machine);
    within("machine limit", w.machineLimit, 1, 40);
    within("foot width", w.footWidth, 0, 40);
    within("stitch speed", w.stitchSpeed, 0.01, 100, "m a minute");
    within("labour rate", w.labourRate, 0, 100000, "an hour");
    within("overhead", w.overhead, 0, 1000, "%");
}

void requireTrials(const Design& d)
{
    requireCount("trials", d.trials.size(), limits::trials);
    for (const auto& t : d.trials) {
        requireText("trial", t.date, 40);
        requireText("trial", t.size, 40);
        requireText("trial, note", t.note, limits::text, true);
        for (const auto& [what, v] : {std::pair{"finished width", t.width}, {"finished height", t.height},
                 {"finished depth", t.depth}, {"strap, longest", t.strapLongest}, {"zip opening", t.zipOpening}})
            within(std::string("trial, ") + what, v, 0, limits::length);
        within("trial, minutes", t.minutes, 0, limits::minutes, "min");
    }
    requireCount("revisions", d.revisions.size(), limits::revisions);
    for (const auto& r : d.revisions) {
        requireText("revision", r.date, 40);
        requireText("revision", r.text, limits::text, true);
    }
}

} // namespace

double within(const std::string& place, double value, double least, double most, const std::string& unit)
{
    if (!(value >= least && value <= most)) // also refuses what is no number
        throw InputError(place,
            fmt::format("{} is outside the allowed {} to {}{}",
                std::isfinite(value) && std::abs(value) < 1e15 ? formatNumber(value) : "that", formatNumber(least),
                formatNumber(most), unit.empty() ? "" : " " + unit));
    return value;
}

void requireSound(const Design& d)
{
    requireText("name", d.name);
    requireText("studio", d.studio);
    requireText("notes", d.notes, limits::text, true);
    requireSizes(d);
    requireDimensions(d);
    requireCount("parts", d.features.size(), limits::parts);
    for (const auto& f : d.features)
        if (!usable(f.id, false))
            throw InputError("parts",
                fmt::format("“{}” is no name for a part: write letters and digits, beginning with a letter",
                    f.id.substr(0, 60)));
    requireCount("things carried", d.carried.size(), limits::things);
    for (const auto& c : d.carried) {
        requireText("thing carried", c.name);
        requireText("thing carried", c.place);
        for (const auto& [what, v] : {std::pair{"width", c.width}, {"height", c.height}, {"thickness", c.thickness}})
            within((c.name.empty() ? "thing carried" : c.name) + ", " + what, v, 0, limits::length);
    }
    requireCount("layers", d.layers.size(), limits::layers);
    for (const auto& l : d.layers) {
        requireCount("layers", l.edges.size(), limits::entries);
        for (const auto* s : {&l.pieces, &l.material, &l.fixing, &l.trim, &l.area})
            requireText("layers", *s);
        for (const auto& [edge, trim] : l.edges)
            requireText("layers", edge), requireText("layers", trim);
    }
    requireWorkshop(d.workshop);
    requireTrials(d);
    for (const auto* map : {&d.choices, &d.materials}) {
        requireCount("choices and materials", map->size(), limits::entries);
        for (const auto& [name, value] : *map)
            requireText("choices and materials", name), requireText("choices and materials", value);
    }
    requireCount("seams", d.seamEnds.size(), limits::entries);
    for (const auto& [seam, ends] : d.seamEnds) {
        requireText("seam", seam);
        within("seam." + seam + ".start", ends.start, 0, limits::length);
        within("seam." + seam + ".end", ends.end, 0, limits::length);
    }
    requireCount("steps", d.stepOrder.size(), limits::steps);
    for (const auto& id : d.stepOrder)
        requireText("steps", id);
}

} // namespace tectonis
