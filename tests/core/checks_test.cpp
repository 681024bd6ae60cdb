// SPDX-License-Identifier: GPL-3.0-or-later
// Each check at its threshold: silent on it, told just past it, with the number by hand; and a repair mends what it was
// offered for.
#include "drawn.hpp"
#include "geos.hpp"

#include "buildup/layers.hpp"
#include "buildup/remedies.hpp"
#include "checks/finding.hpp"
#include "editing/repair.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "mockup/carry.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

/// What one check says of a design's middle size.
Findings told(const Design& d, const std::string& check)
{
    Findings out;
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == check && f.size == d.sizes[1])
            out.push_back(f);
    return out;
}

/// A satchel whose dimensions do not grow, with a value set in every size.
Design set(Design d, const std::string& name, double value)
{
    setRule(d, name, hold());
    assign(d, fmt::format("{}={}", name, value));
    return d;
}

double valueOf(const Design& d, const std::string& name) { return medium(d).values.at(name); }

} // namespace

TEST_CASE("Rings: a strap as wide as the ring passes, 0.02 mm more bunches; 3 mm of play is the most")
{
    const double ring = valueOf(satchel(), "connectors.ring");
    CHECK(told(set(satchel(), "connectors.width", ring), "ring").empty());
    CHECK(told(set(satchel(), "connectors.width", ring - 3), "ring").empty()); // common practice, no source
    const auto wide = told(set(satchel(), "connectors.width", ring + 0.5), "ring");
    REQUIRE(wide.size() == 1);
    CHECK(wide.front().severity == Severity::Error);
    CHECK_THAT(words(wide.front().text),
        Contains("0.5 mm wider than the ring's inside width of " + formatLength(ring, Unit::Mm)));
    const auto loose = told(set(satchel(), "connectors.width", ring - 3.5), "ring");
    REQUIRE(loose.size() == 1);
    CHECK(loose.front().severity == Severity::Warning);
    CHECK_THAT(words(loose.front().text), Contains("leaves 3.5 mm of play"));
}

TEST_CASE(
    "Zips: 4 mm of tape behind each edge of the window are enough; a gap of the gauge and 2 mm lets the slider pass")
{
    const double tape = valueOf(satchel(), "zip.tape"), gauge = valueOf(satchel(), "zip.gauge");
    CHECK(told(set(satchel(), "zip.window", tape - 8), "zip-tape").empty());
    const auto narrow = told(set(satchel(), "zip.window", tape - 7), "zip-tape");
    REQUIRE(narrow.size() == 1);
    CHECK_THAT(words(narrow.front().text),
        Contains("only 3.5 mm behind each edge of the " + formatLength(tape - 7, Unit::Mm) + " window"));
    // T − 2·s_z at the mouth: the chain must show.
    Design d = satchel();
    addFeature(d, "top-zip");
    const double mouthTape = valueOf(d, "topzip.tape"), mouthGauge = valueOf(d, "topzip.gauge");
    CHECK(gauge >= 3);
    const auto sewn = [&](double gap) { return told(set(d, "topzip.sewn", (mouthTape - gap) / 2), "zip-gap"); };
    CHECK(sewn(mouthGauge + 2).empty());
    const auto tight = sewn(mouthGauge + 1.5);
    REQUIRE(tight.size() == 1);
    CHECK_THAT(words(tight.front().text), Contains("a gap of " + formatLength(mouthGauge + 1.5, Unit::Mm)));
}

TEST_CASE("Turning openings: 100 mm is no warning, less is; a board must pass with 5 mm to spare")
{
    CHECK(told(set(satchel(), "opening.length", 100), "opening").empty());
    const auto tight = told(set(satchel(), "opening.length", 99), "opening");
    REQUIRE(tight.size() == 1);
    CHECK(tight.front().severity == Severity::Warning);
    // A base as deep as the board is wide: the board's smaller side decides.
    Design d = newDesign("separate-base");
    const Pattern p = medium(d);
    REQUIRE(p.piece("base.board"));
    const Box board = boundsOf(p.piece("base.board")->cut);
    const double side = std::min(board.width(), board.height());
    CHECK(told(set(d, "opening.length", side + 5.1), "opening").empty());
    const auto stuck = told(set(d, "opening.length", side + 4.9), "opening");
    REQUIRE(stuck.size() == 1);
    CHECK(stuck.front().severity == Severity::Error);
    CHECK_THAT(words(stuck.front().text), Contains(formatLength(side, Unit::Mm) + " wide"));
}

TEST_CASE("Places: 10 mm between a pocket and the stitch line are enough; two pockets that touch do not collide")
{
    // A lining drafted smaller has a mouth of its own: the drop is measured from there.
    for (const char* fit : {"smaller", "same"}) {
        Design d = newDesign("boxed-corner");
        setChoice(d, "lining.fit", fit);
        CHECK(told(set(d, "slip.drop", 15), "place").empty());
        const Pattern p = medium(set(d, "slip.drop", 20));
        const auto& lines = p.piece("lining.front")->lines;
        const auto pocket = std::find_if(
            lines.begin(), lines.end(), [](const FaceLine& l) { return l.kind == FaceLine::Kind::Placement; });
        REQUIRE(pocket != lines.end());
        CHECK(boundsOf(p.piece("lining.front")->stitch()).y1 - boundsOf(pocket->run).y1 == Approx(20));
    }
    Design d = newDesign("boxed-corner");
    // Beside the side seam of a flat pouch: 10 mm are enough, 8 are not.
    Design flat = newDesign("flat-pouch");
    if (std::none_of(flat.features.begin(), flat.features.end(), [](const Feature& f) { return f.id == "slip"; }))
        addFeature(flat, "slip-pocket");
    const PieceId face = medium(flat).site(flat.choices.at("slip.site"))->pieces.front();
    const auto beside = [&](double clear) {
        const double half = boundsOf(medium(flat).piece(face)->stitch()).x1;
        return told(set(set(flat, "width", valueOf(flat, "width")), "slip.across",
                        half - clear - valueOf(flat, "slip.width") / 2),
            "place");
    };
    CHECK(beside(10).empty());
    const auto near = beside(8);
    REQUIRE(near.size() == 1);
    CHECK_THAT(words(near.front().text), Contains("only 8 mm lie between"));
    // Side by side on one face: width apart they touch, 2 mm nearer they lie on each other by 2 mm.
    Design two = d;
    addFeature(two, "slip-pocket");
    assign(two, "slip2.site=lining front");
    const double width = valueOf(two, "slip.width"), height = valueOf(two, "slip.height");
    two = set(set(two, "slip.across", -width / 2), "slip2.across", width / 2);
    CHECK(told(two, "collision").empty());
    const auto over = told(set(two, "slip2.across", width / 2 - 2), "collision");
    REQUIRE(over.size() == 1);
    CHECK_THAT(words(over.front().text), Contains("2 mm across and " + formatLength(height, Unit::Mm) + " up"));
}

TEST_CASE("Things to carry: what is as large as the room inside fits, a tenth of a millimetre more is told")
{
    Design d = newDesign("boxed-corner");
    const Space room = medium(d).spaces.front();
    const auto thing = [&](double w, double h, double t) {
        Design with = d;
        with.carried = {{"Box", w, h, t, "main"}};
        return told(with, "carried");
    };
    CHECK(thing(room.width, room.height, room.depth).empty());
    const auto wide = thing(room.width + 0.1, room.height, room.depth),
               tall = thing(room.width, room.height + 0.1, room.depth),
               thick = thing(room.width, room.height, room.depth + 0.1);
    REQUIRE((wide.size() == 1 && tall.size() == 1 && thick.size() == 1));
    CHECK_THAT(words(wide.front().text), Contains("0.1 mm too wide"));
    CHECK_THAT(words(tall.front().text), Contains("0.1 mm too tall"));
    CHECK_THAT(words(thick.front().text), Contains("0.1 mm too thick"));
    // A pocket needs the width, the thickness and 12 mm (common practice, no source).
    const Space* slip = nullptr;
    const Pattern p = medium(d);
    for (const auto& s : p.spaces)
        if (s.place == "slip")
            slip = &s;
    REQUIRE(slip);
    const auto pocketed = [&](double w) {
        Design with = d;
        with.carried = {{"Card", w, 60, 8, "slip"}};
        return told(with, "carried");
    };
    CHECK(pocketed(slip->width - 8 - 12).empty());
    CHECK(pocketed(slip->width - 8 - 12 + 0.2).size() == 1);
}

TEST_CASE("Bulk: a machine that takes just what lies under the foot is enough")
{
    Design d = satchel();
    const Pattern p = medium(d);
    double most = 0;
    std::string where;
    for (const auto& seam : p.seams) {
        const Bulk bulk = bulkAt(p, seam);
        // The parts add up to the sum, each of them as thick as its material under the foot.
        double sum = 0;
        for (const auto& part : bulk.parts)
            sum += part.times * part.each;
        CHECK(bulk.underFoot == Approx(sum));
        CHECK(bulk.atCrossing >= bulk.underFoot);
        const double row = isTopstitched(p, seam) ? bulkUnderTopstitch(p, seam).atCrossing : 0;
        if (std::max(bulk.atCrossing, row) > most)
            most = std::max(bulk.atCrossing, row), where = words(seam.name);
    }
    CHECK(most > 1);
    d.workshop.machineLimit = most + 0.001;
    CHECK(told(d, "bulk").empty());
    d.workshop.machineLimit = most - 0.01;
    const auto heavy = told(d, "bulk");
    REQUIRE(!heavy.empty());
    CHECK_THAT(words(heavy.front().subject), Contains(where));
}

TEST_CASE("Sliders: a strap passes twice, so twice its folded thickness must be within 8 mm")
{
    // 8 mm: common practice, no source.
    Design strap = satchel();
    CHECK(told(strap, "slider").empty());
    bool thick = false;
    for (const auto& m : Library::builtIn()->materials())
        if (m.use == "face" || m.use == "strap") {
            Design other = strap;
            try {
                setMaterial(other,
                    other.materials.contains("strap")
                            && medium(other).piece(medium(other).straps[0].piece)->material == "strap"
                        ? "strap"
                        : "shell",
                    m.id);
            } catch (const std::exception&) {
                continue;
            }
            const Pattern p = medium(other);
            const Piece& piece = *p.piece(p.straps[0].piece);
            const double folded = material(p.materials.at(piece.material)).thickness
                * std::lround(p.straps[0].cutWidth / p.straps[0].width);
            INFO(m.id << " folded " << folded);
            CHECK(told(other, "slider").empty() == (2 * folded <= 8));
            thick |= 2 * folded > 8;
        }
    CHECK(thick); // some cloth is too thick: the check can fail
}

TEST_CASE("A repair mends what it was offered for, in the size it was offered in")
{
    std::vector<Design> broken;
    const auto breaking = [&](const std::string& form, const std::vector<std::pair<std::string, double>>& values) {
        Design d = newDesign(form);
        for (const auto& [name, value] : values)
            d = set(d, name, value);
        broken.push_back(d);
    };
    breaking("gusseted-satchel", {{"connectors.width", 36}});
    breaking("gusseted-satchel", {{"connectors.width", 20}});
    breaking("gusseted-satchel", {{"snap.drop", 198}});
    breaking("gusseted-satchel", {{"opening.length", 60}});
    breaking("separate-base", {{"opening.length", 90}});
    breaking("boxed-corner", {{"connectors.width", 12}});
    broken.push_back(newDesign("boxed-corner"));
    broken.back().carried = {{"Plank", 420, 100, 20, "main"}, {"Post", 40, 420, 20, "main"}};
    int mended = 0;
    for (const Design& d : broken)
        for (const auto& f : checkAll(d, draftAll(d))) {
            if (!f.repair || f.size != d.sizes[1])
                continue;
            INFO(d.form << ": " << words(f.subject) << ": " << words(f.text));
            Design after = d;
            for (const auto& a : f.repair->assignments)
                assign(after, a);
            for (const auto& g : checkAll(after, draftAll(after)))
                CHECK_FALSE((g.check == f.check && g.size == f.size && words(g.subject) == words(f.subject)
                    && words(g.text) == words(f.text)));
            ++mended;
        }
    CHECK(mended >= int(broken.size()) - 1);
}

TEST_CASE("A drop is measured from the mouth of the very face: on every form, every face, in every size")
{
    for (const Form* form : forms())
        for (const char* kind : {"slip-pocket", "patch-pocket", "label"}) {
            Design d = newDesign(form->id());
            std::string id;
            try {
                id = addFeature(d, kind);
            } catch (const InputError&) {
                continue; // no face for it
            }
            for (const auto& site : form->sites())
                for (const char* fit : {"smaller", "same"}) {
                    INFO(form->id() << ", " << kind << " on " << site.name << ", lining " << fit);
                    Design placed = d;
                    try {
                        if (placed.choices.contains("lining.fit"))
                            setChoice(placed, "lining.fit", fit);
                        setChoice(placed, id + ".site", site.name);
                    } catch (const InputError&) {
                        continue; // too large for this face, as its range says
                    }
                    for (const auto& p : draftAll(placed)) {
                        const Site& face = *p.site(site.name);
                        const auto place = std::find_if(
                            p.places.begin(), p.places.end(), [&](const Place& at) { return at.feature == id; });
                        REQUIRE(place != p.places.end());
                        CHECK(
                            face.top - face.upright(place->area).y1 == Approx(p.values.at(id + ".drop")).margin(1e-6));
                        // The mouth is the piece's upper stitch line, but for a roll or a fold.
                        // Beside a zip panel the face begins below its end, on a disc within the channel.
                        const bool band = form->id() == "zip-around" || form->id() == "polygon";
                        const bool lower = form->id() == "roll-top" || form->id() == "envelope-clutch"
                            || form->id() == "circle-pouch" || (band && face.turn != 0);
                        double edge = -1e300;
                        for (const auto& key : face.pieces)
                            edge = std::max(edge, face.upright(boundsOf(p.piece(key)->stitch())).y1);
                        if (lower)
                            CHECK(face.top <= edge);
                        else
                            CHECK(face.top == Approx(edge).margin(1e-6));
                    }
                }
        }
}

TEST_CASE("An outline whose corner lies on another of its sides is told: GEOS calls it no simple ring either")
{
    // Two sides of 100 with turns of 120° end on the line of the side before them: an equilateral triangle.
    const double h = 50 * std::sqrt(3.0);
    const Polyline touching{{0, 0}, {300, 0}, {300, 200}, {250, 200 - h}, {200, 200}, {150, 0}, {0, 200}, {0, 0}};
    CHECK_FALSE(Geos().valid(touching));
    const auto at = selfCrossing(touching);
    REQUIRE(at);
    CHECK(distance(*at, {150, 0}) < 0.001);
    Polyline apart = touching;
    apart[5].y = 0.01;
    CHECK(Geos().valid(apart));
    CHECK_FALSE(selfCrossing(apart));
    // A very short side between two others brings them near each other, which is no fault.
    CHECK_FALSE(selfCrossing({{0, 0}, {100, 0}, {100.0005, 0.0005}, {100, 100}, {0, 100}, {0, 0}}));
}

TEST_CASE("Places: what lies too near to a seam, or over it, is mended in one stroke by its own drop or way in")
{
    int mended = 0;
    for (const auto& [name, value] : {std::pair{"connectors.down", "30"}, {"slip.drop", "9"}}) {
        Design d = newDesign("gusseted-satchel");
        if (std::string(name).starts_with("connectors")) {
            setChoice(d, "connectors.held", "riveted");
            setChoice(d, "connectors.site", "back");
        }
        try {
            setDimension(d, name, value);
        } catch (const InputError&) {
            continue;
        }
        const auto places = [](const Design& design) {
            auto all = checkAll(design, draftAll(design));
            std::erase_if(all, [](const Finding& f) { return f.check != "place"; });
            return all;
        };
        for (int i = 0; i < 6; ++i) { // a size at a time
            const auto found = places(d);
            if (found.empty())
                break;
            INFO(name << ": " << words(found.front().text));
            REQUIRE(found.front().repair);
            edit(d, [&](Design& next) { change::repair(next, found.front()); });
            ++mended;
        }
        CHECK(places(d).empty());
    }
    CHECK(mended >= 1);
}

TEST_CASE("Places: a window whose corner lies on the stitch line is moved inwards, whichever side it lies on")
{
    for (const char* across : {"-40", "40"}) {
        Design d = with("zip-around", {"width=300", "height=400"});
        const std::string pocket = addFeature(d, "patch-pocket"), zip = addFeature(d, "zip-pocket");
        assign(d, pocket + ".width=180");
        setChoice(d, zip + ".site", pocket + ".front");
        setRule(d, zip + ".length", hold());
        assign(d, zip + ".length=100");
        assign(d, zip + ".across=" + across);
        const auto on = found(d, "place");
        REQUIRE(on.size() == 1);
        REQUIRE(on.front().repair);
        CHECK(on.front().repair->assignments
            == std::vector<std::string>{zip + ".across=" + (across[0] == '-' ? "-30" : "30")});
        edit(d, [&](Design& next) { change::repair(next, on.front()); });
        CHECK(found(d, "place").empty());
    }
}

TEST_CASE("Bulk: a belt's two ends lie at two sides of the bag, and not under one foot")
{
    Design d = newDesign("polygon");
    addFeature(d, "belt");
    const Pattern p = draftAll(d)[1];
    const Seam* seam = nullptr;
    for (const auto& s : p.seams)
        if (s.trapped.size() == 2)
            seam = &s;
    REQUIRE(seam);
    double belts = 0, thickest = 0, sum = 0;
    for (const auto& part : bulkAt(p, *seam).parts)
        if (std::find(seam->trapped.begin(), seam->trapped.end(), part.piece->key) != seam->trapped.end())
            belts += part.times * part.each;
    for (const auto& key : seam->trapped) {
        const Piece& end = *p.piece(key);
        const double each = end.plies * p.material(p.materials.at(end.material)).underFoot();
        thickest = std::max(thickest, each), sum += each;
    }
    CHECK(belts == Approx(thickest));
    CHECK(belts < sum);
}

TEST_CASE("Turning openings: where round corners leave no room for one, the repair makes the corners smaller")
{
    Design d = newDesign("gusseted-satchel");
    for (const char* each : {"width=240", "height=180", "radius=45", "opening.length=105"})
        assign(d, each);
    const auto told = [](const Design& design) {
        auto all = checkAll(design, draftAll(design));
        std::erase_if(all, [](const Finding& f) { return f.check != "opening-place"; });
        return all;
    };
    auto found = told(d);
    REQUIRE(!found.empty());
    for (int i = 0; i < 8 && !found.empty(); ++i, found = told(d)) {
        REQUIRE(found.front().repair);
        edit(d, [&](Design& next) { change::repair(next, found.front()); });
    }
    CHECK(found.empty());
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.size == "S") // in L the board would not pass, before as after
            CHECK(f.check != "opening");
}

TEST_CASE("Stretch: cloth that gives is doubted where nothing firm lies behind the whole piece")
{
    Design d = newDesign("gusseted-satchel");
    std::erase_if(d.layers, [](const LayerRule& r) { return r.pieces == "panel"; }); // the snap's patch stays
    Library::Contents all = d.library->contents();
    for (auto& m : all.materials)
        if (m.id == "canvas-12")
            m.stretch = 12;
    d.library = SharedLibrary(Library(all));
    const auto told = [](const Design& design) {
        std::set<std::string> out;
        for (const auto& f : checkAll(design, draftAll(design)))
            if (f.check == "stretch")
                out.insert(f.key.text());
        return out;
    };
    const auto found = told(d);
    const Pattern p = draftAll(d)[1];
    int held = 0;
    for (const auto& piece : p.pieces) {
        if (p.materials.at(piece.material) != MaterialId("canvas-12"))
            continue;
        const bool behind = std::any_of(
            piece.layers.begin(), piece.layers.end(), [](const Layer& layer) { return layer.wholePiece; });
        INFO(piece.key.text());
        CHECK(found.contains(piece.key.text()) == !behind);
        held += behind;
    }
    CHECK(held >= 1);
    CHECK(found.contains("front"));
    for (auto& m : all.materials)
        m.stretch = 5;
    d.library = SharedLibrary(Library(all));
    CHECK(told(d).empty());
}
