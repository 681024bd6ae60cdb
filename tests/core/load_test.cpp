// SPDX-License-Identifier: GPL-3.0-or-later
// Masses as people write them, and what straps carry.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "buildup/layers.hpp"
#include "cutting/cost.hpp"
#include "cutting/cut_list.hpp"
#include "cutting/load.hpp"
#include "formats/design_file.hpp"
#include "units/error.hpp"
#include "units/mass.hpp"

using namespace tectonis;
using Catch::Contains;

TEST_CASE("Masses: grams, kilograms, ounces and pounds (NIST SP 811, appendix B), and what is none")
{
    CHECK(parseGrams("450") == 450);
    CHECK(parseGrams(" 450 g ") == 450);
    CHECK(parseGrams("1,2 kg") == Approx(1200));
    CHECK(parseGrams("1 lb") == Approx(453.59237).epsilon(1e-12));
    CHECK(parseGrams("1 oz") == Approx(28.349523125).epsilon(1e-12)); // NIST SP 811: 2.834 952 E+01 g
    CHECK(parseGrams("") == 0);
    for (const char* wrong : {"heavy", "-3 g", "3 stone", "1e999", "12 gg", "nan", "kg", "--2"}) {
        INFO(wrong);
        CHECK_THROWS_AS(parseGrams(wrong), InputError);
    }
}

TEST_CASE("Load: the bag with the things whose weight is known; the others are counted")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern p = medium(d);
    double bag = 0;
    for (const auto& piece : p.pieces)
        bag += weightOf(p, piece);
    REQUIRE(d.carried.size() == 3);
    CHECK(loadOf(d, p).unweighed == 3);
    d.carried[0].weight = 800, d.carried[1].weight = 450;
    const Load load = loadOf(d, p);
    CHECK(load.unweighed == 1);
    CHECK(load.cloth == Approx(bag));
    CHECK(load.working(SubjectId("strap")).result == Approx(load.bag() + 1250));
    CHECK_THAT(words(load.working(SubjectId("strap")).source), Contains("unknown weight: 1"));
    // Kept in the file; what is absurd is refused with its place.
    const Design again = readDesign(designText(d), "file", *d.library).design;
    CHECK(again.carried[0].weight == 800);
    CHECK(again == d);
    d.carried[0].weight = -1;
    CHECK_THROWS_WITH(readDesign(designText(d), "file", *d.library), Contains("weight"));
    d.carried[0].weight = 1e9;
    CHECK_THROWS_AS(readDesign(designText(d), "file", *d.library), InputError);
}

TEST_CASE("Load: metal, zips and thread by hand; what the library does not know the weight of is counted")
{
    Design d = newDesign("gusseted-satchel");
    const auto weigh = [&](const char* id, double grams) {
        Library::Contents all = d.library->contents();
        for (auto& good : all.goods)
            if (good.id == id)
                good.weight = grams;
        d.library = SharedLibrary(Library(std::move(all)));
    };
    for (const auto& [id, grams] :
        {std::pair{"ring-steel", 11.0}, {"slider-steel", 17.0}, {"snap-magnetic-18", 8.0}, {"zip-coil", 20.0}})
        weigh(id, grams);
    const Pattern p = medium(d);
    const Load load = loadOf(d, p);
    // Two rings, a slider, a snap, a zip of so many mm at 20 g a metre.
    CHECK(load.fittings == Approx(2 * 11 + 17 + 8 + 20 * p.values.at("zip.length") / 1000));
    CHECK(load.unknown == 0);
    // Tex is the weight of 1000 m in grams (ISO 1144).
    double thread = 0;
    for (const auto& h : notionsOf(p))
        if (h.kind == Ware::Thread)
            thread += h.size / 1000;
    CHECK(load.thread == Approx(thread * 40 / 1000).epsilon(0.6)); // Tex 30 to 60
    CHECK(load.bagWorking(SubjectId("bag")).result == Approx(load.cloth + load.fittings + load.thread));
    weigh("ring-steel", 0);
    const Load less = loadOf(d, medium(d));
    CHECK(less.unknown == 1);
    CHECK(load.fittings - less.fittings == Approx(22));
    CHECK_THAT(words(less.bagWorking(SubjectId("bag")).source), Contains("unknown weight: 1"));
}

TEST_CASE("Load: with what ships every kind of thing that any bag buys has a weight, webbing too")
{
    forEveryDesign([](const std::string& name, const Design& d) {
        INFO(name);
        const Pattern p = medium(d);
        const Load load = loadOf(d, p);
        CHECK(load.unknown == 0);
        CHECK(load.cloth > 0);
        for (const auto& piece : p.pieces)
            CHECK(weightOf(p, piece) > 0);
    });
}
