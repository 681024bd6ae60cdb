// SPDX-License-Identifier: GPL-3.0-or-later
// What closes a flap: snaps, a lock or tape, on every form, each set when it can be.
#include "drawn.hpp"
#include "english.hpp"

#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "figures/figure.hpp"
#include "forms/form.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

const std::map<std::string, Ware> kClosures{{"magnetic", Ware::Snap}, {"press", Ware::PressSnap},
    {"turn", Ware::TurnLock}, {"tuck", Ware::TuckLock}, {"sewn", Ware::SewnMagnet}, {"tape", Ware::HookAndLoop}};

std::map<std::string, Point> halves(const Pattern& p, const std::string& snap)
{
    std::map<std::string, Point> out;
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Snap && f.owner() == PartId(snap))
            out[f.key.text()] = f.at;
    return out;
}

} // namespace

TEST_CASE(
    "Closures: each is bought, set in its time and ends in one bag, on every form; its halves lie where a snap's do")
{
    int designs = 0;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        std::string snap;
        try {
            snap = addFeature(d, "snap");
        } catch (const InputError&) {
            continue;
        }
        std::map<std::string, Point> magnetic;
        for (const auto& [closure, ware] : kClosures) {
            INFO(form->id() << ", " << closure);
            setChoice(d, snap + ".closure", closure);
            for (const auto& p : draftAll(d)) {
                const auto notions = notionsOf(p);
                CHECK(std::count_if(notions.begin(), notions.end(), [&, bought = ware](const auto& h) {
                    return h.kind == bought;
                }) >= 1);
                const auto order = orderOf(d, p);
                CHECK(brokenRules(p, order).empty());
                CHECK(dryRun(p, order).back().parts == std::vector<WorkId>{"bag"});
                for (const auto& step : p.steps)
                    if (step.id.owner() == PartId(snap))
                        CHECK_FALSE(figureOf(p, step, nullptr, order).plan.empty());
            }
            const Pattern p = draftAll(d)[1];
            const auto at = halves(p, snap);
            CHECK(at.size() == 2);
            if (closure == "magnetic")
                magnetic = at;
            for (const auto& [key, point] : at)
                CHECK(distance(point, magnetic.at(key)) < 1e-9);
            for (const auto& finding : checkAll(d, draftAll(d))) {
                CHECK(finding.check != "no-act");
                CHECK(finding.check != "no-step");
            }
            ++designs;
        }
    }
    CHECK(designs >= 36);
}

TEST_CASE(
    "Closures: a press snap and a lock's plate are set on the finished bag, tape and magnets while a layer is single")
{
    Design d = newDesign("gusseted-satchel");
    const auto stepsOf = [&](const std::string& closure) {
        setChoice(d, "snap.closure", closure);
        const Pattern p = draftAll(d)[1];
        std::string early, late;
        for (const auto& step : p.steps)
            if (step.id.owner() == PartId("snap"))
                (step.yields == WorkId("bag") ? late : early) += words(told(p, step).text) + "\n";
        return std::pair{early, late};
    };
    const auto [magnetEarly, magnetLate] = stepsOf("magnetic");
    CHECK_THAT(magnetEarly, Contains("one layer and its patch"));
    CHECK(magnetLate.empty());
    const auto [pressEarly, pressLate] = stepsOf("press");
    CHECK(pressEarly.empty());
    CHECK_THAT(pressLate, Contains("through all layers") && Contains("Close the flap over the stud and press"));
    const auto [turnEarly, turnLate] = stepsOf("turn");
    CHECK_THAT(turnEarly, Contains("prongs of the knob's plate"));
    CHECK_THAT(turnLate, Contains("Cut the plate's window there through all layers of the flap"));
    const auto [tapeEarly, tapeLate] = stepsOf("tape");
    CHECK_THAT(tapeEarly,
        Contains("Cut the tape's hook half (40 mm, 20 mm wide)")
            && Contains("Cut the tape's loop half (40 mm, 20 mm wide)"));
    CHECK(tapeLate.empty());
    const auto [tuckEarly, tuckLate] = stepsOf("tuck");
    CHECK_THAT(tuckEarly, Contains("prongs of the lock's case") && Contains("one layer and its patch"));
    CHECK_THAT(tuckLate, Contains("Punch the tongue's holes there through all layers of the flap"));
    const auto [sewnEarly, sewnLate] = stepsOf("sewn");
    CHECK_THAT(sewnEarly, Contains("Lay one magnet of the pair") && Contains("the pair's other magnet"));
    CHECK(sewnLate.empty());
}

TEST_CASE("Closures: what pierces the lining is told where a pocket hangs behind it")
{
    Design d = newDesign("gusseted-satchel");
    const auto behindPocket = [&] {
        const auto findings = checkAll(d, draftAll(d));
        return std::any_of(findings.begin(), findings.end(), [](const Finding& f) {
            return words(f.subject).find("Snap") != std::string::npos && f.check == "collision";
        });
    };
    assign(d, "slip.drop=60");
    assign(d, "slip.height=120");
    setChoice(d, "snap.closure", "magnetic");
    const bool magnetic = behindPocket();
    setChoice(d, "snap.closure", "press");
    CHECK_FALSE(magnetic);
    CHECK(behindPocket());
}

TEST_CASE("Of several closures each step says which, and where its mark lies on the piece")
{
    Design d = newDesign("gusseted-satchel");
    const std::string other = addFeature(d, "snap");
    assign(d, "snap.across=-60"), assign(d, other + ".across=70");
    for (const char* closure : {"magnetic", "turn", "press", "tape"}) {
        for (const std::string& id : {std::string("snap"), other})
            setChoice(d, id + ".closure", closure);
        INFO(closure);
        const Pattern p = medium(d);
        int steps = 0;
        for (const auto& step : p.steps) {
            const bool first = step.id.owner() == PartId("snap"), second = step.id.owner() == PartId(other);
            if ((!first && !second) || step.acts.front().verb != Act::Verb::Set)
                continue;
            ++steps;
            const std::string title = words(step.title), text = words(told(p, step).text);
            CHECK((title.find("(snap 2)") != std::string::npos) == second);
            const bool byTouch = !step.acts.front().pieces.empty();
            if (byTouch) {
                CHECK_THAT(text, !Contains("It is the mark"));
                continue;
            }
            // A flap's lining is marked on its face, which looks to the body: left and right change places there.
            const bool inside = step.id.name() == "flap";
            const bool left = first != inside;
            CHECK_THAT(text,
                Contains(fmt::format(
                    "It is the mark {} mm to the {} of the middle", first ? 60 : 70, left ? "left" : "right")));
        }
        CHECK(steps >= 2);
    }
    setChoice(d, "snap.closure", "magnetic");
    removeFeature(d, other);
    for (const auto& step : medium(d).steps)
        CHECK_THAT(words(told(medium(d), step).text), !Contains("It is the mark"));
}
