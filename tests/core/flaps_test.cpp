// SPDX-License-Identifier: GPL-3.0-or-later
// Flaps of the folded bag, on every form: they keep their cloth, close over the body, and their closures meet in space.
#include "checks/finding.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "mockup/mockup.hpp"
#include "space.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;

namespace {

Vec3 middleOf(const std::vector<Vec3>& corners)
{
    Vec3 sum{};
    for (const Vec3 v : corners)
        sum = sum + v * (1 / double(corners.size()));
    return sum;
}

double apart(Vec3 a, Vec3 b)
{
    const Vec3 d = a - b;
    return std::sqrt(dot(d, d));
}

Vec3 normalOf(const std::vector<Vec3>& c)
{
    Vec3 n{};
    for (std::size_t i = 1; i + 1 < c.size(); ++i)
        n = n + cross(c[i] - c[0], c[i + 1] - c[0]);
    return unitOf(n);
}

double areaOfFacets(const Mockup& m, const PieceId& piece, bool opened)
{
    double sum = 0;
    for (const auto& f : m.facets)
        if (f.piece == piece && f.kind == "flap")
            sum += areaOf(opened ? f.opened : f.corners);
    return sum;
}

/// Each form that takes it with a flap and a snap, or with a pocket that has a flap and a snap under that.
std::vector<std::pair<std::string, Design>> flapped(bool onPocket)
{
    std::vector<std::pair<std::string, Design>> out;
    for (const Form* form : forms()) {
        Design plain = newDesign(form->id());
        while (!plain.features.empty())
            removeFeature(plain, plain.features.back().id);
        for (const auto& choice : specOf(plain).choices)
            for (const auto& [option, label] : choice.options) {
                Design d = plain;
                try {
                    setChoice(d, choice.name, option);
                    if (onPocket) {
                        const std::string pocket = addFeature(d, "patch-pocket");
                        setChoice(d, pocket + ".lid", "yes");
                        const std::string snap = addFeature(d, "snap");
                        setChoice(d, snap + ".site", pocket + ".under");
                    } else if (d.features.empty() && form->underOwnFlap().empty()) {
                        addFeature(d, "flap");
                        addFeature(d, "snap");
                    } else
                        addFeature(d, "snap");
                    draftAll(d);
                } catch (const InputError&) {
                    continue;
                }
                out.emplace_back(form->id() + ", " + choice.name + "=" + option, d);
            }
    }
    return out;
}

} // namespace

TEST_CASE("Flaps: every form that takes one shows it, closed and open, without stretch, outside the body")
{
    int seen = 0;
    std::set<std::string> bodies;
    for (const bool onPocket : {false, true})
        for (const auto& [name, d] : flapped(onPocket))
            for (const auto& p : draftAll(d)) {
                const Mockup m = mockupOf(d, p);
                for (const auto& flap : p.hinged) {
                    INFO(name << ", " << p.size << ", " << flap.piece.text());
                    const double cloth = areaOf(p.piece(flap.piece)->stitch());
                    // Round corners are chords in it.
                    CHECK(areaOfFacets(m, flap.piece, true) == Approx(cloth).epsilon(1e-2));
                    CHECK(
                        areaOfFacets(m, flap.piece, false) == Approx(areaOfFacets(m, flap.piece, true)).epsilon(1e-9));
                    ++seen, bodies.insert(d.form);
                }
            }
    CHECK(seen > 100);
    CHECK(bodies.size() >= 10);
}

TEST_CASE("Flaps: closed in the mock-up, both halves of every closure meet within half a millimetre, facing each other")
{
    int met = 0;
    for (const bool onPocket : {false, true})
        for (const auto& [name, d] : flapped(onPocket)) {
            // The roll-top is shown before it is rolled; the envelope's own flap without what it holds; and a wall in
            // one piece has a seam where the other half would be, which a check tells.
            if (!onPocket
                && (d.form == "roll-top" || d.form == "envelope-clutch"
                    || d.choices.at("flap.site") == d.choices.at("snap.site")))
                continue;
            for (const auto& p : draftAll(d)) {
                INFO(name << ", " << p.size << (onPocket ? ", on a pocket" : ""));
                const Facet *face = nullptr, *under = nullptr;
                const Mockup m = mockupOf(d, p);
                for (const auto& f : m.facets)
                    if (f.kind == "fitting" && f.fitting.name() == "front half")
                        face = &f;
                    else if (f.kind == "fitting" && f.fitting.name() == "flap half")
                        under = &f;
                REQUIRE(face);
                REQUIRE(under);
                const Vec3 n = normalOf(face->corners), between = middleOf(under->corners) - middleOf(face->corners);
                CHECK(apart(between, n * dot(between, n)) < 0.5);
                CHECK(std::abs(dot(between, n)) < 12);
                CHECK(dot(n, normalOf(under->corners)) < -0.97);
                ++met;
            }
        }
    CHECK(met > 100);
}

TEST_CASE("Flaps: what sits on a flap goes with it; a lock's plate shows on both sides")
{
    for (const char* form : {"gusseted-satchel", "zip-around", "hinged-mouth", "cylinder"}) {
        INFO(form);
        Design d = newDesign(form);
        while (!d.features.empty())
            removeFeature(d, d.features.back().id);
        addFeature(d, "flap");
        setChoice(d, addFeature(d, "label") + ".site", "flap.outer");
        setDimension(d, "label.drop", "150"); // before the front
        setChoice(d, addFeature(d, "snap") + ".closure", "turn");
        const Pattern p = draftAll(d)[1];
        const Mockup m = mockupOf(d, p);
        int labels = 0, inside = 0, outside = 0;
        for (const auto& f : m.facets) {
            if (f.kind == "overlay" && f.piece == PieceId(PartId("label"))) {
                ++labels;
                CHECK(f.flap == Facet::Flap::Outside);
                REQUIRE(f.opened.size() == f.corners.size());
                CHECK(apart(middleOf(f.opened), middleOf(f.corners)) > 20);
            }
            if (f.fitting.name() == "flap half")
                (f.flap == Facet::Flap::Inside ? inside : outside) += 1;
        }
        CHECK(labels > 0);
        CHECK(inside == 1);
        CHECK(outside == 1);
    }
}

TEST_CASE("Flaps: a label across the edge over which the flap turns is told, and its repair moves it before the front")
{
    Design d = newDesign("gusseted-satchel");
    const std::string label = addFeature(d, "label");
    setChoice(d, label + ".site", "flap.outer");
    const auto told = [](const Design& design) {
        auto all = checkAll(design, draftAll(design));
        std::erase_if(all, [](const Finding& f) { return f.check != "flap"; });
        return all;
    };
    setDimension(d, label + ".drop", "14"); // 14 to 39 mm below the hinge; it turns at 25 mm
    const auto found = told(d);
    REQUIRE(found.size() == d.sizes.size());
    REQUIRE(found.front().repair);
    setDimension(d, label + ".drop", "30"); // on the way over the mouth it lies flat
    CHECK(told(d).empty());
    setDimension(d, label + ".drop", "14");
    for (const auto& assignment : found.front().repair->assignments) // of the size that needs most
        assign(d, assignment);
    CHECK(told(d).empty());
}

TEST_CASE("Mock-up: a zip across a pocket shows between the pocket's halves, on the pocket")
{
    Design d = newDesign("large-tote");
    setChoice(d, addFeature(d, "inset-zip") + ".site", "front");
    const auto zips = [](const Design& design) {
        const Pattern p = draftAll(design)[1];
        double area = 0;
        for (const auto& f : mockupOf(design, p).facets)
            if (f.kind == "zip" && f.fitting.empty()) {
                Vec3 n{};
                for (std::size_t i = 1; i + 1 < f.corners.size(); ++i)
                    n = n + cross(f.corners[i] - f.corners[0], f.corners[i + 1] - f.corners[0]);
                area += std::sqrt(dot(n, n)) / 2;
            }
        return std::pair{area, p};
    };
    CHECK(zips(d).first > 1000); // on a wall
    const std::string pocket = addFeature(d, "patch-pocket");
    setChoice(d, "inset.site", pocket + ".front");
    const auto [area, p] = zips(d);
    double gap = 0;
    for (const auto& each : p.gaps)
        gap += areaOf(each.stitch());
    CHECK(area == Approx(gap).epsilon(1e-6));
    CHECK(gap > 500);
}
