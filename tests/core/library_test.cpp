// SPDX-License-Identifier: GPL-3.0-or-later
// Libraries: read and written as JSON and CSV, merged, carried by designs, and what is told of what is wrong.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "cutting/cost.hpp"
#include "design/carried_library.hpp"
#include "formats/design_file.hpp"
#include "formats/measure_json.hpp"
#include "library/library_file.hpp"
#include "sequence/minutes.hpp"
#include "sequence/stitch_length.hpp"
#include "sequence/told.hpp"
#include "text/csv.hpp"
#include "text/places.hpp"
#include "units/error.hpp"

#include <nlohmann/json.hpp>

#include <random>

using namespace tectonis;
using Catch::Contains;

namespace {

std::vector<std::vector<std::string>> cellsOf(const std::string& text)
{
    std::vector<std::vector<std::string>> out;
    for (const auto& row : csvRows(text)) {
        out.emplace_back();
        for (const auto& cell : row)
            out.back().push_back(cell.text);
    }
    return out;
}

std::string problemOf(const std::string& text)
{
    try {
        readLibrary(text, "cloths");
        return "";
    } catch (const InputError& e) {
        return e.what();
    }
}

const std::string kCork = R"({"format": "tectonis-library", "version": 1, "materials": [
  {"id": "cork", "name": "Cork", "thickness": "1/32 in", "gsm": "10 oz", "heat": false, "width": 1350, "price": 20}]})";

} // namespace

TEST_CASE("CSV: commas, semicolons or tabs, quotes, any line ends, a byte-order mark (RFC 4180 and spreadsheets)")
{
    const std::vector<std::vector<std::string>> table{{"name", "note"}, {"a, b; c", "say \"so\""}, {"two\nlines", ""}};
    CHECK(cellsOf("name,note\r\n\"a, b; c\",\"say \"\"so\"\"\"\r\n\"two\nlines\",\r\n") == table);
    CHECK(cellsOf("\xEF\xBB\xBFname;note\n\"a, b; c\";\"say \"\"so\"\"\"\n\"two\nlines\";") == table);
    CHECK(cellsOf("name\tnote\r\"a, b; c\"\t\"say \"\"so\"\"\"\r\r\"two\nlines\"\t\r") == table);
    CHECK(cellsOf("  a  , \" b \" ,c") == std::vector<std::vector<std::string>>{{"a", " b ", "c"}});
    CHECK(cellsOf("").empty());
    CHECK(cellsOf("\n,\n,,\n").empty());
    CHECK_THROWS_WITH(csvRows("a,b\n1,\"2"), Contains("line 2, column 3") && Contains("none closes it"));
    CHECK_THROWS_WITH(csvRows("ä,b\nö,\"2\"x"), Contains("line 2, column 6"));
    // What is written is read back the same, whatever is in it.
    std::mt19937 random(3);
    for (int i = 0; i < 300; ++i) {
        std::vector<std::string> row;
        for (int k = 0; k < 4; ++k) {
            std::string cell = k == 0 ? "x" : "";
            for (unsigned n = random() % 8; n > 0; --n)
                cell += "a ,;\t\"\n\r1é"[random() % 10];
            row.push_back(cell);
        }
        // The head tells what divides the cells.
        const auto read = cellsOf("w,x,y,z\r\n" + csvLine(row));
        REQUIRE(read.size() == 2);
        CHECK(read[1] == row);
    }
}

TEST_CASE("Places in JSON: the byte of a value by its pointer")
{
    const std::string text = "{ \"a\\\"{\" : [1, {\"b/c\": \"x]\"}],\n \"n\": { \"deep\": -2.5e3 } }";
    CHECK(lineAndColumn(text, jsonByte(text, "/n/deep")) == "line 2, column 17");
    CHECK(text.substr(jsonByte(text, "/a\"{/1/b~1c"), 4) == "\"x]\"");
    CHECK(jsonByte(text, "/nothing") == 0);
    CHECK(text.substr(jsonByte(text, "/n/nothing"), 1) == "{");
    CHECK(lineAndColumn("öü\nä", 100) == "line 2, column 2");
}

TEST_CASE("A table of cloths: units, decimal comma, defaults, ids from names")
{
    const ReadLibrary read = readLibrary("\xEF\xBB\xBFname;thickness;gsm;width;heat;price;colour\r\n"
                                         "\"Kork, blau\";0,8;10 oz;54 in;no;19,5;blau\r\n"
                                         "Strong felt;1/16 in;300;;yes;;\r\n",
        "cloths.csv");
    REQUIRE(read.library.materials().size() == 2);
    const Material& cork = read.library.material("kork-blau");
    CHECK(cork.name == "Kork, blau");
    CHECK(cork.thickness == Approx(0.8));
    CHECK(cork.gsm == Approx(339.06).epsilon(1e-4)); // 10 × 33.906 (domain notes: 1 oz/yd² = 33.906 g/m²)
    CHECK(cork.width == Approx(54 * 25.4));
    CHECK(!cork.heat);
    CHECK(cork.price == Approx(19.5));
    const Material& felt = read.library.material("strong-felt");
    CHECK(felt.thickness == Approx(25.4 / 16));
    CHECK(felt.width == 1400);
    CHECK(felt.heat);
    REQUIRE(read.told.size() == 1);
    CHECK_THAT(words(read.told[0]), Contains("colour"));
}

TEST_CASE("Every problem of a library is told with its line and column, and nothing is taken")
{
    CHECK_THAT(problemOf("name,thickness,heat\nA,thick,yes\nB,0.5,perhaps\nB,0.5,no,9\nC,,yes\n,1,no\n"),
        Contains("line 2, column 3: thickness: “thick” is not a length")
            && Contains("line 3, column 7: heat: “perhaps”") && Contains("line 4, column 10: the line has more cells")
            && Contains("line 5, column 1: “C” has no thickness")
            && Contains("line 6, column 1: it has neither a name nor an id"));
    CHECK_THAT(problemOf("id,thickness\na,1\na,2\n"), Contains("line 3, column 1: there is another “a”"));
    CHECK_THAT(problemOf("id,thickness,id\na,1,b\n"), Contains("line 1, column 14: there is another column"));
    CHECK_THAT(problemOf("name,weight\nA,3\n"), Contains("“thickness” and “name” or “id” are needed"));
    CHECK_THAT(problemOf("id,thickness,width\na,1,12000\nb,1,-1\nc,1,nan\nd,1,1e999\n"),
        Contains("line 2, column 5: width: 12000 mm is outside the allowed 0 mm to 10000 mm") && Contains("line 3")
            && Contains("line 4") && Contains("line 5"));
    CHECK_THAT(problemOf(""), Contains("nothing in it"));
    CHECK_THAT(problemOf(std::string("id,thickness\n\0,1", 16)), Contains("neither a table nor"));
    const auto json = [](const std::string& materials) {
        return problemOf("{\"format\": \"tectonis-library\", \"version\": 1,\n\"materials\": [\n" + materials + "]}");
    };
    CHECK(json(R"({"id": "a", "thickness": 1})") == "");
    CHECK_THAT(json("{\"id\": \"a\", \"thickness\": 1},\n {\"id\": \"a\", \"thickness\": 2}"),
        Contains("line 4, column 2: there is another “a”"));
    CHECK_THAT(json(R"({"id": "a", "thickness": {}})"), Contains("line 3, column 26: a length was expected"));
    CHECK_THAT(json(R"({"id": "a", "thickness": 1, "use": "hat"})"), Contains("line 3, column 36: “hat” was given"));
    CHECK_THAT(json("7"), Contains("line 3, column 1: this is no material"));
    CHECK_THAT(problemOf(R"({"format": "tectonis-library", "version": 2})"), Contains("newer Tectonis"));
    CHECK_THAT(problemOf(R"({"format": "tectonis-design", "version": 1})"), Contains("not a Tectonis library"));
    CHECK_THAT(problemOf("{\"format\": \n\"tectonis"), Contains("line 2") && Contains("not a whole Tectonis library"));
    CHECK_THAT(problemOf(R"({"format": "tectonis-library", "version": 1, "stock": {"zip": {"values": [100, 90, "x"]}},
 "papers": [{"name": "B4", "width": 250}], "workshops": [{"machine": "", "footWidth": 99}]})"),
        Contains("line 1, column 80: 90 does not come after 100") && Contains("its height is missing")
            && Contains("its “machine” is missing") && Contains("a number from 0 to 40"));
    // However many there are, the message ends.
    std::string many = "id,thickness\n";
    for (int i = 0; i < 5000; ++i)
        many += "a,x\n";
    CHECK(problemOf(many).size() < 4000);
    CHECK_THAT(problemOf(many), Contains("and 4980 more"));
}

TEST_CASE("The library that ships is read back the same from JSON and from CSV, and has what designs ask for")
{
    const Library& all = *Library::builtIn();
    CHECK(readLibrary(libraryText(all), "again").library == all);
    const Library table = readLibrary(libraryCsv(all), "again").library;
    CHECK(table.materials() == all.materials());
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        for (const auto& [role, id] : d.materials)
            CHECK(all.find(id) != nullptr);
    });
    CHECK(all.paper("A4").width == 210);                    // ISO 216
    CHECK(all.paper("A3").height == 420);                   // ISO 216
    CHECK(all.paper("Letter").width == Approx(8.5 * 25.4)); // ANSI/ASME Y14.1
    CHECK_THROWS_WITH(all.paper("Foolscap"), Contains("A4, Letter"));
}

TEST_CASE("Everything that any design buys has a price in the library that ships; the table of wares is in order")
{
    CHECK(std::string(wordOf(Ware::Zip)) == "zip");
    CHECK(std::string(wordOf(Ware::HookAndRing)) == "hook-and-ring");
    CHECK(called(Ware::Frame) == "Rigid frame with hinge and clasp");
    CHECK(called(Ware::Thread) == "Thread");
    CHECK(wareWords().size() == std::size_t(Ware::EdgePaint) + 1);
    const Library& all = *Library::builtIn();
    CHECK(readLibrary(goodsCsv(all), "again").library.goods() == all.goods());
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        for (const auto& n : costOf(d, medium(d)).notions) {
            INFO(words(n.bought.sizeText));
            CHECK((n.good && n.cost > 0));
        }
    });
}

TEST_CASE("Goods from a table: kinds, units, what is wrong by line and column")
{
    const Library own = readLibrary("name;kind;make;width;length;gauge;price\r\n"
                                    "Ring, brass;ring;brass;1 in;;;1,5\r\nOdd zip;zip;metal;;180;5;7\r\n",
        "goods.csv")
                            .library;
    REQUIRE(own.goods().size() == 2);
    CHECK(own.materials().empty());
    CHECK(own.goods()[0].id == "ring-brass");
    CHECK(own.goods()[0].width == Approx(25.4));
    CHECK(own.goods()[0].price == 1.5);
    // What says most of what is asked for, and nothing else.
    const Library all = Library::builtIn()->with(own);
    CHECK(all.good(Ware::Ring, 25.4, 0, 0)->id == "ring-brass");
    CHECK(all.good(Ware::Ring, 25, 0, 0)->id == "ring-steel");
    CHECK(all.good(Ware::Zip, 0, 180, 5)->id == "odd-zip");
    CHECK(all.good(Ware::Zip, 0, 180, 3)->id == "zip-coil");
    CHECK(own.good(Ware::Zip, 0, 180, 3) == nullptr);
    CHECK(all.good(Ware::ContinuousZip, 0, 0, 5)->width == 32);
    CHECK_THAT(problemOf("name,kind,price\nA,hat,1\nB,ring,dear\nC,,3\nD,ring,1,2\n"),
        Contains("line 2, column 3: kind: “hat” was given; write one of zip") && Contains("line 3, column 8: price")
            && Contains("line 4, column 1: “C” has no kind") && Contains("line 5, column 10: the line has more cells"));
    CHECK_THAT(problemOf("name,thickness,kind\nA,1,ring\n"), Contains("Of what is bought otherwise “kind”"));
    CHECK_THAT(problemOf(R"({"format": "tectonis-library", "version": 1, "goods": [7, {"name": "A"},
 {"name": "B", "kind": "foot", "width": -1}]})"),
        Contains("this is nothing to buy") && Contains("“A” has no kind")
            && Contains("line 2, column 41: -1 mm is outside"));
}

TEST_CASE("What a bag costs, by hand: cloth, notions by piece, metre and share of the spool, labour, overhead")
{
    Design d = newDesign("roll-top");
    Library::Contents mine;
    mine.goods = {{.id = "s", .name = "Slider", .kind = "webbing-slider", .price = 2},
        {.id = "t", .name = "Thread", .kind = "thread", .length = 100000, .price = 5}};
    Pattern p = medium(d);
    p.library = SharedLibrary(Library(mine).with(Library(Library::Contents{.materials = d.library->materials()})));
    const Cost cost = costOf(d, p);
    double cloth = 0;
    for (const auto& m : makeMarkers(p))
        cloth += m.soldLength / 1000 * p.material(m.material).price;
    CHECK(cost.cloth == Approx(cloth));
    double sliders = 0, thread = 0;
    int unpriced = 0;
    for (const auto& n : cost.notions) {
        sliders += n.bought.kind == Ware::WebbingSlider ? n.cost : 0;
        thread += n.bought.kind == Ware::Thread ? n.cost : 0;
        unpriced += n.good == nullptr;
    }
    CHECK(sliders == 2 * 2);
    CHECK(thread == Approx(threadOf(p).result / 100000 * 5));
    CHECK(unpriced == 1); // the hook and ring
    CHECK(cost.notionsCost == Approx(sliders + thread));
    CHECK(cost.minutes == Approx(minutesOf(p)));
    CHECK(cost.labour == Approx(cost.minutes / 60 * 24));
    CHECK(cost.overhead == Approx((cost.cloth + cost.notionsCost + cost.labour) * 0.15));
    d.trials.push_back({.date = "2026-01-02", .size = p.size, .minutes = 90});
    CHECK(costOf(d, p).labour == 36);
    d.trials.back().size = "another";
    CHECK(costOf(d, p).minutes == cost.minutes);
}

TEST_CASE("Thread of a lockstitch: by geometry 2·(1 + t/s), between the 2.5 and 2.8 of the trade on common stacks")
{
    // ISO 4915, type 301: two threads that meet in the middle of the stack. Two layers of 12 oz canvas (0.75 mm each)
    // at 3.5 mm, two of quilting cotton with their woven fusible at 2.5 mm (common practice: 2.5 to 2.8 times).
    CHECK(lockstitchUse(1.5, 3.5) == Approx(2.857).margin(0.001));
    CHECK(lockstitchUse(0.96, 2.5) == Approx(2.768).margin(0.001));
    CHECK(lockstitchUse(0, 3) == 2); // along both sides of nothing
    CHECK(lockstitchUse(3, 3) == 4); // as far through as along
}

TEST_CASE("Stitches: by what is sewn for what, longer where holes stay, and as a cloth asks for")
{
    Design d = newDesign("boxed-corner");
    const auto lengths = [&](RowKind kind) {
        const Pattern p = medium(d);
        const StitchLength length = stitchLength(p, {p.pieces.front().key}, kind);
        return std::pair(length.least, length.most);
    };
    CHECK(lengths(RowKind::Join) == std::pair(2.5, 3.0));
    CHECK(lengths(RowKind::Topstitch) == std::pair(3.5, 4.0));
    CHECK(lengths(RowKind::Baste) == std::pair(4.0, 5.0));
    change::material(d, "shell", "vinyl");
    CHECK(lengths(RowKind::Join) == std::pair(3.0, 3.5));
    CHECK(lengths(RowKind::Topstitch) == std::pair(3.5, 4.0));
    Material coarse = d.library->material("canvas-12");
    coarse.id = "coarse", coarse.stitch = 4.5;
    d.library = SharedLibrary(d.library->with(Library({.materials = {coarse}})));
    change::material(d, "shell", "coarse");
    CHECK(lengths(RowKind::Join) == std::pair(4.5, 5.0));
    CHECK(lengths(RowKind::Baste) == std::pair(4.5, 5.0));
    bool told = false;
    const Pattern p = medium(d);
    for (const auto& step : p.steps)
        told = told || words(tectonis::told(p, step).stitch).find("4.5–5 mm, lockstitch 301") != std::string::npos;
    CHECK(told);
}

TEST_CASE("Thread: no seam goes without, thick stacks and short stitches take more, a pocket takes its rows")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Pattern p = medium(newDesign(form->id()));
        double seams = 0;
        for (const auto& seam : p.seams)
            seams += seam.lengthA - seam.open;
        const Working thread = threadOf(p);
        CHECK(thread.result >= 2.2 * seams);
        CHECK(thread.result <= 3.6 * 5 * seams);
    }
    Design d = newDesign("gusseted-satchel");
    const double before = threadOf(medium(d)).result;
    addFeature(d, "patch-pocket");
    CHECK(threadOf(medium(d)).result > before + 2.5 * 300);

    // The same rows through other stacks and with other stitches.
    Design thin = newDesign("boxed-corner");
    thin.layers.clear();
    change::material(thin, "shell", "quilting-cotton");
    const auto rowsIn = [](const Design& design, const char* name) {
        for (const auto& input : threadOf(medium(design)).inputs)
            if (input.name == name)
                return input.value;
        return 0.0;
    };
    Design thick = thin;
    Material doubled = thin.library->material("quilting-cotton");
    doubled.id = "doubled", doubled.thickness *= 2, doubled.needle = 90;
    thick.library = SharedLibrary(thick.library->with(Library({.materials = {doubled}})));
    change::material(thick, "shell", "doubled");
    change::material(thick, "lining", "quilting-cotton");
    change::material(thin, "lining", "quilting-cotton");
    CHECK(rowsIn(thick, "sewn") == Approx(rowsIn(thin, "sewn")).epsilon(0.02));
    CHECK(rowsIn(thick, "through") > 1.3 * rowsIn(thin, "through"));
    Material loose = thin.library->material("quilting-cotton");
    loose.stitch = 5;
    Design longer = thin;
    longer.library = SharedLibrary(longer.library->with(Library({.materials = {loose}})));
    CHECK(rowsIn(longer, "sewn") == Approx(rowsIn(thin, "sewn")));
    CHECK(rowsIn(longer, "through") < 0.8 * rowsIn(thin, "through"));
}

TEST_CASE("Thread: what lies in each seam counts, on every form")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Pattern p = medium(newDesign(form->id()));
        double least = 0; // of the seams that are sewn, each once, with the longest stitch that joins
        for (const auto& seam : p.seams)
            if (seam.stitch == "construction" && seam.open == 0)
                least += seam.lengthA * bulkAt(p, seam).underFoot / 3.5;
        for (const auto& input : threadOf(p).inputs)
            if (input.name == "through")
                CHECK(input.value >= 0.9 * least);
    }
}

TEST_CASE("Thread by colour: what is sewn on the lining alone as the lining, all else as the shell; together it is all")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Pattern p = medium(newDesign(form->id()));
        double sum = 0;
        for (const auto& use : threadsOf(p)) {
            CHECK(use.length > 0);
            sum += use.length;
        }
        CHECK(sum == Approx(threadOf(p).result));
    }
    Design d = newDesign("boxed-corner");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    auto uses = threadsOf(medium(d));
    REQUIRE(uses.size() == 2);
    CHECK(uses[0].tex == 70); // canvas takes a needle 100
    CHECK(uses[1].tex == 27); // thin lining cotton 80
    double lining = 0;        // at least its seams
    for (const auto& seam : medium(d).seams)
        if (seam.stitch == "construction" && medium(d).piece(seam.a.front().piece)->coat == Coat::Lining
            && medium(d).piece(seam.b.front().piece)->coat == Coat::Lining)
            lining += seam.lengthA - seam.open;
    CHECK(uses[1].length >= 2.1 * lining);
    CHECK(uses[1].length < uses[0].length);
    setChoice(d, "assembly", "unlined-overcast");
    uses = threadsOf(medium(d));
    CHECK(uses.size() == 1);
}

TEST_CASE("A good of one's own travels with the design; those that ship do not")
{
    Design d = newDesign("gusseted-satchel");
    CHECK(carriedBy(d).goods().empty());
    const Library own = readLibrary("id,kind,price\nring-steel,ring,4\nstud,rivet,1\n", "x").library;
    d.library = libraryFor(d, Library::builtIn()->with(own));
    REQUIRE(carriedBy(d).goods().size() == 2);
    Design there = designFromText(designText(d), "bag");
    CHECK(there.library->good(Ware::Ring, 25, 0, 0)->price == 4);
    CHECK(costOf(there, medium(there)).whole() == Approx(costOf(d, medium(d)).whole()));
    const auto newer = newerValues(there, *Library::builtIn());
    REQUIRE(newer.size() == 4); // name, make, weight and price of the ring; the stud is not at hand
    CHECK(words(newer.back().field) == "Price");
    edit(there, [](Design& next) { change::newerValues(next, *Library::builtIn()); });
    CHECK(there.library->good(Ware::Ring, 25, 0, 0)->price == 0.9);
}

TEST_CASE("Of two libraries the one laid over wins, in the other's place; what is new comes behind")
{
    const Library base = readLibrary("id,thickness\na,1\nb,2\n", "x").library;
    const Library over = readLibrary("id,thickness\nc,3\na,9\n", "x").library;
    const Library both = base.with(over);
    REQUIRE(both.materials().size() == 3);
    CHECK(both.materials()[0].thickness == 9);
    CHECK(both.materials()[2].id == "c");
    CHECK(base.material("a").thickness == 1); // a value: nobody else's changes
}

TEST_CASE("A user's own cloth travels with the design and measures the same where nobody knows it")
{
    const Library mine = Library::builtIn()->with(readLibrary(kCork, "mine").library);
    for (const char* form : {"gusseted-satchel", "frame-clutch", "roll-top", "boxed-tote"}) {
        if (std::none_of(forms().begin(), forms().end(), [&](const Form* f) { return f->id() == form; }))
            continue;
        Design d = newDesign(form);
        CHECK_THROWS_WITH(assign(d, "material.shell=cork"), Contains("there is no material “cork”"));
        d.library = libraryFor(d, mine);
        assign(d, "material.shell=cork");
        const std::string file = designText(d);
        const Design elsewhere = designFromText(file, "bag");
        CHECK(elsewhere.library->material("cork") == mine.material("cork"));
        CHECK(measureJson(elsewhere, draftAll(elsewhere), {}) == measureJson(d, draftAll(d), {}));
        CHECK(designText(elsewhere) == file);
        // What the library at hand says otherwise does not change the bag until it is asked to.
        Library::Contents other = mine.contents();
        for (auto& m : other.materials)
            m.thickness = m.id == "cork" ? 1.4 : m.thickness, m.price += m.id == d.materials.at("lining") ? 1 : 0;
        const Library newer(other);
        Design again = readDesign(file, "bag", newer).design;
        CHECK(measureJson(again, draftAll(again), {}) == measureJson(d, draftAll(d), {}));
        const auto values = newerValues(again, newer);
        REQUIRE(values.size() == 2);
        CHECK((words(values[0].name) == "Cork" || words(values[1].name) == "Cork"));
        const auto& cork = values[words(values[0].name) == "Cork" ? 0 : 1];
        CHECK(words(cork.field) == "Thickness");
        CHECK(words(cork.now) == "1.4");
        edit(again, [&](Design& next) { change::newerValues(next, newer); });
        CHECK(again.library->material("cork").thickness == 1.4);
        CHECK(newerValues(again, newer).empty());
        CHECK(designFromText(designText(again), "bag").library->material("cork").thickness == 1.4);
    }
}

TEST_CASE("What nobody knows has a stand-in and is a finding, in every form; at home it is itself again")
{
    for (const Form* form : forms()) {
        std::string file = designText(newDesign(form->id()));
        const Design known = designFromText(file, "bag");
        // As a hand would write it: another id, and no word of what it is.
        const std::string shell = known.materials.at("shell");
        nlohmann::json j = nlohmann::json::parse(file);
        j.erase("library");
        j["materials"]["shell"] = "heirloom";
        j["layers"].push_back(
            {{"pieces", "panel"}, {"material", "horsehair"}, {"fixing", "basted"}, {"trim", "stitch"}});
        const Design d = designFromText(j.dump(), "bag");
        INFO(form->id());
        CHECK(d.library->material("heirloom").standIn);
        int told = 0;
        for (const auto& f : checkAll(d, draftAll(d)))
            if (f.check == "library") {
                CHECK(f.severity == Severity::Error);
                CHECK_THAT(words(f.subject), Contains("heirloom") || Contains("horsehair"));
                ++told;
            }
        CHECK(told >= 2 * 3); // each in every size
        // The guess is not written down as if it were known.
        CHECK(designText(d).find("Unknown") == std::string::npos);
        CHECK(libraryText(*d.library).find("Unknown") == std::string::npos);
        CHECK(libraryCsv(*d.library).find("Unknown") == std::string::npos);
        const Library home = Library::builtIn()->with(
            readLibrary("id,thickness\nheirloom,0.6\nhorsehair,2\n", "x").library);
        const Design at = readDesign(designText(d), "bag", home).design;
        CHECK(at.library->material("heirloom").thickness == 0.6);
        for (const auto& f : checkAll(at, draftAll(at)))
            CHECK(f.check != "library");
    }
}

TEST_CASE("A stock table that nobody knows takes the value as it is and is told; a rule for it cannot be made")
{
    Design d = newDesign("gusseted-satchel");
    CHECK_THROWS_WITH(setRule(d, "no.such", parseRule("stock moons")), Contains("no such dimension"));
    const std::string name = "connectors.ring";
    REQUIRE(d.dimensions.contains(name));
    CHECK_THROWS_WITH(setRule(d, name, parseRule("stock moons")), Contains("no stock table “moons”"));
    nlohmann::json j = nlohmann::json::parse(designText(d));
    j["dimensions"][name]["rule"] = "stock moons";
    j["dimensions"][name]["value"] = "33";
    const Design read = designFromText(j.dump(), "bag");
    CHECK(medium(read).values.at(name) == 33);
    const auto found = checkAll(read, draftAll(read));
    CHECK(std::any_of(found.begin(), found.end(),
        [](const Finding& f) { return f.check == "library" && words(f.text).find("moons") != std::string::npos; }));
}

TEST_CASE("A design's own stock is snapped to, here and elsewhere")
{
    Design d = newDesign("gusseted-satchel");
    const double before = medium(d).values.at("connectors.ring");
    const Library odd = readLibrary(
        R"({"format": "tectonis-library", "version": 1, "stock": {"ring": {"values": [17, 29, 43]}}})", "x")
                            .library;
    Design other = d;
    other.library = SharedLibrary(Library::builtIn()->with(odd));
    const double after = medium(other).values.at("connectors.ring");
    CHECK(before != after);
    CHECK((after == 17 || after == 29 || after == 43));
    CHECK(medium(designFromText(designText(other), "bag")).values.at("connectors.ring") == after);
}

TEST_CASE("A workshop of the library brings its machine, foot, speed and rates")
{
    Design d = newDesign("large-tote");
    for (const auto& w : d.library->workshops()) {
        assign(d, "workshop=" + w.machine);
        CHECK(d.workshop == w);
    }
    CHECK_THROWS_WITH(assign(d, "workshop=Hammer"), Contains("no workshop here"));
}
