// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/load.hpp"

#include "buildup/layers.hpp"
#include "cutting/cost.hpp"
#include "cutting/cut_list.hpp"
#include "sequence/minutes.hpp"

namespace tectonis {

Working Load::bagWorking(const SubjectId& subject) const
{
    return {subject, "weight", say("Weight"), "cloth + fittings + thread",
        {{"cloth", cloth}, {"fittings", fittings}, {"thread", thread}}, bag(), Working::Kind::Geometry, "g",
        unknown == 0
            ? say("cloth: and layers; fittings: metal, zips and what else is bought, as the library says; thread: its "
                  "length by its Tex number")
            : say("cloth: and layers; fittings: as the library says; kinds of bought things of unknown weight: {}",
                long(unknown))};
}

Working Load::working(const SubjectId& subject) const
{
    return {subject, "load", say("Weight carried"), "bag + things", {{"bag", bag()}, {"things", things}},
        bag() + things, Working::Kind::Geometry, "g",
        unweighed == 0 ? say("the bag, and all that is carried in it")
                       : say("the bag, and what is carried in it; things of unknown weight: {}", long(unweighed))};
}

Load loadOf(const Design& design, const Pattern& pattern)
{
    Load out;
    for (const auto& piece : pattern.pieces)
        out.cloth += weightOf(pattern, piece);
    for (const auto& bought : notionsOf(pattern)) {
        if (bought.kind == Ware::Thread)
            continue;
        const Good* good = goodFor(*pattern.library, bought, design.goods);
        const bool byLength = byTheMetre(bought.kind) || bought.kind == Ware::Zip;
        good && good->weight > 0
            ? void(out.fittings += bought.count * good->weight * (byLength ? bought.size / 1000 : 1))
            : void(++out.unknown);
    }
    for (const auto& use : threadsOf(pattern))
        out.thread += use.length / 1e6 * use.tex;
    for (const auto& thing : design.carried)
        thing.weight > 0 ? void(out.things += thing.weight) : void(++out.unweighed);
    return out;
}

} // namespace tectonis
