// SPDX-License-Identifier: GPL-3.0-or-later
// Adjustable shoulder strap: sewn to the slider, through one ring, back through the slider, sewn to the other ring; a
// closed loop through both rings, worn doubled; or a loop for the wrist. Sewn to the rings, or to be taken off by
// swivel hooks.
#include "buildup/strap_ends.hpp"
#include "drafting/long_strip.hpp"
#include "drafting/strip_width.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

#include <algorithm>

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
        using Q = DimensionSpec::Quantity;
        return {
            {"width", "Strap width", "Finished width of the strap.", "#connectors.ring - 1", follow(), "8", "60"},
            {"length", "Strap cut length", "Length of the finished strip before its ends are folded and sewn.", "1450",
                hold(), "400", "2200", Q::Length, "@worn=shoulder|doubled"},
            {"loop", "Wrist loop, cut length", "Length of the strip that is folded into a loop, both ends together.",
                "420", hold(), "260", "800", Q::Length, "@worn=wrist"},
            {"fold", "Strap fold",
                "Taken up at each end where it is folded round ring, hook or slider and sewn down, its raw end turned "
                "under.",
                "45", hold(), "20", "90", Q::Length, "@worn=shoulder|wrist"},
            {"lap", "Strap lap", "How far the strap's ends lie on each other where the loop is closed.", "45", hold(),
                "20", "90", Q::Length, "@worn=doubled"},
            {"slider", "Slider length", "Length of the slider along the strap, with its clearance.", "30", hold(), "10",
                "60", Q::Length, "@worn=shoulder"},
            {"hook", "Hook length", "From the strap's bend in a hook's eye to the ring in its mouth.", "42", hold(),
                "15", "90", Q::Length, "@ends=hooks"},
            {"allowance", "Strap join allowance", "Seam allowance where strips are joined to make the length.", "10",
                hold(), "5", "20", Q::Length, "@make=cloth"},
            turnDimension(),
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier&) const override
    {
        return {{"make", "Strap made of", "The shell cloth, folded, or bought webbing.",
                    {{"cloth", "Shell cloth, folded"}, {"webbing", "Webbing"}}},
            wayChoice("@make=cloth"), joinsChoice("@make=cloth"),
            {"worn", "Strap worn",
                "Across the body, adjustable between both rings; doubled, a closed loop that slides through both, its "
                "strands over the shoulder or one drawn out; or round the wrist, a loop on one ring.",
                {{"shoulder", "Across the body"}, {"doubled", "Doubled, a closed loop"}, {"wrist", "On the wrist"}}},
            {"under", "Raw ends",
                "Where the strap's ends are sewn down they are turned under if the machine takes all that lies there, "
                "or "
                "always; or they are overcast and lie flat.",
                {{"fits", "Turned under where it fits"}, {"turned", "Turned under"}, {"flat", "Overcast, flat"}}},
            {"ends", "Strap's ends", "Sewn to the rings, or to swivel hooks, so that it can be taken off.",
                {{"sewn", "Sewn to the rings"}, {"hooks", "With swivel hooks"}}, "@worn=shoulder|wrist"}};
    }

    std::vector<std::string> needs(const Form&) const override { return {"connectors"}; }

    std::vector<PartFace> faces() const override
    {
        // Of a long one as much from its end as lies on one strip, whatever cloth it is cut from.
        return {{"strap", "Strap", "@width", "0.2*@length", "@worn=shoulder", false, true},
            {"strap", "Strap", "@width", "0.2*@length", "@worn=doubled", false, true},
            {"strap", "Strap", "@width", "0.4*@loop", "@worn=wrist", false, true}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const PartId connectors = d.firstOf("connectors");
        const bool wrist = f.choice("worn") == "wrist", doubled = f.choice("worn") == "doubled",
                   hooks = !doubled && f.choice("ends") == "hooks";
        const std::string role = f.choice("make") == "webbing" ? "strap" : "shell";
        const Material& cloth = d.pattern.material(d.pattern.materials.at(role));
        const double width = f("width"), length = f(wrist ? "loop" : "length"), ring = d(connectors.text() + ".ring");
        const std::string way = role == "shell" ? f.choice("way") : "by-cloth";
        const double turn = isFaced(way) ? f("turn") : 0, fold = f(doubled ? "lap" : "fold");
        const double cut = workCutWidth(d, f.id, f.key("cut"), say("Strap cut width"), width, cloth, way, turn);
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
                .allowance = f("allowance"),
                .turn = turn,
                .joins = role == "shell" ? joinsOf(f.choice("joins")) : LongStrip::Joins::Straight,
                .padded = way == "padded",
                .clear = fold});
        // Its ends are taken up by folds; one that is cut aslant is so much shorter on one side.
        const double slant = strip.count > 1 && f.choice("joins") == "diagonal" ? cut : 0,
                     far = boundsOf(d.piece(f.id).stitch()).y1 - slant;
        offerStrip(d, f.key("strap").text(), f.named(say("Strap")), f.id, width, far - fold - 5,
            (wrist ? 0.4 : 0.2) * length, "Strap");
        Strap made{.name = wrist ? say("Wrist strap") : say("Shoulder strap"),
            .piece = f.id,
            .width = width,
            .cutWidth = cut,
            .cutLength = length,
            .fold = fold,
            .end = fold,
            .strips = strip.count,
            .ringWidth = ring,
            .worn = wrist ? Strap::Worn::Wrist
                : doubled ? Strap::Worn::Doubled
                          : Strap::Worn::Shoulder,
            .hook = hooks ? f("hook") : 0};
        made.turned = turnsUnder(f, made, role);
        wrist         ? workLoop(f, made)
            : doubled ? workDoubled(f, made, connectors)
                      : workLengths(f, made, d(connectors.text() + ".loop"));
        d.pattern.straps.push_back(made);
        std::vector<Ware> threaded;
        const auto buy = [&](Ware ware, int count) {
            d.pattern.hardware.push_back(
                {ware, count, ring, say("{} inside width", Len(ring)), say("one finish for all metal")});
            threaded.push_back(ware);
        };
        if (!wrist && !doubled) {
            buy(Ware::Slider, 1);
            d.pattern.fittings.push_back({f.key("slider"), say("Slider"), f.id, Fitting::Kind::Slider,
                {cut / 2, f("fold")}, ring, 0, say("strap")});
        }
        if (hooks)
            buy(Ware::SwivelHook, wrist ? 1 : 2);
        if (cloth.kind != "webbing")
            d.add(Step{.id = f.key("make"),
                .title = say("Make the strap"),
                .acts = strip.make,
                .kind = strip.count > 1 ? StepKind::Seam : StepKind::Flat,
                .phase = "Strap",
                .consumes = {strip.pieces.begin(), strip.pieces.end()},
                .yields = f.id,
                .pieces = strip.pieces,
                .check = say("Finished {} wide from end to end.", Len(width))});
        Act thread = act::of(Act::Verb::ThreadStrap, f.id);
        thread.uses = threaded;
        d.add(Step{.id = f.key("attach"),
            .title = wrist ? say("Make the wrist loop and put it on")
                : doubled  ? say("Thread the strap and close it")
                : hooks    ? say("Thread the strap and hook it in")
                           : say("Thread and attach the strap"),
            .acts = {std::move(thread)},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag", f.id},
            .yields = "bag",
            .pieces = {f.id},
            .fittings = wrist || doubled ? std::vector<FittingId>{} : std::vector<FittingId>{f.key("slider")}});
    }

private:
    static bool turnsUnder(const FeatureScope& f, const Strap& strap, const std::string& role)
    {
        const std::string& chosen = f.choice("under");
        const Piece& piece = f.d.piece(strap.piece);
        const double once = std::max(1, piece.plies) * stackUnderFoot(f.d.design, piece, role);
        return chosen == "turned"
            || (chosen == "fits" && layersAtEnd(strap.worn, true) * once <= f.d.pattern.workshop.machineLimit + 0.001);
    }

    static void workLengths(FeatureScope& f, Strap& strap, double loop)
    {
        std::vector<Working::Input> given{
            {"length", strap.cutLength}, {"fold", strap.fold}, {"slider", f("slider")}, {"loops", 2 * loop}};
        const bool hooks = strap.hook > 0;
        if (hooks)
            given.push_back({"hooks", 2 * strap.hook});
        strap.longest = f.d.work({f.id, f.key("longest"), say("Strap, longest"),
            hooks ? "length - 2*fold - slider + loops + hooks" : "length - 2*fold - slider + loops", given, 0,
            Kind::Geometry, "mm",
            hooks ? say("mouth to mouth with the slider against its hook: cut length less both folds and the slider "
                        "that lies double, plus both hooks and both connectors")
                  : say("mouth to mouth with the slider against its ring: cut length less both folds and the slider "
                        "that lies double, plus both connectors")});
        strap.shortest = f.d.work({f.id, f.key("shortest"), say("Strap, shortest"),
            hooks ? "(length - 2*fold + slider)/2 + loops + hooks" : "(length - 2*fold + slider)/2 + loops", given, 0,
            Kind::Geometry, "mm",
            say("mouth to mouth with the slider against the far ring: the strap lies double over its whole way")});
    }

    /// Between both rings, as they lie: on one face, or at both ends of the mouth.
    static double betweenRings(const FeatureScope& f, const PartId& connectors)
    {
        const Pattern& p = f.d.pattern;
        std::vector<const Fitting*> rings;
        for (const auto& fitting : p.fittings)
            if (fitting.kind == Fitting::Kind::Ring && fitting.owner() == connectors)
                rings.push_back(&fitting);
        const bool mouth = p.choices.at(connectors.text() + ".held") == "mouth";
        return !mouth && rings.size() == 2 && rings[0]->piece == rings[1]->piece ? distance(rings[0]->at, rings[1]->at)
                                                                                 : p.width;
    }

    static void workDoubled(FeatureScope& f, Strap& strap, const PartId& connectors)
    {
        const double loop = f.d(connectors.text() + ".loop");
        strap.shortest = f.d.work({f.id, f.key("shortest"), say("Strap, doubled"), "(length - lap)/2 + loops",
            {{"length", strap.cutLength}, {"lap", strap.fold}, {"loops", 2 * loop}}, 0, Kind::Geometry, "mm",
            say("mouth to mouth, both strands alike: half of what the lap leaves, and both connectors")});
        strap.longest = f.d.work({f.id, f.key("longest"), say("Strap, drawn out"), "length - lap - between + loops",
            {{"length", strap.cutLength}, {"lap", strap.fold}, {"between", betweenRings(f, connectors)},
                {"loops", 2 * loop}},
            0, Kind::Geometry, "mm",
            say("mouth to mouth, one strand drawn out: the other lies straight between both rings")});
    }

    static void workLoop(FeatureScope& f, Strap& strap)
    {
        strap.longest = strap.shortest = f.d.work({f.id, f.key("hangs"), say("Wrist loop, from the ring"),
            "(length - 2*fold)/2 + hook", {{"length", strap.cutLength}, {"fold", strap.fold}, {"hook", strap.hook}}, 0,
            Kind::Geometry, "mm", say("half of what both folded ends leave, and the hook")});
    }
};

} // namespace

const FeatureKind& strapKind()
{
    static const AdjustableStrap kind;
    return kind;
}

} // namespace tectonis
