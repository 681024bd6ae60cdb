// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/seam_care.hpp"

#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"

#include <algorithm>

namespace tectonis {
namespace {

using Verb = Act::Verb;

constexpr double kGraded = 3; // mm that are left of a graded allowance (common practice, no source)

bool handles(const Act& act, const SeamId& seam)
{
    return std::find(act.seams.begin(), act.seams.end(), seam) != act.seams.end();
}

/// The act is done at this seam alone; what it says of others stays theirs.
std::vector<Act>::iterator alone(std::vector<Act>& acts, std::vector<Act>::iterator act, const SeamId& seam)
{
    if (act->seams.size() == 1)
        return act;
    Act own = *act;
    own.seams = {seam};
    own.note = {};
    std::erase(act->seams, seam);
    return acts.insert(act + 1, std::move(own));
}

void pressOpen(Drafter& d, const SeamId& seam, std::vector<Act>& sewing, std::ptrdiff_t sewn)
{
    bool pressed = false;
    for (auto& step : d.steps)
        for (std::size_t i = 0; i < step.acts.size(); ++i) {
            const auto act = step.acts.begin() + std::ptrdiff_t(i);
            if ((act->verb != Verb::Press && act->verb != Verb::Topstitch) || !handles(*act, seam)
                || act->to == Act::To::Open)
                continue;
            pressed |= act->verb == Verb::Press;
            alone(step.acts, act, seam)->to = Act::To::Open; // a row on both sides then
        }
    if (!pressed)
        sewing.insert(sewing.begin() + sewn + 1, act::press({seam}, Act::To::Open));
}

void careFor(Drafter& d, Seam& seam, SeamCare care)
{
    care.graded = care.graded && whyNotGraded(d.pattern, seam).empty();
    care.open = care.open && whyNotOpened(d.pattern, seam).empty();
    for (auto& step : d.steps) {
        const auto sewn = std::find_if(step.acts.begin(), step.acts.end(),
            [&](const Act& act) { return (act::joins(act) || act.verb == Verb::Hem) && handles(act, seam.key); });
        if (sewn == step.acts.end())
            continue;
        seam.care = care;
        const auto at = sewn - step.acts.begin();
        const auto act = [&] { return step.acts.begin() + at; };
        if (care.open)
            pressOpen(d, seam.key, step.acts, at);
        if (care.graded)
            step.acts.insert(act() + 1, Act{.verb = Verb::Stagger, .seams = {seam.key}, .distance = kGraded});
        if (care.hammered)
            step.acts.insert(act(), Act{.verb = Verb::Hammer, .seams = {seam.key}});
        return;
    }
}

} // namespace

void careForEnds(Drafter& d)
{
    for (const auto& [key, care] : d.design.endCare) {
        const auto piece = std::find_if(d.pattern.pieces.begin(), d.pattern.pieces.end(),
            [&, key = key](const Piece& each) { return each.key.text() == key; });
        if (piece == d.pattern.pieces.end())
            continue;
        for (auto& step : d.steps) {
            const auto act = std::find_if(step.acts.begin(), step.acts.end(),
                [&](const Act& each) { return sewsEnds(each) && each.pieces.front() == piece->key; });
            if (act == step.acts.end())
                continue;
            piece->endsHammered = care.hammered, piece->endsByHand = care.byHand;
            if (care.hammered)
                step.acts.insert(act, Act{.verb = Verb::Hammer, .pieces = {piece->key}});
        }
    }
}

void careForSeams(Drafter& d)
{
    for (auto& seam : d.pattern.seams)
        if (const auto care = d.design.seamCare.find(seam.key.text()); care != d.design.seamCare.end())
            careFor(d, seam, care->second);
    for (const auto& step : d.steps) {
        // Joins of strips are pressed open before the strip is folded, but for those that are lapped flat.
        const bool strips = std::any_of(step.acts.begin(), step.acts.end(),
            [](const Act& act) { return act.verb == Verb::JoinStrips && act.taken == 0; });
        for (const auto& act : step.acts) {
            if (act.verb == Verb::Grade)
                for (auto& seam : d.pattern.seams)
                    seam.graded = seam.graded || handles(act, seam.key);
            if ((act.verb == Verb::Press && act.to == Act::To::Open) || (strips && act.verb == Verb::FoldStrip))
                for (auto& seam : d.pattern.seams)
                    seam.pressedOpen = seam.pressedOpen || handles(act, seam.key);
        }
    }
}

} // namespace tectonis
