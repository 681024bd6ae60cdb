// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/cost_sheet.hpp"

#include "text/csv.hpp"

#include <fmt/format.h>

namespace tectonis {

std::string costCsv(
    const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language)
{
    std::string out;
    const auto row = [&](const Message& size, const Message& what, const Message& count, const Message& measure,
                         const Message& by, const Message& money) {
        std::vector<std::string> cells;
        for (const Message* cell : {&size, &what, &count, &measure, &by, &money})
            cells.push_back(words(*cell, unit, language));
        out += csvLine(cells);
    };
    const auto money = [&](double v) { return naming(language.fixed(v, 2)); };
    row(say("Size"), say("What"), say("Count"), say("Measure"), say("Priced by"), say("Cost"));
    for (const Pattern* p : patterns) {
        const Message size = naming(p->size);
        const Cost cost = costOf(design, *p);
        for (const auto& m : makeMarkers(*p)) {
            const Material& cloth = p->material(m.material);
            row(size, naming(cloth.name), {}, say("{} m", Num(m.soldLength / 1000, 1)),
                say("{} a metre", Num(cloth.price, 2)), money(m.cost));
        }
        for (const auto& n : cost.notions)
            row(size, labelled(called(n.bought.kind)), say("{}", n.bought.count), n.bought.sizeText,
                n.good ? naming(n.good->name) : say("not in the library"), n.good ? money(n.cost) : Message());
        for (const auto& used : cost.usedUp)
            row(size, labelled(called(used.what.kind)), {},
                byTheGram(used.what.kind) ? say("{} g", Num(used.what.amount, 1))
                                          : say("{}, {} of one", used.what.sizeText, Num(used.what.amount, 2)),
                used.good ? naming(used.good->name) : say("not in the library"),
                used.good ? money(used.cost) : Message());
        const Workshop& w = p->workshop;
        row(size, say("Labour"), {}, say("{} min", Num(cost.minutes, 0)), say("{} an hour", Num(w.labourRate, 2)),
            money(cost.labour));
        row(size, say("Overhead"), {}, {}, say("{} %", Num(w.overhead)), money(cost.overhead));
        row(size, say("In all"), {}, {}, {}, money(cost.whole()));
    }
    return out;
}

} // namespace tectonis
