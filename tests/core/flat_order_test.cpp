// SPDX-License-Identifier: GPL-3.0-or-later
// The mouth sewn first, while all lies flat; and cloth that is washed before it is cut.
#include "drawn.hpp"
#include "english.hpp"

#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

using Verb = Act::Verb;

const std::vector<std::string> kForms{"boxed-corner", "separate-base", "large-tote", "cylinder", "flat-pouch"};

Design withoutParts(const std::string& form)
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    return d;
}

std::size_t at(const Pattern& p, const std::vector<std::size_t>& order, const std::string& id)
{
    for (std::size_t i = 0; i < order.size(); ++i)
        if (p.steps[order[i]].id == id)
            return i;
    FAIL("no step " << id);
    return 0;
}

void requireSewable(const Design& d)
{
    for (const auto& p : draftAll(d)) {
        const auto order = orderOf(d, p);
        CHECK(brokenRules(p, order).empty());
        const auto states = dryRun(p, order);
        CHECK(states.back().parts == std::vector<WorkId>{"bag"});
        CHECK(states.back().wrongSideOut.empty());
        for (const auto& state : states) {
            CHECK(state.problems.empty());
            CHECK(state.reach.empty());
        }
        std::map<SeamId, int> sewn;
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                if (act.verb == Verb::Sew || act.verb == Verb::JoinCoats)
                    for (const auto& seam : act.seams)
                        ++sewn[seam];
        CHECK(sewn["mouth"] == 1);
        for (const auto& [seam, times] : sewn) {
            INFO(seam.text());
            CHECK(times == 1);
        }
    }
}

} // namespace

TEST_CASE("The mouth first: the same pieces are sewn flat, with every part that such a bag takes, in all sizes")
{
    for (const auto& form : kForms) {
        INFO(form);
        const Design turned = withoutParts(form);
        Design flat = turned;
        setChoice(flat, "assembly", "flat");
        edit(flat, [](Design& next) { next.workshop.leastRound = 2000; }); // nothing round is within reach
        requireSewable(flat);
        const auto was = draftAll(turned), is = draftAll(flat);
        for (std::size_t i = 0; i < was.size(); ++i) {
            REQUIRE(was[i].pieces.size() == is[i].pieces.size());
            for (std::size_t k = 0; k < was[i].pieces.size(); ++k)
                CHECK(flattened(was[i].pieces[k].cut, 0.1) == flattened(is[i].pieces[k].cut, 0.1));
        }
        for (const auto* kind : featureKinds()) {
            INFO(kind->kind());
            Design d = flat;
            try {
                addFeature(d, kind->kind());
            } catch (const InputError&) {
                continue;
            }
            for (auto p : draftAll(d))
                for (const auto& f : checkAll(d, {p}))
                    CHECK(f.check != "sequence");
            if (kind->kind() != "drawstring" && kind->kind() != "channel") // their rows are round for good
                requireSewable(d);
        }
    }
}

TEST_CASE(
    "The mouth first: wall on its lining, understitched there; then the shell's sides, then the lining's, then turned")
{
    Design d = withoutParts("boxed-corner");
    setChoice(d, "assembly", "flat");
    const Pattern p = draftAll(d).front();
    const auto order = orderOf(d, p);
    CHECK(at(p, order, "mouth") < at(p, order, "sides"));
    CHECK(at(p, order, "boxes") < at(p, order, "lining.sides"));
    CHECK(at(p, order, "lining.boxes") < at(p, order, "turn"));
    CHECK(at(p, order, "turn") < at(p, order, "close"));
    const Step& mouth = *p.step("mouth");
    const std::string text = words(told(p, mouth).text);
    CHECK_THAT(text, Contains("The front lies on the lining front"));
    CHECK_THAT(text, Contains("The back lies on the lining back"));
    CHECK_THAT(text, Contains("Press the allowances towards the lining front and lining back"));
    CHECK_THAT(text, Contains("Topstitch 2 mm from the seam, on the lining front and lining back"));
    CHECK_THAT(words(told(p, *p.step("sides")).text), Contains("Open the walls away from their linings"));

    // The sides cannot come first: they take up what the mouth made.
    std::vector<std::size_t> wrong = order;
    std::iter_swap(wrong.begin() + long(at(p, order, "mouth")), wrong.begin() + long(at(p, order, "sides")));
    CHECK(!brokenRules(p, wrong).empty());
}

TEST_CASE("The mouth first: a zip at the mouth bridges both walls before their linings cover it; connectors are not "
          "caught in it")
{
    Design d = withoutParts("boxed-corner");
    setChoice(d, "assembly", "flat");
    const std::string tabs = addFeature(d, "connectors"); // in the seams beside the back
    CHECK(d.choices.at(tabs + ".held") == "sides");
    CHECK_THROWS_WITH(setChoice(d, tabs + ".held", "mouth"), Contains("sewn before the sides"));
    requireSewable(d);
    const std::string zip = addFeature(d, "top-zip");
    setChoice(d, zip + ".held", "mouth");
    requireSewable(d);
    const Pattern p = draftAll(d).front();
    const auto order = orderOf(d, p);
    CHECK(at(p, order, zip + ".tabs") < at(p, order, zip + ".on"));
    CHECK(at(p, order, zip + ".on") < at(p, order, "mouth"));
    CHECK(p.step(zip + ".on")->yields == WorkId("halves"));
}

TEST_CASE("Washed cloth: bought for what it shrinks, washed before anything else, waited for until it is dry")
{
    Design d = newDesign("large-tote");
    const auto before = makeMarkers(draftAll(d).front());
    setChoice(d, "washing", "before");
    const Pattern p = draftAll(d).front();
    const auto after = makeMarkers(p);
    REQUIRE(before.size() == after.size());
    int more = 0;
    for (std::size_t i = 0; i < before.size(); ++i) {
        const double shrink = p.material(after[i].material).shrink;
        INFO(after[i].material.text());
        CHECK(after[i].length == before[i].length);
        CHECK(after[i].shrinks == shrink);
        CHECK(after[i].soldLength * (1 - shrink / 100) >= after[i].length - 1e-6); // enough is left
        CHECK((after[i].soldLength - 100) * (1 - shrink / 100) < after[i].length); // and not 0.1 m more
        more += after[i].soldLength > before[i].soldLength;
    }
    CHECK(more > 0);

    const auto order = orderOf(d, p);
    CHECK(p.steps[order.front()].id == "preshrink");
    const std::string text = words(told(p, p.steps[order.front()]).text);
    CHECK_THAT(text, Contains("Cotton canvas, 12 oz (407 g/m²): it loses up to 5 % of its length"));
    CHECK(dryRun(p, order)[1].waited + minutesOf(p, p.steps[order.front()]).result > 240);
    std::vector<std::size_t> wrong = order;
    std::swap(wrong[0], wrong[1]);
    REQUIRE(!brokenRules(p, wrong).empty());
    CHECK_THAT(words(brokenRules(p, wrong).front().reason), Contains("washed before anything is cut"));

    // What does not shrink is not washed.
    setMaterial(d, "shell", "vinyl");
    setMaterial(d, "lining", "lining-nylon");
    setMaterial(d, "strap", "webbing-polypropylene");
    CHECK(!draftAll(d).front().step("preshrink"));
}
