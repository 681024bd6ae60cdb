// SPDX-License-Identifier: GPL-3.0-or-later
// The order of work keeps the rules of the trade.
#include "checks/finding.hpp"

#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <fmt/format.h>

namespace tectonis {

void checkSequence(const CheckInput& in, Findings& out)
{
    for (const auto& broken : brokenRules(in.pattern, orderOf(in.design, in.pattern)))
        out.push_back({Severity::Error, "sequence", "", say("Step “{}”", in.pattern.steps[broken.early].title),
            in.pattern.steps[broken.early].id, "Sequence",
            say("it comes before “{}”, but {}", in.pattern.steps[broken.late].title, broken.reason),
            Repair{say("Go back to the proposed order"), {}, true}});
    for (const auto& step : in.pattern.steps)
        if (const Message reach = outOfReach(in.pattern, step); !reach.empty())
            out.push_back(
                {Severity::Warning, "reach", "", say("Step “{}”", step.title), step.id, "Sequence", reach, {}});
}

} // namespace tectonis
