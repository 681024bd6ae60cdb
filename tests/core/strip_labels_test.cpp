// SPDX-License-Identifier: GPL-3.0-or-later
// Labels on straps, handles, belts and tabs: on the side that is seen, in every way that a strip is folded.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"
#include "sewable.hpp"
#include "space.hpp"

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

/// A label on a strip, 60 % as wide, 15 mm long.
std::string labelStrip(Design& d, const std::string& site)
{
    const std::string id = addFeature(d, "label");
    edit(d, [&](Design& next) {
        change::choice(next, id + ".site", site);
        change::assign(next, id + ".across=0");
        change::assign(next, id + ".width=0.6*" + site + ".face.width");
        change::assign(next, id + ".height=min(15, 0.5*" + site + ".face.height)");
        change::assign(next, id + ".drop=0.2*" + site + ".face.height");
    });
    return id;
}

void lookAtLabel(const Design& d, const std::string& id, const std::string& site, double finished)
{
    const Geos geos;
    requireSewable(d);
    for (const auto& p : draftAll(d)) {
        INFO(d.form << ", " << site << ", size " << p.size);
        const Place& place = *std::find_if(
            p.places.begin(), p.places.end(), [&](const Place& q) { return q.feature == id; });
        const Piece& strip = *p.piece(place.piece);
        const Box b = place.area, whole = boundsOf(strip.stitch());
        CHECK(geos.covers(
            flattened(strip.stitch(), 0.01), {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, 0.01));
        // Between two folds: the second quarter of a strip folded twice, the middle half of one whose edges meet; else
        // clear of both edges.
        const double times = whole.width() / finished;
        const double from = whole.x0 + (times > 3 ? finished : times > 1.9 && times < 2.1 ? finished / 2 : 0);
        CHECK(b.x0 > from + 0.5);
        CHECK(b.x1 < from + std::max(finished, whole.width() - 2 * (from - whole.x0)) + 0.01);
        if (times > 3 || (times > 1.9 && times < 2.1))
            CHECK(b.x1 < from + finished - 0.5);
        // On the strip before it is folded, lined or threaded.
        const auto position = [&](auto does) {
            for (std::size_t i = 0; i < p.steps.size(); ++i)
                for (const auto& act : p.steps[i].acts)
                    if (does(act))
                        return i;
            return p.steps.size();
        };
        const std::size_t sewn = position([&](const Act& a) {
            return a.verb == Act::Verb::StitchOn && !a.seams.empty() && a.seams.front() == SeamId(OwnName{id, "on"});
        });
        const std::size_t folded = position([&](const Act& a) {
            return (a.verb == Act::Verb::FoldStrip || a.verb == Act::Verb::ThreadStrap || a.verb == Act::Verb::BoxOn
                       || a.verb == Act::Verb::Ring || a.verb == Act::Verb::ThreadTails)
                && !a.pieces.empty() && a.pieces.front() == place.piece;
        });
        REQUIRE(sewn < p.steps.size());
        CHECK(sewn < folded);
        for (const auto& f : checkAll(d, {p}))
            CHECK(f.check != "whole");
    }
    // It shows on the folded bag, in its size.
    const Pattern p = medium(d);
    const Mockup m = mockupOf(d, p);
    double area = 0;
    for (const auto& f : m.facets)
        if (f.piece == PieceId(PartId(id)) && f.kind == "overlay")
            area += areaOf(f.corners);
    CHECK(area == Approx(areaOf(p.piece(PieceId(PartId(id)))->stitch())).epsilon(0.1));
}

} // namespace

TEST_CASE("Labels on adjustable, doubled and wrist straps, whatever their cloth and fold")
{
    for (const char* worn : {"shoulder", "doubled", "wrist"})
        for (const char* make : {"cloth", "webbing"})
            for (const char* way : {"twice", "meet", "faced", "padded"})
                for (const char* joins : {"straight", "diagonal"}) {
                    if (std::string(make) == "webbing" && (std::string(way) != "twice" || joins[0] == 'd'))
                        continue;
                    Design d = newDesign("gusseted-satchel");
                    if (std::none_of(
                            d.features.begin(), d.features.end(), [](const Feature& f) { return f.id == "strap"; }))
                        addFeature(d, "strap");
                    setChoice(d, "strap.worn", worn), setChoice(d, "strap.make", make);
                    setChoice(d, "strap.way", way), setChoice(d, "strap.joins", joins);
                    INFO(worn << ", " << make << ", " << way << ", " << joins);
                    const std::string id = labelStrip(d, "strap.strap");
                    lookAtLabel(d, id, "strap.strap", medium(d).values.at("strap.width"));
                }
}

TEST_CASE("Labels on handles, connectors, belts and padded straps")
{
    for (const char* make : {"flat", "webbing"}) {
        Design d = newDesign("separate-base");
        const std::string handles = addFeature(d, "handles");
        setChoice(d, handles + ".make", make);
        const std::string id = labelStrip(d, handles + ".handle");
        lookAtLabel(d, id, handles + ".handle", medium(d).values.at(handles + ".width"));
        for (const auto& step : medium(d).steps)
            if (step.id == StepId(OwnName{id, "on"}))
                CHECK_THAT(words(told(medium(d), step).text), Contains("One of them alone has the label"));
    }
    for (const char* cloth : {"canvas-12", "vinyl"}) {
        Design d = newDesign("gusseted-satchel");
        setMaterial(d, "shell", cloth);
        const std::string id = labelStrip(d, "connectors.tab");
        lookAtLabel(d, id, "connectors.tab", medium(d).values.at("connectors.width"));
    }
    for (const char* held : {"sides", "loops"})
        for (const char* make : {"webbing", "cloth"}) {
            Design d = newDesign("flat-pouch");
            const std::string belt = addFeature(d, "belt");
            setChoice(d, belt + ".held", held), setChoice(d, belt + ".make", make);
            const std::string id = labelStrip(d, belt + ".belt");
            lookAtLabel(d, id, belt + ".belt", medium(d).values.at(belt + ".width"));
        }
    Design tote = newDesign("large-tote");
    if (std::none_of(tote.features.begin(), tote.features.end(), [](const Feature& f) { return f.kind == "brace"; }))
        addFeature(tote, "brace");
    const std::string straps = addFeature(tote, "shoulder-straps");
    lookAtLabel(
        tote, labelStrip(tote, straps + ".strap"), straps + ".strap", medium(tote).values.at(straps + ".width"));
    Design backpack = newDesign("roll-top");
    const std::string id = addFeature(backpack, "label");
    edit(backpack, [&](Design& next) {
        change::choice(next, id + ".site", "strap");
        for (const char* set : {".width=30", ".height=15", ".drop=40", ".across=0"})
            change::assign(next, id + set);
    });
    lookAtLabel(backpack, id, "strap", medium(backpack).values.at("strap.width"));
}

TEST_CASE("Straps and tabs take labels, and nothing that needs a face")
{
    Design d = newDesign("gusseted-satchel");
    const Carrier carrier = carrierFor(d);
    for (const FeatureKind* kind : featureKinds())
        for (const auto& choice : kind->choices(carrier))
            if (choice.name == "site") {
                const bool offers = std::any_of(choice.options.begin(), choice.options.end(),
                    [](const auto& option) { return option.first == "connectors.tab"; });
                CHECK(offers == (kind->kind() == "label"));
            }
    // A rolled handle has no flat side: what lay on it waits, and is told.
    Design tote = newDesign("separate-base");
    const std::string handles = addFeature(tote, "handles");
    labelStrip(tote, handles + ".handle");
    CHECK_THROWS_AS(setChoice(tote, handles + ".make", "rolled"), InputError);
}
