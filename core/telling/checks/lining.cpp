// SPDX-License-Identifier: GPL-3.0-or-later
// A lining hangs inside the shell and must be smaller than it, or it bags out.
#include "checks/finding.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kTakenUp = 0.025; // share of its girth that a lining may be too large (common practice, no source)

} // namespace

void checkLining(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    const ChoiceSpec* fit = in.spec.choice("lining.fit");
    for (const auto& w : p.workings) {
        if (w.key != "lining.slack" || !fit)
            continue;
        const auto room = std::find_if(
            w.inputs.begin(), w.inputs.end(), [](const auto& i) { return i.name == "room"; });
        if (room == w.inputs.end() || -w.result <= kTakenUp * room->value)
            continue;
        const auto offers = [&](const char* way) {
            return std::any_of(fit->options.begin(), fit->options.end(), [&](const auto& o) { return o.first == way; });
        };
        const char* way = offers("smaller") ? "smaller" : "wider-seam";
        const bool already = p.choices.at("lining.fit") == way;
        Finding f{Severity::Warning, "lining-slack", "", say("Lining"), w.subject.text(), "Build-up",
            say("once round it is {} larger than the room inside the shell's wall ({}). It will hang in wrinkles and "
                "show at the mouth. Draft it smaller, or sew it with a wider seam below.",
                Len(-w.result), Len(room->value)),
            {}};
        if (!already)
            f.repair = offers("smaller") ? Repair{say("Draft the lining smaller"), {"lining.fit=smaller"}}
                                         : Repair{say("Sew the lining with a wider seam"), {"lining.fit=wider-seam"}};
        out.push_back(std::move(f));
    }
}

} // namespace tectonis
