// SPDX-License-Identifier: GPL-3.0-or-later
// Checks that look through the whole stack, at all parts: each at its threshold, and the designs over which "No snags"
// once stood.
#include "drawn.hpp"
#include "editing/repair.hpp"
#include "every_design.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "checks/snags.hpp"
#include "checks/stack.hpp"
#include "editing/edits.hpp"
#include "library/library.hpp"
#include "sequence/order.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

std::vector<Point> places(const Pattern& p, Fitting::Kind kind, const std::string& piece = {})
{
    std::vector<Point> out;
    for (const auto& f : p.fittings)
        if (f.kind == kind && (piece.empty() || f.piece == piece))
            out.push_back(f.at);
    return out;
}

} // namespace

TEST_CASE("Two heads on one wall: what cannot be set is told, whichever parts they belong to")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "snap");
    CHECK(found(d, "too-near").empty());
    // 18 mm heads of two parts and 4 mm to set them: 22 mm between the centres.
    setChoice(d, "flap.mount", "on"); // the front is whole
    assign(d, "snap.across=0");
    assign(d, "snap2.across=22");
    CHECK(found(d, "too-near").empty());
    assign(d, "snap2.across=21.9");
    REQUIRE(found(d, "too-near").size() == 2); // on the front and on the flap's lining
    CHECK(found(d, "too-near").front().severity == Severity::Warning);
    assign(d, "snap2.across=0");
    const auto same = found(d, "too-near");
    REQUIRE(!same.empty());
    CHECK(same.front().severity == Severity::Error);
    CHECK_THAT(words(same.front().text), Contains("same spot"));
}

TEST_CASE("A satchel with two snap pairs: both halves of each meet beside the middle, each with its own patch inside "
          "the cloth")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "snap");
    for (const auto& p : draftAll(d)) {
        INFO(p.size);
        std::map<PartId, std::pair<double, double>> across;
        for (const auto& f : p.fittings)
            if (f.kind == Fitting::Kind::Snap)
                (f.piece == "flap.lining" ? across[f.owner()].second : across[f.owner()].first) = f.at.x;
        REQUIRE(across.size() == 2);
        for (const auto& [owner, x] : across) {
            CHECK(std::abs(x.first) == Approx(p.values.at("flap.width") / 4));
            CHECK(x.first == Approx(-x.second)); // the flap's lining is seen from the other side
        }
        CHECK(across["snap"].first == Approx(-across["snap2"].first));
        // A felt patch under each half.
        for (const auto& f : p.fittings) {
            if (f.kind != Fitting::Kind::Snap)
                continue;
            const auto& layers = p.piece(f.piece)->layers;
            CHECK(std::count_if(layers.begin(), layers.end(), [&](const Layer& l) {
                return !l.wholePiece && distance(boundsOf(l.outline).centre(), f.at) < 0.01;
            }) == 1);
        }
    }
    for (const char* check : {"too-near", "past-cut", "snap", "collision"})
        CHECK(found(d, check).empty());
    // A third stands in the middle.
    addFeature(d, "snap");
    CHECK(d.dimensions.at("snap3.across").value == "0");
    CHECK(found(d, "too-near").empty());
}

TEST_CASE("A patch that reaches past the cut line is told with how far, and the repair mends it")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "flap.length=200");
    const double cut = 200 + 25 + 90; // far below; the drop is what counts here
    (void)cut;
    assign(d, "snap.drop=22");
    assign(d, "snap.patch=60"); // 30 mm up from a centre 22 below the mouth, whose allowance is 10: 2 mbeyond is 30 −
                                // 32 = none
    CHECK(found(d, "past-cut").empty());
    assign(d, "snap.patch=70"); // 35 − 32 = 3 mm past the cut
    const auto past = found(d, "past-cut");
    REQUIRE(!past.empty());
    CHECK_THAT(words(past.front().text), Contains("3 mm past"));
    REQUIRE(past.front().repair);
    applyRepair(d, past.front());
    for (const auto& f : found(d, "past-cut"))
        CHECK(f.subject != past.front().subject);
    // An interlining that is told to reach further than its piece.
    Design wide = newDesign("gusseted-satchel");
    wide.layers.push_back({"front", "foam-sewin", "basted", "inset -12", {}, ""});
    CHECK_THAT(words(found(wide, "past-cut").at(0).text), Contains("2 mm past"));
    wide.layers.back().trim = "inset -10"; // as wide as the allowance
    CHECK(found(wide, "past-cut").empty());
}

TEST_CASE("A snap on the face that its flap hangs from never closes; the repair puts it opposite")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "snap.site", "back");
    const auto told = found(d, "snap");
    REQUIRE(!told.empty());
    CHECK_THAT(words(told.front().text), Contains("never meet"));
    applyRepair(d, told.front());
    CHECK(d.choices.at("snap.site") == "front");
    CHECK(found(d, "snap").empty());
}

TEST_CASE("Drawstrings: every eyelet lies on cloth, clear of seams, straps and handles; a second runs below the first")
{
    int eyelets = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        if (name.find("drawstring") == std::string::npos)
            return;
        for (const auto& p : draftAll(d))
            for (const auto& f : p.fittings) {
                if (f.kind != Fitting::Kind::Eyelet)
                    continue;
                ++eyelets;
                INFO(name << ", size " << p.size << ", " << f.name);
                const Polyline cloth = flattened(p.piece(f.piece)->stitch(), 0.01);
                CHECK(insideOutline(cloth, f.at));
                CHECK(distanceTo(cloth, f.at) > f.size / 2);
                for (const auto& other : p.fittings)
                    if (&other != &f && other.piece == f.piece && other.kind == Fitting::Kind::Eyelet)
                        CHECK(distance(f.at, other.at) > f.size);
            }
    });
    CHECK(eyelets > 800);
    // A bucket with two drawstrings.
    Design bucket = newDesign("cylinder");
    addFeature(bucket, "drawstring");
    addFeature(bucket, "drawstring");
    // The second row passes the slip pocket behind it, in the lining: that is told.
    CHECK_THAT(words(found(bucket, "collision").at(0).subject),
        Contains("Eyelet 2") && Contains("slip pocket") && Contains("Lining"));
    assign(bucket, "slip.drop=110");
    for (const char* check : {"too-near", "off-cloth", "under-foot", "collision"}) {
        INFO(check);
        CHECK(found(bucket, check).empty());
    }
    // Where a part above cuts the wall, the row lies on the piece below.
    Design cutTop = newDesign("separate-base");
    addFeature(cutTop, "band");
    setChoice(cutTop, "band.site", "front");
    assign(cutTop, "band.height=25");
    addFeature(cutTop, "drawstring");
    assign(cutTop, "drawstring.drop=60");
    for (const Point at : places(medium(cutTop), Fitting::Kind::Eyelet, "front.upper"))
        FAIL("an eyelet at " << at.x << "/" << at.y << " on the band");
    CHECK(!places(medium(cutTop), Fitting::Kind::Eyelet, "front.lower").empty());
}

TEST_CASE(
    "A channel's rows that run over a handle's ends are told, and one that runs between them and the mouth is not")
{
    Design tote = newDesign("large-tote");
    addFeature(tote, "drawstring");
    setChoice(tote, "drawstring.through", "channel");
    CHECK_THAT(words(found(tote, "collision").at(0).text), Contains("sewn down"));
    removeFeature(tote, "handles");
    CHECK(found(tote, "collision").empty());
    // Behind the shell lies the lining: a pocket there is sewn shut too.
    assign(tote, "slip.drop=15");
    assign(tote, "drawstring.drop=70");
    CHECK_THAT(words(found(tote, "collision").at(0).subject), Contains("slip pocket") && Contains("Lining"));
}

TEST_CASE("Rivets beside a seam that is sewn later: the foot must pass, 6 mm and half a head")
{
    Design d = newDesign("large-tote");
    CHECK(found(d, "under-foot").empty());
    CHECK(medium(d).fittings.size() >= 20);
    d.workshop.footWidth = 6;
    // The lowest rivets keep 11 mm from the base seam: half a head of 8, the foot's 6 and 1 to spare. A wider foot
    // meets them when it is asked for after drafting only.
    auto patterns = draftAll(d);
    Design wide = d;
    wide.workshop.footWidth = 7.1;
    const auto told = [&](const Design& of) {
        Findings out = checkAll(of, patterns);
        std::erase_if(out, [](const Finding& f) { return f.check != "under-foot"; });
        return out;
    };
    CHECK(told(d).empty());
    REQUIRE(!told(wide).empty());
    CHECK_THAT(words(told(wide).front().text), Contains("sewn after"));
    // Half a head of 4 and the zip foot's 3 pass; one that is too wide as well, or none, does not.
    CHECK_THAT(words(told(wide).front().text), Contains("the zip foot, which needs 7 mm"));
    CHECK(told(wide).front().severity == Severity::Note);
    for (const double narrow : {0.0, 7.05}) {
        wide.workshop.zipFoot = narrow;
        CHECK(told(wide).front().severity == Severity::Warning);
    }
}

TEST_CASE("The lining behind a wall is found with its way: mirrored, mouths level")
{
    const Pattern p = medium(newDesign("gusseted-satchel"));
    const auto inside = behind(p, "front");
    REQUIRE(inside);
    CHECK(inside->wall == "lining.front");
    const Point at = inside->to({30, p.height - 50});
    CHECK(at.x == Approx(-30));
    CHECK(at.y == Approx(boundsOf(p.piece("lining.front")->stitch()).y1 - 50));
    CHECK(!behind(p, "base.board"));
    // Both halves of a cut back are one wall.
    CHECK(wallsOf(p, *p.piece("back.upper")).front().wall == "back");
}

TEST_CASE(
    "Bulk by hand: tabs by how they are folded, overlays, piping, pleats, bindings, and both seams where two cross")
{
    const auto foot = [](const char* id) { return material(id).underFoot(); };
    // Connectors of the shell's cloth: canvas is folded to a quarter and looped, vinyl meets behind and is looped.
    for (const auto& [cloth, times] : {std::pair{"canvas-12", 8}, {"vinyl", 4}}) {
        Design d = newDesign("gusseted-satchel");
        setMaterial(d, "shell", cloth);
        const Pattern p = medium(d);
        const Bulk bulk = bulkAt(p, *p.seam("mouth"));
        const auto tab = std::find_if(
            bulk.parts.begin(), bulk.parts.end(), [&](const BulkPart& part) { return part.label(p) == "Connector"; });
        INFO(cloth);
        REQUIRE(tab != bulk.parts.end());
        CHECK(tab->times == times);
        CHECK(tab->each == Approx(foot(cloth)));
    }
    // A bare design: canvas outside, cotton inside, no interlinings. A side seam is two layers of canvas; the mouth is
    // one of each, and where the side seams of both coats cross it, one of each more: they are pressed open. Nothing
    // else crosses.
    Design d = newDesign("separate-base");
    while (!d.features.empty())
        removeFeature(d, d.features.front().id);
    d.layers.clear();
    const double canvas = foot("canvas-12"), cotton = foot("lining-cotton");
    Pattern p = medium(d);
    CHECK(bulkAt(p, *p.seam("side 1")).underFoot == Approx(2 * canvas));
    CHECK(bulkAt(p, *p.seam("side 1")).crossing.empty());
    CHECK(bulkAt(p, *p.seam("mouth")).underFoot == Approx(canvas + cotton));
    CHECK(bulkAt(p, *p.seam("mouth")).atCrossing == Approx(2 * canvas + 2 * cotton));
    CHECK_THAT(exactly(bulkAt(p, *p.seam("mouth")).crossing), Contains(" and "));
    // Its step grades it: of the two allowances the thinner lies in the row.
    CHECK(bulkUnderTopstitch(p, *p.seam("mouth")).underFoot == Approx(canvas + cotton + std::min(canvas, cotton)));
    // A boxed corner: side seam and bottom seam lie on one another, each pressed open: one allowance of each.
    Design boxed = newDesign("boxed-corner");
    while (!boxed.features.empty())
        removeFeature(boxed, boxed.features.front().id);
    boxed.layers.clear();
    p = medium(boxed);
    CHECK(bulkAt(p, *p.seam("box right")).underFoot == Approx(2 * canvas));
    CHECK(bulkAt(p, *p.seam("box right")).atCrossing == Approx(4 * canvas));
    CHECK(bulkAt(p, *p.seam("side right")).crossing.empty());
    // Pleats: the bottom seam has three layers of each panel there.
    assign(boxed, "pleats=2");
    assign(boxed, "pleat=12");
    p = medium(boxed);
    CHECK(bulkAt(p, *p.seam("bottom")).underFoot == Approx(6 * canvas));
    CHECK(bulkAt(p, *p.seam("side right")).underFoot == Approx(2 * canvas));
    // An overlay is caught with its face; piping lies doubled; an overlay that ends elsewhere does not count.
    addFeature(d, "overlay");
    addFeature(d, "piping");
    setChoice(d, "piping.site", "front");
    p = medium(d);
    CHECK(bulkAt(p, *p.seam("base")).underFoot == Approx(2 * canvas + foot("waxed-canvas")));
    CHECK(bulkAt(p, *p.seam("side 1")).underFoot == Approx(2 * canvas + foot("waxed-canvas") + 2 * canvas));
    CHECK(bulkAt(p, *p.seam("mouth")).underFoot == Approx(canvas + cotton));
    // Pockets lie on the face; their hems have nothing to do with the mouth.
    addFeature(d, "patch-pocket");
    p = medium(d);
    CHECK(bulkAt(p, *p.seam("mouth")).underFoot == Approx(canvas + cotton));
    // Bound: four layers of the binding.
    Design loop = newDesign("zip-around");
    loop.layers.clear();
    p = medium(loop);
    CHECK(bulkAt(p, *p.seam("front-loop")).underFoot == Approx(2 * canvas + 2 * cotton + 4 * cotton));
}

TEST_CASE("Foam under the topstitching counts where it ends within the row, and its warning goes with an inset")
{
    Design d = newDesign("gusseted-satchel");
    for (auto& rule : d.layers)
        if (rule.material == "foam-sewin")
            rule.edges.clear(), rule.trim = "stitch";
    Pattern p = medium(d);
    const double with = bulkUnderTopstitch(p, *p.seam("mouth")).underFoot;
    for (auto& rule : d.layers)
        if (rule.material == "foam-sewin")
            rule.trim = "inset 4";
    p = medium(d);
    CHECK(bulkUnderTopstitch(p, *p.seam("mouth")).underFoot == Approx(with - material("foam-sewin").underFoot()));
}

TEST_CASE("Every repair that is offered is one that is then taken, and names a dimension that there is")
{
    int offered = 0;
    forEveryDesign([&](const std::string& name, Design d) {
        // Things too large, a slider and a machine too small: plenty to mend.
        d.carried = {{"Board", 900, 700, 300, "main", {}}};
        for (const auto& f : d.features)
            if (f.kind.find("pocket") != std::string::npos)
                d.carried.push_back({"Plan", 400, 500, 20, f.id, {}});
        d.workshop.machineLimit = 3;
        const auto all = draftAll(d);
        for (const auto& f : checkAll(d, all)) {
            CHECK(words(f.text).find("zip.width") == std::string::npos);
            if (!f.repair || f.size != "M" || offered > 600)
                continue;
            ++offered;
            INFO(name << ": " << words(f.subject) << ", " << words(f.repair->label));
            CHECK(whyNotMend(d, f).empty());
        }
    });
    CHECK(offered > 300);
}

TEST_CASE("At equality there is no snag, and what is short by less than is shown is written in full")
{
    CHECK(words(say("{}", Len(12.96, 13))) == "12.96 mm");
    CHECK(words(say("{}", Len(9, 13))) == words(say("{}", Len(9))));
}

TEST_CASE("A zip that opens wider than its bag is told; with the drafted bag it is not")
{
    Design d = newDesign("separate-base");
    addFeature(d, "inset-zip");
    CHECK(found(d, "zip-bag").empty());
    auto patterns = draftAll(d);
    for (auto& zip : patterns[1].zips)
        zip.nominal += 30;
    const auto all = checkAll(d, patterns);
    CHECK(std::any_of(all.begin(), all.end(), [](const Finding& f) { return f.check == "zip-bag"; }));
}

TEST_CASE("What hangs from the mouth takes from the room below it")
{
    Design d = newDesign("large-tote");
    const auto height = [](const Design& of) {
        for (const auto& s : medium(of).spaces)
            if (s.place == "main")
                return s.height;
        return 0.0;
    };
    const double before = height(d);
    addFeature(d, "top-zip");
    assign(d, "topzip.drop=40");
    CHECK(height(d) == Approx(before - 40));
}

TEST_CASE("Typed values that stock changes are told; sizes that come out alike too")
{
    Design d = newDesign("gusseted-satchel");
    CHECK(found(d, "stock").empty());
    assign(d, "width=340");
    assign(d, "zip.length=228.6");
    assign(d, "connectors.ring=42");
    const auto told = found(d, "stock");
    REQUIRE(told.size() == 2);
    CHECK_THAT(words(told[0].text) + words(told[1].text), Contains("228.6") && Contains("42 mm"));
    for (auto& [name, dimension] : d.dimensions)
        dimension.rule = hold();
    const auto all = draftAll(d);
    const auto findings = checkAll(d, all);
    CHECK(
        std::count_if(findings.begin(), findings.end(), [](const Finding& f) { return f.check == "same-size"; }) == 3);
}

TEST_CASE("Nothing is drafted without a step: every form, part and way")
{
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        const auto all = draftAll(d);
        for (const auto& f : checkAll(d, all))
            if (f.check == "no-step" || f.check == "no-place" || f.check == "zip-bag" || f.check == "off-cloth") {
                INFO(words(f.subject) << ": " << words(f.text));
                CHECK(f.check.empty());
            }
    });
}

TEST_CASE("A zip round a corner of no radius is told, rounded to what a slider passes it is not; joins keep clear of "
          "corners or are told")
{
    Design d = newDesign("zip-around");
    CHECK(found(d, "zip-corner").empty());
    assign(d, "radius=0");
    const auto told = found(d, "zip-corner");
    REQUIRE(told.size() == 2); // front and back
    CHECK(told.front().severity == Severity::Error);
    applyRepair(d, told.front());
    CHECK(found(d, "zip-corner").empty());
    assign(d, "radius=19.9");
    CHECK(!found(d, "zip-corner").empty());
    // Its joins are moved by hand.
    setChoice(d, "bands", "three");
    assign(d, "radius=30");
    const Pattern p = medium(d);
    assign(d, "side.right=" + std::to_string(p.values.at("side.right") + 7));
    CHECK(medium(d).piece("side right")->edge("front")->length() == Approx(p.values.at("side.right") + 7));
    CHECK(std::abs(medium(d).seam("front-loop")->difference()) < 1e-6);
    bool curve = false;
    for (double side = 40; side < 140; side += 10) {
        assign(d, "side.right=" + std::to_string(side));
        curve |= !found(d, "join").empty();
    }
    CHECK(curve);
}

TEST_CASE("A rule for a face holds for its parts when it is cut; a band keeps the face's foam, a facing takes none of "
          "the lining's")
{
    Design d = newDesign("gusseted-satchel");
    d.layers.push_back({"back", "stabiliser-firm", "glued", "inset 5", {}, ""});
    const Pattern p = medium(d);
    for (const char* half : {"back.upper", "back.lower"}) {
        const auto& layers = p.piece(half)->layers;
        CHECK(
            std::any_of(layers.begin(), layers.end(), [](const Layer& l) { return l.material == "stabiliser-firm"; }));
    }
    Design band = newDesign("separate-base");
    addFeature(band, "band");
    setChoice(band, "band.site", "front");
    const Pattern q = medium(band);
    CHECK(std::any_of(q.piece("front.upper")->layers.begin(), q.piece("front.upper")->layers.end(),
        [](const Layer& l) { return l.material == "foam-sewin"; }));
    // The lower part has no edge "top": its foam is not told to end 12 mm inside there.
    CHECK_THAT(exactly(q.piece("front.lower")->layers.at(0).trim), !Contains("top"));
    CHECK(q.piece("front.lower")->layers.at(0).reachAt("below band")[0] == 0);
    setChoice(band, "band.site", "lining front");
    CHECK(medium(band).piece("lining.front.upper")->layers.empty());
}

TEST_CASE("Connectors on a gusset that is cut long are basted after it is trimmed")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "gusset.length", "long");
    const Pattern p = medium(d);
    std::size_t trim = 0, baste = 0;
    const auto order = orderOf(d, p);
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (p.steps[order[i]].id == "gusset.trim")
            trim = i;
        if (p.steps[order[i]].id == "connectors.baste")
            baste = i;
    }
    CHECK(trim > 0);
    CHECK(baste > trim);
}

TEST_CASE("Anchor triangles have the side they are told, in the very corner of the face, on every form")
{
    int seen = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        if (name.find("brace") == std::string::npos)
            return;
        for (const auto& p : draftAll(d))
            for (const auto& piece : p.pieces) {
                if (piece.role != "brace" || piece.owner().empty())
                    continue;
                ++seen;
                INFO(name << ", size " << p.size);
                // The slant's ends lie `side` from where the legs meet, along both: the third side of an isosceles
                // triangle.
                const std::size_t n = piece.edges.size();
                std::size_t at = 0;
                while (at < n && piece.edges[at].name != "slant")
                    ++at;
                REQUIRE(at < n);
                const Edge &slant = piece.edges[at], &before = piece.edges[(at + n - 1) % n],
                           &after = piece.edges[(at + 1) % n];
                const Point up = tangentOf(before.stitch.back(), 1) * -1, along = tangentOf(after.stitch.front(), 0);
                const double side = p.of(piece.owner(), "side"),
                             angle = std::acos(std::clamp(dot(up, along), -1.0, 1.0));
                // At a round corner the legs' directions are still those of the straights beyond it.
                if (std::holds_alternative<Line>(before.stitch.back())
                    && std::holds_alternative<Line>(after.stitch.front()))
                    CHECK(slant.length() == Approx(2 * side * std::sin(angle / 2)).epsilon(0.001));
            }
    });
    CHECK(seen > 100);
    // An irregular polygon takes one, and its size can be set.
    Design d = with("polygon", {"sides=5", "side.1=150", "side.2=90"});
    addFeature(d, "brace");
    assign(d, "brace.side=40");
    const Pattern p = medium(d);
    CHECK(areaOf(p.piece("brace")->stitch()) > 0);
    CHECK(p.values.at("face.height") == Approx(boundsOf(p.piece("front")->stitch()).height()));
    CHECK(p.values.at("face.width") == Approx(0.6 * boundsOf(p.piece("front")->stitch()).width()));
}

TEST_CASE("Linings inside curved walls: an ellipse's is its parallel curve, 2π·t shorter; an envelope's is π·t shorter "
          "at its fold")
{
    Design d = with("cylinder", {"width=300", "depth=160", "height=200"});
    setChoice(d, "base.shape", "ellipse");
    const Pattern p = medium(d);
    const double t = worked(p, "lining.inset");
    CHECK(p.seam("base")->lengthB - p.seam("lining.base")->lengthB == Approx(2 * pi * t).margin(0.002));
    const Polyline outside = flattened(p.piece("base")->stitch(), 0.001);
    for (const Point q : flattened(p.piece("lining.base")->stitch(), 0.05))
        CHECK(distanceTo(outside, q) == Approx(t).margin(0.01));
    // Rounder ends than the wall is thick: two tips on the long axis, still everywhere as far inside.
    const Pattern round = medium(with("cylinder", {"width=300", "depth=160"}));
    for (const auto& e : round.piece("base")->edges)
        CHECK(e.length() > 0);
    Design clutch = newDesign("envelope-clutch");
    const Pattern q = medium(clutch);
    const double wall = worked(q, "lining.inset");
    const auto along = [&](const std::string& piece) {
        return q.piece(piece)->edge("right front")->length() + q.piece(piece)->edge("right back")->length();
    };
    const double slanted = 2 * std::hypot(q.piece("body")->edge("right front")->length() - pi * wall / 2, wall);
    CHECK(along("lining.body") == Approx(slanted));
    CHECK(std::abs(q.seam("mouth")->difference()) < 1e-9); // flap and mouth are the shell's
    // The snap's flap half: from the fold half the thing, both walls, the drop and the slack; both halves meet.
    const double walls = 2 * (thicknessOf(q, *q.piece("body")) + thicknessOf(q, *q.piece("lining.body")));
    CHECK(worked(q, "snap.reach") == Approx(q.values.at("thing.thickness") / 2 + walls + q.values.at("snap.drop") + 4));
    assign(clutch, "snap.across=15");
    const Pattern aside = medium(clutch);
    for (const auto& f : aside.fittings)
        if (f.kind == Fitting::Kind::Snap)
            CHECK(f.at.x == (f.piece == "body" ? -15 : 15)); // the front hangs head down, the lining has come over
}

TEST_CASE("What is carried must pass the mouth, not only stand in the bag")
{
    Design d = with("gusseted-satchel", {"width=300", "taper=60", "radius=20"});
    removeFeature(d, "snap");
    const double mouth = medium(d).seam("mouth")->lengthB; // twice the width at the top and twice the depth
    CHECK(mouth == Approx(2 * (300 - 2 * 60) + 2 * 100));
    const auto tooWide = [&](double width) {
        d.carried = {{"Tray", width, 60, 20, "main", {}}};
        const auto all = found(d, "carried");
        return std::any_of(all.begin(), all.end(),
            [](const Finding& f) { return words(f.text).find("does not pass the mouth") != std::string::npos; });
    };
    CHECK_FALSE(tooWide(mouth / 2 - 20)); // as much round as the mouth
    CHECK(tooWide(mouth / 2 - 20 + 0.1));
}
