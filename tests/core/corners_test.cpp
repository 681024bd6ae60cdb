// SPDX-License-Identifier: GPL-3.0-or-later
// Round corners that are cut square and rounded by their template once the layers are on.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"
#include "geos.hpp"

#include "buildup/bulk.hpp"
#include "cutting/cut_list.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"

using namespace tectonis;
using Catch::Contains;

TEST_CASE("Cut square, a corner takes as much more cloth as lies between its tangents and its arc; by hand and by GEOS")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern before = medium(d);
    setChoice(d, "corners", "after");
    const Pattern p = medium(d);
    const Geos geos;
    int pieces = 0;
    for (const auto& piece : p.pieces) {
        INFO(piece.code);
        CHECK(areaOf(piece.cut) == Approx(areaOf(before.piece(piece.key)->cut))); // its template stays what it was
        if (piece.rough.empty())
            continue;
        ++pieces;
        double more = 0; // R² (tan(θ/2) − θ/2) at each corner: two tangents less the sector
        for (const auto& segment : piece.cut)
            if (const auto* arc = std::get_if<Arc>(&segment))
                more += arc->radius * arc->radius * (std::tan(arc->sweep / 2) - arc->sweep / 2);
        CHECK(areaOf(piece.rough) - areaOf(piece.cut) == Approx(more));
        CHECK(geos.valid(flattened(piece.rough, 0.1)));
        CHECK(geos.covers(flattened(piece.rough, 0.1), flattened(piece.cut, 0.1), 0.01));
        for (const auto& item : cutItems(p))
            if (item.id == SubjectId(piece.key))
                CHECK(areaOf(item.outline) == Approx(areaOf(piece.rough)));
        CHECK_THAT(words(piece.note), Contains("Cut it square at its round corners"));
    }
    CHECK(pieces >= 4); // front, back, flap and linings
}

TEST_CASE("Corners are rounded after the layers are on and before the piece is joined; both orders are told")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "corners", "after");
    const Pattern p = medium(d);
    REQUIRE(p.step("corners.round"));
    const auto order = orderOf(d, p);
    CHECK(brokenRules(p, order).empty());
    CHECK_THAT(words(told(p, *p.step("corners.round")).text), Contains("A, ") && Contains("lay the template on"));
    const auto moved = [&](const char* step, const char* before) {
        auto next = order;
        const auto at = [&](const char* id) {
            return std::find_if(next.begin(), next.end(), [&](std::size_t i) { return p.steps[i].id == id; });
        };
        const std::size_t taken = *at(step);
        next.erase(at(step));
        next.insert(at(before), taken);
        std::string out;
        for (const auto& broken : brokenRules(p, next))
            out += broken.rule + std::string(": ") + words(broken.reason) + "\n";
        return out;
    };
    CHECK_THAT(moved("corners.round", "interline.fused"),
        Contains("round after the layers: ") && Contains("through all layers at once"));
    CHECK_THAT(moved("front-gusset", "corners.round"), Contains("round before joining: ") && Contains("still single"));
    setChoice(d, "corners", "cut");
    CHECK(!medium(d).step("corners.round"));
}

TEST_CASE("What is round as a whole has no corners to leave square: disc and round base")
{
    for (const char* form : {"circle-pouch", "cylinder"}) {
        Design d = newDesign(form);
        setChoice(d, "corners", "after");
        const Pattern p = medium(d);
        CHECK(p.piece(form == std::string("cylinder") ? "base" : "disc")->rough.empty());
    }
}

TEST_CASE("What is quilted is cut as a block 20 mm larger on each side with its layer, quilted, and then cut to shape")
{
    Design d = newDesign("boxed-corner");
    edit(d, [&](Design& next) {
        change::putBehind(next, medium(d), {.pieces = "front", .material = "fleece-fusible", .trim = "diamonds 40"});
    });
    CHECK(d.layers.back().fixing == "quilted");
    const Pattern p = medium(d);
    const Piece& front = *p.piece("front");
    const Box piece = boundsOf(front.cut), block = boundsOf(front.rough);
    CHECK(block.width() == Approx(piece.width() + 40));
    CHECK(block.height() == Approx(piece.height() + 40));
    int blocks = 0;
    for (const auto& item : cutItems(p))
        if (item.pieceKey == front.key && boundsOf(item.outline).width() > piece.width() + 1) {
            ++blocks;
            CHECK(boundsOf(item.outline).height() == Approx(block.height()));
        }
    CHECK(blocks == 2); // cloth and fleece
    CHECK(p.piece("back")->rough.empty());
    // The order: quilted, cut, then the rest; both wrong orders are told.
    const auto order = orderOf(d, p);
    CHECK(p.steps[order[0]].id == "quilt");
    CHECK(p.steps[order[1]].id == "quilt.cut");
    CHECK(brokenRules(p, order).empty());
    CHECK_THAT(words(told(p, *p.step("quilt")).text), Contains("A/2") && Contains("in diamonds, 40 mm apart"));
    CHECK_THAT(words(told(p, *p.step("quilt.cut")).text), Contains("A: lay the template on the quilted block"));
    auto swapped = order;
    std::swap(swapped[0], swapped[1]);
    const auto broken = brokenRules(p, swapped);
    REQUIRE(!broken.empty());
    CHECK(broken.front().rule == "quilt before cutting");
    const auto late = movesOf(p, order, 1).back(); // the cutting at the very end
    REQUIRE(late);
    CHECK_THAT(words(late->reason), Contains("before"));
    // Minutes and thread: diamonds are sewn both ways over the whole block, at the workshop's speed.
    const double sewn = 2 * block.width() * block.height() / 40;
    CHECK(minutesOf(p, *p.step("quilt")).result
        == Approx(0.4 + 0.2 * 2 * std::ceil(block.width() / 40) + sewn / 1000 / p.workshop.stitchSpeed));
    edit(d, [&](Design& next) { next.layers.back().trim = "rows 30"; });
    const Pattern rows = medium(d);
    CHECK_THAT(words(told(rows, *rows.step("quilt")).text), Contains("in straight rows, 30 mm apart"));
    CHECK(minutesOf(rows, *rows.step("quilt")).result < minutesOf(p, *p.step("quilt")).result);
    // It reaches into every seam, and what cannot be meant is refused.
    CHECK(front.layers.back().quilted > 0);
    for (const auto& [edge, reach] : front.layers.back().reach)
        CHECK(reach == Approx(front.edge(edge)->allowance));
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { n.layers.back().trim = "rows 2"; }), Contains("5 mm to 200 mm apart"));
    CHECK_THROWS_WITH(edit(d,
                          [&](Design& n) {
                              change::putBehind(
                                  n, rows, {.pieces = "front", .material = "fleece-fusible", .fixing = "us"});
                          }),
        Contains("is no fixing"));
    // Rounded corners are cut with the shape, not once more.
    Design satchel = newDesign("gusseted-satchel");
    setChoice(satchel, "corners", "after");
    edit(satchel, [&](Design& next) {
        change::putBehind(next, medium(satchel), {.pieces = "front", .material = "fleece-fusible", .trim = "rows 30"});
    });
    const Pattern both = medium(satchel);
    CHECK(brokenRules(both, orderOf(satchel, both)).empty());
    const auto& rounded = both.step("corners.round")->pieces;
    CHECK(std::find(rounded.begin(), rounded.end(), PieceId("front")) == rounded.end());
}

TEST_CASE("What is quilted and too thick in the seams is cut back in the allowances, in one stroke, and told so")
{
    Design d = newDesign("boxed-corner");
    while (!d.features.empty()) // connectors in the mouth are thicker than that
        removeFeature(d, d.features.front().id);
    edit(d, [&](Design& next) {
        std::erase_if(next.layers, [](const LayerRule& rule) { return rule.pieces == "panel"; });
        change::putBehind(next, medium(d), {.pieces = "panel", .material = "batting-cotton", .trim = "rows 30"});
    });
    d.workshop.machineLimit = bulkAt(medium(d), *medium(d).seam("box right")).atCrossing - 0.05;
    const auto thick = found(d, "bulk");
    REQUIRE(!thick.empty());
    REQUIRE(thick.front().repair);
    const Pattern was = medium(d);
    const Piece& before = *was.piece("front");
    edit(d, [&](Design& next) { change::repair(next, thick.front()); });
    CHECK(found(d, "bulk").empty());
    const Pattern p = medium(d);
    const Piece& front = *p.piece("front");
    const Layer& batting = front.layers.front();
    CHECK(batting.quilted == Approx(30));
    CHECK(areaOf(batting.outline) == Approx(areaOf(front.stitch())).epsilon(1e-6));
    CHECK(boundsOf(front.rough).width() == Approx(boundsOf(before.rough).width()));
    CHECK(bulkAt(p, *p.seam("bottom")).underFoot
        == Approx(bulkAt(was, *was.seam("bottom")).underFoot - 2 * material("batting-cotton").underFoot()));
    CHECK_THAT(words(textOf(p, "quilt.cut")),
        Contains("Peel A/1 back and cut it away in the allowances, all round") && Contains("Peel B/1 back"));
    double round = 0;
    for (const char* panel : {"front", "back"})
        for (const auto& edge : p.piece(panel)->edges)
            round += edge.length();
    CHECK(minutesAt(p, "quilt.cut") == Approx(minutesAt(was, "quilt.cut") + 2 * round / 1000));
    CHECK_THAT(words(batting.trim), Contains("30 mm apart") && Contains("to the stitch line all round"));
    // One edge alone.
    edit(d, [&](Design& next) { next.layers.back().edges = {{"top", "stitch"}}; });
    CHECK_THAT(words(textOf(medium(d), "quilt.cut")),
        Contains("Peel A/1 back and cut it away in the allowances, without its cloth: top"));
    CHECK(medium(d).piece("front")->layers.front().reach.size() == front.edges.size());
    edit(d, [&](Design& next) { next.layers.back().edges.clear(); });
    CHECK_THAT(words(textOf(medium(d), "quilt.cut")), !Contains("Peel"));
}
