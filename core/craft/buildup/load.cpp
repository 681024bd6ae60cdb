// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/load.hpp"

#include "buildup/layers.hpp"

namespace tectonis {

Working Load::working(const SubjectId& subject) const
{
    return {subject, "load", say("Weight carried"), "bag + things", {{"bag", bag}, {"things", things}}, bag + things,
        Working::Kind::Geometry, "g",
        unweighed == 0 ? say("cloth and layers, and all that is carried; metal, zips and thread come to it")
                       : say("cloth and layers, and what is carried; things of unknown weight: {}", long(unweighed))};
}

Load loadOf(const Design& design, const Pattern& pattern)
{
    Load out;
    for (const auto& piece : pattern.pieces)
        out.bag += weightOf(pattern, piece);
    for (const auto& thing : design.carried)
        thing.weight > 0 ? void(out.things += thing.weight) : void(++out.unweighed);
    return out;
}

} // namespace tectonis
