// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/edits.hpp"

#include "buildup/layers.hpp"
#include "library/material.hpp"
#include "checks/finding.hpp"
#include "design/formula.hpp"
#include "design/limits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "sizes/stock.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <limits>
#include <set>

namespace tectonis {
namespace {

/// Tries a change on a copy; the design takes it only if it is valid.
template <class Change> void attempt(Design& design, Change change)
{
    Design next = design;
    change(next);
    validate(next);
    design = std::move(next);
}

Dimension& dimensionOf(Design& design, const std::string& name)
{
    const auto it = design.dimensions.find(name);
    if (it == design.dimensions.end())
        throw InputError(name, "the design has no such dimension");
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

void place(Design& design, const std::string& name, const std::string& text, bool number, double value, const std::optional<std::string>& size,
           const std::optional<std::string>& seenIn)
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

} // namespace

void validate(const Design& design) { validated(design); }

std::vector<Pattern> validated(const Design& design)
{
    requireSound(design);
    sizeIndex(design, design.baseSize);
    const DesignSpec& spec = specOf(design);
    for (const auto& c : spec.choices) {
        const auto it = design.choices.find(c.name);
        const std::string value = it == design.choices.end() ? "" : it->second;
        std::string known;
        bool found = false;
        for (const auto& [option, label] : c.options) {
            known += (known.empty() ? "" : ", ") + option;
            found |= option == value;
        }
        if (!found)
            throw InputError(c.name, fmt::format("“{}” is no choice here; choose one of {}", value, known));
    }
    for (const auto& [role, id] : design.materials)
        material(id);
    for (const auto& rule : design.layers) {
        material(rule.material);
        if (rule.area.empty())
            trimReach(rule.trim, 0);
        for (const auto& [edge, trim] : rule.edges)
            trimReach(trim, 0);
    }
    for (const auto& d : spec.dimensions)
        if (!design.dimensions.contains(d.name))
            throw InputError(d.name, "the design lacks this dimension");
    // Drafting finds what ranges alone cannot: a feature that lacks what it needs.
    try {
        return draftAll(design);
    } catch (const InputError&) {
        throw;
    } catch (const std::exception& e) {
        // A case that drafting did not foresee must not end anything: the design that stands is unharmed.
        throw InputError(design.form, fmt::format("the bag cannot be drafted like this ({})", e.what()));
    }
}

void setDimension(Design& design, const std::string& name, const std::string& text, const std::optional<std::string>& size, Unit bare,
                  const std::optional<std::string>& seenIn)
{
    attempt(design, [&](Design& next) {
        const Dimension& known = dimensionOf(next, name);
        (void)known;
        const DesignSpec designSpec = specOf(next);
        const DimensionSpec* spec = designSpec.dimension(name);
        const bool length = !spec || spec->quantity == DimensionSpec::Quantity::Length;
        double value = 0;
        try {
            const bool degrees = !length && text.ends_with("°");
            value = parseLength(degrees ? text.substr(0, text.size() - std::string("°").size()) : text, length ? bare : Unit::Mm);
        } catch (const InputError& e) {
            // Not a length: a formula, if it reads as one.
            if (text.find_first_of("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ") == std::string::npos && text.find_first_of("+*(") == std::string::npos)
                throw InputError(name, e.problem());
            if (text.find("nan") == 0 || text.find("inf") == 0)
                throw InputError(name, e.problem());
            try {
                namesIn(text);
            } catch (const InputError& bad) {
                throw InputError(name, bad.problem());
            }
            place(next, name, text, false, 0, size, seenIn);
            return;
        }
        place(next, name, text, true, value, size, seenIn);
    });
}

void setDimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn)
{
    attempt(design, [&](Design& next) {
        if (!std::isfinite(mm))
            throw InputError(name, "not a number");
        place(next, name, "", true, mm, {}, seenIn);
    });
}

void clearOwnValue(Design& design, const std::string& name, const std::string& size)
{
    attempt(design, [&](Design& next) { dimensionOf(next, name).bySize.erase(size); });
}

void setRule(Design& design, const std::string& name, const SizeRule& rule)
{
    attempt(design, [&](Design& next) { dimensionOf(next, name).rule = rule; });
}

void setChoice(Design& design, const std::string& name, const std::string& value)
{
    attempt(design, [&](Design& next) {
        if (!specOf(next).choice(name))
            throw InputError(name, "the design makes no such choice");
        next.choices[name] = value;
    });
}

void setMaterial(Design& design, const std::string& role, const std::string& materialId)
{
    attempt(design, [&](Design& next) {
        if (!next.materials.contains(role))
            throw InputError("material." + role, "the design has no such material");
        next.materials[role] = materialId;
    });
}

void setSeamEnds(Design& design, const std::string& seam, const SeamEnds& ends)
{
    attempt(design, [&](Design& next) {
        if (!draft(next, specOf(next), sizeIndex(next, next.baseSize)).seam(seam))
            throw InputError("seam." + seam, "the pattern has no such seam; “tectonis-cli walk” lists them");
        if (ends == SeamEnds{})
            next.seamEnds.erase(seam);
        else
            next.seamEnds[seam] = ends;
    });
}

void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size)
{
    const auto equals = assignment.find('=');
    if (equals == std::string::npos || equals == 0)
        throw InputError(assignment, "write NAME=VALUE");
    const std::string name = assignment.substr(0, equals), value = assignment.substr(equals + 1);
    if (size)
        sizeIndex(design, *size);
    if (design.dimensions.contains(name))
        return setDimension(design, name, value, size);
    if (size)
        throw InputError(name, "only dimensions have own values for a size");
    const auto words = [&](std::string Design::* field) {
        Design next = design;
        next.*field = value;
        requireSound(next);
        design.*field = value;
    };
    if (name == "name")
        words(&Design::name);
    else if (name == "studio")
        words(&Design::studio);
    else if (name == "notes")
        words(&Design::notes);
    else if (name == "sizes") {
        const auto names = sizeNames(value);
        setSizes(design, names, std::find(names.begin(), names.end(), design.baseSize) != names.end() ? design.baseSize : "");
    } else if (name == "base")
        setSizes(design, design.sizes, value);
    else if (name.starts_with("seam.") && (name.ends_with(".start") || name.ends_with(".end"))) {
        const bool start = name.ends_with(".start");
        const std::string key = name.substr(5, name.size() - 5 - (start ? 6 : 4));
        SeamEnds ends = design.seamEnds.contains(key) ? design.seamEnds.at(key) : SeamEnds{};
        (start ? ends.start : ends.end) = parseLength(value);
        setSeamEnds(design, key, ends);
    } else if (name.starts_with("material."))
        setMaterial(design, name.substr(9), value);
    else if (specOf(design).choice(name))
        setChoice(design, name, value);
    else
        throw InputError(name, "the design has no dimension or choice of that name; “tectonis-cli forms” lists them");
}

std::vector<std::string> sizeNames(const std::string& typed)
{
    const char between = typed.find(',') == std::string::npos ? ' ' : ',';
    std::vector<std::string> out;
    for (std::size_t at = 0; at <= typed.size();) {
        const auto end = std::min(typed.find(between, at), typed.size());
        const auto from = typed.find_first_not_of(' ', at), to = typed.find_last_not_of(' ', end == 0 ? 0 : end - 1);
        if (from < end && to != std::string::npos && to >= from)
            out.push_back(typed.substr(from, to - from + 1));
        at = end + 1;
    }
    return out;
}

std::string sizesText(const std::vector<std::string>& sizes)
{
    const bool comma = std::any_of(sizes.begin(), sizes.end(), [](const std::string& s) { return s.find(' ') != std::string::npos; });
    std::string out;
    for (const auto& s : sizes)
        out += (out.empty() ? "" : comma ? ", " : " ") + s;
    return out + (comma && sizes.size() == 1 ? "," : "");
}

namespace {

/// Sizes that got another name: where as many names went between two that stay as came, they are the same sizes.
std::map<std::string, std::string> renamed(const std::vector<std::string>& before, const std::vector<std::string>& after)
{
    using Stretches = std::map<std::string, std::vector<std::string>>; // names that the other list does not have, by the common name before them
    const auto stretches = [](const std::vector<std::string>& list, const std::vector<std::string>& other) {
        Stretches out;
        std::string last;
        for (const auto& s : list) {
            if (std::find(other.begin(), other.end(), s) != other.end())
                last = s;
            else
                out[last].push_back(s);
        }
        return out;
    };
    std::map<std::string, std::string> out;
    const Stretches fresh = stretches(after, before);
    for (const auto& [last, gone] : stretches(before, after))
        if (const auto came = fresh.find(last); came != fresh.end() && came->second.size() == gone.size())
            for (std::size_t i = 0; i < gone.size(); ++i)
                out[gone[i]] = came->second[i];
    return out;
}

} // namespace

void setSizes(Design& design, const std::vector<std::string>& sizes, const std::string& base)
{
    attempt(design, [&](Design& next) {
        const auto names = renamed(design.sizes, sizes);
        const auto nameNow = [&](const std::string& s) {
            const auto it = names.find(s);
            return it == names.end() ? s : it->second;
        };
        next.sizes = sizes;
        next.baseSize = !base.empty() ? base : nameNow(design.baseSize);
        if (base.empty() && !sizes.empty() && std::find(sizes.begin(), sizes.end(), next.baseSize) == sizes.end())
            next.baseSize = sizes.front();
        for (auto& [name, d] : next.dimensions) {
            std::map<std::string, std::string> own;
            for (auto& [size, value] : d.bySize)
                if (const std::string now = nameNow(size); std::find(sizes.begin(), sizes.end(), now) != sizes.end())
                    own[now] = value;
            d.bySize = std::move(own);
        }
        for (auto& trial : next.trials)
            trial.size = nameNow(trial.size);
    });
}

void sitWhereItFits(Design& design, const FeatureKind& kind, const std::string& id, std::size_t before)
{
    auto choices = kind.choices(formOf(design.form));
    const auto choice = std::find_if(choices.begin(), choices.end(), [](const ChoiceSpec& c) { return c.name == "site"; });
    if (choice == choices.end())
        return;
    // What belongs into the lining looks for room there first, what belongs outside, outside.
    const auto inside = [&](const auto& option) { return option.first.starts_with("lining"); };
    const bool within = inside(choice->options.front());
    std::stable_partition(choice->options.begin(), choice->options.end(), [&](const auto& option) { return inside(option) == within; });
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
        } catch (const InputError&) {
        }
    site = best;
}

namespace {

/// @p best: on the face where it is in nobody's way; else on the first that can carry it.
std::string add(Design& design, const std::string& kind, bool best)
{
    std::string id;
    attempt(design, [&](Design& next) {
        const FeatureKind& feature = featureKind(kind);
        for (const auto& needed : feature.needs())
            if (std::none_of(next.features.begin(), next.features.end(), [&](const Feature& f) { return f.kind == needed; }))
                addFeature(next, needed);
        const auto patterns = validated(next);
        const std::size_t before = best ? checkAll(next, patterns).size() : anyFace;
        // Names under the id must be the part's alone: "zip.length" may be the form's, and so may the piece "band".
        const DesignSpec& spec = specOf(next);
        const auto taken = [&](const std::string& name) {
            const auto under = [&](const std::string& other) { return other == name || other.starts_with(name + "."); };
            const auto any = [&](const auto& list, auto field) { return std::any_of(list.begin(), list.end(), [&](const auto& each) { return under(each.*field); }); };
            const Pattern& p = patterns.front();
            return any(next.features, &Feature::id) || any(spec.dimensions, &DimensionSpec::name) || any(spec.choices, &ChoiceSpec::name) || any(p.pieces, &Piece::key) || any(p.seams, &Seam::key)
                || any(p.steps, &Step::id);
        };
        id = feature.shortName();
        for (int i = 2; taken(id); ++i)
            id = feature.shortName() + std::to_string(i);
        next.features.push_back({id, kind});
        fillIn(next);
        feature.settle(next, id);
        sitWhereItFits(next, feature, id, before);
    });
    return id;
}

} // namespace

std::string addFeature(Design& design, const std::string& kind) { return add(design, kind, true); }

std::string whyNotAdd(const Design& design, const std::string& kind)
{
    try {
        Design copy = design;
        add(copy, kind, false);
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

/// Dimensions whose names begin with @p those and that ask a part that is about to go keep the values they have, in every size.
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
            if (const double was = values[i].at(name); std::abs(grown(d.rule, values[base].at(name), double(i) - double(base)) - was) > 1e-6)
                d.bySize.try_emplace(design.sizes[i], formatNumber(was, 6));
    }
}

void takeOut(Design& design, const std::string& id)
{
    const auto named = [](const std::string& wanted) { return [wanted](const Feature& f) { return f.id == wanted; }; };
    const auto it = std::find_if(design.features.begin(), design.features.end(), named(id));
    if (it == design.features.end())
        throw InputError(id, "the design has no such feature");
    const auto other = std::find_if(design.features.begin(), design.features.end(), [&](const Feature& f) { return f.kind == it->kind && f.id != id; });
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
            if (const auto needs = featureKind(f.kind).needs(); std::find(needs.begin(), needs.end(), it->kind) != needs.end())
                lost.push_back(f.id);
        for (const auto& dependent : lost)
            takeOut(design, dependent);
        keepValuesWithout(design, id, "");
    }
    design.features.erase(std::find_if(design.features.begin(), design.features.end(), named(id)));
    std::erase_if(design.dimensions, [&](const auto& d) { return d.first.starts_with(id + "."); });
    std::erase_if(design.choices, [&](const auto& c) { return c.first.starts_with(id + "."); });
}

} // namespace

void removeFeature(Design& design, const std::string& id)
{
    attempt(design, [&](Design& next) { takeOut(next, id); });
}

void moveFeature(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at)
{
    const Site* face = seenIn.site(site);
    if (!face)
        throw InputError(site, "this form has no such face");
    if (!design.dimensions.contains(id + ".drop"))
        throw InputError(id, "this part has no place of its own to be moved");
    attempt(design, [&](Design& next) {
        if (const auto choice = next.choices.find(id + ".site"); choice != next.choices.end())
            choice->second = site;
        const DesignSpec& spec = specOf(next);
        const auto put = [&](const std::string& name, double value) {
            const DimensionSpec* s = spec.dimension(name);
            if (!s || !next.dimensions.contains(name))
                return;
            Range range{-1e300, 1e300}; // what every size allows
            for (std::size_t size = 0; size < next.sizes.size(); ++size) {
                const Range here = rangeOf(*s, evaluate(next, spec, size));
                range = {std::max(range.min, here.min), std::min(range.max, here.max)};
            }
            setDimensionMm(next, name, std::clamp(value, range.min, std::max(range.min, range.max)), seenIn.size);
        };
        put(id + ".drop", face->top - at.y);
        put(id + ".across", at.x - face->x);
    });
}

SizeRule parseRule(const std::string& text)
{
    const auto space = text.find(' ');
    const std::string word = text.substr(0, space), rest = space == std::string::npos ? "" : text.substr(space + 1);
    const auto amount = [&](const std::string& s) {
        double plain = 0; // as it is written to a file, also "1e-05"
        if (const auto [end, error] = std::from_chars(s.data(), s.data() + s.size(), plain); error == std::errc{} && end == s.data() + s.size() && std::isfinite(plain))
            return plain;
        try {
            return parseLength(s);
        } catch (const InputError&) {
            throw InputError("size rule", fmt::format("“{}” is no amount", s));
        }
    };
    if (word == "hold" && rest.empty())
        return hold();
    if (word == "follow" && rest.empty())
        return follow();
    if (word == "step")
        return step(amount(rest));
    if (word == "ratio")
        return ratio(amount(rest));
    if (word == "stock") {
        const auto split = rest.find(' ');
        SizeRule rule = stock(rest.substr(0, split));
        if (!stockTables().contains(rule.stock))
            throw InputError("size rule", fmt::format("there is no stock table “{}”", rule.stock));
        if (split != std::string::npos)
            rule.amount = amount(rest.substr(split + 1));
        return rule;
    }
    throw InputError("size rule", fmt::format("“{}” is no rule; write hold, follow, step 20, ratio 1.08 or stock zip", text));
}

std::string ruleText(const SizeRule& rule)
{
    switch (rule.kind) {
    case SizeRule::Kind::Hold: return "hold";
    case SizeRule::Kind::Follow: return "follow";
    case SizeRule::Kind::Step: return fmt::format("step {}", rule.amount);
    case SizeRule::Kind::Ratio: return fmt::format("ratio {}", rule.amount);
    case SizeRule::Kind::Stock: return rule.amount == 0 ? "stock " + rule.stock : fmt::format("stock {} {}", rule.stock, rule.amount);
    }
    return "hold";
}

} // namespace tectonis
