// SPDX-License-Identifier: GPL-3.0-or-later
// Whether the workshop can make it, and makes it so: its hand tools, its cutter's bed, its ways.
#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "design/ways.hpp"
#include "sequence/presser_foot.hpp"
#include "sequence/told.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

/// Words between commas, small letters.
std::vector<std::string> listed(const std::string& text)
{
    std::vector<std::string> out{""};
    for (const char c : text)
        if (c == ',')
            out.emplace_back();
        else if (c != ' ' || !out.back().empty())
            out.back() += c >= 'A' && c <= 'Z' ? char(c + 32) : c;
    for (auto& word : out)
        word.erase(word.find_last_not_of(' ') + 1);
    std::erase(out, std::string());
    return out;
}

/// What can be done without a foot (common practice, no source).
Message without(PresserFoot foot)
{
    switch (foot) {
    case PresserFoot::Zip: return say("Get one, or sew with the needle at the side of a narrow foot.");
    case PresserFoot::Walking: return say("Get one, or baste the layers closely and sew all rows in one direction.");
    case PresserFoot::NonStick: return say("Get one, or lay thin paper on the cloth and tear it off after sewing.");
    case PresserFoot::Standard: break;
    }
    return {};
}

void lookForTools(const Pattern& p, Findings& out)
{
    std::map<std::string, Message> lacks; // what can be done instead
    for (const auto& word : listed(p.workshop.lacks))
        lacks[word] = say("Get one, or make it another way.");
    for (const auto foot : {PresserFoot::Zip, PresserFoot::Walking, PresserFoot::NonStick})
        if (const std::string word = words(nameOf(foot)); p.workshop.widthOf(foot) <= 0 || lacks.contains(word))
            lacks[word] = without(foot);
    if (lacks.empty())
        return;
    std::map<std::string, std::pair<const Step*, int>> wanted; // the first step that wants it, and how many do
    for (const auto& step : p.steps)
        for (const auto& tool : told(p, step).tools)
            if (const std::string word = words(tool); lacks.contains(word))
                if (auto& [first, count] = wanted[word]; ++count == 1)
                    first = &step;
    for (const auto& [word, at] : wanted)
        out.push_back({Severity::Warning, "tools", "", say("{} × {}", Num(at.second), naming(word)),
            at.first->id.text(), "Sequence",
            together(
                say("“{}” wants a tool that the workshop lacks ({}).", at.first->title, naming(word)), lacks.at(word)),
            {}});
}

void lookAtBed(const Pattern& p, Findings& out)
{
    const double across = p.workshop.bedWidth, along = p.workshop.bedLength;
    if (across <= 0)
        return;
    const auto takes = [&](double w, double h) { return w <= across + 0.01 && (along <= 0 || h <= along + 0.01); };
    for (const auto& item : cutItems(p)) {
        const Box box = boundsOf(item.outline);
        if (p.material(item.material).width <= 0 || takes(box.width(), box.height())
            || takes(box.height(), box.width()))
            continue;
        out.push_back(
            {Severity::Warning, "bed", "", say("{} {}", naming(item.code), item.name), item.pieceKey.text(), "Cut",
                along > 0 ? say("it measures {} × {}; the cutter’s bed takes {} × {}. Cut it by hand, or in parts.",
                    Len(box.width()), Len(box.height()), Len(across), Len(along))
                          : say("it measures {} × {}; the cutter takes {} across. Cut it by hand, or in parts.",
                              Len(box.width()), Len(box.height()), Len(across)),
                {}});
    }
}

void lookAtWays(const CheckInput& in, Findings& out)
{
    for (const auto& [name, value] : otherWays(in.design)) {
        const ChoiceSpec* choice = in.spec.choice(name);
        if (!choice || !counts(*choice, in.design.choices))
            continue;
        const auto way = std::find_if(
            choice->options.begin(), choice->options.end(), [&, &v = value](const auto& o) { return o.first == v; });
        if (way != choice->options.end())
            out.push_back({Severity::Note, "ways", "", labelled(Label{choice->label}), name, "Draft",
                say("the workshop makes it otherwise: “{}”.", labelled(Label{way->second})),
                Repair{say("Make it so"), {name + "=" + value}}});
    }
}

} // namespace

void checkWorkshop(const CheckInput& in, Findings& out)
{
    lookForTools(in.pattern, out);
    lookAtBed(in.pattern, out);
    lookAtWays(in, out);
}

} // namespace tectonis
