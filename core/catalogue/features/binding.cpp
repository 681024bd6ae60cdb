// SPDX-License-Identifier: GPL-3.0-or-later
// Binding: a strip folded over raw edges, at the mouth of a dropped-in lining or over the allowances inside round a
// face.
#include "drafting/edging.hpp"
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Binding : public FeatureKind {
public:
    std::string kind() const override { return "binding"; }
    std::string name() const override { return "Binding"; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 10}, {90, 10}, {90, 74}, {10, 74}, {10, 10}}),
            lineRun({{6, 66}, {94, 66}, {94, 84}, {6, 84}, {6, 66}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Binding, shown width", "Finished width of the binding on one side of the edge.", "10", hold(),
                "5", "25"},
            {"overlap", "Binding overlap", "Where the ends meet.", "20", hold(), "8", "60"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        ChoiceSpec covers{"covers", "Covers",
            "Raw edges that it is folded over: the allowances inside round a face, or the mouth of a dropped-in "
            "lining.",
            {}};
        for (const auto& site : on.sites)
            if (!site.lining && !site.small)
                covers.options.push_back({site.name, "Seams round the " + lowered(site.label)});
        if (hasMouth(on.form))
            covers.options.push_back({"mouth", "The mouth"});
        return {covers};
    }

    static bool hasMouth(const Form& form)
    {
        const auto choices = form.choices();
        return std::any_of(choices.begin(), choices.end(),
            [](const ChoiceSpec& c) { return c.name == "assembly" && c.options.size() > 1; });
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const std::string& covers = f.choice("covers");
        const std::vector<SeamId> seams = covers == "mouth" ? mouth(f) : round(f, covers);
        double run = 0;
        bool bias = false;
        for (const auto& key : seams) {
            const Seam& seam = *d.pattern.seam(key);
            const bool onA = covers == "mouth" || onSideA(d, covers, key);
            run += covers == "mouth" ? d.pattern.lengthOfSide(seam.a) : rawEdgeLength(d.pattern, onA ? seam.a : seam.b);
            bias |= curves(d.pattern, onA ? seam.a : seam.b);
        }
        const double cut = d.work({f.id, f.key("cut"), say("Binding cut width"), "4*width", {{"width", f("width")}}, 0,
            Kind::Trade, "mm", say("both edges to the middle and folded again")});
        const double length = d.work({f.id, f.key("length"), say("Binding, whole length"), "run + overlap",
            {{"run", run}, {"overlap", f("overlap")}}, 0, Kind::Trade, "mm",
            say("run: once along the raw edges, which are longer than the stitch line round convex corners and reach "
                "to the cut line at their ends")});
        const JoinedStrips joined = workStrips(d, f.id, f.id, say("Cut length of each binding strip"), length, cut,
            bias, d.pattern.material(d.pattern.materials.at("lining")));
        drawRectangle(d.add({.key = f.id,
                          .code = d.freeCode("G"),
                          .name = f.named(say("Binding strip")),
                          .coat = Coat::Strip,
                          .role = "binding",
                          .material = "lining",
                          .count = joined.count,
                          .grain = bias ? 45.0 : 0.0}),
            cut, joined.length, 0);
        for (auto& seam : d.pattern.seams)
            if (std::find(seams.begin(), seams.end(), seam.key) != seams.end())
                seam.bound = f.id;
        keepTogether(d, seams);
        const auto last = std::find_if(d.steps.rbegin(), d.steps.rend(), [&](const Step& step) {
            return step.kind == StepKind::Seam
                && std::find_first_of(step.seams.begin(), step.seams.end(), seams.begin(), seams.end())
                != step.seams.end();
        });
        if (last == d.steps.rend())
            throw InputError(f.id.text(), say("no step sews the seams that are to be bound"));
        const WorkId part = last->yields;
        Step bind{.id = f.key("on"),
            .title = covers == "mouth" ? say("Bind the mouth")
                                       : say("Bind the raw edges round the {}", sideLabel(covers)),
            .acts = {act::of(Act::Verb::JoinStrips, f.id),
                {.verb = Act::Verb::Bind, .seams = {seams.front()}, .pieces = {f.id}}},
            .kind = StepKind::Topstitch,
            .phase = last->phase,
            .consumes = {part, f.id},
            .yields = part,
            .pieces = {f.id}};
        d.steps.insert(last.base(), std::move(bind)); // the base of a reverse iterator stands behind it
    }

    /// Allowances that are bound together are not pressed open, but both to one side.
    static void keepTogether(Drafter& d, const std::vector<SeamId>& seams)
    {
        const auto bound = [&](const SeamId& seam) {
            return std::find(seams.begin(), seams.end(), seam) != seams.end();
        };
        for (auto& step : d.steps)
            for (std::size_t i = 0; i < step.acts.size(); ++i) {
                Act& act = step.acts[i];
                if (act.verb != Act::Verb::Press || act.to != Act::To::Open
                    || std::none_of(act.seams.begin(), act.seams.end(), bound))
                    continue;
                Act together = act;
                std::erase_if(together.seams, [&](const SeamId& seam) { return !bound(seam); });
                std::erase_if(act.seams, bound);
                together.to = Act::To::Second;
                if (act.seams.empty())
                    act = std::move(together);
                else
                    step.acts.insert(step.acts.begin() + std::ptrdiff_t(i) + 1, std::move(together)), ++i;
            }
    }

    static bool onSideA(const Drafter& d, const SiteId& face, const SeamId& seam)
    {
        const auto all = seamsRound(d.pattern, *d.pattern.site(face));
        const auto it = std::find_if(all.begin(), all.end(), [&](const SeamRound& r) { return r.seam == seam; });
        return it == all.end() || it->onA;
    }

    /// Seams of the body round a face.
    std::vector<SeamId> round(FeatureScope& f, const SiteId& face) const
    {
        std::vector<SeamId> out;
        for (const auto& round : seamsRound(f.d.pattern, f.d.site(face)))
            out.push_back(round.seam);
        if (out.empty())
            throw InputError(f.dimension("covers"), say("no seam of the body lies round this face"));
        return out;
    }

    /// At the mouth nothing is folded in: shell and lining end at the stitch line, under the binding.
    std::vector<SeamId> mouth(FeatureScope& f) const
    {
        Drafter& d = f.d;
        if (!d.pattern.seam("mouth") || d.choice("assembly") != "drop-in")
            throw InputError(f.dimension("covers"),
                say("a mouth can be bound only where the lining is dropped in: choose that way of joining first"));
        for (const auto* side : {&d.pattern.seam("mouth")->a, &d.pattern.seam("mouth")->b})
            for (const auto& use : *side)
                d.piece(use.piece).edge(use.edge)->allowance = 0;
        return {"mouth"};
    }
};

} // namespace

const FeatureKind& bindingKind()
{
    static const Binding kind;
    return kind;
}

} // namespace tectonis
