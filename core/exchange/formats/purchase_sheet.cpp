// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/purchase_sheet.hpp"

#include "text/csv.hpp"

#include <cmath>

namespace tectonis {

std::string purchasesCsv(
    const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language)
{
    std::string out;
    const auto row = [&](std::initializer_list<Message> cells) {
        std::vector<std::string> line;
        for (const Message& cell : cells)
            line.push_back(words(cell, unit, language));
        out += csvLine(line);
    };
    const auto number = [&](double v, int digits) { return naming(language.fixed(v, digits)); };
    const auto unitOf = [](Purchase::Unit each) {
        return each == Purchase::Unit::Metres ? say("metres")
            : each == Purchase::Unit::Spools  ? say("spools")
            : each == Purchase::Unit::Grams   ? say("g")
                                              : say("pieces");
    };
    row({say("What"), say("Size"), say("Finish"), say("Unit"), say("Needed"), say("In stock"), say("Buy"),
        say("A unit"), say("Cost"), say("Arrives in, days")});
    for (const auto& p : purchasesFor(design, patterns)) {
        const int digits = p.unit == Purchase::Unit::Pieces && p.needed == std::floor(p.needed) ? 0 : 2;
        row({p.what, p.size, p.finish, unitOf(p.unit), number(p.needed, digits), number(p.stock, digits),
            number(p.buy, digits), p.entry.empty() ? say("not in the library") : number(p.price, 2), number(p.cost, 2),
            number(p.lead, 0)});
    }
    return out;
}

} // namespace tectonis
