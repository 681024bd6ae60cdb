// SPDX-License-Identifier: GPL-3.0-or-later
// Parts on the gusset's sides: where they lie on the strip, which way they look in the finished bag, what the strip is
// cut from; webbing and rings in sides that are called by their numbers.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"
#include "sewable.hpp"
#include "space.hpp"

#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "drafting/turned.hpp"
#include "editing/edits.hpp"
#include "figures/plan.hpp"
#include "mockup/mockup.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

Design bare(const std::string& strips)
{
    Design d = newDesign("gusseted-satchel");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    assign(d, "depth=110");
    setChoice(d, "gusset.strips", strips);
    return d;
}

const Site& siteOf(const Pattern& p, const char* name)
{
    const Site* site = p.site(SiteId(name));
    REQUIRE(site);
    return *site;
}

Polyline closed(const Run& run) { return flattened(run, 0.01); }

} // namespace

TEST_CASE("Side walls: each small part sits on each side of each kind of gusset, is sewn and stays within it")
{
    const Geos geos;
    for (const char* strips : {"one", "two", "three"})
        for (const char* kind : {"label", "patch-pocket", "slip-pocket", "zip-pocket"})
            for (const char* site : {"left", "right", "lining left", "lining right"})
                for (const char* more : {"", "lining.fit=same", "gusset.length=long", "depth.mouth=90"}) {
                    if (kind == std::string("zip-pocket") && *more == 'd')
                        continue; // its shortest zip is 100 mm long
                    Design d = bare(strips);
                    INFO(strips << " " << kind << " on " << site << " " << more);
                    if (*more)
                        assign(d, more);
                    if (kind == std::string("zip-pocket"))
                        assign(d, "depth=190");
                    const std::string id = addFeature(d, kind);
                    setChoice(d, id + ".site", site);
                    requireSewable(d);
                    for (const auto& p : draftAll(d)) {
                        for (const auto& seam : p.seams)
                            CHECK(std::abs(seam.difference()) < 0.01);
                        const Site& face = siteOf(p, site);
                        REQUIRE(face.pieces.size() == 1);
                        const Piece& strip = *p.piece(face.pieces.front());
                        CHECK(strip.count == 1);
                        const auto place = std::find_if(
                            p.places.begin(), p.places.end(), [&](const Place& each) { return each.feature == id; });
                        REQUIRE(place != p.places.end());
                        CHECK(place->piece == strip.key);
                        const Box b = place->area;
                        CHECK(geos.covers(
                            closed(strip.stitch()), {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, 0.01));
                        // Measured on the strip, from the mouth's own edge, along its length.
                        const bool end = strips == std::string("one") && face.turn == 1;
                        const double mouth = boundsOf(strip.edge(end ? "right mouth" : "left mouth")->stitch).x0;
                        CHECK((end ? mouth - b.x1 : b.x0 - mouth) == Approx(p.values.at(id + ".drop")));
                        CHECK(std::abs(b.centre().y - p.values.at("depth") / 2)
                            == Approx(std::abs(p.values.at(id + ".across"))).margin(0.01));
                    }
                    const Mockup m = mediumMockup(d);
                    CHECK(m.largestGap < 0.5);
                    // As much as the plain box holds, but for its round corners.
                    const Pattern p = medium(d);
                    CHECK(m.litres == Approx(p.width * p.height * p.depth / 1e6).epsilon(0.12));
                }
}

TEST_CASE("Side walls: to the right is to the right for who looks at the finished side, outside and inside")
{
    for (const char* strips : {"one", "two", "three"})
        for (const bool lining : {false, true})
            for (const bool right : {false, true}) {
                Design d = bare(strips);
                const std::string id = addFeature(d, "label");
                setChoice(d, id + ".site", std::string(lining ? "lining " : "") + (right ? "right" : "left"));
                INFO(strips << (lining ? " lining " : " ") << (right ? "right" : "left"));
                assign(d, id + ".across=0");
                const Mockup straight = mediumMockup(d);
                assign(d, id + ".across=15");
                const Mockup moved = mediumMockup(d);
                const PieceId piece{PartId(id)};
                const Vec3 from = middleOf(straight, piece), to = middleOf(moved, piece);
                // The bag's right is where x grows, its front where z does. Who looks at the left side from outside
                // has the front on the right; who looks at it from inside, the back.
                CHECK((right ? from.x : -from.x) > 100);
                CHECK(to.z - from.z == Approx((right == lining ? 1 : -1) * 15.0).margin(0.5));
                CHECK(to.y == Approx(from.y).margin(0.5));
            }
}

TEST_CASE("Side walls: two sides that differ are two pieces, of the area and the seams that the pair had")
{
    for (const char* strips : {"two", "three"}) {
        Design d = bare(strips);
        const Pattern pair = medium(d);
        CHECK(pair.piece("gusset")->count == 2);
        CHECK(pair.piece("gusset")->mirrored == 1);
        CHECK_FALSE(pair.piece("gusset.right"));
        const std::string id = addFeature(d, "label");
        setChoice(d, id + ".site", "right");
        const Pattern p = medium(d);
        REQUIRE(p.piece("gusset.right"));
        for (const char* half : {"gusset", "gusset.right"}) {
            CHECK(p.piece(half)->count == 1);
            CHECK(areaOf(p.piece(half)->cut) == Approx(areaOf(pair.piece("gusset")->cut)));
        }
        CHECK(p.piece("gusset.right")->code != p.piece("gusset")->code);
        for (const auto& seam : pair.seams) {
            INFO(seam.key.text());
            const Seam* same = p.seam(seam.key);
            REQUIRE(same);
            CHECK(same->lengthA == Approx(seam.lengthA));
            CHECK(same->lengthB == Approx(seam.lengthB));
        }
        // Both have the layers of their role.
        CHECK(p.piece("gusset.right")->layers.size() == p.piece("gusset")->layers.size());
        setChoice(d, id + ".site", "back");
        CHECK(medium(d).pieces.size() == pair.pieces.size() + 1); // the label
    }
}

TEST_CASE("Side walls: layers that were chosen for the pair stay behind both sides when they come apart")
{
    Design d = bare("two");
    edit(d, [](Design& next) {
        next.layers.push_back({"lining.gusset", "stabiliser-firm", "basted", "stitch", {}, ""});
    });
    const auto behind = [](const Pattern& p, const char* piece) {
        std::vector<std::string> out;
        for (const auto& layer : p.piece(piece)->layers)
            out.push_back(layer.material.text());
        return out;
    };
    const auto pair = behind(medium(d), "lining.gusset");
    CHECK(pair == std::vector<std::string>{"stabiliser-firm"});
    const std::string id = addFeature(d, "label");
    setChoice(d, id + ".site", "right");
    const Pattern p = medium(d);
    CHECK(behind(p, "lining.gusset") == pair);
    CHECK(behind(p, "lining.gusset.right") == pair);
    // One side's own layers are its own.
    edit(d, [](Design& next) {
        next.layers.push_back({"lining.gusset.right", "fleece-fusible", "fused", "stitch", {}, ""});
    });
    CHECK(behind(medium(d), "lining.gusset") == pair);
    CHECK(behind(medium(d), "lining.gusset.right") == std::vector<std::string>{"fleece-fusible"});
}

TEST_CASE("Side walls: connectors riveted onto both of them, one in the middle of each; a strap finds its rings there")
{
    for (const char* strips : {"one", "two", "three"}) {
        Design d = bare(strips);
        addFeature(d, "strap");
        setChoice(d, "connectors.held", "walls");
        INFO(strips);
        requireSewable(d);
        for (const auto& p : draftAll(d)) {
            int rings = 0, rivets = 0;
            for (const auto& f : p.fittings) {
                rings += f.kind == Fitting::Kind::Ring, rivets += f.kind == Fitting::Kind::Rivet;
                if (f.kind == Fitting::Kind::Ring || f.kind == Fitting::Kind::Rivet)
                    CHECK(f.at.y == Approx(p.values.at("depth") / 2));
            }
            CHECK(rings == 2);
            CHECK(rivets == 4);
            CHECK(boughtOf(p, Ware::Rivet) == 4);
        }
        CHECK(found(d, "whole").empty());
        const Mockup m = mediumMockup(d);
        REQUIRE(m.rings.size() == 2);
        CHECK(m.rings[0].at.x * m.rings[1].at.x < 0);
        CHECK(std::abs(m.rings[0].at.x) == Approx(std::abs(m.rings[1].at.x)));
        // A label moved over a tab is told, and so is one in the lining over the rivets' backs never: other cloth.
        const std::string label = addFeature(d, "label");
        setChoice(d, label + ".site", "left");
        assign(d, label + ".drop=40");
        CHECK_FALSE(found(d, "collision").empty());
    }
}

TEST_CASE("Turned pieces: four quarters, or one and back, leave everything where it was; mirrored twice as well")
{
    Design d = bare("one");
    const std::string id = addFeature(d, "patch-pocket");
    setChoice(d, id + ".site", "left");
    const Pattern was = medium(d);
    const auto same = [&](const Pattern& p) {
        const Piece &a = *was.piece("gusset"), &b = *p.piece("gusset");
        CHECK(a.grain == Approx(b.grain));
        for (std::size_t i = 0; i < a.edges.size(); ++i) {
            CHECK(a.edges[i].name == b.edges[i].name);
            CHECK(distance(startOf(a.edges[i].stitch), startOf(b.edges[i].stitch)) < 1e-9);
            CHECK(a.edges[i].allowance == Approx(b.edges[i].allowance));
        }
        for (std::size_t i = 0; i < was.fittings.size(); ++i)
            CHECK(distance(was.fittings[i].at, p.fittings[i].at) < 1e-9);
        CHECK(distance(was.overlays.front().placement({7, 5}), p.overlays.front().placement({7, 5})) < 1e-9);
    };
    Pattern p = was;
    turnPiece(p, "gusset", 1);
    CHECK(p.piece("gusset")->grain != Approx(was.piece("gusset")->grain));
    CHECK(distance(quarterTurned(was.overlays.front().placement({7, 5}), 1), p.overlays.front().placement({7, 5}))
        < 1e-9);
    turnPiece(p, "gusset", 3);
    same(p);
    p.overlays = was.overlays; // nothing lies on it yet when it is mirrored
    mirrorPiece(p, "gusset", 40);
    CHECK(areaOf(p.piece("gusset")->stitch()) == Approx(areaOf(was.piece("gusset")->stitch()))); // still anticlockwise
    mirrorPiece(p, "gusset", 40);
    same(p);
}

TEST_CASE("Numbered sides: belt and rings are caught in the middle of the named side, on every polygon, by hand")
{
    for (int n = 5; n <= 8; ++n)
        for (const char* face : {"front", "back"})
            for (const char* part : {"belt", "connectors"}) {
                Design d = newDesign("polygon");
                while (!d.features.empty())
                    removeFeature(d, d.features.back().id);
                assign(d, fmt::format("sides={}", n));
                assign(d, "zip.length=140");
                const std::string id = addFeature(d, part);
                setChoice(d, id + ".site", face);
                setChoice(d, id + ".held", "numbered");
                INFO(n << " sides, " << part << " on the " << face);
                for (int right = 2; right <= 3; ++right) {
                    assign(d, fmt::format("{}.right.side={}", id, right));
                    requireSewable(d);
                    for (const auto& p : draftAll(d)) {
                        // Of a regular polygon: side k's middle lies at the apothem, turned on by 360°/n for each side
                        // from the lowest (Euclid: the sides of a regular polygon are seen from its middle alike).
                        const Box box = boundsOf(p.piece(face)->stitch());
                        const double side = p.values.at("side"), apothem = side / (2 * std::tan(pi / n));
                        const Point middle{box.centre().x, box.y0 + apothem};
                        const auto at = [&](int k) {
                            const double turn = -pi / 2 + 2 * pi * (k - 1) / n;
                            const Point q = polar(turn) * apothem;
                            return middle + Point{face == std::string("back") ? -q.x : q.x, q.y};
                        };
                        std::vector<Point> held;
                        for (const auto& f : p.fittings)
                            if (f.kind == Fitting::Kind::Ring)
                                held.push_back(f.at);
                        for (const auto& h : p.hung)
                            if (h.round)
                                held = {h.from, h.to};
                        REQUIRE(held.size() == 2);
                        CHECK(distance(held[0], at(n)) < 0.01);
                        CHECK(distance(held[1], at(right)) < 0.01);
                    }
                    CHECK(found(d, "whole").empty());
                }
                if (part != std::string("connectors"))
                    continue;
                // Up the slanting sides, on both alike.
                assign(d, id + ".right.side=2");
                const auto rings = [&] {
                    std::vector<Point> out;
                    for (const auto& f : medium(d).fittings)
                        if (f.kind == Fitting::Kind::Ring)
                            out.push_back(f.at);
                    return out;
                };
                const auto low = rings();
                assign(d, id + ".along=12");
                const auto high = rings();
                for (std::size_t i = 0; i < 2; ++i) {
                    CHECK(distance(low[i], high[i]) == Approx(12));
                    CHECK(high[i].y > low[i].y);
                }
                CHECK(high[0].y == Approx(high[1].y));
            }
}

TEST_CASE(
    "Numbered sides: both ends of a belt in one side are refused in words; a number past the last is out of range")
{
    Design d = newDesign("polygon");
    const std::string id = addFeature(d, "belt");
    setChoice(d, id + ".held", "numbered");
    const Design before = d;
    CHECK_THROWS_WITH(assign(d, id + ".right.side=6"), Contains("one spot"));
    CHECK_THROWS_AS(assign(d, id + ".right.side=7"), InputError);
    CHECK(d == before);
    // Forms without such sides do not offer it.
    Design tote = newDesign("large-tote");
    const std::string belt = addFeature(tote, "belt");
    CHECK_THROWS_AS(setChoice(tote, belt + ".held", "numbered"), InputError);
}

TEST_CASE("Envelope: parts on front, back, flap and in the lining lie where and as they are seen on the closed clutch")
{
    const Geos geos;
    // Of each face: is it before the middle, and does who looks at it have the bag's right on his right?
    const std::tuple<const char*, bool, bool> faces[] = {{"front", true, true}, {"back", false, false},
        {"flap", true, true}, {"lining front", true, false}, {"lining back", false, true}};
    for (const auto& [face, before, straight] : faces)
        for (const char* kind : {"label", "patch-pocket", "slip-pocket"}) {
            Design d = newDesign("envelope-clutch");
            while (!d.features.empty())
                removeFeature(d, d.features.back().id);
            INFO(kind << " on " << face);
            const std::string id = addFeature(d, kind);
            setChoice(d, id + ".site", face);
            assign(d, id + ".across=0");
            requireSewable(d);
            for (const auto& p : draftAll(d)) {
                const Place& place = p.places.front();
                const Piece& body = *p.piece(place.piece);
                const Box b = place.area;
                CHECK(
                    geos.covers(closed(body.stitch()), {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, 0.01));
                // By hand: the front's mouth is the piece's lower edge, the back's top and the flap's are its folds.
                const double drop = p.values.at(id + ".drop"), loss = p.values.at("thing.thickness") / 2,
                             back = 2 * p.values.at("height") + loss;
                if (face == std::string("front") || face == std::string("lining front"))
                    CHECK(b.y0 == Approx(drop));
                else if (face == std::string("back"))
                    CHECK(back - b.y1 == Approx(drop));
                else if (face == std::string("flap"))
                    CHECK(b.y0 - back - loss / 2 == Approx(drop));
            }
            CHECK(mediumMockup(d).largestGap < 0.5);
            // The figure shows the piece as that face stands: front and flap turned round, the back as it was drawn,
            // low down on it as well.
            if (face == std::string("back"))
                assign(d, id + ".drop=55");
            const Pattern drawn = medium(d);
            for (const auto& step : drawn.steps)
                if (step.id.owner() == PartId(id)
                    && std::find(step.pieces.begin(), step.pieces.end(), drawn.places.front().piece)
                        != step.pieces.end()) {
                    const Box b = boundsOf(planOf(drawn, step));
                    CHECK((b.centre().y > 0) == (std::string(face).ends_with("back")));
                }
            const PieceId piece{PartId(id)};
            const Vec3 was = middleOf(mediumMockup(d), piece);
            assign(d, id + ".across=9");
            const Vec3 now = middleOf(mediumMockup(d), piece);
            if (!std::string(face).starts_with("lining")) // those lie a tenth of a millimetre from the middle
                CHECK((was.z > 0) == before);
            CHECK(now.x - was.x == Approx(straight ? 9 : -9).margin(0.3));
            // Further down is further down.
            const double drop = medium(d).values.at(id + ".drop");
            assign(d, fmt::format("{}.drop={}", id, drop + 5));
            CHECK(middleOf(mediumMockup(d), piece).y - now.y == Approx(-5).margin(0.3));
        }
}

TEST_CASE("Zip-around: parts on the band's straight sides, one band or three, level with what they were drafted at")
{
    const Geos geos;
    for (const char* bands : {"one", "three"})
        for (const char* shift : {"0", "25", "-25"})
            for (const char* site : {"left", "right", "lining left", "lining right"}) {
                Design d = with("zip-around", {"height=260", "zip.length=300", "depth=90"});
                setChoice(d, "bands", bands);
                assign(d, std::string("zip.shift=") + shift);
                if (bands == std::string("three"))
                    assign(d, "side.right=260"), assign(d, "side.left=260");
                INFO(bands << " bands, shifted by " << shift << ", " << site);
                const std::string id = addFeature(d, "label");
                setChoice(d, id + ".site", site);
                assign(d, id + ".across=0");
                requireSewable(d);
                for (const auto& p : draftAll(d)) {
                    const Place& place = *std::find_if(
                        p.places.begin(), p.places.end(), [&](const Place& q) { return q.feature == id; });
                    const Box b = place.area;
                    CHECK(geos.covers(closed(p.piece(place.piece)->stitch()),
                        {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, 0.01));
                }
                const Mockup m = mediumMockup(d);
                CHECK(m.largestGap < 0.5);
                const Pattern p = medium(d);
                const Vec3 at = middleOf(m, PieceId(PartId(id)));
                const bool right = std::string(site).ends_with("right");
                CHECK((right ? at.x : -at.x) == Approx(p.width / 2).epsilon(0.05));
                // Straight sides begin where the top's round corners end, or the zip panel.
                const double half = p.values.at("zip.length") / 2 + (right ? 1 : -1) * std::stod(shift),
                             corner = p.width / 2 + (pi / 2 - 1) * p.values.at("radius"),
                             top = p.height - p.values.at("radius") - std::max(0.0, half - corner);
                CHECK(at.y == Approx(top - p.values.at(id + ".drop") - p.values.at(id + ".height") / 2).margin(1));
                assign(d, id + ".across=8");
                const bool lining = std::string(site).starts_with("lining");
                CHECK(middleOf(mediumMockup(d), PieceId(PartId(id))).z - at.z
                    == Approx((right == lining ? 1 : -1) * 8).margin(0.3));
            }
}

TEST_CASE("Side walls: figures show the strip stood up, with the tab or the pocket where the maker lays it")
{
    for (const char* strips : {"one", "two", "three"}) {
        Design d = bare(strips);
        addFeature(d, "strap");
        setChoice(d, "connectors.held", "walls");
        const std::string pocket = addFeature(d, "patch-pocket");
        setChoice(d, pocket + ".site", "right");
        assign(d, pocket + ".drop=90");
        const Pattern p = medium(d);
        const auto surfaces = [&](const Step& step) {
            std::vector<Box> out;
            for (const auto& item : planOf(p, step).items)
                if (const auto* surface = std::get_if<Surface>(&item); surface && surface->skin != Skin::Metal) {
                    out.emplace_back();
                    for (const Point q : surface->outline)
                        out.back().add(q);
                }
            return out;
        };
        for (const char* id : {"connectors.on left", "connectors.on right"}) {
            INFO(strips << " " << id);
            const auto drawn = surfaces(*p.step(id));
            REQUIRE(drawn.size() >= 2); // the strip, what lies on it, one tab
            const Box& strip = drawn.front();
            CHECK(strip.height() > 1.5 * strip.width());
            const auto isTab = [&](const Box& each) { // 15 mm below the top: down less the loop
                return each.height() > each.width() && std::abs(each.centre().x - strip.centre().x) < 0.01
                    && each.y1 < strip.y1 && each.y1 > strip.y1 - 30 && each.y0 > strip.y1 - 90;
            };
            CHECK(std::count_if(drawn.begin(), drawn.end(), isTab) == 1);
            CHECK_THAT(words(textOf(p, id)), Contains("Lay one connector"));
        }
        for (const auto& step : p.steps)
            if (step.id.owner() == PartId(pocket)
                && std::find(step.pieces.begin(), step.pieces.end(), siteOf(p, "right").pieces.front())
                    != step.pieces.end()) {
                const auto drawn = surfaces(step);
                REQUIRE(drawn.size() >= 2);
                CHECK(drawn.front().height() > 1.5 * drawn.front().width());
            }
    }
}
