// SPDX-License-Identifier: GPL-3.0-or-later
// How narrow a cloth's allowance may be: by hand, told where it is narrower, and when the cloth changes.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "buildup/allowance.hpp"
#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "edition/consequences.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

Design bare(const char* form, const char* cloth)
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    d.layers.clear();
    change::material(d, "shell", cloth);
    return d;
}

Findings narrow(const Design& d)
{
    Findings out;
    for (auto& f : checkAll(d, draftAll(d)))
        if (f.check == "allowance")
            out.push_back(std::move(f));
    return out;
}

} // namespace

TEST_CASE("Least allowances by hand: what frays, what keeps its holes, what is thick")
{
    // Common practice, no source: 3 beside the row, 2.5 frayed away, 1 where holes stay, twice the thickness.
    const auto least = [](const char* cloth) {
        return leastAllowance(medium(bare("boxed-corner", cloth)), Coat::Shell);
    };
    CHECK(least("canvas-12").least == Approx(3 + 2.5 + 2 * 0.75));
    CHECK(least("vinyl").least == Approx(3 + 1 + 2 * 1.1));
    CHECK(least("wool-felt-3").least < 3 + 2 * 3 + 0.01);
    CHECK(!least("wool-felt-3").frays);
    CHECK_THAT(words(least("vinyl").why()), Contains("does not fray, but needle holes stay") && Contains("1.1 mm"));
    // What is fused into the seam holds its threads and turns with it; what ends at the stitch line does not.
    Design fused = bare("boxed-corner", "canvas-12");
    fused.layers = {{"panel", "fusible-woven", "fused", "full", {}, ""}};
    CHECK(leastAllowance(medium(fused), Coat::Shell).least == Approx(3 + 1 + 2 * (0.75 + 0.2)));
    Design trimmed = bare("boxed-corner", "canvas-12");
    trimmed.layers = {{"panel", "fusible-woven", "fused", "stitch", {}, ""}};
    CHECK(leastAllowance(medium(trimmed), Coat::Shell).least == Approx(7));
}

TEST_CASE("An allowance that is narrow for its cloth is told, and widened in one stroke, in all sizes")
{
    Design d = bare("boxed-corner", "leather-4oz"); // 4 + 2 × 1.588
    assign(d, "allowance.body=6");
    const Findings told = narrow(d);
    REQUIRE(!told.empty());
    CHECK_THAT(words(told.front().text), Contains("6 mm is narrow") && Contains("At least 7"));
    REQUIRE(told.front().repair);
    for (const auto& a : told.front().repair->assignments)
        assign(d, a);
    CHECK(narrow(d).empty());
    CHECK(medium(d).values.at("allowance.body") == Approx(7.5));
    // Quilting cotton at a quarter inch is common practice and not told.
    Design quilt = bare("boxed-corner", "quilting-cotton");
    assign(quilt, "allowance.body=6.4");
    CHECK(narrow(quilt).empty());
}

TEST_CASE("Another cloth changes what its allowances want, and says why")
{
    Design d = newDesign("gusseted-satchel"), vinyl = d;
    change::material(vinyl, "shell", "vinyl");
    std::string all;
    for (const auto& each : consequencesOf(d, vinyl))
        all += words(each.what) + "\n";
    CHECK_THAT(all, Contains("allowances of the shell: ") && Contains("(it does not fray, but needle holes stay"));
}

TEST_CASE("New designs of every form have allowances that hold, and with each part that it takes")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        CHECK(narrow(newDesign(form->id())).empty());
        for (const FeatureKind* kind : featureKinds()) {
            Design d = newDesign(form->id());
            if (!whyNotAdd(d, kind->kind()).empty())
                continue;
            addFeature(d, kind->kind());
            INFO("with " << kind->kind());
            CHECK(narrow(d).empty());
        }
    }
}

TEST_CASE(
    "An edge that is turned in frays less: a flap's seam holds at a quarter of an inch, one that lies open wants more")
{
    Design d = bare("boxed-corner", "canvas-12");
    const std::string flap = addFeature(d, "flap");
    const Pattern p = medium(d);
    const Seam* turned = nullptr;
    for (const auto& seam : p.seams)
        if (seam.key.owner() == PartId(flap) && seam.allowance < 7)
            turned = &seam;
    REQUIRE(turned);
    CHECK(leastAllowance(p, *turned).least == Approx(3 + 1 + 2 * 0.75));
    CHECK(leastAllowance(p, *p.seam("bottom")).least == Approx(3 + 2.5 + 2 * 0.75));
}
