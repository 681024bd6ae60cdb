// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/validated.hpp"

#include "buildup/layers.hpp"
#include "buildup/shapes.hpp"
#include "design/limits.hpp"
#include "editing/draft.hpp"
#include "library/library.hpp"
#include "parallel/parallel.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {
namespace {

void requireMaterial(const Design& design, const std::string& id)
{
    if (!design.library->find(id))
        throw InputError(say("materials"), say("there is no material “{}”", id));
}

void requireKnown(const Design& design)
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
            throw InputError(c.name, say("“{}” is no choice here; choose one of {}", value, known));
    }
    for (const auto& [role, id] : design.materials)
        requireMaterial(design, id);
    for (const auto& rule : design.layers) {
        if (rule.material.empty())
            continue; // nothing lies there
        requireMaterial(design, rule.material);
        if (rule.fixing == "quilted")
            quiltingOf(rule.trim);
        else if (const auto shape = parseShape(rule.area); shape.kind != LayerShape::Kind::Area)
            trimReach(rule.trim.empty() ? "stitch" : rule.trim, 0);
        if (!rule.grain.empty())
            within(say("grain"), parseLength(rule.grain), -360, 360, "°");
        for (const auto& [edge, trim] : rule.edges)
            trimReach(trim, 0);
    }
    for (const auto& d : spec.dimensions)
        if (!design.dimensions.contains(d.name))
            throw InputError(d.name, say("the design lacks this dimension"));
}

/// Drafting finds what ranges alone cannot: a feature that lacks what it needs.
template <class Draft> auto drafted(const Design& design, const Draft& draft) -> decltype(draft())
{
    try {
        return draft();
    } catch (const InputError&) {
        throw;
    } catch (const std::exception& e) {
        // A case that drafting did not foresee must not end anything: the design that stands is unharmed.
        throw InputError(design.form, say("the bag cannot be drafted like this ({})", std::string(e.what())));
    }
}

} // namespace

std::vector<Pattern> validated(const Design& design)
{
    requireKnown(design);
    return drafted(design, [&] { return draftAll(design); });
}

Sketched sketched(const Design& design, const Change& change, std::size_t size)
{
    Sketched out{design, {}};
    change(out.design);
    requireKnown(out.design);
    const DesignSpec& spec = specOf(out.design);
    for (std::size_t i = 0; i < out.design.sizes.size(); ++i)
        if (i != size)
            evaluate(out.design, spec, i); // is every value inside its range?
    out.pattern = drafted(out.design, [&] { return draft(out.design, spec, size); });
    return out;
}

void draftOthers(const Design& design, std::size_t size, std::vector<Pattern>& patterns)
{
    const DesignSpec& spec = specOf(design);
    std::vector<Pattern> fresh(patterns.size());
    drafted(design, [&] {
        forEachIndex(fresh.size() - 1, [&](std::size_t i) {
            const std::size_t other = i + (i >= size);
            fresh[other] = draft(design, spec, other);
        });
        return 0;
    });
    for (std::size_t i = 0; i < fresh.size(); ++i)
        if (i != size)
            patterns[i] = std::move(fresh[i]);
}

void validate(const Design& design) { validated(design); }

Validated edited(const Design& design, const Change& change)
{
    Validated out{design, {}};
    change(out.design);
    out.patterns = validated(out.design);
    return out;
}

void edit(Design& design, const Change& change) { design = edited(design, change).design; }

} // namespace tectonis
