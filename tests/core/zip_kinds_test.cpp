// SPDX-License-Identifier: GPL-3.0-or-later
// Zips as they are bought: coil, moulded or metal, ready-made and cut down or by the metre, to either side.
#include "drawn.hpp"
#include "english.hpp"
#include "sewable.hpp"

#include "cutting/cost.hpp"
#include "editing/edits.hpp"
#include "editing/repair.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

const Hardware* bought(const Pattern& p, Ware kind, const std::string& owner)
{
    for (const auto& h : p.hardware)
        if (h.kind == kind && h.owner() == PartId(owner))
            return &h;
    return nullptr;
}

Design pocketOf(double length)
{
    Design d = newDesign("gusseted-satchel");
    setRule(d, "zip.length", hold());
    setDimension(d, "zip.length", fmt::format("{}", length));
    return d;
}

} // namespace

TEST_CASE("Zips: a ready-made one is the next length in stock, cut down as its teeth allow, and told so")
{
    // 180 mm is in stock (the library's table), 173 is not.
    for (const double length : {180.0, 173.0})
        for (const char* teeth : {"coil", "moulded", "metal"}) {
            Design d = pocketOf(length);
            setChoice(d, "zip.teeth", teeth);
            INFO(length << " " << teeth);
            requireSewable(d);
            const Pattern p = medium(d);
            const Hardware* zip = bought(p, Ware::Zip, "zip");
            REQUIRE(zip);
            CHECK(zip->size == Approx(180));
            CHECK_THAT(words(zip->sizeText), Contains(teeth) && Contains("180 mm"));
            const Good* good = goodFor(*d.library, *zip, {});
            REQUIRE(good);
            CHECK(good->make == teeth);
            const std::string text = booklet(p);
            const bool cut = length < 180;
            CHECK((text.find("Cut the zip down from 180 mm to 173 mm") != std::string::npos) == cut);
            CHECK((text.find("pull the teeth beyond off") != std::string::npos)
                == (cut && std::string(teeth) == "metal"));
            CHECK((text.find("sew across the chain") != std::string::npos) == (cut && std::string(teeth) != "metal"));
            CHECK(found(d, "zip-stock").size() == (cut ? 1 : 0));
            CHECK(!bought(p, Ware::ZipSlider, "zip"));
        }
}

TEST_CASE("Zips: what is cut down can be taken by the metre in one stroke: tape two inches longer, one slider put on")
{
    Design d = pocketOf(173);
    const auto told = found(d, "zip-stock");
    REQUIRE(told.size() == 1);
    CHECK(told.front().severity == Severity::Note);
    REQUIRE(told.front().repair);
    edit(d, [&](Design& next) { change::repair(next, told.front()); });
    CHECK(d.choices.at("zip.sold") == "metre");
    CHECK(found(d, "zip-stock").empty());
    requireSewable(d);
    const Pattern p = medium(d);
    CHECK(!bought(p, Ware::Zip, "zip"));
    REQUIRE(bought(p, Ware::ContinuousZip, "zip"));
    CHECK(bought(p, Ware::ContinuousZip, "zip")->size == Approx(173 + 50.8)); // common practice, no source
    REQUIRE(bought(p, Ware::ZipSlider, "zip"));
    CHECK(bought(p, Ware::ZipSlider, "zip")->count == 1);
    CHECK_THAT(
        booklet(p), Contains("Put the slider on so that it opens to the right") && !Contains("Cut the zip down"));
}

TEST_CASE("Zips: one that is longer than any in stock is told, with the way out")
{
    Design d = pocketOf(173);
    auto contents = d.library->contents();
    contents.stock.at("zip").values = {100, 150};
    d.library = SharedLibrary(Library(contents));
    const auto told = found(d, "zip-stock");
    REQUIRE(told.size() == 1);
    CHECK(told.front().severity == Severity::Warning);
    CHECK_THAT(words(told.front().text), Contains("173 mm") && Contains("the longest is 150 mm"));
    CHECK(told.front().repair);
}

TEST_CASE("Zips: every part takes every kind, either way of buying and either direction; all that is bought is used")
{
    for (const auto& [form, kind] : {std::pair{"gusseted-satchel", "zip-pocket"}, {"gusseted-satchel", "inset-zip"},
             {"gusseted-satchel", "top-zip"}, {"polygon", "inset-zip"}, {"boxed-corner", "top-zip"}})
        for (const char* teeth : {"coil", "moulded", "metal"})
            for (const char* sold : {"ready", "metre"})
                for (const char* opens : {"right", "left"}) {
                    Design d = newDesign(form);
                    while (std::string(form) != "polygon" && !d.features.empty())
                        removeFeature(d, d.features.back().id);
                    const std::string id = addFeature(d, kind);
                    INFO(form << " " << kind << " " << teeth << " " << sold << " " << opens);
                    setChoice(d, id + ".teeth", teeth), setChoice(d, id + ".sold", sold);
                    setChoice(d, id + ".opens", opens);
                    requireSewable(d);
                    const bool ready = std::string(sold) == "ready";
                    for (const auto& p : draftAll(d)) {
                        CHECK((bought(p, Ware::Zip, id) != nullptr) == ready);
                        CHECK((bought(p, Ware::ContinuousZip, id) != nullptr) != ready);
                        CHECK((bought(p, Ware::ZipSlider, id) != nullptr) != ready);
                        for (const auto& zip : p.zips)
                            if (zip.key.owner() == PartId(id)) {
                                CHECK(zip.kind == teeth);
                                CHECK(std::string(zip.opens.source).ends_with(opens));
                                CHECK((zip.bought >= zip.chain - 0.01 || !ready));
                            }
                        const std::string text = booklet(p);
                        if (!ready)
                            CHECK_THAT(text, Contains(fmt::format("so that it opens to the {}", opens)));
                        CHECK((text.find("Pull the teeth off") != std::string::npos)
                            == (!ready && std::string(teeth) == "metal"));
                    }
                    for (const auto& f : checkAll(d, draftAll(d)))
                        CHECK(f.check != "whole");
                }
}

TEST_CASE("Zips: the loop of a case has its kind as well, and two sliders to buy")
{
    for (const char* teeth : {"coil", "metal"}) {
        Design d = with("zip-around", {});
        setChoice(d, "zip.teeth", teeth);
        requireSewable(d);
        const Pattern p = medium(d);
        const auto tape = std::find_if(
            p.hardware.begin(), p.hardware.end(), [](const Hardware& h) { return h.kind == Ware::ContinuousZip; });
        REQUIRE(tape != p.hardware.end());
        CHECK(tape->make == teeth);
        CHECK(goodFor(*d.library, *tape, {})->make == teeth);
        const auto sliders = std::find_if(
            p.hardware.begin(), p.hardware.end(), [](const Hardware& h) { return h.kind == Ware::ZipSlider; });
        REQUIRE(sliders != p.hardware.end());
        CHECK(sliders->count == 2);
    }
}
