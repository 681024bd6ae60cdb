// SPDX-License-Identifier: GPL-3.0-or-later
// Lengths, areas and offsets against closed forms and against GEOS (libgeos, the reference library here).
#include "geometry/outline.hpp"
#include "geos.hpp"

#include <catch2/catch.hpp>

#include <deque>
#include <random>
#include <span>

using namespace tectonis;

namespace {

/// Edges of an outline do not hold their runs: these are held until the tests are over.
std::span<const Segment> kept(Run run)
{
    static std::deque<Run> all;
    return all.emplace_back(std::move(run));
}

/// Rounded rectangle as edges, counter-clockwise, @p r on the two bottom corners.
std::vector<OffsetEdge> roundedPanel(double w, double h, double r, double distance)
{
    const Run runs[] = {lineRun({{r, 0}, {w - r, 0}}), {Arc{{w - r, r}, r, -pi / 2, pi / 2}}, lineRun({{w, r}, {w, h}}),
        lineRun({{w, h}, {0, h}}), lineRun({{0, h}, {0, r}}), {Arc{{r, r}, r, pi, pi / 2}}};
    std::vector<OffsetEdge> out;
    for (const auto& run : runs)
        out.push_back({kept(run), distance, distance});
    return out;
}

Run joined(const std::vector<OffsetEdge>& edges)
{
    Run out;
    for (const auto& e : edges)
        out.insert(out.end(), e.run.begin(), e.run.end());
    return out;
}

} // namespace

TEST_CASE("Arc length is radius times angle; area of a circle is pi r² (plane geometry)")
{
    CHECK(lengthOf(Segment{Arc{{0, 0}, 40, 0.3, pi / 2}}) == Approx(40 * pi / 2).epsilon(1e-14));
    CHECK(areaOf(circleRun({7, -3}, 25)) == Approx(pi * 625).epsilon(1e-12));
    CHECK(areaOf(rectangleRun(1, 2, 11, 7)) == Approx(50));
}

TEST_CASE("Length of a cubic: the parabola y = x² from 0 to 1, closed form sqrt(5)/2 + asinh(2)/4")
{
    // The parabola as a cubic: control points raised from the quadratic (0,0) (1/2,0) (1,1).
    const Segment c = Cubic{{0, 0}, {1.0 / 3, 0}, {2.0 / 3, 1.0 / 3}, {1, 1}};
    CHECK(lengthOf(c) == Approx(std::sqrt(5.0) / 2 + std::asinh(2.0) / 4).epsilon(1e-10));
    // Area under y = x² is 1/3; the closed run along the chord holds 1/2 - 1/3.
    CHECK(std::abs(areaOf(Run{c})) == Approx(1.0 / 6).epsilon(1e-12));
}

TEST_CASE("A part of a run has the asked length and lies on it")
{
    const Run r{
        Line{{0, 0}, {50, 0}}, Arc{{50, 20}, 20, -pi / 2, pi / 2}, Cubic{{70, 20}, {70, 40}, {90, 60}, {70, 80}}};
    const double whole = lengthOf(r);
    for (const double a : {0.0, 12.0, 49.9, 60.0})
        for (const double b : {70.0, 95.0, whole}) {
            const Run p = part(r, a, b);
            CHECK(lengthOf(p) == Approx(b - a).margin(1e-6));
            CHECK(distance(startOf(p), pointAlong(r, a)) < 1e-6);
            CHECK(distance(endOf(p), pointAlong(r, b)) < 1e-6);
        }
    CHECK(lengthOf(reversed(r)) == Approx(whole));
    CHECK(distance(startOf(reversed(r)), endOf(r)) < 1e-12);
}

TEST_CASE("Cut edge of a panel with two round corners is longer than its stitch line by pi·s (hand-worked)")
{
    // Walk the U: the corner arcs grow from r·π/2 to (r+s)·π/2 each; straight edges keep their length.
    const double w = 300, h = 240, r = 45, s = 10;
    const double u = 2 * (h - r) + pi * r + (w - 2 * r);
    CHECK(u == Approx(741.3716694115).epsilon(1e-10)); // 390 + 141.3717 + 210
    const Run cut = offsetOutline(roundedPanel(w, h, r, s));
    // The whole cut outline: straight top and mitred top corners add 2s each way.
    const double expected = (w - 2 * r) + pi * (r + s) + 2 * (h - r + s) + (w + 2 * s);
    CHECK(lengthOf(cut) == Approx(expected).epsilon(1e-12));
    CHECK(areaOf(cut) == Approx((w + 2 * s) * (h + 2 * s) - (2 - pi / 2) * (r + s) * (r + s)).epsilon(1e-12));
}

TEST_CASE("Offsets agree with GEOS's mitred buffer, outwards and inwards")
{
    const Geos geos;
    std::mt19937 random(7);
    for (int i = 0; i < 60; ++i) {
        std::uniform_real_distribution<double> size(60, 400);
        const double w = size(random), h = size(random), r = std::min(w, h) * 0.3, s = 4 + i % 13;
        for (const double d : {s, -s}) {
            const auto edges = roundedPanel(w, h, r, d);
            const double ours = areaOf(offsetOutline(edges));
            // GEOS works on chords: 0.0005 mm sagitta keeps its own error far below the tolerance.
            const double theirs = geos.bufferedArea(flattened(joined(edges), 0.0005), d);
            INFO(w << " x " << h << " offset " << d);
            CHECK(ours == Approx(theirs).epsilon(2e-5));
        }
    }
}

TEST_CASE("A side that is bent by a few degrees, in or out, is offset as GEOS does and does not cross itself")
{
    const Geos geos;
    for (double bent = -12; bent <= 12; bent += 0.37) // mm in a side of 200
        for (const double at : {40.0, 100.0})
            for (const double s : {5.0, 10.0, 20.0, -10.0}) {
                const std::vector<Point> corners{{0, 0}, {150, 0}, {150 + bent, at}, {150, 200}, {0, 200}};
                std::vector<OffsetEdge> edges;
                for (std::size_t i = 0; i < corners.size(); ++i)
                    edges.push_back({kept(lineRun({corners[i], corners[(i + 1) % corners.size()]})), s, s});
                const Run cut = offsetOutline(edges, 100);
                INFO(bent << " at " << at << ", offset " << s);
                CHECK(!selfCrossing(flattened(cut, 0.005)));
                CHECK(areaOf(cut) == Approx(geos.bufferedArea(flattened(joined(edges), 0.0005), s)).epsilon(1e-6));
            }
}

TEST_CASE("A bulging side of any turn, at corners of any sharpness, is offset as GEOS does")
{
    const Geos geos;
    for (const double turned : {0.0, 1.0, 2.0, 3.0, pi, 4.0, 5.0, 6.0}) // where on its circle the arc begins
        for (const double half : {0.5, 1.0, 1.4})
            for (const double s : {9.0, -9.0}) {
                const double r = 80, chord = 2 * r * std::sin(half);
                const Point a = polar(turned - half) * r, b = polar(turned + half) * r,
                            in = polar(turned) * (r * std::cos(half));
                const Point back = in - polar(turned) * (chord + 30);
                const std::vector<OffsetEdge> edges{{kept({Arc{{0, 0}, r, turned - half, 2 * half}}), s, s},
                    {kept(lineRun({b, back})), s, s}, {kept(lineRun({back, a})), s, s}};
                INFO(turned << ", " << half << ", " << s);
                CHECK(areaOf(offsetOutline(edges, 100))
                    == Approx(geos.bufferedArea(flattened(joined(edges), 0.0005), s)).epsilon(1e-3));
            }
}

TEST_CASE("Areas of flattened outlines agree with GEOS")
{
    const Geos geos;
    const Run r{Line{{0, 0}, {90, 0}}, Arc{{90, 30}, 30, -pi / 2, pi}, Cubic{{90, 60}, {60, 90}, {20, 30}, {0, 60}},
        Line{{0, 60}, {0, 0}}};
    CHECK(areaOf(r) == Approx(geos.area(flattened(r, 0.0002))).epsilon(1e-5));
}

TEST_CASE("Corner treatments: mitre, blunt, square, folded back")
{
    const auto square = [](Corner corner, bool hem) {
        std::vector<OffsetEdge> edges;
        const Point p[] = {{0, 0}, {100, 0}, {120, 80}, {-20, 80}};
        for (int i = 0; i < 4; ++i)
            edges.push_back({kept(lineRun({p[i], p[(i + 1) % 4]})), 10, 10, Corner::Mitre, false});
        edges[1].corner = edges[2].corner = corner; // both ends of the top edge
        edges[2].hem = hem;
        return offsetOutline(edges);
    };
    const double mitred = areaOf(square(Corner::Mitre, false));
    CHECK(areaOf(square(Corner::Blunt, false)) < mitred);
    // The top flares: folded down about its stitch line, the hem must lie on the side seams' cut lines.
    const Run hem = square(Corner::FoldBack, true);
    double top = -1e9, left = 1e9;
    for (const Point p : flattened(hem))
        top = std::max(top, p.y), left = std::min(left, p.x);
    CHECK(top == Approx(90));
    const auto line = flattened(hem);
    CHECK(!selfCrossing(line));
    // Mirror the hem's upper corners about y = 80: they fall on the side's cut line.
    const Run sides = square(Corner::Mitre, false);
    for (const Point p : line)
        if (p.y > 89.99)
            CHECK(distanceTo(flattened(sides), {p.x, 160 - p.y}) < 1e-6);
}

TEST_CASE("Degenerate input: nothing gives nothing, zero-length edges are skipped, vanished arcs let neighbours meet")
{
    CHECK(offsetOutline({}).empty());
    auto edges = roundedPanel(100, 100, 20, 10);
    edges.insert(edges.begin() + 1, OffsetEdge{kept(lineRun({{80, 0}, {80, 0}})), 10, 10});
    CHECK(areaOf(offsetOutline(edges)) == Approx(areaOf(offsetOutline(roundedPanel(100, 100, 20, 10)))));
    // Inwards by more than the radius: the corners become sharp.
    CHECK(areaOf(offsetOutline(roundedPanel(100, 100, 8, -20))) == Approx(60 * 60));
}

TEST_CASE("selfCrossing finds a bow tie and passes a square")
{
    CHECK(selfCrossing({{0, 0}, {10, 10}, {10, 0}, {0, 10}, {0, 0}}));
    CHECK_FALSE(selfCrossing({{0, 0}, {10, 0}, {10, 10}, {0, 10}, {0, 0}}));
    CHECK_FALSE(containsOutline({{0, 0}, {10, 0}, {10, 10}, {0, 10}, {0, 0}}, {{2, 2}, {12, 2}, {2, 4}, {2, 2}}));
}

TEST_CASE("containsOutline agrees with GEOS on points in and about jagged outlines")
{
    const Geos geos;
    std::mt19937 random(11);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
    int inside = 0, outside = 0;
    for (int round = 0; round < 60; ++round) {
        const int n = 3 + round;
        Polyline outer;
        for (int i = 0; i < n; ++i)
            outer.push_back(polar(2 * pi * i / n) * (i % 7 == 3 ? 80 : between(30, 160)));
        outer.push_back(outer.front());
        for (int i = 0; i < 40; ++i) {
            const Point p{between(-170, 170), i % 5 == 0 ? outer[std::size_t(i) % outer.size()].y : between(-170, 170)};
            if (distanceTo(outer, p) < 0.02)
                continue;
            const bool in = containsOutline(outer, {p});
            (in ? inside : outside) += 1;
            CHECK(in == geos.covers(outer, {p, p + Point{0.001, 0}, p + Point{0, 0.001}, p}, 0.001));
        }
    }
    CHECK((inside > 400 && outside > 400));
}
