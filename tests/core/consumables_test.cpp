// SPDX-License-Identifier: GPL-3.0-or-later
// Needles, adhesive and edge paint: how much one bag and a run of bags take, by hand.
#include "drawn.hpp"
#include "every_design.hpp"

#include "buildup/layers.hpp"
#include "cutting/consumables.hpp"
#include "cutting/cost.hpp"
#include "cutting/purchases.hpp"
#include "library/ware.hpp"

#include <set>

using namespace tectonis;

namespace {

double amount(const Pattern& p, Ware kind)
{
    double out = 0;
    for (const auto& used : consumablesOf(p))
        out += used.kind == kind ? used.amount : 0;
    return out;
}

} // namespace

TEST_CASE("Consumables: needles by the numbers that the steps tell, worn by their minutes")
{
    forEveryDesign([](const std::string& name, const Design& d) {
        INFO(name);
        const Pattern p = medium(d);
        std::set<int> told_;
        double minutes = 0;
        for (const auto& step : p.steps)
            if (const int number = told(p, step).needle; number > 0)
                told_.insert(number), minutes += minutesOf(p, step).result;
        std::set<int> bought;
        for (const auto& used : consumablesOf(p))
            if (used.kind == Ware::Needle)
                bought.insert(int(std::lround(used.size * 100))); // the blade in hundredths of a millimetre
        CHECK(bought == told_);
        CHECK(amount(p, Ware::Needle) == Approx(minutes / 480)); // eight hours; common practice, no source
    });
}

TEST_CASE("Consumables: adhesive by what is glued, edge paint by the painted edge; a run sums them up")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern p = medium(d);
    double glued = 0;
    for (const auto& piece : p.pieces)
        for (const auto& layer : piece.layers)
            if (layer.fixing == "glued") {
                const Box b = boundsOf(layer.outline); // patches are rectangles
                glued += piece.count * b.width() * b.height();
            }
    REQUIRE(glued > 0);
    // 300 g/m²: 150 on each side (common practice, no source).
    CHECK(amount(p, Ware::Adhesive) == Approx(glued / 1e6 * 300));
    CHECK(amount(p, Ware::EdgePaint) == 0);
    setChoice(d, "flap.edge", "raw");
    const Pattern painted = medium(d);
    const Piece& flap = *painted.piece("flap.outer");
    double edge = 0;
    for (const auto& e : flap.edges)
        edge += e.allowance < 0.01 ? lengthOf(e.stitch) : 0;
    CHECK(edge > 2 * painted.values.at("flap.length") * 0.6);
    const double thick = 2 * thicknessOf(painted, flap);
    // Length × thickness × 0.3 mm, twice, at 1.1 g/ml.
    CHECK(amount(painted, Ware::EdgePaint) == Approx(edge * thick * 0.3 * 2 / 1000 * 1.1));
    d.run = {{"M", 40}};
    const auto patterns = draftAll(d);
    bool adhesive = false, paint = false, needle = false;
    for (const auto& bought : purchasesFor(d, {&patterns[0], &patterns[1], &patterns[2]})) {
        if (bought.ware == Ware::Adhesive && bought.cloth.empty()) {
            adhesive = true;
            CHECK(bought.unit == Purchase::Unit::Grams);
            CHECK(bought.needed == Approx(40 * amount(patterns[1], Ware::Adhesive)));
            CHECK(std::fmod(bought.buy, 250) == Approx(0)); // in tins
        }
        if (bought.ware == Ware::EdgePaint && bought.cloth.empty())
            paint = true;
        if (bought.ware == Ware::Needle && bought.cloth.empty()) {
            needle = true;
            CHECK(std::fmod(bought.buy, 5) == Approx(0)); // in fives
            CHECK(bought.buy >= bought.needed);
        }
    }
    CHECK((adhesive && paint && needle));
    CHECK(costOf(d, patterns[1]).notionsCost > 0);
}
