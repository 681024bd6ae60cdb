// SPDX-License-Identifier: GPL-3.0-or-later
// Belts: what closes round the body is what was asked for, on every form and face, in all sizes.
#include "drawn.hpp"
#include "english.hpp"

#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "figures/figure.hpp"
#include "forms/form.hpp"
#include "mockup/figure.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

double height(const Piece& piece) { return boundsOf(piece.cut).height(); }

/// The belt's length, measured on what is cut: strips joined by two allowances each.
double beltLength(const Pattern& p, const std::string& id)
{
    const Piece& belt = *p.piece(id + ".long");
    return belt.count * height(belt) - 2 * (belt.count - 1) * p.values.at(id + ".allowance");
}

bool told(const Design& d, const std::string& check, const std::string& where)
{
    const auto findings = checkAll(d, draftAll(d));
    return std::any_of(findings.begin(), findings.end(),
        [&](const Finding& f) { return f.check == check && f.key.text().starts_with(where); });
}

} // namespace

TEST_CASE("Belt: let out and closed it goes as far round as was asked for, on every form, held both ways, in all sizes")
{
    int belts = 0;
    for (const Form* form : forms())
        for (const char* held : {"sides", "loops"})
            for (const char* make : {"webbing", "cloth"}) {
                if (!featureKind("belt").unfit(*form).empty())
                    continue;
                Design d = newDesign(form->id());
                INFO(form->id() << ", " << held << ", " << make);
                std::string id;
                try {
                    id = addFeature(d, "belt");
                    setChoice(d, id + ".held", held);
                    setChoice(d, id + ".make", make);
                    draftAll(d);
                } catch (const InputError& e) { // no seam beside that face
                    CHECK_THAT(std::string(e.what()), Contains("no seam is sewn"));
                    continue;
                }
                for (const auto& p : draftAll(d)) {
                    const auto v = [&](const char* name) { return p.values.at(id + "." + name); };
                    const Strap& strap = *p.strapWorn(Strap::Worn::Waist);
                    const double length = beltLength(p, id);
                    CHECK(std::abs(length - strap.cutLength) < 0.01);
                    if (std::string(held) == "sides") {
                        const auto hung = std::find_if(
                            p.hung.begin(), p.hung.end(), [](const Hung& h) { return h.round; });
                        REQUIRE(hung != p.hung.end());
                        const double s = p.values.at("allowance.body"), between = distance(hung->from, hung->to),
                                     end = height(*p.piece(id + ".short")) / 2 - s - v("overlap");
                        const double way = length - s - v("overlap") - v("tail") - 2 * v("hem");
                        CHECK(std::abs(between + end + v("closed") + way - v("reach")) < 0.01);
                        for (const Point at : {hung->from, hung->to})
                            CHECK(distanceTo(flattened(p.piece(hung->on)->stitch(), 0.005), at) < 0.02);
                        int trapped = 0;
                        for (const auto& seam : p.seams)
                            for (const auto& piece : seam.trapped)
                                trapped += piece.owner() == PartId(id);
                        CHECK(trapped == 2);
                    } else {
                        CHECK(
                            std::abs(length - v("fold") - v("tail") - 2 * v("hem") + v("closed") - v("reach")) < 0.01);
                        CHECK(std::abs(boundsOf(p.piece(id + ".loop")->stitch()).height() - v("width") - v("ease"))
                            < 0.01);
                    }
                    CHECK(strap.shortest < strap.longest);
                    const auto notions = notionsOf(p);
                    CHECK(std::count_if(notions.begin(), notions.end(), [](const auto& h) {
                        return h.kind == Ware::Buckle && h.count == 1;
                    }) == 1);
                    const auto order = orderOf(d, p);
                    CHECK(brokenRules(p, order).empty());
                    CHECK(dryRun(p, order).back().parts == std::vector<WorkId>{"bag"});
                }
                for (const auto& finding : checkAll(d, draftAll(d)))
                    CHECK(finding.check != "no-act");
                ++belts;
            }
    CHECK(belts >= 40);
}

TEST_CASE("Belt: the booklet tells both ends apart, keeps the long one out of the seams, and the buckle from slipping")
{
    Design d = newDesign("zip-around");
    const std::string id = addFeature(d, "belt");
    const Pattern p = draftAll(d).front();
    std::string all;
    for (const auto& step : p.steps)
        if (step.id.owner() == PartId(id))
            all += words(tectonis::told(p, step).text) + "\n";
    CHECK_THAT(all, Contains("in half over the bar of the buckle's socket (38 mm inside width)"));
    CHECK_THAT(all, Contains("rolled up and held with a clip, so that no seam catches it"));
    CHECK_THAT(all, Contains("Fold its end over twice, 15 mm each"));
    CHECK(wornBy(p, 1700).how == "round the waist");
}

TEST_CASE("Belt: a belt wider than its buckle, one that few can wear and one that cannot be closed are told")
{
    Design d = newDesign("zip-around");
    const std::string id = addFeature(d, "belt");
    assign(d, id + ".width=42");
    CHECK(told(d, "ring", id));
    assign(d, id + ".width=30");
    CHECK(told(d, "ring", id));
    assign(d, id + ".width=38");
    CHECK_FALSE(told(d, "ring", id));
    assign(d, id + ".reach=900");
    CHECK(told(d, "strap-length", id));
    CHECK_THROWS_AS(assign(d, id + ".reach=200"), InputError);
}

TEST_CASE("Belt: in the mock-up it goes out from both sides and round, let out")
{
    for (const Form* form : forms())
        for (const char* held : {"sides", "loops"}) {
            if (!featureKind("belt").unfit(*form).empty())
                continue;
            Design d = newDesign(form->id());
            std::string id;
            try {
                id = addFeature(d, "belt");
                setChoice(d, id + ".held", held);
            } catch (const InputError&) {
                continue;
            }
            INFO(form->id() << ", " << held);
            const Pattern p = draftAll(d).front();
            double length = 0, low = 1e9, high = -1e9;
            for (const auto& f : mockupOf(d, p).facets)
                if (f.piece == PieceId(OwnName{id, "long"}) && f.kind == "strap") {
                    const Vec3 along = (f.corners[1] + f.corners[2]) * 0.5 - (f.corners[0] + f.corners[3]) * 0.5;
                    length += std::sqrt(dot(along, along));
                    low = std::min(low, f.corners[0].z), high = std::max(high, f.corners[0].z);
                }
            const Strap& strap = *p.strapWorn(Strap::Worn::Waist);
            const auto hung = std::find_if(p.hung.begin(), p.hung.end(), [](const Hung& h) { return h.round; });
            const double between = std::string(held) == "sides" ? distance(hung->from, hung->to) : 0;
            CHECK(std::abs(length - (strap.longest - between)) < 0.02 * length);
            CHECK(high - low > 0.25 * length); // away from the face
        }
}

TEST_CASE("Belt: what is caught beside a face is basted after all that is laid on it, and a cover after it is wrong")
{
    Design d = newDesign("gusseted-satchel");
    const std::string belt = addFeature(d, "belt");
    const std::string patch = addFeature(d, "corner-patch");
    setChoice(d, patch + ".site", "back");
    assign(d, belt + ".down=face.height - 30"); // low enough to meet the corner patches
    const Pattern p = draftAll(d).front();
    auto order = orderOf(d, p);
    CHECK(brokenRules(p, order).empty());
    const auto at = [&](const std::string& id) {
        return std::find_if(order.begin(), order.end(), [&](std::size_t i) { return p.steps[i].id == id; });
    };
    std::string on; // the patches' step on the face
    for (const auto& step : p.steps)
        if (step.id.owner() == PartId(patch) && std::any_of(step.acts.begin(), step.acts.end(), [](const Act& act) {
                return act.verb == Act::Verb::StitchOn;
            }))
            on = step.id.text();
    REQUIRE(at(on) != order.end());
    CHECK(at(on) < at(belt + ".baste"));
    const std::size_t late = *at(on);
    order.erase(at(on));
    order.insert(at(belt + ".baste") + 1, late);
    const auto broken = brokenRules(p, order);
    for (const auto& b : broken)
        UNSCOPED_INFO(b.rule << ": " << words(b.reason));
    CHECK(std::any_of(broken.begin(), broken.end(),
        [](const BrokenRule& b) { return std::string(b.rule) == "cover before what is caught"; }));
    // Far above them it does not matter.
    assign(d, belt + ".down=60");
    const Pattern high = draftAll(d).front();
    const auto fine = brokenRules(high, order);
    CHECK(std::none_of(fine.begin(), fine.end(),
        [](const BrokenRule& b) { return std::string(b.rule) == "cover before what is caught"; }));
}
