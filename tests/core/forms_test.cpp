// SPDX-License-Identifier: GPL-3.0-or-later
// All body forms: every choice drafts, sews and folds; and the geometry of each against hand-worked or outside values.
#include "drawn.hpp"
#include "geos.hpp"

#include "checks/finding.hpp"
#include "drafting/plans.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "mockup/carry.hpp"
#include "pattern/template.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <set>

using namespace tectonis;

TEST_CASE("The drawing of every form and part is there, hangs together and stays within its 100 by 100")
{
    const auto look = [](const std::string& of, const std::vector<Run>& drawing) {
        INFO(of);
        REQUIRE(!drawing.empty());
        for (const Run& run : drawing) {
            REQUIRE(!run.empty());
            for (std::size_t i = 1; i < run.size(); ++i)
                CHECK(distance(endOf(run[i - 1]), startOf(run[i])) < 0.5);
            for (const Point p : flattened(run, 0.5))
                CHECK((p.x >= -0.5 && p.x <= 100.5 && p.y >= -0.5 && p.y <= 100.5));
        }
    };
    for (const Form* form : forms())
        look(form->id(), form->silhouette());
    for (const FeatureKind* kind : featureKinds())
        look(kind->kind(), kind->silhouette());
}

TEST_CASE("Twelve families of forms, each with silhouette, ranges and a design that is in order")
{
    CHECK(forms().size() >= 12);
    for (const Form* form : forms()) {
        INFO(form->id());
        CHECK(!form->silhouette().empty());
        CHECK(form->meaning().size() > 40);
        const Design fresh = newDesign(form->id());
        for (const auto& d : specOf(fresh).dimensions) {
            INFO(d.name);
            CHECK(d.meaning.size() > 10);
            CHECK(!d.label.empty());
        }
        // Every option of every choice, one at a time.
        for (const auto& choice : specOf(fresh).choices)
            for (const auto& [value, label] : choice.options) {
                INFO(choice.name << " = " << value);
                Design d = fresh;
                try {
                    setChoice(d, choice.name, value);
                } catch (
                    const InputError&) { // two facings at one height of one face; parts that want a lining, or sides
                    const bool known = choice.name.ends_with(".site") || value.starts_with("unlined")
                        || value == "flat";
                    CHECK(known);
                    continue;
                }
                for (const auto& p : draftAll(d)) {
                    for (const auto& seam : p.seams) {
                        INFO(seam.name);
                        CHECK(std::abs(seam.difference()) < 0.01);
                    }
                    const Mockup mockup = mockupOf(d, p);
                    CHECK(mockup.largestGap < 1);
                    CHECK(mockup.facets.size() > 2);
                    const auto order = orderOf(d, p);
                    CHECK(brokenRules(p, order).empty());
                    const auto states = dryRun(p, order);
                    CHECK(states.back().parts == std::vector<WorkId>{"bag"});
                    for (const auto& s : states)
                        CHECK(s.problems.empty());
                    // Codes and keys are each piece's own; every step names what is there.
                    std::set<std::string> codes, keys, ids;
                    for (const auto& piece : p.pieces) {
                        INFO(piece.key);
                        CHECK(codes.insert(piece.code).second);
                        CHECK(keys.insert(piece.key.text()).second);
                    }
                    for (const auto& s : p.steps) {
                        INFO(s.id);
                        CHECK(ids.insert(s.id.text()).second);
                        for (const auto& key : s.pieces)
                            CHECK(p.piece(key) != nullptr);
                        for (const auto& key : s.seams)
                            CHECK(p.seam(key) != nullptr);
                    }
                }
            }
        for (const auto& f : checkAll(fresh, draftAll(fresh))) {
            INFO(words(f.subject) << ": " << words(f.text));
            CHECK(f.severity == Severity::Note);
        }
    }
}

TEST_CASE("Any fitting form takes a second pocket and a flap, in all sizes; what it cannot carry is refused in words")
{
    int carried = 0, refused = 0;
    for (const Form* form : forms())
        for (const FeatureKind* kind : featureKinds()) {
            INFO(form->id() << " + " << kind->kind());
            Design d = newDesign(form->id());
            const Design before = d;
            try {
                const std::string id = addFeature(d, kind->kind());
                ++carried;
                for (const auto& p : draftAll(d)) {
                    for (const auto& seam : p.seams)
                        CHECK(std::abs(seam.difference()) < 0.01);
                    CHECK(dryRun(p, orderOf(d, p)).back().parts == std::vector<WorkId>{"bag"});
                }
                removeFeature(d, id);
                draftAll(d);
            } catch (const InputError& e) {
                ++refused;
                CHECK(std::string(e.what()).size() > 20);
                CHECK(d == before);
            }
        }
    CHECK(carried > 50);
    CHECK(refused > 0);
}

TEST_CASE("Boxed corners: three schools finish at the same width, height and depth")
{
    // Hand-worked: width 300, height 300, depth 100, all allowances 10 (pure geometry).
    const auto boxed = [](const std::string& school) { return with("boxed-corner", {"boxing=" + school}); };
    const Pattern cut = medium(boxed("pre-cut")), seams = medium(boxed("from-seams")), across = medium(boxed("across"));
    for (const char* school : {"pre-cut", "from-seams", "across"})
        CHECK(mediumMockup(boxed(school)).litres == Approx(0.3 * 0.3 * 0.1 * 1000).epsilon(1e-3));
    CHECK(worked(cut, "box.square") == Approx(50));    // depth = 2c
    CHECK(worked(seams, "box.square") == Approx(40));  // depth = 2(q + s)
    CHECK(worked(across, "box.across") == Approx(50)); // depth = 2a
    for (const Pattern* p : {&cut, &seams, &across}) {
        const Box raw = boundsOf(p->piece("front")->cut);
        CHECK(raw.width() == Approx(300 + 100 + 20).margin(0.01));
        CHECK(raw.height() == Approx(300 + 50 + 20).margin(0.01));
        CHECK(p->seam("box right")->lengthA
            == Approx(100).margin(0.001)); // the corner as sewn is as wide as the bag is deep
    }
    // The raw square is really c: two cut edges of the notch, 50 mm from the raw edges.
    const Piece& front = *cut.piece("front");
    const double uncut = 420.0 * 370.0 - areaOf(front.cut);
    CHECK(uncut == Approx(2 * 50.0 * 50.0).margin(0.01));
    CHECK(Geos().area(flattened(front.cut)) == Approx(areaOf(front.cut)).margin(0.01)); // GEOS
}

TEST_CASE("Bases: girth of rectangle, circle, stadium and ellipse; walls are as long as the base seam")
{
    CHECK(lengthOf(roundedPlan(320, 120, 25)) == Approx(2 * (320 + 120) - 8 * 25 + 2 * pi * 25).margin(1e-9));
    CHECK(lengthOf(stadiumPlan(220, 140)) == Approx(pi * 140 + 2 * 80).margin(1e-9));
    CHECK(lengthOf(stadiumPlan(200, 200)) == Approx(2 * pi * 100).margin(1e-9));
    // Ellipse: the perimeter of semi-axes 2 and 1 is 9.688448220547675 (complete elliptic integral of the second kind,
    // NIST DLMF 19.9.9; from memory).
    CHECK(lengthOf(ellipsePlan(400, 200)) == Approx(968.8448220547675).margin(0.001));
    // And against Ramanujan's second formula, good to 1e-9 at this flatness (handbook formula).
    const double a = 110, b = 70, h = std::pow((a - b) / (a + b), 2);
    CHECK(lengthOf(ellipsePlan(2 * a, 2 * b))
        == Approx(pi * (a + b) * (1 + 3 * h / (10 + std::sqrt(4 - 3 * h)))).margin(0.001));
    CHECK(areaOf(ellipsePlan(2 * a, 2 * b)) == Approx(pi * a * b).epsilon(1e-5));
    for (const char* shape : {"round", "stadium", "ellipse"}) {
        INFO(shape);
        const Design d = with("cylinder", {std::string("base.shape=") + shape});
        const Pattern p = medium(d);
        CHECK(p.seam("base")->lengthA == Approx(p.seam("base")->lengthB).margin(0.001));
        CHECK(mockupOf(d, p).litres == Approx(areaOf(p.piece("base")->stitch()) * p.height / 1e6).epsilon(3e-3));
    }
    // Inverse: a strip cut 2πr + 2s long gives the radius back.
    CHECK(worked(medium(newDesign("cylinder")), "base.fromStrip") == Approx(110).margin(1e-9));
    const Design boxy = with("separate-base", {"base.radius=0"});
    const Pattern box = medium(boxy);
    CHECK(mockupOf(boxy, box).litres == Approx(0.32 * 0.12 * 0.34 * 1000).epsilon(1e-3));
    CHECK(box.seam("base")->lengthA == Approx(2 * (320 + 120)).margin(1e-6)); // front and back are w + d wide
}

TEST_CASE("Closed loops: the sections add up to the face's outline, the zip strips and the gap to the depth")
{
    for (const char* form : {"zip-around", "polygon"})
        for (const char* bands : {"one", "three"})
            for (const auto& p : draftAll(with(form, {std::string("bands=") + bands}))) {
                INFO(form << " " << bands << " " << p.size);
                double loop = 0;
                for (const auto& use : p.seam("front-loop")->b)
                    loop += p.piece(use.piece)->edge(use.edge)->length();
                double face = 0;
                for (const auto& e : p.piece("front")->edges)
                    face += e.length();
                CHECK(loop == Approx(face).margin(0.001));
                const double strip = p.piece("zip strip")->edge("right")->length(), gap = 32 - 2 * 10;
                CHECK(2 * strip + gap == Approx(p.values.at("depth")).margin(1e-9));
            }
    // Corner angles of n sides sum up to (n − 2)·180°, and the outline closes.
    for (int n = 5; n <= 8; ++n) {
        const Run face = polygonPlan(n, 100);
        CHECK(lengthOf(face) == Approx(100.0 * n).margin(1e-9));
        CHECK(distance(startOf(face), endOf(face)) < 1e-9);
        CHECK(areaOf(face)
            == Approx(n * 100.0 * 100.0 / (4 * std::tan(pi / n))).epsilon(1e-9)); // handbook: regular polygon
        const Pattern p = medium(with("polygon", {"sides=" + std::to_string(n)}));
        CHECK(worked(p, "face.angles") == Approx((n - 2) * 180.0));
        CHECK(worked(p, "face.last")
            == Approx(p.values.at("side")).margin(1e-6)); // regular: the closing side is like the others
        CHECK(areaOf(p.piece("front")->stitch())
            == Approx(n * std::pow(p.values.at("side"), 2) / (4 * std::tan(pi / n))).epsilon(1e-9));
    }
    // Stop squares lie at the running lengths of the sides, alike on both long edges of the band.
    const Pattern p = medium(newDesign("polygon"));
    const Piece& band = *p.piece("band");
    int stops = 0;
    for (const auto& n : band.notches)
        if (n.stop && n.edge == "front") {
            ++stops;
            CHECK(std::any_of(band.notches.begin(), band.notches.end(), [&](const Notch& m) {
                return m.stop && m.edge == "back" && std::abs(m.along - (band.edge("back")->length() - n.along)) < 0.01;
            }));
        }
    CHECK(stops >= 3);
}

TEST_CASE("Polygons by their own sides and angles: they close, loop and back agree, what does not close is refused")
{
    // A right-angled house: 200 wide, walls 100, a ridge in the middle. Its roof sides are the hypotenuse of 100 and
    // 75: 125.
    const Design house = with("polygon",
        {"sides=5", "side.1=200", "side.2=100", "angle.1=90", "side.3=125", "angle.2=126.8698976458440", "side.4=125",
            "angle.3=106.2602047083120"});
    const Pattern p = medium(house);
    CHECK(p.width == Approx(200));
    CHECK(p.height == Approx(175));
    CHECK(worked(p, "face.last") == Approx(100).margin(1e-6));
    CHECK(areaOf(p.piece("front")->stitch()) == Approx(200 * 100 + 200 * 75 / 2.0));
    CHECK(areaOf(p.piece("back")->stitch()) == Approx(200 * 100 + 200 * 75 / 2.0));
    CHECK(mockupOf(house, p).litres == Approx((200 * 100 + 200 * 75 / 2.0) * p.depth / 1e6).epsilon(1e-6));
    // Nothing mirrors an uneven face but its back: seams agree and nothing gapes.
    Design uneven = with("polygon", {"sides=6", "side.2=150", "side.3=90", "angle.2=130"});
    for (const char* bands : {"one", "three"}) {
        setChoice(uneven, "bands", bands);
        for (const Pattern& each : draftAll(uneven)) {
            CHECK(mockupOf(uneven, each).largestGap < 0.5);
            for (const auto& s : each.seams)
                CHECK(std::abs(s.difference()) < 0.01);
            const Run back = placed(each.piece("back")->stitch(), {0, 0, 0, true});
            CHECK(Geos().sharedArea(flattened(back), flattened(each.piece("front")->stitch()))
                == Approx(areaOf(each.piece("front")->stitch())));
        }
    }
    assign(uneven, "angle.1=60");
    const Design before = uneven;
    CHECK_THROWS_WITH(assign(uneven, "angle.2=60"), Catch::Contains("do not close"));
    CHECK_THROWS_AS(assign(uneven, "angle.1=179"), InputError);
    CHECK(uneven == before);
    assign(uneven, "angle.1=121°"); // degrees may be typed with their sign
    CHECK(medium(uneven).values.at("angle.1") == Approx(121));
}

TEST_CASE("Envelope, circle, roll top, hinged mouth, frame: their own arithmetic")
{
    // Envelope for 210 × 140 × 15: width 210 + 15 + 12; length twice the pocket, the flap, and half the thickness lost
    // at each fold.
    const Pattern envelope = medium(newDesign("envelope-clutch"));
    CHECK(envelope.width == Approx(237));
    CHECK(envelope.height == Approx(140 + 7.5 + 8));
    CHECK(boundsOf(envelope.piece("body")->stitch()).height() == Approx(worked(envelope, "body.length")).margin(0.001));
    CHECK(worked(envelope, "body.length") == Approx(2 * 155.5 + 7.5 + 0.6 * 155.5 + 3.75).margin(1e-6));
    // Circle: each cord 2πρ + two tails.
    const Pattern circle = medium(newDesign("circle-pouch"));
    CHECK(worked(circle, "cord.length") == Approx(2 * pi * 140 + 360).margin(1e-6));
    CHECK(areaOf(circle.piece("disc")->cut) == Approx(pi * 188 * 188).epsilon(1e-9));
    // Quarter templates of the doubly symmetric disc.
    const Pattern quarter = medium(with("circle-pouch", {"templates=quarter", "inner=no"}));
    CHECK(quarter.piece("lining.disc")->folds == 2);
    // With eight pockets all three discs fold twice; a quarter is a quarter.
    const Pattern pockets = medium(with("circle-pouch", {"templates=quarter", "pockets=8"}));
    for (const auto& piece : pockets.pieces) {
        INFO(piece.key);
        CHECK(piece.folds == 2);
        const Piece part = templateOf(piece);
        CHECK(4 * areaOf(part.cut) == Approx(areaOf(piece.cut)).epsilon(1e-6));
        CHECK(part.edges.size() == 3); // the rim and both folds
    }
    // Roll top: three folds of 45 on 420.
    const Pattern roll = medium(newDesign("roll-top"));
    CHECK(worked(roll, "rolled") == Approx(420 + 3 * 45));
    CHECK(mediumMockup(newDesign("roll-top")).litres == Approx(0.29 * 0.14 * 0.42 * 1000).epsilon(5e-3));
    CHECK_THROWS_AS(with("roll-top", {"rolls=2"}), InputError);
    // Hinged mouth: each channel is half of the mouth; stays are shorter by the hinges' room.
    const Pattern hinged = medium(newDesign("hinged-mouth"));
    CHECK(hinged.piece("channel")->edge("bottom")->length() == Approx(320 + 160));
    CHECK(worked(hinged, "stay.length") == Approx(480 - 16));
    // Frame: the card is smaller on every edge by wall, covering and clearance; the cover reaches down beside the
    // padding, over rim and wall, and turns in.
    const Pattern frame = medium(newDesign("frame-clutch"));
    CHECK(boundsOf(frame.piece("card")->cut).width() == Approx(180 - 2 * (2 + 0.8 + 0.5)).margin(1e-6));
    CHECK(boundsOf(frame.piece("cover")->cut).width() == Approx(180 + 2 * (3 + 25 + 2 + 10)).margin(1e-6));
    // Tote: two rows of three rivets on each of four patches.
    const Pattern tote = medium(newDesign("large-tote"));
    CHECK(worked(tote, "corner.count") == Approx(10)); // three in a row, two rows that share the corner: 5 × 2 patches
    CHECK(std::count_if(tote.fittings.begin(), tote.fittings.end(), [](const Fitting& f) {
        return f.kind == Fitting::Kind::Rivet;
    }) == 20);
}

TEST_CASE("Handles: length from drop and spread; half an ellipse")
{
    // Drop equal to half of the spread: half a circle.
    Design d = newDesign("large-tote");
    assign(d, "handles.spread=200");
    assign(d, "handles.drop=100");
    assign(d, "handles.end=50");
    CHECK(worked(medium(d), "handles.bow") == Approx(pi * 100).margin(1e-6));
    CHECK(worked(medium(d), "handles.length") == Approx(pi * 100 + 100 + 2 * 15).margin(1e-6));
    setChoice(d, "handles.make", "rolled");
    CHECK(boundsOf(medium(d).piece("handles")->stitch()).width()
        == Approx(pi * 10 + 20).margin(1e-6)); // once round the cord and two allowances
}

TEST_CASE("Round spaces: a box in a bucket must pass the circle, not its square")
{
    CHECK(depthAt(0, 200, 200, 100) == Approx(200));
    CHECK(depthAt(120, 200, 200, 100) == Approx(160)); // 2·√(100² − 60²)
    CHECK(depthAt(80, 220, 140, 70) == Approx(140));   // within the straights of a stadium
    Design d = with("cylinder", {"width=200"});
    d.carried = {{"Box", 120, 100, 170, "main"}};
    const auto placed = placeCarried(d, medium(d));
    CHECK(placed.front().overDepth > 0);
    d.carried = {{"Box", 120, 100, 120, "main"}};
    CHECK(placeCarried(d, medium(d)).front().overDepth <= 0);
}

TEST_CASE("Things stand on the floor of their pocket, where that is sewn on; in a flat pouch on its bottom")
{
    Design pouch = with("flat-pouch", {});
    pouch.carried = {{"Tablet", 180, 150, 8, "main"}, {"Card", 60, 90, 1, "pocket"}};
    for (const auto& thing : placeCarried(pouch, medium(pouch)))
        CHECK(thing.y == Approx(0));
    pouch.carried = {{"Map", 200, 150, 1, "main"}}; // 20 mm wider than what lies between corners of 30
    CHECK(placeCarried(pouch, medium(pouch)).front().y == Approx(30 - std::sqrt(900.0 - 100.0)));
    Design d = newDesign("gusseted-satchel");
    const std::string id = addFeature(d, "patch-pocket");
    d.carried = {{"Phone", 60, 90, 9, id}};
    for (const char* value : {"width=100", "height=120", "drop=70", "across=30"})
        assign(d, id + "." + value);
    for (const auto& [site, x, sign] :
        {std::tuple{"front", 30.0, 1}, {"back", -30.0, -1}, {"lining front", -30.0, 1}, {"lining back", 30.0, -1}}) {
        setChoice(d, id + ".site", site);
        const Pattern p = medium(d);
        const auto thing = placeCarried(d, p).front();
        INFO(site);
        CHECK(thing.x == Approx(x));
        CHECK(thing.y == Approx(p.height - 70 - 120).margin(0.5));
        CHECK(thing.z * sign == Approx(p.spaces.front().depth / 2 - 4.5));
    }
    // The bag behind a window hangs from it.
    const std::string zip = addFeature(d, "zip-pocket");
    setChoice(d, zip + ".site", "lining back");
    assign(d, zip + ".drop=50");
    d.carried = {{"Strings", 60, 60, 8, zip}};
    const Pattern p = medium(d);
    CHECK(placeCarried(d, p).front().y == Approx(p.height - 50 - p.values.at(zip + ".depth")).margin(0.5));
}

TEST_CASE("Match marks of wall and base lie at the same lengths; a flap stitched on needs no seam across")
{
    const Pattern p = medium(newDesign("separate-base"));
    const auto marksOf = [&](const std::vector<EdgeUse>& side) {
        std::vector<double> out;
        double at = 0;
        for (const auto& use : side) {
            const Piece& piece = *p.piece(use.piece);
            for (const auto& n : piece.notches)
                if (n.edge == use.edge)
                    out.push_back(at + (use.reversed ? piece.edge(use.edge)->length() - n.along : n.along));
            at += piece.edge(use.edge)->length();
        }
        return out;
    };
    const auto walls = marksOf(p.seam("base")->a), base = marksOf(p.seam("base")->b);
    CHECK(walls.size() >= 6);
    for (const double at : walls)
        CHECK(std::any_of(base.begin(), base.end(), [&](double b) { return std::abs(b - at) < 0.01; }));
    Design d = newDesign("cylinder");
    addFeature(d, "flap");
    setChoice(d, "flap.mount", "on");
    CHECK(medium(d).piece("front") != nullptr);
    CHECK(medium(d).seam("flap.on") != nullptr);
}

TEST_CASE("Two pockets on one place are a finding with distances")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "slip-pocket"); // goes where it is in nobody's way
    CHECK(d.choices.at("slip.site") == "lining front");
    CHECK(d.choices.at("slip2.site") == "back"); // the other lining face holds a window zip pocket
    CHECK(checkAll(d, draftAll(d)).size()
        == checkAll(newDesign("gusseted-satchel"), draftAll(newDesign("gusseted-satchel"))).size());
    setChoice(d, "slip2.site", "lining front");
    const auto findings = checkAll(d, draftAll(d));
    const auto collision = [](const Findings& all) {
        return std::find_if(all.begin(), all.end(), [](const Finding& f) { return f.check == "collision"; });
    };
    REQUIRE(collision(findings) != findings.end());
    CHECK(words(collision(findings)->text).find("110 mm across and 130 mm up") != std::string::npos);
    setChoice(d, "slip2.site", "back");
    const auto after = checkAll(d, draftAll(d));
    CHECK(collision(after) == after.end());
}

TEST_CASE("Patch pockets: pleats take 2p each, fullness 2t, a bellows strip goes once round; dividers divide evenly")
{
    Design d = newDesign("boxed-corner");
    addFeature(d, "patch-pocket");
    for (const char* a : {"patch.width=160", "patch.height=120", "patch.depth=15"})
        assign(d, a);
    const auto widthOf = [](const Pattern& p) { return boundsOf(p.piece("patch")->stitch()).width(); };
    CHECK(widthOf(medium(d)) == Approx(160));
    setChoice(d, "patch.body", "pleated");
    CHECK(widthOf(medium(d)) == Approx(160 + 2 * 2 * 15));
    CHECK(std::abs(medium(d).seam("patch.on")->difference()) < 0.01); // stated as ease, with where it is taken up
    CHECK(!medium(d).seam("patch.on")->easeNote.empty());
    setChoice(d, "patch.body", "full");
    CHECK(widthOf(medium(d)) == Approx(160 + 2 * 15));
    setChoice(d, "patch.body", "bellows");
    const Pattern p = medium(d);
    CHECK(p.piece("patch.bellows")->edge("bottom")->length() == Approx(2 * 120 + 160));
    CHECK(p.seam("patch.bellows")->lengthA == Approx(p.seam("patch.bellows")->lengthB));
    int stops = 0;
    for (const auto& n : p.piece("patch.bellows")->notches)
        stops += n.stop ? 1 : 0;
    CHECK(stops == 2);
    setChoice(d, "patch.body", "flat");
    assign(d, "patch.parts=4");
    const Pattern divided = medium(d);
    int dividers = 0;
    for (const auto& line : divided.piece("patch")->lines)
        if (line.name == "divider")
            CHECK(startOf(line.run).x == Approx(40 * ++dividers));
    CHECK(dividers == 3);
}

TEST_CASE("Drawstring: eyelets evenly divided round the mouth, all at the drop; cord is the mouth and two tails")
{
    Design d = with("cylinder", {"width=200"});
    addFeature(d, "drawstring");
    assign(d, "drawstring.drop=30");
    assign(d, "drawstring.tail=200");
    const Pattern p = medium(d);
    CHECK(worked(p, "drawstring.cord") == Approx(pi * 200 + 400).margin(1e-6));
    CHECK(worked(p, "drawstring.spacing") == Approx(pi * 200 / 8).margin(1e-6));
    int eyelets = 0;
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Eyelet) {
            ++eyelets;
            const Piece& wall = *p.piece(f.piece);
            CHECK(distanceTo(flattened(wall.edge("top")->stitch), f.at) == Approx(30).margin(1e-6));
            CHECK(insideOutline(flattened(wall.stitch()), f.at));
        }
    CHECK(eyelets == 8);
    setChoice(d, "drawstring.through", "channel");
    int rows = 0;
    const Pattern drawn = medium(d);
    for (const auto& line : drawn.piece("front")->lines)
        rows += line.kind == FaceLine::Kind::Topstitch ? 1 : 0;
    CHECK(rows == 2);
}
