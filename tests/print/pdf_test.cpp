// SPDX-License-Identifier: GPL-3.0-or-later
// The sheets measured back from the PDF by poppler (pdftocairo, pdftotext) and checked by qpdf: outside tools.
#include "made.hpp"

#include "editing/draft.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "geometry/outline.hpp"
#include "sheets/plan.hpp"

#include <catch2/catch.hpp>
#include <poppler-document.h>
#include <poppler-page.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <regex>
#include <sstream>

using namespace tectonis;
using Catch::Contains;

namespace {

constexpr double kPoint = 25.4 / 72;

/// Every path of a page as poppler's cairo backend sees it: points in mm from the upper left corner.
std::vector<Polyline> pathsOfPage(const std::string& pdf, int page)
{
    const std::string svg = scratch / "page.svg";
    REQUIRE(
        shell("pdftocairo -svg -f " + std::to_string(page) + " -l " + std::to_string(page) + " " + pdf + " " + svg).code
        == 0);
    const std::string text = slurp(svg);
    std::vector<Polyline> out;
    static const std::regex tag("<path[^>]* d=\"([^\"]*)\"[^>]*?>"), matrix("transform=\"matrix\\(([^)]*)\\)\"");
    for (auto it = std::sregex_iterator(text.begin(), text.end(), tag); it != std::sregex_iterator(); ++it) {
        const std::string whole = it->str();
        double m[6] = {1, 0, 0, 1, 0, 0};
        std::smatch found;
        if (std::regex_search(whole, found, matrix)) {
            std::string list = found[1];
            std::replace(list.begin(), list.end(), ',', ' ');
            std::istringstream in(list);
            for (double& v : m)
                in >> v;
        }
        const auto mm = [&](double x, double y) {
            return Point{(m[0] * x + m[2] * y + m[4]) * kPoint, (m[1] * x + m[3] * y + m[5]) * kPoint};
        };
        std::istringstream in((*it)[1].str());
        std::string word;
        Polyline line;
        const auto flush = [&] {
            if (line.size() > 1)
                out.push_back(line);
            line.clear();
        };
        while (in >> word) {
            double x, y, a, b, c, d;
            if (word == "M") {
                flush();
                in >> x >> y;
                line.push_back(mm(x, y));
            } else if (word == "L") {
                in >> x >> y;
                line.push_back(mm(x, y));
            } else if (word == "C") {
                in >> a >> b >> c >> d >> x >> y;
                const Point p0 = line.back();
                const Run curve{Cubic{p0, mm(a, b), mm(c, d), mm(x, y)}};
                for (const Point p : flattened(curve, 0.005))
                    line.push_back(p);
            } else if (word == "Z" && !line.empty())
                line.push_back(line.front());
        }
        flush();
    }
    return out;
}

bool hasSquare(const std::vector<Polyline>& paths, double side)
{
    return std::any_of(paths.begin(), paths.end(), [&](const Polyline& line) {
        Box b;
        for (const Point p : line)
            b.add(p);
        return std::abs(b.width() - side) < 0.02 && std::abs(b.height() - side) < 0.02;
    });
}

} // namespace

TEST_CASE("Sheets at true scale: test squares and paper size measured back by poppler")
{
    for (const auto& [paper, w, h] :
        {std::tuple{"A4", 210.0, 297.0}, {"Letter", 215.9, 279.4}}) { // ISO 216, ANSI/ASME Y14.1
        const std::string pdf = scratch / (std::string(paper) + ".pdf");
        REQUIRE(cli("export " + demo + " sheets --size M --paper " + paper + " -o " + pdf).code == 0);
        CHECK(shell("qpdf --check " + pdf).code == 0);
        const std::unique_ptr<poppler::document> doc(poppler::document::load_from_file(pdf));
        REQUIRE(doc);
        for (int i = 0; i < doc->pages(); ++i) {
            const std::unique_ptr<poppler::page> page(doc->create_page(i));
            CHECK(page->page_rect().width() * kPoint == Approx(w).margin(0.3));
            CHECK(page->page_rect().height() * kPoint == Approx(h).margin(0.3));
        }
        const auto cover = pathsOfPage(pdf, 1);
        CHECK(hasSquare(cover, 100));
        CHECK(hasSquare(cover, 76.2));
        CHECK(hasSquare(cover, 25.4));
        const Design d = loadDesign(demo);
        const Pattern p = draftAll(d)[1];
        CHECK(doc->pages() == int(planSheets({&p}, paperOf(paper)).pages.size()) + 1);
    }
}

TEST_CASE("A piece's outline on the sheet is the pattern's within 0.01 mm, measured back by poppler")
{
    const std::string pdf = scratch / "outline.pdf";
    REQUIRE(cli("export " + demo + " sheets --size M -o " + pdf).code == 0);
    const Design d = loadDesign(demo);
    int compared = 0;
    for (const auto& [size, index] : {std::pair{"M", 1}, {"L", 2}}) {
        REQUIRE(cli(std::string("export ") + demo + " sheets --size " + size + " -o " + pdf).code == 0);
        const Pattern p = draftAll(d)[std::size_t(index)];
        const SheetPlan plan = planSheets({&p}, paperOf("A4"));
        for (const auto& spot : plan.spots) {
            for (std::size_t i = 0; i < plan.pages.size(); ++i) {
                const Box& a = plan.pages[i].area;
                const bool onPage = spot.box.x0 >= a.x0 && spot.box.x1 <= a.x1 && spot.box.y0 >= a.y0
                    && spot.box.y1 <= a.y1;
                if (!onPage)
                    continue;
                const Run cut = placed(p.piece(spot.pieceKey)->cut, spot.placement);
                // Plan to page: margin from the page's own corner, y down.
                Polyline want;
                for (const Point q : flattened(cut, 0.005))
                    want.push_back({q.x - a.x0 + plan.margin, a.y1 - q.y + plan.margin});
                const auto paths = pathsOfPage(pdf, int(i) + 2);
                const bool found = std::any_of(paths.begin(), paths.end(), [&](const Polyline& line) {
                    return std::all_of(want.begin(), want.end(), [&](Point q) { return distanceTo(line, q) < 0.01; })
                        && std::all_of(line.begin(), line.end(), [&](Point q) { return distanceTo(want, q) < 0.01; });
                });
                INFO("piece " << spot.pieceKey << " on page " << plan.pages[i].name);
                CHECK(found);
                ++compared;
            }
        }
    }
    CHECK(compared >= 4);
}

TEST_CASE("Large pieces: the corner radius on the sheet, measured over two pages")
{
    const std::string pdf = scratch / "large.pdf";
    REQUIRE(cli("export " + demo + " sheets --size M -o " + pdf).code == 0);
    const Design d = loadDesign(demo);
    const Pattern p = draftAll(d)[1];
    const SheetPlan plan = planSheets({&p}, paperOf("A4"));
    const auto spot = std::find_if(
        plan.spots.begin(), plan.spots.end(), [](const SheetSpot& s) { return s.pieceKey == "front"; });
    // Poppler keeps the whole path and clips it: each page that carries the piece has all of it, in its own place.
    int pages = 0;
    for (std::size_t i = 0; i < plan.pages.size(); ++i) {
        const Box& a = plan.pages[i].area;
        if (spot->box.x1 < a.x0 || spot->box.x0 > a.x1 || spot->box.y1 < a.y0 || spot->box.y0 > a.y1)
            continue;
        const Run cut = placed(p.piece("front")->cut, spot->placement);
        const Polyline outline = flattened(cut, 0.05);
        if (std::none_of(outline.begin(), outline.end(), [&](Point q) { return a.contains(q, -1); }))
            continue; // the page shows none of its outline
        const auto paths = pathsOfPage(pdf, int(i) + 2);
        bool near = false;
        for (const auto& line : paths) {
            int on = 0, all = 0;
            for (const Point q : flattened(cut, 0.05)) {
                const Point at{q.x - a.x0 + plan.margin, a.y1 - q.y + plan.margin};
                if (!Box{plan.margin, plan.margin, plan.paper.width - plan.margin, plan.paper.height - plan.margin - 8}
                         .contains(at, -1))
                    continue;
                ++all;
                on += distanceTo(line, at) < 0.015;
            }
            near = near || (all > 0 && on == all);
        }
        INFO("page " << plan.pages[i].name);
        CHECK(near);
        ++pages;
    }
    CHECK(pages >= 2);
}

TEST_CASE("Sizes are layers of the sheets; pages say how they join; pieces carry their facts")
{
    const std::string pdf = scratch / "all.pdf";
    REQUIRE(cli("export " + demo + " sheets -o " + pdf).code == 0);
    const std::string objects = shell("qpdf --qdf --object-streams=disable " + pdf + " -").out;
    CHECK_THAT(objects, Contains("/OCProperties"));
    for (const char* layer : {"(Size S)", "(Size M)", "(Size L)"})
        CHECK_THAT(objects, Contains(layer));
    const std::string text = shell("pdftotext " + pdf + " -").out;
    CHECK_THAT(text, Contains("Tuner") && Contains("100 mm") && Contains("76.2 mm") && Contains("25.4 mm"));
    CHECK_THAT(text, Contains("trim right") && Contains("Cut to measure: F"));
    CHECK_THAT(text, Contains("cut 1 shell, allowance 10 mm") && Contains("Size L"));
    // No page is without drawing: each has more than its frame, in ink.
    const std::unique_ptr<poppler::document> doc(poppler::document::load_from_file(pdf));
    REQUIRE(doc);
    for (int i = 2; i <= doc->pages(); i += 5)
        CHECK(pathsOfPage(pdf, i).size() > 4);
}

TEST_CASE("Booklet: materials, notions, cut list, every step with its text")
{
    const std::string pdf = scratch / "booklet.pdf";
    REQUIRE(cli("export " + demo + " booklet -o " + pdf).code == 0);
    CHECK(shell("qpdf --check " + pdf).code == 0);
    std::string text = shell("pdftotext -layout " + pdf + " -").out;
    text = std::regex_replace(text, std::regex("\\s+"), " ");
    CHECK_THAT(text, Contains("Materials") && Contains("Notions") && Contains("Cut list") && Contains("Magnetic snap"));
    const Design d = loadDesign(demo);
    const auto patterns = draftAll(d);
    for (const auto& s : patterns[0].steps) {
        INFO(s.title);
        CHECK_THAT(text, Contains(words(s.title).substr(0, 20)));
    }
    CHECK_THAT(text, Contains("Caution:"));
}

TEST_CASE("Pieces as SVG and the cut list as text")
{
    const std::string folder = scratch / "pieces";
    REQUIRE(cli("export " + demo + " pieces --size M -o " + folder).code == 0);
    const Design d = loadDesign(demo);
    const auto patterns = draftAll(d);
    for (const auto& piece : patterns[1].pieces)
        CHECK(std::filesystem::exists(folder + "/" + piece.code + "-M.svg"));
    const std::string list = scratch / "list.txt";
    REQUIRE(cli("export " + demo + " cutlist -o " + list).code == 0);
    CHECK_THAT(slurp(list), Contains("B2\tBack, lower") && Contains("Notions") && Contains("Size L"));
}

TEST_CASE("Templates on the fold: nested sizes say it once at each fold, and every size's bracket is drawn")
{
    Design d = loadDesign(demo);
    d.choices["templates"] = "half";
    const std::string file = scratch / "folded.tectonis", one = scratch / "one.pdf", all = scratch / "nested.pdf";
    saveDesign(d, file);
    REQUIRE(cli("export " + file + " sheets --size M -o " + one).code == 0);
    REQUIRE(cli("export " + file + " sheets -o " + all).code == 0);
    const auto times = [](const std::string& pdf) {
        const std::string text = std::regex_replace(shell("pdftotext " + pdf + " -").out, std::regex("\\s+"), " ");
        const std::regex words("place on the fold");
        return std::distance(std::sregex_iterator(text.begin(), text.end(), words), std::sregex_iterator());
    };
    CHECK(times(one) > 4);
    CHECK(times(all) > 4);
    CHECK(times(all) < 2 * times(one)); // three sizes; tiles of A4 cut larger sizes a little differently
}

TEST_CASE("Booklet and sheets and cut list in another language: nothing of the program's own is English, in any form")
{
    const Scratch folder("booklet-language");
    static const std::regex word("[A-Za-z]{4,}");
    int seen = 0;
    for (const Form* form : forms()) {
        const Design d = newDesign(form->id());
        saveDesign(d, folder / "bag.tectonis");
        std::string text;
        for (const char* what : {"booklet", "sheets", "cutlist", "specification"}) {
            const std::string out = folder / (form->id() + "-" + what);
            REQUIRE(shell(std::string("TECTONIS_LANGUAGE=") + TECTONIS_TEST_LANGUAGE + " " + TECTONIS_CLI + " export "
                        + (folder / "bag.tectonis") + " " + what + " -o " + out)
                        .code
                == 0);
            text += what == std::string("cutlist") || what == std::string("specification")
                ? slurp(out)
                : shell("pdftotext -layout -nodiag " + out + " -").out;
        }
        text = std::regex_replace(text, std::regex("[0-9.,/²()]+|mm|\\s+"), " ");
        text = std::regex_replace(text, std::regex(" +"), " ");
        // Names are nobody's to translate: of the design, its materials, its parts.
        std::vector<std::string> names{d.studio};
        for (auto it = std::sregex_iterator(d.name.begin(), d.name.end(), word); it != std::sregex_iterator(); ++it)
            names.push_back(it->str());
        for (const auto& m : d.library->materials()) // word by word: a name may be broken over lines
            for (auto it = std::sregex_iterator(m.name.begin(), m.name.end(), word); it != std::sregex_iterator(); ++it)
                names.push_back(it->str());
        for (const auto& name : names)
            for (std::size_t at; !name.empty() && (at = text.find(name)) != std::string::npos;)
                text.erase(at, name.size());
        // The test language accents every letter of a, c, e, i, n, o, r, s, u, y, z.
        static const std::regex english("[A-Za-z]*[aeiouAEIOU][A-Za-z]*");
        for (auto it = std::sregex_iterator(text.begin(), text.end(), english); it != std::sregex_iterator(); ++it)
            if (it->length() > 3) {
                const std::size_t at = std::size_t(it->position());
                FAIL_CHECK(
                    form->id() << ": “" << it->str() << "” in “" << text.substr(at > 40 ? at - 40 : 0, 90) << "”");
            }
        seen += text.find("⟦") != std::string::npos;
    }
    CHECK(seen == int(forms().size()));
}
