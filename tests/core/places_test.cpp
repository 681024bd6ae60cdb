// SPDX-License-Identifier: GPL-3.0-or-later
// Parts on places of any form: connectors in the seams beside a face or riveted onto it, shoulder straps on any face.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"
#include "sewable.hpp"

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

/// Forms that have a face outside, each with nothing but its own body.
std::vector<Design> bodies()
{
    std::vector<Design> out;
    for (const Form* form : forms()) {
        bool faces = false;
        for (const auto& site : form->sites())
            faces |= !site.lining && site.own.empty();
        if (!faces || form->id() == "envelope-clutch")
            continue;
        Design d = newDesign(form->id());
        while (!d.features.empty() && form->id() != "zip-around" && form->id() != "polygon")
            removeFeature(d, d.features.back().id);
        out.push_back(d);
    }
    return out;
}

std::vector<const Fitting*> of(const Pattern& p, const std::string& owner, Fitting::Kind kind)
{
    std::vector<const Fitting*> out;
    for (const auto& f : p.fittings)
        if (f.key.owner() == PartId(owner) && f.kind == kind)
            out.push_back(&f);
    return out;
}

} // namespace

TEST_CASE("Places: connectors in the seams beside a face stand level on its edges and are caught there, on every form")
{
    const Geos geos;
    int forms = 0;
    for (Design d : bodies()) {
        INFO(d.form);
        const std::string id = addFeature(d, "connectors");
        setChoice(d, id + ".held", "sides");
        requireSewable(d);
        for (const auto& p : draftAll(d)) {
            const auto rings = of(p, id, Fitting::Kind::Ring);
            REQUIRE(rings.size() == 2);
            CHECK(std::abs(rings[0]->at.y - rings[1]->at.y) < 1e-6);
            CHECK(rings[0]->at.x < rings[1]->at.x);
            const Piece& face = *p.piece(rings[0]->piece);
            for (const Fitting* ring : rings) {
                const Polyline outline = flattened(face.stitch(), 0.005);
                CHECK(distanceTo(outline, ring->at) < 0.02); // on the stitch line
            }
            const Site* site = nullptr;
            for (const auto& each : p.sites)
                if (each.name == "back" || (!site && !each.lining))
                    site = &each;
            REQUIRE(site);
            CHECK(std::abs(site->top - p.values.at(id + ".down") - rings[0]->at.y) < 1e-6);
            int traps = 0;
            for (const auto& seam : p.seams)
                traps += std::count(seam.trapped.begin(), seam.trapped.end(), PieceId(PartId(id))) > 0;
            CHECK(traps >= 1);
            CHECK(boughtOf(p, Ware::Ring) == 2);
        }
        const Mockup m = mockupOf(d, draftAll(d).front());
        CHECK(m.rings.size() == 2);
        ++forms;
    }
    CHECK(forms >= 9);
}

TEST_CASE(
    "Places: riveted connectors have a patch behind and four rivets that pass tab, face and patch, clear of seams")
{
    const Geos geos;
    for (Design d : bodies()) {
        INFO(d.form);
        const std::string id = addFeature(d, "connectors");
        setChoice(d, id + ".held", "riveted");
        requireSewable(d);
        for (const auto& p : draftAll(d)) {
            const auto rivets = of(p, id, Fitting::Kind::Rivet);
            REQUIRE(rivets.size() == 4);
            CHECK(boughtOf(p, Ware::Rivet) == 4);
            for (const Fitting* rivet : rivets) {
                const Piece& face = *p.piece(rivet->piece);
                CHECK(insideOutline(flattened(face.stitch(), 0.01), rivet->at));
                CHECK(distanceTo(flattened(face.stitch(), 0.01), rivet->at) > rivet->size / 2);
                CHECK(!rivet->throughLining);
                const bool patched = std::any_of(face.layers.begin(), face.layers.end(), [&](const Layer& l) {
                    return !l.wholePiece && insideOutline(flattened(l.outline, 0.1), rivet->at);
                });
                CHECK(patched);
            }
            const std::string text = words(told(p, *p.step(id + ".on")).text);
            CHECK_THAT(text, Contains("its ends below, the ring above"));
        }
        // 2 × (loop + end): both ends of the loop lie under the rivets.
        const Pattern p = draftAll(d).front();
        const double cut = boundsOf(p.piece(id)->cut).height();
        CHECK(std::abs(cut - 2 * (p.values.at(id + ".loop") + p.values.at(id + ".end"))) < 0.01);
    }
}

TEST_CASE("Places: a strap finds its rings on forms without a mouth's seam, as long as its working says")
{
    for (Design d : bodies()) {
        INFO(d.form);
        const std::string id = addFeature(d, "strap");
        requireSewable(d);
        const Pattern p = draftAll(d).front();
        REQUIRE(p.straps.size() == 1);
        const Strap& strap = p.straps.front();
        const double loops = 2 * p.values.at("connectors.loop");
        CHECK(
            std::abs(strap.longest - (strap.cutLength - 2 * strap.fold - p.values.at(id + ".slider") + loops)) < 0.01);
        // In the mock-up it goes from ring to ring: half an ellipse as long as the strap at its shortest.
        const Mockup m = mockupOf(d, p);
        double along = 0;
        for (const auto& f : m.facets)
            if (f.piece == strap.piece) {
                const Vec3 a = (f.corners[0] + f.corners[3]) * 0.5, b = (f.corners[1] + f.corners[2]) * 0.5;
                along += std::sqrt(dot(b - a, b - a));
            }
        CHECK(along > 0.97 * (strap.shortest - loops));
        CHECK(along < 1.01 * (strap.shortest - loops));
    }
}

TEST_CASE("Places: shoulder straps on any face: sliders in their loops, webbing from the triangles, one pair bought")
{
    for (Design d : bodies()) {
        INFO(d.form);
        std::string id;
        try {
            id = addFeature(d, "shoulder-straps");
        } catch (const InputError& e) {
            CHECK_THAT(std::string(e.what()), Contains("triangle") || Contains("corner"));
            continue;
        }
        assign(d, id + ".width=40"); // not as wide as straps that the form has itself: their lines are told apart
        requireSewable(d);
        for (const auto& p : draftAll(d)) {
            for (const auto& seam : p.seams) {
                INFO(seam.key.text());
                CHECK(std::abs(seam.difference()) < 0.01);
            }
            const int own = d.form == "roll-top" ? 2 : 0; // its own straps' sliders are named by the form
            CHECK(boughtOf(p, Ware::WebbingSlider) == 2 + own);
            const auto order = orderOf(d, p);
            const auto at = [&](const std::string& step) {
                for (std::size_t i = 0; i < order.size(); ++i)
                    if (p.steps[order[i]].id == step)
                        return i;
                FAIL("no step " << step);
                return std::size_t(0);
            };
            // Worked order D: straps on the back before its sides, loops in the straps before they are sewn on.
            CHECK(at(id + ".make") < at(id + ".loops"));
            CHECK(at(id + ".loops") < at(id + ".on"));
            CHECK(at("brace.make") < at("brace.on"));
            const Step& on = *p.step(id + ".on");
            for (const auto& step : p.steps)
                if (step.kind == StepKind::Seam && step.phase != "Small parts"
                    && std::count(step.pieces.begin(), step.pieces.end(), on.pieces.back()) > 0)
                    CHECK(at(id + ".on") < at(step.id.text()));
            CHECK_THAT(words(told(p, on).text), Contains("The straps point down"));
            REQUIRE(!p.piece(on.pieces.front())->layers.empty()); // padded
            CHECK(p.piece(on.pieces.front())->layers.front().material == "foam-sewin");
            for (const auto& step : p.steps)
                for (const auto& act : step.acts)
                    if (act.verb == Act::Verb::JoinCoats)
                        CHECK_THAT(words(told(p, step).text), Contains("straps hang down between the layers"));
        }
        const Pattern p = draftAll(d).front();
        REQUIRE(p.hung.size() >= 2);
        CHECK(
            std::abs(p.hung[p.hung.size() - 1].from.x - p.hung[p.hung.size() - 2].from.x - p.values.at(id + ".spread"))
            < 0.01);
        int ribbons = 0;
        for (const auto& f : mockupOf(d, p).facets)
            ribbons += f.piece == PieceId(p.hung.back().piece);
        CHECK(ribbons == 32);
    }
}

TEST_CASE("Places: feet stand inset from the edges of what the bag stands on, before its board, counted once")
{
    const Geos geos;
    int stood = 0;
    for (Design d : bodies()) {
        INFO(d.form);
        std::string id;
        try {
            id = addFeature(d, "feet");
        } catch (const InputError& e) {
            CHECK(!formOf(d.form).stands());
            CHECK_THAT(std::string(e.what()), Contains("no base"));
            continue;
        }
        requireSewable(d);
        for (const int row : {2, 3}) {
            assign(d, id + ".row=" + std::to_string(row));
            for (const auto& p : draftAll(d)) {
                const auto feet = of(p, id, Fitting::Kind::Foot);
                CHECK(int(feet.size()) == 2 * row);
                CHECK(boughtOf(p, Ware::Foot) == 2 * row);
                for (const Fitting* foot : feet) {
                    const Piece& piece = *p.piece(foot->piece);
                    const Polyline outline = flattened(piece.stitch(), 0.005);
                    CHECK(insideOutline(outline, foot->at));
                    // The nearest edge of the base is the inset away, or more; GEOS measures the edge.
                    const double along = geos.project(outline, foot->at);
                    const Run closed = lineRun(outline);
                    CHECK(distance(pointAlong(closed, along), foot->at) > p.values.at(id + ".inset") - 0.05);
                }
            }
        }
        ++stood;
    }
    CHECK(stood == 7);
    Design own = newDesign("separate-base");
    setChoice(own, "base.feet", "yes");
    CHECK_THROWS_WITH(addFeature(own, "feet"), Contains("feet of its own"));
    Design two = newDesign("gusseted-satchel");
    setChoice(two, "gusset.strips", "two");
    CHECK_THROWS_WITH(addFeature(two, "feet"), Contains("stand on a seam"));
}

TEST_CASE("Places: handles on one face, or on a bucket's front; cut, made and bought once")
{
    for (const char* form : {"boxed-corner", "cylinder", "roll-top"}) {
        Design d = newDesign(form);
        INFO(form);
        const std::string id = addFeature(d, "handles");
        setChoice(d, id + ".on", "front");
        setChoice(d, id + ".fixed", "riveted");
        setChoice(d, id + ".make", "rolled");
        requireSewable(d);
        const Pattern p = draftAll(d).front();
        CHECK(p.piece(id)->count == 1);
        CHECK(boughtOf(p, Ware::Rivet) == 4);
        CHECK(of(p, id, Fitting::Kind::Rivet).size() == 4);
        CHECK(p.step(id + ".on front"));
        CHECK(!p.step(id + ".on back"));
        // It stands as high over the mouth as its drop says.
        double top = -1e9;
        for (const auto& f : mockupOf(d, p).facets)
            if (f.piece == PieceId(PartId(id)))
                for (const Vec3 v : f.corners)
                    top = std::max(top, v.y);
        CHECK(std::abs(top - (p.height + p.values.at(id + ".drop") + p.values.at(id + ".width") / 2)) < 3);
    }
}

TEST_CASE("Places: in a part's formulas the face's width and height are those of the very face that it sits on")
{
    int faces = 0, sides = 0;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        while (!d.features.empty() && form->id() != "zip-around" && form->id() != "polygon")
            removeFeature(d, d.features.back().id);
        std::string id;
        try {
            id = addFeature(d, "label");
        } catch (const InputError&) {
            continue;
        }
        for (const auto& site : medium(d).sites) {
            Design there = d;
            try {
                setChoice(there, id + ".site", site.name.text());
            } catch (const InputError&) {
                continue;
            }
            INFO(form->id() << ", " << site.name);
            for (const auto& p : draftAll(there)) {
                const Site* face = p.site(site.name.text());
                REQUIRE(face);
                const auto& spec = specOf(there);
                CHECK(p.values.at(spec.meant("face.width", id + ".across")) == Approx(face->width));
                // The range lets it go as far sideways as the face reaches.
                const Range range = rangeOf(*spec.dimension(id + ".across"), p.values);
                CHECK(range.max == Approx((face->width - p.values.at(id + ".width")) / 2));
            }
            ++faces;
            sides += site.name == SiteId("left") || site.name == SiteId("right");
        }
    }
    CHECK(faces > 40);
    CHECK(sides >= 2);
}
