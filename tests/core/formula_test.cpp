// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/formula.hpp"
#include "geometry/point.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <atomic>
#include <functional>
#include <map>
#include <thread>

using namespace tectonis;

namespace {

double solved(const std::string& formula, const std::map<std::string, double>& values = {})
{
    return evaluateFormula(formula, [&](const std::string& name) {
        const auto it = values.find(name);
        if (it == values.end())
            throw InputError("", say("no {}", name));
        return it->second;
    });
}

} // namespace

TEST_CASE("Formulas: arithmetic, functions, units, dotted names")
{
    CHECK(solved("1+2*3") == 7);
    CHECK(solved("2*(h - r) + pi*r", {{"h", 10}, {"r", 2}}) == Approx(16 + 2 * pi));
    CHECK(solved("flap.length/2", {{"flap.length", 9}}) == 4.5);
    CHECK(solved("1in + 2cm + 3mm") == Approx(25.4 + 20 + 3));
    CHECK(solved("min(3, 1, 2) + max(4, 5) + sqrt(16)") == 10);
    CHECK(solved("atan2(1, 1)*4") == Approx(pi));
    CHECK(solved("2.5") == 2.5);
    CHECK(solved("-2.5e1") == -25);
}

TEST_CASE("Formulas: names are found, errors are told, what the asker throws passes through")
{
    CHECK(namesIn("a + b.c*a - 3") == std::set<std::string>{"a", "b.c"});
    for (const char* bad : {"", "1+", "(2", "2)", "a b", "1/0", "sqrt(0-1)", "log(0)", "5 mm mm x"}) {
        INFO(bad);
        CHECK_THROWS_AS(solved(bad, {{"a", 1}, {"b", 2}, {"x", 3}}), InputError);
    }
    CHECK_THROWS_WITH(solved("missing*2"), Catch::Contains("no missing"));
    CHECK_THROWS_AS(solved(std::string(500, '1') + "+1"), InputError);
    std::string many = "a0";
    std::map<std::string, double> values{{"a0", 1}};
    for (int i = 1; i < 60; ++i) {
        many += "+a" + std::to_string(i);
        values["a" + std::to_string(i)] = 1;
    }
    CHECK_THROWS_AS(solved(many, values), InputError);
}

TEST_CASE("Formulas inside formulas: the same one with other values while it is being asked")
{
    // f asks for x, whose value comes from the same formula with other inputs.
    int depth = 0;
    std::function<double(const std::string&)> ask = [&](const std::string&) -> double {
        return depth++ < 5 ? evaluateFormula("x + 1", ask) : 10;
    };
    CHECK(evaluateFormula("x + 1", ask) == 16);
}

TEST_CASE("Formulas may be worked out on several threads at once")
{
    std::vector<std::thread> threads;
    std::atomic<int> wrong = 0;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (int i = 0; i < 300; ++i)
                if (solved("a*2 + 1", {{"a", double(t * 1000 + i)}}) != (t * 1000 + i) * 2 + 1)
                    ++wrong;
        });
    for (auto& t : threads)
        t.join();
    CHECK(wrong == 0);
}
