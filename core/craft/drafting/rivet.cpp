// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/rivet.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {

double addRivets(Drafter& d, const SubjectId& subject, const WorkingId& key, int count, double head,
    const std::vector<Pierced>& through)
{
    double stack = 0;
    for (const auto& piece : through) {
        stack += d.pattern.material(d.pattern.materials.at(piece.material)).underFoot();
        for (const LayerRule* rule : layerRulesFor(d.design, {piece.role, piece.key}))
            if (rule->area.empty())
                stack += d.pattern.material(rule->material).underFoot();
    }
    const double post = d.work({subject, key.sub("post"), say("Rivet post at least"), "stack + 2.5", {{"stack", stack}},
        0, Working::Kind::Trade, "mm", say("all layers, compressed, and {} to {} to set it", Len(2), Len(3))});
    const double offered = std::max(post, d.pattern.library->snapped("rivet", post));
    const double sold = d.work({subject, key.sub("stock"), say("Rivet post to buy"), "offered", {{"offered", offered}},
        0, Working::Kind::Trade, "mm", say("the next length that is sold")});
    d.pattern.hardware.push_back(
        {Ware::Rivet, count, head, say("{} head, {} post", Len(head), Len(sold)), say("one finish for all metal")});
    return sold;
}

} // namespace tectonis
