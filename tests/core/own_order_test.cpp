// SPDX-License-Identifier: GPL-3.0-or-later
// What a designer writes into the order of work: own steps, own words, wishes, hidden steps.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"
#include "random_design.hpp"

#include "booklet/booklet.hpp"
#include "checks/finding.hpp"
#include "formats/design_file.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"

#include <random>
#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

std::size_t placeOf(const Design& d, const Pattern& p, const std::string& step)
{
    const auto order = orderOf(d, p);
    for (std::size_t i = 0; i < order.size(); ++i)
        if (p.steps[order[i]].id == step)
            return i;
    return order.size();
}

std::string foundBy(const char* check, const Design& d)
{
    std::string out;
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == check && (f.size == "M" || f.size.empty()))
            out += words(f.subject) + ": " + words(f.text) + "\n";
    return out;
}

void wished(Design& d, const char* first, const char* then)
{
    const Pattern p = medium(d);
    edit(d, [&](Design& next) { change::wish(next, p, first, then); });
}

} // namespace

TEST_CASE("A step of one's own stands behind another, is told, timed and printed, and is read back from the file")
{
    Design d = newDesign("gusseted-satchel");
    const double before = minutesOf(medium(d));
    std::string id;
    edit(d, [&](Design& next) {
        id = change::addStep(next, medium(d), "slip.make", "Sew a loop", "Fold a strip to {10} and stitch it.", 5);
    });
    const Pattern p = medium(d);
    REQUIRE(p.step(id));
    CHECK(placeOf(d, p, id) == placeOf(d, p, "slip.make") + 1);
    CHECK(words(told(p, *p.step(id)).text) == "Fold a strip to {10} and stitch it.");
    CHECK(minutesOf(p) == Approx(before + 5));
    CHECK(brokenRules(p, orderOf(d, p)).empty());
    CHECK(checkAll(d, draftAll(d)).size()
        == checkAll(newDesign("gusseted-satchel"), draftAll(newDesign("gusseted-satchel"))).size());
    const auto patterns = draftAll(d);
    const Booklet booklet = bookletOf(d, {&patterns[0], &patterns[1]}, Unit::Mm);
    CHECK(std::any_of(
        booklet.steps.begin(), booklet.steps.end(), [](const BookletStep& s) { return s.title == "Sew a loop"; }));
    CHECK(designFromText(designText(d), "bag") == d);
    // It moves like any other, and a second one has a name of its own.
    edit(d, [&](Design& next) { CHECK(change::addStep(next, medium(d), id, "Another", "", 0) != id); });
    edit(d, [&](Design& next) { change::removeStep(next, id); });
    CHECK(!medium(d).step(id));
    CHECK_THROWS_WITH(edit(d, [&](Design& next) { change::removeStep(next, "mouth"); }), Contains("can be hidden"));
    CHECK_THROWS_WITH(edit(d, [&](Design& next) { change::addStep(next, medium(d), "nowhere", "A", "", 0); }),
        Contains("no such step"));
    CHECK_THROWS_WITH(edit(d, [&](Design& next) { change::addStep(next, medium(d), "mouth", "  ", "", 0); }),
        Contains("needs a title"));
    // However long somebody writes, it costs a message.
    CHECK_THROWS_WITH(
        edit(d, [&](Design& next) { change::addStep(next, medium(d), "mouth", "A", std::string(100000, 'x'), 0); }),
        Contains("own steps"));
}

TEST_CASE("A wish holds whatever else changes; one that the work forbids is told with what it asks for")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern first = medium(d);
    REQUIRE(placeOf(d, first, "strap.make") > placeOf(d, first, "connectors.make"));
    wished(d, "strap.make", "connectors.make");
    const Pattern p = medium(d);
    CHECK(placeOf(d, p, "strap.make") < placeOf(d, p, "connectors.make"));
    CHECK(brokenRules(p, orderOf(d, p)).empty());
    CHECK(foundBy("own-order", d) == "");
    // Another part, another size, another order of one's own.
    addFeature(d, "patch-pocket");
    d.stepOrder = {"connectors.make", "slip.make"};
    CHECK(placeOf(d, medium(d), "strap.make") < placeOf(d, medium(d), "connectors.make"));
    wished(d, "turn", "mouth");
    CHECK_THAT(foundBy("own-order", d),
        Contains("it cannot come before “Sew shell and lining together round the mouth”") && Contains("is not kept"));
    CHECK(placeOf(d, medium(d), "mouth") < placeOf(d, medium(d), "turn"));
}

TEST_CASE("Wishes that go round are told as the circle, and the first of them are kept")
{
    Design d = newDesign("gusseted-satchel");
    wished(d, "strap.make", "connectors.make");
    wished(d, "connectors.make", "slip.make");
    CHECK(foundBy("own-order", d) == "");
    wished(d, "slip.make", "strap.make");
    CHECK_THAT(foundBy("own-order", d),
        Contains("go round in a circle: “Make the strap”, then “Make the connectors”, then “Make the slip pocket”"));
    const Pattern p = medium(d);
    CHECK(placeOf(d, p, "strap.make") < placeOf(d, p, "connectors.make"));
    CHECK(placeOf(d, p, "connectors.make") < placeOf(d, p, "slip.make"));
    CHECK_THROWS_WITH(wished(d, "slip.make", "strap.make"), Contains("wished already"));
    CHECK_THROWS_WITH(wished(d, "slip.make", "slip.make"), Contains("before itself"));
    edit(d, [](Design& next) { change::forgetWishes(next, "connectors.make"); });
    CHECK(d.wishes.size() == 1);
    CHECK(foundBy("own-order", d) == "");
}

TEST_CASE("Own words stand in a step's place and are marked when what they were written for has changed")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern before = medium(d);
    edit(d, [&](Design& next) { change::stepWords(next, before, "mouth", "Sew round the mouth, slowly."); });
    const auto said = [&] { return told(medium(d), *medium(d).step("mouth")); };
    CHECK(words(said().text) == "Sew round the mouth, slowly.");
    CHECK_THAT(words(said().derived), Contains("Sew round the mouth at 10 mm"));
    CHECK(!said().outdated);
    CHECK(foundBy("own-words", d) == "");
    CHECK(designFromText(designText(d), "bag") == d);
    assign(d, "allowance.mouth=12");
    CHECK(said().outdated);
    CHECK_THAT(foundBy("own-words", d), Contains("Now it would say:") && Contains("at 12 mm"));
    // Written anew they hold again; taken back the step speaks for itself.
    edit(d, [&](Design& next) { change::stepWords(next, medium(d), "mouth", "Sew, slowly."); });
    CHECK(!said().outdated);
    edit(d, [&](Design& next) { change::stepWords(next, medium(d), "mouth", ""); });
    CHECK(!said().own);
}

TEST_CASE("Hidden steps are left out of booklets and nothing else; what is written about steps that are gone waits")
{
    Design d = newDesign("gusseted-satchel");
    const std::size_t steps = medium(d).steps.size();
    edit(d, [&](Design& next) { change::hideStep(next, medium(d), "turn", true); });
    const auto patterns = draftAll(d);
    CHECK(patterns[1].steps.size() == steps);
    const Booklet booklet = bookletOf(d, {&patterns[1]}, Unit::Mm);
    CHECK(booklet.steps.size() == steps - 1);
    CHECK(
        std::none_of(booklet.steps.begin(), booklet.steps.end(), [](const BookletStep& s) { return s.id == "turn"; }));
    edit(d, [&](Design& next) {
        change::hideStep(next, medium(d), "turn", false);
        change::hideStep(next, medium(d), "strap.make", true);
        change::stepWords(next, medium(d), "strap.attach", "Attach it.");
        change::wish(next, medium(d), "strap.make", "slip.make");
        change::addStep(next, medium(d), "strap.make", "Wax the strap", "", 3);
    });
    Design without = d;
    edit(without, [](Design& next) { change::removePart(next, "strap"); });
    const std::string told = foundBy("own-order", without);
    CHECK_THAT(told,
        Contains("Step “strap.make”: a wish is about it") && Contains("you wrote words for it")
            && Contains("it is hidden") && Contains("“Wax the strap” follows it and comes last now"));
    CHECK(medium(without).step("own step 1"));
    CHECK(designFromText(designText(without), "bag").wishes == d.wishes);
    // Another form keeps them too.
    CHECK(reformed(d, "boxed-corner").design.wishes == d.wishes);
}

TEST_CASE("Random wishes: every step stands once, what can be kept is kept, and no rule is broken by more than before")
{
    std::mt19937 random(11);
    int kept = 0, vain = 0, refused = 0;
    for (int round = 0; round < 60; ++round) {
        Design d = randomDesign(random, refused);
        try {
            validate(d);
        } catch (const InputError&) {
            continue;
        }
        const Pattern p = medium(d);
        for (int i = 0; i < 4; ++i) {
            const std::string a = p.steps[random() % p.steps.size()].id.text();
            const std::string b = p.steps[random() % p.steps.size()].id.text();
            if (a != b)
                d.wishes.push_back({a, b, {}});
        }
        const auto order = orderOf(d, p);
        CHECK(std::set<std::size_t>(order.begin(), order.end()).size() == p.steps.size());
        const auto notKept = vainWishes(d, p);
        vain += int(notKept.size());
        for (const auto& w : d.wishes) {
            const bool isVain = std::any_of(
                notKept.begin(), notKept.end(), [&](const VainWish& v) { return v.wish == w; });
            if (!isVain) {
                ++kept;
                CHECK(placeOf(d, p, w.first) < placeOf(d, p, w.then));
            }
        }
        for (const auto& b : brokenRules(p, order))
            CHECK(b.rule != "uses what is made");
    }
    CHECK(kept > 80);
    CHECK(vain > 10);
}
