// SPDX-License-Identifier: GPL-3.0-or-later
// What was asked for and what is sold: a size rule that takes a typed value to the next in stock says so.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {

void checkStock(const CheckInput& in, Findings& out)
{
    for (const auto& [name, d] : in.design.dimensions) {
        if (d.rule.kind != SizeRule::Kind::Stock || isFormula(d.value) || d.bySize.contains(in.pattern.size)
            || in.pattern.size != in.design.baseSize)
            continue;
        const double asked = std::stod(d.value), given = in.pattern.values.at(name);
        if (std::abs(asked - given) < 0.01)
            continue;
        const DimensionSpec* spec = in.spec.dimension(name);
        if (spec
            && !counts(
                *spec, [&](const std::string& asks) { return in.pattern.values.at(asks); }, in.design.choices))
            continue;
        out.push_back({Severity::Note, "stock", "", spec ? labelled(Label{spec->label}) : naming(name), name, "Sizes",
            say("{} was asked for; {} is what is sold, so that is drafted. Let its size rule hold to keep {} "
                "all the same.",
                Len(asked), Len(given), Len(asked)),
            Repair{say("Take {}", Len(given)), {fmt::format("{}={}", name, given)}, false}});
    }
}

/// Sizes that come out alike in all that is cut: one of them is one too many.
void checkSizes(const std::vector<Pattern>& patterns, Findings& out)
{
    for (std::size_t i = 0; i < patterns.size(); ++i)
        for (std::size_t k = i + 1; k < patterns.size(); ++k) {
            const auto &a = patterns[i].pieces, &b = patterns[k].pieces;
            bool alike = a.size() == b.size();
            for (std::size_t n = 0; alike && n < a.size(); ++n)
                alike = a[n].key == b[n].key && std::abs(areaOf(a[n].cut) - areaOf(b[n].cut)) < 0.01
                    && std::abs(lengthOf(a[n].cut) - lengthOf(b[n].cut)) < 0.001;
            if (alike)
                out.push_back({Severity::Warning, "same-size", patterns[k].size,
                    say("Sizes {} and {}", patterns[i].size, patterns[k].size), "", "Sizes",
                    say("every piece is the same in both. Give a dimension a size rule that grows, or leave one of the "
                        "sizes out."),
                    {}});
        }
}

} // namespace tectonis
