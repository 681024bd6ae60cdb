// SPDX-License-Identifier: GPL-3.0-or-later
// Flap of two layers, turned or raw-edged and painted, caught in a seam across the back or stitched onto it.
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Flap : public FeatureKind {
public:
    std::string kind() const override { return "flap"; }
    bool cutsAcross() const override { return true; }
    std::string name() const override { return "Flap"; }

    std::vector<Run> silhouette() const override
    {
        return {Run{Line{{14, 80}, {14, 44}}, Cubic{{14, 44}, {14, 14}, {86, 14}, {86, 44}}, Line{{86, 44}, {86, 80}},
                    Line{{86, 80}, {14, 80}}},
            lineRun({{6, 80}, {94, 80}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"hinge", "Hinge drop", "From the back's top edge down to the seam that holds the flap.", "25", hold(),
                "15", "face.height/3"},
            {"length", "Flap length", "From the hinge seam to the flap's lower edge, along the flap.",
                "@hinge + mouth.way + 0.6*face.height", follow(), "60", "@hinge + mouth.way + 1.1*face.height"},
            {"width", "Flap width", "Finished width of the flap.", "face.width - 24", follow(), "40", "face.width - 4"},
            {"radius", "Flap corner radius", "Radius of the flap's two lower corners.", "min(60, 0.4*@width)", hold(),
                "4", "min(@width/2, @length)"},
            {"allowance", "Flap allowance", "Seam allowance round the flap; graded and clipped before turning.", "6.4",
                hold(), "4", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        ChoiceSpec mount{"mount", "Flap held by", "Caught in a seam across the face, or stitched onto it.",
            {{"on", "Two rows on the face"}}};
        if (std::any_of(on.sites.begin(), on.sites.end(), [](const SiteSpec& s) { return s.seam; }))
            mount.options.insert(mount.options.begin(), {"seam", "A seam across the face"});
        return {siteChoice(
                    on, "The face that the flap hangs from.", [](const SiteSpec& s) { return !s.lining; }, "back"),
            mount,
            {"edge", "Flap's edge",
                "Sewn right sides together and turned; or wrong sides together, the raw edges painted.",
                {{"turned", "Turned"}, {"raw", "Raw, painted"}}}};
    }

    void settle(Design& design, const std::string& id) const override
    {
        // Its seam passes below the ends of handles, not under them.
        for (const auto& other : design.features)
            if (other.kind == "handles")
                design.dimensions.at(id + ".hinge").value = "min(face.height/3, " + other.id + ".end + 15)";
    }

    std::vector<PartFace> faces() const override { return {{"outer", "Flap", "@width", "@length"}}; }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const bool raw = f.choice("edge") == "raw"; // cut at its finished edge
        const UPanel shape{.width = f("width"),
            .height = f("length"),
            .radius = f("radius"),
            .allowance = raw ? 0 : f("allowance"),
            .topAllowance = d("allowance.body"),
            .top = "hinge"};
        Piece& outer = d.add({.key = f.key("outer"),
            .code = d.pattern.pieceByCode("D") ? d.freeCode("D") : "D",
            .name = f.named(say("Flap")),
            .coat = Coat::Shell,
            .role = "flap",
            .material = "shell"});
        drawUPanel(outer, shape);
        Piece& under = d.add({.key = f.key("lining"),
            .code = "L" + outer.code,
            .name = f.named(say("Flap lining")),
            .coat = Coat::Lining,
            .role = "flap lining",
            .material = "lining"});
        drawUPanel(under, shape);
        f.offer("outer", f.named(say("Flap")), f.key("outer"), {0, f("length")}, f("width"), f("length"));
        d.add(Seam{.key = f.key("turned"),
            .name = say("Flap to its lining"),
            .a = d.runWithout(f.key("outer"), "hinge"),
            .b = d.runWithout(f.key("lining"), "hinge"),
            .allowance = raw ? 0 : f("allowance"),
            .stitch = raw ? "topstitch" : "construction"});

        f.handle("length", f.key("outer"), {0, 0}, {0, -1});
        f.handle("width", f.key("outer"), {f("width") / 2, f("length") / 2}, {1, 0}, 2);
        // Everything is done before the face is sewn into the bag.
        const PieceId face = d.pieceAt(f.site(), f.site().top - f("hinge")).key;
        raw ? rawSteps(f, face) : makeSteps(f, face);
        d.pattern.hinged.push_back(
            {f.key("outer"), f.key("lining"), face, {f.site().x, f.site().top - f("hinge")}, f("length"), true});
        f.choice("mount") == "seam" ? catchInSeam(f) : stitchOn(f);
        const Point end{f.site().x + f("width") / 2, f.site().top - f("hinge")};
        f.handle("hinge", d.pieceAt(f.site(), end.y - 1).key, end, {0, -1}, 1, Handle::From::Top);
    }

    /// The face is cut across; the flap lies between the halves.
    void catchInSeam(FeatureScope& f) const
    {
        Drafter& d = f.d;
        Site& site = f.site();
        const double y = site.top - f("hinge"), half = f("width") / 2, s = d("allowance.body");
        const Piece face = d.pieceAt(site, y);
        AcrossCut cut = acrossAt(face, y, s);
        cut.stops = {site.x - half, site.x + half}, cut.edgeNames = {"left of hinge", "hinge", "right of hinge"};
        cutAcross(d, cut);
        const PieceId upper = cut.upper.key, lower = cut.lower.key;
        const std::vector<EdgeUse> above{{upper, "left of hinge"}, {upper, "hinge"}, {upper, "right of hinge"}};
        const std::vector<EdgeUse> below{
            {lower, "left of hinge", 0, true}, {lower, "hinge", 0, true}, {lower, "right of hinge", 0, true}};
        d.add(Seam{.key = f.key("hinge"),
            .name = say("{} seam with the flap", face.name),
            .a = above,
            .b = below,
            .allowance = s,
            .trapped = {f.key("outer"), f.key("lining")}});
        d.add(Seam{.key = f.key("caught"),
            .name = say("Flap in the {} seam", within(face.name)),
            .a = {{upper, "hinge"}},
            .b = {{f.key("outer"), "hinge", 0, true}},
            .allowance = s,
            .stitch = "baste"});
        for (const auto& half2 : {upper, lower}) {
            auto& notches = d.piece(half2).notches;
            const Edge& e = *d.piece(half2).edge("hinge");
            notches.push_back({"hinge", 0, say("flap ends"), true});
            notches.push_back({"hinge", e.length(), say("flap ends"), true});
        }
        const Message what = within(face.name);
        // Caught, it lies on the half that it does not hang over in the end: its outer side on the lower half.
        d.addBeforeUse(Step{.id = f.key("baste"),
                           .title = say("Baste the flap to the lower {}", what),
                           .acts = {act::lay(f.key("outer"), lower, f.key("caught")), act::baste(4)},
                           .kind = StepKind::Baste,
                           .phase = site.phase,
                           .consumes = {f.id, lower},
                           .yields = lower,
                           .check = say("The flap is centred: both ends on their marks.")},
            face.key);
        d.addBeforeUse(
            Step{.id = f.key("join"),
                .title = say("Join the upper and the lower {} over the flap", what),
                .acts = {act::sew({f.key("hinge")}), act::press({f.key("hinge")}, Act::To::Second),
                    act::topstitch({f.key("hinge")}, 3.2, Act::To::Second)},
                .kind = StepKind::Seam,
                .phase = site.phase,
                .consumes = {upper, lower},
                .yields = face.key,
                .check = say("The flap stands up, clear of the topstitching; laid flat, the {} is as tall as "
                             "it was drafted.",
                    what)},
            face.key);
    }

    /// The hinge edge is folded in and stitched onto the face with two rows.
    void stitchOn(FeatureScope& f) const
    {
        Drafter& d = f.d;
        Site& site = f.site();
        const double y = site.top - f("hinge"), half = f("width") / 2;
        Piece& face = d.pieceAt(site, y);
        const EdgeId line = f.line("flap hinge");
        const PieceId outer = f.key("outer");
        const Message what = within(face.name);
        face.lines.push_back({line, FaceLine::Kind::Placement, lineRun({{site.x - half, y}, {site.x + half, y}})});
        d.add(Seam{.key = f.key("on"),
            .name = say("Flap on the {}", what),
            .a = {{face.key, line}},
            .b = {{outer, "hinge"}}, // upside down: it points up
            .stitch = "topstitch"});
        Step on{.id = f.key("on"),
            .title = say("Stitch the flap onto the {}", what),
            .acts = {{.verb = Act::Verb::FoldIn, .seams = {f.key("on")}, .pieces = {outer}, .distance = f("allowance")},
                {.verb = Act::Verb::StitchOn, .seams = {f.key("on")}, .distance = 3.2, .taken = 9.5}},
            .kind = StepKind::Flat,
            .phase = site.phase,
            .consumes = {face.key, f.id},
            .yields = face.key,
            .pieces = {outer, face.key},
            .check = say("The flap is centred and level with the mouth.")};
        d.addBeforeUse(on, face.key);
    }

    /// Two layers wrong sides together: glued, stitched beside the edge, trimmed, painted.
    void rawSteps(FeatureScope& f, const PieceId& face) const
    {
        Drafter& d = f.d;
        const PieceId outer = f.key("outer"), lining = f.key("lining");
        d.addBeforeUse(Step{.id = f.key("sew"),
                           .title = say("Lay the flap's layers together and stitch"),
                           .acts = {{.verb = Act::Verb::Glue, .pieces = {lining, outer}, .distance = 6},
                               act::topstitch({f.key("turned")}, 3.2, Act::To::Nowhere),
                               {.verb = Act::Verb::Trim, .pieces = {outer, lining}}},
                           .kind = StepKind::Seam,
                           .phase = f.site().phase,
                           .consumes = {outer, lining},
                           .yields = f.id,
                           .pieces = {outer, lining},
                           .check = say("The snap half on the lining is set; the edge is one clean line.")},
            face);
        d.addBeforeUse(Step{.id = f.key("turn"),
                           .title = say("Paint the flap's edges"),
                           .acts = {act::of(Act::Verb::Paint, outer)},
                           .kind = StepKind::Press,
                           .phase = f.site().phase,
                           .consumes = {f.id},
                           .yields = f.id,
                           .pieces = {outer, lining}},
            face);
    }

    void makeSteps(FeatureScope& f, const PieceId& face) const
    {
        Drafter& d = f.d;
        d.work({f.key("outer"), f.key("clip"), say("Clip spacing at the flap's corners"), "opening*radius/allowance",
            {{"opening", 3}, {"radius", f("radius")}, {"allowance", f("allowance")}}, 0, Kind::Trade, "mm",
            say("notch out wedges on the convex corner; {} is common practice", Len(3))});
        const act::Seams round{f.key("turned")};
        d.addBeforeUse(Step{.id = f.key("sew"),
                           .title = say("Sew the flap to its lining"),
                           .acts = {act::sew(round)},
                           .kind = StepKind::Seam,
                           .phase = f.site().phase,
                           .consumes = {f.key("outer"), f.key("lining")},
                           .yields = f.id,
                           .check = say("The hinge edge is left open.")},
            face);
        d.addBeforeUse(Step{.id = f.key("turn"),
                           .title = say("Turn and topstitch the flap"),
                           .acts = {act::grade(round), act::turn(round), act::roll(round, 3.2)},
                           .kind = StepKind::Topstitch,
                           .phase = f.site().phase,
                           .consumes = {f.id},
                           .yields = f.id},
            face);
    }
};

} // namespace

const FeatureKind& flapKind()
{
    static const Flap kind;
    return kind;
}

} // namespace tectonis
