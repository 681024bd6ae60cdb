// SPDX-License-Identifier: GPL-3.0-or-later
// Features as edits: names of their own, order of drafting, formulas that follow when one goes.
#include "checks/finding.hpp"
#include "design/spec.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "formats/design_file.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;
using Catch::Contains;

TEST_CASE("A feature's names never mix with the form's")
{
    Design d = newDesign("zip-around"); // has dimensions "zip.length", "zip.tape" of its own
    assign(d, "width=400");
    const std::string id = addFeature(d, "zip-pocket");
    CHECK(id != "zip");
    CHECK(d.dimensions.contains(id + ".length"));
    removeFeature(d, id);
    CHECK(d.dimensions.contains("zip.length"));
    CHECK(!d.dimensions.contains(id + ".length"));
}

TEST_CASE("When one of two connectors goes, the strap's formulas ask the other")
{
    Design d = newDesign("gusseted-satchel");
    const std::string second = addFeature(d, "connectors");
    CHECK(d.dimensions.at("strap.width").value == "connectors.ring - 1");
    removeFeature(d, "connectors");
    CHECK(d.dimensions.at("strap.width").value == second + ".ring - 1");
    const auto patterns = draftAll(d); // the strap is drafted after its connectors, whatever their order in the list
    CHECK(patterns[1].straps.size() == 1);
    CHECK(patterns[1].straps[0].ringWidth == Approx(patterns[1].values.at(second + ".ring")));
}

TEST_CASE("Adding and removing keep the file whole: saved, read again, the same design")
{
    Design d = newDesign("separate-base");
    for (const FeatureKind* kind : featureKinds())
        addFeature(d, kind->kind());
    CHECK(designFromText(designText(d), "test") == d);
    while (!d.features.empty()) {
        removeFeature(d, d.features.front().id);
        CHECK(draftAll(d).size() == 3);
        CHECK(designFromText(designText(d), "test") == d);
    }
}

TEST_CASE("A misspelt dimension in a file is told with its likely meaning; one of the user's own is kept")
{
    std::string text = designText(newDesign("cylinder"));
    const auto at = text.find("\"height\": {"); // the dimension, not a carried thing's
    REQUIRE(at != std::string::npos);
    std::string bent = text;
    bent.replace(at, 8, "\"heihgt\"");
    CHECK_THROWS_WITH(designFromText(bent, "bag"), Contains("heihgt") && Contains("misspelt"));
    Design own = newDesign("cylinder");
    own.dimensions["bottle"] = {"200", hold(), {}};
    assign(own, "width=bottle + 40");
    const Design again = designFromText(designText(own), "bag");
    CHECK(again == own);
    CHECK(draftAll(again)[1].width == Approx(240));
}

TEST_CASE("Derived values cannot be set, but formulas may use them")
{
    Design d = newDesign("boxed-corner");
    CHECK_THROWS_AS(assign(d, "face.width=200"), InputError);
    assign(d, "slip.width=face.width/3");
    const Pattern p = draftAll(d)[1];
    CHECK(p.values.at("slip.width") == Approx(p.values.at("face.width") / 3));
}

TEST_CASE("Sequence rules hold for every form: a lining sewn before its pocket, a closing before turning")
{
    for (const char* form : {"boxed-corner", "separate-base", "cylinder", "flat-pouch", "hinged-mouth"}) {
        INFO(form);
        Design d = newDesign(form);
        const Pattern p = draftAll(d)[1];
        auto order = orderOf(d, p);
        REQUIRE(brokenRules(p, order).empty());
        const auto place = [&](const std::string& id) {
            for (std::size_t i = 0; i < order.size(); ++i)
                if (p.steps[order[i]].id == id)
                    return i;
            FAIL("no step " << id);
            return std::size_t(0);
        };
        std::swap(order[place("turn")], order[place("close")]);
        const auto broken = brokenRules(p, order);
        REQUIRE(!broken.empty());
        CHECK(std::any_of(broken.begin(), broken.end(),
            [](const BrokenRule& b) { return words(b.reason).find("closed last") != std::string::npos; }));
    }
    // A case is turned through its zip: opened too late, the dry run says so.
    Design d = newDesign("zip-around");
    const Pattern p = draftAll(d)[1];
    auto order = orderOf(d, p);
    for (std::size_t i = 0; i + 1 < order.size(); ++i)
        if (p.steps[order[i]].id == "zip.open")
            std::swap(order[i], order[i + 1]);
    CHECK(!brokenRules(p, order).empty());
    CHECK(dryRun(p, orderOf(d, p)).back().zips.front().second == "open");
}

TEST_CASE("A dimension that asks a part keeps its value in every size when the part goes; with another of its kind it "
          "asks that one")
{
    Design d = newDesign("large-tote");
    addFeature(d, "flap"); // hangs below the handles' ends
    CHECK_THAT(d.dimensions.at("flap.hinge").value, Catch::Contains("handles.end"));
    assign(d, "slip.drop=handles.end/2 + 12");
    const auto before = draftAll(d);
    removeFeature(d, "handles");
    CHECK(d.dimensions.at("slip.drop").value.find("handles") == std::string::npos);
    const auto after = draftAll(d);
    for (std::size_t i = 0; i < before.size(); ++i)
        for (const char* name : {"flap.hinge", "slip.drop"}) {
            INFO(name << " in " << before[i].size);
            CHECK(after[i].values.at(name) == Approx(before[i].values.at(name)).margin(1e-6));
        }
    Design two = newDesign("boxed-corner");
    addFeature(two, "slip-pocket");
    assign(two, "opening.length=slip.width + 15");
    assign(two, "slip2.width=90");
    assign(two, "slip2.height=slip.height - 20"); // the other one cannot ask itself
    const double height = draftAll(two)[1].values.at("slip2.height");
    removeFeature(two, "slip");
    CHECK(draftAll(two)[1].values.at("slip2.height") == Approx(height));
    CHECK(two.dimensions.at("opening.length").value == "slip2.width + 15");
    CHECK(draftAll(two)[1].values.at("opening.length") == Approx(105));
}

TEST_CASE("A specification that was just asked for outlives hundreds of others; one that was not makes room for them")
{
    Design d = newDesign("boxed-corner");
    d.features = {{"label", "label"}};
    Design other = d;
    const auto askOthers = [&](int from, int count) {
        for (int i = from; i < from + count; ++i) {
            other.features.front().id = "x" + std::to_string(i);
            specOf(other);
        }
    };
    specOf(d);
    askOthers(0, 250);
    const DesignSpec& held = specOf(d); // long known, and asked for again
    const std::size_t dimensions = held.dimensions.size();
    askOthers(1000, 200);
    CHECK(&specOf(d) == &held);
    CHECK(held.dimensions.size() == dimensions);
    CHECK(held.dimension("label.drop"));
}
