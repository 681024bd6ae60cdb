// SPDX-License-Identifier: GPL-3.0-or-later
// Piping: a cord in a bias strip, caught in the seams round a face.
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

class Piping : public FeatureKind {
public:
    std::string kind() const override { return "piping"; }
    std::string name() const override { return "Piping"; }
    std::vector<Run> silhouette() const override
    {
        return {Run{Line{{12, 90}, {12, 30}}, Arc{{32, 30}, 20, pi, pi / 2}, Line{{32, 10}, {68, 10}},
                    Arc{{68, 30}, 20, -pi / 2, pi / 2}, Line{{88, 30}, {88, 90}}},
            Run{Line{{6, 90}, {6, 30}}, Arc{{32, 30}, 26, pi, pi / 2}, Line{{32, 4}, {68, 4}},
                Arc{{68, 30}, 26, -pi / 2, pi / 2}, Line{{94, 30}, {94, 90}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"cord", "Piping cord", "Diameter of the cord.", "4", hold(), "2", "10"},
            {"overlap", "Piping ends", "Added at each end to turn into the seam.", "20", hold(), "5", "60"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face that it goes round.", [](const SiteSpec& s) { return !s.lining; }, "front")};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const PieceId mainKey = d.piece(site.pieces.back()).whole.empty() ? site.pieces.back()
                                                                          : d.piece(site.pieces.back()).whole;
        std::vector<EdgeUse> run;
        for (const auto& [key, onA] : seamsRound(d.pattern, site))
            for (auto& seam : d.pattern.seams)
                if (seam.key == key) {
                    run.insert(run.end(), (onA ? seam.a : seam.b).begin(), (onA ? seam.a : seam.b).end());
                    seam.trapped.push_back(f.id);
                }
        if (run.empty())
            throw InputError(f.id.text(), say("the face has no seam that piping could be caught in"));
        const double s = d("allowance.body"), length = d.pattern.lengthOfSide(run);
        const double wide = d.work({f.id, f.key("cut"), say("Piping strip cut width"), "pi*cord + 2*allowance",
            {{"cord", f("cord")}, {"allowance", s}}, 0, Kind::Geometry, "mm",
            say("once round the cord and two allowances")});
        const double whole = d.work({f.id, f.key("length"), say("Piping strip, whole length"), "run + 2*overlap",
            {{"run", length}, {"overlap", f("overlap")}}, 0, Kind::Trade, "mm",
            say("the seams' stitch length and both ends")});
        const JoinedStrips joined = workStrips(d, f.id, f.id, say("Cut length of each piping strip"), whole, wide, true,
            d.pattern.material(d.pattern.materials.at("shell")));
        const int strips = joined.count;
        Piece& strip = d.add({.key = f.id,
            .code = d.freeCode("Y"),
            .name = f.named(say("Piping strip")),
            .coat = Coat::Strip,
            .role = "piping",
            .material = "shell",
            .count = strips,
            .grain = 45});
        strip.plies = 2; // folded round the cord
        drawRectangle(strip, length / strips, wide, 0);
        strip.edge("left")->allowance = strip.edge("right")->allowance = (joined.length - length / strips)
            / 2; // what joins and ends take, shared out
        std::vector<EdgeUse> piping;
        for (int i = 0; i < strips; ++i)
            piping.push_back({f.id, "bottom", i});
        d.add(Seam{.key = f.key("in"),
            .name = say("{} round the {}", strip.name, within(site.label)),
            .a = run,
            .b = piping,
            .allowance = s,
            .stitch = "baste"});
        d.pattern.hardware.push_back(
            {Ware::PipingCord, 1, whole, say("{}, {} thick", Len(whole), Len(f("cord"))), Message()});
        d.addOnTop(Step{.id = f.key("make"),
                       .title = say("Make the piping"),
                       .acts = {act::of(Act::Verb::JoinStrips, f.id),
                           act::with(act::of(Act::Verb::WrapCord, f.id), {Ware::PipingCord})},
                       .kind = StepKind::Flat,
                       .phase = "Small parts",
                       .consumes = {f.id},
                       .yields = f.id,
                       .pieces = {f.id},
                       .check = say("The allowance is {} all along.", Len(s))},
            mainKey);
        d.addOnTop(
            Step{.id = f.key("in"),
                .title = say("Baste the piping round the {}", within(site.label)),
                .acts = {{.verb = Act::Verb::Lay, .seams = {f.key("in")}, .pieces = {f.id, mainKey}},
                    act::saying(act::baste(s), say("Pull the cord's ends back by the allowance of crossing seams."))},
                .kind = StepKind::Baste,
                .phase = site.phase,
                .consumes = {mainKey, f.id},
                .yields = mainKey,
                .pieces = withFace(site, f.id),
                .check = say("The cord lies just outside the stitch line.")},
            mainKey);
    }

    static std::vector<PieceId> withFace(const Site& site, const PieceId& piping)
    {
        std::vector<PieceId> out = site.pieces;
        out.push_back(piping);
        return out;
    }
};

} // namespace

const FeatureKind& pipingKind()
{
    static const Piping kind;
    return kind;
}

} // namespace tectonis
