// SPDX-License-Identifier: GPL-3.0-or-later
// The command line as a user runs it: real processes, real files.
#include "drawn.hpp"
#include "made.hpp"

#include "formats/design_file.hpp"

#include <catch2/catch.hpp>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <sstream>

using namespace tectonis;
using Catch::Contains;
using nlohmann::json;

namespace {

json sizeOf(const json& measure, const std::string& name)
{
    for (const auto& s : measure["sizes"])
        if (s["name"] == name)
            return s;
    FAIL("no size " << name);
    return {};
}

json pieceOf(const json& size, const std::string& code)
{
    for (const auto& p : size["pieces"])
        if (p["code"] == code)
            return p;
    FAIL("no piece " << code);
    return {};
}

} // namespace

TEST_CASE("forms lists every dimension with default, range and meaning")
{
    const auto result = cli("forms --json");
    CHECK(result.code == 0);
    const json forms = json::parse(result.out);
    REQUIRE(forms["forms"].size() >= 1);
    for (const auto& d : forms["forms"][0]["dimensions"]) {
        CHECK(!d["meaning"].get<std::string>().empty());
        CHECK(d["min_now"].get<double>() <= d["value"].get<double>());
        CHECK(d["value"].get<double>() <= d["max_now"].get<double>());
    }
    CHECK_THAT(cli("forms").out, Contains("gusseted-satchel") && Contains("radius"));
}

TEST_CASE("new, set, measure: one dimension changes and the numbers follow")
{
    const std::string file = made("follow.tectonis");
    const json before = json::parse(cli("measure " + file + " --json").out);
    CHECK(before["format"] == "tectonis-measure");
    CHECK(before["unit"] == "mm");
    REQUIRE(cli("set " + file + " depth=130 taper=0").code == 0);
    const json after = json::parse(cli("measure " + file + " --json").out);
    const json m = sizeOf(after, "M");
    CHECK(m["finished"]["depth"] == 130);
    CHECK(pieceOf(m, "C")["cut"]["height"].get<double>() == Approx(150));
    const double w = 300, h = 240, r = 45;
    for (const auto& seam : m["seams"]) {
        CHECK(std::abs(seam["difference"].get<double>()) < 0.01);
        if (seam["name"] == "Front to gusset")
            CHECK(seam["b"]["length"].get<double>()
                == Approx(2 * (h - r) + 3.14159265358979 * r + w - 2 * r).margin(1e-9));
    }
    for (const char* key : {"zips", "hardware", "straps", "steps"})
        CHECK(!m[key].empty());
    CHECK(m["steps"][0]["number"] == 1);
    CHECK(after.contains("findings"));
    CHECK(cli("measure " + file + " --size L").code == 0);
    CHECK(json::parse(cli("measure " + file + " --size L").out)["sizes"].size() == 1);
}

TEST_CASE("measure names every piece that a seam's run lies on, once each, in their order")
{
    int several = 0;
    const std::string file = scratch / "joined.tectonis";
    for (const char* form : {"zip-around", "gusseted-satchel", "separate-base"}) {
        std::remove(file.c_str());
        REQUIRE(cli(std::string("new ") + form + " -o " + file).code == 0);
        const json measured = json::parse(cli("measure " + file + " --json").out);
        const Design d = loadDesign(file);
        for (const Pattern& p : draftAll(d)) {
            const json size = sizeOf(measured, p.size);
            for (const auto& seam : size["seams"])
                for (const bool onA : {true, false}) {
                    const auto told = std::find_if(
                        p.seams.begin(), p.seams.end(), [&](const Seam& s) { return s.key.text() == seam["key"]; });
                    REQUIRE(told != p.seams.end());
                    std::vector<std::string> codes;
                    for (const auto& use : onA ? told->a : told->b)
                        if (const std::string code = p.piece(use.piece) ? p.piece(use.piece)->code : use.piece.text();
                            codes.empty() || codes.back() != code)
                            codes.push_back(code);
                    INFO(form << ", " << p.size << ", " << told->name);
                    CHECK(seam[onA ? "a" : "b"]["piece"] == fmt::format("{}", fmt::join(codes, "+")));
                    several += codes.size() > 1;
                }
        }
    }
    CHECK(several > 10);
}

TEST_CASE("set --size changes one size only")
{
    const std::string file = made("size.tectonis");
    REQUIRE(cli("set " + file + " width=350 --size L").code == 0);
    const json m = json::parse(cli("measure " + file).out);
    CHECK(sizeOf(m, "L")["finished"]["width"] == 350);
    CHECK(sizeOf(m, "M")["finished"]["width"] == 300);
}

TEST_CASE("Inches and formulas on the command line")
{
    const std::string file = made("inch.tectonis");
    REQUIRE(cli("set " + file + " 'width=12 1/2in' 'height=width*0.75'").code == 0);
    const json m = sizeOf(json::parse(cli("measure " + file).out), "M");
    CHECK(m["finished"]["width"].get<double>() == Approx(317.5));
    CHECK(m["finished"]["height"].get<double>() == Approx(317.5 * 0.75));
}

TEST_CASE("check: 0 when clean, 1 when a finding is an error")
{
    const std::string file = made("check.tectonis");
    CHECK(cli("check " + file).code == 0);
    REQUIRE(cli("set " + file + " connectors.width=38").code == 0);
    const auto bad = cli("check " + file + " --json");
    CHECK(bad.code == 1);
    const json found = json::parse(bad.out);
    CHECK(found["findings"][0]["severity"] == "error");
    CHECK_THAT(found["findings"][0]["text"].get<std::string>(), Contains("wider than the ring"));
}

TEST_CASE("Bad input: exit code 2, a message with place and range, the file as it was")
{
    const std::string file = made("bad.tectonis");
    const std::string before = slurp(file);
    const std::pair<const char*, const char*> cases[] = {{"width=0", "80 mm to 900 mm"}, {"width=-1", "width"},
        {"radius=400", "radius"}, {"width=nan", "not a length"}, {"depth=foo+1", "foo"}, {"depth=depth*2", "itself"},
        {"nothing=3", "nothing"}, {"width", "NAME=VALUE"}, {"gusset.strips=9", "one, two, three"}};
    for (const auto& [assignment, words] : cases) {
        const auto r = cli("set " + file + " '" + assignment + "'");
        INFO(assignment);
        CHECK(r.code == 2);
        CHECK_THAT(r.err, Contains(words));
        CHECK(slurp(file) == before);
    }
    // One good and one bad value: neither is taken.
    CHECK(cli("set " + file + " width=310 depth=9999").code == 2);
    CHECK(slurp(file) == before);
    for (const char* call : {"", "frobnicate", "new teapot -o ", "measure", "export x", "set"}) {
        INFO(call);
        const std::string words = call;
        CHECK(cli(words + (words.ends_with("-o ") ? scratch / "x.tectonis" : std::string())).code == 2);
    }
    CHECK(cli("measure " + (scratch / "absent.tectonis")).code == 2);
    CHECK(cli("measure " + file + " --size XXL").code == 2);
    CHECK(cli("export " + file + " posters -o x").code == 2);
    CHECK(cli("export " + file + " sheets --paper B7 -o " + (scratch / "x.pdf")).code == 2);
    CHECK(cli("export " + file + " cutlist -o /nowhere/at/all.txt").code == 2);
    std::ofstream(scratch / "cut.tectonis") << before.substr(0, before.size() / 2);
    const auto cut = cli("measure " + (scratch / "cut.tectonis"));
    CHECK(cut.code == 2);
    CHECK_THAT(cut.err, Contains("line"));
}

TEST_CASE("A full disk is told, and nothing is lost")
{
    // /dev/full takes every open and refuses every byte.
    const auto r = shell(std::string(TECTONIS_CLI) + " measure " + demo + " > /dev/full");
    CHECK(r.code == 2);
    CHECK_THAT(r.err, Contains("cannot be written"));
    // A file system that takes no more than some bytes of a file, as a full one does: the shell's limit of one block
    // stands in for it.
    const std::string file = made("full.tectonis"), before = slurp(file);
    const auto set = shell("trap '' XFSZ; ulimit -f 1; " + std::string(TECTONIS_CLI) + " set " + file + " width=310");
    CHECK(set.code == 2);
    CHECK_THAT(set.err, Contains("cannot be written") && Contains("unharmed"));
    CHECK(slurp(file) == before);
    CHECK(shell("ls " + file + ".part* 2>/dev/null").out.empty());
}

TEST_CASE("Walk prints both runs of a seam, every mark where it meets its mate, and what is left open")
{
    const std::string file = made("walk.tectonis");
    const auto all = cli("walk " + file);
    REQUIRE(all.code == 0);
    CHECK_THAT(all.out,
        Contains("Size S: Front to gusset [front-gusset]") && Contains("Size L: Mouth, shell to lining [mouth]")
            && Contains("difference 0 mm"));
    CHECK_THAT(all.out, !Contains("apart")); // every mark meets
    REQUIRE(cli("set " + file + " seam.front-gusset.start=1in").code == 0);
    const auto one = cli("walk " + file + " --seam front-gusset --size M --unit in");
    REQUIRE(one.code == 0);
    CHECK_THAT(one.out, Contains("open at its start 1 in"));
    CHECK_THAT(one.out, Contains("seam ends") && Contains(" in") && !Contains("Size L") && !Contains("Mouth"));
    // Both columns of a seam without ease are alike.
    std::istringstream lines(cli("walk " + file + " --seam back-gusset --size M").out);
    int rows = 0;
    for (std::string line; std::getline(lines, line);) {
        std::istringstream words(line);
        double a = 0, b = 0;
        std::string mm, mm2;
        if (words >> a >> mm >> b >> mm2 && mm == "mm" && mm2 == "mm") {
            CHECK(a == Approx(b).margin(0.011));
            ++rows;
        }
    }
    CHECK(rows >= 4);
    CHECK(cli("walk " + file + " --seam no-such").code == 2);
    CHECK(cli("set " + file + " seam.front-gusset.end=5000").code == 2);
    CHECK(cli("walk absent.tectonis").code == 2);
}

TEST_CASE("Booklet, sheets and cut list are written in the unit asked for")
{
    const std::string file = made("units.tectonis");
    const auto words = [&](const std::string& what, const std::string& unit) {
        const std::string pdf = scratch / (what + unit + ".pdf");
        REQUIRE(cli("export " + file + " " + what + " --size M --unit " + unit + " -o " + pdf).code == 0);
        return shell("pdftotext -layout " + pdf + " -").out;
    };
    CHECK_THAT(words("booklet", "mm"), Contains("at 6.4 mm"));
    CHECK_THAT(words("booklet", "mm"), Contains("Seams, walked") && Contains("Front to gusset"));
    const std::string inches = words("booklet", "in");
    CHECK_THAT(inches, Contains("1/4 in") && Contains("3/8 in"));
    CHECK_THAT(inches, !Contains("at 10 mm"));
    CHECK_THAT(words("sheets", "cm"), Contains("allowance 1 cm"));
    const std::string list = scratch / "list.txt";
    REQUIRE(cli("export " + file + " cutlist --unit in -o " + list).code == 0);
    CHECK_THAT(slurp(list), Contains("all lengths in in") && Contains("1 1/4 in inside width"));
    CHECK(cli("export " + file + " booklet --unit yards -o " + list).code == 2);
}

TEST_CASE("Help and version")
{
    CHECK(cli("--help").code == 0);
    CHECK_THAT(cli("--help").out, Contains("measure") && Contains("export"));
    CHECK_THAT(cli("--version").out, Contains("tectonis-cli"));
    CHECK(cli("set --help").code == 0);
}

TEST_CASE("The demo is sound in every size") { CHECK(cli("check " + demo).code == 0); }

TEST_CASE("The man page is sound and names every command")
{
    const auto page = shell("man --warnings -l " TECTONIS_DATA "/../docs/tectonis-cli.1 | cat");
    CHECK(page.code == 0);
    CHECK(page.err.find("warning") == std::string::npos);
    for (const char* verb : {"forms", "new", "set", "measure", "check", "export"})
        CHECK_THAT(page.out, Contains(verb));
}

TEST_CASE("Every verb works for every form")
{
    const json told = json::parse(cli("forms --json").out);
    CHECK(told["forms"].size() >= 12);
    CHECK(told["parts"].size() >= 19);
    for (const auto& part : told["parts"]) {
        INFO(part["kind"]);
        CHECK(!part["forms"].empty());
        CHECK(part["dimensions"].size() >= 1);
        for (const auto& d : part["dimensions"]) {
            INFO(d["name"]);
            CHECK(d["meaning"].get<std::string>().size() > 10);
            CHECK(d["min_now"].get<double>() <= d["value"].get<double>());
            CHECK(d["value"].get<double>() <= d["max_now"].get<double>());
        }
    }
    for (const auto& form : told["forms"]) {
        const std::string id = form["id"], file = scratch / (id + ".tectonis");
        INFO(id);
        CHECK(form["dimensions"].size() >= 7);
        for (const auto& d : form["dimensions"]) {
            INFO(d["name"]);
            CHECK(d["meaning"].get<std::string>().size() > 10);
            CHECK(d["min_now"].get<double>() <= d["max_now"].get<double>());
        }
        REQUIRE(cli("new " + id + " -o " + file).code == 0);
        const std::string first = form["dimensions"][0]["name"];
        CHECK(cli("set " + file + " " + first + "=" + std::to_string(form["dimensions"][0]["value"].get<double>())).code
            == 0);
        CHECK(cli("check " + file).code == 0);
        const json m = json::parse(cli("measure " + file + " --size M --json").out);
        CHECK(m["sizes"][0]["pieces"].size() >= 2);
        CHECK(m["sizes"][0]["steps"].size() >= 4);
        CHECK(cli("export " + file + " sheets --size M -o " + (scratch / "f.pdf")).code == 0);
        CHECK(cli("export " + file + " booklet --size M -o " + (scratch / "b.pdf")).code == 0);
        CHECK(cli("export " + file + " pieces --size M -o " + (scratch / (id + "-pieces"))).code == 0);
        CHECK(cli("export " + file + " cutlist -o " + (scratch / "c.txt")).code == 0);
        CHECK(shell("qpdf --check " + (scratch / "f.pdf")).code == 0);
    }
}

TEST_CASE("part: adds, lists and takes out; what cannot be is refused and the file stays")
{
    const std::string file = made("parts.tectonis");
    CHECK_THAT(cli("part " + file).out, Contains("flap\tflap"));
    const auto r = cli("part " + file + " --add handles --add slip-pocket --remove zip");
    CHECK(r.code == 0);
    CHECK_THAT(r.out, Contains("handles\thandles") && Contains("slip2\tslip-pocket") && !Contains("zip-pocket"));
    CHECK(json::parse(cli("measure " + file + " --size M").out)["sizes"][0]["dimensions"].contains("handles.drop"));
    const std::string before = slurp(file);
    CHECK(cli("part " + file + " --add wing").code == 2);
    CHECK(cli("part " + file + " --remove wing").code == 2);
    CHECK(slurp(file) == before);
}

TEST_CASE("Two runs of set at once lose nothing: each waits for the other")
{
    const std::string file = made("locked.tectonis");
    for (int round = 0; round < 8; ++round) {
        const std::string width = std::to_string(300 + round), height = std::to_string(240 + round),
                          depth = std::to_string(100 + round);
        const std::string tool = TECTONIS_CLI;
        const Ran both = shell(tool + " set " + file + " width=" + width + " & " + tool + " set " + file
            + " height=" + height + " & " + tool + " set " + file + " depth=" + depth + " & wait");
        CHECK(both.err.empty());
        const json d = json::parse(slurp(file));
        CHECK(d["dimensions"]["width"]["value"] == width);
        CHECK(d["dimensions"]["height"]["value"] == height);
        CHECK(d["dimensions"]["depth"]["value"] == depth);
    }
}

TEST_CASE("Pieces of sizes with any names are as many files as there are pieces; standard output, modes and read-only "
          "files are respected")
{
    const std::string file = made("names.tectonis");
    std::size_t pieces = 0;
    for (const char* sizes : {"小 中 大", "S+ S* S/M", "S s"}) {
        REQUIRE(cli("set " + file + " 'sizes=" + sizes + "'").code == 0);
        const json m = json::parse(cli("measure " + file).out);
        pieces = 0;
        for (const auto& size : m["sizes"])
            pieces += size["pieces"].size();
        const std::string folder = scratch / ("pieces" + std::to_string(std::hash<std::string>{}(sizes)));
        CHECK(cli("export " + file + " pieces -o " + folder).code == 0);
        std::size_t files = 0;
        for (const auto& entry : std::filesystem::directory_iterator(folder))
            files += entry.path().extension() == ".svg";
        CHECK(files == pieces);
    }
    CHECK_THAT(cli("export " + file + " cutlist -o /dev/stdout").out, Contains("width"));
    const std::string sent = scratch / "sent.txt";
    CHECK(shell("{ echo before; " + std::string(TECTONIS_CLI) + " export " + file + " cutlist -o /dev/stdout; } > "
              + sent)
              .code
        == 0);
    CHECK_THAT(slurp(sent), Contains("before") && Contains("width"));
    const std::string before = slurp(file);
    REQUIRE(shell("chmod 0444 " + file).code == 0);
    const Ran refused = cli("set " + file + " width=333");
    CHECK(refused.code == 2);
    CHECK_THAT(refused.err, Contains("read-only"));
    CHECK(slurp(file) == before);
    CHECK(shell("stat -c %a " + file).out == "444\n");
    shell("chmod 0644 " + file);
}

TEST_CASE("form: another form for a design; what is not kept is named; what a file lacks is told")
{
    const std::string file = made("formed.tectonis");
    REQUIRE(cli("set " + file + " width=345 radius=33 'name=Reed bag'").code == 0);
    const Ran r = cli("form " + file + " large-tote");
    CHECK(r.code == 0);
    CHECK_THAT(r.err, Contains("not kept: Corner radius 33 mm"));
    const json d = json::parse(slurp(file));
    CHECK(d["form"] == "large-tote");
    CHECK(d["name"] == "Reed bag");
    CHECK(d["dimensions"]["width"]["value"] == "345");
    CHECK(cli("form " + file + " teapot").code == 2);
    json less = json::parse(slurp(made("less.tectonis")));
    less["dimensions"].erase("bow");
    std::ofstream(scratch / "less.tectonis") << less;
    CHECK_THAT(cli("check " + (scratch / "less.tectonis")).err, Contains("lacks a value") && Contains("bow"));
    // The crash that a flat corner made.
    REQUIRE(cli("new polygon --set sides=8 --set side.1=15 --set angle.5=171.8 -o " + (scratch / "flat.tectonis")).code
        == 0);
    CHECK(cli("part " + (scratch / "flat.tectonis") + " --add corner-patch").code <= 2);
}
