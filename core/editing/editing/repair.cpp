// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/repair.hpp"

#include "editing/edits.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

namespace tectonis {

void applyRepair(Design& design, const Finding& finding)
{
    if (!finding.repair)
        throw InputError(finding.subject, "there is no repair in one stroke for this");
    Design next = design;
    if (finding.repair->proposedOrder)
        next.stepOrder.clear();
    for (const auto& a : finding.repair->assignments) {
        const auto equals = a.find('=');
        const std::string name = a.substr(0, equals), value = a.substr(equals + 1);
        if (!next.dimensions.contains(name)) {
            assign(next, a);
            continue;
        }
        try {
            setDimension(next, name, value, {}, Unit::Mm, finding.size);
        } catch (const InputError&) {
            // Another size cannot take it: the others keep what they have.
            const DesignSpec& spec = specOf(design);
            for (std::size_t i = 0; i < design.sizes.size(); ++i)
                if (design.sizes[i] != finding.size)
                    next.dimensions[name].bySize.try_emplace(design.sizes[i], formatNumber(evaluate(design, spec, i).at(name), 6));
            setDimension(next, name, value, {}, Unit::Mm, finding.size);
        }
    }
    validate(next);
    design = std::move(next);
}

std::string whyNotMend(const Design& design, const Finding& finding)
{
    try {
        Design copy = design;
        applyRepair(copy, finding);
        return {};
    } catch (const InputError& e) {
        return e.what();
    }
}

} // namespace tectonis
