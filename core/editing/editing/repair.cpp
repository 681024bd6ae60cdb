// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/repair.hpp"

#include "editing/edits.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

namespace tectonis {

void applyRepair(Design& design, const Finding& finding)
{
    edit(design, [&](Design& next) { change::repair(next, finding); });
}

void change::repair(Design& next, const Finding& finding)
{
    if (!finding.repair)
        throw InputError(finding.subject, say("there is no repair in one stroke for this"));
    const Design before = next;
    if (finding.repair->proposedOrder)
        next.stepOrder.clear();
    for (const auto& a : finding.repair->assignments) {
        const auto equals = a.find('=');
        const std::string name = a.substr(0, equals), value = a.substr(equals + 1);
        if (!next.dimensions.contains(name)) {
            change::assign(next, a);
            continue;
        }
        const Dimension was = next.dimensions.at(name);
        try {
            change::dimension(next, name, value, {}, Unit::Mm, finding.size);
            validate(next);
        } catch (const InputError&) {
            // Another size cannot take it: the others keep what they have.
            next.dimensions[name] = was;
            const DesignSpec& spec = specOf(before);
            for (std::size_t i = 0; i < before.sizes.size(); ++i)
                if (before.sizes[i] != finding.size)
                    next.dimensions[name].bySize.try_emplace(
                        before.sizes[i], formatNumber(evaluate(before, spec, i).at(name), 6));
            change::dimension(next, name, value, {}, Unit::Mm, finding.size);
        }
    }
}

Message whyNotMend(const Design& design, const Finding& finding)
{
    try {
        edited(design, [&](Design& next) { change::repair(next, finding); });
        return {};
    } catch (const InputError& e) {
        return e.said();
    }
}

} // namespace tectonis
