// SPDX-License-Identifier: GPL-3.0-or-later
// Masses as people write them, and what straps carry.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "buildup/layers.hpp"
#include "buildup/load.hpp"
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

TEST_CASE("Load: the bag's cloth and layers with the things whose weight is known; the others are counted")
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
    CHECK(load.working(SubjectId("strap")).result == Approx(bag + 1250));
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
