// SPDX-License-Identifier: GPL-3.0-or-later
// Patch pocket stitched onto a face: flat and divided, pleated, with fullness, or a bellows pocket on a strip; with a
// flap if wanted.
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class PatchPocket : public FeatureKind {
public:
    std::string kind() const override { return "patch-pocket"; }
    std::string name() const override { return "Patch pocket"; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{14, 74}, {14, 14}, {86, 14}, {86, 74}, {14, 74}}),
            lineRun({{14, 74}, {24, 54}, {76, 54}, {86, 74}}), lineRun({{50, 54}, {50, 14}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Pocket width", "Finished width of the pocket on the face.", "0.5*face.width", follow(), "40",
                "face.width - 30"},
            {"height", "Pocket height", "Finished height of the pocket.", "0.45*face.height", follow(), "40",
                "face.height - 30"},
            {"drop", "Pocket drop", "From the mouth down to the pocket's top edge.", "0.35*face.height", follow(), "15",
                "face.height - 40"},
            {"across", "Sideways", "From the middle of the face to the middle of the pocket; to the right is positive.",
                "0", hold(), "-(face.width - @width)/2", "(face.width - @width)/2"},
            {"hem", "Hem",
                "Finished depth of the hem along the pocket's top edge; the cloth for turning its raw edge in is "
                "added.",
                "25", hold(), "8", "60"},
            {"depth", "Thing's thickness",
                "Thickness of what goes in: the bellows' depth, the pleats' depth or the fullness.", "20", hold(), "5",
                "80", DimensionSpec::Quantity::Length, "@body=pleated|full|elastic|bellows"},
            {"parts", "Divided into", "Compartments of a flat pocket, stitched from the bottom to the top edge.", "1",
                hold(), "1", "8", DimensionSpec::Quantity::Count, "@body=flat"},
            {"flap", "Flap length", "Length of the pocket's flap where it has one.", "max(20, 0.35*@height)", follow(),
                "15", "max(20, @height)", DimensionSpec::Quantity::Length, "@lid=yes"},
            {"allowance", "Pocket allowance", "Seam allowance round pocket, strip and flap.", "8", hold(), "4", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
                    on, "The face that the pocket sits on.", [](const SiteSpec&) { return true; }, "front",
                    OnParts::Yes, OnSmall::Yes),
            {"body", "Pocket body",
                "Flat; two pleats at the bottom; fuller than its place by the thing's thickness on both sides; "
                "gathered at the top by an elastic; or on a strip that folds like bellows.",
                {{"flat", "Flat"}, {"pleated", "Pleated"}, {"full", "With fullness"}, {"elastic", "Elastic top"},
                    {"bellows", "Bellows"}}},
            {"lid", "Flap", "A flap of two layers over the pocket.", {{"no", "Without"}, {"yes", "With flap"}}}};
    }

    std::vector<PartFace> faces() const override
    {
        return {{"front", "Patch pocket", "@width", "@height"},
            {"lid", "Pocket flap", "@width + 6", "@flap", "@lid=yes"},
            {"under", "Under the pocket's flap", "@width", "@height", "@lid=yes", true}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const std::string& body = f.choice("body");
        const double w = f("width"), h = f("height"), t = f("depth"), x = site.x + f("across"),
                     top = site.top - f("drop"), low = top - h, half = w / 2;
        const double extra = widthTaken(f);
        Piece& face = d.pieceAt(site, (top + low) / 2);
        const EdgeId mark = f.line("patch pocket");
        const std::string role = site.lining ? "lining" : "shell";
        f.placeOn(face, mark, lineRun({{x - half, top}, {x - half, low}, {x + half, low}, {x + half, top}}));
        Piece& pocket = d.add({.key = f.id,
            .code = d.freeCode("P"),
            .name = f.named(say("Patch pocket")),
            .coat = site.lining ? Coat::Lining : Coat::Shell,
            .role = "pocket",
            .material = role});
        const double box = body == "full" ? t : 0; // a boxed pocket has side walls, squares cut from its lower corners
        const double hem = hemCloth(f);
        box == 0 ? drawPlain(f, pocket, w + extra, hem) : drawBoxed(f, pocket, hem);
        pocket.areas["face"] = rectangleRun(box, box, box + w, box + h);
        f.offer("front", f.named(say("Patch pocket")), f.id, {box > 0 ? box + w / 2 : (w + extra) / 2, box + h}, w, h);
        d.pattern.overlays.push_back({f.id, face.key, {x - half - box, low - box}});
        d.pattern.spaces.push_back({f.id.text(), f.named(say("Patch pocket")), w + (body == "bellows" ? 2 * t : extra),
            h, body == "flat" ? 8 : t, 0, true});
        f.handle("width", face.key, {x + half, (top + low) / 2}, {1, 0}, 2);
        f.handle("height", face.key, {x, low}, {0, -1});
        const std::vector<EdgeUse> sides{{f.id, "left"}, {f.id, "bottom"}, {f.id, "right"}};
        if (body == "bellows")
            addBellows(f, sides, face.key, mark, role);
        else
            d.add(Seam{.key = f.key("on"),
                .name = say("{} on its face", f.named(say("Patch pocket"))),
                .a = sides,
                .b = {{face.key, mark}},
                .ease = box > 0 ? 0 : -extra,
                .easeNote = extra > 0 && box == 0
                    ? (body == "pleated" ? say("folded into the pleats") : say("pleated into the lower corners"))
                    : Message(),
                .stitch = "topstitch"});
        hemStep(f, pocket.name, face.key, hem);
        if (body == "bellows")
            bellowsStep(f, face.key);
        onStep(f, pocket.name, face);
        if (f.choice("lid") == "yes")
            addLid(f, face.key, role);
    }

    /// What pleats and fullness take of the width.
    static double widthTaken(FeatureScope& f)
    {
        Drafter& d = f.d;
        const std::string& body = f.choice("body");
        const double t = f("depth");
        if (body == "pleated")
            return d.work({f.id, f.key("pleats"), say("Width taken by the pleats"), "2*2*depth", {{"depth", t}}, 0,
                Kind::Geometry, "mm", say("each of two pleats of visible depth p takes 2p")});
        if (body == "full")
            return d.work({f.id, f.key("full"), say("Fullness of the pocket"), "2*thickness", {{"thickness", t}}, 0,
                Kind::Geometry, "mm",
                say("front = back + 2t for a boxed shape; the height takes one thickness for the bottom")});
        if (body == "elastic")
            return d.work({f.id, f.key("full"), say("Fullness of the pocket"), "2*thickness", {{"thickness", t}}, 0,
                Kind::Geometry, "mm",
                say("front = back + 2t: gathered by the elastic above, pleated into the corners below")});
        return 0;
    }

    static void drawPlain(FeatureScope& f, Piece& pocket, double wide, double hem)
    {
        const std::string& body = f.choice("body");
        const double w = f("width"), h = f("height"), s = f("allowance"), t = f("depth");
        pocket.edges = {{"bottom", lineRun({{0, 0}, {wide, 0}}), s, {}},
            {"right", lineRun({{wide, 0}, {wide, h}}), s, {}, Corner::FoldBack},
            {"top", lineRun({{wide, h}, {0, h}}), hem, {}, Corner::FoldBack, true},
            {"left", lineRun({{0, h}, {0, 0}}), s, {}}};
        for (int i = 1; body == "flat" && i < int(std::lround(f("parts"))); ++i)
            pocket.lines.push_back(
                {"divider", FaceLine::Kind::Topstitch, lineRun({{w * i / f("parts"), 0}, {w * i / f("parts"), h}})});
        if (body == "pleated")
            for (const double at :
                {w / 3, w / 3 + 2 * t, 2 * w / 3 + 2 * t, 2 * w / 3 + 4 * t}) // finished, they lie at the thirds
                pocket.lines.push_back({"pleat", FaceLine::Kind::Pleat, lineRun({{at, 0}, {at, std::min(h, 60.0)}})});
    }

    static void drawBoxed(FeatureScope& f, Piece& pocket, double hem)
    {
        const double w = f("width"), h = f("height"), s = f("allowance"), box = f("depth"), wide = w + 2 * box;
        pocket.edges = {{"bottom", lineRun({{box, 0}, {box + w, 0}}), s, {}},
            {"right wall", lineRun({{box + w, 0}, {box + w, box}}), s, {}},
            {"right ledge", lineRun({{box + w, box}, {wide, box}}), s, {}},
            {"right", lineRun({{wide, box}, {wide, box + h}}), s, {}, Corner::FoldBack},
            {"top", lineRun({{wide, box + h}, {0, box + h}}), hem, {}, Corner::FoldBack, true},
            {"left", lineRun({{0, box + h}, {0, box}}), s, {}}, {"left ledge", lineRun({{0, box}, {box, box}}), s, {}},
            {"left wall", lineRun({{box, box}, {box, 0}}), s, {}}};
        for (const char* side : {"right", "left"})
            f.d.add(Seam{.key = f.key(std::string("box ") + side),
                .name = say("{}, boxed corner, {}", pocket.name, sideLabel(side)),
                .a = {{f.id, std::string(side) + " wall", 0, std::string(side) == "right"}},
                .b = {{f.id, std::string(side) + " ledge", 0, std::string(side) == "left"}},
                .allowance = s});
        for (const auto& [from, to] : {std::pair{Point{box, box}, Point{box, box + h}},
                 {Point{box + w, box}, Point{box + w, box + h}}, {Point{box, box}, Point{box + w, box}}})
            pocket.lines.push_back({"box fold", FaceLine::Kind::Fold, lineRun({from, to})});
    }

    /// The pocket by itself, before it goes onto its face.
    void hemStep(FeatureScope& f, const Message& name, const PieceId& face, double hem) const
    {
        Drafter& d = f.d;
        const std::string& body = f.choice("body");
        const double w = f("width");
        const double elastic = body != "elastic"
            ? 0
            : d.work({f.id, f.key("elastic"), say("Elastic, cut"), "0.9*width + 2*end", {{"width", w}, {"end", 12}}, 0,
                Kind::Trade, "mm", say("nine tenths of the place, {} caught at both ends", Len(12))});
        if (elastic > 0)
            d.pattern.hardware.push_back({Ware::Elastic, 1, elastic,
                say("{}, under {} wide", Len(elastic), Len(f("hem"))), say("in the pocket's hem")});
        std::vector<Act> make;
        if (body == "elastic" || body == "pleated")
            make.push_back(act::of(Act::Verb::Pleat, f.id));
        else if (body == "full") {
            make.push_back({.verb = Act::Verb::Box});
            make.push_back(act::sew({f.key("box right"), f.key("box left")}));
        }
        make.push_back(act::of(Act::Verb::Hem, f.id, f("hem"), hem));
        if (body == "elastic")
            make.push_back(act::with(act::of(Act::Verb::DrawIn, f.id, elastic), {Ware::Elastic}));
        if (body != "bellows") // whose strip is sewn to its sides
            make.push_back(act::of(Act::Verb::FoldIn, f.id, f("allowance")));
        d.addOnTop(Step{.id = f.key("make"),
                       .title = say("Hem the {}", within(name)),
                       .acts = std::move(make),
                       .kind = StepKind::Flat,
                       .phase = f.site().phase,
                       .consumes = {f.id},
                       .yields = f.id,
                       .check = say("Finished {} × {} on its face.", Len(w), Len(f("height")))},
            face);
    }

    void onStep(FeatureScope& f, const Message& name, const Piece& face) const
    {
        f.d.addOnTop(Step{.id = f.key("on"),
                         .title = say("Stitch the {} onto the {}", within(name), within(face.name)),
                         .acts = {act::saying(act::stitchOn({f.key("on")}),
                             f("parts") > 1 && f.choice("body") == "flat" ? say("Sew the dividers from the bottom up.")
                                                                          : Message())},
                         .kind = StepKind::Flat,
                         .phase = f.site().phase,
                         .consumes = {face.key, f.id},
                         .yields = face.key,
                         .pieces = {f.id, face.key},
                         .check = say("The pocket's top edge runs level with the upper edge of its face.")},
            face.key);
    }

    /// Cloth that the hem takes: folded once to its finished depth, its raw edge turned in by 8 mm, or by a narrower
    /// hem's own depth (common practice, no source).
    static double hemCloth(FeatureScope& f)
    {
        return f.d.work({f.id, f.key("hem.cloth"), say("Cloth for the hem"), "hem + min(8, hem)", {{"hem", f("hem")}},
            0, Kind::Trade, "mm", say("folded twice: the raw edge is turned in, then the hem")});
    }

    /// A strip round three sides: one long edge to the pocket, the other onto the face.
    void addBellows(FeatureScope& f, const std::vector<EdgeUse>& sides, const PieceId& face, const EdgeId& mark,
        const std::string& role) const
    {
        Drafter& d = f.d;
        const double run = d.work({f.id, f.key("strip"), say("Bellows strip, stitch length"), "2*height + width",
            {{"height", f("height")}, {"width", f("width")}}, 0, Kind::Geometry, "mm",
            say("once round the pocket's three sewn sides")});
        Piece& strip = d.add({.key = f.key("bellows"),
            .code = d.freeCode("P"),
            .name = f.named(say("Bellows strip")),
            .coat = role == "lining" ? Coat::Lining : Coat::Shell,
            .role = "pocket",
            .material = role,
            .grain = 0});
        drawRectangle(strip, run, f("depth"), f("allowance"));
        strip.lines.push_back(
            {"bellows fold", FaceLine::Kind::Fold, lineRun({{0, f("depth") / 2}, {run, f("depth") / 2}})});
        d.add(Seam{.key = f.key("bellows"),
            .name = say("{} to its bellows", f.named(say("Patch pocket"))),
            .a = sides,
            .b = {{strip.key, "bottom"}},
            .allowance = f("allowance")});
        d.add(Seam{.key = f.key("on"),
            .name = say("{} on the face", f.named(say("Bellows"))),
            .a = {{strip.key, "top", 0, true}},
            .b = {{face, mark}},
            .stitch = "topstitch"});
    }

    void bellowsStep(FeatureScope& f, const PieceId& face) const
    {
        f.d.addOnTop(
            Step{.id = f.key("bellows"),
                .title = say("Sew the bellows strip to the pocket"),
                .acts = {act::of(Act::Verb::HemEnds, f.key("bellows"), f("allowance")),
                    act::of(Act::Verb::Crease, f.key("bellows")), act::clip({f.key("bellows")}),
                    act::sew({f.key("bellows")}), act::of(Act::Verb::FoldIn, f.key("bellows"), f("allowance"))},
                .kind = StepKind::Flat,
                .phase = f.site().phase,
                .consumes = {f.id, f.key("bellows")},
                .yields = f.id,
                .pieces = {f.id, f.key("bellows")},
                .check = say("The strip's ends are level with the hem.")},
            face);
    }

    void addLid(FeatureScope& f, const PieceId& face, const std::string& role) const
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double w = f("width") + 6, x = site.x + f("across"), y = site.top - f("drop") + 12, s = f("allowance"),
                     radius = std::min({12.0, w / 4, f("flap") / 2});
        for (const bool under : {false, true}) {
            Piece& lid = d.add({.key = f.key(under ? "lid.under" : "lid"),
                .code = d.freeCode("P"),
                .name = f.named(under ? say("Pocket flap lining") : say("Pocket flap")),
                .coat = under || role == "lining" ? Coat::Lining : Coat::Shell,
                .role = "pocket",
                .material = under ? "lining" : role});
            drawUPanel(lid,
                {.width = w, .height = f("flap"), .radius = radius, .allowance = s, .topAllowance = s, .top = "hinge"});
        }
        d.add(Seam{.key = f.key("lid"),
            .name = say("{} to its lining", f.named(say("Pocket flap"))),
            .a = d.runWithout(f.key("lid"), "hinge"),
            .b = d.runWithout(f.key("lid.under"), "hinge"),
            .allowance = s});
        const Site front = d.site(SiteId(f.key("front").text()));
        f.offer("under", say("Under the pocket's flap"), f.id, {front.x, front.top}, front.width, front.height);
        f.offer("lid", f.named(say("Pocket flap")), f.key("lid"), {0, f("flap")}, w, f("flap"));
        d.piece(face).lines.push_back(
            {f.line("pocket flap"), FaceLine::Kind::Placement, lineRun({{x - w / 2, y}, {x + w / 2, y}})});
        d.add(Seam{.key = f.key("lid.on"),
            .name = say("{} on its face", f.named(say("Pocket flap"))),
            .a = {{face, f.line("pocket flap")}},
            .b = {{f.key("lid"), "hinge", 0, true}},
            .stitch = "topstitch"});
        d.pattern.hinged.push_back({f.key("lid"), f.key("lid.under"), face, {x, y}, f("flap")});
        const act::Seams layers{f.key("lid")};
        d.addOnTop(Step{.id = f.key("lid"),
                       .title = say("Make the pocket's flap"),
                       .acts = {act::sew(layers), act::grade(layers), act::turn(layers), act::roll(layers, 3.2)},
                       .kind = StepKind::Flat,
                       .phase = site.phase,
                       .consumes = {f.key("lid"), f.key("lid.under")},
                       .yields = f.key("lid ready"),
                       .pieces = {f.key("lid"), f.key("lid.under")}},
            face);
        d.addOnTop(Step{.id = f.key("lid.on"),
                       .title = say("Stitch the pocket's flap on"),
                       .acts = {{.verb = Act::Verb::Hinge, .seams = {f.key("lid.on")}, .distance = 6.4}},
                       .kind = StepKind::Flat,
                       .phase = site.phase,
                       .consumes = {face, f.key("lid ready")},
                       .yields = face,
                       .pieces = {f.key("lid"), face},
                       .check = say("The flap covers the pocket's mouth on both sides.")},
            face);
    }
};

} // namespace

const FeatureKind& patchPocketKind()
{
    static const PatchPocket kind;
    return kind;
}

} // namespace tectonis
