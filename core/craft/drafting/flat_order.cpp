// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/flat_order.hpp"

#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

using Verb = Act::Verb;

const WorkId kHalves{"halves"};

/// Puts @p made in the place of all of @p parts that the step takes.
void replace(std::vector<WorkId>& consumes, const std::set<WorkId>& parts, const WorkId& made)
{
    const auto gone = std::erase_if(consumes, [&](const WorkId& part) { return parts.contains(part); });
    if (gone > 0 && std::find(consumes.begin(), consumes.end(), made) == consumes.end())
        consumes.insert(consumes.begin(), made);
}

/// Understitched 2 mm from the seam on the lining (common practice, no source).
Step mouthStep(const Seam& mouth, const std::set<WorkId>& walls, const std::set<WorkId>& linings)
{
    Step step{.id = "mouth",
        .title = say("Sew the mouth flat, each wall to its lining"),
        .acts = {{.verb = Verb::JoinCoats, .seams = {"mouth"}}, act::press({"mouth"}, Act::To::Second),
            act::saying(act::topstitch({"mouth"}, 2, Act::To::Second),
                say("The row goes through lining and allowances alone."))},
        .kind = StepKind::Seam,
        .phase = "Joining",
        .yields = kHalves,
        .check = say("The lining rolls in by itself when it is folded behind the wall.")};
    for (const auto* side : {&mouth.a, &mouth.b})
        for (const auto& piece : piecesOf(*side))
            step.pieces.push_back(piece);
    step.consumes.assign(walls.begin(), walls.end());
    step.consumes.insert(step.consumes.end(), linings.begin(), linings.end());
    return step;
}

} // namespace

std::pair<std::string, std::string> flatOrderOption() { return {"flat", "Mouth first, flat"}; }

bool mouthFirst(const Drafter& d)
{
    const auto assembly = d.pattern.choices.find("assembly");
    return assembly != d.pattern.choices.end() && assembly->second == "flat";
}

void sewMouthFlat(Drafter& d)
{
    const auto mouth = std::find_if(
        d.pattern.seams.begin(), d.pattern.seams.end(), [](const Seam& s) { return s.key == "mouth"; });
    mouth->flat = true;
    std::set<WorkId> walls, linings;
    for (const auto& piece : piecesOf(mouth->a))
        walls.insert(piece);
    for (const auto& piece : piecesOf(mouth->b))
        linings.insert(piece);
    std::erase_if(d.steps, [](const Step& s) { return s.id == "mouth" || s.id == "mouth.topstitch"; });

    const auto assembles = [](const Step& s, const std::set<WorkId>& parts) {
        return s.kind != StepKind::Flat && !parts.contains(s.yields)
            && std::any_of(s.consumes.begin(), s.consumes.end(), [&](const WorkId& w) { return parts.contains(w); });
    };
    const auto firstOf = [&](const std::set<WorkId>& parts) {
        return std::find_if(d.steps.begin(), d.steps.end(), [&](const Step& s) { return assembles(s, parts); });
    };
    const auto sides = firstOf(walls), inner = firstOf(linings);
    // From here on all is one thing: what follows takes it up where it took up walls and linings.
    for (auto step = sides; step != d.steps.end(); ++step) {
        replace(step->consumes, walls, kHalves);
        replace(step->consumes, linings, "shell");
        if (step->phase == "Shell assembly" || step->phase == "Lining")
            step->phase = "Joining";
        if (step->yields == WorkId("lining"))
            step->yields = "bag";
    }
    const auto tell = [](Step& step, Message more) {
        const auto sews = std::find_if(
            step.acts.begin(), step.acts.end(), [](const Act& act) { return act.verb == Verb::Sew; });
        step.acts.insert(sews, act::note(std::move(more)));
    };
    tell(*sides,
        say("Open the walls away from their linings: shell lies on shell and lining on lining, the seams of the "
            "mouth meet."));
    tell(*inner, say("The rows at the sides begin where those of the shell end, across the mouth's seam."));
    d.steps.insert(sides, gathered(d.pattern, mouthStep(*mouth, walls, linings)));
}

void bridgeWalls(Drafter& d, Step step)
{
    const auto mouth = std::find_if(d.steps.begin(), d.steps.end(), [](const Step& s) { return s.id == "mouth"; });
    const std::set<WorkId> walls(step.consumes.begin(), step.consumes.end());
    replace(mouth->consumes, walls, kHalves);
    step.yields = kHalves;
    d.steps.insert(mouth, gathered(d.pattern, std::move(step)));
}

} // namespace tectonis
