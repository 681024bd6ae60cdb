// SPDX-License-Identifier: GPL-3.0-or-later
// Adjustable shoulder strap: sewn to the slider, through one ring, back through the slider, sewn to the other ring.
#include "drafting/long_strip.hpp"
#include "drafting/strip_width.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class AdjustableStrap : public FeatureKind {
public:
    std::string kind() const override { return "strap"; }
    std::string name() const override { return "Adjustable strap"; }

    std::vector<Run> silhouette() const override
    {
        return {Run{Cubic{{8, 12}, {10, 112}, {90, 112}, {92, 12}}}, Run{Cubic{{22, 12}, {24, 92}, {76, 92}, {78, 12}}},
            lineRun({{8, 12}, {22, 12}}), lineRun({{78, 12}, {92, 12}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Strap width", "Finished width of the strap.", "#connectors.ring - 1", follow(), "8", "60"},
            {"length", "Strap cut length", "Length of the finished strip before its ends are folded and sewn.", "1450",
                hold(), "400", "2200"},
            {"fold", "Strap fold",
                "Taken up at each end where it is folded round ring or slider and sewn down, its raw end turned under.",
                "45", hold(), "20", "90"},
            {"slider", "Slider length", "Length of the slider along the strap, with its clearance.", "30", hold(), "10",
                "60"},
            {"allowance", "Strap join allowance", "Seam allowance where strips are joined to make the length.", "10",
                hold(), "5", "20", DimensionSpec::Quantity::Length, "@make=cloth"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier&) const override
    {
        return {{"make", "Strap made of", "The shell cloth, folded, or bought webbing.",
            {{"cloth", "Shell cloth, folded"}, {"webbing", "Webbing"}}}};
    }

    std::vector<std::string> needs(const Form&) const override { return {"connectors"}; }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const std::string role = f.choice("make") == "webbing" ? "strap" : "shell";
        const Material& cloth = d.pattern.material(d.pattern.materials.at(role));
        const double width = f("width"), length = f("length");
        const double cut = workCutWidth(d, f.id, f.key("cut"), say("Strap cut width"), width, cloth);
        const double loops = 2 * d(d.firstOf("connectors") + ".loop");
        const std::vector<Working::Input> given{
            {"length", length}, {"fold", f("fold")}, {"slider", f("slider")}, {"loops", loops}};
        const double longest = d.work({f.id, f.key("longest"), say("Strap, longest"),
            "length - 2*fold - slider + loops", given, 0, Kind::Geometry, "mm",
            say("mouth to mouth with the slider against its ring: cut length less both folds and the slider that lies "
                "double, plus both connectors")});
        const double shortest = d.work({f.id, f.key("shortest"), say("Strap, shortest"),
            "(length - 2*fold + slider)/2 + loops", given, 0, Kind::Geometry, "mm",
            say("mouth to mouth with the slider against the far ring: the strap lies double over its whole way")});
        const DrawnStrip strip = drawLongStrip(f,
            {.piece = f.id,
                .code = d.pattern.pieceByCode("F") ? d.freeCode("F") : "F",
                .name = say("Strap"),
                .strip = say("Strap strip"),
                .join = say("Strap join {}", 1),
                .material = role,
                .width = width,
                .cut = cut,
                .length = length,
                .allowance = f("allowance")});
        d.pattern.straps.push_back({say("Shoulder strap"), f.id, width, cut, length, longest, shortest, f("fold"),
            f("fold"), strip.count, d(d.firstOf("connectors") + ".ring")});
        d.pattern.hardware.push_back({Ware::Slider, 1, d(d.firstOf("connectors") + ".ring"),
            say("{} inside width", Len(d(d.firstOf("connectors") + ".ring"))), say("one finish for all metal")});
        d.pattern.fittings.push_back({f.key("slider"), say("Slider"), f.id, Fitting::Kind::Slider, {cut / 2, f("fold")},
            d(d.firstOf("connectors") + ".ring"), 0, say("strap")});
        if (cloth.kind != "webbing")
            d.add(Step{.id = f.key("make"),
                .title = say("Make the strap"),
                .acts = strip.make,
                .kind = strip.count > 1 ? StepKind::Seam : StepKind::Flat,
                .phase = "Strap",
                .consumes = {f.id},
                .yields = f.id,
                .pieces = {f.id},
                .check = say("Finished {} wide from end to end.", Len(f("width")))});
        d.add(Step{.id = f.key("attach"),
            .title = say("Thread and attach the strap"),
            .acts = {act::with(act::of(Act::Verb::ThreadStrap, f.id), {Ware::Slider})},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag", f.id},
            .yields = "bag",
            .pieces = {f.id},
            .fittings = {f.key("slider")}});
    }
};

} // namespace

const FeatureKind& strapKind()
{
    static const AdjustableStrap kind;
    return kind;
}

} // namespace tectonis
