// SPDX-License-Identifier: GPL-3.0-or-later
// The shapes bags are made of, alone: U-panels, strips along them, pieces cut across.
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "editing/edits.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;

namespace {

Piece panel(const UPanel& shape)
{
    Piece p{.key = "p", .code = "P", .name = say("Panel")};
    drawUPanel(p, shape);
    return p;
}

/// Every edge starts where the one before it ends, and the last closes the outline.
void checkClosed(const Piece& p)
{
    for (std::size_t i = 0; i < p.edges.size(); ++i) {
        const auto& next = p.edges[(i + 1) % p.edges.size()];
        INFO(p.edges[i].name << " to " << next.name);
        CHECK(distance(endOf(p.edges[i].stitch), startOf(next.stitch)) < 1e-9);
    }
    CHECK(areaOf(p.stitch()) > 0); // counter-clockwise
}

double lengthOfRun(const Piece& p, const std::string& prefix)
{
    double sum = 0;
    for (const auto& e : p.edges)
        if (e.name.text().starts_with(prefix))
            sum += e.length();
    return sum;
}

Drafter drafter(const Design& design) { return Drafter(design, evaluate(design, specOf(design), 1), 1); }

} // namespace

TEST_CASE("U-panel: area of a rectangle less two rounded corners, (1 − π/4)·r² each")
{
    const Piece p = panel({.width = 200, .height = 150, .radius = 30});
    checkClosed(p);
    CHECK(areaOf(p.stitch()) == Approx(200 * 150 - 2 * (1 - pi / 4) * 900));
    CHECK(p.edge("bottom")->length() == Approx(140));
    CHECK(p.edge("left side")->length() == Approx(120));
    CHECK(p.edge("left corner")->length() == Approx(pi / 2 * 30));
}

TEST_CASE("U-panel: a corner's arc is tangent to bottom and side, at any taper")
{
    for (const double taper : {-40.0, -5.0, 0.0, 12.0, 50.0}) {
        const Piece p = panel({.width = 260, .height = 180, .radius = 25, .taper = taper});
        checkClosed(p);
        const auto& corner = p.edge("right corner")->stitch.front();
        CHECK(distance(tangentOf(corner, 0), {1, 0}) < 1e-9);
        const auto& side = p.edge("right side")->stitch.front();
        CHECK(distance(tangentOf(corner, 1), tangentOf(side, 0)) < 1e-9);
        CHECK(std::abs(std::get<Arc>(corner).sweep) == Approx(cornerTurn(taper, 180)));
        CHECK(p.edge("top")->length() == Approx(260 - 2 * taper));
        // Mirror image about the middle.
        CHECK(p.edge("left side")->length() == Approx(p.edge("right side")->length()));
        CHECK(boundsOf(p.stitch()).centre().x == Approx(0).margin(1e-9));
    }
}

TEST_CASE("U-panel with an inset: the mouth stays, the low part is parallel to the panel without")
{
    const UPanel outer{.width = 300, .height = 240, .radius = 45, .taper = 10};
    UPanel inner = outer;
    inner.inset = 4;
    inner.easeTo = 120;
    const Piece a = panel(outer), b = panel(inner);
    checkClosed(b);
    CHECK(b.edge("top")->length() == Approx(a.edge("top")->length()));
    const Polyline outside = flattened(a.stitch(), 0.01);
    for (const char* edge : {"left side", "left corner", "bottom", "right corner", "right side"})
        for (double t = 0.02; t < 1; t += 0.2) {
            const Point q = pointAlong(b.edge(edge)->stitch, t * b.edge(edge)->length());
            INFO(edge << " at " << t);
            CHECK(distanceTo(outside, q) == Approx(4).margin(0.02));
            CHECK(insideOutline(outside, q));
        }
}

TEST_CASE("Strip along a panel: its long edges are as long as the panel's run, whole and in halves")
{
    for (const double inset : {0.0, 3.2, 6.0})
        for (const double taper : {-10.0, 0.0, 15.0}) {
            const Piece p = panel(
                {.width = 280, .height = 220, .radius = 40, .taper = taper, .inset = inset, .easeTo = 110});
            const double run = lengthOf(p.stitch()) - p.edge("top")->length();
            Piece whole{.key = "g"}, half{.key = "h"};
            drawStripAlong(whole, p, {.depth = 90});
            drawStripAlong(half, p, {.depth = 90, .half = true});
            checkClosed(whole);
            checkClosed(half);
            CHECK(lengthOfRun(whole, "front") == Approx(run).epsilon(1e-12));
            CHECK(lengthOfRun(whole, "back") == Approx(run).epsilon(1e-12));
            CHECK(2 * lengthOfRun(half, "front") == Approx(run).epsilon(1e-12));
            CHECK(whole.edge("left mouth")->length() == Approx(90));
            CHECK(half.edge("centre")->length() == Approx(90 - 2 * inset));
        }
}

TEST_CASE("Rectangle: four edges, closed, at the asked size")
{
    Piece p;
    drawRectangle(p, 120, 35, 8);
    checkClosed(p);
    CHECK(areaOf(p.stitch()) == Approx(120 * 35));
    for (const auto& e : p.edges)
        CHECK(e.allowance == 8);
}

TEST_CASE("Cut across: halves are closed, keep the whole's area, carry the new edges; seams and steps follow")
{
    const Design design = newDesign("gusseted-satchel");
    Drafter d = drafter(design);
    Piece& back = d.add(panel({.width = 300, .height = 240, .radius = 45, .taper = 8, .allowance = 10}));
    const double area = areaOf(back.stitch());
    Piece& strip = d.add(Piece{.key = "strip"});
    drawStripAlong(strip, d.piece("p"), {.depth = 80});
    d.add(Seam{.key = "s", .a = d.runWithout("p", "top"), .b = {{"strip", "front"}}});
    d.add(Step{.id = "step", .pieces = {"p", "strip"}});
    cutAcross(d,
        {.piece = "p",
            .y = 190,
            .stops = {-60, 60},
            .edgeNames = {"l", "m", "r"},
            .upper = {.key = "up", .code = "P1", .name = say("Upper")},
            .lower = {.key = "low", .code = "P2", .name = say("Lower")},
            .allowance = 7});
    const Piece &up = d.piece("up"), &low = d.piece("low");
    checkClosed(up);
    checkClosed(low);
    CHECK(areaOf(up.stitch()) + areaOf(low.stitch()) == Approx(area));
    CHECK(up.edge("m")->length() == Approx(120));
    CHECK(low.edge("m")->allowance == 7);
    CHECK(up.edge("l")->length() == Approx(low.edge("l")->length()));
    CHECK(d.pattern.lengthOfSide(d.pattern.seams[0].a) == Approx(d.pattern.lengthOfSide(d.pattern.seams[0].b)));
    CHECK(d.pattern.seams[0].a.front().piece == "up"); // from the left mouth downwards
    CHECK(d.pattern.seams[0].a.back().piece == "up");
    CHECK(d.steps.front().pieces == std::vector<PieceId>{"up", "low", "strip"});
    CHECK_THROWS_AS(d.piece("p"), std::logic_error);
}

TEST_CASE("Cut across beside the piece is refused and leaves it whole; through its corners it parts the arcs")
{
    const Design design = newDesign("gusseted-satchel");
    Drafter d = drafter(design);
    d.add(panel({.width = 300, .height = 240, .radius = 45}));
    for (const double y : {400.0, 240.0, 0.0, -10.0})
        CHECK_THROWS_AS(cutAcross(d, acrossAt(d.piece("p"), y, 10)), InputError);
    CHECK(d.piece("p").edges.size() == 6);
    const double area = areaOf(d.piece("p").stitch());
    cutAcross(d, acrossAt(d.piece("p"), 20, 10));
    const Piece &up = d.piece("p.upper"), &low = d.piece("p.lower");
    checkClosed(up);
    checkClosed(low);
    CHECK(areaOf(up.stitch()) + areaOf(low.stitch()) == Approx(area));
    CHECK(up.edge("right corner")->length() + low.edge("right corner")->length() == Approx(45 * pi / 2));
    CHECK(low.whole == "p");
    CHECK(boundsOf(low.stitch()).y1 == Approx(20));
}

TEST_CASE("Cut across for a zip: the seams along the sides run on over the gap, so that nothing grows or shrinks")
{
    const Design design = newDesign("gusseted-satchel");
    Drafter d = drafter(design);
    Piece& back = d.add(panel({.width = 300, .height = 240, .radius = 45, .taper = 8, .allowance = 10}));
    const double area = areaOf(back.stitch());
    back.lines.push_back({"low", FaceLine::Kind::Placement, rectangleRun(-20, 40, 20, 60)});
    back.notches = {
        {"left side", 20, say("a"), true}, {"left side", back.edge("left side")->length() - 20, say("b"), true}};
    Piece& strip = d.add(Piece{.key = "strip"});
    drawStripAlong(strip, d.piece("p"), {.depth = 80});
    d.add(Seam{.key = "s", .a = d.runWithout("p", "top"), .b = {{"strip", "front"}}});
    d.add(Seam{.key = "on", .a = {{"p", "low"}}, .b = {}});
    AcrossCut cut = acrossAt(d.piece("p"), 150, 10);
    cut.gap = 12;
    cutAcross(d, cut);
    const Piece &up = d.piece("p.upper"), &low = d.piece("p.lower");
    const double width = 300 - 2 * 8 * 150.0 / 240; // of the panel at the zip
    CHECK(areaOf(up.stitch()) + areaOf(low.stitch()) + 12 * width == Approx(area));
    CHECK(boundsOf(up.stitch()).y0 == Approx(156));
    CHECK(boundsOf(low.stitch()).y1 == Approx(144));
    CHECK(d.pattern.lengthOfSide(d.pattern.seams[0].a) == Approx(d.pattern.lengthOfSide(d.pattern.seams[0].b)));
    CHECK(d.pattern.seams[1].a.front().piece == "p.lower");
    // Marks stay where they were on the cloth.
    REQUIRE(up.notches.size() == 1);
    REQUIRE(low.notches.size() == 1);
    CHECK(up.notches[0].along == Approx(20));
    CHECK(low.edge("left side")->length() - low.notches[0].along == Approx(20));
}

TEST_CASE("A working computes by the formula it shows; one that lacks an input is a broken contract")
{
    const Design design = newDesign("gusseted-satchel");
    Drafter d = drafter(design);
    CHECK(d.work({"x", "x.k", say("K"), "a*b + 1", {{"a", 3}, {"b", 4}}}) == 13);
    CHECK(d.pattern.workings.back().result == 13);
    CHECK_THROWS_AS(d.work({"x", "x.l", say("L"), "a*c", {{"a", 3}}}), std::logic_error);
    CHECK_THROWS_AS(d("no.such"), InputError);
    CHECK_THROWS_AS(d.choice("no.such"), InputError);
}

TEST_CASE("Features: a design without some of them still drafts; a snap without a flap is refused")
{
    Design d = newDesign("gusseted-satchel");
    const auto without = [&](const std::string& id) {
        Design next = d;
        std::erase_if(next.features, [&](const Feature& f) { return f.id == id; });
        std::erase_if(next.dimensions, [&](const auto& dim) { return dim.first.starts_with(id + "."); });
        std::erase_if(next.choices, [&](const auto& c) { return c.first.starts_with(id + "."); });
        return next;
    };
    for (const char* id : {"slip", "zip", "snap"}) {
        INFO(id);
        Design next = without(id);
        std::erase_if(next.carried, [&](const Carried& c) { return c.place == id; });
        const auto patterns = draftAll(next);
        CHECK(patterns.size() == 3);
        for (const auto& s : patterns[1].seams)
            CHECK(std::abs(s.difference()) < 0.01);
    }
    CHECK_THROWS_WITH(draftAll(without("flap")), Catch::Contains("Flap"));
    // Two pockets of a kind, each with its own dimensions.
    Design two = d;
    CHECK(addFeature(two, "slip-pocket") == "slip2");
    CHECK(draftAll(two)[1].piece("slip2") != nullptr);
    // On every face, inside and out; taken out again, the design is as before.
    for (const auto& [site, label] : specOf(two).choice("slip2.site")->options) {
        INFO(site);
        setChoice(two, "slip2.site", site);
        for (const auto& p : draftAll(two))
            for (const auto& seam : p.seams)
                CHECK(std::abs(seam.difference()) < 0.01);
    }
    Design back = two;
    removeFeature(back, "slip2");
    CHECK(back == d);
    // What needs a removed part goes with it: the snap with the flap, the strap with the connectors.
    removeFeature(back, "flap");
    CHECK(std::none_of(back.features.begin(), back.features.end(), [](const Feature& f) { return f.kind == "snap"; }));
    removeFeature(back, "connectors");
    CHECK(draftAll(back).front().straps.empty());
    CHECK(addFeature(back, "strap") == "strap"); // brings connectors
    CHECK(draftAll(back).front().straps.size() == 1);
    CHECK_THROWS_AS(addFeature(back, "wing"), InputError);
    CHECK_THROWS_AS(removeFeature(back, "wing"), InputError);
    two.features.push_back({"slip2", "slip-pocket"});
    CHECK_THROWS_AS(draftAll(two), InputError);
}
