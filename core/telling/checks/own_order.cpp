// SPDX-License-Identifier: GPL-3.0-or-later
// What a designer wrote into the order of work: wishes that cannot be kept, words whose facts have changed, steps that
// are gone.
#include "checks/finding.hpp"

#include "pattern/act_words.hpp"
#include "sequence/order.hpp"
#include "sequence/told.hpp"

namespace tectonis {
namespace {

void gone(const CheckInput& in, const std::string& id, const Message& what, Findings& out)
{
    if (!in.pattern.step(id))
        out.push_back({Severity::Note, "own-order", "", say("Step “{}”", id), "", "Sequence",
            say("{}, but this bag has no such step now. It is kept, and holds again when the step is back.", what),
            {}});
}

} // namespace

void checkOwnOrder(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    for (const auto& vain : vainWishes(in.design, p)) {
        Message chain;
        for (const auto i : vain.chain)
            chain = chain.empty() ? say("“{}”", p.steps[i].title) : say("{}, then “{}”", chain, p.steps[i].title);
        const Message& first = p.steps[vain.chain.back()].title;
        out.push_back({Severity::Warning, "own-order", "", say("Wish about “{}”", first), p.steps[vain.chain.back()].id,
            "Sequence",
            vain.byWishes ? say(
                "your wishes go round in a circle: {} – and that before the first again. This one is not kept.", chain)
                          : say("it cannot come before “{}”: the work asks for {}. The wish is not kept.",
                              p.steps[vain.chain.front()].title, chain),
            {}});
    }
    for (const auto& w : in.design.wishes)
        for (const auto& id : {w.first, w.then})
            gone(in, id, say("a wish is about it"), out);
    for (const auto& split : in.design.splits) {
        gone(in, split.step, say("it is divided"), out);
        const auto divided = [&](const Step& step) {
            return !step.goesOnFrom.empty() && step.id.text().starts_with(split.step + "/" + split.verb);
        };
        if (p.step(split.step) && std::none_of(p.steps.begin(), p.steps.end(), divided))
            out.push_back({Severity::Note, "own-order", "", say("Step “{}”", p.step(split.step)->title),
                p.step(split.step)->id, "Sequence",
                say("it was divided where something is done that it does not hold now. The division is kept, and holds "
                    "again when that is back."),
                {}});
    }
    for (const auto& each : in.design.joined)
        for (const auto& id : {each.first, each.then})
            gone(in, id, say("it is told as one with another"), out);
    const auto order = orderOf(in.design, p);
    for (const auto& [first, then] : p.joined) {
        const auto at = std::find_if(
            order.begin(), order.end(), [&, id = then](std::size_t i) { return p.steps[i].id == id; });
        if (at != order.begin() && p.steps[*std::prev(at)].id == first)
            continue;
        const Step &before = *p.step(first), &behind = *p.step(then);
        out.push_back({Severity::Note, "own-order", "", say("Step “{}”", behind.title), behind.id, "Sequence",
            say("it is to be told as one with “{}”, but does not stand right behind it: both are told by themselves.",
                before.title),
            {}});
    }
    for (const auto& [id, own] : in.design.ownWords)
        gone(in, id, say("you wrote words for it"), out);
    for (const auto& id : in.design.hiddenSteps)
        gone(in, id, say("it is hidden"), out);
    for (const auto& own : in.design.ownSteps)
        if (!own.after.empty() && !p.step(own.after))
            gone(in, own.after, say("your step “{}” follows it and comes last now", own.title), out);
    for (const auto& [id, own] : p.ownWords)
        if (const Step* step = p.step(id.text()))
            if (const StepWords said = told(p, *step); said.outdated)
                out.push_back({Severity::Warning, "own-words", "", say("Step “{}”", step->title), step->id, "Sequence",
                    say("you wrote its words when other facts held. Now it would say: {}", said.derived), {}});
}

} // namespace tectonis
