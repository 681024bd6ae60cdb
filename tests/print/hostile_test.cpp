// SPDX-License-Identifier: GPL-3.0-or-later
// Whatever somebody calls a bag, a size, a cloth or a thing: every file that is written of it is whole, says it as it
// is, and lies where it was asked for. Read back by poppler, python's XML and JSON readers.
#include "drawn.hpp"
#include "process.hpp"

#include "formats/design_file.hpp"
#include "formats/own_library.hpp"
#include "text/csv.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

using namespace tectonis;
using Catch::Contains;
using nlohmann::json;

namespace {

const std::vector<std::string> kNames{"../../etc/passwd", "a/b\\c:d*e?f\"g|h", "<b>&amp;</b> ]]> <!-- ' \"", "-rf",
    "--help", "=1+1;SUM(A1)", "CON", ".", "{10} wide {", "%s %1 %n",
    "\xE2\x80\xAE"
    "evil \xD7\x90\xD7\x91\xD7\x92",
    "\xF0\x9F\x91\x9C\xE2\x80\x8D\xF0\x9F\xA7\xB5 e\xCC\x81\xCC\x82", std::string(200, 'W'), "\xEF\xBF\xBD\xEF\xBB\xBF",
    "a, \"b\"; c\t"};

/// A design whose every free text is @p name.
Design called(const std::string& name)
{
    Design d = newDesign("gusseted-satchel");
    d.name = d.studio = d.workshop.machine = name;
    d.notes = name + "\n" + name;
    d.carried = {{.name = name, .width = 60, .height = 60, .thickness = 10}};
    d.trials = {{.date = "2026-05-01", .size = "M", .note = name, .width = 300}};
    d.revisions = {{.date = "2026-05-01", .text = name}};
    Library::Contents cloths;
    cloths.materials = {{.id = "cloth", .name = name, .thickness = 0.5},
        {.id = "behind", .name = name, .use = "interlining", .thickness = 0.5}};
    d.library = SharedLibrary(d.library->with(Library(cloths)));
    d.materials["shell"] = "cloth";
    d.layers.push_back({"panel", "behind", "basted", "stitch", {}, ""});
    return d;
}

bool takes(Design& d)
{
    try {
        validate(d);
        return true;
    } catch (const InputError&) {
        return false;
    }
}

std::string letters(const std::string& s)
{
    std::string out;
    for (const char c : s)
        if (std::isalnum(static_cast<unsigned char>(c)))
            out += c;
    return out;
}

/// Everything below a folder, and nothing beside it.
std::size_t filesIn(const std::string& folder)
{
    std::size_t n = 0;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
        n += entry.is_regular_file();
    return n;
}

} // namespace

TEST_CASE("Hostile names: control characters, broken UTF-8 and endless texts are refused, all others survive the file")
{
    for (const std::string& bad : {std::string("two\nlines"), std::string("nul\0nul", 7), std::string("\x1b[31m"),
             std::string(10000, 'a'), std::string("\xC3\x28"), std::string("\xED\xA0\x80")}) {
        Design d = newDesign("gusseted-satchel");
        d.name = bad;
        CHECK_FALSE(takes(d));
        d = newDesign("gusseted-satchel");
        d.carried = {{.name = bad, .width = 60, .height = 60, .thickness = 10}};
        CHECK_FALSE(takes(d));
        d = newDesign("gusseted-satchel");
        CHECK_THROWS_AS(setSizes(d, {bad, "M"}, "M"), InputError);
        CHECK_THROWS_AS(readLibrary(csvLine({"name", "thickness"}) + csvLine({bad, "1"}), "x"), InputError);
    }
    for (const auto& name : kNames) {
        Design d = called(name);
        INFO(name);
        if (name.find('\t') != std::string::npos) {
            CHECK_FALSE(takes(d));
            continue;
        }
        REQUIRE(takes(d));
        CHECK(designFromText(designText(d), "bag") == d);
    }
}

TEST_CASE("Hostile names in every export: whole files in their place, the name as it is")
{
    for (std::size_t i = 0; i < kNames.size(); ++i) {
        const std::string& name = kNames[i];
        Design d = called(name);
        if (!takes(d))
            continue;
        // Sizes too, where they may be called so.
        try {
            setSizes(d, {"S", name, "L"}, "L");
        } catch (const InputError&) {}
        INFO(name);
        const Scratch folder("hostile" + std::to_string(i));
        const std::string file = folder / "bag.tectonis", out = folder / "out";
        std::filesystem::create_directory(out);
        saveDesign(d, file);
        const std::string size = d.sizes[1];
        for (const auto& [what, to] : {std::pair{"sheets", "s.pdf"}, {"booklet", "b.pdf"}, {"cutlist", "c.txt"},
                 {"specification", "s.csv"}, {"measures", "m.json"}, {"pieces", "pieces"}, {"cost", "k.csv"},
                 {"html", "b.html"}, {"figures", "figures"}}) {
            const Ran ran = cli("export " + file + " " + what + " -o " + out + "/" + to);
            INFO(what << ": " << ran.err);
            REQUIRE(ran.code == 0);
        }
        // Nothing lies beside what was asked for.
        CHECK(filesIn(folder / "") == filesIn(out) + 1);
        std::size_t pieces = 0;
        for (const auto& p : draftAll(d))
            pieces += p.pieces.size();
        CHECK(filesIn(out) == 7 + pieces + filesIn(out + "/figures"));
        // HTML Tidy finds no error, python's parser the name as the title.
        CHECK(shell("tidy -q -e " + out + "/b.html").err == "");
        const Ran title = shell("python3 -c '\nimport sys\nfrom html.parser import HTMLParser as H\nclass T(H):\n"
                                "  on=False\n  def handle_starttag(s,t,a): s.on=t==\"title\"\n"
                                "  def handle_data(s,d):\n    if s.on: print(d)\n    s.on=False\n"
                                "T().feed(open(sys.argv[1]).read())' "
            + out + "/b.html");
        CHECK_THAT(letters(title.out), Contains(letters(name)));
        CHECK(shell("qpdf --check " + out + "/s.pdf && qpdf --check " + out + "/b.pdf").code == 0);
        const std::string words = shell("pdftotext -layout " + out + "/b.pdf -").out;
        if (std::all_of(name.begin(), name.end(), [](char c) { return c > 0; }))
            CHECK_THAT(letters(words), Contains(letters(name).substr(0, 20)));
        CHECK(words.find("10 mm wide") == std::string::npos);
        // Each SVG is sound XML and has the name in it.
        const Ran xml = shell(
            "python3 -c '\nimport sys,glob,xml.dom.minidom as x\nfiles=glob.glob(sys.argv[1]+\"/**/*.svg\","
            "recursive=True)\nfor f in files: print(x.parse(f).getElementsByTagName(\"title\")[0]"
            ".firstChild.data)' "
            + out + "/pieces");
        CHECK(shell("python3 -c 'import sys,glob,xml.dom.minidom as x; [x.parse(f) for f in glob.glob(sys.argv[1])]' '"
                  + out + "/figures/*.svg'")
                  .code
            == 0);
        CHECK(xml.code == 0);
        CHECK_THAT(xml.out, Contains(name));
        const json measured = json::parse(slurp(out + "/m.json"));
        CHECK(measured["sizes"].size() == 3);
        CHECK(measured["sizes"][1]["name"] == size);
        const std::string list = slurp(out + "/c.txt");
        CHECK_THAT(list, Contains(name));
        // The library as a table and back.
        saveLibrary(*d.library, folder / "l.csv");
        CHECK(readLibrary(slurp(folder / "l.csv"), "l").library.material("cloth").name == name);
    }
}

TEST_CASE("A name with braces stands in words as it is, lengths beside it in the unit chosen")
{
    CHECK(inUnit("sew " + verbatim("{10} {x} {{") + " at {10}", Unit::Cm) == "sew {10} {x} {{ at 1 cm");
    CHECK(inUnit("{", Unit::Mm) == "{");
    CHECK(inUnit("{a} {1e}", Unit::Mm) == "{a} {1e}");
}
