// SPDX-License-Identifier: GPL-3.0-or-later
// Every form with every option, and with every part in every of its ways, once and twice: what properties are tried on.
#pragma once

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <functional>
#include <string>
#include <vector>

namespace tectonis {

/// Makes them all. What a form cannot carry is passed over: refusals have tests of their own.
inline std::vector<std::pair<std::string, Design>> everyDesign()
{
    std::vector<std::pair<std::string, Design>> out;
    const auto visit = [&](const std::string& name, const Design& design) { out.emplace_back(name, design); };
    const auto tried = [&](const std::string& name, Design design, const std::function<void(Design&)>& change) {
        try {
            change(design);
        } catch (const InputError&) {
            return;
        }
        visit(name, design);
    };
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        visit(form->id(), plain);
        for (const auto& choice : specOf(plain).choices)
            for (std::size_t i = 1; i < choice.options.size(); ++i)
                tried(form->id() + ", " + choice.name + "=" + choice.options[i].first, plain,
                    [&](Design& d) { setChoice(d, choice.name, choice.options[i].first); });
        for (const FeatureKind* kind : featureKinds()) {
            Design once = plain;
            std::string id;
            try {
                id = addFeature(once, kind->kind());
            } catch (const InputError&) {
                continue;
            }
            const std::string name = form->id() + " with " + id;
            visit(name, once);
            for (const auto& choice : kind->choices(*form))
                for (std::size_t i = 1; i < choice.options.size(); ++i)
                    tried(name + ", " + choice.name + "=" + choice.options[i].first, once,
                        [&](Design& d) { setChoice(d, id + "." + choice.name, choice.options[i].first); });
            tried(name + " twice", once, [&](Design& d) { addFeature(d, kind->kind()); });
        }
    }
    return out;
}

/// Calls @p visit with a name in words and a design, for each of them; they are made once.
inline void forEveryDesign(const std::function<void(const std::string&, const Design&)>& visit)
{
    static const auto all = everyDesign();
    for (const auto& [name, design] : all)
        visit(name, design);
}

/// In each size.
inline void everyPattern(const std::function<void(const std::string&, const Design&, const Pattern&)>& visit)
{
    forEveryDesign([&](const std::string& name, const Design& d) {
        for (const auto& p : draftAll(d)) {
            INFO(name << ", size " << p.size);
            visit(name, d, p);
        }
    });
}

} // namespace tectonis
