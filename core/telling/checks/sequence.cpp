// SPDX-License-Identifier: GPL-3.0-or-later
// The order of work keeps the rules of the trade.
#include "checks/finding.hpp"

#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <algorithm>

namespace tectonis {

void checkSequence(const CheckInput& in, Findings& out)
{
    for (const auto& broken : brokenRules(in.pattern, orderOf(in.design, in.pattern)))
        out.push_back({Severity::Error, "sequence", "", say("Step “{}”", in.pattern.steps[broken.early].title),
            in.pattern.steps[broken.early].id, "Sequence",
            say("it comes before “{}”, but {}", in.pattern.steps[broken.late].title, broken.reason),
            Repair{say("Go back to the proposed order"), {}, true}});
    for (const auto& step : in.pattern.steps)
        if (const Message reach = outOfReach(in.pattern, step); !reach.empty()) {
            // Without a free arm a bag is bagged out rather than dropped in: then one row at the mouth is left to
            // hands.
            std::optional<Repair> repair;
            if (std::any_of(
                    step.acts.begin(), step.acts.end(), [](const Act& act) { return act.verb == Act::Verb::DropIn; }))
                repair = Repair{say("Bag it out instead of dropping the lining in"), {"assembly=bagged-out"}};
            out.push_back({Severity::Warning, "reach", "", say("Step “{}”", step.title), step.id, "Sequence", reach,
                std::move(repair)});
        }
}

} // namespace tectonis
