// SPDX-License-Identifier: GPL-3.0-or-later
// A lining cut by the shell's template and sewn with a wider seam from the middle down: on every lined body.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "sequence/told.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

/// Forms with walls on a base, and the choices that make other bodies of them.
std::vector<Design> standing()
{
    std::vector<Design> out;
    const auto add = [&](const char* form, std::vector<std::pair<std::string, std::string>> choices) {
        Design d = newDesign(form);
        while (!d.features.empty())
            removeFeature(d, d.features.back().id);
        for (const auto& [name, value] : choices)
            setChoice(d, name, value);
        setChoice(d, "lining.fit", "wider-seam");
        out.push_back(std::move(d));
    };
    add("large-tote", {});
    add("separate-base", {{"sides", "middle"}});
    add("separate-base", {{"sides", "gussets"}});
    for (const char* shape : {"round", "stadium", "ellipse"})
        for (const char* pieces : {"one", "two"})
            add("cylinder", {{"base.shape", shape}, {"wall.pieces", pieces}});
    return out;
}

/// With those whose seams go round corners, boxes and folds instead.
std::vector<Design> wider()
{
    auto out = standing();
    const auto add = [&](const char* form, std::vector<std::string> ways) {
        Design d = newDesign(form);
        while (!d.features.empty())
            removeFeature(d, d.features.back().id);
        setChoice(d, "lining.fit", "wider-seam");
        for (const auto& way : ways)
            assign(d, way);
        out.push_back(std::move(d));
    };
    add("roll-top", {});
    for (const char* boxing : {"pre-cut", "from-seams", "across"}) {
        const std::string choice = std::string("boxing=") + boxing;
        add("boxed-corner", {choice});
        add("boxed-corner", {choice, "taper=25", "allowance.wide=18"});
        add("boxed-corner", {choice, "taper=-20"});
        add("hinged-mouth", {choice, "taper=30"});
    }
    add("flat-pouch", {});
    add("flat-pouch", {"radius.left=4", "pocket=no"});
    add("flat-pouch", {"radius.left=40", "radius.right=120", "allowance.wide=22"});
    add("envelope-clutch", {});
    add("envelope-clutch", {"allowance.wide=18", "flap.taper=0"});
    return out;
}

} // namespace

TEST_CASE("Wider seam: the lining is cut as the shell is, its seams agree, and it stands in the shell")
{
    const Geos geos;
    for (Design d : wider()) {
        INFO(d.form);
        if (d.form == "large-tote")
            assign(d, "flare=20");
        if (d.form == "separate-base")
            assign(d, "taper=12");
        for (const auto& p : draftAll(d)) {
            INFO("size " << p.size);
            for (const auto& seam : p.seams) {
                INFO(seam.key.text() << " " << seam.lengthA << " " << seam.lengthB);
                CHECK(std::abs(seam.difference()) < 0.01);
            }
            // What the step says is what the edges have where the seam is widest.
            for (const auto& seam : p.seams) {
                if (seam.stitch != "construction" || seam.mouth)
                    continue;
                double widest = 0;
                for (const auto* side : {&seam.a, &seam.b})
                    for (const auto& use : *side) {
                        if (const Edge* edge = p.piece(use.piece)->edge(use.edge)) // else a line on the piece
                            widest = std::max({widest, edge->allowance, edge->allowanceAtEnd.value_or(0)});
                    }
                INFO(seam.key.text());
                if (widest > 0)
                    CHECK(seam.allowance == Approx(widest).margin(d.choices.contains("boxing") ? 0.75 : 0.01));
            }
            for (const auto& piece : p.pieces) {
                const Piece* cut = piece.coat == Coat::Shell ? p.piece(lined(piece.key)) : nullptr;
                if (!cut)
                    continue;
                // One template: the same cloth, but for a hundredth of a millimetre all round.
                Polyline one = flattened(piece.cut, 0.005);
                const Polyline other = flattened(cut->cut, 0.005);
                if (d.form == "flat-pouch") // its two corners differ: the lining's face is seen from the other side
                    for (auto& point : one)
                        point.x = -point.x;
                const double apart = geos.area(one) + geos.area(other) - 2 * geos.sharedArea(one, other);
                INFO(piece.key.text() << ": " << apart << " mm² apart");
                CHECK(apart < 0.02 * geos.length(one));
            }
        }
        const Mockup m = mockupOf(d, draftAll(d).front());
        CHECK(m.largestGap < 0.6);
    }
}

TEST_CASE("Wider seam: what the lining measures is told in each direction, and read off its pieces")
{
    // A boxed lining of no taper: width and height by δ at each seam, the depth as the boxes make it.
    Design d;
    for (const auto& each : wider())
        if (each.form == "boxed-corner" && each.choices.at("boxing") == "pre-cut"
            && (d.form.empty() || each.dimensions.size() < d.dimensions.size()))
            d = each; // with nothing but its defaults
    REQUIRE(d.form == "boxed-corner");
    const Pattern p = draftAll(d).front();
    const auto worked = [&](const std::string& key) {
        for (const auto& w : p.workings)
            if (w.key == key)
                return w.result;
        FAIL(key);
        return 0.0;
    };
    const double t = worked("lining.slack.depth") / -2; // the depth is the shell's: two walls are lacking
    const Piece &front = *p.piece(lined("front")), &shell = *p.piece("front");
    CHECK(t > 0.5);
    CHECK(worked("lining.slack.width")
        == Approx(shell.edge("bottom")->length() - front.edge("bottom")->length() - 2 * t).margin(0.001));
    CHECK(worked("lining.slack.height") == Approx(3.2 - t).margin(0.001));
    CHECK(front.edge("left wall")->length() == Approx(p.depth / 2));
    CHECK(worked("lining.slack") == Approx(4 * 3.2 - 8 * t).margin(0.001));
    // Sewn together, the lining is as high as was told: its side from the box to the mouth.
    CHECK(front.edge("left side")->length() + front.edge("left ease")->length()
        == Approx(p.height - 3.2 + std::hypot(3.2, p.height / 2) - p.height / 2).margin(0.001));
}

TEST_CASE("A lining that is larger than its room is told, with a fit that mends it")
{
    int told = 0;
    for (const char* form : {"gusseted-satchel", "boxed-corner", "separate-base", "large-tote", "cylinder",
             "envelope-clutch", "hinged-mouth", "roll-top"}) {
        INFO(form);
        Design d = newDesign(form);
        setChoice(d, "lining.fit", "same");
        for (auto& rule : d.layers)
            if (rule.pieces == "panel")
                rule = {"panel", "foam-sewin", "basted", "stitch", {{"top", "inset 12"}}, ""};
        const auto slack = [](const Findings& findings) {
            return std::find_if(
                findings.begin(), findings.end(), [](const auto& f) { return f.check == "lining-slack"; });
        };
        const Findings before = checkAll(d, draftAll(d));
        const auto at = slack(before);
        if (at == before.end())
            continue;
        ++told;
        REQUIRE(at->repair);
        for (const auto& a : at->repair->assignments)
            assign(d, a);
        const Findings after = checkAll(d, draftAll(d));
        CHECK(slack(after) == after.end());
        // Without foam a thin wall leaves room enough.
        setChoice(d, "lining.fit", "same");
        d.layers.clear();
        const Findings thin = checkAll(d, draftAll(d));
        CHECK(slack(thin) == thin.end());
    }
    CHECK(told >= 6);
}

TEST_CASE(
    "Wider seam: on a box the base is sewn in by half as much, on one with four seams by as much, on a cylinder by δ/π")
{
    for (Design d : standing()) {
        const Pattern p = draftAll(d).front();
        const double wide = p.values.at("allowance.wide") - p.values.at("allowance.lining");
        double raise = 0;
        for (const auto& w : p.workings)
            if (w.key == "lining.raise")
                raise = w.result;
        const bool square = d.form == "large-tote" || (d.form == "separate-base" && p.values.at("base.radius") == 0);
        INFO(d.form << " " << raise);
        if (d.form == "cylinder") // one side seam takes 2δ of the girth, two take 4δ; the base gives 2πe
            CHECK(raise == Approx((d.choices.at("wall.pieces") == "one" ? 1 : 2) * wide / pi).epsilon(0.02));
        else if (square)
            CHECK(
                raise == Approx((d.choices.contains("sides") && d.choices.at("sides") == "gussets" ? 1 : 0.5) * wide));
        CHECK(raise > 0);
    }
}

TEST_CASE("Wider seam: the step says how far it widens, and the docket how much slack that leaves")
{
    Design d = standing().front();
    const Pattern p = draftAll(d).front();
    const std::string text = words(told(p, *p.step("lining.sides")).text);
    CHECK_THAT(text, Contains("Sew at 10 mm at the mouth, widening to 13.2 mm"));
    double slack = 1e9;
    for (const auto& w : p.workings)
        if (w.key == "lining.slack")
            slack = w.result;
    // Nested boxes: the room is 8 t less all round; 4 δ are taken: positive where the lining is smaller than its room.
    double t = 1e9;
    for (const auto& w : p.workings)
        if (w.key == "lining.slack.depth")
            t = w.inputs.at(1).value;
    CHECK(slack == Approx(4 * 3.2 - 8 * t).margin(0.01));
    // With a facing, which cuts across where it widens, the allowances of both mates are the same still.
    addFeature(d, "band");
    for (const auto& finding : checkAll(d, draftAll(d)))
        CHECK(finding.check != "seam-allowance");
}
