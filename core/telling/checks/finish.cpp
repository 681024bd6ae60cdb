// SPDX-License-Identifier: GPL-3.0-or-later
// All metal that shows on a bag is in one finish.
#include "checks/finding.hpp"
#include "cutting/cost.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

bool shows(Ware ware)
{
    switch (ware) {
    case Ware::Ring:
    case Ware::Slider:
    case Ware::WebbingSlider:
    case Ware::SwivelHook:
    case Ware::HookAndRing:
    case Ware::Rivet:
    case Ware::Foot:
    case Ware::TurnLock:
    case Ware::TuckLock: return true;
    default: return false;
    }
}

} // namespace

void checkFinish(const CheckInput& in, Findings& out)
{
    std::map<std::string, std::pair<const Good*, Hardware>> used; // by id
    for (const auto& thing : in.pattern.hardware)
        if (const Good* good = shows(thing.kind) ? goodFor(*in.pattern.library, thing, in.design.goods) : nullptr;
            good && !good->make.empty())
            used.try_emplace(good->id, good, thing);
    if (used.empty())
        return;
    // What was taken by name says the finish.
    const auto named = std::find_if(
        in.design.goods.begin(), in.design.goods.end(), [&](const std::string& id) { return used.contains(id); });
    const Good& first = *(named == in.design.goods.end() ? used.begin()->second.first : used.at(*named).first);
    for (const auto& [id, each] : used) {
        const auto& [good, thing] = each;
        if (good->make == first.make)
            continue;
        Finding f{Severity::Note, "finish", "", naming(good->name), id, "Cut",
            say("it is of {}, {} of {}. All metal that shows on a bag is in one finish.", naming(good->make),
                naming(first.name), naming(first.make)),
            {}};
        for (const auto& g : in.pattern.library->goods()) {
            if (g.kind != good->kind || g.make != first.make)
                continue;
            if (const Good* then = goodFor(*in.pattern.library, thing, {g.id}); then && then->id == g.id) {
                f.repair = Repair{say("Take {}", naming(g.name)), {"good." + g.id + "=yes"}};
                break;
            }
        }
        out.push_back(std::move(f));
    }
}

} // namespace tectonis
