// SPDX-License-Identifier: GPL-3.0-or-later
// Parts that cut faces, cover them or are caught in their seams: on every form that can carry them, and against outside
// values.
#include "drawn.hpp"
#include "geos.hpp"

#include "buildup/layers.hpp"
#include "drafting/cut.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

Polyline fine(const Run& run) { return flattened(run, 0.0005); }

/// What must hold of any pattern: seams agree and end on edges that exist, steps and fittings name what is there, codes
/// are not used twice.
void checkSound(const Design& d)
{
    for (const Pattern& p : draftAll(d)) {
        INFO("size " << p.size);
        for (const auto& s : p.seams) {
            INFO(s.name << ": " << s.lengthA << " / " << s.lengthB);
            CHECK(std::abs(s.difference()) < 0.01);
            for (const auto* side : {&s.a, &s.b})
                for (const auto& use : *side)
                    CHECK(p.runBehind(use) != nullptr);
        }
        CHECK(brokenRules(p, orderOf(d, p)).empty());
        CHECK(mockupOf(d, p).largestGap < 1);
        const auto there = [&](const PieceId& key) { return p.piece(key) != nullptr; };
        std::set<std::string> codes;
        for (const auto& piece : p.pieces)
            CHECK(codes.insert(piece.code).second);
        for (const auto& step : p.steps)
            for (const auto& key : step.pieces)
                CHECK(there(key));
        for (const auto& f : p.fittings)
            CHECK(there(f.piece));
        for (const auto& h : p.handles)
            CHECK(there(h.piece));
        for (const auto& o : p.overlays)
            CHECK((there(o.piece) && there(o.on)));
    }
}

} // namespace

TEST_CASE("Every part in every of its ways on every form: sound in all sizes, or refused in words")
{
    int carried = 0, refused = 0;
    for (const Form* form : forms())
        for (const FeatureKind* kind : featureKinds()) {
            INFO(form->id() << " with " << kind->kind());
            Design base = newDesign(form->id());
            std::string id;
            try {
                id = addFeature(base, kind->kind());
            } catch (const InputError& e) {
                CHECK(std::string(e.what()).size() > 30);
                ++refused;
                continue;
            }
            ++carried;
            checkSound(base);
            for (const auto& choice : kind->choices(*form))
                for (std::size_t i = 1; i < choice.options.size(); ++i) {
                    INFO(choice.name << " = " << choice.options[i].first);
                    Design d = base;
                    try {
                        setChoice(d, id + "." + choice.name, choice.options[i].first);
                    } catch (const InputError& e) {
                        CHECK(std::string(e.what()).size() > 30);
                        CHECK(d == base);
                        continue;
                    }
                    checkSound(d);
                }
        }
    CHECK(carried > 130);
    CHECK(refused < 110);
}

TEST_CASE("Inset zips: the face is H − g for each zip, finished as tall as before; the bag's back is taller by the gap")
{
    for (const int count : {1, 2, 3}) {
        Design d = with("separate-base", {"height=300"});
        addFeature(d, "inset-zip");
        assign(d, "inset.spacing=55");
        assign(d, "inset.count=" + std::to_string(count));
        const Pattern whole = medium(with("separate-base", {"height=300"})), p = medium(d);
        const double gap = 32 - 2 * 10.0; // g = T − 2·s_z, worked by hand
        CHECK(worked(p, "inset.gap") == Approx(gap));
        CHECK(int(p.gaps.size()) == count);
        double cloth = 0;
        for (const auto& piece : p.pieces)
            if (piece.whole == "front")
                cloth += boundsOf(piece.stitch()).height();
        CHECK(cloth == Approx(300 - count * gap));
        // The seams of the wall are as long as those of the wall without zips, and the bag holds as much.
        for (const char* seam : {"side 1", "side 2", "base"})
            CHECK(p.seam(seam)->lengthA == Approx(whole.seam(seam)->lengthA));
        CHECK(mockupOf(d, p).litres == Approx(mockupOf(d, whole).litres).epsilon(1e-9));
        CHECK(p.piece("inset.bag back")->edge("right end")->length() == Approx(gap));
        CHECK(p.piece("inset.bag front")->edge("top")->length() == Approx(p.values.at("inset.width")));
        CHECK(p.zips.size() == whole.zips.size() + std::size_t(count));
    }
}

TEST_CASE("An inset zip in a tapered, round-cornered panel: the gusset still agrees, area lost is the zip's")
{
    Design d = with("gusseted-satchel", {"taper=12"});
    addFeature(d, "inset-zip");
    assign(d, "inset.site=front");
    assign(d, "inset.drop=150");
    const Pattern p = medium(d), whole = medium(with("gusseted-satchel", {"taper=12"}));
    double cloth = 0;
    for (const auto& piece : p.pieces)
        if (piece.whole == "front")
            cloth += areaOf(piece.stitch());
    const double y = p.height - 150, width = p.width - 2 * 12 * y / p.height;
    CHECK(cloth + 12 * width == Approx(areaOf(whole.piece("front")->stitch())));
    CHECK(std::abs(p.seam("front-gusset")->difference()) < 1e-6);
    // The opening is as long as the bag is wide, seam to seam: nothing gapes into the lining. Tabs reach from there
    // into the side seams.
    const auto zip = std::find_if(p.zips.begin(), p.zips.end(), [](const Zip& z) { return z.byTheMetre; });
    REQUIRE(zip != p.zips.end());
    CHECK(zip->nominal == Approx(p.values.at("inset.width")));
    CHECK(zip->nominal == Approx(p.seam("inset.lower")->lengthB));
    CHECK(worked(p, "inset.tab") == Approx((width - p.values.at("inset.width")) / 2 + 12 + 10).margin(1));
}

TEST_CASE("Zips that do not fit between the sides are refused with the reason, and nothing is lost")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "inset-zip");
    const Design before = d;
    CHECK_THROWS_AS(assign(d, "inset.drop=400"), InputError);
    CHECK_THROWS_AS(assign(d, "inset.sewn=20"), InputError); // half the tape less 3 mm at most
    CHECK(d == before);
}

TEST_CASE("Overlays and corner patches cover the same area as GEOS's intersection with the face")
{
    const Geos geos;
    Design d = with("gusseted-satchel", {"taper=10"});
    removeFeature(d, "flap");
    addFeature(d, "overlay");
    addFeature(d, "corner-patch");
    assign(d, "overlay.height=80");
    assign(d, "corner.side=70");
    const Pattern p = medium(d);
    const Polyline face = fine(p.piece("front")->stitch());
    CHECK(areaOf(p.piece("overlay")->stitch())
        == Approx(geos.sharedArea(face, fine(rectangleRun(-500, -10, 500, 80)))).epsilon(1e-5));
    // 70 along the bottom and 70 up the slanting side, from where both would meet without rounding; drawn a little too
    // far outwards.
    const Point corner{150, 0}, up = unit(Point{-10, 240}), low = corner - Point{70, 0};
    const Run square = lineRun(
        {low - up * 5, corner - up * 5 + Point{60, 0}, corner + up * 70 + Point{60, 0}, low + up * 70, low - up * 5});
    const Piece& patch = *p.piece("corner");
    CHECK(areaOf(patch.stitch()) == Approx(geos.sharedArea(face, fine(square))).epsilon(1e-4));
    CHECK(patch.edge("right corner") != nullptr); // its outer edge is the panel's own
    // Rivets: rows on both free sides of two patches, all on the patch, mirrored about the middle.
    std::vector<Point> rivets;
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Rivet)
            rivets.push_back(f.at);
    REQUIRE(rivets.size() == 10);
    for (const Point r : rivets) {
        CHECK(insideOutline(face, r));
        CHECK(std::any_of(rivets.begin(), rivets.end(), [&](Point q) { return distance({-q.x, q.y}, r) < 1e-6; }));
    }
    CHECK(worked(p, "corner.count") == 10); // three in a row, the corner shared, two patches
    // Post: what it goes through, foam compressed, plus 2.5 mm, and the next length sold (common practice, no source).
    const auto foot = [](const char* id) { return material(id).underFoot(); };
    double through = foot(d.materials.at("shell").c_str())
        + 2 * foot(d.materials.at("overlay").c_str()); // face, second layer, patch
    for (const auto& rule : d.layers)
        through += rule.pieces == "panel" || rule.pieces == "patch" || rule.pieces == "overlay"
            ? foot(rule.material.c_str())
            : 0;
    CHECK(worked(p, "corner.post") == Approx(through + 2.5));
    CHECK(worked(p, "corner.post") < thicknessOf(p, *p.piece("front")) + 2.5); // foam as it lies would make it too long
    const double sold = worked(p, "corner.stock");
    CHECK(sold >= worked(p, "corner.post"));
    CHECK(sold - worked(p, "corner.post") <= 2);
    CHECK(std::any_of(p.hardware.begin(), p.hardware.end(), [&](const Hardware& h) {
        return h.kind == Ware::Rivet
            && exactly(h.sizeText).find("{" + formatNumber(sold, 3) + "} post") != std::string::npos;
    }));
}

TEST_CASE("A corner cut aslant is an isosceles triangle where the face is square")
{
    Design d = newDesign("separate-base");
    addFeature(d, "brace");
    assign(d, "brace.side=60");
    const Pattern p = medium(d);
    const Piece& tri = *p.piece("brace");
    const Piece& back = *p.piece("back");
    // The wall reaches round the corner of the base: the triangle follows the face's corner line down to the wall's own
    // edge.
    CHECK(tri.edge("slant")->length() > 60);
    CHECK(tri.count == 4);
    CHECK(tri.mirrored == 2);
    bool trapped = false;
    for (const auto& s : p.seams)
        trapped |= std::find(s.trapped.begin(), s.trapped.end(), "brace") != s.trapped.end();
    CHECK(trapped);
    CHECK(containsOutline(fine(back.stitch()), fine(tri.stitch())));
    Piece square;
    square.edges = {{"bottom", lineRun({{-100, 0}, {100, 0}}), 0, {}},
        {"right", lineRun({{100, 0}, {100, 150}}), 0, {}}, {"top", lineRun({{100, 150}, {-100, 150}}), 0, {}},
        {"left", lineRun({{-100, 150}, {-100, 0}}), 0, {}}};
    const Site site{"front", say("Front"), {"front"}, 0, 150, 200, 150, "", false};
    Piece corner;
    corner.edges = cornerOf(square, site, true, 60, true);
    REQUIRE(corner.edges.size() == 3);
    CHECK(corner.edge("slant")->length() == Approx(60 * std::sqrt(2.0)));
    CHECK(areaOf(corner.stitch()) == Approx(60 * 60 / 2.0));
    CHECK(cornerOf(square, site, false, 60, true).back().length() == Approx(60 * std::sqrt(2.0)));
}

TEST_CASE("Piping goes once round the seams of its face: the U-run, pi·cord and two allowances wide; it lies in the "
          "bulk of those seams")
{
    Design d = with("gusseted-satchel", {"taper=0", "radius=40", "width=300", "height=240"});
    addFeature(d, "piping");
    assign(d, "piping.cord=5");
    const Pattern p = medium(d);
    const double run = 2 * (240 - 40) + pi * 40 + (300 - 80); // 2(h − r) + π·r + (w − 2r)
    CHECK(p.seam("piping.in")->lengthA == Approx(run));
    CHECK(p.seam("piping.in")->lengthB == Approx(run));
    CHECK(worked(p, "piping.cut") == Approx(pi * 5 + 2 * 10));
    CHECK(worked(p, "piping.length") == Approx(run + 2 * 20));
    CHECK(p.seam("front-gusset")->trapped == std::vector<PieceId>{PartId("piping")});
    // A zip across the face does not shorten it.
    addFeature(d, "inset-zip");
    CHECK(medium(d).seam("piping.in")->lengthA == Approx(run));
}

TEST_CASE("Binding: four times its width, once along the edges; a bound mouth loses its allowance and needs a lining "
          "dropped in")
{
    Design d = newDesign("separate-base");
    addFeature(d, "binding");
    CHECK_THROWS_WITH(setChoice(d, "binding.covers", "mouth"), Contains("dropped in"));
    setChoice(d, "assembly", "drop-in");
    setChoice(d, "binding.covers", "mouth");
    const Pattern p = medium(d);
    CHECK(worked(p, "binding.cut") == Approx(40));
    CHECK(worked(p, "binding.length") == Approx(p.seam("mouth")->lengthA + 20));
    for (const auto& use : p.seam("mouth")->a)
        CHECK(p.piece(use.piece)->edge(use.edge)->allowance == 0);
    CHECK_THROWS_AS(setChoice(d, "assembly", "bagged-out"), InputError); // as long as the mouth is bound
    const auto order = orderOf(d, p);
    std::size_t mouth = 0, bind = 0;
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (p.steps[order[i]].id == "mouth")
            mouth = i;
        if (p.steps[order[i]].id == "binding.on")
            bind = i;
    }
    CHECK(mouth < bind);
}

TEST_CASE("A zip on bands: both bands and the gap make the mouth's depth; too narrow a mouth is refused in words")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "top-zip");
    const Pattern p = medium(d);
    const double depth = p.values.at("mouth.depth");
    CHECK(2 * p.piece("topzip.band")->edge("left")->length() + 12 == Approx(depth));
    CHECK(p.piece("topzip.band")->edge("hinge")->length() == Approx(p.values.at("face.width") - 2 * 19));
    CHECK(p.seam("topzip.caught front")->lengthA == Approx(p.piece("topzip.band")->edge("hinge")->length()));
    const Design before = d;
    CHECK_THROWS_WITH(assign(d, "depth=33"), Contains("narrow"));
    CHECK(d == before);
    setChoice(d, "topzip.held", "mouth");
    assign(d, "depth=33");
    CHECK(worked(medium(d), "topzip.pull") == Approx(33 - 12));
}

TEST_CASE("Zip at the mouth: what is drawn, told and cut adds up to the mouth, on every form and in every size")
{
    // Tape = mouth − 38 (19 at each end), tabs make up the rest; a tail reaches 50 past the mouth: common practice of
    // the trade, no source.
    int mouths = 0;
    for (const Form* form : forms())
        for (const char* held : {"bands", "mouth"})
            for (const double past : {50.0, 0.0}) {
                Design d = newDesign(form->id());
                try {
                    addFeature(d, "top-zip");
                    setChoice(d, "topzip.held", held);
                    assign(d, "topzip.past=" + formatNumber(past));
                } catch (const InputError&) {
                    continue;
                }
                for (const Pattern& p : draftAll(d)) {
                    INFO(form->id() << ", " << held << ", tail " << past << ", size " << p.size);
                    ++mouths;
                    const auto zip = std::find_if(
                        p.zips.begin(), p.zips.end(), [](const Zip& z) { return z.name == "Zip at the mouth"; });
                    REQUIRE(zip != p.zips.end());
                    const bool bands = std::string(held) == "bands";
                    const double opening = p.values.at("face.width") - 38, seam = worked(p, "topzip.from seam");
                    CHECK(zip->nominal == Approx(opening));
                    CHECK(zip->tape == Approx(past > 0 ? opening + seam + 50 : opening));
                    const Piece& tab = *p.piece("topzip.tab");
                    const double unfolded = boundsOf(tab.stitch()).height();
                    if (bands) {
                        CHECK(p.piece("topzip.band")->edge("zip")->length() == Approx(opening));
                        CHECK(unfolded == Approx(24));
                        CHECK(tab.count == 2);
                    } else {
                        const auto drawn = std::find_if(p.fittings.begin(), p.fittings.end(),
                            [](const Fitting& f) { return f.key == "topzip.zip"; });
                        REQUIRE(drawn != p.fittings.end());
                        CHECK(drawn->size == Approx(opening));
                        CHECK(opening + 2 * (unfolded / 2 - 12) == Approx(opening + 2 * seam));
                        CHECK(tab.count == (past > 0 ? 1 : 2));
                        CHECK((p.piece("topzip.tab.tail") != nullptr) == (past > 0));
                    }
                    // The run from side seam to side seam, measured on the drafted pieces.
                    double run = 0;
                    const Site* front = p.site(bands ? "lining front" : "front"); // a pocket of the form may cover it
                    if (bands)
                        for (const EdgeId& edge :
                            {EdgeId("left of topzip"), EdgeId(PartId("topzip")), EdgeId("right of topzip")})
                            run += p.piece(p.seam("topzip.hinge front")->b.front().piece)->edge(edge)->length();
                    else if (const Piece* face = front ? p.piece(front->pieces.back()) : p.piece("front");
                             face && face->edge("top"))
                        run = face->edge("top")->length();
                    if (run > 0)
                        CHECK(run == Approx(opening + 2 * seam));
                }
            }
    CHECK(mouths > 40);
}

TEST_CASE("Bands and facings: upper and lower part together are the face, in the band's own cloth")
{
    for (const auto& [form, face] :
        {std::pair{"boxed-corner", "front"}, {"gusseted-satchel", "lining front"}, {"cylinder", "front"}}) {
        INFO(form << ", " << face);
        Design d = newDesign(form);
        addFeature(d, "band");
        setChoice(d, "band.site", face);
        setChoice(d, "band.cloth", "overlay");
        assign(d, "band.height=45");
        const Pattern p = medium(d), whole = medium(newDesign(form));
        const Site& site = *p.site(face);
        REQUIRE(site.pieces.size() == 2);
        const Piece &upper = *p.piece(site.pieces[0]), &lower = *p.piece(site.pieces[1]);
        CHECK(areaOf(upper.stitch()) + areaOf(lower.stitch()) == Approx(areaOf(whole.piece(upper.whole)->stitch())));
        CHECK(upper.material == "overlay");
        CHECK(boundsOf(upper.stitch()).y0 == Approx(site.top - 45));
        CHECK(p.materials.at("overlay") == "waxed-canvas");
    }
}

TEST_CASE("A flap with raw edges is cut at its finished edge and painted, not turned")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "flap.edge", "raw");
    const Pattern p = medium(d);
    const Piece& flap = *p.piece("flap.outer");
    for (const auto& e : flap.edges)
        CHECK(e.allowance == (e.name == "hinge" ? 10 : 0));
    CHECK(p.step("flap.turn")->title == "Paint the flap's edges");
    CHECK(!told(p, *p.step("flap.turn")).cautions.empty());
}

TEST_CASE("An elastic pocket is fuller by twice the thing's thickness; the elastic is shorter than its place")
{
    Design d = newDesign("boxed-corner");
    addFeature(d, "patch-pocket");
    setChoice(d, "patch.body", "elastic");
    assign(d, "patch.width=120");
    assign(d, "patch.depth=20");
    const Pattern p = medium(d);
    CHECK(p.piece("patch")->edge("bottom")->length() == Approx(120 + 2 * 20)); // front = back + 2t
    CHECK(worked(p, "patch.elastic") == Approx(0.9 * 120 + 2 * 12));
    CHECK(p.seam("patch.on")->ease == Approx(-40));
    CHECK(std::any_of(p.hardware.begin(), p.hardware.end(), [](const Hardware& h) { return h.kind == Ware::Elastic; }));
}

TEST_CASE("Parts move sideways with all that is theirs")
{
    for (const auto& [kind, id] : {std::pair{"slip-pocket", "slip2"}, {"patch-pocket", "patch"}, {"label", "label"}}) {
        INFO(kind);
        Design d = newDesign("separate-base");
        const std::string feature = addFeature(d, kind);
        CHECK(feature == id);
        assign(d, feature + ".width=60");
        const auto placeOf = [&](const Pattern& p) {
            for (const auto& o : p.overlays)
                if (o.piece == feature)
                    return o.placement;
            FAIL("not laid");
            return Placement{};
        };
        const Placement before = placeOf(medium(d));
        assign(d, feature + ".across=25");
        const Pattern p = medium(d);
        CHECK(placeOf(p).dx == Approx(before.dx + 25));
        CHECK(std::abs(p.seam(feature + ".on")->difference()) < 1e-6);
        CHECK_THROWS_AS(assign(d, feature + ".across=5000"), InputError);
    }
}

TEST_CASE("A second flap hangs where there is room for it")
{
    Design d = newDesign("gusseted-satchel");
    const std::string second = addFeature(d, "flap");
    CHECK(d.choices.at(second + ".site") == "front");
    checkSound(d);
}

TEST_CASE("Curved, narrowing satchels: sides keep their bow, the gusset its length, and all folds without stretch")
{
    Design d = with("gusseted-satchel", {"height=300", "radius=50", "taper=10", "bow=12"});
    const Pattern bowed = medium(d);
    // The side's middle lies as far outside its chord as was asked.
    const Run side = bowed.piece("front")->edge("right side")->stitch;
    const Point a = startOf(side), b = endOf(side), middle = pointAlong(side, lengthOf(side) / 2);
    CHECK(std::abs(cross(unit(b - a), middle - a)) == Approx(12).epsilon(1e-3));
    CHECK(middle.x > (a.x + b.x) / 2);
    // It leaves the corner without a kink: tangents agree.
    const Run corner = bowed.piece("front")->edge("right corner")->stitch;
    CHECK(distance(tangentAlong(corner, lengthOf(corner)), tangentAlong(side, 0)) < 1e-6);
    // Narrowing to what a zip shows: the strip's ends are that wide, its slanted edges as long as the panel's beside
    // them.
    assign(d, "depth=110");
    assign(d, "depth.mouth=12");
    for (const char* strips : {"one", "two", "three"})
        for (const char* fit : {"wider-seam", "smaller", "same"}) {
            INFO(strips << ", lining " << fit);
            setChoice(d, "gusset.strips", strips);
            setChoice(d, "lining.fit", fit);
            const Pattern p = medium(d);
            CHECK(p.piece("gusset")->edge("left mouth")->length() == Approx(12));
            CHECK(p.piece("gusset")->edge("front left ease")->length()
                == Approx(p.piece("front")->edge("left ease")->length()));
            const Mockup m = mockupOf(d, p);
            CHECK(m.largestGap < 0.1);
            CHECK(m.liningLitres < m.litres * 1.001);
            checkSound(d);
        }
    // A zip and a band across the narrowing part change none of that.
    addFeature(d, "inset-zip");
    CHECK(mediumMockup(d).largestGap < 0.1);
    // Volume against a hand-worked prism: straight sides, square base, wedge above.
    Design wedge = with("gusseted-satchel",
        {"width=200", "height=200", "depth=100", "radius=4", "taper=0", "narrow.from=100", "depth.mouth=20"});
    removeFeature(wedge, "flap");
    const Mockup m = mediumMockup(wedge);
    const double drop = std::sqrt(100.0 * 100 - 40 * 40); // the panel leans in by (100 − 20)/2 over 100 of its height
    CHECK(m.litres == Approx((200 * 100 * 100 + 200 * drop * (100 + 20) / 2) / 1e6).epsilon(1e-3));
}

TEST_CASE("A part is moved to another face with its pieces and marks; drops and shifts stay in their ranges")
{
    Design d = newDesign("separate-base");
    const std::string id = addFeature(d, "patch-pocket");
    const Pattern before = medium(d);
    REQUIRE(!before.places.empty());
    const Site& back = *before.site("back");
    moveFeature(d, before, id, "back", {back.x + 20, back.top - 90});
    const Pattern p = medium(d);
    CHECK(d.choices.at(id + ".site") == "back");
    CHECK(p.values.at(id + ".drop") == Approx(90));
    CHECK(p.values.at(id + ".across") == Approx(20));
    CHECK(std::any_of(
        p.overlays.begin(), p.overlays.end(), [&](const Overlay& o) { return o.piece == id && o.on == "back"; }));
    checkSound(d);
    // Far out: it stops at the range's end and is still sound.
    moveFeature(d, p, id, "front", {9000, 9000});
    CHECK(medium(d).values.at(id + ".drop") == Approx(15));
    checkSound(d);
    const Design same = d;
    CHECK_THROWS_AS(moveFeature(d, p, id, "lid", {0, 0}), InputError);
    CHECK_THROWS_AS(moveFeature(d, p, "connectors", "front", {0, 0}), InputError);
    CHECK(d == same);
    const Pattern after = medium(d);
    CHECK(after.piece(id)->owner() == id);
    CHECK(after.piece("front")->owner().empty());
}
