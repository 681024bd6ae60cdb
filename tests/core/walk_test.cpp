// SPDX-License-Identifier: GPL-3.0-or-later
// Walking seams: marks meet at the same stitch length; partial seams; pleats agree after folding.
#include "drawn.hpp"

#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "pattern/walk.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

TEST_CASE(
    "Walked, marks of both runs meet within a hundredth of a millimetre on every form, also across joins and curves")
{
    int met = 0, seams = 0;
    for (const Form* form : forms()) {
        const Pattern p = medium(newDesign(form->id()));
        for (const auto& seam : p.seams) {
            if (seam.stitch != "construction")
                continue;
            INFO(form->id() << ": " << seam.name);
            const auto stops = walked(p, seam);
            ++seams;
            REQUIRE(stops.size() >= 2);
            CHECK(stops.front().what == "start");
            CHECK(stops.back().what == "end");
            CHECK(stops.back().onA == Approx(seam.lengthA));
            CHECK(stops.back().onB == Approx(seam.lengthB));
            double last = -1;
            for (const auto& s : stops) {
                if (s.onA >= 0) {
                    CHECK(s.onA >= last - 1e-6);
                    last = s.onA;
                }
                if (s.onA >= 0 && s.onB >= 0) {
                    CHECK(std::abs(s.apart) < 0.01);
                    ++met;
                }
            }
        }
    }
    CHECK(seams > 100);
    CHECK(met > 3 * seams);
}

TEST_CASE("A mark that lies beside its mate is told with the distance")
{
    Pattern p;
    for (const char* key : {"a", "b"}) {
        Piece piece{.key = key, .code = key};
        piece.edges = {{"side", lineRun({{0, 0}, {200, 0}}), 10, {}}};
        piece.notches = {{"side", key[0] == 'a' ? 100.0 : 101.3, say("centre"), false},
            {"side", key[0] == 'a' ? 40.0 : 170.0, say("own"), false}};
        p.pieces.push_back(piece);
    }
    const Seam seam{.key = "s", .a = {{"a", "side"}}, .b = {{"b", "side"}}, .lengthA = 200, .lengthB = 200};
    const auto stops = walked(p, seam);
    REQUIRE(stops.size() == 5);
    CHECK(stops[1].what == "own");
    CHECK(stops[1].onB < 0); // only the first run has it
    CHECK(stops[2].apart == Approx(1.3));
    CHECK(stops[2].what == "centre"); // said once where both say the same
    CHECK(stops[3].onA < 0);
    CHECK(stops[3].onB == Approx(170));
}

TEST_CASE("A reversed run is walked from its other end; ease is shared out evenly")
{
    Pattern p;
    Piece a{.key = "a", .code = "A"}, b{.key = "b", .code = "B"};
    a.edges = {{"side", lineRun({{0, 0}, {100, 0}}), 10, {}}};
    b.edges = {{"side", lineRun({{0, 0}, {110, 0}}), 10, {}}};
    a.notches = {{"side", 25, say("mark"), false}};
    b.notches = {{"side", 110 - 27.5, say("mark"), false}};
    p.pieces = {a, b};
    const auto stops = walked(p,
        {.key = "s", .a = {{"a", "side"}}, .b = {{"b", "side", 0, true}}, .ease = 10, .lengthA = 100, .lengthB = 110});
    REQUIRE(stops.size() == 3);
    CHECK(stops[1].onB == Approx(27.5));
    CHECK(std::abs(stops[1].apart) < 1e-9);
    CHECK(std::abs(stops[2].apart) < 1e-9);
    p.pieces[1].notches[0].label = say("join");
    CHECK(
        walked(p, {.key = "s", .a = {{"a", "side"}}, .b = {{"b", "side", 0, true}}, .lengthA = 100, .lengthB = 110})[1]
            .what
        == "mark at join");
}

TEST_CASE("A partial seam: stop squares on both mates at the same lengths, its step says so, the file keeps it")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "seam.front-gusset.start=30");
    assign(d, "seam.front-gusset.end=2in");
    for (const Pattern& p : draftAll(d)) {
        const Seam& seam = *p.seam("front-gusset");
        CHECK(seam.openStart == Approx(30));
        CHECK(seam.openEnd == Approx(50.8));
        int stops = 0;
        for (const auto& s : walked(p, seam))
            if (words(s.what).find("seam ends") != std::string::npos) {
                ++stops;
                CHECK(std::abs(s.onA - (stops == 1 ? 30 : seam.lengthA - 50.8)) < 0.01);
                CHECK(std::abs(s.onB - s.onA) < 0.01);
            }
        CHECK(stops == 2);
        CHECK_THAT(
            exactly(textOf(p, "front-gusset")), Contains("{30}") && Contains("{50.8}") && Contains("stop squares"));
        CHECK(std::abs(seam.difference()) < 0.01);
    }
    CHECK(designFromText(designText(d), "bag") == d);
    const Design before = d;
    CHECK_THROWS_WITH(assign(d, "seam.front-gusset.end=2000"), Contains("would be sewn"));
    CHECK_THROWS_WITH(assign(d, "seam.front-gusset.start=-5"), Contains("outside the allowed"));
    CHECK_THROWS_WITH(assign(d, "seam.no-such.start=5"), Contains("no such seam"));
    CHECK(d == before);
    assign(d, "seam.front-gusset.start=0");
    assign(d, "seam.front-gusset.end=0");
    CHECK(d.seamEnds.empty());
    CHECK(d == newDesign("gusseted-satchel"));
}

TEST_CASE("What a design says of a seam that is gone does no harm")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "seam.flap.hinge.start=15");
    removeFeature(d, "flap");
    CHECK(draftAll(d).size() == 3);
    CHECK(d.seamEnds.size() == 1); // it is there again when the flap is
}

TEST_CASE("Pleats at the base take 2p each; front and back agree after folding, the mouth and the boxes stay")
{
    for (const char* boxing : {"pre-cut", "from-seams", "across"}) {
        INFO(boxing);
        Design plain = with("boxed-corner", {"width=300", "height=260", "depth=90"});
        setChoice(plain, "boxing", boxing);
        Design d = plain;
        assign(d, "pleats=3");
        assign(d, "pleat=10");
        const Pattern p = medium(d), without = medium(plain);
        CHECK(worked(p, "box.pleats") == Approx(3 * 2 * 10));
        CHECK(p.piece("front")->edge("bottom")->length()
            == Approx(without.piece("front")->edge("bottom")->length() + 3 * 2 * 10));
        CHECK(p.piece("front")->edge("top")->length() == Approx(without.piece("front")->edge("top")->length()));
        CHECK(p.piece("lining.front")->edge("bottom")->length()
            == Approx(without.piece("lining.front")->edge("bottom")->length()));
        CHECK(p.seam("box right")->lengthA == Approx(without.seam("box right")->lengthA));
        CHECK(mockupOf(d, p).litres == Approx(mockupOf(plain, without).litres).epsilon(0.02));
        CHECK(mockupOf(d, p).largestGap < 0.01);
        // Symmetric about the centre: every fold has its mirror image.
        std::vector<double> folds;
        for (const auto& l : p.piece("front")->lines)
            if (l.name.text().starts_with("pleat"))
                folds.push_back(startOf(l.run).x);
        REQUIRE(folds.size() == 6);
        for (const double x : folds)
            CHECK(std::any_of(folds.begin(), folds.end(), [&](double other) { return std::abs(other + x) < 1e-6; }));
        for (const auto& s : p.seams)
            CHECK(std::abs(s.difference()) < 0.01);
    }
    Design d = newDesign("boxed-corner");
    assign(d, "pleats=6");
    CHECK_THROWS_AS(assign(d, "pleat=40"), InputError); // more than the width has
}
