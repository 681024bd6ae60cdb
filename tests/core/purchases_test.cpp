// SPDX-License-Identifier: GPL-3.0-or-later
// What is bought for a run of bags: counted by hand and against markers and notions, in packs, less what is in stock.
#include "checks/finding.hpp"
#include "cutting/cost.hpp"
#include "cutting/purchases.hpp"
#include "design/carried_library.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "english.hpp"
#include "every_design.hpp"
#include "formats/design_file.hpp"
#include "formats/purchase_sheet.hpp"
#include "library/fields.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

std::vector<const Pattern*> pointers(const std::vector<Pattern>& patterns)
{
    std::vector<const Pattern*> out;
    for (const auto& p : patterns)
        out.push_back(&p);
    return out;
}

std::vector<Purchase> purchases(const Design& d)
{
    const auto patterns = draftAll(d);
    return purchasesFor(d, pointers(patterns));
}

const Purchase& of(const std::vector<Purchase>& all, Ware ware)
{
    const auto it = std::find_if(
        all.begin(), all.end(), [&](const Purchase& p) { return p.cloth.empty() && p.ware == ware; });
    REQUIRE(it != all.end());
    return *it;
}

const Purchase& of(const std::vector<Purchase>& all, const char* cloth)
{
    const auto it = std::find_if(
        all.begin(), all.end(), [&](const Purchase& p) { return p.cloth == MaterialId(cloth); });
    REQUIRE(it != all.end());
    return *it;
}

template <class Item> void give(Design& d, const std::string& id, const std::function<void(Item&)>& change)
{
    Library::Contents all = d.library->contents();
    auto& items = [&]() -> auto&
    {
        if constexpr (std::is_same_v<Item, Material>)
            return all.materials;
        else
            return all.goods;
    }
    ();
    for (auto& item : items)
        if (item.id == id)
            change(item);
    d.library = SharedLibrary(Library(std::move(all)));
}

} // namespace

TEST_CASE("Purchases: five satchels want ten rings; in packs of four, with three in stock, eight are bought")
{
    Design d = newDesign("gusseted-satchel");
    edit(d, [](Design& next) { change::run(next, "S", 2), change::run(next, "M", 3); });
    CHECK(of(purchases(d), Ware::Ring).needed == 10);
    CHECK(of(purchases(d), Ware::Ring).buy == 10);
    std::set<std::string> threads; // of two colours
    for (const auto& p : purchases(d))
        if (p.cloth.empty() && p.ware == Ware::Thread)
            threads.insert(words(p.finish));
    CHECK(threads == std::set<std::string>{"as the lining", "as the shell"});
    CHECK(of(purchases(d), Ware::Ring).bySize.at("S") == 4);
    give<Good>(d, "ring-steel", [](Good& g) { g.pack = 4, g.stock = 3, g.lead = 9; });
    const Purchase rings = of(purchases(d), Ware::Ring);
    CHECK(rings.buy == 8); // 10 - 3 = 7: two packs
    CHECK(rings.cost == Approx(8 * 0.9));
    CHECK(rings.lead == 9);
    give<Good>(d, "ring-steel", [](Good& g) { g.stock = 10; });
    CHECK(of(purchases(d), Ware::Ring).buy == 0);
    CHECK(of(purchases(d), Ware::Ring).cost == 0);
}

TEST_CASE("Purchases: cloth is the marker of all bags, rounded up once to how it is sold; a leftover costs nothing")
{
    Design d = newDesign("large-tote");
    edit(d, [](Design& next) { change::run(next, "M", 4), change::run(next, "L", 1); });
    double metres = 0;
    const auto patterns = draftAll(d);
    for (const auto& m : makeMarkers({{&patterns[1], 4}, {&patterns[2], 1}}))
        if (m.material == MaterialId("canvas-12"))
            metres = m.length / 1000;
    CHECK(of(purchases(d), "canvas-12").needed == Approx(metres));
    CHECK(of(purchases(d), "canvas-12").buy == Approx(std::ceil(metres * 10 - 1e-9) / 10));
    give<Material>(d, "canvas-12", [](Material& m) { m.sold = 914.4, m.price = 0, m.stock = 1; }); // by the yard
    const Purchase yards = of(purchases(d), "canvas-12");
    CHECK(yards.buy == Approx(std::ceil((metres - 1) / 0.9144 - 1e-9) * 0.9144));
    CHECK(yards.cost == 0);
    setChoice(d, "washing", "before"); // canvas loses 5 %
    CHECK(of(purchases(d), "canvas-12").needed == Approx(metres / 0.95).epsilon(0.02));
}

TEST_CASE("Purchases: on every form with every part nothing is forgotten and nothing counted twice")
{
    int seen = 0;
    forEveryDesign([&](const std::string& name, const Design& design) {
        INFO(name);
        Design d = design;
        d.run = {{"S", 1}, {"M", 2}};
        const auto patterns = draftAll(d);
        double pieces = 0, bought = 0, length = 0, cloth = 0;
        for (const auto& p : patterns) {
            const int bags = p.size == "S" ? 1 : p.size == "M" ? 2 : 0;
            for (const auto& h : notionsOf(p))
                (byTheMetre(h.kind) ? length : pieces) += h.kind == Ware::Thread ? 0
                    : byTheMetre(h.kind)                                         ? bags * h.count * h.size / 1000
                                                                                 : bags * h.count;
        }
        for (const auto& m : makeMarkers({{&patterns[0], 1}, {&patterns[1], 2}}))
            cloth += m.length / (1 - m.shrinks / 100) / 1000;
        for (const auto& p : purchasesFor(d, pointers(patterns))) {
            CHECK(p.buy >= p.needed - p.stock - 1e-9);
            CHECK(p.buy < p.needed - p.stock + p.pack + 1e-9);
            CHECK(p.cost == Approx(p.buy * p.price));
            double sizes = 0;
            for (const auto& [size, needed] : p.bySize)
                sizes += needed;
            CHECK(sizes == Approx(p.needed));
            if (p.ware == Ware::Needle || byTheGram(p.ware))
                continue; // what is used up: consumables_test.cpp
            if (!p.cloth.empty())
                cloth -= p.needed;
            else if (p.unit == Purchase::Unit::Pieces)
                bought += p.needed;
            else if (p.ware != Ware::Thread)
                length -= p.needed;
        }
        CHECK(bought == Approx(pieces));
        CHECK(length == Approx(0).margin(1e-6));
        CHECK(cloth == Approx(0).margin(1e-6));
        ++seen;
    });
    CHECK(seen > 300);
}

TEST_CASE("Purchases: the run is the design's own, follows new names of sizes, and absurd numbers are refused")
{
    Design d = newDesign("flat-pouch");
    assign(d, "run.M=7");
    CHECK(designFromText(designText(d), "again").run == std::map<std::string, int>{{"M", 7}});
    setSizes(d, {"S", "Middle", "L"}, "Middle");
    CHECK(d.run == std::map<std::string, int>{{"Middle", 7}});
    setSizes(d, {"S", "L"}, "S");
    CHECK(d.run.empty());
    CHECK_THROWS_WITH(assign(d, "run.XXL=2"), Contains("XXL"));
    CHECK_THROWS_WITH(assign(d, "run.S=-1"), Contains("run S"));
    CHECK_THROWS_WITH(assign(d, "run.S=1000000"), Contains("10"));
    CHECK(d.run.empty());
    assign(d, "run.S=2");
    assign(d, "run.S=0");
    CHECK(d.run.empty());
}

TEST_CASE("Purchases: what the studio has in stock is not carried by designs, nor told as a newer value")
{
    Design d = newDesign("large-tote");
    give<Material>(d, "canvas-12", [](Material& m) { m.stock = 12, m.lead = 5, m.gsm = 411; });
    const std::string file = designText(d);
    CHECK_THAT(file, Contains("411"));
    CHECK_THAT(file, !Contains("\"stock\": 12"));
    CHECK_THAT(file, !Contains("\"lead\""));
    const Design read = readDesign(file, "again").design;
    CHECK(read.library->material("canvas-12").gsm == 411);
    CHECK(read.library->material("canvas-12").stock == 0);
    // The studio's own stock lies over it.
    Library::Contents mine = Library::builtIn()->contents();
    for (auto& m : mine.materials)
        if (m.id == "canvas-12")
            m.stock = 3, m.lead = 8;
    const Design here = readDesign(file, "again", Library(mine)).design;
    CHECK(here.library->material("canvas-12").gsm == 411);
    CHECK(here.library->material("canvas-12").stock == 3);
    for (const auto& newer : newerValues(here, Library(mine)))
        CHECK(words(newer.field) == "Weight");
}

TEST_CASE("Purchases: a ring that is told by its outside is taken for the strap that passes inside")
{
    Library::Contents all;
    Good ring{.id = "ring-44", .name = "Ring, 44 outside", .kind = "ring", .width = 44};
    ring.measured = "outside", ring.wire = 3;
    all.goods = {ring};
    const Library library(all);
    CHECK(library.good(Ware::Ring, 38, 0, 0) != nullptr);
    CHECK(library.good(Ware::Ring, 44, 0, 0) == nullptr);
    ring.wire = 22;
    CHECK_THAT(words(completed(ring)), Contains("no room inside"));
}

TEST_CASE("Purchases: another cloth is taken wherever the design has the one; what changes is told")
{
    Design d = newDesign("gusseted-satchel");
    const auto patterns = draftAll(d);
    const auto others = substitutesFor(patterns[1], of(purchases(d), "canvas-12"));
    REQUIRE(others.size() >= 3);
    const auto waxed = std::find_if(
        others.begin(), others.end(), [](const Substitute& s) { return s.entry == "waxed-canvas"; });
    REQUIRE(waxed != others.end());
    std::string said;
    for (const auto& change : waxed->changes)
        said += words(change) + "; ";
    CHECK_THAT(
        said, Contains("0.05 mm thinner") && Contains("does not bear the iron") && Contains("6.5 a unit dearer"));
    edit(d, [](Design& next) { change::exchangeMaterial(next, "canvas-12", "waxed-canvas"); });
    CHECK(d.materials.at("shell") == "waxed-canvas");
    CHECK_THROWS_WITH(
        edit(d, [](Design& next) { change::exchangeMaterial(next, "canvas-12", "denim-10"); }), Contains("canvas-12"));
    const auto zips = substitutesFor(patterns[1], of(purchases(d), Ware::Zip));
    REQUIRE(zips.size() == 2);
    CHECK_THAT(words(zips.back().changes.front()), Contains("metal instead of coil"));
    const auto waxedNow = draftAll(d);
    CHECK_THAT(purchasesCsv(d, pointers(waxedNow)), Contains("Waxed canvas") && Contains("spools"));
}

TEST_CASE(
    "Purchases: a thing taken by name is bought wherever it fits, in its order; what does not fit is the library's")
{
    Design d = newDesign("gusseted-satchel");
    Library::Contents all = d.library->contents();
    all.goods.push_back({.id = "ring-any", .name = "Ring, any", .kind = "ring", .make = "brass", .price = 2});
    all.goods.push_back(
        {.id = "ring-wide", .name = "Ring, 50", .kind = "ring", .make = "brass", .width = 50, .price = 3});
    d.library = SharedLibrary(Library(std::move(all)));
    CHECK(of(purchases(d), Ware::Ring).entry == "ring-steel");
    // Offered beside what is bought, with what changes.
    const auto patterns = draftAll(d);
    const auto others = substitutesFor(patterns[1], of(purchases(d), Ware::Ring));
    const auto offered = std::find_if(
        others.begin(), others.end(), [](const Substitute& s) { return s.entry == "ring-any"; });
    REQUIRE(offered != others.end());
    CHECK(offered->inDesign);
    edit(d, [](Design& next) { change::takeGood(next, "ring-wide"); });
    CHECK(of(purchases(d), Ware::Ring).entry == "ring-steel"); // it is too wide for this strap
    edit(d, [](Design& next) { change::takeGood(next, "ring-any"); });
    CHECK(of(purchases(d), Ware::Ring).entry == "ring-any");
    CHECK(of(purchases(d), Ware::Slider).entry == "slider-steel");
    double ring = 0;
    for (const auto& n : costOf(d, draftAll(d)[1]).notions)
        if (n.bought.kind == Ware::Ring)
            ring = n.cost;
    CHECK(ring == Approx(2 * 2));
    // Kept in the file, forgotten again, and unknown elsewhere: told, not lost.
    const Design again = readDesign(designText(d), "file", *d.library).design;
    CHECK(again.goods == std::vector<std::string>{"ring-any", "ring-wide"});
    Design elsewhere = again;
    elsewhere.library = newDesign("gusseted-satchel").library;
    int told = 0;
    for (const auto& f : checkAll(elsewhere, draftAll(elsewhere)))
        told += f.check == "library" && f.severity == Severity::Note && f.size == "M";
    CHECK(told == 2);
    CHECK(of(purchases(elsewhere), Ware::Ring).entry == "ring-steel");
    edit(d, [](Design& next) { change::leaveGood(next, "ring-any"); });
    CHECK(of(purchases(d), Ware::Ring).entry == "ring-steel");
    CHECK_THROWS_WITH(change::leaveGood(d, "ring-any"), Contains("not taken by name"));
    CHECK_THROWS_WITH(change::takeGood(d, "ring-of-saturn"), Contains("no such thing"));
    assign(d, "good.ring-any=yes");
    CHECK(d.goods.front() == "ring-any");
}

TEST_CASE("Purchases: metal of two finishes is noted, and made one in one stroke each")
{
    Design d = newDesign("gusseted-satchel");
    const auto mixed = [&] {
        Findings out;
        for (auto& f : checkAll(d, draftAll(d)))
            if (f.check == "finish" && f.size == "M")
                out.push_back(std::move(f));
        return out;
    };
    CHECK(mixed().empty());
    change::takeGood(d, "ring-brass");
    Findings all = mixed();
    CHECK(!all.empty());
    for (int round = 0; round < 10 && !all.empty(); ++round, all = mixed()) {
        CHECK_THAT(words(all.front().text), Contains("of steel, D-ring, brass of brass"));
        REQUIRE(all.front().repair);
        for (const auto& a : all.front().repair->assignments)
            assign(d, a);
    }
    CHECK(all.empty());
    CHECK(of(purchases(d), Ware::Slider).entry == "slider-brass");
}
