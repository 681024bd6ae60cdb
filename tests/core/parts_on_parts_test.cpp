// SPDX-License-Identifier: GPL-3.0-or-later
// Parts on parts: labels, pockets and zips on pockets and flaps, a snap under a pocket's flap, and what becomes of them
// when the part below goes.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "features/spec_of.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

void requireWhole(const Design& d)
{
    for (const auto& p : draftAll(d)) {
        INFO("size " << p.size);
        for (const auto& seam : p.seams) {
            INFO(seam.key.text());
            CHECK(std::abs(seam.difference()) < 0.01);
        }
        const auto order = orderOf(d, p);
        CHECK(brokenRules(p, order).empty());
        const auto states = dryRun(p, order);
        CHECK(states.back().parts == std::vector<WorkId>{"bag"});
    }
    for (const auto& finding : checkAll(d, draftAll(d))) {
        INFO(finding.size << " " << words(finding.subject) << ": " << words(finding.text));
        CHECK(finding.check != "no-act");
        CHECK(finding.check != "no-step");
        CHECK(finding.check != "seam-length");
    }
}

/// Where a point of a piece that is laid or hinged on others lies.
Point onFace(const Pattern& p, const PieceId& piece, Point at)
{
    for (const auto& o : p.overlays)
        if (o.piece == piece)
            return o.placement(at);
    FAIL(piece.text() << " lies on nothing");
    return {};
}

std::string site(const Design& d, const std::string& part) { return d.choices.at(part + ".site"); }

std::size_t placeOf(const Pattern& p, const std::vector<std::size_t>& order, const std::string& step)
{
    for (std::size_t i = 0; i < order.size(); ++i)
        if (p.steps[order[i]].id == step)
            return i;
    FAIL("no step " << step);
    return 0;
}

} // namespace

TEST_CASE("Parts on parts: a label sits within each face that a part offers, on every form, in all sizes")
{
    int faces = 0;
    for (const Form* form : forms())
        for (const char* host : {"patch-pocket", "slip-pocket", "flap"}) {
            Design d = newDesign(form->id());
            std::string under, label;
            try {
                under = addFeature(d, host);
                if (d.choices.contains(under + ".lid"))
                    setChoice(d, under + ".lid", "yes");
                label = addFeature(d, "label");
                assign(d, label + ".width=min(30, face.width - 34)");
                assign(d, label + ".height=8");
                assign(d, label + ".drop=12");
            } catch (const InputError&) {
                continue; // the form has no face for it
            }
            for (const auto& face : featureKind(host).faces()) {
                if (face.covered)
                    continue;
                INFO(form->id() << ", " << under << "." << face.name);
                try {
                    setChoice(d, label + ".site", under + "." + face.name);
                } catch (const InputError& e) {
                    CHECK_THAT(std::string(e.what()), Contains("room") || Contains("allowed")); // too small a face
                    continue;
                }
                requireWhole(d);
                for (const auto& p : draftAll(d)) {
                    const Site& on = *p.site(SiteId(under + "." + face.name));
                    const Piece &below = *p.piece(on.pieces.front()), &piece = *p.piece(label);
                    const Polyline outline = flattened(below.stitch(), 0.01);
                    for (const Point corner : flattened(piece.stitch(), 0.01)) {
                        const Point at = onFace(p, piece.key, corner);
                        CHECK(insideOutline(outline, at));
                    }
                    CHECK(std::abs(onFace(p, piece.key, {p.values.at(label + ".width") / 2, 0}).x - on.x) < 0.01);
                }
                ++faces;
            }
        }
    CHECK(faces >= 25);
}

TEST_CASE(
    "Parts on parts: a zip in a patch pocket is sewn before the pocket is, and the pocket stays as tall as it was")
{
    for (const char* zip : {"inset-zip", "zip-pocket"})
        for (const char* formId : {"large-tote", "roll-top", "boxed-corner", "separate-base"}) {
            INFO(formId << ", " << zip);
            Design d = newDesign(formId);
            const std::string pocket = addFeature(d, "patch-pocket");
            assign(d, pocket + ".width=min(260, face.width - 40)");
            assign(d, pocket + ".height=min(190, face.height - 40)");
            assign(d, pocket + ".drop=20");
            const Pattern plain = draftAll(d)[1];
            const double tall = boundsOf(plain.piece(pocket)->stitch()).height();
            const std::string id = addFeature(d, zip);
            setChoice(d, id + ".site", pocket + ".front");
            requireWhole(d);
            const Pattern p = draftAll(d)[1];
            const auto order = orderOf(d, p);
            if (std::string(zip) == "inset-zip") {
                const Box upper = boundsOf(p.piece(pocket + ".upper")->stitch()),
                          lower = boundsOf(p.piece(pocket + ".lower")->stitch());
                const double gap = p.values.at(id + ".tape") - 2 * p.values.at(id + ".sewn");
                // domain.md, 4: upper + lower = H − g, stitch to stitch
                CHECK(std::abs(upper.height() + lower.height() - (tall - gap)) < 0.01);
                CHECK(placeOf(p, order, id + ".upper") < placeOf(p, order, pocket + ".on"));
                // Both halves lie on the face where the pocket lies, also in the mock-up.
                const Mockup m = mockupOf(d, p);
                for (const char* half : {".upper", ".lower"}) {
                    const Piece& piece = *p.piece(pocket + half);
                    const Box box = boundsOf(piece.stitch());
                    const Point low = onFace(p, piece.key, {box.x0, box.y0}),
                                whole = onFace(plain, PieceId(PartId(pocket)), {box.x0, box.y0});
                    CHECK(distance(low, whole) < 0.01);
                    CHECK(std::any_of(
                        m.facets.begin(), m.facets.end(), [&](const Facet& f) { return f.piece == piece.key; }));
                }
            } else {
                CHECK(p.zips.back().piece == PieceId(PartId(pocket)));
                CHECK(placeOf(p, order, id + ".zip") < placeOf(p, order, pocket + ".on"));
            }
            bool onPocket = false;
            for (const auto& f : p.fittings)
                onPocket |= f.kind == Fitting::Kind::Zip && f.owner() == PartId(id)
                    && f.piece.text().starts_with(pocket);
            CHECK(onPocket);
        }
}

TEST_CASE("Parts on parts: the halves of a snap under a pocket's flap meet when the flap is closed")
{
    int pairs = 0;
    for (const Form* form : forms())
        for (const char* body : {"flat", "full", "bellows"}) {
            Design d = newDesign(form->id());
            std::string pocket, snap;
            try {
                pocket = addFeature(d, "patch-pocket");
                assign(d, pocket + ".height=min(120, face.height - 32)");
                setChoice(d, pocket + ".lid", "yes");
                setChoice(d, pocket + ".body", body);
                assign(d, pocket + ".flap=min(80, " + pocket + ".height)");
                snap = addFeature(d, "snap");
                setChoice(d, snap + ".site", pocket + ".under");
                assign(d, snap + ".drop=30");
                assign(d, snap + ".across=9");
            } catch (const InputError&) {
                continue;
            }
            INFO(form->id() << ", " << body);
            requireWhole(d);
            for (const auto& p : draftAll(d)) {
                const Fitting *front = nullptr, *flap = nullptr;
                for (const auto& f : p.fittings)
                    if (f.kind == Fitting::Kind::Snap && f.owner() == PartId(snap))
                        (f.piece == PieceId(OwnName{pocket, "lid.under"}) ? flap : front) = &f;
                REQUIRE(front);
                REQUIRE(flap);
                // The closed flap hangs from its line: its underside, seen from the front, is the other way round.
                const Seam& hinge = *p.seam(pocket + ".lid.on");
                const Run line = p.runOf(hinge.a.front());
                const Site& ground = *p.site(SiteId(site(d, pocket)));
                const Point middle = ground.upright(pointAlong(line, lengthOf(line) / 2));
                const Piece& lid = *p.piece(pocket + ".lid");
                double thick = 0;
                for (const auto& w : p.workings)
                    if (w.key == OwnName{snap, "stack"})
                        thick = w.result;
                CHECK(thick > 0.2);
                const double down = boundsOf(lid.stitch()).y1 - flap->at.y - thick - p.values.at(snap + ".slack");
                const Point landed{middle.x - flap->at.x, middle.y - down};
                CHECK(distance(landed, ground.upright(onFace(p, front->piece, front->at))) < 0.01);
            }
            ++pairs;
        }
    CHECK(pairs >= 12);
}

TEST_CASE("Parts on parts: a snap is put under a pocket's flap where the bag has no flap, and asks for none")
{
    Design d = newDesign("large-tote");
    const std::string pocket = addFeature(d, "patch-pocket");
    setChoice(d, pocket + ".lid", "yes");
    assign(d, pocket + ".flap=80");
    assign(d, pocket + ".height=120");
    const std::string snap = addFeature(d, "snap");
    CHECK(site(d, snap) == pocket + ".under");
    CHECK(std::none_of(d.features.begin(), d.features.end(), [](const Feature& f) { return f.kind == "flap"; }));
    for (const auto& finding : checkAll(d, draftAll(d))) {
        INFO(words(finding.subject) << ": " << words(finding.text));
        CHECK(finding.check != "snap");
    }
}

TEST_CASE("Parts on parts: what sits on a part that goes stays where that was; nothing of it is lost")
{
    Design d = newDesign("large-tote");
    const std::string pocket = addFeature(d, "patch-pocket"), label = addFeature(d, "label");
    assign(d, label + ".width=33");
    assign(d, label + ".height=15");
    setChoice(d, pocket + ".lid", "yes");
    setChoice(d, label + ".site", pocket + ".lid");
    SECTION("the flap is taken off the pocket")
    {
        setChoice(d, pocket + ".lid", "no");
        CHECK(site(d, label) == site(d, pocket));
        CHECK(d.dimensions.at(label + ".width").value == "33");
    }
    SECTION("the pocket is taken out")
    {
        const std::string below = site(d, pocket);
        removeFeature(d, pocket);
        CHECK(site(d, label) == below);
        CHECK(d.dimensions.at(label + ".width").value == "33");
    }
    SECTION("it is written and read again")
    {
        const Design again = designFromText(designText(d), "test");
        CHECK(again.choices == d.choices);
        requireWhole(again);
    }
}

TEST_CASE("Parts on parts: face.width means the face that it sits on, in ranges and in the designer's formulas")
{
    Design d = newDesign("large-tote");
    const std::string pocket = addFeature(d, "patch-pocket"), label = addFeature(d, "label");
    assign(d, pocket + ".width=150");
    assign(d, label + ".width=face.width - 40");
    const double onBag = draftAll(d)[1].values.at(label + ".width");
    setChoice(d, label + ".site", pocket + ".front");
    const Pattern p = draftAll(d)[1];
    CHECK(p.values.at(label + ".width") == Approx(110));
    CHECK(onBag > 200);
    CHECK_THROWS_WITH(assign(d, label + ".width=149"), Contains(pocket + ".front.face.width"));
    const Derivation shown = derivationOf(d, specOf(d), p.values, label + ".width", 1);
    REQUIRE(shown.inputs.size() == 1);
    CHECK(shown.inputs.front().second == Approx(150));
}

TEST_CASE("Parts on parts: a pocket and a flap cannot sit on each other")
{
    Design d = newDesign("large-tote");
    const std::string pocket = addFeature(d, "patch-pocket"), other = addFeature(d, "patch-pocket");
    setChoice(d, other + ".site", pocket + ".front");
    Design byHand = d;
    byHand.choices[pocket + ".site"] = other + ".front";
    CHECK_THROWS_WITH(draftAll(byHand), Contains("in a circle"));
    CHECK_THROWS_AS(designFromText(designText(byHand), "test"), InputError);
    // Asked for in the window, the one goes onto the other, and that one down onto the bag.
    setChoice(d, pocket + ".site", other + ".front");
    CHECK(site(d, other).find('.') == std::string::npos);
    requireWhole(d);
}

TEST_CASE("Parts on parts: a label is dragged from deep down on the bag onto a pocket, and back")
{
    Design d = newDesign("large-tote");
    const std::string pocket = addFeature(d, "patch-pocket"), label = addFeature(d, "label");
    assign(d, pocket + ".height=120");
    setChoice(d, label + ".site", "lining back");
    assign(d, label + ".drop=260"); // deeper than the pocket is tall
    const auto drag = [&](const std::string& to, Point at) {
        const Pattern seen = draftAll(d)[1];
        moveFeature(d, seen, label, to, at);
        const Pattern p = draftAll(d)[1];
        const Site& face = *p.site(SiteId(to));
        CHECK(face.top - p.values.at(label + ".drop") == Approx(at.y));
        CHECK(face.x + p.values.at(label + ".across") == Approx(at.x));
    };
    const Site front = *draftAll(d)[1].site(SiteId(pocket + ".front"));
    drag(pocket + ".front", {front.x + 10, front.top - 40});
    drag("back", {-30, 200});
}

TEST_CASE("Parts on parts: whatever is put on another face is made to fit it in all sizes, and what changed is told")
{
    int moved = 0, fitted = 0, tooSmall = 0;
    for (const Form* form : forms())
        for (const char* host : {"patch-pocket", "slip-pocket", "flap"}) {
            Design plain = newDesign(form->id());
            std::string under;
            try {
                under = addFeature(plain, host);
                if (plain.choices.contains(under + ".lid"))
                    setChoice(plain, under + ".lid", "yes");
            } catch (const InputError&) {
                continue;
            }
            for (const char* kind : {"label", "patch-pocket", "inset-zip", "corner-patch", "zip-pocket"}) {
                Design with = plain;
                std::string part;
                try {
                    part = addFeature(with, kind);
                } catch (const InputError&) {
                    continue;
                }
                for (const auto& [face, unused] : specOf(with).choice(part + ".site")->options) {
                    if (face == site(with, part))
                        continue;
                    INFO(form->id() << ": " << part << " on " << face);
                    Design d = with;
                    try {
                        setChoice(d, part + ".site", face); // every value in its range, or refused
                    } catch (const InputError& e) {
                        CHECK_THAT(
                            std::string(e.what()), Contains("room") || Contains("is wider")); // or a narrower wall
                        CHECK(d == with);
                        ++tooSmall;
                        continue;
                    }
                    int changed = 0;
                    for (const auto& [name, dimension] : d.dimensions)
                        if (!(dimension == with.dimensions.at(name))) {
                            CHECK(name.starts_with(part + "."));
                            ++changed;
                        }
                    CHECK(int(fittedBesides(with, d).size()) == changed);
                    CHECK(designFromText(designText(d), "again") == d);
                    ++moved, fitted += changed > 0;
                }
            }
        }
    CHECK(moved > 150);
    CHECK(fitted > 20);
    CHECK(tooSmall > 0);
}

TEST_CASE("Parts on parts: a wall that is joined to the other one sends what sat on it there")
{
    Design d = newDesign("cylinder");
    const std::string pocket = addFeature(d, "patch-pocket");
    setChoice(d, pocket + ".site", "back");
    setChoice(d, "slip.site", "lining back");
    const std::string inner = addFeature(d, "patch-pocket"); // its first choice is the shell
    setChoice(d, inner + ".site", "lining back");
    setChoice(d, "wall.pieces", "one"); // its seam runs down the back
    CHECK(site(d, inner) == "lining front");
    CHECK(site(d, pocket) == "front");
    CHECK(site(d, "slip") == "lining front");
    requireWhole(d);
    CHECK_THROWS_WITH(setChoice(d, pocket + ".site", "back"), Contains("back"));
}

TEST_CASE("A round bucket is as deep as it is wide: its flap reaches over the whole mouth")
{
    Design d = newDesign("cylinder");
    addFeature(d, "flap");
    for (const auto& p : draftAll(d)) {
        CHECK(p.values.at("mouth.depth") == Approx(p.values.at("width")));
        CHECK(p.values.at("flap.length") > p.values.at("width"));
    }
    setChoice(d, "base.shape", "stadium");
    for (const auto& p : draftAll(d))
        CHECK(p.values.at("mouth.depth") == Approx(p.values.at("depth")));
}

TEST_CASE("Parts on parts: what sits on a slip pocket is sewn on before the pocket is folded, on every form")
{
    int seen = 0;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        std::string slip, label;
        try {
            slip = addFeature(d, "slip-pocket");
            label = addFeature(d, "label");
            setChoice(d, label + ".site", slip + ".front");
        } catch (const InputError&) {
            continue;
        }
        INFO(form->id());
        requireWhole(d);
        const Pattern p = draftAll(d)[1];
        const auto order = orderOf(d, p);
        CHECK(placeOf(p, order, label + ".on") < placeOf(p, order, slip + ".make"));
        CHECK(placeOf(p, order, slip + ".make") < placeOf(p, order, slip + ".on"));
        ++seen;
    }
    CHECK(seen >= 9);
}
