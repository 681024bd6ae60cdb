// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/cost.hpp"

#include "sequence/minutes.hpp"

namespace tectonis {

const Good* goodFor(const Library& library, const Hardware& h, const std::vector<std::string>& taken)
{
    const bool zip = h.kind == Ware::Zip, thread = h.kind == Ware::Thread;
    return library.good(
        h.kind, zip || thread || byTheMetre(h.kind) ? 0 : h.size, zip ? h.size : 0, h.gauge, taken, h.make);
}

namespace {

Cost::Notion priced(const Library& library, const Hardware& h, const std::vector<std::string>& taken)
{
    Cost::Notion out{h, nullptr, 0};
    const bool thread = h.kind == Ware::Thread, byLength = byTheMetre(h.kind);
    out.good = goodFor(library, h, taken);
    if (!out.good)
        return out;
    const double each = byLength ? h.size / 1000 : thread && out.good->length > 0 ? h.size / out.good->length : 1;
    out.cost = h.count * each * out.good->price;
    return out;
}

} // namespace

Cost costOf(const Design& design, const Pattern& pattern)
{
    Cost out;
    out.minutes = minutesOf(pattern);
    for (const auto& t : design.trials)
        if (t.size == pattern.size && t.minutes > 0)
            out.minutes = t.minutes;
    for (const auto& m : makeMarkers(pattern))
        out.cloth += m.cost;
    for (const auto& h : notionsOf(pattern)) {
        out.notions.push_back(priced(*pattern.library, h, design.goods));
        out.notionsCost += out.notions.back().cost;
    }
    for (const auto& used : consumablesOf(pattern)) {
        const Good* good = pattern.library->good(used.kind, used.size, 0, 0, design.goods);
        out.usedUp.push_back({used, good, good ? used.amount * good->price : 0});
        out.notionsCost += out.usedUp.back().cost;
    }
    const Workshop& w = pattern.workshop;
    out.labour = out.minutes / 60 * w.labourRate;
    out.overhead = (out.cloth + out.notionsCost + out.labour) * w.overhead / 100;
    return out;
}

} // namespace tectonis
