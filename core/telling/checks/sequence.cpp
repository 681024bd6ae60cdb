// SPDX-License-Identifier: GPL-3.0-or-later
// The order of work keeps the rules of the trade.
#include "checks/finding.hpp"

#include "features/spec_of.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <algorithm>

namespace tectonis {
namespace {

bool offers(const CheckInput& in, const std::string& choice, const std::string& option)
{
    for (const auto& spec : specOf(in.design).choices)
        if (spec.name == choice)
            return std::any_of(
                spec.options.begin(), spec.options.end(), [&](const auto& each) { return each.first == option; });
    return false;
}

} // namespace

void checkSequence(const CheckInput& in, Findings& out)
{
    for (const auto& broken : brokenRules(in.pattern, orderOf(in.design, in.pattern)))
        out.push_back({Severity::Error, "sequence", "", say("Step “{}”", in.pattern.steps[broken.early].title),
            in.pattern.steps[broken.early].id, "Sequence",
            say("it comes before “{}”, but {}", in.pattern.steps[broken.late].title, broken.reason),
            Repair{say("Go back to the proposed order"), {}, true}});
    for (const auto& step : in.pattern.steps)
        if (const Message reach = outOfReach(in.pattern, step); !reach.empty()) {
            const auto does = [&](Act::Verb verb) {
                return std::any_of(
                    step.acts.begin(), step.acts.end(), [&](const Act& act) { return act.verb == verb; });
            };
            // Without a free arm the mouth is sewn while all lies flat; where a form cannot, a bag is bagged out rather
            // than dropped in: then one row at the mouth is left to hands.
            std::optional<Repair> repair;
            if (offers(in, "assembly", "flat"))
                repair = Repair{say("Sew the mouth flat, before the sides"), {"assembly=flat"}};
            else if (does(Act::Verb::DropIn))
                repair = Repair{say("Bag it out instead of dropping the lining in"), {"assembly=bagged-out"}};
            out.push_back({Severity::Warning, "reach", "", say("Step “{}”", step.title), step.id, "Sequence", reach,
                std::move(repair)});
        }
}

} // namespace tectonis
