// SPDX-License-Identifier: GPL-3.0-or-later
// Bags without a lining whose edges are left raw: of felt, leather, vinyl.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"
#include "geos.hpp"
#include "sewable.hpp"

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "sequence/told.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

/// Every form that can be left raw, of a cloth.
std::vector<Design> raw(const char* cloth)
{
    std::vector<Design> out;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        while (!d.features.empty())
            removeFeature(d, d.features.back().id);
        try {
            setChoice(d, "assembly", "unlined-raw");
        } catch (const InputError&) {
            continue;
        }
        d.layers.clear(), d.carried.clear();
        change::material(d, "shell", cloth);
        out.push_back(std::move(d));
    }
    REQUIRE(out.size() >= 8);
    return out;
}

} // namespace

TEST_CASE("Left raw: the mouth is cut at its line and topstitched, nothing frays, nothing of a lining is left")
{
    const Geos geos;
    bool envelope = false;
    for (const Design& d : raw("vinyl")) {
        INFO(d.form);
        envelope |= d.form == "envelope-clutch";
        requireSewable(d);
        for (const auto& p : draftAll(d)) {
            const Seam& mouth = *p.seam("mouth");
            for (const auto& use : mouth.a) {
                const Piece& piece = *p.piece(use.piece);
                CHECK(piece.edge(use.edge)->allowance == 0);
                CHECK(geos.valid(flattened(piece.cut, 0.1)));
            }
            for (const auto& piece : p.pieces)
                CHECK(!piece.key.text().starts_with("lining."));
            CHECK_THAT(words(told(p, *p.step("mouth")).text), Contains("Topstitch 3.2 mm from the edge"));
        }
        const auto patterns = draftAll(d);
        for (const auto& f : checkAll(d, patterns)) {
            INFO(words(f.text));
            CHECK(f.check != "raw-edge");
            CHECK(f.check != "whole");
            CHECK(f.severity != Severity::Error);
        }
    }
    CHECK(envelope);
}

TEST_CASE("Left raw: of cloth that frays it is told, at the mouth with its hem as the repair where there is one")
{
    for (Design d : raw("canvas-12")) {
        INFO(d.form);
        const Findings all = checkAll(d, draftAll(d));
        const auto mouth = std::find_if(all.begin(), all.end(),
            [](const Finding& f) { return f.check == "raw-edge" && f.key == SubjectId("mouth"); });
        REQUIRE(mouth != all.end());
        CHECK(bool(mouth->repair) == (d.form != "envelope-clutch"));
        if (!mouth->repair)
            continue;
        for (const auto& a : mouth->repair->assignments)
            assign(d, a);
        for (const auto& f : checkAll(d, draftAll(d)))
            CHECK((f.check != "raw-edge" || f.key != SubjectId("mouth")));
    }
}

TEST_CASE("Left raw: an envelope's flap takes its half of the closure from the wrong side, which lies on the front")
{
    Design d = newDesign("envelope-clutch");
    removeFeature(d, "slip");
    setChoice(d, "assembly", "unlined-raw");
    const auto half = [&](const char* name) {
        const Pattern p = medium(d);
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                for (const auto& key : act.fittings)
                    if (key.name() == name)
                        return words(told(p, step).text);
        FAIL(name);
        return std::string();
    };
    requireSewable(d);
    CHECK_THAT(half("flap half"), Contains("from the wrong side"));
    CHECK_THAT(half("front half"), Contains("from the right side"));
    setChoice(d, "snap.closure", "tape");
    CHECK_THAT(half("flap half"), Contains("body, wrong side"));
    setChoice(d, "assembly", "bagged-out");
    CHECK_THAT(half("flap half"), !Contains("wrong side"));
}
