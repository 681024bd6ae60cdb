// SPDX-License-Identifier: GPL-3.0-or-later
// A part that is moved lines up with its face and with other parts, in every size; parts are mirrored.
#include "drawn.hpp"
#include "every_design.hpp"

#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

const Place* placeOf(const Pattern& p, const std::string& part)
{
    for (const auto& place : p.places)
        if (place.feature == PartId(part))
            return &place;
    return nullptr;
}

const Site* siteOf(const Pattern& p, const Place& place)
{
    for (const auto& site : p.sites)
        if (std::find(site.pieces.begin(), site.pieces.end(), place.piece) != site.pieces.end())
            return &site;
    return nullptr;
}

/// Puts two labels on one face of a form, away from its middle; the second is moved.
bool labelled(Design& d, const std::string& form)
{
    d = newDesign(form);
    while (!d.features.empty() && form != "zip-around" && form != "polygon")
        removeFeature(d, d.features.back().id);
    try {
        if (addFeature(d, "label") != "label" || addFeature(d, "label") != "label2")
            return false;
        for (const char* part : {"label", "label2"}) {
            assign(d, std::string(part) + ".width=30");
            assign(d, std::string(part) + ".height=12");
        }
        setChoice(d, "label2.site", d.choices.at("label.site"));
        assign(d, "label.drop=40");
        assign(d, "label.across=17");
        assign(d, "label2.drop=70");
        assign(d, "label2.across=-9");
    } catch (const InputError&) {
        return false;
    }
    return true;
}

} // namespace

TEST_CASE("Alignments: whatever a part lines up with, it lies there, in the size seen and in all others")
{
    int forms = 0, tried = 0, held = 0;
    for (const Form* form : tectonis::forms()) {
        Design d;
        if (!labelled(d, form->id()))
            continue;
        ++forms;
        const Pattern seen = medium(d);
        const Place* place = placeOf(seen, "label2");
        REQUIRE(place);
        const Site* site = siteOf(seen, *place);
        REQUIRE(site);
        const Point now{place->area.centre().x, place->area.y1};
        for (const auto& guide : alignmentsFor(d, seen, movableOf(seen, PartId("label2")), *site, now)) {
            INFO(form->id() << ": " << words(guide.what) << (guide.upright ? ", upright" : ", level") << " = "
                            << guide.value);
            const Point wanted = guide.upright ? Point{guide.at, now.y} : Point{now.x, guide.at};
            // Near it, it snaps there; a little beyond reach it does not.
            const Point near = wanted + (guide.upright ? Point{0.4, 0} : Point{0, 0.4});
            const LinedUp lined = linedUp({guide}, near, 0.5);
            REQUIRE(lined.with.size() == 1);
            CHECK(distance(lined.at, wanted) < 1e-9);
            CHECK(linedUp({guide}, near, 0.3).with.empty());
            Design moved = d;
            try {
                edit(moved, [&](Design& next) {
                    change::movePart(next, seen, "label2", site->name.text(), lined.at, lined.with);
                });
            } catch (const InputError&) {
                continue;
            }
            ++tried;
            const std::string& value = moved.dimensions.at(guide.upright ? "label2.across" : "label2.drop").value;
            for (const auto& p : draftAll(moved)) {
                const Place* there = placeOf(p, "label2");
                const Site* face = siteOf(p, *there);
                const Point at{there->area.centre().x, there->area.y1};
                const bool same = p.size == seen.size;
                if (!same && value != guide.value)
                    continue;                     // a number alone is measured in the size seen
                if (same && value != guide.value) // kept inside its range
                    continue;
                ++held;
                double line = 0; // where it would be lined up in this size
                bool found = false;
                for (const auto& each : alignmentsFor(moved, p, movableOf(p, PartId("label2")), *face, at))
                    if (each.upright == guide.upright && words(each.what) == words(guide.what)
                        && std::abs(each.at - (guide.upright ? at.x : at.y)) < 0.01)
                        line = each.at, found = true;
                CHECK(found);
                CHECK(std::abs(line - (guide.upright ? at.x : at.y)) < 0.01);
            }
        }
    }
    CHECK(forms >= 8);
    CHECK(tried > 100);
    CHECK(held > 150);
}

TEST_CASE("Alignments: middle and quarters hold when a size grows, and as another part when that is moved")
{
    Design d;
    REQUIRE(labelled(d, "boxed-corner"));
    const Pattern seen = medium(d);
    const Site site = *siteOf(seen, *placeOf(seen, "label2"));
    const auto line = [&](const std::string& what, bool upright) {
        const Place* place = placeOf(seen, "label2");
        const Point now{place->area.centre().x, place->area.y1};
        for (const auto& guide : alignmentsFor(d, seen, movableOf(seen, PartId("label2")), site, now))
            if (guide.upright == upright && words(guide.what).starts_with(what)) {
                Design moved = d;
                change::movePart(moved, seen, "label2", site.name.text(),
                    guide.upright ? Point{guide.at, now.y} : Point{now.x, guide.at}, {guide});
                return moved;
            }
        FAIL("no guide " << what);
        return d;
    };
    const Design quarter = line("a quarter of the width", true);
    for (const auto& p : draftAll(quarter))
        CHECK(std::abs(p.values.at("label2.across")) == Approx(p.values.at("face.width") / 4));
    Design as = line("as Label", true);
    assign(as, "label.across=-23");
    for (const auto& p : draftAll(as))
        CHECK(p.values.at("label2.across") == -23);
    Design mirrored = line("mirrored to ", true);
    assign(mirrored, "label.across=-23");
    for (const auto& p : draftAll(mirrored))
        CHECK(p.values.at("label2.across") == 23);
    // The other way round would go round in a circle: the number alone is taken.
    const Pattern now = medium(as);
    const Place* place = placeOf(now, "label");
    for (const auto& guide :
        alignmentsFor(as, now, movableOf(now, PartId("label")), site, {place->area.centre().x, place->area.y1}))
        if (words(guide.what).starts_with("as Label") && guide.upright) {
            Design round = as;
            change::movePart(round, now, "label", site.name.text(), {guide.at, place->area.y1}, {guide});
            CHECK(round.dimensions.at("label.across").value == "-23");
            CHECK_NOTHROW(draftAll(round));
        }
}

TEST_CASE("Alignments: three millimetres below, above or beside another part; below two rivets; in every size")
{
    Design d;
    REQUIRE(labelled(d, "boxed-corner"));
    const Pattern seen = medium(d);
    const Place one = *placeOf(seen, "label"), two = *placeOf(seen, "label2");
    const Site site = *siteOf(seen, two);
    const Point now{two.area.centre().x, two.area.y1};
    int found = 0;
    for (const auto& guide : alignmentsFor(d, seen, movableOf(seen, PartId("label2")), site, now)) {
        const std::string what = words(guide.what);
        if (!what.starts_with("3 mm "))
            continue;
        Design moved = d;
        change::movePart(moved, seen, "label2", site.name.text(),
            guide.upright ? Point{guide.at, now.y} : Point{now.x, guide.at}, {guide});
        std::vector<Pattern> patterns;
        try {
            patterns = draftAll(moved);
        } catch (const InputError&) {
            continue; // beyond its face
        }
        INFO(what);
        ++found;
        for (const auto& p : patterns) {
            const Box a = placeOf(p, "label")->area, b = placeOf(p, "label2")->area;
            const double apart = what.starts_with("3 mm below") ? a.y0 - b.y1
                : what.starts_with("3 mm above")                ? b.y0 - a.y1
                                                                : std::max(b.x0 - a.x1, a.x0 - b.x1);
            CHECK(apart == Approx(3).margin(0.001));
        }
    }
    CHECK(found >= 2);

    // Of corner patches the rivets count, of riveted connectors their tabs.
    for (const char* part : {"corner-patch", "connectors"}) {
        Design riveted = newDesign("boxed-corner");
        while (!riveted.features.empty())
            removeFeature(riveted, riveted.features.back().id);
        const std::string id = addFeature(riveted, part);
        if (id == "connectors")
            setChoice(riveted, "connectors.held", "riveted");
        setChoice(riveted, id + ".site", "front");
        addFeature(riveted, "label");
        setChoice(riveted, "label.site", "front");
        const Pattern p = medium(riveted);
        double lowest = 1e9, highest = -1e9;
        for (const auto& f : p.fittings)
            if (f.kind == Fitting::Kind::Rivet && f.piece == PieceId("front"))
                lowest = std::min(lowest, f.at.y), highest = std::max(highest, f.at.y + f.size / 2);
        const Place* label = placeOf(p, "label");
        bool beside = false;
        for (const auto& guide :
            alignmentsFor(riveted, p, movableOf(p, PartId("label")), *siteOf(p, *label), label->at))
            beside |= !guide.upright
                && (id == "connectors" ? words(guide.what).starts_with("3 mm below")
                            && std::abs(guide.at - (lowest - p.values.at("connectors.end") / 4 - 3)) < 0.01
                                       : words(guide.what).starts_with("3 mm above")
                            && std::abs(guide.at - (highest + 3 + label->area.height())) < 0.01);
        CHECK(beside);
    }
}

TEST_CASE("Alignments: between lines that lie close together a part can be put where it is drawn")
{
    const auto line = [](double at) { return Alignment{true, at, at, "", say("middle")}; };
    const std::vector<Alignment> close{line(0), line(0), line(6), line(40)};
    CHECK(linedUp(close, {1.9, 0}, 5).at.x == 0);
    CHECK(linedUp(close, {2.1, 0}, 5).at.x == 2.1);
    CHECK(linedUp(close, {3.9, 0}, 5).at.x == 3.9);
    CHECK(linedUp(close, {4.1, 0}, 5).at.x == 6);
    CHECK(linedUp(close, {36, 0}, 5).at.x == 40);
    CHECK(linedUp(close, {30, 0}, 5).at.x == 30);
}

TEST_CASE("Mirrored parts: as far on the other side in every size, like the first in all else; the middle is refused")
{
    int mirrored = 0;
    for (const Form* form : tectonis::forms())
        for (const FeatureKind* kind : featureKinds()) {
            Design d = newDesign(form->id());
            while (!d.features.empty() && form->id() != "zip-around" && form->id() != "polygon")
                removeFeature(d, d.features.back().id);
            std::string id;
            try {
                id = addFeature(d, kind->kind());
            } catch (const InputError&) {
                continue;
            }
            INFO(form->id() << ", " << id);
            const Design before = d;
            if (!d.dimensions.contains(id + ".across")) {
                CHECK_THROWS_AS(change::mirrorPart(d, id), InputError);
                CHECK(d == before);
                continue;
            }
            CHECK_THROWS_AS(change::mirrorPart(d, id), InputError); // it lies in the middle
            d = before;
            std::string other;
            try {
                edit(d, [&](Design& next) {
                    change::assign(next, id + ".across=14");
                    other = change::mirrorPart(next, id);
                });
            } catch (const InputError&) {
                continue;
            }
            ++mirrored;
            for (const auto& p : draftAll(d)) {
                CHECK(p.values.at(other + ".across") == -p.values.at(id + ".across"));
                for (const auto& [name, value] : p.values)
                    if (name.starts_with(id + ".") && name != id + ".across"
                        && p.values.contains(other + name.substr(id.size())))
                        CHECK(p.values.at(other + name.substr(id.size())) == Approx(value));
                const Place *one = placeOf(p, id), *two = placeOf(p, other);
                if (one && two && one->piece == two->piece) {
                    const Site* site = siteOf(p, *one);
                    CHECK(std::abs(one->area.centre().x + two->area.centre().x - 2 * site->x) < 0.01);
                    CHECK(std::abs(one->area.y1 - two->area.y1) < 0.01);
                }
            }
            assign(d, id + ".across=11");
            CHECK(medium(d).values.at(other + ".across") == -11);
        }
    CHECK(mirrored > 30);
}
