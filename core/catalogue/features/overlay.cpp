// SPDX-License-Identifier: GPL-3.0-or-later
// Overlay: a second layer on a face, from the base up or from the mouth down; its free edge is folded in, or left raw.
#include "drafting/cut.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

class OverlayKind : public FeatureKind {
public:
    std::string kind() const override { return "overlay"; }
    std::string name() const override { return "Overlay"; }
    std::map<std::string, std::string> materials() const override { return {{"overlay", "waxed-canvas"}}; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 10}, {90, 10}, {90, 88}, {10, 88}, {10, 10}}), lineRun({{10, 44}, {90, 44}}),
            lineRun({{10, 10}, {90, 10}, {90, 48}, {10, 48}, {10, 10}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {{"height", "Overlay height", "From the base, or from the mouth, to the overlay's free edge.",
            "0.35*face.height", follow(), "15", "face.height - 15"}};
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
                    on, "The face that it lies on.", [](const SiteSpec& s) { return !s.lining; }, "front"),
            {"from", "Reaches from", "From the base up, or from the mouth down.",
                {{"base", "The base up"}, {"mouth", "The mouth down"}}},
            {"edge", "Free edge", "Folded in by the body's allowance, or cut where it lies and left raw.",
                {{"folded", "Folded in"}, {"raw", "Raw"}}}};
    }

    std::vector<PartFace> faces() const override { return {{"front", "Overlay", "face.width", "@height"}}; }

    void settle(Design& design, const std::string& id) const override
    {
        if (!design.library->material(design.materials.at("overlay")).frays())
            design.choices.at(id + ".edge") = "raw"; // what does not fray is not folded: it is thick, and holes stay
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const bool low = f.choice("from") == "base";
        const bool raw = f.choice("edge") == "raw";
        const double y = low ? site.top - site.height + f("height") : site.top - f("height"),
                     s = raw ? 0 : d("allowance.body");
        Piece& face = d.pieceAt(site, y);
        const EdgeId line = f.line("overlay");
        Piece& piece = d.add({.key = f.id,
            .code = d.freeCode("O"),
            .name = f.named(say("Overlay")),
            .coat = Coat::Shell,
            .role = "overlay",
            .material = "overlay"});
        piece.edges = clipped(face.edges, {0, low ? -1.0 : 1.0}, low ? -y : y,
            {.name = "free",
                .stitch = {},
                .allowance = s,
                .allowanceAtEnd = {},
                .corner = Corner::FoldBack,
                .hem = !raw});
        if (piece.edges.empty())
            throw InputError(f.dimension("height"),
                say("the overlay's free edge does not fall between two sides of the {}", within(face.name)));
        const Run free = piece.edge("free")->stitch;
        face.lines.push_back({line, FaceLine::Kind::Topstitch, reversed(free)});
        d.pattern.overlays.push_back({f.id, face.key, {}});
        f.offer("front", f.named(say("Overlay")), f.id, {site.x, low ? y : site.top}, site.width, f("height"));
        d.add(Seam{.key = f.key("free"),
            .name = say("{}, free edge", f.named(say("Overlay"))),
            .a = {{face.key, line}},
            .b = {{f.id, "free", 0, true}},
            .stitch = "topstitch",
            .rawOutside = raw ? PieceId(f.id) : PieceId()});
        std::vector<Act> acts{{.verb = Act::Verb::StitchOn, .seams = {f.key("free")}, .distance = 3.2},
            act::saying(act::baste(4), say("The other edges lie level with those below."))};
        if (!raw)
            acts.insert(
                acts.begin(), {.verb = Act::Verb::FoldIn, .seams = {f.key("free")}, .pieces = {f.id}, .distance = s});
        const Point middle = pointAlong(free, lengthOf(free) / 2);
        f.handle("height", face.key, middle, {0, low ? 1.0 : -1.0}, 1, low ? Handle::From::Base : Handle::From::Top);
        d.addBeforeUse(Step{.id = f.key("on"),
                           .title = say("Lay the {} on the {}", within(piece.name), within(face.name)),
                           .acts = std::move(acts),
                           .kind = StepKind::Flat,
                           .phase = site.phase,
                           .consumes = {face.key, f.id},
                           .yields = face.key,
                           .pieces = {f.id, face.key},
                           .check = say("The overlay lies flat; nap up.")},
            face.key);
    }
};

} // namespace

const FeatureKind& overlayKind()
{
    static const OverlayKind kind;
    return kind;
}

} // namespace tectonis
