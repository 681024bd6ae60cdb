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
        for (const auto& rule : layerRulesFor(d.design, {piece.role, piece.key}))
            if (rule.area.empty())
                stack += d.pattern.material(rule.material).underFoot();
    }
    const double post = d.work({subject, key.sub("post"), "Rivet post at least", "stack + 2.5", {{"stack", stack}}, 0,
        Working::Kind::Trade, "mm", "all layers, compressed, and {2} to {3} to set it"});
    const double offered = std::max(post, d.pattern.library->snapped("rivet", post));
    const double sold = d.work({subject, key.sub("stock"), "Rivet post to buy", "offered", {{"offered", offered}}, 0,
        Working::Kind::Trade, "mm", "the next length that is sold"});
    d.pattern.hardware.push_back({"Rivet", count, head, lengthToken(head) + " head, " + lengthToken(sold) + " post",
        "one finish for all metal"});
    return sold;
}

} // namespace tectonis
