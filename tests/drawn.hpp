// SPDX-License-Identifier: GPL-3.0-or-later
// Designs with assignments, their middle size, and the workings they keep.
#pragma once

#include "english.hpp"

#include "checks/finding.hpp"
#include "design/spec.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "sequence/minutes.hpp"
#include "sequence/told.hpp"

#include <catch2/catch.hpp>

namespace tectonis {

/// Of what ships with the program.
inline const Material& material(const MaterialId& id) { return Library::builtIn()->material(id); }
inline const Paper& paperOf(const std::string& name) { return Library::builtIn()->paper(name); }

inline Pattern medium(const Design& d) { return draftAll(d)[1]; }
inline Mockup mediumMockup(const Design& d) { return mockupOf(d, medium(d)); }

inline const Design& satchel()
{
    static const Design design = newDesign("gusseted-satchel");
    return design;
}

inline Design with(const std::string& form, const std::vector<std::string>& assignments)
{
    Design d = newDesign(form);
    for (const auto& a : assignments)
        assign(d, a);
    return d;
}

inline double worked(const Pattern& p, const std::string& key)
{
    for (const auto& w : p.workings)
        if (w.key == key)
            return w.result;
    FAIL("no working " << key);
    return 0;
}

inline double minutesAt(const Pattern& p, const char* step) { return minutesOf(p, *p.step(step)).result; }
/// What a maker reads at a step.
inline Message textOf(const Pattern& p, const char* step) { return told(p, *p.step(step)).text; }

/// All that a maker reads.
inline std::string booklet(const Pattern& p)
{
    std::string out;
    for (const auto& step : p.steps)
        out += words(told(p, step).text) + "\n";
    return out;
}

/// What one check says of the middle size.
inline Findings found(const Design& d, const std::string& check)
{
    const auto all = draftAll(d);
    Findings out;
    for (auto& f : checkAll(d, all))
        if (f.check == check && f.size == "M")
            out.push_back(f);
    return out;
}

} // namespace tectonis
