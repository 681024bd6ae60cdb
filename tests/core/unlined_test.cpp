// SPDX-License-Identifier: GPL-3.0-or-later
// A bag without a lining: nothing of it is left, the mouth is hemmed, raw edges are told until they are bound.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

const std::vector<std::string> kForms{
    "gusseted-satchel", "boxed-corner", "separate-base", "large-tote", "cylinder", "flat-pouch", "roll-top"};

Design bare(const std::string& form)
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    setChoice(d, "assembly", "unlined");
    return d;
}

int rawEdges(const Design& d)
{
    int out = 0;
    for (const auto& f : checkAll(d, draftAll(d)))
        out += f.check == "raw-edge" && f.size == "M";
    return out;
}

/// What holds for every bag without a lining, in all sizes.
void requireSewn(const Design& d)
{
    const Geos geos;
    for (const auto& p : draftAll(d)) {
        INFO(d.form << ", size " << p.size);
        for (const auto& piece : p.pieces) {
            INFO(piece.code);
            CHECK(!piece.key.text().starts_with("lining."));
            CHECK(geos.valid(flattened(piece.cut, 0.1)));
            CHECK(geos.covers(flattened(piece.cut, 0.1), flattened(piece.stitch(), 0.1), 0.2));
        }
        for (const auto& seam : p.seams) {
            CHECK(std::abs(seam.difference()) < 0.01);
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    CHECK(p.piece(use.piece));
        }
        for (const auto& site : p.sites)
            CHECK(!site.lining);
        const auto order = orderOf(d, p);
        for (const auto& broken : brokenRules(p, order))
            CHECK(words(broken.reason).empty());
        const auto states = dryRun(p, order);
        CHECK(states.back().parts == std::vector<WorkId>{"bag"});
        for (const auto& step : p.steps) {
            const std::string said = words(told(p, step).text);
            INFO(step.id << ": " << said);
            CHECK(said.find("between shell and lining") == std::string::npos);
            for (const auto& id : step.pieces)
                CHECK(p.piece(id));
        }
        CHECK(mockupOf(d, p).largestGap < 1.0);
    }
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == "no-act" || f.check == "seam-length")
            CHECK(words(f.text).empty());
}

} // namespace

TEST_CASE(
    "Unlined: no piece, seam, face or step of the lining is left; the bag is made, its mouth hemmed, in all forms")
{
    for (const auto& form : kForms) {
        const Design d = bare(form);
        requireSewn(d);
        const Pattern p = medium(d);
        INFO(form);
        CHECK(!p.step("close"));
        const Step& mouth = *p.step("mouth");
        CHECK_THAT(words(told(p, mouth).text), Contains("8 mm to the wrong side, then the hem of 10 mm; topstitch"));
        CHECK_THAT(words(told(p, *p.step("turn")).text), Contains("Turn right side out"));
        // Cloth for the hem stands over the fold on every piece of the mouth: the depth and what is turned in.
        for (const auto& use : p.seam("mouth")->a)
            CHECK(p.piece(use.piece)->edge(use.edge)->allowance == Approx(10 + 8));
        // More room inside than with a lining.
        const Space& room = p.spaces.front();
        Design lined = d;
        setChoice(lined, "assembly", "bagged-out");
        CHECK(room.width >= medium(lined).spaces.front().width);
        if (form != "flat-pouch") // whose room is its outline
            CHECK(room.width > medium(lined).spaces.front().width);
        CHECK(designFromText(designText(d), "bag") == d);
    }
    // By hand: a satchel's front is cut from the bottom's allowance to the hem's raw edge.
    const Pattern p = medium(bare("gusseted-satchel"));
    CHECK(boundsOf(p.piece("front")->cut).height() == Approx(240 + 10 + 18));
}

TEST_CASE("Unlined: its raw edges are told seam by seam until bindings cover them")
{
    Design d = bare("boxed-corner");
    const int raw = rawEdges(d);
    CHECK(raw >= 3); // both sides, the bottom, the boxes
    const std::string id = addFeature(d, "binding");
    CHECK(rawEdges(d) < raw);
    setChoice(d, id + ".covers", "front");
    requireSewn(d);
    Design over = bare("boxed-corner");
    setChoice(over, "assembly", "unlined-overcast");
    CHECK(rawEdges(over) == 0);
    requireSewn(over);
    const Pattern p = medium(over);
    for (const auto& seam : p.seams)
        if (seam.rawInside)
            CHECK(std::count_if(p.steps.begin(), p.steps.end(), [&](const Step& s) {
                return std::ranges::any_of(s.acts, [&](const Act& act) {
                    return act.verb == Act::Verb::Overcast && std::ranges::find(act.seams, seam.key) != act.seams.end();
                });
            }) == 1);
    Design vinyl = bare("boxed-corner");
    setMaterial(vinyl, "shell", "vinyl");
    CHECK(rawEdges(vinyl) == 0); // it does not fray
}

TEST_CASE("Unlined: straight seams are felled or sewn twice, what goes round is overcast; no raw edge is left")
{
    for (const auto& form : kForms)
        for (const char* way : {"unlined-felled", "unlined-bagged"}) {
            INFO(form << ", " << way);
            if (form == "roll-top" && way == std::string("unlined-bagged"))
                continue; // not offered there
            Design d = bare(form);
            const Pattern plain = medium(d);
            setChoice(d, "assembly", way);
            requireSewn(d);
            CHECK(rawEdges(d) == 0);
            const Pattern p = medium(d);
            const Act::Verb verb = std::string(way) == "unlined-felled" ? Act::Verb::Fell : Act::Verb::BagSeam;
            for (const auto& seam : p.seams) {
                int encloses = 0, overcasts = 0;
                for (const auto& step : p.steps)
                    for (std::size_t i = 0; i < step.acts.size(); ++i) {
                        const Act& act = step.acts[i];
                        if (std::ranges::find(act.seams, seam.key) == act.seams.end())
                            continue;
                        overcasts += act.verb == Act::Verb::Overcast;
                        encloses += act.verb == verb;
                        if (seam.enclosed) // it lies to one side
                            CHECK_FALSE((act.verb == Act::Verb::Press && act.to == Act::To::Open));
                        if (act.verb == Act::Verb::BagSeam) { // the row that follows passes the trimmed edges
                            CHECK(act.taken < seam.allowance - act.distance);
                            CHECK(act.distance < seam.allowance);
                            REQUIRE(i + 1 < step.acts.size());
                            CHECK(step.acts[i + 1].verb == Act::Verb::Sew);
                        }
                        if (act.verb == Act::Verb::Fell) {
                            CHECK(act.distance < seam.allowance / 2); // covered by the fold
                            CHECK(act.taken < seam.allowance / 2);    // the row catches it
                        }
                    }
                CHECK(encloses == (seam.enclosed ? 1 : 0));
                const Seam* was = plain.seam(seam.key);
                if (was && was->rawInside)
                    CHECK((seam.enclosed || seam.overcast));
                if (seam.enclosed) {
                    CHECK(overcasts == 0);
                    const bool straight = !shapeOf(p, seam.a).bends() && !shapeOf(p, seam.b).bends();
                    CHECK(straight);
                    if (was->trapped.empty()) // what is caught there counts once in either
                        CHECK(bulkAt(p, seam).underFoot > 1.9 * bulkAt(plain, *was).underFoot);
                }
                // What is cut stays as it was.
                CHECK(seam.allowance == Approx(was ? was->allowance : seam.allowance));
            }
        }
    // By hand, at 10 mm: first 4, trimmed to 3, then 6 from the fold; or 4 trimmed and a row 3.5 from the seam.
    Design d = bare("boxed-corner");
    setChoice(d, "assembly", "unlined-bagged");
    std::string all;
    for (const auto& step : medium(d).steps)
        all += words(told(medium(d), step).text) + "\n";
    CHECK_THAT(all,
        Contains("First wrong sides together: sew 4 mm from the edge. Trim both allowances to 3 mm")
            && Contains("Sew again, 6 mm from the fold: the raw edges lie inside."));
    setChoice(d, "assembly", "unlined-felled");
    all.clear();
    for (const auto& step : medium(d).steps)
        all += words(told(medium(d), step).text) + "\n";
    CHECK_THAT(all,
        Contains(" to 4 mm. Fold the allowance of the ") && Contains("stitch the fold down, 3.5 mm from the seam"));
}

TEST_CASE("Unlined: what is caught in a seam that is sewn twice is told, with the repair")
{
    Design d = bare("boxed-corner");
    setChoice(d, "assembly", "unlined-bagged");
    addFeature(d, "connectors");
    int told = 0;
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == "raw-edge") {
            ++told;
            REQUIRE(f.repair);
            Design mended = d;
            for (const auto& a : f.repair->assignments)
                assign(mended, a);
            CHECK(rawEdges(mended) == 0);
        }
    CHECK(told > 0);
}

TEST_CASE("Unlined: whatever part fits is drafted and sewn; what needs a lining is refused with the reason")
{
    int taken = 0;
    std::string refused;
    for (const auto& form : kForms)
        for (const FeatureKind* kind : featureKinds()) {
            Design d = bare(form);
            try {
                addFeature(d, kind->kind());
            } catch (const InputError& e) {
                refused += std::string(e.what()) + "\n";
                continue;
            }
            INFO(form << " with " << kind->kind());
            requireSewn(d);
            ++taken;
        }
    CHECK(taken > 50);
    CHECK_THAT(refused, Contains("a zip at the mouth is caught between shell and lining"));
    Design tabs = bare("boxed-corner"); // connectors go into the seams beside a face
    const std::string id = addFeature(tabs, "connectors");
    CHECK(tabs.choices.at(id + ".held") == "sides");
    CHECK_THROWS_WITH(
        setChoice(tabs, id + ".held", "mouth"), Contains("connectors are caught between shell and lining"));
    Design d = newDesign("gusseted-satchel"); // its slip pocket sits on the lining
    CHECK_THROWS_WITH(setChoice(d, "assembly", "unlined"), Contains("without a lining"));
    CHECK(d == newDesign("gusseted-satchel"));
}

TEST_CASE("Unlined: how the lining would fit is not asked for, and changes nothing")
{
    for (const auto& form : kForms) {
        Design d = bare(form);
        const auto& choices = specOf(d).choices;
        const auto fit = std::find_if(
            choices.begin(), choices.end(), [](const ChoiceSpec& c) { return c.name == "lining.fit"; });
        if (fit == choices.end()) // a flat pouch's lining is always the same size
            continue;
        CHECK(!counts(*fit, d.choices));
        const Pattern before = medium(d);
        for (const auto& [value, label] : fit->options) {
            setChoice(d, "lining.fit", value);
            const Pattern p = medium(d);
            REQUIRE(p.pieces.size() == before.pieces.size());
            for (std::size_t i = 0; i < p.pieces.size(); ++i)
                CHECK(areaOf(p.pieces[i].cut) == Approx(areaOf(before.pieces[i].cut)));
        }
        setChoice(d, "assembly", "drop-in");
        CHECK(counts(*fit, d.choices));
    }
}

TEST_CASE(
    "A mouth too narrow for the machine: the mouth first, flat, leaves nothing out of reach; where a form cannot, "
    "bagging out leaves one row to hands")
{
    const bool flat = GENERATE(true, false);
    Design d = newDesign(flat ? "flat-pouch" : "gusseted-satchel");
    setChoice(d, "assembly", "drop-in");
    edit(d, [](Design& next) { next.workshop.leastRound = 2000; });
    const auto reached = [&](const char* step) -> const Finding* {
        static Findings findings;
        findings = checkAll(d, draftAll(d));
        for (const auto& f : findings)
            if (f.check == "reach" && f.size == "M" && f.key == step)
                return &f;
        return nullptr;
    };
    const Finding* dropped = reached("mouth");
    REQUIRE(dropped);
    REQUIRE(dropped->repair);
    const auto assignments = dropped->repair->assignments;
    for (const auto& a : assignments)
        assign(d, a);
    CHECK(!reached("mouth"));
    CHECK(d.choices.at("assembly") == (flat ? "flat" : "bagged-out"));
    if (flat) {
        CHECK(!reached("mouth.topstitch"));
        return;
    }
    const Finding* row = reached("mouth.topstitch");
    REQUIRE(row);
    CHECK(!row->repair);
    CHECK_THAT(words(row->text), Contains("or sew this row by hand"));
}
