// SPDX-License-Identifier: GPL-3.0-or-later
// Parts of outlines cut off by lines, against GEOS; cutting across moves everything that lay on the piece to its half.
#include "drawn.hpp"
#include "geos.hpp"

#include "checks/finding.hpp"
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "drafting/plans.hpp"
#include "units/error.hpp"

#include <random>

using namespace tectonis;
using Catch::Contains;

namespace {

std::vector<Edge> edgesOf(const Run& outline)
{
    std::vector<Edge> out;
    int i = 0;
    for (const auto& s : outline)
        out.push_back({"edge " + std::to_string(++i), {s}, 10, {}});
    return out;
}

Run runOf(const std::vector<Edge>& edges)
{
    Run out;
    for (const auto& e : edges)
        out.insert(out.end(), e.stitch.begin(), e.stitch.end());
    return out;
}

/// A long rectangle on the kept side of a line.
Polyline halfPlane(Point normal, double limit)
{
    const Point on = normal * limit, along = rightOf(normal) * 5000, far = normal * 5000;
    return {on + along, on + along + far, on - along + far, on - along, on + along};
}

} // namespace

TEST_CASE("Clipped by random lines, shapes of lines, arcs and cubics keep GEOS's area, stay closed, and both halves "
          "make the whole")
{
    const Geos geos;
    std::mt19937 random(41);
    Piece panel;
    drawUPanel(panel, {.width = 300, .height = 240, .radius = 50, .taper = 15, .bow = 14});
    const std::vector<Run> shapes{panel.stitch(), stadiumPlan(260, 120), ellipsePlan(240, 150),
        roundedPlan(200, 140, 30), polygonPlan(7, 80), circleRun({0, 0}, 90)};
    int cut = 0, beside = 0;
    for (int i = 0; i < 600; ++i) {
        const Run& shape = shapes[random() % shapes.size()];
        const Box box = boundsOf(shape);
        const Point normal = polar(std::uniform_real_distribution<double>(0, 2 * pi)(random));
        const double limit = dot(normal,
            Point{std::uniform_real_distribution<double>(box.x0, box.x1)(random),
                std::uniform_real_distribution<double>(box.y0, box.y1)(random)});
        const auto kept = clipped(
            edgesOf(shape), normal, limit, {.name = "cut", .stitch = {}, .allowance = 7, .allowanceAtEnd = {}});
        const auto rest = clipped(
            edgesOf(shape), normal * -1, -limit, {.name = "cut", .stitch = {}, .allowance = 7, .allowanceAtEnd = {}});
        CHECK(kept.empty() == rest.empty());
        if (kept.empty()) {
            ++beside;
            continue;
        }
        ++cut;
        const Run outline = runOf(kept);
        CHECK(distance(startOf(outline), endOf(outline)) < 1e-6);
        CHECK(areaOf(outline) + areaOf(runOf(rest)) == Approx(areaOf(shape)).epsilon(1e-9));
        CHECK(areaOf(outline)
            == Approx(geos.sharedArea(flattened(shape, 0.0005), halfPlane(normal, limit))).epsilon(2e-5).margin(0.2));
        CHECK(kept.back().name == "cut");
        CHECK(kept.back().allowance == 7);
        double length = 0;
        for (const auto& e : kept)
            length += e.name == "cut" ? 0 : e.length();
        for (const auto& e : rest)
            length += e.name == "cut" ? 0 : e.length();
        CHECK(length == Approx(lengthOf(shape)).epsilon(1e-7)); // no length is lost where edges are parted
    }
    CHECK(cut > 400);
    CHECK(beside < 100);
}

TEST_CASE("A line beside the outline or along an edge cuts nothing off")
{
    const auto square = edgesOf(rectangleRun(0, 0, 100, 80));
    for (const double limit : {-5.0, 80.0, 200.0})
        CHECK(clipped(square, {0, 1}, limit, {}).empty());
    CHECK(areaOf(runOf(clipped(square, {0, 1}, 0, {})))
        == Approx(100 * 80)); // the line takes the place of the edge on it
    CHECK(clipped({}, {0, 1}, 5, {}).empty());
    // Through two corners it takes the edges whole.
    const auto half = clipped(
        square, unit(Point{80, -100}), 0, {.name = "cut", .stitch = {}, .allowance = 0, .allowanceAtEnd = {}});
    REQUIRE(half.size() == 3);
    CHECK(areaOf(runOf(half)) == Approx(100 * 80 / 2.0));
}

TEST_CASE("A widening allowance is taken at the new ends of its edge")
{
    std::vector<Edge> edges = edgesOf(rectangleRun(0, 0, 100, 80));
    for (auto& e : edges)
        if (startOf(e.stitch) == Point{100, 0})
            e.allowance = 6, e.allowanceAtEnd = 14; // the right side, upwards
    const auto upper = clipped(edges, {0, 1}, 20, {});
    const auto side = std::find_if(
        upper.begin(), upper.end(), [](const Edge& e) { return e.allowanceAtEnd.has_value(); });
    REQUIRE(side != upper.end());
    CHECK(side->allowance == Approx(6 + 8 * 0.25));
    CHECK(*side->allowanceAtEnd == Approx(14));
}

TEST_CASE("What lies on a face that is cut across goes with its half, whatever came first")
{
    // A pocket below, a label above; a band put in afterwards parts the face between them.
    Design d = newDesign("separate-base");
    addFeature(d, "patch-pocket");
    addFeature(d, "label");
    setChoice(d, "label.site", "front");
    assign(d, "label.drop=14");
    assign(d, "patch.drop=120");
    assign(d, "patch.height=80");
    addFeature(d, "band");
    setChoice(d, "band.site", "front");
    assign(d, "band.height=60");
    const Pattern p = medium(d);
    const auto on = [&](const char* piece) {
        for (const auto& o : p.overlays)
            if (o.piece == piece)
                return o.on;
        return PieceId("nothing");
    };
    CHECK(on("label") == "front.upper");
    CHECK(on("patch") == "front.lower");
    for (const auto& place : p.places)
        CHECK(place.area.y1 <= boundsOf(p.piece(place.piece)->stitch()).y1 + 1e-6);
    CHECK(p.seam("label.on")->b.front().piece == "front.upper");
    CHECK(p.seam("patch.on")->b.front().piece == "front.lower");
    CHECK(std::abs(p.seam("side 1")->difference()) < 1e-6);
}

TEST_CASE("What is wider than the face where it is cut is refused with the width there is")
{
    Design satchel = newDesign("gusseted-satchel");
    Drafter draft(satchel, evaluate(satchel, specOf(satchel), 1), 1);
    Piece& piece = draft.add({.key = "p", .code = "P", .name = say("Panel")});
    drawUPanel(piece, {.width = 200, .height = 100, .radius = 20, .taper = 40});
    AcrossCut cut = acrossAt(piece, 90, 10);
    cut.stops = {-70, 70}, cut.edgeNames = {"l", "m", "r"};
    CHECK_THROWS_WITH(cutAcross(draft, cut), Contains("128 mm wide")); // 200 − 2·40·0.9, worked by hand
    CHECK(draft.piece("p").edges.size() == 6);
}

TEST_CASE("Rivets and eyelets under a pocket are findings with their distance")
{
    Design d = newDesign("separate-base");
    addFeature(d, "corner-patch");
    addFeature(d, "patch-pocket");
    const auto collisions = [](const Design& design) {
        std::vector<std::string> out;
        const auto patterns = draftAll(design);
        for (const auto& f : checkAll(design, patterns))
            if (f.check == "collision" && f.size == "M" && words(f.subject).find("Rivet") != std::string::npos)
                out.push_back(words(f.text));
        return out;
    };
    assign(d, "patch.width=60");
    CHECK(collisions(d).empty());
    assign(d, "patch.drop=15");
    assign(d, "patch.height=face.height - 30");
    assign(d, "patch.width=face.width - 40");
    const auto told = collisions(d);
    REQUIRE(!told.empty());
    CHECK_THAT(told.front(), Contains("mm"));
}

TEST_CASE("Drawstring pairs astride the straps: each at its own spacing, the others evenly between")
{
    for (const char* form : {"separate-base", "boxed-corner", "gusseted-satchel"}) {
        INFO(form);
        Design d = newDesign(form);
        if (std::any_of(d.features.begin(), d.features.end(), [](const Feature& f) { return f.id == "flap"; }))
            removeFeature(d, "flap");
        addFeature(d, "drawstring");
        assign(d, "drawstring.count=10");
        assign(d, "drawstring.astride=50");
        const Pattern p = medium(d);
        int eyelets = 0;
        for (const auto& f : p.fittings)
            eyelets += f.kind == Fitting::Kind::Eyelet;
        CHECK(eyelets == 10);
        const double girth = p.seam("mouth")->lengthA;
        // Two spans between the pairs, two pairs: once round.
        CHECK(4 * worked(p, "drawstring.spacing.1") + 4 * worked(p, "drawstring.spacing.2") + 2 * 50
            == Approx(girth).epsilon(1e-6));
        assign(d, "drawstring.astride=0");
        CHECK(worked(medium(d), "drawstring.spacing") == Approx(girth / 10));
    }
}

TEST_CASE("Drawstring pairs stand astride the ends of handles, whichever part came first; the rest between them")
{
    for (const bool handlesFirst : {true, false}) {
        Design d = newDesign("boxed-corner");
        while (!d.features.empty())
            removeFeature(d, d.features.back().id);
        for (const char* kind : {handlesFirst ? "handles" : "drawstring", handlesFirst ? "drawstring" : "handles"})
            addFeature(d, kind);
        for (const char* set : {"handles.width=25", "handles.spread=108", "drawstring.astride=60"})
            assign(d, set);
        const auto onFront = [&] {
            const Pattern p = medium(d);
            std::vector<double> out;
            for (const auto& f : p.fittings)
                if (f.kind == Fitting::Kind::Eyelet && f.piece == PieceId("front"))
                    out.push_back(f.at.x);
            std::sort(out.begin(), out.end());
            return out;
        };
        const auto xs = onFront();
        REQUIRE(xs.size() == 4);
        for (std::size_t i = 0; i < 4; ++i) // both ends at 54 from the middle, 30 to either side
            CHECK(xs[i] == Approx(std::vector{-84.0, -24.0, 24.0, 84.0}[i]).margin(0.1));
        CHECK(found(d, "collision").empty());
        assign(d, "drawstring.count=12");
        // Between the handles round each side 800/2 - 108 - 60 mm are left: two holes in each gap, evenly.
        const double gap = (worked(medium(d), "drawstring.cord") - 2 * 250) / 2 - 108 - 60;
        CHECK(worked(medium(d), "drawstring.spacing.2") == Approx(gap / 3).margin(0.1));
        const auto more = onFront();
        REQUIRE(more.size() == 6);
        CHECK(more.front() == Approx(-84 - gap / 3).margin(6)); // or as near as the side seam lets it
        CHECK(more[1] == Approx(-84).margin(0.1));
        // With straps at the sides as well, pairs stand astride these, too.
        addFeature(d, "strap");
        assign(d, "drawstring.count=16");
        CHECK(worked(medium(d), "drawstring.spacing.6") > 0);
    }
}
