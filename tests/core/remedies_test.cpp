// SPDX-License-Identifier: GPL-3.0-or-later
// What makes a thick seam thinner: worked by hand, kept to in every form, told, taken back.
#include "drawn.hpp"
#include "english.hpp"
#include "sewable.hpp"

#include "buildup/remedies.hpp"
#include "checks/remedies.hpp"
#include "design/seam_care.hpp"
#include "editing/edits.hpp"
#include "editing/repair.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

using Kind = Remedy::Kind;

/// Walls on a base without parts and interlinings.
Design bareWalls()
{
    Design d = newDesign("separate-base");
    while (!d.features.empty())
        removeFeature(d, d.features.front().id);
    d.layers.clear();
    return d;
}

const Remedy& among(const std::vector<Remedy>& all, Kind kind)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const Remedy& r) { return r.kind == kind; });
    REQUIRE(it != all.end());
    return *it;
}

double thickOf(const Pattern& p, const SeamId& key, ThickSpot spot)
{
    REQUIRE(p.seam(key));
    return thickAt(p, *p.seam(key), spot);
}

void stroke(Design& d, const Repair& repair)
{
    edit(d, [&](Design& next) {
        for (const auto& assignment : repair.assignments)
            change::assign(next, assignment);
    });
}

bool doneAt(const Pattern& p, Act::Verb verb, const SeamId& seam)
{
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == verb && std::find(act.seams.begin(), act.seams.end(), seam) != act.seams.end())
                return true;
    return false;
}

} // namespace

TEST_CASE("Remedies by hand: what each takes off where side seams cross a mouth, and off a topstitched row")
{
    Design d = bareWalls();
    const double canvas = material("canvas-12").underFoot(), cotton = material("lining-cotton").underFoot();
    // The side seams of shell and lining end on the mouth's seam; each is two allowances on one side.
    setChoice(d, "assembly", "bagged-out");
    Pattern p = medium(d);
    for (auto& seam : p.seams)
        seam.pressedOpen = seam.graded = false;
    const Seam& mouth = *p.seam("mouth");
    REQUIRE(bulkAt(p, mouth).atCrossing == Approx(3 * canvas + 3 * cotton));
    REQUIRE(bulkAt(p, mouth).crossedBy.size() == 4); // left and right, shell and lining
    const auto all = remediesFor(p, mouth, ThickSpot::Crossing);
    REQUIRE(all.size() == 6); // in the order of the trade
    const std::vector<Kind> order{Kind::Trim, Kind::Grade, Kind::Open, Kind::Aside, Kind::Hammer, Kind::Hand};
    for (std::size_t i = 0; i < all.size(); ++i)
        CHECK(all[i].kind == order[i]);
    CHECK(!among(all, Kind::Trim).whyNot.empty());      // there is no interlining
    for (const Kind kind : {Kind::Grade, Kind::Open}) { // one allowance of each instead of two
        CHECK(among(all, kind).gain == Approx(canvas + cotton));
        CHECK(among(all, kind).leaves == Approx(2 * canvas + 2 * cotton));
    }
    CHECK(among(all, Kind::Aside).leaves == Approx(canvas + cotton));
    CHECK(among(all, Kind::Hammer).leaves == Approx(0.85 * (3 * canvas + 3 * cotton))); // common practice, no source
    // Graded and opened, of two unlike allowances the thinner, or the thicker, is left.
    Instead shells;
    for (const char* side : {"side 1", "side 2"})
        shells.care[SeamId(side)].graded = true;
    CHECK(Bulks(p, shells).at(mouth).atCrossing == Approx(2 * canvas + 3 * cotton));
    // One of the two alone is no use: the other place is as thick as before.
    shells.care.erase(SeamId("side 2"));
    CHECK(Bulks(p, shells).at(mouth).atCrossing == Approx(3 * canvas + 3 * cotton));
    // The mouth's row: both pieces, each with its own allowance behind it.
    REQUIRE(bulkUnderTopstitch(p, mouth).underFoot == Approx(2 * canvas + 2 * cotton));
    const auto row = remediesFor(p, mouth, ThickSpot::Topstitch);
    CHECK(among(row, Kind::Grade).leaves == Approx(2 * canvas + 2 * cotton - std::max(canvas, cotton)));
    CHECK_THAT(exactly(among(row, Kind::Open).whyNot), Contains("turned on it"));
    CHECK(!among(row, Kind::Aside).whyNot.empty());
    const Seam& side = *p.seam("side 1");
    const auto sides = remediesFor(p, side, ThickSpot::Topstitch);
    CHECK(among(sides, Kind::Open).leaves == Approx(2 * canvas)); // a row on each side of it
    // Of unlike allowances the thinner is left of a graded seam, the thicker beside one that is pressed open.
    Design uneven = d;
    uneven.layers = {{"front", "foam-sewin", "basted", "full", {}, ""}};
    for (auto& edge : {"bottom", "top"})
        uneven.layers.front().edges[edge] = "stitch";
    Pattern q = medium(uneven);
    for (auto& seam : q.seams)
        seam.pressedOpen = seam.graded = false;
    const double foam = material("foam-sewin").underFoot();
    const Seam& rim = *q.seam("mouth");
    REQUIRE(bulkAt(q, rim).atCrossing == Approx(3 * canvas + 3 * cotton + foam));
    Instead graded, opened;
    for (const char* key : {"side 1", "side 2"})
        graded.care[SeamId(key)].graded = true, opened.care[SeamId(key)].open = true;
    CHECK(Bulks(q, graded).at(rim).atCrossing == Approx(2 * canvas + 3 * cotton));
    CHECK(Bulks(q, opened).at(rim).atCrossing == Approx(2 * canvas + 3 * cotton + foam));
    CHECK(Bulks(q, opened).underTopstitch(*q.seam("side 1")).underFoot == Approx(2 * canvas + 2 * foam));
    CHECK(Bulks(q, graded).underTopstitch(*q.seam("side 1")).underFoot == Approx(3 * canvas + foam));
    // In the row of a seam itself nothing that is done to allowances helps.
    const auto plain = remediesFor(p, side, ThickSpot::Row);
    for (const Kind kind : {Kind::Grade, Kind::Open, Kind::Aside})
        CHECK(!among(plain, kind).whyNot.empty());
    CHECK(among(plain, Kind::Hammer).gain == Approx(0.15 * 2 * canvas));
}

TEST_CASE("Remedies: foam is not hammered, and trimmed by what it adds; a binding's seam is neither graded nor opened")
{
    Design d = bareWalls();
    d.layers = {{"panel", "foam-sewin", "basted", "full", {}, ""}};
    Pattern p = medium(d);
    const double canvas = material("canvas-12").underFoot(), foam = material("foam-sewin").underFoot();
    const Seam& side = *p.seam("side 1");
    const auto all = remediesFor(p, side, ThickSpot::Row);
    CHECK(among(all, Kind::Trim).gain == Approx(2 * foam)); // of both walls, which have one rule
    CHECK(among(all, Kind::Hammer).gain == Approx(0.15 * 2 * canvas));
    const Pattern loop = medium(newDesign("zip-around"));
    CHECK_THAT(exactly(whyNotGraded(loop, *loop.seam("front-loop"))), Contains("bound"));
    CHECK(!whyNotOpened(loop, *loop.seam("front-loop")).empty());
}

TEST_CASE("Remedies: in every form each leaves what it promised, in one stroke, and is taken back in another")
{
    int tried = 0;
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        const Pattern p = medium(plain);
        std::map<std::pair<int, int>, int> seen; // kind and spot
        for (const auto& seam : p.seams)
            for (const auto spot : {ThickSpot::Row, ThickSpot::Crossing, ThickSpot::Topstitch}) {
                if (spot == ThickSpot::Crossing && bulkAt(p, seam).crossedBy.empty())
                    continue;
                for (const auto& remedy : remediesFor(p, seam, spot)) {
                    if (!remedy.useful() || seen[{int(remedy.kind), int(spot)}] >= 2)
                        continue;
                    const auto repair = repairOf(plain, remedy, spot);
                    if (!repair)
                        continue;
                    ++seen[{int(remedy.kind), int(spot)}], ++tried;
                    INFO(form->id() << ", " << seam.key.text() << ", " << exactly(repair->label));
                    Design d = plain;
                    stroke(d, *repair);
                    const Pattern after = medium(d);
                    // An interlining may lie in what crosses as well.
                    if (remedy.kind == Kind::Trim)
                        CHECK(thickOf(after, seam.key, spot) <= remedy.leaves + 1e-6);
                    else
                        CHECK(thickOf(after, seam.key, spot) == Approx(remedy.leaves).margin(1e-6));
                    requireSewable(d);
                    for (const auto& f : checkAll(d, draftAll(d)))
                        CHECK(f.check != "whole");
                    if (remedy.kind == Kind::Trim)
                        continue;
                    const auto again = remediesFor(after, *after.seam(seam.key), spot);
                    CHECK(among(again, remedy.kind).done);
                    const auto back = repairOf(d, among(again, remedy.kind), spot);
                    REQUIRE(back);
                    stroke(d, *back);
                    CHECK(d == plain);
                }
            }
    }
    CHECK(tried > 100);
}

TEST_CASE("Remedies: what is done is said in the step that sews the seam, timed and bought for")
{
    Design d = bareWalls();
    setChoice(d, "assembly", "bagged-out");
    const Pattern before = medium(d);
    const SeamId side{"side 1"}, mouth{"mouth"};
    const auto care = [&](const SeamId& seam, const char* what) {
        Design next = d;
        assign(next, "seam." + seam.text() + ".care=" + what);
        return medium(next);
    };
    Pattern p = care(side, "graded");
    CHECK(doneAt(p, Act::Verb::Stagger, side));
    CHECK_THAT(booklet(p), Contains("trim the thicker of its allowances to 3 mm"));
    CHECK(minutesOf(p) == Approx(minutesOf(before) + p.seam(side)->lengthA / 1000 * p.pace.rest));
    p = care(side, "open");
    CHECK(p.seam(side)->pressedOpen);
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if ((act.verb == Act::Verb::Press || act.verb == Act::Verb::Topstitch)
                && std::find(act.seams.begin(), act.seams.end(), side) != act.seams.end())
                CHECK(act.to == Act::To::Open);
    p = care(mouth, "hammered");
    CHECK(doneAt(p, Act::Verb::Hammer, mouth));
    CHECK_THAT(booklet(p), Contains("Hammer what lies in “" + exactly(p.seam(mouth)->name) + "” flat where"));
    p = care(side, "aside");
    CHECK_THAT(booklet(p), !Contains("turn its allowances to the other side")); // nothing crosses it
    // By hand only where the machine does not take it.
    p = care(mouth, "hand");
    CHECK_THAT(booklet(p), !Contains("by hand, with two needles"));
    d.workshop.machineLimit = bulkAt(before, *before.seam(mouth)).atCrossing - 0.1;
    p = care(mouth, "hand");
    CHECK(sewnByHand(p, *p.seam(mouth), ThickSpot::Row)
        == Approx(40.0 * double(bulkAt(p, *p.seam(mouth)).everyCrossing.size()))); // common practice, no source
    CHECK_THAT(booklet(p), Contains("by hand, with two needles"));
    d.layers = {{"panel", "foam-sewin", "basted", "full", {}, ""}};
    d.workshop.machineLimit = bulkAt(care(mouth, "none"), *care(mouth, "none").seam(mouth)).underFoot - 0.01;
    p = care(mouth, "hand");
    CHECK(sewnByHand(p, *p.seam(mouth), ThickSpot::Row) == Approx(p.seam(mouth)->lengthA));
    bool machine = true, awl = false;
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == Act::Verb::JoinCoats) {
                const auto tools = told(p, step).tools;
                machine = std::any_of(
                    tools.begin(), tools.end(), [](const Message& tool) { return words(tool) == "sewing machine"; });
                awl = std::any_of(tools.begin(), tools.end(), [](const Message& tool) { return words(tool) == "awl"; });
            }
    CHECK(awl);
    // 40 mm of saddle stitch in a minute (common practice, no source).
    const Pattern machined = medium(d);
    CHECK(minutesOf(p) > minutesOf(machined) + 0.99 * p.seam(mouth)->lengthA / 40);
    (void)machine;
}

TEST_CASE("A seam that is too thick is told with all that helps, the first that is enough at once; each mends it or "
          "takes off what it says")
{
    for (const char* form : {"gusseted-satchel", "separate-base", "boxed-corner", "polygon"}) {
        Design d = newDesign(form);
        const Pattern p = medium(d);
        const Seam* worst = nullptr;
        for (const auto& seam : p.seams)
            if (const Bulk bulk = bulkAt(p, seam); bulk.atCrossing > bulk.underFoot + 0.3)
                if (!worst || bulk.atCrossing > bulkAt(p, *worst).atCrossing)
                    worst = &seam;
        REQUIRE(worst);
        const SeamId key = worst->key;
        d.workshop.machineLimit = bulkAt(p, *worst).atCrossing - 0.2;
        CHECK(d.workshop.machineLimit > 1);
        const auto at = [&](const Design& of) -> std::optional<Finding> {
            for (auto& f : found(of, "bulk"))
                if (f.key == key)
                    return f;
            return std::nullopt;
        };
        const auto told = at(d);
        INFO(form << ", " << key.text());
        REQUIRE(told);
        REQUIRE(told->repair);
        CHECK(told->others.size() >= 2);
        std::vector<Repair> ways{*told->repair};
        ways.insert(ways.end(), told->others.begin(), told->others.end());
        bool enough = false;
        for (const auto& way : ways) {
            INFO(exactly(way.label));
            Design mended = d;
            Finding f = *told;
            f.repair = way;
            try {
                edit(mended, [&](Design& next) { change::repair(next, f); });
            } catch (const InputError&) {
                continue; // the window shows it dim
            }
            const bool gone = !at(mended);
            CHECK((gone
                || bulkAt(medium(mended), *medium(mended).seam(key)).atCrossing
                    < bulkAt(p, *p.seam(key)).atCrossing - 0.004));
            enough = enough || gone;
        }
        CHECK(enough);
        Design byHand = d;
        assign(byHand, "seam." + key.text() + ".care=hand");
        CHECK(!at(byHand));
    }
}

TEST_CASE("Care of seams: kept in the file, refused with a reason, passed over when its seam is gone, and told when it "
          "can be no more")
{
    Design d = newDesign("boxed-corner");
    const Pattern p = medium(d);
    std::string straight;
    for (const auto& seam : p.seams)
        if (whyNotOpened(p, seam).empty())
            straight = seam.key.text();
    REQUIRE(!straight.empty());
    assign(d, "seam." + straight + ".care=open graded");
    assign(d, "seam.mouth.care=aside, hammered, hand");
    const Design again = designFromText(designText(d), "kept");
    CHECK(again.seamCare == d.seamCare);
    CHECK(careText(again.seamCare.at("mouth")) == "aside hammered hand");
    CHECK(again.seamCare.at(straight).open);
    CHECK_THROWS_WITH(assign(d, "seam.mouth.care=thin"), Contains("graded, open, aside, hammered, hand or none"));
    CHECK_THROWS_WITH(assign(d, "seam.mouth.care=open"), Contains("cannot be pressed open"));
    CHECK_THROWS_WITH(assign(d, "seam.nowhere.care=open"), Contains("no such seam"));
    assign(d, "seam.mouth.care=none");
    CHECK(!d.seamCare.contains("mouth"));
    d.seamCare["gone"] = {.graded = true};
    CHECK(found(d, "seam-care").empty());
    CHECK_NOTHROW(draftAll(d));
    // A mouth cannot be opened: a file that asks for it is told, with the way out.
    d.seamCare["mouth"] = {.open = true};
    const auto told = found(d, "seam-care");
    REQUIRE(told.size() == 1);
    REQUIRE(told.front().repair);
    edit(d, [&](Design& next) { change::repair(next, told.front()); });
    CHECK(found(d, "seam-care").empty());
}
