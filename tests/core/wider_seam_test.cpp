// SPDX-License-Identifier: GPL-3.0-or-later
// A lining cut by the shell's template and sewn with a wider seam from the middle down: on every body that stands on a
// base.
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

} // namespace

TEST_CASE("Wider seam: the lining is cut as the shell is, its seams agree, and it stands in the shell")
{
    const Geos geos;
    for (Design d : standing()) {
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
            for (const auto& piece : p.pieces) {
                const Piece* cut = piece.coat == Coat::Shell ? p.piece(lined(piece.key)) : nullptr;
                if (!cut)
                    continue;
                // One template: the same cloth, but for a hundredth of a millimetre all round.
                const Polyline one = flattened(piece.cut, 0.005), other = flattened(cut->cut, 0.005);
                const double apart = geos.area(one) + geos.area(other) - 2 * geos.sharedArea(one, other);
                INFO(piece.key.text() << ": " << apart << " mm² apart");
                CHECK(apart < 0.02 * geos.length(one));
            }
        }
        const Mockup m = mockupOf(d, draftAll(d).front());
        CHECK(m.largestGap < 0.6);
    }
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
    const double t = [&] {
        for (const auto& w : p.workings)
            if (w.key == "lining.slack")
                return w.inputs.front().value;
        return 0.0;
    }();
    CHECK(slack == Approx(4 * 3.2 - 8 * t).margin(0.01));
    // With a facing, which cuts across where it widens, the allowances of both mates are the same still.
    addFeature(d, "band");
    for (const auto& finding : checkAll(d, draftAll(d)))
        CHECK(finding.check != "seam-allowance");
}
