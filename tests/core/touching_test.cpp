// SPDX-License-Identifier: GPL-3.0-or-later
// Only true dependence orders work on one flat piece: what lies apart goes on in any order, what lies on something else
// after it.
#include "drawn.hpp"
#include "every_design.hpp"

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

using namespace tectonis;

namespace {

/// The order with one step moved just before another.
std::vector<std::size_t> swapped(
    const Pattern& p, std::vector<std::size_t> order, const std::string& later, const std::string& earlier)
{
    const auto at = [&](const std::string& id) {
        return std::find_if(order.begin(), order.end(), [&](std::size_t i) { return p.steps[i].id == id; });
    };
    REQUIRE(at(later) != order.end());
    REQUIRE(at(earlier) != order.end());
    REQUIRE(at(earlier) < at(later));
    const std::size_t moved = *at(later);
    order.erase(at(later));
    order.insert(at(earlier), moved);
    return order;
}

} // namespace

TEST_CASE("Touching: a label beside a pocket goes on before it or after it; one on the pocket's place only before")
{
    Design d = newDesign("large-tote");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    const std::string pocket = addFeature(d, "patch-pocket"), label = addFeature(d, "label");
    setChoice(d, label + ".site", "front");
    assign(d, label + ".drop=15");
    assign(d, pocket + ".drop=150");
    Pattern p = draftAll(d).front();
    const auto order = orderOf(d, p);
    CHECK(brokenRules(p, order).empty());
    const auto other = swapped(p, order, label + ".on", pocket + ".on");
    CHECK(brokenRules(p, other).empty());
    CHECK(dryRun(p, other).back().parts == std::vector<WorkId>{"bag"});
    // Under the pocket's place the order counts.
    assign(d, label + ".drop=180");
    p = draftAll(d).front();
    CHECK_FALSE(brokenRules(p, other).empty());
}

TEST_CASE("Touching: whatever order a part's flat work is done in, the dry run ends with the bag, on every design")
{
    std::mt19937 random(11);
    int moved = 0, designs = 0;
    for (const Form* form : forms())
        for (const FeatureKind* kind : featureKinds()) {
            Design d = newDesign(form->id());
            try {
                addFeature(d, kind->kind());
            } catch (const InputError&) {
                continue;
            }
            INFO(form->id() << " with " << kind->kind());
            const Pattern p = draftAll(d)[1];
            // A random order that keeps all links: each time one of the steps for which all is ready.
            const auto links = linksOf(p);
            std::vector<std::size_t> order, waits(p.steps.size(), 0);
            for (const auto& link : links)
                ++waits[link.after];
            std::set<std::size_t> ready;
            for (std::size_t i = 0; i < p.steps.size(); ++i)
                if (waits[i] == 0)
                    ready.insert(i);
            while (!ready.empty()) {
                auto it = ready.begin();
                std::advance(it, long(random() % ready.size()));
                const std::size_t i = *it;
                ready.erase(it);
                moved += !order.empty() && order.back() > i;
                order.push_back(i);
                for (const auto& link : links)
                    if (link.before == i && --waits[link.after] == 0)
                        ready.insert(link.after);
            }
            REQUIRE(order.size() == p.steps.size()); // no circle
            CHECK(dryRun(p, order).back().parts == std::vector<WorkId>{"bag"});
            ++designs;
        }
    CHECK(designs > 100);
    CHECK(moved > 500);
}
