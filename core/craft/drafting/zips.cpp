// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/zips.hpp"

#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

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
    return {zipKindChoice("teeth"), sold,
        {"opens", "Zip opens", "Where its slider goes when it is opened, as seen from the face.",
            {{"right", "To the right"}, {"left", "To the left"}}}};
}

void buyContinuousZip(Pattern& p, const Zip& zip)
{
    const std::string make = zip.kind.source;
    p.hardware.push_back({Ware::ContinuousZip, 1, zip.tape, say("gauge {} {}, {}", zip.gauge, zip.kind, Len(zip.tape)),
        {}, double(zip.gauge)});
    p.hardware.back().make = make;
    p.hardware.push_back({Ware::ZipSlider, zip.sliders, 0, say("gauge {}", zip.gauge),
        zip.sliders > 1 ? say("pulls as all metal") : say("pull as all metal"), double(zip.gauge)});
}

void addZip(FeatureScope& f, Zip zip, double chain)
{
    Pattern& p = f.d.pattern;
    zip.kind = zipTeeth(f.choice("teeth"));
    zip.opens = f.choice("opens") == "left" ? label("to the left") : label("to the right");
    zip.byTheMetre = f.choice("sold") == "metre";
    zip.chain = chain;
    if (zip.byTheMetre)
        buyContinuousZip(p, zip);
    else {
        zip.bought = readyMade(p, chain);
        p.hardware.push_back({Ware::Zip, 1, zip.bought,
            zip.bought > chain + 0.01
                ? say("gauge {} {}, {}, to be cut down to {}", zip.gauge, zip.kind, Len(zip.bought), Len(chain))
                : say("gauge {} {}, {}", zip.gauge, zip.kind, Len(zip.bought)),
            say("pull as all metal"), double(zip.gauge)});
        p.hardware.back().make = zip.kind.source;
    }
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
