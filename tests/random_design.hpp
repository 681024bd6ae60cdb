// SPDX-License-Identifier: GPL-3.0-or-later
// Designs at random inside the stated ranges, for properties.
#pragma once

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <cmath>
#include <random>

namespace tectonis {

/// Sets dimensions and choices at random, each inside the range that holds at that moment. A value that would push
/// another size or dimension out of its range is refused by the model itself, and the design stays valid.
inline Design randomDesign(std::mt19937& random, int& refused)
{
    const auto& all = forms();
    Design d = newDesign(all[random() % all.size()]->id());
    const Design plain = d;
    for (const auto& c : specOf(d).choices)
        d.choices[c.name] = c.options[random() % c.options.size()].first;
    if (!d.features.empty())
        try {
            validate(d);
        } catch (const InputError&) {
            ++refused; // parts that a form begins with got into each other's way
            d = plain;
        }
    // Features come and go.
    const auto& kinds = featureKinds();
    for (std::size_t i = 0; i < random() % 3; ++i)
        try {
            addFeature(d, kinds[random() % kinds.size()]->kind());
        } catch (const InputError&) {
            ++refused; // the form cannot carry it
        }
    if (!d.features.empty() && random() % 3 == 0)
        removeFeature(d, d.features[random() % d.features.size()].id);
    const DesignSpec spec = specOf(d);
    const std::size_t base = sizeIndex(d, d.baseSize);
    const std::size_t n = 4 + random() % 9;
    for (std::size_t i = 0; i < n; ++i) {
        // Body dimensions more often than the rest.
        const auto& s = spec.dimensions[random() % 2 ? random() % std::min<std::size_t>(5, spec.dimensions.size())
                                                     : random() % spec.dimensions.size()];
        const Range range = rangeOf(s, evaluate(d, spec, base));
        if (range.max < range.min)
            continue;
        // The ends of the ranges are where things break: one value in four is one of them.
        double v = std::uniform_real_distribution<double>(range.min, range.max)(random);
        if (random() % 4 == 0)
            v = random() % 2 ? range.min : range.max;
        if (s.quantity == DimensionSpec::Quantity::Count)
            v = std::round(v);
        const Dimension before = d.dimensions[s.name];
        d.dimensions[s.name].value = fmt::format("{}", v);
        try {
            for (std::size_t size = 0; size < d.sizes.size(); ++size)
                evaluate(d, spec, size);
        } catch (const InputError&) {
            d.dimensions[s.name] = before;
            ++refused;
        }
    }
    return d;
}

} // namespace tectonis
