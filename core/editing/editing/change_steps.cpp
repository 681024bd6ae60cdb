// SPDX-License-Identifier: GPL-3.0-or-later
// What a designer changes of the order of work, but for the order itself.
#include "editing/edits.hpp"

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
