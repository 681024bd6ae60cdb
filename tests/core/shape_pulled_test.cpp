// SPDX-License-Identifier: GPL-3.0-or-later
// Shapes of layers as text, and pulled by hand.
#include "drawn.hpp"

#include "buildup/shapes.hpp"
#include "pattern/pattern.hpp"

#include <random>

using namespace tectonis;

namespace {

/// A rectangle 200 wide and 100 high about x = 0, its top at y = 100.
Piece card()
{
    Piece out;
    out.edges = {{"top", lineRun({{100, 100}, {-100, 100}}), 10, {}},
        {"left", lineRun({{-100, 100}, {-100, 0}}), 10, {}}, {"bottom", lineRun({{-100, 0}, {100, 0}}), 10, {}},
        {"right", lineRun({{100, 0}, {100, 100}}), 10, {}}};
    return out;
}

Box outlineOf(const std::string& shape)
{
    const Piece piece = card();
    const auto run = shapeOn(parseShape(shape), piece, piece.stitch(), 0, Pattern{});
    REQUIRE(run.has_value());
    return boundsOf(*run);
}

std::string pulledBy(const std::string& shape, const ShapeHold& hold, Point at, Point by, double step = 0.5)
{
    return textOf(pulled(parseShape(shape), hold, card(), at, by, step));
}

} // namespace

TEST_CASE("A shape's text is read as the same shape")
{
    for (const char* text : {"", "base", "strip 40 along top", "strip 12.5 along left side", "patch 60 x 40 at 0 45",
             "patch 30% x 25% at -10% 45.25", "corner 60 x 35 lower left", "drawn -40,0 40,0 30%,80 0,95.5",
             "as flap.outer less 3", "as pocket less 0"}) {
        INFO(text);
        CHECK(textOf(parseShape(text)) == text);
    }
}

TEST_CASE("Pulled by hand: a patch goes whole, or an edge of it while the other stays; in whole steps")
{
    CHECK(pulledBy("patch 60 x 40 at 0 45", {}, {0, 55}, {7.3, -2.2}) == "patch 60 x 40 at 7.5 47");
    CHECK(pulledBy("patch 60 x 40 at 0 45", {1, 0}, {30, 55}, {10, 99}) == "patch 70 x 40 at 5 45");
    CHECK(pulledBy("patch 60 x 40 at 0 45", {-1, 1}, {-30, 75}, {-4, 6}) == "patch 64 x 46 at -2 42");
    CHECK(pulledBy("patch 60 x 40 at 0 45", {1, 0}, {30, 55}, {-500, 0}) == "patch 4 x 40 at -28 45");  // least
    CHECK(pulledBy("patch 30% x 40 at 0% 45", {1, 0}, {30, 55}, {20, 0}) == "patch 40% x 40 at 5% 45"); // shares stay
    // Sixteenths of an inch.
    CHECK(pulledBy("patch 63.5 x 40 at 0 45", {1, 0}, {31.75, 55}, {2, 0}, 25.4 / 16).starts_with("patch 65.0875 x "));
    for (const auto& [hold, by] : {std::pair{ShapeHold{1, 0}, Point{17, 0}}, {ShapeHold{-1, 0}, Point{-9, 0}},
             {ShapeHold{0, 1}, Point{0, 11}}, {ShapeHold{0, -1}, Point{0, -13}}}) {
        const Box was = outlineOf("patch 60 x 40 at 0 45"),
                  is = outlineOf(pulledBy("patch 60 x 40 at 0 45", hold, {0, 0}, by));
        CHECK((hold.across > 0 ? is.x0 == Approx(was.x0) : hold.across < 0 ? is.x1 == Approx(was.x1) : true));
        CHECK((hold.up > 0 ? is.y0 == Approx(was.y0) : hold.up < 0 ? is.y1 == Approx(was.y1) : true));
    }
}

TEST_CASE("Pulled by hand: strips inwards from their edge, corners from theirs, points of an outline, copies smaller")
{
    CHECK(pulledBy("strip 40 along top", {0, -1}, {0, 60}, {0, -10}) == "strip 50 along top");
    CHECK(pulledBy("strip 40 along bottom", {0, 1}, {0, 40}, {0, 10}) == "strip 50 along bottom");
    CHECK(pulledBy("strip 40 along left", {1, 0}, {-60, 50}, {10, 0}) == "strip 50 along left");
    CHECK(pulledBy("corner 60 x 30 lower left", {1, 0}, {-40, 10}, {5, 9}) == "corner 65 x 30 lower left");
    CHECK(pulledBy("corner 60 x 30 upper right", {-1, -1}, {40, 70}, {-5, -9}) == "corner 65 x 39 upper right");
    CHECK(pulledBy("drawn -40,0 40,0 30%,80", {0, 0, 1}, {40, 100}, {3, -4}) == "drawn -40,0 43,4 30%,80");
    CHECK(pulledBy("drawn -40,0 40,0 0,80", {}, {0, 50}, {3, -4}) == "drawn -37,4 43,4 3,84");
    CHECK(pulledBy("as pocket less 3", {1, 0}, {50, 50}, {-2, 0}) == "as pocket less 5");
    CHECK(pulledBy("as pocket less 3", {1, 0}, {50, 50}, {20, 0}) == "as pocket less 0");
}

TEST_CASE("What is held: edges and corners within reach, the inside, nothing beside it or of a whole layer")
{
    const Piece piece = card();
    const auto hold = [&](const char* shape, Point at) {
        const LayerShape s = parseShape(shape);
        return holdAt(s, piece, *shapeOn(s, piece, piece.stitch(), 0, Pattern{}), at, 3);
    };
    const char* patch = "patch 60 x 40 at 0 45";
    CHECK((hold(patch, {29, 55})->across == 1 && hold(patch, {29, 55})->up == 0));
    CHECK((hold(patch, {-32, 34})->across == -1 && hold(patch, {-32, 34})->up == -1)); // a little outside
    CHECK((hold(patch, {0, 55})->across == 0 && hold(patch, {0, 55})->up == 0));
    CHECK(!hold(patch, {60, 55}));
    CHECK(!hold("", {0, 55}));
    CHECK(hold("drawn -40,20 40,20 0,80", {39, 79})->point == 1);
    CHECK(!hold("drawn -40,20 40,20 0,80", {60, 95}));
}
