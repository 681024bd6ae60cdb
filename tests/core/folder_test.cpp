// SPDX-License-Identifier: GPL-3.0-or-later
// Folding alone: guides keep lengths, gaps are seen, volumes are right; sizes worked side by side.
#include "mockup/folder.hpp"
#include "parallel/parallel.hpp"
#include "drafting/plans.hpp"

#include <catch2/catch.hpp>

#include <atomic>
#include <stdexcept>

using namespace tectonis;

namespace {

Piece rectangle(const std::string& key, double w, double h)
{
    Piece p{.key = key, .code = key, .name = key};
    p.edges = {{"bottom", lineRun({{0, 0}, {w, 0}}), 0, {}}, {"right", lineRun({{w, 0}, {w, h}}), 0, {}}, {"top", lineRun({{w, h}, {0, h}}), 0, {}}, {"left", lineRun({{0, h}, {0, 0}}), 0, {}}};
    return p;
}

double areaOfFacets(const Mockup& m)
{
    double sum = 0;
    for (const auto& f : m.facets) {
        Vec3 n{};
        for (std::size_t i = 1; i + 1 < f.corners.size(); ++i)
            n = n + cross(f.corners[i] - f.corners[0], f.corners[i + 1] - f.corners[0]);
        sum += std::sqrt(dot(n, n)) / 2;
    }
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
    Pattern p;
    p.pieces.push_back(rectangle("wall", 400, 60));
    p.pieces.push_back(rectangle("floor", 100, 100));
    p.seams.push_back({.key = "close", .name = "Wall to itself", .a = {{"wall", "right"}}, .b = {{"wall", "left", 0, true}}});
    const Guide guide(reversed(roundedPlan(100, 100, 0)));
    const Fold round = [guide](Point q) { const Point at = guide.at(q.x); return Vec3{at.x, q.y, at.y}; };
    const auto fold = [&](double slip) {
        Folder folder(p);
        folder.lay("wall", round, guide.corners());
        folder.lay("floor", [slip](Point q) { return Vec3{q.x - 50, -slip, q.y - 50}; });
        return folder.finish({{"wall", "top", 0, true}});
    };
    const Mockup box = fold(0);
    CHECK(box.litres == Approx(0.6).epsilon(1e-6));
    CHECK(box.largestGap < 1e-6);
    CHECK(areaOfFacets(box) == Approx(400 * 60 + 100 * 100).epsilon(1e-6));
    // A seam whose runs do not meet is told with its name and distance.
    p.seams.push_back({.key = "base", .name = "Wall to floor", .a = {{"wall", "bottom"}}, .b = {{"floor", "bottom"}, {"floor", "right"}, {"floor", "top"}, {"floor", "left"}}});
    const Mockup twisted = fold(7);
    CHECK(twisted.largestGap > 7);
    CHECK(twisted.gapAt == "Wall to floor");
    // What is only basted or topstitched, and what is not laid, does not count.
    p.seams.back().stitch = "baste";
    CHECK(fold(7).largestGap < 1e-6);
}

TEST_CASE("Pieces that are not there are passed over; an overlay lies outside its piece; a turned strip shows its other side")
{
    Pattern p;
    p.pieces.push_back(rectangle("front", 100, 80));
    p.pieces.push_back(rectangle("pocket", 40, 30));
    p.overlays.push_back({"pocket", "front", {30, 20}});
    p.overlays.push_back({"absent", "front", {}});
    Folder folder(p);
    folder.lay("absent", [](Point q) { return Vec3{q.x, q.y, 0}; });
    folder.lay("front", [](Point q) { return Vec3{q.x, q.y, 50}; });
    const Mockup m = folder.finish({});
    REQUIRE(m.facets.size() == 2);
    CHECK(m.facets[1].kind == "overlay");
    for (const Vec3 v : m.facets[1].corners) {
        CHECK(v.z > 50); // towards the viewer of the front
        CHECK(v.x >= 30);
        CHECK(v.x <= 70);
    }
    Folder turned(p);
    turned.layTurned("front", [](Point q) { return Vec3{q.x, q.y, 50}; });
    const auto& corners = turned.finish({}).facets[0].corners;
    CHECK(cross(corners[1] - corners[0], corners[2] - corners[1]).z < 0);
}

TEST_CASE("Bends cut a piece into flat facets; only outlines are stitch lines")
{
    Pattern p;
    p.pieces.push_back(rectangle("front", 90, 60));
    Folder folder(p);
    folder.lay("front", [](Point q) { return Vec3{std::min(q.x, 30.0), q.y, -std::max(q.x - 30, 0.0)}; }, {30, 60, 500}, {20});
    const Mockup m = folder.finish({});
    CHECK(m.facets.size() == 6); // three columns, two rows; a bend outside the piece does nothing
    int stitched = 0, all = 0;
    for (const auto& f : m.facets)
        for (const bool s : f.seamAfter)
            stitched += s, ++all;
    CHECK(all == 24);
    CHECK(stitched == 10);
    CHECK(areaOfFacets(m) == Approx(90 * 60));
}

TEST_CASE("Work side by side: every index once, the lowest error is told, and the next work is sound again")
{
    std::vector<std::atomic<int>> done(100);
    forEachIndex(done.size(), [&](std::size_t i) { ++done[i]; });
    for (const auto& d : done)
        CHECK(d == 1);
    for (int round = 0; round < 20; ++round)
        CHECK_THROWS_WITH(forEachIndex(16, [](std::size_t i) {
                              if (i % 5 == 3)
                                  throw std::runtime_error(std::to_string(i));
                          }),
                          "3");
    int sum = 0;
    forEachIndex(1, [&](std::size_t) { ++sum; });
    forEachIndex(0, [&](std::size_t) { ++sum; });
    CHECK(sum == 1);
}
