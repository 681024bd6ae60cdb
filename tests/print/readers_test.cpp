// SPDX-License-Identifier: GPL-3.0-or-later
// Readers compared with one another: what booklet, cut list and sheets print of each size is what `measure` says of
// that size. Texts are read back by poppler's pdftotext.
#include "every_design.hpp"
#include "made.hpp"

#include "edition/edition.hpp"
#include "formats/design_file.hpp"
#include "library/library.hpp"
#include "sheets/plan.hpp"
#include "units/length.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <functional>
#include <regex>
#include <set>

using namespace tectonis;
using Catch::Contains;
using nlohmann::json;

namespace {

std::string without(const std::string& text, const std::string& signs)
{
    std::string out;
    for (const char c : text)
        if (signs.find(c) == std::string::npos)
            out += c;
    return out;
}

/// Words of a PDF in the order they were written, without any space: lines break only at spaces.
std::string wordsOf(const std::string& pdf)
{
    const Ran ran = shell("pdftotext -raw -enc UTF-8 " + pdf + " -");
    REQUIRE(ran.code == 0);
    return without(ran.out, " \n\t\r\f");
}

std::string squeezed(const std::string& text) { return without(text, " \n"); }

/// A value by size as a reader should print it, put together here from measure's numbers.
std::string row(const std::vector<std::string>& sizes, const std::vector<std::string>& values)
{
    if (std::all_of(values.begin(), values.end(), [&](const std::string& v) { return v == values.front(); }))
        return values.front();
    std::string out;
    for (std::size_t i = 0; i < sizes.size(); ++i)
        out += (i ? " · " : "") + sizes[i] + " " + values[i];
    return out;
}

std::string boxText(const json& box)
{
    return formatLengthBare(box.at("width"), Unit::Mm) + " × " + formatLengthBare(box.at("height"), Unit::Mm);
}

/// Compares booklet, cut list and sheets of a design with its measure.
void compare(const Design& d)
{
    const std::string file = scratch / "d.tectonis", pdf = scratch / "d.pdf", list = scratch / "d.txt";
    saveDesign(d, file);
    const Ran ran = cli("measure " + file + " --json");
    REQUIRE(ran.code == 0);
    const json measured = json::parse(ran.out);
    std::vector<std::string> sizes;
    for (const auto& size : measured["sizes"])
        sizes.push_back(size["name"]);
    REQUIRE(cli("export " + file + " booklet -o " + pdf).code == 0);
    const std::string booklet = wordsOf(pdf);
    REQUIRE(cli("export " + file + " cutlist -o " + list).code == 0);
    const std::string cutList = slurp(list);

    // Every piece of any size: once for all sizes, in the order of the sizes.
    std::vector<std::string> keys;
    for (const auto& size : measured["sizes"])
        for (const auto& piece : size["pieces"])
            if (std::find(keys.begin(), keys.end(), piece["key"]) == keys.end())
                keys.push_back(piece["key"]);
    for (const auto& key : keys) {
        std::vector<std::string> boxes;
        const json* any = nullptr;
        for (const auto& size : measured["sizes"]) {
            const auto it = std::find_if(
                size["pieces"].begin(), size["pieces"].end(), [&](const json& p) { return p["key"] == key; });
            boxes.push_back(it == size["pieces"].end() ? "–" : boxText((*it)["cut"]));
            if (it == size["pieces"].end())
                continue;
            if (!any)
                any = &*it;
            const std::string line = (*it)["code"].get<std::string>() + "\t" + (*it)["name"].get<std::string>() + "\t"
                + std::to_string((*it)["count"].get<int>()) + "\t" + std::to_string((*it)["mirrored"].get<int>()) + "\t"
                + formatLengthBare((*it)["cut"]["width"], Unit::Mm) + "\t"
                + formatLengthBare((*it)["cut"]["height"], Unit::Mm) + "\n";
            const auto from = cutList.find("\nSize " + size["name"].get<std::string>() + "\n");
            REQUIRE(from != std::string::npos);
            INFO("size " << size["name"] << ", cut list line " << line);
            CHECK(cutList.substr(from, cutList.find("\nSize ", from + 1) - from).find(line) != std::string::npos);
        }
        INFO("piece " << key << ": " << row(sizes, boxes));
        CHECK(booklet.find(squeezed((*any)["name"].get<std::string>())) != std::string::npos);
        CHECK(booklet.find(squeezed(row(sizes, boxes))) != std::string::npos);
    }
    // Cloth, notions and seams.
    for (const auto& m : measured["sizes"][0]["materials"]) {
        std::vector<std::string> lengths;
        for (const auto& size : measured["sizes"]) {
            const auto it = std::find_if(
                size["materials"].begin(), size["materials"].end(), [&](const json& o) { return o["id"] == m["id"]; });
            lengths.push_back(it == size["materials"].end()
                    ? "–"
                    : formatNumber((*it)["sold_length"].get<double>() / 1000, 1) + " m");
        }
        const std::string line = row(sizes, lengths);
        INFO("to buy: " << material(m["id"].get<std::string>()).name << " " << line);
        CHECK(booklet.find(squeezed(line)) != std::string::npos);
    }
    for (const auto& size : measured["sizes"])
        for (const auto& h : size["hardware"]) {
            INFO(size["name"] << ": " << h["text"]);
            CHECK(booklet.find(squeezed(h["text"].get<std::string>())) != std::string::npos);
        }
    for (const auto& seam : measured["sizes"][0]["seams"]) {
        if (seam["stitch"] != "construction")
            continue;
        std::vector<std::string> runs;
        for (const auto& size : measured["sizes"]) {
            const auto it = std::find_if(
                size["seams"].begin(), size["seams"].end(), [&](const json& o) { return o["key"] == seam["key"]; });
            runs.push_back(it == size["seams"].end() ? "–" : exactLengthBare((*it)["a"]["length"], Unit::Mm));
        }
        INFO("seam " << seam["key"] << " " << row(sizes, runs));
        CHECK(booklet.find(squeezed(row(sizes, runs))) != std::string::npos);
    }
    // The sheets: finished sizes on the cover, and how many of each piece.
    const std::string sheets = scratch / "d-sheets.pdf";
    REQUIRE(cli("export " + file + " sheets -o " + sheets).code == 0);
    const std::string printed = wordsOf(sheets);
    for (const auto& size : measured["sizes"]) {
        const auto& finished = size["finished"];
        const std::string cover = size["name"].get<std::string>() + " " + formatLengthBare(finished["width"], Unit::Mm)
            + " × " + formatLengthBare(finished["height"], Unit::Mm) + " × "
            + formatLengthBare(finished["depth"], Unit::Mm) + " mm";
        INFO("cover: " << cover);
        CHECK(printed.find(squeezed(cover)) != std::string::npos);
        for (const auto& piece : size["pieces"]) {
            INFO("sheet of " << piece["key"]);
            CHECK(printed.find(squeezed(piece["code"].get<std::string>() + "  " + piece["name"].get<std::string>()))
                != std::string::npos);
        }
    }
    // Every step of every size.
    for (const auto& size : measured["sizes"])
        for (const auto& step : size["steps"]) {
            INFO(size["name"] << ": " << step["title"]);
            CHECK(booklet.find(squeezed(step["title"].get<std::string>())) != std::string::npos);
        }
}

} // namespace

TEST_CASE(
    "Every number in booklet and cut list is the one that measure says of that size: all forms, and with every part")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        compare(newDesign(form->id()));
    }
    for (const FeatureKind* kind : featureKinds()) {
        Design d = newDesign("gusseted-satchel");
        try {
            addFeature(d, kind->kind());
        } catch (const InputError&) {
            continue;
        }
        INFO("satchel with one more " << kind->kind());
        compare(d);
    }
}

TEST_CASE("A piece, board or step that only some sizes have is in the booklet, with its sizes")
{
    Design d = newDesign("gusseted-satchel");
    setDimension(d, "radius", "120", {}, Unit::Mm, "S"); // no flat is left for a board
    const auto patterns = draftAll(d);
    REQUIRE(!patterns[0].piece("base.board"));
    REQUIRE(patterns[1].piece("base.board"));
    compare(d);
    const std::string file = scratch / "some.tectonis", pdf = scratch / "some.pdf";
    saveDesign(d, file);
    REQUIRE(cli("export " + file + " booklet -o " + pdf).code == 0);
    CHECK_THAT(wordsOf(pdf), Contains(squeezed("Put the base board in (M, L only)")));
    // Also when the first size that is printed lacks it.
    REQUIRE(cli("export " + file + " booklet --size S -o " + pdf).code == 0);
    CHECK_THAT(wordsOf(pdf), !Contains(squeezed("Base board")));
}

TEST_CASE("Copied and searched text keeps its signs: ×, –, ½, brackets and colons")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "width=12 1/2in");
    const std::string file = scratch / "signs.tectonis", pdf = scratch / "signs.pdf";
    saveDesign(d, file);
    for (const char* unit : {"mm", "in"})
        for (const char* what : {"booklet", "sheets"}) {
            REQUIRE(cli("export " + file + " " + what + " --unit " + unit + " -o " + pdf).code == 0);
            const std::string words = wordsOf(pdf);
            INFO(what << " in " << unit);
            CHECK_THAT(words, Contains("×") && Contains("(") && Contains(")") && Contains(":"));
            if (std::string(what) == "booklet")
                CHECK_THAT(words,
                    Contains("2.5–3mm") && Contains(squeezed("Width × height of the cut piece"))
                        && Contains("(407g/m²)"));
            else
                CHECK_THAT(words,
                    Contains(squeezed("Sizes (width × height × depth):")) && Contains(squeezed("Size M: cut 1 shell")));
            if (std::string(unit) == "in")
                CHECK_THAT(words, Contains("1/2"));
        }
}

TEST_CASE("Merged lists keep the order, and what later sizes add stands after what it follows there")
{
    using Row = AllSizes<std::string>;
    const std::vector<std::string> s{"a", "c", "d"}, m{"a", "b", "c", "e"}, l{"z", "a", "e"};
    const auto pointers = [](const std::vector<std::string>& of) {
        std::vector<const std::string*> out;
        for (const auto& x : of)
            out.push_back(&x);
        return out;
    };
    const auto rows = mergedById<std::string>(
        {pointers(s), pointers(m), pointers(l)}, [](const std::string& x) { return x; });
    std::string order;
    for (const Row& r : rows)
        order += r.id.text();
    CHECK(order == "zabced");
    CHECK(rows[1].in == std::vector<const std::string*>{&s[0], &m[0], &l[1]});
    CHECK(rows[2].in == std::vector<const std::string*>{nullptr, &m[1], nullptr});
    CHECK(&rows[2].any() == &m[1]);
    const Design d = newDesign("gusseted-satchel");
    const auto all = draftAll(d);
    const Edition e(d, {&all[0], &all[1], &all[2]});
    CHECK(e.bySize(std::vector<std::string>{"1", "1", "1"}) == "1");
    CHECK(e.bySize(std::vector<std::string>{"1", "2", ""}) == "S 1 · M 2 · L –");
    CHECK(e.words(
              {say("sew at {} now", Len(10)), say("sew at {} now", Len(9.5)), say("sew at {} now", Len(10))}, Unit::Mm)
        == "sew at S 10 mm · M 9.5 mm · L 10 mm now");
    CHECK(e.words({say("sew at {}", Len(10)), say("sew at {}", Len(10)), Message()}, Unit::Cm) == "sew at 1 cm");
    CHECK(e.words({say("with a board"), say("without"), say("without")}, Unit::Mm) == "S: with a board M, L: without");
}

TEST_CASE("Sheets: no page holds only what its neighbours print; pieces that are alike are printed once with all their "
          "names and counts; rectangles may be figures")
{
    int pages = 0, shared = 0;
    for (const Form* form : forms()) {
        const Design d = newDesign(form->id());
        const auto all = draftAll(d);
        for (const char* paper : {"A4", "Letter"}) {
            const SheetPlan plan = planSheets({&all[0], &all[1], &all[2]}, paperOf(paper));
            INFO(form->id() << " on " << paper);
            std::vector<Polyline> lines;
            std::set<PieceId> printed;
            for (const auto& spot : plan.spots) {
                printed.insert(spot.pieceKey);
                printed.insert(spot.also.begin(), spot.also.end());
                shared += int(spot.also.size());
                for (const auto& piece : spot.templates)
                    lines.push_back(flattened(placed(piece.cut, spot.placement), 0.05));
                // What is printed once is alike, in every size.
                for (const auto& key : spot.also)
                    for (const auto i : spot.patterns) {
                        const Pattern* p = std::vector<const Pattern*>{&all[0], &all[1], &all[2]}[i];
                        CHECK(lengthOf(p->piece(key)->cut) == Approx(lengthOf(p->piece(spot.pieceKey)->cut)));
                        CHECK(areaOf(p->piece(key)->stitch()) == Approx(areaOf(p->piece(spot.pieceKey)->stitch())));
                    }
            }
            for (const auto& strip : plan.toMeasure)
                printed.insert(all[0].pieceByCode(strip.code)->key);
            CHECK(printed.size() == all[0].pieces.size());
            for (const auto& page : plan.pages) {
                ++pages;
                // A point of an outline, or of a piece's inside, that no other page shows.
                const auto alone = [&](Point q) {
                    return page.area.contains(q, 0.001)
                        && std::none_of(plan.pages.begin(), plan.pages.end(),
                            [&](const Page& other) { return &other != &page && other.area.contains(q, -0.06); });
                };
                bool own = false;
                for (const auto& line : lines) {
                    for (std::size_t i = 0; i + 1 < line.size() && !own; ++i)
                        for (double t = 0; t <= 1 && !own; t += 1.0 / 64)
                            own = alone(lerp(line[i], line[i + 1], t));
                    own = own || insideOutline(line, page.area.centre());
                }
                CHECK(own);
            }
        }
    }
    CHECK(pages > 300);
    CHECK(shared > 30);
    // Front, back and both linings of a plain satchel: one template with four names.
    Design plain = newDesign("gusseted-satchel");
    for (const char* part : {"strap", "connectors", "snap", "flap"})
        removeFeature(plain, part);
    setChoice(plain, "lining.fit", "same");
    const auto all = draftAll(plain);
    const SheetPlan plan = planSheets({&all[1]}, paperOf("A4"));
    const auto front = std::find_if(
        plan.spots.begin(), plan.spots.end(), [](const SheetSpot& s) { return s.pieceKey == "front"; });
    REQUIRE(front != plan.spots.end());
    CHECK(front->also == std::vector<PieceId>{"back", lined("front"), lined("back")});
    // The same aslant is still the same; another grain is another template.
    Pattern aslant = all[1];
    for (auto& piece : aslant.pieces)
        piece.grain += 45;
    CHECK(planSheets({&aslant}, paperOf("A4")).spots.size() == plan.spots.size());
    for (auto& piece : aslant.pieces)
        piece.grain += piece.key == "back" ? 45 : 0;
    for (const auto& spot : planSheets({&aslant}, paperOf("A4")).spots)
        CHECK(std::find(spot.also.begin(), spot.also.end(), "back") == spot.also.end());
    const std::string file = scratch / "alike.tectonis", pdf = scratch / "alike.pdf";
    saveDesign(plain, file);
    REQUIRE(cli("export " + file + " sheets --size M -o " + pdf).code == 0);
    const std::string words = wordsOf(pdf);
    CHECK_THAT(words,
        Contains(squeezed("A Front B Back LA Lining front LB Lining back"))
            && Contains(squeezed("cut 1 shell + 1 shell + 1 lining + 1 lining")));
    // Rectangles as figures: fewer spots, more to measure, and the figures are on the cover.
    const SheetPlan figures = planSheets({&all[1]}, paperOf("A4"), Unit::Mm, {true});
    CHECK(figures.spots.size() + figures.toMeasure.size() >= plan.spots.size());
    CHECK(figures.toMeasure.size() > plan.toMeasure.size());
    REQUIRE(cli("export " + file + " sheets --figures --size M -o " + pdf).code == 0);
    CHECK_THAT(wordsOf(pdf), Contains(squeezed("Base board")) && Contains(squeezed("Cut to measure")));
    CHECK(pagesOnTheFold({&all[1]}, paperOf("A4")) < plan.pages.size());
}

TEST_CASE("No heading of the booklet stands alone at the foot of a page, on either paper, in any form")
{
    const std::string pdf = scratch / "h.pdf", file = scratch / "h.tectonis";
    int pages = 0, headings = 0;
    for (const Form* form : forms())
        for (const char* paper : {"A4", "Letter"}) {
            saveDesign(newDesign(form->id()), file);
            REQUIRE(cli("export " + file + " booklet --paper " + paper + " -o " + pdf).code == 0);
            const Ran ran = shell("pdftotext -layout -enc UTF-8 " + pdf + " -");
            std::istringstream all(ran.out);
            for (std::string page; std::getline(all, page, '\f');) {
                std::vector<std::string> lines;
                std::istringstream in(page);
                for (std::string line; std::getline(in, line);)
                    if (line.find_first_not_of(' ') != std::string::npos)
                        lines.push_back(squeezed(line));
                if (lines.size() < 3)
                    continue;
                ++pages;
                lines.pop_back(); // the foot
                for (const auto& line : lines)
                    headings += line == "Steps" || line == "Seams,walked";
                INFO(form->id() << ", " << paper << ": a page ends with “" << lines.back() << "”");
                for (const char* head :
                    {"Steps", "Materials", "Notions", "Cutlist", "Seams,walked", "SeamOnerunOtherrunEase",
                        "MaterialClothwidthLengthtobuy", "Beforeyousellorloadit", "Shellassembly", "Joining", "Closing",
                        "Strap", "Lining", "Smallparts", "Shellfront", "Shellback", "Interlinings"})
                    CHECK(lines.back() != head);
            }
        }
    CHECK(pages > 100);
    CHECK(headings > 40);
}

TEST_CASE("The specification, read by python's csv, says of every piece what measure says, in any form")
{
    const std::string file = scratch / "spec.tectonis", csv = scratch / "spec.csv";
    int pieces = 0, layers = 0, steps = 0;
    for (const Form* form : forms()) {
        INFO(form->id());
        saveDesign(newDesign(form->id()), file);
        REQUIRE(cli("export " + file + " specification -o " + csv).code == 0);
        const Ran read = shell("python3 -c 'import csv,json,sys; "
                               "print(json.dumps(list(csv.DictReader(open(sys.argv[1], newline=\"\")))))' "
            + csv);
        REQUIRE(read.code == 0);
        const json rows = json::parse(read.out), measured = json::parse(cli("measure " + file + " --json").out);
        std::size_t at = 0;
        for (const auto& size : measured["sizes"])
            for (const auto& piece : size["pieces"]) {
                REQUIRE(at < rows.size());
                const json& line = rows[at++];
                INFO(size["name"] << ", " << piece["code"]);
                ++pieces;
                CHECK(line["Size"] == size["name"]);
                CHECK(line["Code"] == piece["code"]);
                CHECK(line["Piece"] == piece["name"]);
                CHECK(line["Count"] == std::to_string(piece["count"].get<int>()));
                CHECK(line["Width, mm"] == formatLengthBare(piece["cut"]["width"], Unit::Mm));
                CHECK(line["Height, mm"] == formatLengthBare(piece["cut"]["height"], Unit::Mm));
                for (const auto& layer : piece["interlinings"]) {
                    ++layers;
                    CHECK_THAT(line["Layers"].get<std::string>(), Contains(layer["code"].get<std::string>()));
                }
                // Every seam of which it is one side, and what is fixed to it.
                for (const auto& seam : size["seams"])
                    if (seam["a"]["piece"] == piece["code"] || seam["b"]["piece"] == piece["code"])
                        CHECK_THAT(line["Seams"].get<std::string>(), Contains(seam["name"].get<std::string>()));
                for (const auto& fitting : size["fittings"])
                    if (fitting["piece"] == piece["code"])
                        CHECK_THAT(line["Fittings"].get<std::string>(), Contains(fitting["name"].get<std::string>()));
                // The steps that handle it, by their numbers.
                for (const auto& step : size["steps"]) {
                    const std::string said = std::to_string(step["number"].get<int>()) + " "
                        + step["title"].get<std::string>();
                    const std::string all = "; " + line["Steps"].get<std::string>() + "; ";
                    const bool handles = std::find(step["pieces"].begin(), step["pieces"].end(), piece["code"])
                        != step["pieces"].end();
                    steps += handles;
                    CHECK((all.find("; " + said + "; ") != std::string::npos) == handles);
                }
            }
        CHECK(at == rows.size());
    }
    CHECK(pieces > 300);
    CHECK(layers > 150);
    CHECK(steps > 1200);
}

TEST_CASE("The cost sheet, summed by python's decimals, comes to what it says, in any form and size")
{
    const std::string file = scratch / "cost.tectonis", csv = scratch / "cost.csv";
    for (const Form* form : forms()) {
        INFO(form->id());
        saveDesign(newDesign(form->id()), file);
        REQUIRE(cli("export " + file + " cost -o " + csv).code == 0);
        // The last line of each size less the sum of the others; rows of two decimals are off by half a hundredth each.
        const Ran read = shell("python3 -c 'import csv,sys\n"
                               "from decimal import Decimal as D\n"
                               "sums={}\n"
                               "for r in csv.DictReader(open(sys.argv[1], newline=\"\")):\n"
                               "  s=sums.setdefault(r[\"Size\"],[D(0),None,0]); s[2]+=1\n"
                               "  if r[\"What\"]==\"In all\": s[1]=D(r[\"Cost\"])\n"
                               "  else: s[0]+=D(r[\"Cost\"] or 0)\n"
                               "for k,s in sums.items(): print(k, abs(s[0]-s[1])<=D(\"0.005\")*s[2], s[2]>5)' "
            + csv);
        REQUIRE(read.code == 0);
        CHECK(read.out == "S True True\nM True True\nL True True\n");
    }
}

TEST_CASE("The booklet for a tablet says what the printed one says, step by step, and is sound HTML, in any form")
{
    const std::string file = scratch / "tablet.tectonis", html = scratch / "tablet.html", pdf = scratch / "tablet.pdf";
    int steps = 0;
    for (const Form* form : forms()) {
        INFO(form->id());
        saveDesign(newDesign(form->id()), file);
        REQUIRE(cli("export " + file + " html -o " + html).code == 0);
        REQUIRE(cli("export " + file + " booklet -o " + pdf).code == 0);
        // HTML Tidy has nothing to say; nothing comes from elsewhere.
        CHECK(shell("tidy -q -e " + html).err == "");
        const std::string page = slurp(html);
        CHECK(page.size() < 5'000'000);
        CHECK(slurp(pdf).size() < 5'000'000);
        for (const char* elsewhere : {"src=", "href=", "http://", "https://", "@import"})
            CHECK(page.find(elsewhere) == std::string::npos);
        // Steps as python's own parser reads them: number and title, what is said, whether there is a figure.
        const Ran read = shell("python3 -c '\nimport sys,json\nfrom html.parser import HTMLParser as H\nclass P(H):\n"
                               "  steps=[]; of=\"\"\n"
                               "  def handle_starttag(s,t,a):\n"
                               "    if t==\"article\": s.steps.append(dict(words=\"\",figures=0,id=\"\")); s.of=\"w\"\n"
                               "    if t==\"input\": s.steps[-1][\"id\"]=dict(a)[\"data-step\"]\n"
                               "    if t==\"svg\" and s.of: s.steps[-1][\"figures\"]+=1; s.of=\"f\"\n"
                               "  def handle_endtag(s,t):\n    if t==\"article\": s.of=\"\"\n"
                               "  def handle_data(s,d):\n"
                               "    if s.of==\"w\": s.steps[-1][\"words\"]+=d\n"
                               "p=P(); p.feed(open(sys.argv[1]).read()); print(json.dumps(p.steps))' "
            + html);
        REQUIRE(read.code == 0);
        const json told = json::parse(read.out);
        const std::string printed = wordsOf(pdf);
        std::set<std::string> ids;
        const auto patterns = draftAll(loadDesign(file));
        CHECK(told.size() >= patterns[1].steps.size());
        for (const auto& step : told) {
            ++steps;
            INFO(step["words"]);
            CHECK(ids.insert(step["id"].get<std::string>()).second);
            CHECK(step["figures"] >= 1);
            // Its first line: "12. Sew the gusset to the back".
            std::string words = step["words"];
            words = words.substr(words.find_first_not_of(" \n"));
            CHECK_THAT(printed, Contains(without(words.substr(0, words.find('\n')), " \t")));
        }
    }
    CHECK(steps > 190);
}

TEST_CASE("Figures as SVG: every step has its files, sound XML, nothing outside of their room")
{
    const std::string file = scratch / "figures.tectonis", folder = scratch / "figures";
    int files = 0;
    for (const Form* form : forms()) {
        INFO(form->id());
        std::filesystem::remove_all(folder);
        saveDesign(newDesign(form->id()), file);
        REQUIRE(cli("export " + file + " figures --size M -o " + folder).code == 0);
        const Ran read = shell("python3 -c '\nimport sys,glob,re,xml.dom.minidom as x\nn=0\n"
                               "for f in glob.glob(sys.argv[1]+\"/*.svg\"):\n"
                               "  d=x.parse(f).documentElement; w=float(d.getAttribute(\"width\")); "
                               "h=float(d.getAttribute(\"height\")); n+=1\n"
                               "  assert 20<w<=641 and 20<h<=481, (f,w,h)\n"
                               "  for p in d.getElementsByTagName(\"path\"):\n"
                               "    if p.parentNode.tagName==\"pattern\": continue\n"
                               "    v=[float(q) for q in re.findall(r\"-?[0-9.]+\",p.getAttribute(\"d\"))]\n"
                               "    assert all(-12<q<w+12 for q in v[0::2]) and all(-12<q<h+12 for q in v[1::2]), f\n"
                               "print(n)' "
            + folder);
        INFO(read.err);
        REQUIRE(read.code == 0);
        const Pattern p = draftAll(loadDesign(file))[1];
        CHECK(std::stoi(read.out) >= int(p.steps.size()));
        files += std::stoi(read.out);
    }
    CHECK(files > 400);
}

TEST_CASE("The specification on pages says of every piece what the table says; qpdf reads its outline")
{
    const std::string file = scratch / "spec.tectonis", csv = scratch / "spec.csv", pdf = scratch / "spec.pdf";
    int cells = 0;
    for (const char* form : {"gusseted-satchel", "large-tote", "roll-top"}) {
        INFO(form);
        saveDesign(newDesign(form), file);
        REQUIRE(cli("export " + file + " specification --size M -o " + csv).code == 0);
        REQUIRE(cli("export " + file + " specification-pages --size M -o " + pdf).code == 0);
        CHECK(shell("qpdf --check " + pdf).code == 0);
        const Ran read = shell("python3 -c 'import csv,json,sys; "
                               "print(json.dumps(list(csv.DictReader(open(sys.argv[1], newline=\"\")))))' "
            + csv);
        REQUIRE(read.code == 0);
        const std::string printed = wordsOf(pdf);
        const std::string outline = shell("qpdf --json --json-key=outlines " + pdf).out;
        for (const auto& line : json::parse(read.out)) {
            for (const char* column : {"Layers", "Seams", "Marks", "Fittings", "Steps", "Note"})
                if (const auto cell = line[column].get<std::string>(); !cell.empty()) {
                    ++cells;
                    INFO(line["Code"] << ", " << column);
                    CHECK_THAT(printed, Contains(squeezed(cell)));
                }
            CHECK_THAT(outline, Contains(line["Code"].get<std::string>() + "  " + line["Piece"].get<std::string>()));
        }
    }
    CHECK(cells > 80);
}

TEST_CASE(
    "The booklet's outline, read by qpdf: its headings, phases and every step, each on a page of its own document")
{
    Design d = newDesign("gusseted-satchel");
    d.revisions = {
        {"2026-03-01", "The flap is 4 mm wider in all sizes.", {}}, {"2026-05-02", "Pocket moved down.", {}}};
    const std::string file = scratch / "outline.tectonis", pdf = scratch / "outline.pdf";
    saveDesign(d, file);
    REQUIRE(cli("export " + file + " booklet --size M -o " + pdf).code == 0);
    CHECK(shell("qpdf --check " + pdf).code == 0);
    const json read = json::parse(shell("qpdf --json --json-key=outlines --json-key=pages " + pdf).out);
    std::vector<std::string> titles;
    const auto pages = read["pages"].size();
    const std::function<void(const json&)> visit = [&](const json& list) {
        for (const auto& item : list) {
            titles.push_back(item["title"]);
            CHECK(item["destpageposfrom1"].get<std::size_t>() >= 1);
            CHECK(item["destpageposfrom1"].get<std::size_t>() <= pages);
            visit(item["kids"]);
        }
    };
    visit(read["outlines"]);
    const json measured = json::parse(cli("measure " + file + " --json").out);
    const auto has = [&](const std::string& title) {
        return std::find(titles.begin(), titles.end(), title) != titles.end();
    };
    for (const auto& step : measured["sizes"][1]["steps"]) {
        const std::string title = std::to_string(step["number"].get<int>()) + ".  " + step["title"].get<std::string>();
        INFO(title);
        CHECK(has(title));
    }
    for (const char* heading : {"Materials", "Cut list", "Steps", "Shell assembly", "Corrections of earlier revisions"})
        CHECK(has(heading));
    // What was corrected, the latest first.
    const std::string printed = wordsOf(pdf);
    const auto later = printed.find(squeezed("Pocket moved down.")), earlier = printed.find(squeezed("4 mm wider"));
    CHECK(later != std::string::npos);
    CHECK(later < earlier);
}

TEST_CASE("No line of the left column lies on another one: booklets and specifications, measured by poppler")
{
    int lines = 0;
    for (const char* form : {"roll-top", "gusseted-satchel", "circle-pouch", "hinged-mouth"}) {
        const std::string file = scratch / "lines.tectonis", pdf = scratch / "lines.pdf";
        saveDesign(newDesign(form), file);
        for (const char* what : {"booklet", "specification-pages"}) {
            REQUIRE(cli("export " + file + " " + what + " --size M -o " + pdf).code == 0);
            const std::string read = shell("pdftotext -bbox-layout " + pdf + " -").out;
            const std::regex line(
                R"re(<page|<line xMin="([0-9.]+)" yMin="([0-9.]+)" xMax="[0-9.]+" yMax="([0-9.]+)")re");
            std::vector<double> tops;
            const auto close = [&] {
                std::sort(tops.begin(), tops.end());
                for (std::size_t i = 1; i < tops.size(); ++i) {
                    ++lines;
                    INFO(form << ", " << what << ": at " << tops[i]);
                    CHECK(tops[i] - tops[i - 1] > 5); // points; the smallest letters are 8 high
                }
                tops.clear();
            };
            for (std::sregex_iterator it(read.begin(), read.end(), line), end; it != end; ++it) {
                if (!(*it)[1].matched)
                    close();
                else if (const double x = std::stod((*it)[1]); x > 41 && x < 44)
                    tops.push_back(std::stod((*it)[2]));
            }
            close();
        }
    }
    CHECK(lines > 1000);
}
