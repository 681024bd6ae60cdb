// SPDX-License-Identifier: GPL-3.0-or-later
// What a designer changes of the order of work, but for the order itself.
#include "editing/edits.hpp"

#include "pattern/act_words.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/told.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis::change {
namespace {

const Step& known(const Pattern& seenIn, const std::string& id)
{
    if (const Step* step = seenIn.step(id))
        return *step;
    throw InputError(id, say("there is no such step"));
}

/// The step as it is drafted, of which @p step may be a part.
StepId wholeOf(const Pattern& seenIn, const Step& step)
{
    const Step* out = &step;
    while (!out->goesOnFrom.empty())
        out = seenIn.step(out->goesOnFrom);
    return out->id;
}

} // namespace

std::string addStep(Design& design, const Pattern& seenIn, const std::string& after, const std::string& title,
    const std::string& text, double minutes)
{
    known(seenIn, after);
    if (title.find_first_not_of(' ') == std::string::npos)
        throw InputError(say("own steps"), say("a step of one's own needs a title"));
    const auto taken = [&](const std::string& id) {
        return std::any_of(
            design.ownSteps.begin(), design.ownSteps.end(), [&](const OwnStep& s) { return s.id == id; });
    };
    int number = 1;
    while (taken(fmt::format("own step {}", number)))
        ++number;
    OwnStep step{fmt::format("own step {}", number), title, text, after, minutes, {}};
    // In an order of one's own it has its place too.
    if (const auto at = std::find(design.stepOrder.begin(), design.stepOrder.end(), after);
        at != design.stepOrder.end())
        design.stepOrder.insert(at + 1, step.id);
    design.ownSteps.push_back(step);
    return step.id;
}

void removeStep(Design& design, const std::string& id)
{
    if (std::erase_if(design.ownSteps, [&](const OwnStep& s) { return s.id == id; }) == 0)
        throw InputError(id, say("it is no step of your own; what the bag needs can be hidden, not taken out"));
    std::erase(design.stepOrder, id);
    std::erase(design.hiddenSteps, id);
    design.ownWords.erase(id);
    std::erase_if(design.wishes, [&](const Wish& w) { return w.first == id || w.then == id; });
    std::erase_if(design.joined, [&](const Joined& j) { return j.first == id || j.then == id; });
}

void stepWords(Design& design, const Pattern& seenIn, const std::string& id, const std::string& text)
{
    const Step& step = known(seenIn, id);
    for (auto& own : design.ownSteps)
        if (own.id == id) {
            own.text = text; // all its words are one's own
            return;
        }
    if (text.empty()) {
        design.ownWords.erase(id);
        return;
    }
    const StepWords said = told(seenIn, step);
    design.ownWords[id].text = text;
    design.ownWords[id].was = words(said.own ? said.derived : said.text);
}

void hideStep(Design& design, const Pattern& seenIn, const std::string& id, bool hidden)
{
    known(seenIn, id);
    std::erase(design.hiddenSteps, id);
    if (hidden)
        design.hiddenSteps.push_back(id);
}

void splitStep(Design& design, const Pattern& seenIn, const std::string& id, std::size_t act)
{
    const Step& step = known(seenIn, id);
    if (step.acts.size() < 2)
        throw InputError(id, say("it is one thing that is done; there is nothing to divide"));
    if (act == 0 || act >= step.acts.size())
        throw InputError(id, say("a step is divided between two things that are done in it"));
    const Act::Verb verb = step.acts[act].verb;
    const auto count = [&](const Step& part, std::size_t acts) {
        return int(std::count_if(part.acts.begin(), part.acts.begin() + std::ptrdiff_t(acts),
            [&](const Act& each) { return each.verb == verb; }));
    };
    int nth = count(step, act + 1);
    for (const Step* part = &step; !part->goesOnFrom.empty();) {
        part = seenIn.step(part->goesOnFrom);
        nth += count(*part, part->acts.size());
    }
    design.splits.push_back({wholeOf(seenIn, step).text(), wordOf(verb), nth, {}});
}

void mendStep(Design& design, const Pattern& seenIn, const std::string& id)
{
    const std::string whole = wholeOf(seenIn, known(seenIn, id)).text();
    if (std::erase_if(design.splits, [&](const Split& s) { return s.step == whole; }) == 0)
        throw InputError(id, say("it is not divided"));
    // What was said of its parts has nothing left to hold to.
    const auto ofPart = [&](const std::string& step) { return step.starts_with(whole + "/"); };
    std::erase_if(design.stepOrder, ofPart);
    std::erase_if(design.hiddenSteps, ofPart);
    std::erase_if(design.ownWords, [&](const auto& own) { return ofPart(own.first); });
    std::erase_if(design.wishes, [&](const Wish& w) { return ofPart(w.first) || ofPart(w.then); });
    std::erase_if(design.joined, [&](const Joined& j) { return ofPart(j.first) || ofPart(j.then); });
    for (auto& own : design.ownSteps)
        if (ofPart(own.after))
            own.after = whole;
}

void joinStep(Design& design, const Pattern& seenIn, const std::string& id)
{
    const Step& then = known(seenIn, id);
    const auto order = orderOf(design, seenIn);
    const auto at = std::find(order.begin(), order.end(), std::size_t(&then - seenIn.steps.data()));
    if (at == order.begin())
        throw InputError(id, say("there is no step before it"));
    const std::string first = seenIn.steps[*std::prev(at)].id.text();
    for (const auto& each : design.joined)
        if (each.first == first && each.then == id)
            throw InputError(id, say("it is told as one with that already"));
    design.joined.push_back({first, id, {}});
}

void partStep(Design& design, const std::string& id)
{
    if (std::erase_if(design.joined, [&](const Joined& j) { return j.then == id || j.first == id; }) == 0)
        throw InputError(id, say("it is told by itself already"));
}

void timed(Design& design, const Pattern& seenIn, std::size_t trial, double minutes, const std::string& step)
{
    if (trial >= design.trials.size())
        throw InputError(say("trial"), say("there is no such trial"));
    Trial& t = design.trials[trial];
    if (step.empty()) {
        t.minutes = minutes, t.predicted = minutes > 0 ? uncorrectedMinutesOf(seenIn) : 0;
        return;
    }
    const Step& timedStep = known(seenIn, step);
    if (minutes > 0)
        t.steps[step] = {minutes, uncorrectedMinutesOf(seenIn, timedStep).result, {}};
    else
        t.steps.erase(step);
}

void wish(Design& design, const Pattern& seenIn, const std::string& first, const std::string& then)
{
    known(seenIn, first), known(seenIn, then);
    for (const auto& w : design.wishes)
        if (w.first == first && w.then == then)
            throw InputError(first, say("that is wished already"));
    design.wishes.push_back({first, then, {}});
}

void forgetWishes(Design& design, const std::string& id)
{
    if (std::erase_if(design.wishes, [&](const Wish& w) { return w.first == id || w.then == id; }) == 0)
        throw InputError(id, say("there is no wish about it"));
}

} // namespace tectonis::change
