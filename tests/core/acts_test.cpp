// SPDX-License-Identifier: GPL-3.0-or-later
// Acts: what a step does, and the words that follow. Hand-worked facts are the trade's (common practice, no source).
#include "drawn.hpp"
#include "every_design.hpp"

#include "checks/finding.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"

#include <regex>

using namespace tectonis;
using Catch::Contains;

namespace {

std::size_t at(const Pattern& p, const char* step)
{
    for (std::size_t i = 0; i < p.steps.size(); ++i)
        if (p.steps[i].id == step)
            return i;
    FAIL("no step " << step);
    return 0;
}

const Act& actOf(const Pattern& p, const char* step, Act::Verb verb)
{
    const Step* s = p.step(step);
    REQUIRE(s);
    const auto it = std::find_if(s->acts.begin(), s->acts.end(), [&](const Act& a) { return a.verb == verb; });
    REQUIRE(it != s->acts.end());
    return *it;
}

Findings unplaced(const Design& d, const Pattern& p)
{
    Findings out;
    for (auto& f : check({d, specOf(d), p}))
        if (f.check == "no-act")
            out.push_back(f);
    return out;
}

} // namespace

TEST_CASE("Every seam is sewn by one act, everything bought is put in its place, on every form with every part")
{
    int steps = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        const Pattern p = medium(d);
        const auto lost = unplaced(d, p);
        if (!lost.empty())
            INFO(words(lost.front().subject) << ": " << words(lost.front().text));
        CHECK(lost.empty());
        for (const auto& step : p.steps) {
            INFO(step.id);
            ++steps;
            const StepWords said = told(p, step);
            CHECK(!said.text.empty());
            CHECK(!said.tool.empty());
            const std::string text = words(said.text);
            CHECK(text.find("  ") == std::string::npos);
            CHECK_FALSE(std::regex_search(text, std::regex("[a-z]\\.[a-z]"))); // no names of inner parts
            // An iron only where what is handled bears it.
            bool harmed = !step.pieces.empty();
            for (const auto& id : step.pieces) {
                const Piece* piece = p.piece(id);
                harmed &= piece && !p.material(p.materials.at(piece->material)).heat;
            }
            if (harmed && step.kind != StepKind::Interline)
                CHECK(words(said.tool).find("iron") == std::string::npos);
        }
    });
    CHECK(steps > 3000);
}

TEST_CASE(
    "A seam without its act, a seam sewn twice, a slider that is never threaded, a thing that is not bought: told")
{
    const Design& d = satchel();
    const Pattern good = medium(d);
    CHECK(unplaced(d, good).empty());
    const auto broken = [&](auto change) {
        Pattern p = good;
        for (auto& step : p.steps)
            change(step);
        std::string out;
        for (const auto& f : unplaced(d, p))
            out += words(f.subject) + ": " + words(f.text) + "\n";
        return out;
    };
    CHECK_THAT(broken([](Step& s) {
        if (s.id == "flap.sew")
            s.acts.clear();
    }),
        Contains("Flap to its lining") && Contains("no step sews it"));
    CHECK_THAT(broken([](Step& s) {
        if (s.id == "gusset.clip")
            s.acts.push_back(act::sew({"front-gusset"}));
    }),
        Contains("Front to gusset") && Contains("2 steps sew it"));
    CHECK_THAT(broken([](Step& s) {
        for (auto& a : s.acts)
            std::erase(a.uses, Ware::Slider);
    }),
        Contains("Slider: it is bought, but no step"));
    CHECK_THAT(broken([](Step& s) {
        if (s.id == "mouth")
            s.acts.push_back(act::note(say("Hang it up."), {Ware::Foot}));
    }),
        Contains("it uses “Foot”, which is not bought"));
}

TEST_CASE("A flap in a seam across the back: its outer side on the lower half's right side, allowances down")
{
    const Pattern p = medium(satchel());
    // Worked order A: laid on the half that it does not hang over, the side that faces outwards in the end below.
    const Act& lay = actOf(p, "flap.baste", Act::Verb::Lay);
    CHECK(lay.pieces == std::vector<PieceId>{p.piece("flap.outer")->key, "back.lower"});
    CHECK_THAT(words(textOf(p, "flap.baste")), Contains("Lay the flap on the lower back, right sides together"));
    const Act& press = actOf(p, "flap.join", Act::Verb::Press);
    const Seam& seam = *p.seam(press.seams.front());
    CHECK((press.to == Act::To::First ? seam.a : seam.b).front().piece == "back.lower");
    CHECK_THAT(words(textOf(p, "flap.join")),
        Contains("with the flap and flap lining between") && Contains("towards the lower back")
            && Contains("Topstitch 3.2 mm from the seam, on the lower back"));
    // It is kept out of the seams that come after.
    CHECK_THAT(words(textOf(p, "back-gusset")), Contains("The flap is folded out of the way"));
    CHECK_THAT(words(textOf(p, "mouth")), Contains("The flap is folded down between the layers"));
    for (const char* step : {"front-gusset", "flap.join", "flap.sew", "lining.back-gusset"})
        CHECK_THAT(words(textOf(p, step)), !Contains("flap is folded"));
    CHECK(p.step("snap.flap")->pieces == std::vector<PieceId>{p.piece("flap.lining")->key});
    CHECK_THAT(words(textOf(p, "connectors.baste")), Contains("stand 6 mm past that edge"));
}

TEST_CASE("Worked order A: what must come before what")
{
    const Pattern p = medium(with("gusseted-satchel", {"gusset.strips=two"}));
    const std::pair<const char*, const char*> relations[] = {{"interline.basted", "front-gusset"},
        {"snap.flap", "flap.sew"}, {"snap.front", "front-gusset"}, {"snap.front", "mouth"}, {"flap.baste", "flap.join"},
        {"flap.join", "back-gusset"}, {"connectors.baste", "mouth"}, {"gusset.clip", "front-gusset"},
        {"slip.on", "lining.front-gusset"}, {"zip.window", "lining.back-gusset"}, {"zip.zip", "zip.bag"},
        {"mouth", "turn"}, {"turn", "board"}, {"board", "close"}, {"gusset.join", "front-gusset"},
        {"close", "strap.attach"}};
    for (const auto& [before, after] : relations) {
        INFO(before << " < " << after);
        CHECK(at(p, before) < at(p, after));
    }
}

TEST_CASE("A slider is on before the zip's end is sealed")
{
    for (const char* kind : {"top-zip", "inset-zip"}) {
        Design d = newDesign("separate-base");
        addFeature(d, kind);
        const Pattern p = medium(d);
        int sealed = 0;
        for (const auto& step : p.steps) {
            bool on = false;
            for (const auto& act : step.acts) {
                on |= act.verb == Act::Verb::SliderOn;
                if (act.verb == Act::Verb::SealEnds) {
                    ++sealed;
                    CHECK(on);
                }
            }
        }
        CHECK(sealed > 0);
    }
}

TEST_CASE("Clips and notches by hand: every o·r/s, to 2 mm from the stitch line, and only where something goes round")
{
    // Radius 45, allowance 10: 3·45/10 = 13.5, set to 13; 8 deep. The lining's wide seam of 13.2: 10.2, set to 10.
    const Pattern p = medium(with("gusseted-satchel", {"radius=45", "taper=0", "allowance.body=10"}));
    CHECK_THAT(words(textOf(p, "gusset.clip")), Contains("every 13 mm, 8 mm deep"));
    CHECK_THAT(words(textOf(p, "lining.gusset.clip")), Contains(", 11.2 mm deep"));
    CHECK_THAT(words(textOf(p, "back-gusset")), Contains("Notch out") && Contains("every 13 mm"));
    // A base with square corners is turned at them; a round one has none; a straight seam has neither.
    const Pattern square = medium(with("separate-base", {"base.radius=0"}));
    CHECK_THAT(words(textOf(square, "base")),
        Contains("At each corner clip") && Contains("needle down and turn") && !Contains("curve"));
    const Pattern round = medium(newDesign("cylinder"));
    CHECK_THAT(words(textOf(round, "base")), Contains("goes round the curve") && !Contains("corner"));
    CHECK_THAT(words(textOf(round, "sides")), !Contains("clip") && !Contains("corner") && !Contains("curve"));
}

TEST_CASE("What the hand meets along a seam: curves, corners and straights of either side")
{
    const Pattern p = medium(with("gusseted-satchel", {"radius=40", "gusset.strips=two"}));
    const Seam& seam = *p.seam("front-gusset");
    const SideShape panel = shapeOf(p, seam.a), gusset = shapeOf(p, seam.b);
    CHECK(panel.convex == Approx(40));
    CHECK(panel.concave == SideShape::none);
    CHECK(panel.convexCorners == 0);
    CHECK(panel.straights);
    CHECK_FALSE(gusset.bends()); // two halves, the second sewn against its outline: no corner where they meet
    // A face with five corners; the band that goes round it is straight.
    const Pattern poly = medium(with("polygon", {"sides=5"}));
    const SideShape face = shapeOf(poly, poly.seam("front-loop")->a);
    CHECK(face.convexCorners + face.concaveCorners >= 4);
    CHECK_FALSE(shapeOf(poly, poly.seam("front-loop")->b).bends());
    CHECK(allowancesOf(p, *p.seam("lining.front-gusset")).first == Approx(p.values.at("allowance.lining")));
    CHECK(allowancesOf(p, *p.seam("lining.front-gusset")).second == Approx(p.values.at("allowance.wide")));
    CHECK(hasMarks(p, seam));
}

TEST_CASE("Vinyl and coated cloth see no iron and no pins; cotton does")
{
    Design d = newDesign("separate-base");
    const Pattern cotton = medium(d);
    CHECK_THAT(words(textOf(cotton, "sides")), Contains("Press the allowances open"));
    CHECK_THAT(words(told(cotton, *cotton.step("sides")).tool), Contains("iron"));
    assign(d, "material.shell=vinyl");
    const Pattern p = medium(d);
    const StepWords said = told(p, *p.step("sides"));
    CHECK_THAT(words(said.text),
        Contains("Open the allowances with your fingers") && Contains("Hold with clips") && !Contains("Press"));
    CHECK_THAT(words(said.tool), !Contains("iron") && Contains("seam roller"));
    CHECK_THAT(words(said.stitch), Contains("3–3.5 mm"));                                // longer: holes stay
    CHECK_THAT(words(textOf(p, "lining.sides")), Contains("Press the allowances open")); // its lining is cotton
}

TEST_CASE(
    "A mouth that is dropped in: folded and edge-stitched, or basted where it will be bound; pieces by their place")
{
    Design d = newDesign("separate-base");
    setChoice(d, "assembly", "drop-in");
    CHECK_THAT(words(textOf(medium(d), "mouth")), Contains("Fold the mouth allowance") && Contains("edge-stitch"));
    addFeature(d, "binding");
    setChoice(d, "binding.covers", "mouth");
    const Pattern bound = medium(d);
    CHECK_THAT(words(textOf(bound, "mouth")), Contains("raw edges level") && !Contains("Fold the mouth"));
    CHECK(told(bound, *bound.step("mouth")).allowance == 4);
    // A half of a half is called so.
    Design twice = satchel();
    addFeature(twice, "inset-zip");
    setChoice(twice, "inset.site", "back");
    CHECK_THAT(words(textOf(medium(twice), "flap.join")), Contains("upper part of the lower back"));
}

TEST_CASE("Rules refuse bad orders of real bags in plain words")
{
    // What is told when one step is done right after another.
    const auto told = [](const Design& d, const char* step, const char* after) {
        const Pattern p = medium(d);
        auto order = orderOf(d, p);
        CHECK(brokenRules(p, order).empty());
        const std::size_t moved = at(p, step);
        order.erase(std::find(order.begin(), order.end(), moved));
        order.insert(std::find(order.begin(), order.end(), at(p, after)) + 1, moved);
        std::string out;
        for (const auto& broken : brokenRules(p, order))
            out += broken.rule + ": " + words(broken.reason) + "\n";
        return out;
    };
    Design feet = newDesign("separate-base");
    setChoice(feet, "base.feet", "yes");
    setChoice(feet, "assembly", "drop-in");
    CHECK_THAT(told(feet, "feet", "mouth"), Contains("before the board covers their prongs"));
    CHECK_THAT(told(satchel(), "snap.front", "mouth"), Contains("one layer and its patch"));
    CHECK_THAT(told(newDesign("large-tote"), "corner.on", "mouth"), Contains("while no lining lies behind it"));
    CHECK_THAT(told(satchel(), "turn", "close"), Contains("closed last"));
    CHECK_THAT(told(satchel(), "board", "close"), Contains("before the opening is closed"));
    Design longGusset = with("gusseted-satchel", {"gusset.strips=two"});
    setChoice(longGusset, "gusset.length", "long");
    CHECK_THAT(told(longGusset, "gusset.trim", "connectors.baste"), Contains("cut long is trimmed before"));
    CHECK_THAT(told(newDesign("zip-around"), "zip.open", "back-loop"), Contains("opened before the bag is closed"));
    CHECK_THAT(told(newDesign("zip-around"), "zip.open", "turn"), Contains("nothing can be turned through it"));
    Design stays = newDesign("hinged-mouth");
    CHECK_THAT(told(stays, "stays", "close"), Contains("before the opening is closed"));
    // Independent steps may change places.
    CHECK(told(satchel(), "connectors.make", "flap.turn").empty());
}

TEST_CASE("Where both sides go round nothing is clipped; rows that end on a face are bar-tacked, those that end in a "
          "seam not")
{
    const Pattern p = medium(satchel());
    const Step both{.acts = {act::clip({p.seam("flap.turned")->key})}}; // flap and lining bulge alike
    CHECK(told(p, both).text.empty());
    CHECK_THAT(words(textOf(p, "slip.on")), Contains("Bar-tack both ends"));
    // Strips of a big satchel's piping are joined corner to corner.
    Design big = with("gusseted-satchel", {"width=830", "height=700"});
    addFeature(big, "piping");
    CHECK_THAT(words(textOf(medium(big), "piping.make")), Contains("corner to corner, trim to 6 mm"));
    Design tote = newDesign("large-tote");
    CHECK_THAT(words(textOf(medium(tote), "overlay.on")), !Contains("Bar-tack"));
    // A snap on the clutch's own flap: its repair moves it where there is room, away from the mouth.
    Design clutch = newDesign("envelope-clutch");
    assign(clutch, "snap.drop=12");
    const auto told = found(clutch, "snap");
    REQUIRE(!told.empty());
    REQUIRE(told.front().repair);
    assign(clutch, told.front().repair->assignments.front());
    CHECK(medium(clutch).values.at("snap.drop") > 12);
}

TEST_CASE("Allowances that are bound together are pressed to one side, others of the same step still open")
{
    Design d = newDesign("boxed-corner");
    const auto pressed = [&] {
        std::map<std::string, Act::To> out;
        const Pattern p = medium(d);
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                if (act.verb == Act::Verb::Press)
                    for (const auto& seam : act.seams)
                        out[seam.text()] = act.to;
        return out;
    };
    const auto before = pressed();
    REQUIRE(before.size() >= 3);
    CHECK(std::all_of(before.begin(), before.end(), [](const auto& each) { return each.second == Act::To::Open; }));
    addFeature(d, "binding");
    const Pattern p = medium(d);
    int bound = 0;
    for (const auto& [key, to] : pressed()) {
        const bool isBound = !p.seam(key)->bound.empty();
        bound += isBound;
        CHECK((to == Act::To::Open) == !isBound);
    }
    CHECK(bound >= 2);
}

TEST_CASE("A drawstring's channel: its hole is worked in the shell alone before any lining lies behind, on its mark; "
          "its rows, and slits, are told of every piece that they are on")
{
    for (const char* form : {"large-tote", "boxed-corner", "cylinder", "separate-base", "roll-top"}) {
        Design d = newDesign(form);
        const std::string id = addFeature(d, "drawstring");
        setChoice(d, id + ".through", "channel");
        const Pattern p = medium(d);
        INFO(form);
        const Step &hole = *p.step(id + ".hole"), &rows = *p.step(id + ".set");
        const Piece& piece = *p.piece(hole.acts.front().pieces.front());
        CHECK(std::any_of(piece.drills.begin(), piece.drills.end(), [&](const DrillMark& m) {
            return m.owner == PartId(id) && insideOutline(flattened(piece.stitch(), 0.5), m.at);
        }));
        const auto order = orderOf(d, p);
        std::vector<std::size_t> late;
        std::size_t holeAt = 0;
        for (const auto i : order)
            (p.steps[i].id == hole.id ? holeAt : late.emplace_back(i)) = i;
        late.push_back(holeAt);
        const auto broken = brokenRules(p, late);
        CHECK(std::any_of(broken.begin(), broken.end(), [&](const BrokenRule& b) { return b.late == holeAt; }));
        CHECK(brokenRules(p, order).empty());
        for (const auto& mouth : p.seam("mouth")->a)
            if (const Piece* each = p.piece(mouth.piece); each
                && std::any_of(each->lines.begin(), each->lines.end(),
                    [&](const FaceLine& l) { return l.kind == FaceLine::Kind::Topstitch && l.owner == PartId(id); }))
                CHECK(std::find(rows.acts.front().pieces.begin(), rows.acts.front().pieces.end(), each->key)
                    != rows.acts.front().pieces.end());
        setChoice(d, id + ".through", "slits");
        const Pattern slit = medium(d);
        std::set<PieceId> marked;
        for (const auto& f : slit.fittings)
            if (f.owner() == PartId(id))
                marked.insert(f.piece);
        const auto& told = slit.step(id + ".set")->acts.front().pieces;
        CHECK(std::set<PieceId>(told.begin(), told.end()) == marked);
    }
}

TEST_CASE("The mouth is graded before turning; handles and flap are told of where they would be caught")
{
    const Design tote = newDesign("large-tote"), satchel = newDesign("gusseted-satchel"),
                 pouch = newDesign("flat-pouch");
    const auto says = [](const Design& d, const char* step) {
        const Pattern p = medium(d);
        return words(told(p, *p.step(step)).text);
    };
    for (const auto* d : {&tote, &satchel, &pouch})
        CHECK_THAT(says(*d, "mouth"), Contains("Grade the allowances."));
    CHECK_THAT(says(tote, "mouth"), Contains("The handles are laid down between the layers."));
    CHECK_THAT(says(tote, "mouth.topstitch"), Contains("Keep the handles out of the way."));
    CHECK_THAT(says(satchel, "mouth.topstitch"), Contains("Keep the flap out of the way."));
    CHECK_THAT(says(satchel, "mouth"), Contains("Each connector hangs down between the layers."));
    CHECK_THAT(says(pouch, "mouth"), !Contains("hang") && !Contains("handles"));
    CHECK_THAT(says(pouch, "mouth.topstitch"), !Contains("out of the way"));
    // An envelope's row runs on round its flap, whose corners are cut across.
    CHECK_THAT(says(newDesign("envelope-clutch"), "mouth"), Contains("round the flap") && Contains("Cut them across"));
}

TEST_CASE("Whatever a step works at marks has its marks, and a patch that it speaks of lies there; in every design",
    "[.long]")
{
    everyPattern([](const std::string& name, const Design&, const Pattern& p) {
        INFO(name);
        for (const auto& step : p.steps)
            for (const auto& act : step.acts) {
                if (act.verb != Act::Verb::Buttonhole)
                    continue;
                for (const auto& id : act.pieces)
                    CHECK(!p.piece(id)->drills.empty());
                if (words(told(p, step).text).find("patch") != std::string::npos)
                    CHECK(std::any_of(p.piece(act.pieces.front())->layers.begin(),
                        p.piece(act.pieces.front())->layers.end(), [](const Layer& l) { return !l.wholePiece; }));
            }
    });
}
