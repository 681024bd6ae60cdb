// SPDX-License-Identifier: GPL-3.0-or-later
#include "units/error.hpp"
#include "units/length.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;

TEST_CASE("parseLength reads what people write")
{
    const std::pair<const char*, double> cases[] = {{"240", 240}, {"24 cm", 240}, {"24cm", 240}, {"9 1/2in", 241.3},
        {"9-1/2 in", 241.3}, {"3/8\"", 9.525}, {"9½ in", 241.3}, {"½in", 12.7}, {"12,5 mm", 12.5}, {" 7.25 mm ", 7.25},
        {"1/16 in", 1.5875}, {"0.5 m", 500}, {"-3 mm", -3}, {"2 inches", 50.8}, {"9\u00a01/2 in", 241.3},
        {"-1 1/2 in", -38.1}};
    for (const auto& [text, mm] : cases) {
        INFO(text);
        CHECK(parseLength(text) == Approx(mm).epsilon(1e-12));
    }
    CHECK(parseLength("9 1/2", Unit::Inch) == Approx(241.3));
    CHECK(parseLength("24", Unit::Cm) == Approx(240));
    CHECK(parseLength("24 mm", Unit::Inch) == Approx(24));
}

TEST_CASE("parseLength refuses what is no length, and says how to write one")
{
    for (const char* text :
        {"", "  ", "abc", "12 furlongs", "1/0 in", "nan", "inf", "1e999", "--4", "3/ in", "1/2/3 in", "mm", "4 4 4"}) {
        INFO(text);
        CHECK_THROWS_AS(parseLength(text), InputError);
    }
    CHECK_THROWS_WITH(parseLength("wide"), Catch::Contains("9 1/2in"));
}

TEST_CASE("formatLength writes mm, cm and inches in sixteenths")
{
    CHECK(formatLength(240, Unit::Mm) == "240 mm");
    CHECK(exactLength(12.345, Unit::Mm) == "12.35 mm");
    CHECK(formatLength(240, Unit::Cm) == "24 cm");
    CHECK(formatLength(241.3, Unit::Inch) == "9 1/2 in");
    CHECK(formatLength(9.525, Unit::Inch) == "3/8 in");
    CHECK(formatLength(0, Unit::Inch) == "0 in");
    CHECK(formatLength(-12.7, Unit::Inch) == "-1/2 in");
    CHECK(formatLength(25.39, Unit::Inch) == "1 in");
    CHECK(formatNumber(-0.0001) == "0");
}

TEST_CASE("Shown lengths are what a maker can set: half millimetres, a millimetre in cm, sixteenths; what was rounded "
          "in inches says so")
{
    // By hand. 25.4, 50.8, 38.1 are whole eighths of an inch and keep their tenth.
    for (const auto& [mm, words] : {std::pair{240.0, "240 mm"}, {240.26, "240.5 mm"}, {240.24, "240 mm"},
             {25.4, "25.4 mm"}, {38.1, "38.1 mm"}, {25.6, "25.5 mm"}, {6.4, "6.4 mm"}, {12.345, "12.3 mm"},
             {0.35, "0.35 mm"}, {0.004, "0 mm"}, {-20.3, "-20.5 mm"}})
        CHECK(formatLength(mm, Unit::Mm) == words);
    for (const auto& [mm, words] :
        {std::pair{240.0, "24 cm"}, {240.7, "24.1 cm"}, {6.4, "0.64 cm"}, {25.4, "2.54 cm"}, {0.4, "0.04 cm"}})
        CHECK(formatLength(mm, Unit::Cm) == words);
    for (const auto& [mm, words] : {std::pair{340.0, "≈ 13 3/8 in"}, {339.725, "13 3/8 in"}, {3.2, "1/8 in"},
             {6.4, "1/4 in"}, {19.0, "3/4 in"}, {20.0, "≈ 13/16 in"}, {0.4, "0.016 in"}, {0.0, "0 in"}})
        CHECK(formatLength(mm, Unit::Inch) == words);
    CHECK(exactLength(340, Unit::Inch) == "13.3858 in");
    CHECK(exactLength(240.26, Unit::Cm) == "24.026 cm");
}

TEST_CASE("What exactLength writes, parseLength reads back")
{
    for (double mm = 0; mm < 700; mm += 1.5875)
        CHECK(parseLength(exactLength(mm, Unit::Inch)) == Approx(mm).margin(1e-9));
    for (double mm = 0; mm < 700; mm += 7.25)
        for (const Unit u : {Unit::Mm, Unit::Cm})
            CHECK(parseLength(exactLengthBare(mm, u), u) == Approx(mm).margin(1e-9));
    for (double mm = 0.5; mm < 700; mm += 7.13)
        CHECK(parseLength(exactLength(mm, Unit::Inch)) == Approx(mm).margin(0.01));
}
