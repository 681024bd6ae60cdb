// SPDX-License-Identifier: GPL-3.0-or-later
// How the ends of zips are made, and where their first and last stitches lie.
#include "drawn.hpp"
#include "english.hpp"
#include "sewable.hpp"
#include "space.hpp"

#include "editing/edits.hpp"
#include "editing/repair.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

const Zip& zipOf(const Pattern& p, const std::string& part)
{
    for (const auto& zip : p.zips)
        if (zip.key.owner() == PartId(part))
            return zip;
    FAIL("no zip of " << part);
    return p.zips.front();
}

/// A form with that part alone.
std::pair<Design, std::string> withPart(const char* form, const char* kind)
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    const std::string id = addFeature(d, kind);
    return {d, id};
}

int metalEnds(const Pattern& p)
{
    int out = 0;
    for (const auto& h : p.hardware)
        out += h.kind == Ware::ZipEnd ? h.count : 0;
    return out;
}

} // namespace

TEST_CASE("Zip ends by hand: the tape of a window zip, an inset one and a case's, and where they begin and stop")
{
    auto [d, id] = withPart("gusseted-satchel", "zip-pocket");
    setRule(d, id + ".length", hold());
    for (const char* set : {".length=180", ".margin=15", ".allowance=10", ".across=12", ".sold=metre"})
        assign(d, id + set);
    const double face = medium(d).site("lining back")->width;
    for (const auto& [ends, tape] : {std::pair{"stop", 180 + 50.8}, {"folded", 180 + 50.8}, {"seam", 180 + 50.0}}) {
        setChoice(d, id + ".ends", ends);
        const Pattern p = medium(d);
        INFO(ends);
        CHECK(zipOf(p, id).tape == Approx(tape));
        CHECK(zipOf(p, id).nominal == Approx(180));
        // To the right of the middle by 12: its slider rests at the left.
        CHECK(zipOf(p, id).first.stitch == Approx((face - 180) / 2 + 12));
        CHECK(zipOf(p, id).last.stitch == Approx((face - 180) / 2 - 12));
        CHECK((booklet(p).find("fold the tape's ends away behind") != std::string::npos)
            == (std::string(ends) == "folded"));
        CHECK((booklet(p).find("the sides of the pocket bag catch it") != std::string::npos)
            == (std::string(ends) == "seam"));
    }
    setChoice(d, id + ".opens", "left");
    CHECK(zipOf(medium(d), id).first.stitch == Approx((face - 180) / 2 - 12));
    // As it is bought a ready-made zip has an inch beyond its stops.
    setChoice(d, id + ".sold", "ready");
    CHECK(found(d, "zip-ends").empty());
    assign(d, id + ".margin=20");
    auto told = found(d, "zip-ends");
    REQUIRE(told.size() == 1);
    CHECK_THAT(words(told.front().text), Contains("30 mm") && Contains("25.4 mm"));
    edit(d, [&](Design& next) { change::repair(next, told.front()); });
    CHECK(found(d, "zip-ends").empty());

    auto [inset, in] = withPart("gusseted-satchel", "inset-zip");
    const double across = worked(medium(inset), in + ".tab");
    setChoice(inset, in + ".ends", "seam");
    const Pattern p = medium(inset);
    const double body = p.values.at("allowance.body"), bag = p.values.at(in + ".width");
    double wide = 0; // along the cut
    for (const auto& e : p.piece(zipOf(p, in).piece)->edges)
        if (e.name.text().ends_with("bag of " + in))
            wide += e.length();
    REQUIRE(wide > bag);
    CHECK(across == Approx((wide - bag) / 2 + 12 + body));
    CHECK(zipOf(p, in).tape == Approx(wide + 2 * body));
    CHECK(zipOf(p, in).nominal == Approx(bag));
    CHECK(zipOf(p, in).first.stitch == Approx((wide - bag) / 2));
    CHECK(!p.piece(in + ".tab"));
    CHECK_THAT(booklet(p), Contains("The bar tacks lie where the pocket bag ends"));
    requireSewable(inset);

    Design loop = newDesign("zip-around");
    const double panel = zipOf(medium(loop), "").nominal;
    CHECK(panel == Approx(medium(loop).values.at("zip.length")));
    CHECK(zipOf(medium(loop), "").tape == Approx(panel + 20));
    setChoice(loop, "zip.ends", "tab");
    assign(loop, "zip.tab=18");
    const Pattern tabbed = medium(loop);
    CHECK(zipOf(tabbed, "").nominal == Approx(panel - 36));
    CHECK(zipOf(tabbed, "").tape == Approx(panel - 36 + 24));
    CHECK(zipOf(tabbed, "").first.stitch == Approx(18));
    REQUIRE(tabbed.piece("zip tab"));
    CHECK(boundsOf(tabbed.piece("zip tab")->cut).width() == Approx(18 + 12 + 10));
    requireSewable(loop);
}

TEST_CASE("Zip at the mouth: first and last stitch each have their own place, on the right side of the bag")
{
    for (const char* form : {"gusseted-satchel", "boxed-corner", "separate-base"})
        for (const char* held : {"bands", "mouth"})
            for (const char* opens : {"right", "left"}) {
                auto [d, id] = withPart(form, "top-zip");
                assign(d, "mouth.depth" == std::string() ? "" : id + ".end=12");
                setChoice(d, id + ".held", held), setChoice(d, id + ".opens", opens);
                assign(d, id + ".last=40");
                INFO(form << ", " << held << ", to the " << opens);
                requireSewable(d);
                const Pattern p = medium(d);
                const Zip& zip = zipOf(p, id);
                const double face = p.values.at("face.width");
                CHECK(zip.nominal == Approx(face - 12 - 40));
                CHECK(zip.last.stitch - zip.first.stitch == Approx(28));
                // Its closed end lies further out than its tail: the zip is shifted towards its closed end.
                const double aside = std::string(opens) == "right" ? -14 : 14;
                if (std::string(held) == "mouth") {
                    const auto fitting = std::find_if(p.fittings.begin(), p.fittings.end(),
                        [&](const Fitting& f) { return f.key == zip.key.as<FittingKind>(); });
                    REQUIRE(fitting != p.fittings.end());
                    CHECK(fitting->at.x - p.site("front")->x == Approx(aside));
                    CHECK_THAT(booklet(p), Contains("its closed end") && Contains("and its tail"));
                    continue;
                }
                const Mockup m = mockupOf(d, p);
                CHECK(middleOf(m, PieceId(OwnName{id, "band"})).x == Approx(aside).margin(0.01));
                // The lining's seams leave the band's ends where the band lies: as seen from inside, the front's left
                // is the bag's right.
                const auto edge = [&](const char* lining, const char* side) {
                    const Site& site = *p.site(SiteId(lining));
                    for (const auto& key : site.pieces)
                        for (const auto& e : p.piece(key)->edges)
                            if (e.name.text() == std::string(side) + " of " + id)
                                return e.length();
                    FAIL("no such edge");
                    return 0.0;
                };
                const bool right = std::string(opens) == "right";
                CHECK(edge("lining front", right ? "right" : "left") == Approx(zip.first.stitch));
                CHECK(edge("lining back", right ? "left" : "right") == Approx(zip.first.stitch));
                CHECK(edge("lining front", right ? "left" : "right") == Approx(zip.last.stitch));
            }
}

TEST_CASE(
    "Zip ends: every kind at either end, held either way, in either order: it can be sewn, what is bought is used, "
    "and what cannot be made is told and folded away")
{
    for (const char* form : {"boxed-corner", "separate-base"})
        for (const char* assembly : {"bagged-out", "flat"})
            for (const char* held : {"bands", "mouth"})
                for (const double past : {0.0, 50.0})
                    for (const char* first : {"tab", "folded", "seam", "stop", "metal"})
                        for (const char* tail : {"tab", "folded", "seam", "stop", "metal"}) {
                            auto [d, id] = withPart(form, "top-zip");
                            setChoice(d, id + ".held", held);
                            setChoice(d, "assembly", assembly);
                            assign(d, fmt::format("{}.past={}", id, past));
                            setChoice(d, id + ".first", first), setChoice(d, id + ".tail", tail);
                            INFO(form << ", " << assembly << ", " << held << ", past " << past << ", " << first << ", "
                                      << tail);
                            requireSewable(d);
                            const auto all = draftAll(d);
                            const bool bands = std::string(held) == "bands", flat = std::string(assembly) == "flat";
                            const auto can = [&](const std::string& end, bool hangs) {
                                return end == "seam"                  ? !bands && !hangs && flat
                                    : end == "stop" || end == "metal" ? bands || hangs
                                                                      : true;
                            };
                            int unfit = 0, metal = 0;
                            for (const auto& [end, hangs] : {std::pair{first, false}, {tail, past > 0}}) {
                                unfit += !can(end, hangs);
                                metal += can(end, hangs) && std::string(end) == "metal";
                            }
                            CHECK(int(found(d, "zip-ends").size()) == unfit);
                            for (const auto& p : all) {
                                const Zip& zip = zipOf(p, id);
                                CHECK(zip.first.kind == (can(first, false) ? zipEndOf(first) : ZipEnd::Kind::Folded));
                                CHECK(zip.last.kind == (can(tail, past > 0) ? zipEndOf(tail) : ZipEnd::Kind::Folded));
                                CHECK(metalEnds(p) == metal);
                                const std::string text = booklet(p);
                                CHECK((text.find("metal end") != std::string::npos) == (metal > 0));
                                const bool folds = zip.first.kind == ZipEnd::Kind::Folded
                                    || zip.last.kind == ZipEnd::Kind::Folded;
                                CHECK((text.find("aslant beside the last tooth") != std::string::npos) == folds);
                            }
                            for (const auto& f : checkAll(d, all))
                                CHECK(f.check != "whole");
                        }
}

TEST_CASE("Zip ends: what is done at its closed end and what at its tail is told apart")
{
    auto [d, id] = withPart("boxed-corner", "top-zip");
    setChoice(d, id + ".first", "folded"), setChoice(d, id + ".tail", "metal");
    CHECK_THAT(booklet(medium(d)),
        Contains("Fold the tape's closed end away") && Contains("Push a metal end over the tape's tail"));
    setChoice(d, id + ".first", "stop"), setChoice(d, id + ".tail", "tab");
    CHECK_THAT(booklet(medium(d)),
        Contains("Bar-tack across the chain at the closed end") && Contains("over the tape's tail"));
    setChoice(d, id + ".held", "mouth");
    setChoice(d, id + ".first", "tab"), setChoice(d, id + ".tail", "folded");
    CHECK_THAT(booklet(medium(d)), Contains("over the tape's closed end") && Contains("Fold the tape's tail away"));
}

TEST_CASE("Zips: two sliders that meet, by the metre; a ready-made one has one and is told")
{
    for (const auto& [form, kind] :
        {std::pair{"gusseted-satchel", "zip-pocket"}, {"gusseted-satchel", "inset-zip"}, {"boxed-corner", "top-zip"}}) {
        auto [d, id] = withPart(form, kind);
        setChoice(d, id + ".opens", "both");
        setChoice(d, id + ".sold", "ready");
        INFO(kind);
        auto told = found(d, "zip-stock");
        told.erase(std::remove_if(told.begin(), told.end(),
                       [](const Finding& f) { return words(f.text).find("one slider") == std::string::npos; }),
            told.end());
        REQUIRE(told.size() == 1);
        edit(d, [&](Design& next) { change::repair(next, told.front()); });
        requireSewable(d);
        const Pattern p = medium(d);
        CHECK(zipOf(p, id).sliders == 2);
        CHECK(boughtOf(p, Ware::ZipSlider) == 2);
        CHECK_THAT(booklet(p), Contains("Put both sliders on"));
    }
    Design loop = newDesign("zip-around");
    setChoice(loop, "zip.opens", "left");
    CHECK(boughtOf(medium(loop), Ware::ZipSlider) == 1);
    CHECK_THAT(booklet(medium(loop)), Contains("so that it opens to the left"));
    requireSewable(loop);
}
