// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/zips.hpp"

#include "units/words.hpp"

#include <algorithm>
#include <optional>

namespace tectonis {
namespace {

/// Of the zip that is bought; where the library does not know, as of a coil zip (common practice, no source).
double tapeThickness(const Drafter& d, const Hardware& zip)
{
    const bool ready = zip.kind == Ware::Zip;
    const Good* good = d.pattern.library->good(zip.kind, 0, ready ? zip.size : 0, zip.gauge, d.design.goods, zip.make);
    return good && good->tape > 0 ? good->tape : 0.6;
}

/// The shortest ready-made zip with so much chain; @p chain itself where none is as long.
double readyMade(const Pattern& p, double chain)
{
    if (const StockTable* offers = p.library->stock("zip"))
        for (const double length : offers->values)
            if (length >= chain - 0.01)
                return length;
    return chain;
}

} // namespace

Label zipTeeth(const std::string& teeth)
{
    return teeth == "metal" ? label("metal") : teeth == "moulded" ? label("moulded") : label("coil");
}

ChoiceSpec zipKindChoice(const std::string& name)
{
    return {name, "Zip teeth", "Coil and moulded teeth can be sewn over; metal ones are pulled where a needle goes.",
        {{"coil", "Coil"}, {"moulded", "Moulded"}, {"metal", "Metal"}}};
}

std::vector<ChoiceSpec> zipChoices(bool ready)
{
    ChoiceSpec sold{"sold", "Zip bought",
        "Ready-made, in the next length in stock and cut down if that is longer; or by the metre with sliders.",
        {{"ready", "Ready-made"}, {"metre", "By the metre"}}};
    if (!ready)
        std::swap(sold.options[0], sold.options[1]);
    return {zipKindChoice("teeth"), sold, zipOpensChoice("opens")};
}

ChoiceSpec zipOpensChoice(const std::string& name, const std::string& first)
{
    ChoiceSpec out{name, "Zip opens",
        "Where its slider goes when it is opened, as seen from the face; or to both sides, with two sliders that meet.",
        {{"right", "To the right"}, {"left", "To the left"}, {"both", "Both ways, two sliders"}}};
    std::stable_partition(
        out.options.begin(), out.options.end(), [&](const auto& option) { return option.first == first; });
    return out;
}

Label zipOpens(const std::string& chosen)
{
    return chosen == "both" ? label("both ways") : chosen == "left" ? label("to the left") : label("to the right");
}

namespace {

struct EndWord {
    ZipEnd::Kind kind;
    const char *word, *label;
};
constexpr EndWord kEnds[] = {{ZipEnd::Kind::Stop, "stop", "Bar-tacked"}, {ZipEnd::Kind::Tab, "tab", "Tab of cloth"},
    {ZipEnd::Kind::Folded, "folded", "Tape folded away"}, {ZipEnd::Kind::Metal, "metal", "Metal end"},
    {ZipEnd::Kind::Seam, "seam", "Into the seam"}};

} // namespace

ChoiceSpec zipEndChoice(const std::string& name, const std::string& label, const std::string& meaning,
    std::initializer_list<ZipEnd::Kind> kinds)
{
    ChoiceSpec out{name, label, meaning, {}};
    for (const auto kind : kinds)
        for (const auto& end : kEnds)
            if (end.kind == kind)
                out.options.emplace_back(end.word, end.label);
    return out;
}

std::vector<Act> zipEndActs(const Zip& zip, const std::vector<PieceId>& tabs)
{
    using Kind = ZipEnd::Kind;
    const auto actOf = [&](Kind kind, Act::To to, const std::vector<PieceId>& tab) -> std::optional<Act> {
        switch (kind) {
        case Kind::Tab: {
            Act act = act::ofZip(Act::Verb::SealEnds, zip.key, tab);
            act.to = to;
            return act;
        }
        case Kind::Folded: return Act{.verb = Act::Verb::FoldEnds, .zips = {zip.key}, .to = to};
        case Kind::Metal: return Act{.verb = Act::Verb::CapEnds, .zips = {zip.key}, .to = to, .uses = {Ware::ZipEnd}};
        case Kind::Stop: return Act{.verb = Act::Verb::BarTack, .zips = {zip.key}, .to = to};
        case Kind::Seam: return std::nullopt;
        }
        return std::nullopt;
    };
    std::vector<Act> out;
    const auto add = [&](std::optional<Act> act) {
        if (act)
            out.push_back(std::move(*act));
    };
    const bool alike = zip.first.kind == zip.last.kind && (zip.first.kind != Kind::Tab || tabs.size() == 1);
    if (alike)
        add(actOf(zip.first.kind, Act::To::Nowhere, tabs));
    else {
        std::size_t next = 0;
        for (const bool first : {true, false}) {
            const Kind kind = first ? zip.first.kind : zip.last.kind;
            std::vector<PieceId> tab;
            if (kind == Kind::Tab && next < tabs.size())
                tab = {tabs[next++]};
            add(actOf(kind, first ? Act::To::First : Act::To::Second, tab));
        }
    }
    return out;
}

Act::Verb firstZipVerb(const std::vector<Act>& ends, Act::Verb sewn) { return ends.empty() ? sewn : ends.front().verb; }

void buyMetalEnds(Pattern& p, const Zip& zip)
{
    int ends = 0;
    for (const ZipEnd& end : {zip.first, zip.last})
        ends += end.kind == ZipEnd::Kind::Metal ? 1 : 0;
    if (ends > 0)
        p.hardware.push_back(
            {Ware::ZipEnd, ends, 0, say("gauge {}", zip.gauge), say("as all metal"), double(zip.gauge)});
}

void buyContinuousZip(Drafter& d, Zip& zip)
{
    Pattern& p = d.pattern;
    const std::string make = zip.kind.source;
    p.hardware.push_back({Ware::ContinuousZip, 1, zip.tape, say("gauge {} {}, {}", zip.gauge, zip.kind, Len(zip.tape)),
        {}, double(zip.gauge)});
    p.hardware.back().make = make;
    zip.thickness = tapeThickness(d, p.hardware.back());
    p.hardware.push_back({Ware::ZipSlider, zip.sliders, 0, say("gauge {}", zip.gauge),
        zip.sliders > 1 ? say("pulls as all metal") : say("pull as all metal"), double(zip.gauge)});
}

void addZip(FeatureScope& f, Zip zip, double chain)
{
    Pattern& p = f.d.pattern;
    zip.kind = zipTeeth(f.choice("teeth"));
    zip.opens = zipOpens(f.choice("opens"));
    zip.sliders = f.choice("opens") == "both" ? 2 : 1;
    zip.byTheMetre = f.choice("sold") == "metre";
    zip.chain = chain;
    if (zip.byTheMetre)
        buyContinuousZip(f.d, zip);
    else {
        zip.bought = readyMade(p, chain);
        p.hardware.push_back({Ware::Zip, 1, zip.bought,
            zip.bought > chain + 0.01
                ? say("gauge {} {}, {}, to be cut down to {}", zip.gauge, zip.kind, Len(zip.bought), Len(chain))
                : say("gauge {} {}, {}", zip.gauge, zip.kind, Len(zip.bought)),
            say("pull as all metal"), double(zip.gauge)});
        p.hardware.back().make = zip.kind.source;
        zip.thickness = tapeThickness(f.d, p.hardware.back());
    }
    buyMetalEnds(p, zip);
    p.zips.push_back(std::move(zip));
}

void readyBefore(Drafter& d, const ZipId& id, Act::Verb verb)
{
    const auto zip = std::find_if(
        d.pattern.zips.begin(), d.pattern.zips.end(), [&](const Zip& each) { return each.key == id; });
    for (auto& step : d.steps)
        for (auto act = step.acts.begin(); zip != d.pattern.zips.end() && act != step.acts.end(); ++act) {
            if (act->verb != verb || std::find(act->zips.begin(), act->zips.end(), id) == act->zips.end())
                continue;
            if (zip->byTheMetre)
                step.acts.insert(
                    act, act::with(act::ofZip(Act::Verb::SliderOn, id), {Ware::ContinuousZip, Ware::ZipSlider}));
            else if (zip->bought > zip->chain + 0.01) {
                Act cut = act::with(act::ofZip(Act::Verb::CutDown, id), {Ware::Zip});
                cut.distance = zip->chain, cut.taken = zip->bought;
                step.acts.insert(act, cut);
            } else
                act->uses.push_back(Ware::Zip);
            return;
        }
}

} // namespace tectonis
