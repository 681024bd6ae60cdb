// SPDX-License-Identifier: GPL-3.0-or-later
// The promise of the measure JSON, and designs as a studio would script them.
#include "made.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <map>

using Catch::Contains;
using nlohmann::json;

namespace {

json measured(const std::string& file) { return json::parse(cli("measure " + file + " --json").out); }

std::string design(const std::string& name, const std::string& sets)
{
    const std::string file = scratch / name;
    REQUIRE(cli("new gusseted-satchel " + sets + " -o " + file).code == 0);
    return file;
}

} // namespace

TEST_CASE("The measure object has every promised field, of its kind")
{
    const json m = measured(demo);
    CHECK(m["version"].is_number_integer());
    REQUIRE(m["sizes"].size() == 3);
    for (const auto& size : m["sizes"]) {
        for (const char* k : {"width", "height", "depth"})
            CHECK(size["finished"][k].is_number());
        for (const auto& p : size["pieces"]) {
            for (const char* k : {"code", "name", "layer", "material"})
                CHECK(p[k].is_string());
            CHECK(p["count"].get<int>() >= 1);
            for (const char* line : {"stitch", "cut"})
                for (const char* k : {"length", "area", "width", "height"})
                    CHECK(p[line][k].get<double>() > 0);
            CHECK(p["cut"]["area"].get<double>() >= p["stitch"]["area"].get<double>() - 1e-9);
            double outline = 0;
            for (const auto& e : p["edges"]) {
                outline += e["length"].get<double>();
                CHECK(e["allowance"].get<double>() >= 0);
            }
            CHECK(outline == Approx(p["stitch"]["length"].get<double>()));
            for (const auto& i : p["interlinings"])
                CHECK(i["cut"]["area"].get<double>() > 0);
        }
        for (const auto& s : size["seams"]) {
            CHECK(s["a"]["edges"].size() >= 1);
            CHECK(s["difference"].get<double>()
                == Approx(s["b"]["length"].get<double>() - s["a"]["length"].get<double>() - s["ease"].get<double>())
                       .margin(1e-9));
        }
        for (const auto& z : size["zips"])
            for (const char* k : {"gauge", "nominal_length", "tape_length", "visible_gap"})
                CHECK(z[k].is_number());
        for (const auto& s : size["straps"])
            for (const char* k : {"cut_width", "cut_length", "longest", "shortest"})
                CHECK(s[k].get<double>() > 0);
        int number = 0;
        for (const auto& s : size["steps"]) {
            CHECK(s["number"] == ++number);
            CHECK(!s["title"].get<std::string>().empty());
            CHECK(s["pieces"].is_array());
        }
        for (const auto& w : size["workings"]) {
            CHECK(std::isfinite(w["result"].get<double>()));
            CHECK(!w["formula"].get<std::string>().empty());
        }
    }
    CHECK(m["findings"].is_array());
}

TEST_CASE("Numbers are in full precision: an arc's length is not rounded")
{
    const std::string file = design("exact.tectonis", "--set taper=0 --set radius=33.3");
    const json m = measured(file);
    for (const auto& p : m["sizes"][1]["pieces"])
        if (p["code"] == "A")
            for (const auto& e : p["edges"])
                if (e["name"] == "left corner")
                    CHECK(std::abs(e["length"].get<double>() - 33.3 * std::acos(-1.0) / 2) < 1e-12 * 33.3 * 2);
}

TEST_CASE("Boxes nest: inside dimensions are the outside less twice the wall (plane geometry)")
{
    const std::string file = design("inside.tectonis", "");
    const json m = measured(file);
    const json& size = m["sizes"][1];
    std::map<std::string, double> w;
    for (const auto& one : size["workings"])
        w[one["key"]] = one["result"];
    // canvas 0.75 + foam 3 + lining 0.22 on the gusset; the panel's lining has a fusible of 0.2.
    CHECK(w["inside.width"] == Approx(300 - 2 * 3.97));
    CHECK(w["inside.depth"] == Approx(100 - 2 * 4.17));
    CHECK(w["inside.height"] == Approx(240 - 3.97 - 1.5));
}

TEST_CASE("A design file is stable: setting a value and setting it back gives the same bytes")
{
    const std::string file = design("stable.tectonis", "");
    const std::string before = slurp(file);
    REQUIRE(cli("set " + file + " width=333 depth=77").code == 0);
    CHECK(slurp(file) != before);
    REQUIRE(cli("set " + file + " width=300 depth=100").code == 0);
    CHECK(slurp(file) == before);
}

TEST_CASE("A changed dimension changes few lines of the file")
{
    const std::string file = design("diff.tectonis", "");
    std::ofstream(scratch / "before") << slurp(file);
    REQUIRE(cli("set " + file + " flap.radius=72").code == 0);
    const auto diff = shell("diff " + (scratch / "before") + " " + file + " | grep -c '^[<>]'");
    CHECK(std::stoi(diff.out) == 2);
}

TEST_CASE("Materials, names and notes can be set; wrong ones leave the file")
{
    const std::string file = design("cloth.tectonis", "--set name='A \"quoted\" bag' --set material.shell=denim-10");
    json m = measured(file);
    CHECK(m["design"] == "A \"quoted\" bag");
    CHECK(m["sizes"][0]["pieces"][0]["material"] == "denim-10");
    const std::string before = slurp(file);
    CHECK(cli("set " + file + " material.shell=tin").code == 2);
    CHECK(cli("set " + file + " material.roof=denim-10").code == 2);
    CHECK(cli("set " + file + " name=x --size M").code == 2);
    CHECK(slurp(file) == before);
    REQUIRE(cli("set " + file + " 'notes=Cut the flap across the stripe.' studio=Nobody").code == 0);
    CHECK_THAT(slurp(file), Contains("across the stripe"));
}

TEST_CASE("Schools of lining: what each gives for the same bag")
{
    std::map<std::string, double> areas;
    for (const char* school : {"same", "wider-seam", "smaller"}) {
        const std::string file = design(
            std::string(school) + ".tectonis", std::string("--set taper=0 --set lining.fit=") + school);
        const json m = measured(file);
        for (const auto& p : m["sizes"][1]["pieces"])
            if (p["code"] == "LA")
                areas[school] = p["stitch"]["area"];
        CHECK(cli("check " + file).code == 0);
    }
    CHECK(areas["same"] > areas["wider-seam"]);
    CHECK(areas["same"] > areas["smaller"]);
}

TEST_CASE("Drop-in has no turning step and no opening; bagged out has both")
{
    const auto has = [](const json& m, const std::string& id) {
        for (const auto& s : m["sizes"][1]["steps"])
            if (s["id"] == id)
                return true;
        return false;
    };
    const json bagged = measured(design("bagged.tectonis", "")),
               dropped = measured(design("dropped.tectonis", "--set assembly=drop-in"));
    for (const char* id : {"turn", "close", "board"}) {
        CHECK(has(bagged, id));
        CHECK_FALSE(has(dropped, id));
    }
    double open = 0;
    for (const auto& s : dropped["sizes"][1]["seams"])
        open += s["open"].get<double>();
    CHECK(open == Approx(55)); // the slip pocket's own turning gap, half its 110 mm, is all that is left open
}

TEST_CASE("Every export can be written over an older one, and a folder that is a file is refused")
{
    const std::string out = scratch / "again.pdf";
    for (int i = 0; i < 2; ++i)
        CHECK(cli("export " + demo + " booklet --size S -o " + out).code == 0);
    std::ofstream(scratch / "plain") << "text";
    const auto refused = cli("export " + demo + " pieces -o " + (scratch / "plain"));
    CHECK(refused.code == 2);
    CHECK(slurp(scratch / "plain") == "text");
    CHECK(cli("export " + demo + " sheets -o " + (scratch / "no/such/folder.pdf")).code == 2);
}

TEST_CASE("A directory that cannot be written keeps the design")
{
    // Root may write anywhere: a folder on a read-only pseudo file system stands for it.
    const auto r = cli("new gusseted-satchel -o /proc/bag.tectonis");
    CHECK(r.code == 2);
    CHECK_THAT(r.err, Contains("cannot be written"));
}
