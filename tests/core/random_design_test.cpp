// SPDX-License-Identifier: GPL-3.0-or-later
// Property: random designs inside the stated ranges draft in all sizes with seams that agree and outlines that do not
// cross.
#include "checks/finding.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "geos.hpp"
#include "library/library.hpp"
#include "random_design.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sheets/plan.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <fmt/format.h>

#include <random>

using namespace tectonis;

TEST_CASE("5,000 random designs: seams agree, outlines are simple, cut holds stitch, in all sizes", "[.long]")
{
    std::mt19937 random(20261125);
    const Geos geos;
    int refused = 0, pieces = 0, seams = 0, unsound = 0, impossible = 0;
    for (int i = 0; i < 5000; ++i) {
        const Design d = randomDesign(random, refused);
        std::vector<Pattern> patterns;
        try {
            patterns = draftAll(d);
        } catch (const InputError& e) {
            // What ranges alone cannot bound, the model refuses in words; an edit that led here would not have been
            // taken.
            CHECK(std::string(e.what()).size() > 20);
            ++impossible;
            continue;
        }
        REQUIRE(patterns.size() == d.sizes.size());
        const Findings findings = checkAll(d, patterns);
        const auto reported = [&](const std::string& check, const std::string& size, const std::string& key) {
            return std::any_of(findings.begin(), findings.end(),
                [&](const Finding& f) { return f.check == check && f.size == size && f.key == key; });
        };
        for (const auto& p : patterns) {
            for (const auto& s : p.seams) {
                ++seams;
                INFO("design " << i << ", " << d.form << " size " << p.size << " seam " << s.name);
                CHECK(s.lengthA > 0);
                CHECK(std::abs(s.difference()) < 0.01);
            }
            for (const auto& piece : p.pieces) {
                ++pieces;
                const Polyline stitch = flattened(piece.stitch(), 0.1), cut = flattened(piece.cut, 0.1);
                INFO("design " << i << ", " << d.form << " size " << p.size << " piece " << piece.code << " width "
                               << p.width << " height " << p.height << " depth " << p.depth);
                // GEOS says whether a ring is simple; a fault that our own check reports to the user is a finding, not
                // a miss.
                const bool stitchValid = geos.valid(stitch), cutValid = geos.valid(cut),
                           holds = stitchValid && cutValid && geos.covers(cut, stitch, 0.2);
                INFO("stitch line " << stitchValid << ", cut line " << cutValid << ", cut holds stitch " << holds);
                if (!holds && ++unsound)
                    CHECK(reported("outline", p.size, piece.key.text()));
                CHECK(areaOf(piece.cut) > 0);
                CHECK(distance(startOf(piece.cut), endOf(piece.cut)) < 1e-6);
                for (const auto& n : piece.notches) {
                    REQUIRE(piece.edge(n.edge));
                    CHECK(n.along >= -1e-9);
                    CHECK(n.along <= piece.edge(n.edge)->length() + 1e-9);
                }
            }
            CHECK(!p.steps.empty());
            const Mockup mockup = mockupOf(d, p);
            CHECK(!mockup.facets.empty());
            INFO("design " << i << ", " << d.form << " size " << p.size << ", gap at " << mockup.gapAt);
            CHECK(mockup.largestGap < 1.0);
        }
        if (i % 50 == 0)
            CHECK(!planSheets({&patterns[0], &patterns[1], &patterns[2]}, paperOf("A4")).pages.empty());
    }
    WARN(unsound << " unsound outlines, all reported; " << pieces << " pieces, " << seams << " seams; " << refused
                 << " values refused as out of another dimension's range; " << impossible
                 << " designs refused as impossible");
    CHECK(impossible < 250);
    CHECK(pieces > 120000);
}

TEST_CASE(
    "5,000 random designs can be sewn: the order breaks no rule, ends with a bag, and may be changed where it is free",
    "[.long]")
{
    std::mt19937 random(12);
    int refused = 0, sewn = 0, swapped = 0;
    for (int i = 0; i < 5000; ++i) {
        const Design d = randomDesign(random, refused);
        Pattern p;
        try {
            p = draft(d, specOf(d), std::size_t(i) % d.sizes.size());
        } catch (const InputError&) {
            continue; // held by the test above
        }
        ++sewn;
        INFO("design " << i << ", " << d.form);
        const auto check = [&](const std::vector<std::size_t>& order) {
            for (const auto& broken : brokenRules(p, order))
                FAIL_CHECK(
                    p.steps[broken.early].id << " before " << p.steps[broken.late].id << ": " << words(broken.reason));
            const DryState last = dryRun(p, order).back();
            CHECK(last.parts == std::vector<WorkId>{"bag"});
            CHECK(last.opening != "open");
            CHECK(last.wrongSideOut.empty());
            for (const auto& [zip, now] : last.zips) {
                INFO(zip);
                CHECK(!now.empty());
                CHECK(std::find(last.sliders.begin(), last.sliders.end(), zip) != last.sliders.end());
            }
        };
        auto order = orderOf(d, p);
        check(order);
        // Every layer is put on by one act.
        std::map<LayerId, int> laid;
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                for (const auto& layer : act.layers)
                    ++laid[layer];
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers)
                CHECK(laid[layer.id] == 1);
        for (const auto& f : tectonis::check({d, specOf(d), p}))
            if (f.check == "no-act" || f.check == "no-step")
                FAIL_CHECK(words(f.subject) << ": " << words(f.text));
        // Neighbours that may change places do; what comes of it is sound as a whole.
        if (i % 10 != 0 || order.size() < 3)
            continue;
        for (int k = 0; k < 30; ++k) {
            auto other = order;
            const std::size_t at = random() % (order.size() - 1);
            std::swap(other[at], other[at + 1]);
            if (brokenRules(p, other).empty())
                order = other, ++swapped;
        }
        check(order);
    }
    CHECK(sewn > 4500);
    CHECK(swapped > 3000);
}

TEST_CASE("Match marks lie at the same stitch length on both mates")
{
    const Design d = newDesign("gusseted-satchel");
    for (const auto& p : draftAll(d)) {
        const Seam& s = *p.seam("front-gusset");
        // Positions along the run on each side, from the notches of the pieces alone.
        const auto positions = [&](const std::vector<EdgeUse>& side) {
            std::vector<double> out;
            double at = 0;
            for (const auto& use : side) {
                const Piece& piece = *p.piece(use.piece);
                for (const auto& n : piece.notches)
                    if (n.edge == use.edge && use.copy == 0)
                        out.push_back(at + (use.reversed ? piece.edge(use.edge)->length() - n.along : n.along));
                at += piece.edge(use.edge)->length();
            }
            std::sort(out.begin(), out.end());
            return out;
        };
        const auto a = positions(s.a), b = positions(s.b);
        CHECK(a.size() >= 7);
        for (const double at : a) {
            const bool met = std::any_of(b.begin(), b.end(), [&](double other) { return std::abs(other - at) < 0.01; });
            INFO("size " << p.size << " notch at " << at);
            CHECK(met);
        }
        CHECK(std::any_of(b.begin(), b.end(), [&](double at) { return std::abs(at - s.lengthB / 2) < 0.01; }));
    }
}
