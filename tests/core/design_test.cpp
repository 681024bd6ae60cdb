// SPDX-License-Identifier: GPL-3.0-or-later
// Dimensions, formulas, size rules, edits, and the design file; bad input of every kind.
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "formats/design_file.hpp"
#include "formats/svg.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <fstream>
#include <sys/stat.h>
#include <unistd.h>

using namespace tectonis;
using Catch::Contains;
namespace fs = std::filesystem;

namespace {

double value(const Design& d, const std::string& name, std::size_t size)
{
    return evaluate(d, specOf(d), size).at(name);
}

struct TemporaryFolder {
    fs::path path = fs::temp_directory_path() / ("tectonis-test-" + std::to_string(::getpid()));
    TemporaryFolder() { fs::create_directories(path); }
    ~TemporaryFolder() { fs::remove_all(path); }
};

} // namespace

TEST_CASE("Size rules: step, ratio, follow, hold, stock, and an own value")
{
    Design d = satchel();
    setDimension(d, "width", "300");
    setRule(d, "width", parseRule("step 30"));
    CHECK(value(d, "width", 0) == 270);
    CHECK(value(d, "width", 2) == 330);
    setRule(d, "height", parseRule("ratio 1.1"));
    CHECK(value(d, "height", 2) == Approx(264));
    CHECK(value(d, "height", 0) == Approx(240 / 1.1));
    setRule(d, "depth", parseRule("hold"));
    CHECK(value(d, "depth", 0) == value(d, "depth", 2));
    setDimension(d, "depth", "width/3");
    CHECK(value(d, "depth", 2) == Approx(110));
    setDimension(d, "width", "350", "L");
    CHECK(value(d, "width", 2) == 350);
    CHECK(value(d, "width", 1) == 300);
    edit(d, [](Design& next) { change::noOwnValue(next, "width", "L"); });
    CHECK(value(d, "width", 2) == 330);
    CHECK(value(d, "connectors.ring", 1) == 32);
    for (const char* text : {"step 30", "ratio 1.08", "hold", "follow", "stock zip", "stock zip 20"})
        CHECK(ruleText(parseRule(text)) == text);
    for (const char* text : {"", "grow", "step", "step x", "ratio", "stock", "hold 3"})
        CHECK_THROWS_AS(parseRule(text), InputError);
}

TEST_CASE("A value typed while looking at a size is meant for that size")
{
    Design d = satchel();
    setRule(d, "width", parseRule("step 30"));
    setDimension(d, "width", "400", {}, Unit::Mm, "L");
    CHECK(value(d, "width", 2) == 400);
    CHECK(value(d, "width", 1) == 370);
    setRule(d, "width", parseRule("ratio 1.25"));
    setDimension(d, "width", "500", {}, Unit::Mm, "L");
    CHECK(value(d, "width", 2) == Approx(500));
    CHECK(value(d, "width", 1) == Approx(400));
}

TEST_CASE("Stock: down, nearest, beyond the ends")
{
    const auto& zip = Library::builtIn()->contents().stock.at("zip");
    CHECK(snapToStock(zip, 199) == 180);
    CHECK(snapToStock(zip, 200) == 200);
    CHECK(snapToStock(zip, 10) == 100);
    CHECK(snapToStock(zip, 5000) == 700);
    CHECK(snapToStock(Library::builtIn()->contents().stock.at("ring"), 33) == 32);
}

TEST_CASE("Units and formulas are typed anywhere")
{
    Design d = satchel();
    setDimension(d, "width", "12 in");
    CHECK(value(d, "width", 1) == Approx(304.8));
    setDimension(d, "height", "24 cm");
    CHECK(value(d, "height", 1) == 240);
    setDimension(d, "depth", "width/4 + 1in");
    CHECK(value(d, "depth", 1) == Approx(304.8 / 4 + 25.4));
    setDimension(d, "width", "9 1/2", {}, Unit::Inch);
    CHECK(value(d, "width", 1) == Approx(241.3));
}

TEST_CASE("Bad values are refused with place and range, and the design stays as it was")
{
    Design d = satchel();
    const Design before = d;
    const auto refused = [&](const char* name, const char* text, const char* words) {
        INFO(name << " = " << text);
        CHECK_THROWS_WITH(setDimension(d, name, text), Contains(words));
        CHECK(d == before);
    };
    refused("width", "0", "80 mm to 900 mm");
    refused("width", "-5", "outside the allowed");
    refused("width", "nan", "not a length");
    refused("width", "inf", "not a length");
    refused("width", "", "no length given");
    refused("width", "wide open", "");
    refused("radius", "160", "radius in size");
    refused("width", "widht + 1", "widht");
    refused("depth", "dept*2", "did you mean “depth”");
    refused("width", "width + 1", "leads back to itself");
    refused("width", "1/0", "not a length");
    refused("width", "height/(depth-depth)", "");
    refused("depth", "sqrt(", "cannot be read");
    refused("zip.gauge", "3.5", "no whole number");
    refused("nothing", "3", "no such dimension");
    CHECK_THROWS_WITH(setDimension(d, "width", "300", "XXL"), Contains("no size"));
    CHECK_THROWS_WITH(setChoice(d, "gusset.strips", "seven"), Contains("one, two, three"));
    CHECK_THROWS_WITH(setMaterial(d, "shell", "gold leaf"), Contains("gold leaf"));
    CHECK_THROWS_AS(assign(d, "width"), InputError);
    CHECK_THROWS_AS(assign(d, "=3"), InputError);
    CHECK_THROWS_WITH(setRule(d, "width", parseRule("step 400")), Contains("width in size"));
    CHECK_THROWS_AS(setSizes(d, {}, ""), InputError);
    CHECK_THROWS_AS(setSizes(d, {"S", "S"}, "S"), InputError);
    CHECK_THROWS_AS(setSizes(d, {"S", "M"}, "L"), InputError);
    CHECK(d == before);
    // A long chain of formulas that comes back to its start names the way round.
    Design round = satchel();
    setDimension(round, "height", "depth*2 + 20");
    CHECK_THROWS_WITH(setDimension(round, "depth", "height/2"), Contains("height → depth → height"));
}

TEST_CASE("A mistyped body radius says what is allowed: it cannot pass half the width")
{
    Design d = satchel();
    setDimension(d, "taper", "0");
    CHECK_THROWS_WITH(setDimension(d, "radius", "140"), Contains("135 mm")); // S is 270 wide
    setDimension(d, "radius", "135");
}

TEST_CASE("Design file: a round trip gives the same design, sorted and stable")
{
    Design d = satchel();
    setDimension(d, "width", "333.3", "S");
    d.notes = "Quotes \" and ümlauts, a tab\t and a line\nbreak";
    d.trials.push_back({"2026-01-02", "M", "note", 1, 2, 3, 4, 5, 6});
    d.revisions.push_back({"2026-01-03", "Pocket 6 mm taller"});
    d.stepOrder = {"turn", "mouth"};
    const std::string text = designText(d);
    CHECK(designFromText(text, "test") == d);
    CHECK(designText(designFromText(text, "test")) == text);
}

TEST_CASE("Design file: fields that a later version wrote are kept, at every depth")
{
    std::string text = designText(satchel());
    const auto insert = [&](const std::string& before, const std::string& what) {
        text.insert(text.find(before) + before.size(), what);
    };
    insert("{", "\"tomorrow\": {\"a\": [1, 2]},");
    insert("\"workshop\": {", "\"laser\": true,");
    insert("\"features\": [\n    {", "\"colour\": \"red\",");
    Design d = designFromText(text, "test");
    setDimension(d, "width", "310");
    const std::string again = designText(d);
    CHECK_THAT(again, Contains("\"tomorrow\""));
    CHECK_THAT(again, Contains("\"laser\": true"));
    CHECK_THAT(again, Contains("\"colour\": \"red\""));
    CHECK(designText(designFromText(again, "test")) == again);
}

TEST_CASE("Design file: foreign, truncated, newer and broken files are refused with their place")
{
    const std::string good = designText(satchel());
    const auto refuse = [](const std::string& text, const char* words) {
        INFO(words);
        CHECK_THROWS_WITH(designFromText(text, "bag.tectonis"), Contains("bag.tectonis") && Contains(words));
    };
    refuse("", "line 1");
    refuse("hello", "line 1");
    refuse("[1, 2]", "not a Tectonis design");
    refuse("{\"format\": \"something\"}", "not a Tectonis design");
    refuse("{\"format\": \"tectonis-design\"}", "version");
    refuse(std::string(100000, '['), "nested");
    std::string newer = good;
    const std::string version = "\"version\": " + std::to_string(designFileVersion);
    newer.replace(newer.find(version), version.size(), "\"version\": 7");
    refuse(newer, "version 7");
    for (const double share : {0.1, 0.5, 0.9, 0.99})
        CHECK_THROWS_AS(designFromText(good.substr(0, std::size_t(double(good.size()) * share)), "x"), InputError);
    const auto swapped = [&](const std::string& from, const std::string& to) {
        std::string text = good;
        const auto at = text.find(from);
        REQUIRE(at != std::string::npos);
        return text.replace(at, from.size(), to);
    };
    refuse(swapped("\"form\": \"gusseted-satchel\"", "\"form\": \"teapot\""), "teapot");
    refuse(swapped("\"form\": \"gusseted-satchel\"", "\"form\": 7"), "wrong kind");
    refuse(swapped("\"value\": \"300\"", "\"value\": \"30000\""), "width in size");
    refuse(swapped("\"rule\": \"step 30\"", "\"rule\": \"leap\""), "leap");
    refuse(swapped("\"base\": \"M\"", "\"base\": \"Q\""), "Q");
    refuse(swapped("\"thickness\": 20", "\"thickness\": -20"), "thickness");
    refuse(swapped("\"kind\": \"flap\"", "\"kind\": \"wing\""), "wing");
    // Any single byte cut out or changed gives a design or a clear error, never a crash.
    for (std::size_t i = 0; i < good.size(); i += 37) {
        std::string bent = good;
        bent[i] = char(bent[i] ^ 0x15);
        try {
            designFromText(bent, "bent");
        } catch (const InputError&) {}
    }
}

TEST_CASE("Saving is whole or not at all")
{
    const TemporaryFolder folder;
    Design d = satchel();
    const fs::path file = folder.path / "bag.tectonis";
    saveDesign(d, file);
    CHECK(loadDesign(file) == d);
    const std::string before = readWhole(file);
    CHECK_THROWS_WITH(saveDesign(d, folder.path / "missing" / "bag.tectonis"), Contains("cannot be written"));
    CHECK_THROWS_WITH(saveDesign(d, folder.path), Contains("cannot be written"));
    CHECK_THROWS_WITH(loadDesign(folder.path / "none.tectonis"), Contains("cannot be read"));
    CHECK_THROWS_AS(loadDesign(folder.path), InputError);
    if (fs::exists("/dev/full"))
        CHECK_THROWS_AS(writeWhole("/dev/full/x", "text"), InputError);
    CHECK(readWhole(file) == before);
    // Through a link, what it names is replaced and the link stays.
    fs::create_symlink(file, folder.path / "link.tectonis");
    d.name = "Renamed";
    saveDesign(d, folder.path / "link.tectonis");
    CHECK(fs::is_symlink(folder.path / "link.tectonis"));
    CHECK(loadDesign(file).name == "Renamed");
    for (const auto& entry : fs::directory_iterator(folder.path))
        CHECK(entry.path().string().find(".part") == std::string::npos);
}

TEST_CASE("SVG: mm user units, curves as arcs, text escaped")
{
    Design d = satchel();
    d.name = "A <b> & \"c\"";
    const auto patterns = draftAll(d);
    const std::string svg = pieceSvg(patterns[1], *patterns[1].piece("front"), d.name);
    CHECK_THAT(svg, Contains("A &lt;b&gt; &amp; &quot;c&quot;"));
    CHECK_THAT(svg, Contains("mm\" viewBox="));
    CHECK_THAT(svg, Contains("class=\"cut\""));
    CHECK_THAT(svg, Contains("A55 55 0 0 0")); // corner 45 + allowance 10, turning left, y down
    CHECK(svg.find("nan") == std::string::npos);
}

TEST_CASE("Pieces as SVG: stopping ends the work there and tells how many were written")
{
    const TemporaryFolder folder;
    const auto patterns = draftAll(satchel());
    std::vector<const Pattern*> list;
    std::size_t all = 0;
    for (const auto& p : patterns)
        list.push_back(&p), all += p.pieces.size();
    CHECK(writePieces(list, "bag", folder.path / "some", [](int done, int) { return done < 3; }) == 3);
    CHECK(std::distance(fs::directory_iterator(folder.path / "some"), fs::directory_iterator()) == 3);
    CHECK(writePieces(list, "bag", folder.path / "all") == all);
    CHECK(std::size_t(std::distance(fs::directory_iterator(folder.path / "all"), fs::directory_iterator())) == all);
}
