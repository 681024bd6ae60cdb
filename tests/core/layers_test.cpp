// SPDX-License-Identifier: GPL-3.0-or-later
// Layers one by one: shapes of their own (against GEOS), trims per edge, the verbs that change them, and what suits a
// cloth.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"
#include "buildup/shapes.hpp"
#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "editing/repair.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

Pattern middle(const Design& d) { return draftAll(d)[1]; }

/// The first layer behind a piece when it has just this one.
const Layer& alone(Design& d, Pattern& p, const std::string& piece, const LayerRule& rule)
{
    edit(d, [&](Design& next) { change::layers(next, piece, {rule}); });
    p = middle(d);
    REQUIRE(p.piece(piece)->layers.front().rule == 0);
    return p.piece(piece)->layers.front();
}

LayerRule shaped(const std::string& shape, const std::string& trim = "stitch")
{
    return {.material = "patch-felt", .fixing = "glued", .trim = trim, .area = shape};
}

Polyline flat(const Run& r) { return flattened(r, 0.01); }

int count(const Findings& all, const char* check)
{
    return int(std::count_if(all.begin(), all.end(), [&](const Finding& f) { return f.check == check; }));
}

} // namespace

TEST_CASE("Layers: patch, corner and strip are what GEOS says the piece and the shape share")
{
    const Geos geos;
    Design d = newDesign("gusseted-satchel");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    Pattern p;
    for (const std::string trim : {"stitch", "full", "inset 4", "past 3"}) {
        INFO(trim);
        const Run whole = alone(d, p, "front", shaped("", trim)).outline;
        const Box box = boundsOf(p.piece("front")->stitch()), all = boundsOf(whole);
        const double cx = box.centre().x;
        const auto same = [&](const std::string& shape, double x0, double y0, double x1, double y1) {
            INFO(shape);
            const double area = areaOf(alone(d, p, "front", shaped(shape, trim)).outline);
            const Polyline with{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}, {x0, y0}};
            CHECK(std::abs(area - geos.sharedArea(flat(whole), with)) < 0.5);
        };
        same("patch 60 x 40 at 0 45", cx - 30, box.y1 - 65, cx + 30, box.y1 - 25);
        same("patch 50% x 25% at 10% 50%", cx + 0.1 * box.width() - 0.25 * box.width(),
            box.y1 - 0.5 * box.height() - 0.125 * box.height(), cx + 0.35 * box.width(),
            box.y1 - 0.5 * box.height() + 0.125 * box.height());
        same("corner 60 x 80 lower left", all.x0, all.y0, all.x0 + 60, all.y0 + 80); // round: less than a rectangle
        same("corner 30 x 30 upper right", all.x1 - 30, all.y1 - 30, all.x1, all.y1);
        const double top = trimReach(trim, p.piece("front")->edge("top")->allowance);
        same("strip 40 along top", -1e4, box.y1 + top - 40, 1e4, box.y1 + top);
    }
}

TEST_CASE("Layers: a strip round a corner is a ring's part, exactly as wide as it is told")
{
    Design d = newDesign("gusseted-satchel");
    Pattern p;
    const Layer& layer = alone(d, p, "front", shaped("strip 12 along left corner"));
    const auto& edge = p.piece("front")->edge("left corner")->stitch;
    REQUIRE(edge.size() == 1);
    const Arc arc = std::get<Arc>(edge.front());
    const double r = arc.radius, theta = std::abs(arc.sweep);
    CHECK(std::abs(areaOf(layer.outline) - theta / 2 * (r * r - (r - 12) * (r - 12))) < 0.5);
    CHECK_THROWS_WITH(alone(d, p, "front", shaped("strip 60 along left corner")), Contains("folds over itself"));
}

TEST_CASE("Layers: drawn ones and copies of other pieces lie where they are told, in every size")
{
    Design d = newDesign("gusseted-satchel");
    edit(d, [&](Design& next) {
        change::layers(next, "front", {shaped("drawn -40,10 40,10 40,30% -40,30%"), shaped("as flap.outer less 5")});
    });
    for (const auto& p : draftAll(d)) {
        const Piece& front = *p.piece("front");
        const Box box = boundsOf(front.stitch());
        REQUIRE(front.layers.size() >= 2);
        const Box drawn = boundsOf(front.layers[0].outline);
        CHECK(std::abs(drawn.x0 - (box.centre().x - 40)) < 1e-6);
        CHECK(std::abs(drawn.y1 - (box.y1 - 10)) < 1e-6);
        CHECK(std::abs(drawn.y0 - (box.y1 - 0.3 * box.height())) < 1e-6);
        const Box copied = boundsOf(front.layers[1].outline), flap = boundsOf(p.piece("flap.outer")->stitch());
        CHECK(std::abs(copied.width() - (flap.width() - 10)) < 0.01);
        CHECK(std::abs(copied.height() - (flap.height() - 10)) < 0.01);
        CHECK(std::abs(copied.y1 - (box.y1 - 5)) < 0.01);
    }
}

TEST_CASE(
    "Layers: on every piece of every form shapes lie within the cut line, or the check says by how much they do not")
{
    const Geos geos;
    int past = 0, within = 0;
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        const Pattern drafted = middle(plain);
        for (const auto& piece : drafted.pieces) {
            std::vector<LayerRule> rules{shaped("patch 50% x 50% at 0 50%", "full"),
                shaped("corner 30% x 30% lower right"), shaped("drawn -30%,10% 30%,10% 0,90%"),
                shaped("drawn -60%,0 60%,0 0,50%")};
            for (const auto& e : piece.edges)
                if (e.length() > 1 && e.stitch.size() == 1 && std::holds_alternative<Line>(e.stitch.front()))
                    rules.push_back(shaped("strip 15 along " + e.name.text(), "full"));
            Design d = plain;
            edit(d, [&](Design& next) { change::layers(next, piece.key.text(), rules); });
            for (const auto& p : draftAll(d)) {
                const Piece& there = *p.piece(piece.key);
                const Polyline cut = flat(there.cut);
                const auto found = checkAll(d, {p});
                for (const auto& layer : there.layers) {
                    if (layer.rule < 0)
                        continue;
                    INFO(form->id() << " " << piece.key.text() << " " << p.size << ": "
                                    << rules[std::size_t(layer.rule)].area);
                    const Polyline outline = flat(layer.outline);
                    CHECK(geos.valid(outline));
                    CHECK(areaOf(layer.outline) > 0);
                    const bool lies = geos.covers(cut, outline, 0.15);
                    const bool told = std::any_of(found.begin(), found.end(),
                        [&](const Finding& f) { return f.check == "layer-past" && f.about == layer.code; });
                    CHECK(lies != told);
                    (lies ? within : past) += 1;
                }
            }
        }
    }
    CHECK(within > 500);
    CHECK(past > 50);
}

TEST_CASE("Layers: what a patch brings into a seam is counted there, and trimmed there")
{
    Design d = newDesign("gusseted-satchel");
    Pattern p;
    alone(d, p, "front", shaped("strip 30 along top", "full"));
    const Piece& front = *p.piece("front");
    REQUIRE(front.layers.front().reachAt("top"));
    CHECK(std::abs(*front.layers.front().reachAt("top") - front.edge("top")->allowance) < 0.01);
    CHECK(!front.layers.front().reachAt("bottom"));
    const auto caught = [&](const char* seam) {
        const Bulk bulk = bulkAt(p, *p.seam(seam));
        return std::any_of(bulk.parts.begin(), bulk.parts.end(),
            [&](const BulkPart& part) { return part.layer && part.piece->key == "front"; });
    };
    CHECK(caught("mouth"));
    alone(d, p, "front", shaped("patch 60 x 40 at 0 100"));
    CHECK(!caught("mouth"));
    CHECK(p.piece("front")->layers.front().reach.empty());
}

TEST_CASE("Layers: changed, moved and taken one by one; a piece's own stand before its role's and go back to them")
{
    Design d = newDesign("gusseted-satchel");
    edit(d, [](Design& next) {
        change::layers(next, "panel",
            {{.material = "fusible-woven", .fixing = "fused", .trim = "full"},
                {.material = "foam-sewin", .fixing = "basted", .trim = "stitch"}});
    });
    const auto materials = [&](const char* piece) {
        std::string out;
        for (const auto& layer : middle(d).piece(piece)->layers)
            if (layer.rule >= 0)
                out += layer.material.text() + " ";
        return out;
    };
    REQUIRE(materials("front") == "fusible-woven foam-sewin ");
    edit(d, [&](Design& next) { change::moveLayer(next, middle(d), "front", 0, true); });
    CHECK(materials("front") == "foam-sewin fusible-woven ");
    CHECK(materials("back.lower") == "fusible-woven foam-sewin ");
    CHECK(rulesFor(d, *middle(d).piece("front")) == "front");
    CHECK_THROWS_AS(edit(d, [&](Design& next) { change::moveLayer(next, middle(d), "front", 0, false); }), InputError);
    CHECK_THROWS_AS(edit(d, [&](Design& next) { change::moveLayer(next, middle(d), "front", 1, true); }), InputError);

    edit(d, [&](Design& next) {
        change::layer(next, middle(d), "front", 0, [](LayerRule& r) { r.edges["top"] = "inset 20", r.grain = "45"; });
    });
    const Piece front = *middle(d).piece("front");
    CHECK(*front.layers[0].reachAt("top") == -20);
    const auto items = cutItems(middle(d));
    const auto cut = std::find_if(
        items.begin(), items.end(), [&](const CutItem& i) { return i.id == SubjectId(front.layers[0].id); });
    REQUIRE(cut != items.end());
    CHECK(cut->grain == 45);
    CHECK_THROWS_WITH(edit(d,
                          [&](Design& next) {
                              change::layer(next, middle(d), "front", 0, [](LayerRule& r) { r.fixing = "nailed"; });
                          }),
        Contains("is no fixing"));
    CHECK_THROWS_WITH(edit(d,
                          [&](Design& next) {
                              change::layer(next, middle(d), "front", 0, [](LayerRule& r) { r.area = "strip 3"; });
                          }),
        Contains("“strip 3” is no shape"));

    edit(d, [&](Design& next) { change::takeLayer(next, middle(d), "front", 1); });
    edit(d, [&](Design& next) { change::takeLayer(next, middle(d), "front", 0); });
    CHECK(materials("front").empty()); // though its role has some
    CHECK(readDesign(designText(d), "kept").design.layers == d.layers);
    edit(d, [&](Design& next) { change::putBehind(next, middle(d), {.pieces = "front", .material = "foam-sewin"}); });
    CHECK(materials("front") == "foam-sewin ");
    edit(d, [&](Design& next) { change::restoreLayers(next, middle(d), "front"); });
    CHECK(materials("front") == "fusible-woven foam-sewin ");
    CHECK_THROWS_WITH(edit(d, [&](Design& next) { change::restoreLayers(next, middle(d), "front"); }),
        Contains("no layers of its own"));
}

TEST_CASE(
    "Layers: canvas becomes vinyl: what was fused is told with the reason, and mended in one stroke for each role")
{
    Design d = newDesign("gusseted-satchel");
    edit(d, [](Design& next) {
        change::layers(next, "panel", {{.material = "fusible-woven", .fixing = "fused", .trim = "full"}});
    });
    CHECK(count(checkAll(d, draftAll(d)), "heat") == 0);
    setMaterial(d, "shell", "vinyl");
    for (int strokes = 0; strokes < 10; ++strokes) {
        const auto found = checkAll(d, draftAll(d));
        const auto heat = std::find_if(found.begin(), found.end(), [](const Finding& f) { return f.check == "heat"; });
        if (heat == found.end())
            break;
        CHECK_THAT(words(heat->text), Contains("heat harms"));
        REQUIRE(heat->repair);
        applyRepair(d, *heat);
    }
    CHECK(count(checkAll(d, draftAll(d)), "heat") == 0);
    for (const auto& p : draftAll(d))
        for (const auto& piece : p.pieces)
            if (piece.material == "shell")
                for (const auto& layer : piece.layers)
                    CHECK(layer.fixing != "fused");
    CHECK(middle(d).piece("front")->layers.front().material == "foam-sewin");
}

TEST_CASE("Layers: what suits a cloth: nothing fused on what heat harms, and written in a line that is read back")
{
    const auto library = Library::builtIn();
    int fused = 0;
    for (const auto& cloth : library->materials())
        for (const char* role :
            {"panel", "gusset", "base", "flap", "flap lining", "lining panel", "pocket", "strap", "tab"}) {
            const Proposal p = proposedLayers(role, cloth);
            CHECK(!p.why.empty());
            for (const auto& l : p.layers) {
                CHECK((l.fixing != "fused" || cloth.heat));
                CHECK(library->find(l.material));
                fused += l.fixing == "fused";
            }
            CHECK(parseLayers(layersText(p.layers)) == p.layers);
        }
    CHECK(fused > 10);
    const std::vector<LayerRule> odd{{.material = "foam-sewin",
        .fixing = "basted",
        .trim = "past 3",
        .edges = {{"left mouth", "inset 12"}},
        .area = "drawn -40,0 40,0 0,30%",
        .grain = "45"}};
    CHECK(parseLayers(layersText(odd)) == odd);
    CHECK_THROWS_AS(parseLayers("foam-sewin"), InputError);
    CHECK_THROWS_AS(parseLayers("foam-sewin basted stitch, top"), InputError);
}

TEST_CASE("Layers: shapes that cannot be read are refused with how to write them")
{
    for (const char* bad : {"strip", "strip 40", "strip 40 beside top", "strip -3 along top", "patch 60 x 40",
             "patch 60 y 40 at 0 0", "patch 0 x 40 at 0 0", "corner 60 x 60 middle left", "drawn 1,2 3,4",
             "drawn 1 2 3 4", "strip 4.x along top", "patch 60 x 4mmm at 0 0"}) {
        INFO(bad);
        CHECK_THROWS_AS(parseShape(bad), InputError);
    }
    CHECK(parseShape("patch for the snap").kind == LayerShape::Kind::Area);
    CHECK(parseShape("").kind == LayerShape::Kind::Whole);
    CHECK_THROWS_WITH(trimReach("past -3", 10), Contains("write inset"));
    CHECK(trimReach("past 3", 10) == 3);
    CHECK(trimReach("past 30", 10) == 10); // never past the cut line
}

TEST_CASE("Layers: a piece weighs what its areas and weights say")
{
    const Design d = newDesign("gusseted-satchel");
    const Pattern p = middle(d);
    const Geos geos;
    for (const auto& piece : p.pieces) {
        double grams = geos.area(flat(piece.cut)) * p.material(p.materials.at(piece.material)).gsm;
        for (const auto& layer : piece.layers)
            grams += geos.area(flat(layer.outline)) * p.material(layer.material).gsm;
        CHECK(std::abs(weightOf(p, piece) - piece.count * grams / 1e6) < 0.05);
    }
}

TEST_CASE("Layers: a seam too thick for the machine is thinner by what its remedy says, in one stroke for each layer")
{
    Design d = newDesign("boxed-corner");
    edit(d, [](Design& next) {
        change::layers(next, "panel",
            {{.material = "fusible-woven", .fixing = "fused", .trim = "full"},
                {.material = "foam-sewin", .fixing = "basted", .trim = "full", .edges = {{"top", "inset 12"}}}});
        next.workshop.machineLimit = 1.6;
    });
    const auto worst = [&]() -> std::optional<Finding> {
        for (const auto& f : checkAll(d, draftAll(d)))
            if (f.check == "bulk" && f.size == "M" && f.key == SubjectId("side left"))
                return f;
        return std::nullopt;
    };
    const auto bulk = [&] {
        const Pattern p = middle(d);
        return bulkAt(p, *p.seam("side left")).underFoot;
    };
    int strokes = 0;
    for (auto found = worst(); found && found->repair; found = worst()) {
        const Pattern p = middle(d);
        const BulkPart heaviest = bulkAt(p, *p.seam("side left")).heaviest;
        REQUIRE(heaviest.layer);
        CHECK_THAT(words(found->text), Contains("Trim " + heaviest.layer->code + " out of the allowance: "));
        const double before = bulk();
        applyRepair(d, *found);
        // Both walls are of one role: each gives what the remedy names.
        CHECK(std::abs(before - bulk() - 2 * heaviest.times * heaviest.each) < 1e-6);
        REQUIRE(++strokes < 5);
    }
    CHECK(strokes == 2); // the foam, then the fusible
    CHECK(d.layers.back().edges == std::map<std::string, std::string>{{"top", "inset 12"}});
}
