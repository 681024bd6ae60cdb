// SPDX-License-Identifier: GPL-3.0-or-later
// Another form for a design: what the user did stays where the form can take it.
#include "editing/edits.hpp"

#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

/// True if the design can be drafted with the change; otherwise it stays as it was.
template <class Change> bool taken(Design& design, Change change)
{
    Design next = design;
    try {
        change(next);
        validate(next);
    } catch (const InputError&) {
        return false;
    }
    design = std::move(next);
    return true;
}

/// A new design of a form without the parts that it furnishes.
Design bare(const std::string& form)
{
    Design d = newDesign(form);
    for (const auto& f : d.features) {
        std::erase_if(d.dimensions, [&](const auto& each) { return each.first.starts_with(f.id + "."); });
        std::erase_if(d.choices, [&](const auto& each) { return each.first.starts_with(f.id + "."); });
    }
    d.features.clear();
    return d;
}

bool sameAsFurnished(const Dimension& a, const Design& furnished, const std::string& name)
{
    const auto it = furnished.dimensions.find(name);
    return it != furnished.dimensions.end() && it->second == a;
}

class Reform {
public:
    Reform(const Design& given, const std::string& form)
        : m_old(given), m_furnished(newDesign(given.form)), m_next(bare(form))
    {}

    Reformed done()
    {
        plainFields();
        dimensions();
        choices();
        for (const auto& f : m_old.features)
            part(f);
        furniture();
        materialsAndLayers();
        if (!m_old.stepOrder.empty())
            m_lost.push_back(say("the order of steps that you changed"));
        if (!m_old.seamEnds.empty())
            m_lost.push_back(say("the seams' open ends"));
        if (!m_old.seamCare.empty())
            m_lost.push_back(say("what is done at thick seams"));
        if (!m_old.endCare.empty())
            m_lost.push_back(say("what is done at thick ends of straps"));
        return {std::move(m_next), std::move(m_lost)};
    }

private:
    void plainFields()
    {
        if (m_old.name != m_furnished.name)
            m_next.name = m_old.name;
        m_next.studio = m_old.studio, m_next.notes = m_old.notes, m_next.workshop = m_old.workshop,
        m_next.carried = m_old.carried, m_next.library = m_old.library;
        m_next.ownSteps = m_old.ownSteps, m_next.wishes = m_old.wishes, m_next.ownWords = m_old.ownWords,
        m_next.hiddenSteps = m_old.hiddenSteps; // they wait for their steps
        m_next.trials = m_old.trials, m_next.revisions = m_old.revisions, m_next.more = m_old.more;
        m_next.sizes = m_old.sizes, m_next.baseSize = m_old.baseSize;
        validate(m_next); // a form's own values hold in any list of sizes, or there is nothing to go on with
    }

    bool ofPart(const std::string& name) const
    {
        return std::any_of(m_old.features.begin(), m_old.features.end(),
            [&](const Feature& f) { return name.starts_with(f.id + "."); });
    }

    /// Body dimensions of the same name, all at once or else one by one, and the designer's own ones.
    void dimensions()
    {
        const DesignSpec& oldSpec = specOf(m_old);
        std::vector<std::string> names;
        for (const auto& [name, d] : m_old.dimensions)
            if (!ofPart(name) && (m_next.dimensions.contains(name) || !oldSpec.dimension(name)))
                names.push_back(name);
        std::set<std::string> left(names.begin(), names.end());
        const auto put = [&](Design& d, const std::string& name) { d.dimensions[name] = m_old.dimensions.at(name); };
        if (taken(m_next, [&](Design& d) {
                for (const auto& name : names)
                    put(d, name);
            }))
            left.clear();
        // What depends on another may be taken only after it.
        for (bool more = true; more && !left.empty();) {
            more = false;
            for (const auto& name : names)
                if (left.contains(name) && taken(m_next, [&](Design& d) { put(d, name); }))
                    left.erase(name), more = true;
        }
        for (const auto& [name, d] : m_old.dimensions) {
            const bool gone = left.contains(name) || std::find(names.begin(), names.end(), name) == names.end();
            if (ofPart(name) || !gone || sameAsFurnished(d, m_furnished, name))
                continue;
            const DimensionSpec* spec = oldSpec.dimension(name);
            const Message what = spec ? labelled(Label{spec->label}) : naming(name);
            if (isFormula(d.value))
                m_lost.push_back(say("{} {}", what, d.value));
            else if (const double was = std::stod(d.value); spec && spec->quantity == DimensionSpec::Quantity::Length)
                m_lost.push_back(say("{} {}", what, Len(was)));
            else
                m_lost.push_back(say("{} {}", what, Num(was)));
        }
    }

    void choices()
    {
        for (const auto& each : m_old.choices)
            if (!ofPart(each.first) && m_next.choices.contains(each.first))
                taken(m_next, [&](Design& d) { d.choices[each.first] = each.second; });
    }

    /// One part with its values; on another face if its own is not there; with the usual values where its own do not
    /// fit.
    void part(const Feature& f)
    {
        const auto add = [&](Design& d, bool ownValues) {
            d.features.push_back(f);
            for (const auto& each : m_old.choices)
                if (each.first.starts_with(f.id + "."))
                    if (const ChoiceSpec* c = specOf(d).choice(each.first); c
                        && std::any_of(c->options.begin(), c->options.end(),
                            [&](const auto& o) { return o.first == each.second; }))
                        d.choices.insert_or_assign(each.first, each.second);
            const bool homeless = !d.choices.contains(f.id + ".site");
            if (ownValues)
                for (const auto& [name, value] : m_old.dimensions)
                    if (name.starts_with(f.id + ".") && specOf(d).dimension(name))
                        d.dimensions[name] = value;
            fillIn(d);
            if (homeless)
                sitWhereItFits(d, featureKind(f.kind), f.id, 0);
        };
        const Label name{featureKind(f.kind).name()};
        if (taken(m_next, [&](Design& d) { add(d, true); }))
            return;
        if (taken(m_next, [&](Design& d) { add(d, false); }))
            m_lost.push_back(say("the measures of “{}”", name));
        else
            m_lost.push_back(say("the part “{}”", name));
    }

    /// What the form furnishes of kinds that the design has not, unless the designer took just that out before.
    void furniture()
    {
        const auto has = [](const Design& d, const std::string& kind) {
            return std::any_of(d.features.begin(), d.features.end(), [&](const Feature& f) { return f.kind == kind; });
        };
        const Design fresh = newDesign(m_next.form), kept = m_next;
        for (const auto& f : fresh.features)
            if (!has(kept, f.kind) && !(has(m_furnished, f.kind) && !has(m_old, f.kind)))
                taken(m_next, [&](Design& d) {
                    if (std::any_of(
                            d.features.begin(), d.features.end(), [&](const Feature& o) { return o.id == f.id; }))
                        addFeature(d, f.kind);
                    else
                        addAsFurnished(d, fresh, f);
                });
    }

    static void addAsFurnished(Design& d, const Design& fresh, const Feature& f)
    {
        d.features.push_back(f);
        for (const auto& each : fresh.dimensions)
            if (each.first.starts_with(f.id + "."))
                d.dimensions.insert(each);
        for (const auto& each : fresh.choices)
            if (each.first.starts_with(f.id + "."))
                d.choices.insert(each);
        fillIn(d);
    }

    void materialsAndLayers()
    {
        for (const auto& each : m_old.materials) {
            const std::string &role = each.first, &id = each.second;
            if (m_next.materials.contains(role))
                taken(m_next, [&](Design& d) { d.materials[role] = id; });
            else if (const auto was = m_furnished.materials.find(role);
                     was != m_furnished.materials.end() && was->second != id)
                m_lost.push_back(say("the material of “{}”", role));
        }
        if (m_old.layers == m_furnished.layers)
            return;
        const auto patterns = validated(m_next);
        const auto known = [&](const LayerRule& r) {
            return std::any_of(patterns.begin(), patterns.end(), [&](const Pattern& size) {
                return std::any_of(size.pieces.begin(), size.pieces.end(),
                    [&](const Piece& p) { return p.role == r.pieces || p.key == r.pieces; });
            });
        };
        std::set<std::string> own;
        std::vector<LayerRule> kept;
        for (const auto& r : m_old.layers) {
            own.insert(r.pieces);
            if (known(r))
                kept.push_back(r);
            else if (std::find(m_furnished.layers.begin(), m_furnished.layers.end(), r) == m_furnished.layers.end())
                m_lost.push_back(say("a layer behind “{}”", r.pieces));
        }
        taken(m_next, [&](Design& d) {
            std::erase_if(d.layers, [&](const LayerRule& r) { return own.contains(r.pieces); });
            d.layers.insert(d.layers.end(), kept.begin(), kept.end());
        });
    }

    const Design& m_old;
    Design m_furnished, m_next;
    std::vector<Message> m_lost;
};

} // namespace

Reformed reformed(const Design& design, const std::string& form) { return Reform(design, form).done(); }

} // namespace tectonis
