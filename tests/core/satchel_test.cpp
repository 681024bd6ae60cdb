// SPDX-License-Identifier: GPL-3.0-or-later
// The gusseted satchel against cases worked by hand from the trade's formulas (docs: the project's domain notes; plain
// geometry).
#include "drawn.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "library/library.hpp"
#include "mockup/carry.hpp"
#include "mockup/folder.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sheets/plan.hpp"

#include "formats/design_file.hpp"

#include <catch2/catch.hpp>

#include <filesystem>

#include <set>

using namespace tectonis;

namespace {

Design plain()
{
    Design d = newDesign("gusseted-satchel");
    setDimension(d, "taper", "0");
    return d;
}

const Working& working(const Pattern& p, const std::string& key)
{
    for (const auto& w : p.workings)
        if (w.key == key)
            return w;
    FAIL("no working " << key);
    throw 0;
}

bool finds(const Findings& all, const std::string& check)
{
    return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.check == check; });
}

Findings findingsOf(const Design& d) { return checkAll(d, draftAll(d)); }

} // namespace

TEST_CASE("Gusset run, upright sides: 2(h − r) + π·r + (w − 2r), hand-worked")
{
    Design d = plain();
    setDimension(d, "width", "300");
    setDimension(d, "height", "240");
    setDimension(d, "radius", "45");
    const Pattern p = medium(d);
    const double u = 2 * (240 - 45) + pi * 45 + (300 - 90); // 741.3717
    CHECK(p.seam("front-gusset")->lengthA == Approx(u).margin(1e-9));
    CHECK(p.piece("gusset")->edge("front")->length() == Approx(u).margin(1e-9));
    CHECK(working(p, "gusset.run").result == Approx(u).margin(1e-9));
    CHECK(working(p, "gusset.surplus").result == Approx(pi * 10).margin(1e-9)); // π·s for two round corners
    // The cut strip is the run plus two mouth allowances, and depth plus two body allowances.
    const Box cut = boundsOf(p.piece("gusset")->cut);
    CHECK(cut.width() == Approx(u + 20).margin(1e-6));
    CHECK(cut.height() == Approx(120).margin(1e-6));
}

TEST_CASE("With taper the working's formula gives the measured run")
{
    Design d = plain();
    for (const char* taper : {"-20", "0", "8", "30"}) {
        setDimension(d, "taper", taper);
        for (const auto& p : draftAll(d))
            CHECK(working(p, "gusset.run").result == Approx(p.seam("front-gusset")->lengthA).margin(0.001));
    }
}

TEST_CASE("Two strips cost one join of two allowances, and their halves are half the run")
{
    Design d = plain();
    const double one = boundsOf(medium(d).piece("gusset")->cut).width();
    setChoice(d, "gusset.strips", "two");
    const Pattern p = medium(d);
    CHECK(p.piece("gusset")->count == 2);
    CHECK(p.piece("gusset")->mirrored == 1);
    CHECK(2 * boundsOf(p.piece("gusset")->cut).width() == Approx(one + 2 * 10).margin(1e-6));
    CHECK(p.seam("gusset-centre")->lengthA == Approx(100));
    CHECK(std::abs(p.seam("back-gusset")->difference()) < 1e-9);
}

TEST_CASE("Lining schools: wider seam, drafted smaller, same; the mouth is unchanged in all")
{
    Design d = plain();
    for (const char* school : {"wider-seam", "smaller", "same"}) {
        setChoice(d, "lining.fit", school);
        const Pattern p = medium(d);
        CHECK(p.piece("lining.front")->edge("top")->length() == Approx(p.piece("front")->edge("top")->length()));
        CHECK(std::abs(p.seam("lining.front-gusset")->difference()) < 1e-9);
        CHECK(std::abs(p.seam("mouth")->difference()) < 1e-9);
    }
    // Wider seam: same cut as the shell's panel; 13.2 against 10 moves the bottom up by 3.2.
    setChoice(d, "lining.fit", "wider-seam");
    Pattern p = medium(d);
    CHECK(areaOf(p.piece("lining.front")->cut) == Approx(areaOf(p.piece("front")->cut)).epsilon(5e-5));
    CHECK(boundsOf(p.piece("lining.front")->stitch()).y0 == Approx(3.2));
    // Drafted smaller: nested boxes, each inside dimension is twice the wall's thickness less (canvas 0.75 + foam 3).
    setChoice(d, "lining.fit", "smaller");
    p = medium(d);
    const double t = 0.75 + 3;
    CHECK(boundsOf(p.piece("lining.gusset")->stitch()).height() == Approx(100)); // the mouth end keeps the depth
    CHECK(p.piece("lining.gusset")->edge("front")->stitch.size() == 1);
    CHECK(startOf(p.piece("lining.gusset")->edge("front")->stitch).y == Approx(t));
    CHECK(boundsOf(p.piece("lining.front")->edge("bottom")->stitch).y0 == Approx(t));
}

TEST_CASE("Flap reach and front mark: up the back, across, round the thickness, down the front (hand-worked)")
{
    Design d = plain();
    setDimension(d, "snap.drop", "80");
    const Pattern p = medium(d);
    // canvas 0.75 + foam 3 + lining 0.22 + its fusible 0.2 = 4.17; flap 0.75 + 0.2 + 0.22 + 0.2 = 1.37
    const double reach = 25 + 100 + (4.17 + 1.37) + 80 + 4;
    CHECK(working(p, "snap.reach").result == Approx(reach));
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Snap) {
            if (f.piece == "front")
                CHECK(f.at.y == Approx(240 - 80));
            else
                CHECK(p.values.at("flap.length") - f.at.y == Approx(reach));
        }
    CHECK(working(p, "snap.clearance").result == Approx(9 + 6.4 + 6)); // radius + allowance + foot
}

TEST_CASE("Zip: tape 51 mm longer than nominal; visible gap g = T − 2·s_z; length snapped to stock")
{
    Design d = plain();
    const auto sizes = draftAll(d);
    for (const auto& p : sizes) {
        const Zip& z = p.zips.at(0);
        CHECK(z.tape == Approx(z.nominal + 50.8));
        const double lap = (z.tapeWidth - p.values.at("zip.window")) / 2;
        CHECK(z.visibleGap == Approx(z.tapeWidth - 2 * lap));
        CHECK(z.nominal <= 0.6 * p.width);
    }
    CHECK(sizes[0].zips[0].nominal == 150); // 0.6 × 270 = 162 → 150
    CHECK(sizes[1].zips[0].nominal == 180); // 0.6 × 300 = 180
    CHECK(sizes[2].zips[0].nominal == 180); // 0.6 × 330 = 198 → 180
}

TEST_CASE("Strap: cut width by material, longest and shortest from the folds (hand-worked)")
{
    Design d = plain();
    Pattern p = medium(d);
    CHECK(p.straps[0].cutWidth == Approx(4 * 31));
    CHECK(p.straps[0].longest == Approx(1450 - 2 * 45 - 30 + 2 * 25));
    CHECK(p.straps[0].shortest == Approx((1450 - 90 + 30) / 2.0 + 50));
    CHECK(p.straps[0].strips == 2); // canvas is 1450 wide, 1430 usable
    setMaterial(d, "shell", "vinyl");
    d.layers.clear();
    p = medium(d);
    CHECK(p.straps[0].cutWidth == Approx(2 * 31));
    setChoice(d, "strap.make", "webbing");
    p = medium(d);
    CHECK(p.straps[0].cutWidth == Approx(31));
    CHECK(p.straps[0].strips == 1);
}

TEST_CASE("Clip spacing p = o·r/s and depth s − 2")
{
    const Pattern p = medium(plain());
    CHECK(working(p, "gusset.clip").result == Approx(3 * 45 / 10.0));
    CHECK(working(p, "gusset.clipDepth").result == Approx(8));
}

TEST_CASE("Window pocket: Y-cuts start 6.4 mm inside the ends")
{
    const Pattern p = medium(plain());
    for (const auto& l : p.piece("lining.back")->lines)
        if (l.name == "zip slash")
            CHECK(lengthOf(l.run) == Approx(p.zips[0].nominal - 2 * 6.4));
}

TEST_CASE("Units of cloth weight: 1 oz/yd² is 33.906 g/m²; leather 1 oz is 1/64 in (definitions of ounce, yard, inch)")
{
    CHECK(gsmOfOunces(1) == Approx(33.906).epsilon(1e-4));
    CHECK(mmOfLeatherOunces(4) == Approx(1.5875));
}

TEST_CASE("The back is cut across at the hinge; both halves with their seam are the whole back")
{
    const Pattern p = medium(plain());
    CHECK(areaOf(p.piece("back.upper")->stitch()) + areaOf(p.piece("back.lower")->stitch())
        == Approx(areaOf(p.piece("front")->stitch())).epsilon(1e-9));
    CHECK(p.seam("flap.hinge")->lengthA == Approx(p.seam("flap.hinge")->lengthB));
    CHECK(p.seam("flap.caught")->lengthA == Approx(p.values.at("flap.width")));
    CHECK(!p.piece("back"));
    for (const auto& s : p.steps)
        for (const auto& key : s.pieces)
            CHECK(p.piece(key));
}

TEST_CASE("One dimension changes, everything follows: depth 100 to 140 in all sizes")
{
    Design d = plain();
    const auto before = draftAll(d);
    setDimension(d, "depth", "140");
    const auto after = draftAll(d);
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(after[i].depth == Approx(before[i].depth + 40));
        CHECK(boundsOf(after[i].piece("gusset")->cut).height()
            == Approx(boundsOf(before[i].piece("gusset")->cut).height() + 40));
        CHECK(after[i].seam("mouth")->lengthA == Approx(before[i].seam("mouth")->lengthA + 80));
        CHECK(after[i].values.at("flap.length") == Approx(before[i].values.at("flap.length") + 40));
        CHECK(boundsOf(after[i].piece("base.board")->cut).height()
            == Approx(boundsOf(before[i].piece("base.board")->cut).height() + 40));
        CHECK(after[i].spaces[0].depth == Approx(before[i].spaces[0].depth + 40));
        CHECK(minutesAt(after[i], "mouth") > minutesAt(before[i], "mouth"));
    }
}

TEST_CASE(
    "Mock-up: the pieces meet within 1 mm, the strap is as long as it is, volume is that of the box less its corners")
{
    const Design d = plain();
    const Pattern p = medium(d);
    const Mockup mockup = mockupOf(d, p);
    CHECK(mockup.largestGap < 1);
    // Half an ellipse: for a circle Ramanujan's formula is exact, so the bow of a half circle is its radius.
    CHECK(bowHeight(200, pi * 100) == Approx(100).epsilon(1e-9));
    CHECK(bowHeight(200, 150) == 0);
    // Divergence theorem over the folded shell closes to front area × depth.
    double flux = 0;
    for (const auto& f : mockup.facets) {
        if (f.kind != "cloth" || f.coat == Coat::Lining)
            continue;
        Vec3 n;
        for (std::size_t i = 0; i < f.corners.size(); ++i)
            n = n + cross(f.corners[i], f.corners[(i + 1) % f.corners.size()]);
        flux += dot(f.corners[0], n * 0.5) / 3;
    }
    // The open mouth is missing: a flat lid at y = height over top width × depth.
    flux += p.height * p.piece("front")->edge("top")->length() * p.depth / 3;
    CHECK(flux == Approx(areaOf(p.piece("front")->stitch()) * p.depth).epsilon(2e-3));
    CHECK(mockup.litres == Approx(areaOf(p.piece("front")->stitch()) * p.depth / 1e6).epsilon(2e-3));
}

TEST_CASE("Things to carry: a thing between round corners rises; what does not fit is found with its measure")
{
    CHECK(cornerRise(100, 200, 40) == 0);
    CHECK(cornerRise(200, 200, 40) == Approx(40));
    CHECK(cornerRise(160 + 2 * 40 * std::sin(pi / 6) - 40, 200, 40) >= 0);
    CHECK(cornerRise(120 + 2 * 24, 200, 40) == Approx(40 - 32)); // 3-4-5: 24 across, 32 of 40 left
    Design d = plain();
    CHECK_FALSE(finds(findingsOf(d), "carried"));
    d.carried.push_back({"Plank", 400, 50, 10, "main"});
    const auto found = findingsOf(d);
    REQUIRE(finds(found, "carried"));
    for (const auto& f : found)
        if (words(f.subject) == "Plank" && f.size == "M" && f.repair) {
            CHECK(words(f.text).find("too wide") != std::string::npos);
            Design mended = d;
            for (const auto& a : f.repair->assignments)
                assign(mended, a);
            const auto after = findingsOf(mended);
            for (const auto& g : after)
                if (g.size == "M" && words(g.subject) == "Plank")
                    CHECK(words(g.text).find("too wide") == std::string::npos);
        }
}

TEST_CASE("Every check can fail: a design that breaks it is found")
{
    const auto with = [](const std::function<void(Design&)>& change) {
        Design d = plain();
        change(d);
        return findingsOf(d);
    };
    CHECK(findingsOf(plain()).empty());
    CHECK(finds(with([](Design& d) { setDimension(d, "connectors.width", "36"); }), "ring"));
    CHECK(finds(with([](Design& d) { setDimension(d, "connectors.width", "20"); }), "ring"));
    CHECK(finds(with([](Design& d) { setDimension(d, "depth", "45"); }), "connector"));
    CHECK(finds(with([](Design& d) { setDimension(d, "snap.drop", "198"); }), "snap"));
    CHECK(finds(with([](Design& d) { setDimension(d, "zip.window", "22"); }), "zip-tape"));
    CHECK(finds(
        with([](Design& d) { setRule(d, "zip.length", hold()), setDimension(d, "zip.length", "173"); }), "zip-stock"));
    CHECK(finds(with([](Design& d) { setDimension(d, "opening.length", "60"); }), "opening"));
    CHECK(finds(with([](Design& d) { setDimension(d, "opening.length", "250"); }), "opening-place"));
    CHECK(finds(with([](Design& d) { d.workshop.machineLimit = 3; }), "bulk"));
    CHECK(finds(with([](Design& d) { setMaterial(d, "shell", "waxed-canvas"); }), "heat"));
    CHECK(finds(with([](Design& d) { setDimension(d, "radius", "6"); }), "tight-curve"));
    CHECK(finds(with([](Design& d) { setDimension(d, "slip.height", "200"); }), "place"));
    CHECK(finds(with([](Design& d) {
        setMaterial(d, "shell", "leather-4oz"), d.layers.clear(), setDimension(d, "width", "760");
    }),
        "cloth-width"));
    CHECK(finds(with([](Design& d) { setDimension(d, "strap.length", "700"); }), "strap-length"));
    // A seam that disagrees and allowances that differ cannot be drafted by this form; the check reads any pattern.
    Design d = plain();
    auto patterns = draftAll(d);
    auto& front = patterns[1].pieces.front();
    front.edges[0].stitch = lineRun({{150, 240}, {-140, 240}});
    front.edges[0].allowance = 12;
    for (auto& s : patterns[1].seams)
        s.lengthA = patterns[1].lengthOfSide(s.a), s.lengthB = patterns[1].lengthOfSide(s.b);
    const auto found = checkAll(d, patterns);
    CHECK(finds(found, "seam-length"));
    CHECK(finds(found, "seam-allowance"));
}

TEST_CASE("Sequence: the proposed order keeps all rules; moving a step names the rule it breaks")
{
    const Design d = plain();
    const Pattern p = medium(d);
    CHECK(brokenRules(p, orderOf(d, p)).empty());
    const auto at = [&](const std::string& id) { return std::size_t(p.step(id) - p.steps.data()); };
    const auto broken = [&](const std::string& moved, const std::string& behind) {
        auto order = orderOf(d, p);
        order.erase(std::find(order.begin(), order.end(), at(moved)));
        order.insert(std::find(order.begin(), order.end(), at(behind)) + 1, at(moved));
        std::set<std::string> rules;
        for (const auto& b : brokenRules(p, order))
            rules.insert(b.rule);
        return rules;
    };
    CHECK(broken("interline.basted", "front-gusset").contains("interlining first"));
    CHECK(broken("snap.flap", "flap.sew").contains("one-layer hardware first"));
    CHECK(broken("slip.on", "lining.front-gusset").contains("flat work while flat"));
    CHECK(broken("flap.baste", "flap.join").contains("baste what is trapped"));
    CHECK(broken("connectors.baste", "mouth").contains("baste what is trapped"));
    CHECK(broken("gusset.clip", "front-gusset").contains("clip before the curve"));
    CHECK(broken("board", "close").contains("everything in before closing"));
    CHECK(broken("turn", "close").contains("everything in before closing"));
    CHECK(broken("flap.turn", "flap.join").contains("topstitch before the next seam"));
    CHECK(broken("lining.back-gusset", "mouth").contains("press before crossing"));
    CHECK(broken("slip.make", "slip.on").contains("uses what is made"));
    // Two independent steps may change places.
    CHECK(broken("connectors.make", "snap.front").empty());
}

TEST_CASE("The dry run ends with one bag; the opening opens and closes")
{
    for (const char* way : {"bagged-out", "drop-in"}) {
        Design d = plain();
        setChoice(d, "assembly", way);
        const Pattern p = medium(d);
        const auto states = dryRun(p, orderOf(d, p));
        REQUIRE(states.size() == p.steps.size());
        CHECK(states.back().parts == std::vector<WorkId>{"bag"});
        for (const auto& s : states)
            CHECK(s.problems.empty());
        CHECK(states.back().opening.source == (std::string(way) == "bagged-out" ? "closed" : ""));
        REQUIRE(!states.back().zips.empty());
        CHECK(!states.back().zips.front().second.empty());
    }
}

TEST_CASE("Markers: pieces lie on the cloth without touching, the length is what they need, rounded up to 0.1 m")
{
    for (const auto& m : makeMarkers(medium(plain()))) {
        if (m.clothWidth <= 0)
            continue;
        std::vector<Box> boxes;
        std::size_t copies = 0;
        for (const auto& item : m.items)
            copies += std::size_t(item.count);
        CHECK(m.spots.size() == copies);
        for (const auto& s : m.spots) {
            REQUIRE(s.placed);
            const Box b = boundsOf(placed(alongCloth(m.items[s.item]), s.placement));
            CHECK(b.y0 > -1e-6);
            CHECK(b.y1 < m.clothWidth + 1e-6);
            CHECK(b.x0 > -1e-6);
            CHECK(b.x1 < m.length + 1e-6);
            for (const auto& o : boxes)
                CHECK((b.x1 <= o.x0 + 1e-6 || o.x1 <= b.x0 + 1e-6 || b.y1 <= o.y0 + 1e-6 || o.y1 <= b.y0 + 1e-6));
            boxes.push_back(b);
        }
        CHECK(m.soldLength >= m.length - 1e-6);
        CHECK(std::fmod(m.soldLength + 1e-6, 100) < 1e-3);
        CHECK(m.yield > 0);
        CHECK(m.yield <= 1);
    }
}

TEST_CASE("Sheets: every piece is covered, no page is empty, small pieces stay on one page")
{
    const auto sizes = draftAll(plain());
    for (const auto& paper : Library::builtIn()->papers()) {
        const SheetPlan plan = planSheets({&sizes[0], &sizes[1], &sizes[2]}, paper);
        std::set<PieceId> there;
        std::vector<Polyline> lines;
        for (const auto& s : plan.spots) {
            there.insert(s.pieceKey);
            there.insert(s.also.begin(), s.also.end());
            int on = 0;
            for (const auto& page : plan.pages)
                on += s.box.x0 >= page.area.x0 - 1e-6 && s.box.x1 <= page.area.x1 + 1e-6
                    && s.box.y0 >= page.area.y0 - 1e-6 && s.box.y1 <= page.area.y1 + 1e-6;
            const double w = paper.width - 20, h = paper.height - 28;
            if (s.box.width() <= w && s.box.height() <= h)
                CHECK(on >= 1);
            for (const auto i : s.patterns)
                lines.push_back(flattened(
                    placed(std::vector<const Pattern*>{&sizes[0], &sizes[1], &sizes[2]}[i]->piece(s.pieceKey)->cut,
                        s.placement),
                    0.1));
        }
        for (const auto& t : plan.toMeasure)
            there.insert(sizes[0].pieceByCode(t.code)->key);
        CHECK(there.size() == sizes[0].pieces.size());
        for (const auto& page : plan.pages) {
            bool something = false;
            for (const auto& line : lines)
                for (std::size_t i = 0; i + 1 < line.size() && !something; ++i)
                    for (double t = 0; t <= 1 && !something; t += 0.02)
                        something = page.area.contains(lerp(line[i], line[i + 1], t), -0.1);
            // A page may also lie wholly inside a piece.
            for (const auto& line : lines)
                something = something || insideOutline(line, page.area.centre());
            CHECK(something);
        }
        // Every point of every outline is on a page.
        for (const auto& line : lines)
            for (const Point q : line)
                CHECK(std::any_of(plan.pages.begin(), plan.pages.end(),
                    [&](const Page& page) { return page.area.contains(q, 0.06); }));
    }
    const ScaleError e = scaleError(sizes[1], 97);
    CHECK(e.on100 == Approx(-3));
    CHECK(e.onSeam == Approx(-0.03 * e.longestSeam));
}

TEST_CASE("Layers: trim full, to the stitch line, inset; patches where the fittings are")
{
    const Pattern p = medium(plain());
    const Piece& front = *p.piece("front");
    const Layer& foam = front.layers.at(0);
    CHECK(foam.material == "foam-sewin");
    CHECK(boundsOf(foam.outline).y1 == Approx(240 - 12)); // short at the top edge
    CHECK(boundsOf(foam.outline).y0 == Approx(0));
    const Layer& fused = p.piece("flap.outer")->layers.at(0);
    CHECK(areaOf(fused.outline) == Approx(areaOf(p.piece("flap.outer")->cut)));
    CHECK(front.layers.at(1).material == "patch-felt");
    CHECK(boundsOf(front.layers.at(1).outline).centre().x == Approx(0).margin(1e-9));
    // Bulk: foam that ends at the stitch line does not count, fusible that reaches into the allowance does.
    CHECK(bulkAt(p, *p.seam("front-gusset")).underFoot == Approx(2 * 0.75));
    CHECK(bulkAt(p, *p.seam("flap.turned")).underFoot == Approx(0.75 + 0.2 + 0.22 + 0.2));
}

TEST_CASE("Gusset in three strips: two sides and a bottom are as long as the panel's run, in all sizes; joins are "
          "marked on the panel")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "gusset.strips", "three");
    for (const auto& p : draftAll(d)) {
        const double side = p.piece("gusset")->edge("front")->length(),
                     bottom = p.piece("gusset.bottom")->edge("bottom")->length();
        double run = 0;
        for (const auto& e : p.piece("front")->edges)
            run += e.name == "top" ? 0 : e.length();
        CHECK(2 * side + bottom == Approx(run).margin(1e-6));
        CHECK(p.seam("gusset-left")->lengthA == Approx(p.values.at("depth")));
        // The join lies on the straight bottom, 25 mm past the corner, and the panel carries its mark there.
        const auto& notches = p.piece("front")->notches;
        CHECK(std::any_of(notches.begin(), notches.end(),
            [&](const Notch& n) { return n.edge == "bottom" && std::abs(n.along - 25) < 0.01; }));
        CHECK(mockupOf(d, p).largestGap < 1);
    }
    // It can be moved; where it meets the corner that is told.
    const auto joins = [&] {
        const auto all = draftAll(d);
        Findings out = checkAll(d, all);
        std::erase_if(out, [](const Finding& f) { return f.check != "join"; });
        return out;
    };
    CHECK(joins().empty());
    assign(d, "gusset.side=220"); // the side is 240 less the corner's reach, the corner's arc follows
    REQUIRE(!joins().empty());
    CHECK_THAT(words(joins().front().text), Catch::Contains("curve"));
    assign(d, "gusset.side=150"); // up the side
    CHECK(joins().empty());
    CHECK(draftAll(d)[1].piece("gusset")->edge("front")->length() == Approx(150));
}

TEST_CASE("A gusset cut long reaches past the mouth and has a step that trims it")
{
    Design d = newDesign("gusseted-satchel");
    const double exact = boundsOf(medium(d).piece("gusset")->cut).width();
    setChoice(d, "gusset.length", "long");
    const Pattern p = medium(d);
    CHECK(boundsOf(p.piece("gusset")->cut).width() == Approx(exact + 50));
    REQUIRE(p.step("gusset.trim") != nullptr);
    CHECK(exactly(textOf(p, "gusset.trim")).find("{25}") != std::string::npos);
    CHECK(std::abs(p.seam("mouth")->difference()) < 0.01); // the stitch line is as it was
    const auto order = orderOf(d, p);
    CHECK(brokenRules(p, order).empty());
}

TEST_CASE("All demos load and are in order")
{
    int found = 0;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(TECTONIS_DATA) + "/demos")) {
        INFO(entry.path().filename().string());
        ++found;
        const Design d = loadDesign(entry.path());
        for (const auto& f : checkAll(d, draftAll(d))) {
            INFO(words(f.subject) << " " << words(f.text));
            CHECK(f.severity == Severity::Note);
        }
    }
    CHECK(found >= 7);
}
