// SPDX-License-Identifier: GPL-3.0-or-later
// Folding alone: guides keep lengths, gaps are seen, volumes are right; sizes worked side by side.
#include "drafting/plans.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "library/library.hpp"
#include "mockup/figure.hpp"
#include "mockup/folder.hpp"
#include "parallel/parallel.hpp"
#include "space.hpp"

#include <catch2/catch.hpp>

#include <atomic>
#include <map>
#include <stdexcept>

using namespace tectonis;

namespace {

Piece rectangle(const std::string& key, double w, double h)
{
    Piece p{.key = key, .code = key, .name = naming(key), .material = "shell"};
    p.edges = {{"bottom", lineRun({{0, 0}, {w, 0}}), 0, {}}, {"right", lineRun({{w, 0}, {w, h}}), 0, {}},
        {"top", lineRun({{w, h}, {0, h}}), 0, {}}, {"left", lineRun({{0, h}, {0, 0}}), 0, {}}};
    return p;
}

std::vector<Facet> ofKind(const Mockup& m, const std::string& kind)
{
    std::vector<Facet> out;
    std::copy_if(
        m.facets.begin(), m.facets.end(), std::back_inserter(out), [&](const Facet& f) { return f.kind == kind; });
    return out;
}

double areaOfFacets(const std::vector<Facet>& facets)
{
    double sum = 0;
    for (const auto& f : facets)
        sum += areaOf(f.corners);
    return sum;
}

} // namespace

TEST_CASE("A guide keeps the run's true length, bends where it bends, and is clamped at its ends")
{
    const Run run{Line{{0, 0}, {100, 0}}, Arc{{100, 50}, 50, -pi / 2, pi / 2}};
    const Guide guide(run);
    CHECK(guide.length() == Approx(100 + 25 * pi).margin(1e-9));
    CHECK(distance(guide.at(40), {40, 0}) < 0.01);
    CHECK(distance(guide.at(100 + 12.5 * pi), pointAlong(run, 100 + 12.5 * pi)) < 0.05);
    CHECK(distance(guide.at(-5), {0, 0}) < 1e-9);
    CHECK(distance(guide.at(1e6), {150, 50}) < 1e-9);
    CHECK(guide.corners().size() > 5);
}

TEST_CASE("A strip bent round a square stands as a box: area is kept, volume is the box's, nothing gapes")
{
    Pattern p{.materials = {{"shell", "canvas-12"}}};
    p.pieces.push_back(rectangle("wall", 400, 60));
    p.pieces.push_back(rectangle("floor", 100, 100));
    p.seams.push_back(
        {.key = "close", .name = say("Wall to itself"), .a = {{"wall", "right"}}, .b = {{"wall", "left", 0, true}}});
    const Guide guide(reversed(roundedPlan(100, 100, 0)));
    const Fold round = [guide](Point q) {
        const Point at = guide.at(q.x);
        return Vec3{at.x, q.y, at.y};
    };
    const auto fold = [&](double slip) {
        Folder folder(p);
        folder.lay("wall", round, guide.corners());
        folder.lay("floor", [slip](Point q) { return Vec3{q.x - 50, -slip, q.y - 50}; });
        return folder.finish({{"wall", "top", 0, true}});
    };
    const Mockup box = fold(0);
    CHECK(box.litres == Approx(0.6).epsilon(1e-6));
    CHECK(box.largestGap < 1e-6);
    CHECK(areaOfFacets(ofKind(box, "cloth")) == Approx(400 * 60 + 100 * 100).epsilon(1e-6));
    // A seam whose runs do not meet is told with its name and distance.
    p.seams.push_back({.key = "base",
        .name = say("Wall to floor"),
        .a = {{"wall", "bottom"}},
        .b = {{"floor", "bottom"}, {"floor", "right"}, {"floor", "top"}, {"floor", "left"}}});
    const Mockup twisted = fold(7);
    CHECK(twisted.largestGap > 7);
    CHECK(twisted.gapAt == "Wall to floor");
    // What is only basted or topstitched, and what is not laid, does not count.
    p.seams.back().stitch = "baste";
    CHECK(fold(7).largestGap < 1e-6);
}

TEST_CASE(
    "Pieces that are not there are passed over; an overlay lies outside its piece; a turned strip shows its other side")
{
    Pattern p{.materials = {{"shell", "canvas-12"}}};
    p.pieces.push_back(rectangle("front", 100, 80));
    p.pieces.push_back(rectangle("pocket", 40, 30));
    p.overlays.push_back({"pocket", "front", {30, 20}});
    p.overlays.push_back({"absent", "front", {}});
    Folder folder(p);
    folder.lay("absent", [](Point q) { return Vec3{q.x, q.y, 0}; });
    folder.lay("front", [](Point q) { return Vec3{q.x, q.y, 50}; });
    const Mockup m = folder.finish({});
    CHECK(ofKind(m, "cloth").size() == 1);
    const auto overlays = ofKind(m, "overlay");
    REQUIRE(overlays.size() == 1);
    const double thick = material("canvas-12").thickness;
    for (const Vec3 v : overlays[0].corners) {
        CHECK(v.z == Approx(50 + thick)); // towards the viewer of the front, by its own thickness
        CHECK(v.x >= 30);
        CHECK(v.x <= 70);
    }
    Folder turned(p);
    turned.layTurned("front", [](Point q) { return Vec3{q.x, q.y, 50}; });
    const auto& corners = turned.finish({}).facets[0].corners;
    CHECK(cross(corners[1] - corners[0], corners[2] - corners[1]).z < 0);
}

TEST_CASE("Free edges show their thickness, sewn ones do not; an overlay shows its own all round")
{
    Pattern p{.materials = {{"shell", "canvas-12"}}};
    const double thick = material("canvas-12").thickness;
    p.pieces.push_back(rectangle("front", 100, 80));
    p.pieces.push_back(rectangle("side", 80, 80));
    p.seams.push_back(
        {.key = "s", .name = say("Front to side"), .a = {{"front", "right"}}, .b = {{"side", "left", 0, true}}});
    Folder folder(p);
    folder.lay("front", [](Point q) { return Vec3{q.x, q.y, 0}; });
    folder.lay("side", [](Point q) { return Vec3{100, q.y, -q.x}; });
    double edges = 0;
    const Mockup bare = folder.finish({});
    for (const auto& f : ofKind(bare, "edge")) {
        edges += areaOfFacets({f});
        CHECK(f.piece != "");
    }
    CHECK(edges == Approx(thick * (2 * 100 + 80 + 2 * 80 + 80))); // three free sides each
    CHECK(bare.largestGap < 1e-9);
    p.pieces.push_back(rectangle("pocket", 40, 30));
    p.overlays.push_back({"pocket", "front", {30, 20}});
    double more = 0;
    for (const auto& f : ofKind(folder.finish({}), "edge"))
        more += areaOfFacets({f});
    CHECK(more - edges == Approx(std::max(0.6, thick) * 2 * (40 + 30)));
}

TEST_CASE("What lies over a bend is bent there, as it was laid: straight, by quarters, or the other way round")
{
    for (const double angle : {0.0, pi / 2, pi, -pi / 2})
        for (const bool mirror : {false, true}) {
            INFO(angle << (mirror ? " mirrored" : ""));
            Pattern p{.materials = {{"shell", "canvas-12"}}};
            p.pieces.push_back(rectangle("wall", 200, 100));
            p.pieces.push_back(rectangle("patch", 60, 24));
            Placement place{0, 0, angle, mirror};
            const Point middle = place({30, 12});
            place.dx = 90 - middle.x, place.dy = 50 - middle.y; // over the bend, its middle 10 mm beside that
            p.overlays.push_back({"patch", "wall", place});
            Folder folder(p);
            folder.lay("wall",
                [](Point q) {
                    return q.x < 100 ? Vec3{q.x, q.y, 0} : Vec3{100, q.y, 100 - q.x};
                },
                {100});
            const auto facets = ofKind(folder.finish({}), "overlay");
            const bool lengthwise = std::abs(std::cos(angle)) > 0.5; // 60 mm across the bend, or 24
            REQUIRE(facets.size() == 2);
            // Each lies flat on its own side of the bend: as much cloth as there was, none of it across the corner.
            CHECK(areaOfFacets(facets) == Approx(60 * 24).epsilon(0.06)); // it lies its thickness further out
            std::vector<double> areas{areaOfFacets({facets[0]}), areaOfFacets({facets[1]})};
            std::sort(areas.begin(), areas.end());
            CHECK(areas[0] == Approx(lengthwise ? 20 * 24 : 2 * 60).margin(50));
        }
}

TEST_CASE("A lining is laid the other way round: its face looks inwards, its right lies at the shell's left")
{
    Pattern p{.materials = {{"shell", "canvas-12"}, {"lining", "lining-cotton"}}};
    for (const std::string of : {"", "lining."}) {
        Piece piece = rectangle(of + "front", 100, 80);
        for (auto& e : piece.edges)
            e.stitch = placed(e.stitch, {-50, 0});
        p.pieces.push_back(piece);
    }
    p.pieces.push_back(rectangle("pocket", 20, 20));
    p.overlays.push_back({"pocket", "lining.front", {25, 10}}); // right of the middle, seen from inside
    const Mockup m = foldCoats(p, [](Folder& folder, const LaidCoat& coat) {
        folder.lay(coat.key("front"), [](Point q) { return Vec3{q.x, q.y, 30}; });
    });
    for (const auto& f : ofKind(m, "cloth"))
        CHECK((cross(f.corners[1] - f.corners[0], f.corners[2] - f.corners[1]).z > 0) == (f.coat == Coat::Shell));
    const auto overlays = ofKind(m, "overlay");
    REQUIRE(overlays.size() == 1);
    for (const Vec3 v : overlays[0].corners) {
        CHECK(v.z < 30);
        CHECK(v.x < 0);
    }
}

TEST_CASE("The lining's volume is smaller by its walls, for boxes to the digit")
{
    for (const char* form : {"boxed-corner", "separate-base", "gusseted-satchel", "cylinder"}) {
        INFO(form);
        Design d = newDesign(form);
        setChoice(d, "lining.fit", "same");
        const Mockup same = mockupOf(d, draftAll(d)[1]);
        CHECK(same.liningLitres == Approx(same.litres).epsilon(1e-9));
        setChoice(d, "lining.fit", "smaller");
        const Mockup smaller = mockupOf(d, draftAll(d)[1]);
        CHECK(smaller.litres == Approx(same.litres).epsilon(1e-9));
        CHECK(smaller.liningLitres < smaller.litres);
        CHECK(smaller.liningLitres > 0.7 * smaller.litres);
    }
}

TEST_CASE("How a bag is worn: strap, handle or back, with drops worked by hand")
{
    Design d = newDesign("gusseted-satchel");
    Pattern p = draftAll(d)[1];
    const double half = p.straps[0].longest / 2, drop = std::sqrt(half * half - p.width * p.width / 4); // Pythagoras
    CHECK(wornBy(p, 1700).drop == Approx(drop));
    CHECK(wornBy(p, 1700).mouthAbove
        == Approx(0.82 * 1700 - drop)); // shoulder at 0.82 of the stature: common practice, no source
    double top = -1e9, low = 1e9;
    for (const auto& f : figureOf(p, 1700))
        for (const Vec3 v : f.corners)
            top = std::max(top, v.y), low = std::min(low, v.y);
    CHECK(top - low == Approx(1700).epsilon(1e-6));
    CHECK(p.height - low == Approx(wornBy(p, 1700).mouthAbove));
    CHECK(wornBy(draftAll(newDesign("large-tote"))[1], 1700).how == "in the hand");
    CHECK(wornBy(draftAll(newDesign("roll-top"))[1], 1700).how == "on the back");
    CHECK(wornBy(draftAll(newDesign("frame-clutch"))[1], 1700).drop == 0);
}

TEST_CASE("Opened, a flap stands up from its hinge without stretch and bands hang from theirs")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "top-zip");
    const Pattern p = draftAll(d)[1];
    double closed = 0, opened = 0, lowest = 1e9;
    int bands = 0;
    for (Facet f : mockupOf(d, p).facets) {
        if (f.kind == "flap") {
            closed += areaOfFacets({f});
            lowest = std::min(lowest, f.opened.front().y);
            f.corners = f.opened;
            opened += areaOfFacets({f});
        }
        bands += f.kind == "inner";
    }
    CHECK(opened == Approx(areaOf(p.piece("flap.outer")->stitch())).epsilon(1e-3));
    CHECK(closed == Approx(opened).epsilon(1e-3));
    CHECK(lowest > 0.5 * p.height);
    CHECK(bands == 2);
}

TEST_CASE("Bends cut a piece into flat facets; only outlines are stitch lines")
{
    Pattern p{.materials = {{"shell", "canvas-12"}}};
    p.pieces.push_back(rectangle("front", 90, 60));
    Folder folder(p);
    folder.lay("front",
        [](Point q) {
            return Vec3{std::min(q.x, 30.0), q.y, -std::max(q.x - 30, 0.0)};
        },
        {30, 60, 500}, {20});
    const Mockup m = folder.finish({});
    CHECK(ofKind(m, "cloth").size() == 6); // three columns, two rows; a bend outside the piece does nothing
    int stitched = 0, all = 0;
    for (const auto& f : ofKind(m, "cloth"))
        for (const bool s : f.seamAfter)
            stitched += s, ++all;
    CHECK(all == 24);
    CHECK(stitched == 10);
    CHECK(areaOfFacets(ofKind(m, "cloth")) == Approx(90 * 60));
}

TEST_CASE("A gathered disc keeps its cloth: rings and radii by their true length, the volume by frusta")
{
    for (const char* radius : {"100", "180", "420"}) {
        INFO("radius " << radius);
        Design d = newDesign("circle-pouch");
        assign(d, std::string("radius=") + radius);
        const Pattern p = draftAll(d)[1];
        const Mockup m = mockupOf(d, p);
        std::vector<Facet> shell;
        for (const auto& f : ofKind(m, "cloth"))
            if (f.coat == Coat::Shell)
                shell.push_back(f);
        const double r = p.values.at("radius"), neck = p.values.at("channel");
        CHECK(areaOfFacets(shell) == Approx(pi * r * r).epsilon(0.02)); // a polygon of 48 sides lacks 0.3 %
        double rim = 0;
        std::map<double, std::vector<Vec3>> rings; // by distance on the flat cloth, from the order in which they come
        for (std::size_t i = 0; i < shell.size(); ++i) {
            const Facet& f = shell[i];
            const Vec3 v = f.corners[2] - f.corners[1];
            rim += f.seamAfter[1] ? std::sqrt(dot(v, v)) : 0;
            rings[double(i / 48)].push_back(f.corners[2]);
        }
        // What the room inside promises lies within the folded wall: no ring below its height is narrower.
        for (const auto& [k, ring] : rings)
            for (const Vec3 q : ring)
                if (k > 0 && k < 13 && q.y < p.spaces.front().height)
                    CHECK(std::hypot(q.x, q.z) > 0.85 * p.spaces.front().width / 2); // the folds reach in
        CHECK(rim == Approx(2 * 48 * r * std::sin(pi / 48)));                        // chords of the flat disc
        // Frusta of cones between the rings' mean circles (handbook formula); 13 rings lie below the channel.
        double volume = 0, below = 0, height = 0;
        const auto away = [](Vec3 q) { return std::hypot(q.x, q.z); };
        for (int k = 0; k < 13; ++k) {
            const auto& ring = rings[k];
            const double out = (away(ring[0]) + away(ring[1])) / 2, up = (ring[0].y + ring[1].y) / 2;
            if (k > 0)
                volume += pi * (up - height) * (below * below + below * out + out * out) / 3;
            below = out, height = up;
        }
        CHECK(m.litres == Approx(volume / 1e6).epsilon(0.05));
        CHECK(pi * below * below
            == Approx(2 * pi * neck * 0.9)
                   .epsilon(0.6)); // drawn shut, the opening is filled by cloth about 0.9 mm thick
        CHECK(m.liningLitres < m.litres);
        CHECK(ofKind(m, "strap").size() == 2 * 26); // two cords with a tail each to see
    }
}

TEST_CASE("Work side by side: every index once, the lowest error is told, and the next work is sound again")
{
    std::vector<std::atomic<int>> done(100);
    forEachIndex(done.size(), [&](std::size_t i) { ++done[i]; });
    for (const auto& d : done)
        CHECK(d == 1);
    for (int round = 0; round < 20; ++round)
        CHECK_THROWS_WITH(forEachIndex(16,
                              [](std::size_t i) {
                                  if (i % 5 == 3)
                                      throw std::runtime_error(std::to_string(i));
                              }),
            "3");
    int sum = 0;
    forEachIndex(1, [&](std::size_t) { ++sum; });
    forEachIndex(0, [&](std::size_t) { ++sum; });
    CHECK(sum == 1);
}

#include "forms/form.hpp"
TEST_CASE("Every corner of every facet of every form's mock-up is somewhere")
{
    for (const Form* form : forms()) {
        const Design d = newDesign(form->id());
        for (const auto& p : draftAll(d))
            for (const auto& f : mockupOf(d, p).facets)
                for (const Vec3 c : f.corners) {
                    INFO(form->id() << " " << p.size << " " << f.kind << " " << f.piece);
                    CHECK(std::isfinite(c.x + c.y + c.z));
                }
    }
}
