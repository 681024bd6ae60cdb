// SPDX-License-Identifier: GPL-3.0-or-later
// Worked orders of bags as a sewer would make them (common practice, no source): what must come before what, in the
// proposed order of every design that has both, and facts of the acts. Order A stands in acts_test.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"

using namespace tectonis;
using Catch::Contains;
using Verb = Act::Verb;

namespace {

/// The design has both steps and the one comes first.
void comesBefore(const Design& d, const Pattern& p, const char* first, const char* then)
{
    INFO(d.form << ": " << first << " < " << then);
    const auto order = orderOf(d, p);
    const Step *a = p.step(first), *b = p.step(then);
    REQUIRE(a);
    REQUIRE(b);
    const auto place = [&](const Step* s) {
        return std::find(order.begin(), order.end(), std::size_t(s - p.steps.data())) - order.begin();
    };
    CHECK(place(a) < place(b));
}

const Act* firstAct(const Pattern& p, const char* step, Verb verb)
{
    const Step* s = p.step(step);
    if (!s)
        return nullptr;
    const auto at = std::find_if(s->acts.begin(), s->acts.end(), [&](const Act& a) { return a.verb == verb; });
    return at == s->acts.end() ? nullptr : &*at;
}

} // namespace

TEST_CASE("Worked order B: a tote with boxed corners, a recessed zip on bands, handles, bagged out")
{
    Design d = newDesign("boxed-corner");
    addFeature(d, "handles");
    if (!std::any_of(d.features.begin(), d.features.end(), [](const Feature& f) { return f.kind == "top-zip"; }))
        addFeature(d, "top-zip");
    const Pattern p = medium(d);
    const std::string zip = std::find_if(d.features.begin(), d.features.end(), [](const Feature& f) {
        return f.kind == "top-zip";
    })->id;
    comesBefore(d, p, "handles.on front", "sides");
    comesBefore(d, p, "handles.on back", "sides");
    for (const char* side : {" front", " back"}) {
        comesBefore(d, p, (zip + ".make").c_str(), (zip + ".baste" + side).c_str());
        comesBefore(d, p, (zip + ".baste" + side).c_str(), (zip + ".hinge" + side).c_str());
        comesBefore(d, p, (zip + ".hinge" + side).c_str(), "lining.sides");
    }
    comesBefore(d, p, (zip + ".open").c_str(), "lining.sides");
    comesBefore(d, p, "sides", "boxes");
    comesBefore(d, p, "mouth", "turn");
    comesBefore(d, p, "turn", "close");
    CHECK(firstAct(p, (zip + ".make").c_str(), Verb::SliderOn));
    CHECK_THAT(words(told(p, *p.step("handles.on front")).text), Contains("folded under by"));
}

TEST_CASE("Worked order C: a case in a closed loop, bound inside, turned through its zip")
{
    const Design d = newDesign("zip-around");
    const Pattern p = medium(d);
    for (const char* face : {"front", "back"})
        comesBefore(d, p, (std::string(face) + ".line").c_str(), (std::string(face) + "-loop").c_str());
    comesBefore(d, p, "zip", "loop");
    comesBefore(d, p, "loop", "front-loop");
    comesBefore(d, p, "front-loop", "zip.open");
    comesBefore(d, p, "zip.open", "back-loop");
    comesBefore(d, p, "back-loop", "turn");
    comesBefore(d, p, "binding2.on", "turn");
    // The slider is on before the ends are sewn over, in one step.
    const Step& zip = *p.step("zip");
    const auto at = [&](Verb verb) {
        return std::find_if(zip.acts.begin(), zip.acts.end(), [&](const Act& a) { return a.verb == verb; })
            - zip.acts.begin();
    };
    CHECK(at(Verb::SliderOn) < at(Verb::BarTack));
    // Round corners are bound on the bias.
    const auto tape = std::find_if(
        p.pieces.begin(), p.pieces.end(), [](const Piece& piece) { return piece.role == "binding"; });
    REQUIRE(tape != p.pieces.end());
    CHECK(tape->grain == 45);
}

TEST_CASE("Worked order D: a roll-top backpack with straps, braces, sliders, hook and ring")
{
    const Design d = newDesign("roll-top");
    const Pattern p = medium(d);
    comesBefore(d, p, "strap.make", "strap.loops");
    comesBefore(d, p, "strap.loops", "strap.on");
    comesBefore(d, p, "strap.on", "sides");
    comesBefore(d, p, "brace.on", "sides");
    comesBefore(d, p, "base", "fasteners");
    comesBefore(d, p, "fasteners", "mouth");
    comesBefore(d, p, "close", "tails");
    // Whatever is bought is put in its place by one act.
    for (const auto& h : p.hardware) {
        int acts = 0;
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                acts += std::count(act.uses.begin(), act.uses.end(), h.kind) > 0;
        INFO(wordOf(h.kind));
        CHECK(acts == 1);
    }
    CHECK_THAT(words(told(p, *p.step("strap.loops")).text), Contains("round the upper bar of a slider"));
    CHECK_THAT(words(told(p, *p.step("brace.make")).text), Contains("with the webbing tail between"));
}

TEST_CASE("Worked order D, pockets: a bellows is hemmed before it is laid on, before the sides")
{
    Design d = newDesign("separate-base");
    const std::string id = addFeature(d, "patch-pocket");
    setChoice(d, id + ".body", "bellows");
    setChoice(d, id + ".lid", "yes");
    const Pattern p = medium(d);
    comesBefore(d, p, (id + ".make").c_str(), (id + ".on").c_str());
    comesBefore(d, p, (id + ".lid").c_str(), (id + ".lid.on").c_str());
    comesBefore(d, p, (id + ".on").c_str(), (id + ".lid.on").c_str()); // the flap hangs over the pocket
    comesBefore(d, p, (id + ".lid.on").c_str(), "sides");
}

TEST_CASE("Worked order E: a frame clutch of covered half shells, each glued thing dry before the next")
{
    const Design d = newDesign("frame-clutch");
    const Pattern p = medium(d);
    comesBefore(d, p, "pad", "cover");
    comesBefore(d, p, "cover", "set");
    comesBefore(d, p, "card", "set");
    for (const char* step : {"pad", "cover", "card", "set"}) {
        INFO(step);
        CHECK(told(p, *p.step(step)).drying > 0);
    }
    CHECK_THAT(words(told(p, *p.step("cover")).text), Contains("notch what goes round the corners"));
}

TEST_CASE("Worked order F: vinyl sees no iron and no pins in any step; its stitches are long")
{
    for (const char* form : {"polygon", "boxed-corner", "gusseted-satchel"}) {
        Design d = newDesign(form);
        setMaterial(d, "shell", "vinyl");
        const Pattern p = medium(d);
        for (const auto& step : p.steps) {
            const bool vinylOnly = !step.pieces.empty()
                && std::all_of(step.pieces.begin(), step.pieces.end(),
                    [&](const PieceId& id) { return p.piece(id) && p.piece(id)->material == "shell"; });
            if (!vinylOnly || step.kind == StepKind::Interline) // linings among them are fused
                continue;
            const StepWords said = told(p, step);
            INFO(form << ", " << step.id << ": " << words(said.text));
            CHECK_THAT(words(said.text), !Contains("Press"));
            CHECK_THAT(words(said.tool), !Contains("iron"));
            if (std::any_of(step.acts.begin(), step.acts.end(), [](const Act& a) { return a.verb == Verb::Sew; }))
                CHECK_THAT(words(said.text), Contains("clips: pins leave holes"));
            if (!said.stitch.empty() && words(said.stitch).find("lockstitch") != std::string::npos)
                CHECK_THAT(words(said.stitch), !Contains("2.5"));
        }
    }
}

TEST_CASE("What lies on an overlay is put on after it")
{
    const Design d = newDesign("large-tote");
    const Pattern p = medium(d);
    comesBefore(d, p, "overlay.on", "corner.on");
    comesBefore(d, p, "overlay2.on", "corner2.on");
}
