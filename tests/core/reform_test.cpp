// SPDX-License-Identifier: GPL-3.0-or-later
// Another form for a design: what it can take stays, what cannot is named, and nothing that is not the form's is lost.
#include "checks/finding.hpp"
#include "drawn.hpp"
#include "english.hpp"
#include "features/feature.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace tectonis;

namespace {

Design wellUsed()
{
    Design d = designFromText(readWhole(std::string(TECTONIS_DATA) + "/demos/tuners-satchel.tectonis"), "demo");
    setSizes(d, {"Small", "Tall (4)"}, "Small");
    d.trials.push_back({"2026-11-25", "Small", "Strap (webbing) too short", 331, 0, 0, 0, 0, 240, {}});
    d.revisions.push_back({"2026-11-25", "Pocket 6 mm taller", {}});
    d.notes = "own notes";
    setMaterial(d, "shell", "denim-10");
    return d;
}

} // namespace

TEST_CASE("From every form to every other: words, sizes, things, trials and revisions stay, and the result drafts")
{
    const Design start = wellUsed();
    for (const Form* form : forms()) {
        INFO(form->id());
        const Reformed r = reformed(start, form->id());
        CHECK(r.design.form == form->id());
        CHECK_NOTHROW(validate(r.design));
        CHECK(r.design.name == start.name);
        CHECK(r.design.studio == start.studio);
        CHECK(r.design.notes == start.notes);
        CHECK(r.design.sizes == start.sizes);
        CHECK(r.design.carried == start.carried);
        CHECK(r.design.trials == start.trials);
        CHECK(r.design.revisions == start.revisions);
        CHECK(r.design.workshop == start.workshop);
        // What a part or a body dimension could not keep is told.
        for (const auto& f : start.features) {
            const bool kept = std::any_of(r.design.features.begin(), r.design.features.end(),
                [&](const Feature& g) { return g.id == f.id && g.kind == f.kind; });
            const bool told = std::any_of(r.lost.begin(), r.lost.end(),
                [&](const Message& s) { return words(s).find(featureKind(f.kind).name()) != std::string::npos; });
            INFO(f.id);
            CHECK((kept || told));
        }
        for (const char* name : {"width", "height", "depth"})
            if (const auto it = r.design.dimensions.find(name); it != r.design.dimensions.end()) {
                const bool told = std::any_of(r.lost.begin(), r.lost.end(),
                    [&](const Message& s) { return words(s).starts_with(specOf(start).dimension(name)->label + " "); });
                INFO(name);
                CHECK((it->second == start.dimensions.at(name) || told));
            }
        if (r.design.materials.contains("shell"))
            CHECK(r.design.materials.at("shell") == "denim-10");
        for (const Form* other : forms())
            CHECK_NOTHROW(validate(reformed(r.design, other->id()).design));
    }
}

TEST_CASE("To a tote with the same measures: 340 wide stays 340, pockets and strap come along, the tote's handles come "
          "with it")
{
    Design d = newDesign("gusseted-satchel");
    setDimension(d, "width", "345");
    setDimension(d, "slip.width", "90");
    removeFeature(d, "zip");
    const Reformed r = reformed(d, "large-tote");
    CHECK(medium(r.design).width == Approx(345));
    CHECK(r.design.dimensions.at("slip.width").value == "90");
    const auto has = [&](const char* kind) {
        return std::any_of(
            r.design.features.begin(), r.design.features.end(), [&](const Feature& f) { return f.kind == kind; });
    };
    CHECK(has("strap"));
    CHECK(has("handles"));
    CHECK_FALSE(has("zip-pocket")); // taken out by hand: it does not come back
    // The corner radius that was changed has no place there and is named.
    setDimension(d, "radius", "33");
    const Reformed named = reformed(d, "large-tote");
    CHECK(
        std::any_of(named.lost.begin(), named.lost.end(), [](const Message& s) { return s == "Corner radius 33 mm"; }));
    // A name that was never changed goes with the form.
    CHECK(r.design.name == formOf("large-tote").name());
}
