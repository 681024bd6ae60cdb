// SPDX-License-Identifier: GPL-3.0-or-later
// Gusseted satchel: front and back with round bottom corners, a U-gusset in one or two strips, open top, full lining.
#include "drafting/gusset.hpp"
#include "drafting/unlined.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class GussetedSatchel : public Form {
public:
    std::string id() const override { return "gusseted-satchel"; }
    std::string name() const override { return "Gusseted satchel"; }
    std::string meaning() const override
    {
        return "Front and back panel with round bottom corners, joined by a gusset that runs down one side, along the "
               "bottom and up the other.";
    }

    std::vector<Run> silhouette() const override
    {
        Piece p;
        drawUPanel(p, {.width = 84, .height = 62, .radius = 14, .taper = 3});
        Piece flap;
        drawUPanel(flap, {.width = 76, .height = 36, .radius = 16});
        Run strap{Cubic{{-34, 62}, {-44, 106}, {44, 106}, {34, 62}}};
        return {placed(p.stitch(), {50, 4}), placed(flap.stitch(), {50, 34}), placed(strap, {50, 4})};
    }

    // ---- Dimensions -----------------------------------------------------------------------------------------------

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Width",
                "Finished width of front and back at the bottom, side seam to side seam, before the corners are "
                "rounded.",
                "300", step(30), "80", "900"},
            {"height", "Height", "Finished height of front and back, from the bottom seam to the mouth.", "240",
                step(20), "80", "900"},
            {"depth", "Depth", "Finished depth: the gusset's width between its two long seams.", "100", step(10), "20",
                "400"},
            {"radius", "Corner radius", "Radius of the round bottom corners on the stitch line.", "45", hold(), "4",
                "min(width/2, (bow == 0 ? 1 : 0.6)*sqrt(height^2 + taper^2)) / tan(pi/4 + atan2(taper, height)/2 - "
                "atan2(4*bow, sqrt(height^2 + taper^2))/2)"},
            {"taper", "Taper", "How far each side leans in at the mouth; negative flares out.", "8", hold(), "-width/6",
                "width/4"},
            {"bow", "Curve of the sides",
                "How far the middle of each side lies outside the straight line from its corner to the mouth; "
                "negative: a waist.",
                "0", hold(), "-min(width, height)/12", "min(width, height)/8"},
            {"depth.mouth", "Depth at the mouth",
                "Finished depth at the mouth, where the gusset narrows; as the depth, or down to what a zip between "
                "the panels shows.",
                "depth", follow(), "max(min(8, depth), depth - 1.2*(height - max(narrow.from, corner.reach)))",
                "depth"},
            {"narrow.from", "Gusset narrows from",
                "Height above the bottom from which the gusset narrows towards the mouth.", "0.35*height", follow(),
                "0", "0.75*height", DimensionSpec::Quantity::Length, "depth.mouth < depth"},
            {"gusset.side", "Gusset side strips",
                "How far the side strips reach from the mouth along the panel's outline: where they are joined to the "
                "bottom strip.",
                "sqrt(height^2 + taper^2) - corner.reach + radius*(pi/2 + atan2(taper, height)) + min(25, 0.2*(width - "
                "2*corner.reach))",
                follow(), "depth.mouth < depth ? sqrt(height^2 + taper^2)*(1 - narrow.from/height) + 15 : 30",
                "sqrt(height^2 + taper^2) + width/2 - 20", DimensionSpec::Quantity::Length, "gusset.strips=three"},
            {"allowance.body", "Body allowance", "Seam allowance of the seams between panels and gusset, shell.", "10",
                hold(), "5", "20"},
            {"allowance.mouth", "Mouth allowance",
                "Seam allowance at the mouth, shell and lining; without a lining the depth of its hem.", "10", hold(),
                "5", "25"},
            {"allowance.lining", "Lining allowance", "Seam allowance of the lining's seams at the mouth end.",
                "allowance.body", follow(), "5", "20", DimensionSpec::Quantity::Length, "assembly=bagged-out|drop-in"},
            {"allowance.wide", "Wide lining allowance",
                "Allowance of the lining's seams from the middle down, where the lining is sewn with a wider seam.",
                "allowance.lining + 3.2", follow(), "allowance.lining", "26", DimensionSpec::Quantity::Length,
                "lining.fit=wider-seam"},
            {"opening.length", "Turning opening",
                "Length left open in the lining's bottom seam to turn the bag through.", "130", hold(), "40", "width",
                DimensionSpec::Quantity::Length, "assembly=bagged-out"},
            {"board.inset", "Base board inset", "Gap between base board and the seams round it.", "3", hold(), "1",
                "15", DimensionSpec::Quantity::Length, "base.board=yes"},
        };
    }

    std::vector<ChoiceSpec> choices() const override
    {
        return {
            {"gusset.strips", "Gusset strips",
                "One strip, two joined at the centre bottom, or two sides and a bottom joined in the corners.",
                {{"one", "One strip"}, {"two", "Two, centre seam"}, {"three", "Sides and bottom"}}},
            {"gusset.length", "Gusset ends", "Cut exactly, or cut long and trimmed level with the panels after sewing.",
                {{"exact", "Cut exact"}, {"long", "Cut long and trimmed"}}},
            {"lining.fit", "Lining fit",
                "How the lining is made to hang inside without wrinkles: same cut with a wider seam from the middle "
                "down, drafted smaller by the wall's thickness, or the same size.",
                {{"wider-seam", "Wider seam below"}, {"smaller", "Drafted smaller"}, {"same", "Same as the shell"}},
                "assembly=bagged-out|drop-in"},
            {"assembly", "Joining shell and lining",
                "Bagged out through a turning opening; the lining dropped in and edge-stitched; or no lining, the "
                "mouth hemmed.",
                {{"bagged-out", "Bagged out"}, {"drop-in", "Drop-in"}, unlinedOptions()[0], unlinedOptions()[1],
                    unlinedOptions()[2], unlinedOptions()[3], unlinedOptions()[4]}},
            {"base.board", "Base board", "A loose board on the bottom.", {{"yes", "With board"}, {"no", "Without"}}},
        };
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {
            {"corner.reach", "radius*tan(pi/4 + atan2(taper, height)/2 - atan2(4*bow, sqrt(height^2 + taper^2))/2)"},
            {"face.width", "width - 2*max(taper, 0)"}, {"face.height", "height"}, {"mouth.depth", "depth.mouth"},
            {"side.face.height", "height - corner.reach"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        auto out = frontAndBack(true);
        for (auto& side : sideWalls())
            out.push_back(std::move(side));
        return out;
    }

    bool anchored() const override { return true; }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        design.materials = {
            {"shell", "canvas-12"}, {"lining", "lining-cotton"}, {"strap", "webbing-cotton"}, {"board", "board"}};
        design.layers = {
            {"panel", "foam-sewin", "basted", "stitch", {{"top", "inset 12"}}, ""},
            {"gusset", "foam-sewin", "basted", "stitch", {{"left mouth", "inset 12"}, {"right mouth", "inset 12"}}, ""},
            {"flap", "fusible-woven", "fused", "full", {}, ""},
            {"flap lining", "fusible-woven", "fused", "full", {}, ""},
            {"lining panel", "fusible-woven", "fused", "full", {}, ""},
            {"pocket", "fusible-woven", "fused", "full", {}, ""},
        };
        design.features = {{"flap", "flap"}, {"snap", "snap"}, {"slip", "slip-pocket"}, {"zip", "zip-pocket"},
            {"connectors", "connectors"}, {"strap", "strap"}};
        design.carried = {
            {"Folder, A5", 150, 210, 20, "main"}, {"Case", 220, 90, 45, "main"}, {"Phone", 76, 160, 9, "slip"}};
    }

    // ---- Pieces and seams -----------------------------------------------------------------------------------------

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawGusseted(shell, body(p));
        addBottom(d);
        workGusset(d);
        CoatDraft lining = CoatDraft::lining(d, liningInset(d));
        drawGusseted(lining, liningBody(d, lining.shrink));
        const auto hull = [&](double in) {
            return Hull{p.width - 2 * in, p.depth - 2 * in, p.height - in, 2 * (p.width + p.depth) - 8 * in};
        };
        workSlack(d, "front", hull(0), hull(lining.shrink), hull(d.stack("panel", "front", "shell")).girth);
        if (d.choice("base.board") == "yes")
            draftBoard(d);
        addPlaces(d);
        addSideFaces(shell, body(p), d("side.face.height"));
        addSideFaces(lining, liningBody(d, lining.shrink), d("side.face.height"));
        addHandles(d);
        addSpaces(d);
        sewGusseted(shell, body(p));
        sewGusseted(lining, liningBody(d, lining.shrink));
        joinCoats(d,
            {.mouth = mouthOf(body(p)),
                .open = lined("front-gusset"),
                .board = p.piece("base.board") ? "base.board" : ""});
    }

    bool two(const Drafter& d) const { return d.choice("gusset.strips") != "one"; }
    bool cutLong(const Drafter& d) const { return d.choice("gusset.length") == "long"; }
    static constexpr double kLong = 25; ///< mm beyond the mouth (common practice, no source)

    /// How far each long edge of the gusset lies further in at the mouth.
    static double narrowing(const Pattern& p)
    {
        return std::max(0.0, (p.values.at("depth") - p.values.at("depth.mouth")) / 2);
    }

    /// The shell's body.
    Gusseted body(const Pattern& p) const
    {
        const auto v = [&](const char* name) { return p.values.at(name); };
        const std::string& strips = p.choices.at("gusset.strips");
        const double narrow = narrowing(p);
        return {.panel = {.width = v("width"),
                    .height = v("height"),
                    .radius = v("radius"),
                    .taper = v("taper"),
                    .bow = v("bow"),
                    .easeTo = narrow > 0 ? v("narrow.from") : 0,
                    .divided = narrow > 0,
                    .allowance = v("allowance.body"),
                    .topAllowance = v("allowance.mouth"),
                    .lowAllowance = v("allowance.body")},
            .depth = v("depth"),
            .narrow = narrow,
            .strips = strips == "one" ? Gusseted::Strips::One
                : strips == "two"     ? Gusseted::Strips::Two
                                      : Gusseted::Strips::Three,
            .side = v("gusset.side"),
            .extra = p.choices.at("gusset.length") == "long" ? kLong : 0,
            .carries = sidesCarry(p)};
    }

    /// The straight part of the gusset's bottom; two halves meet there in a seam.
    void addBottom(Drafter& d) const
    {
        const std::string& strips = d.choice("gusset.strips");
        if (strips == "two")
            return;
        const PieceId piece = strips == "one" ? "gusset" : "gusset.bottom";
        const Box box = boundsOf(d.piece(piece).stitch());
        const double half = d("width") / 2 - d("radius"), middle = box.centre().x;
        d.pattern.bottoms.push_back({piece, {middle - half, box.y0, middle + half, box.y1}});
    }

    /// The same for the lining, whose walls lie @p inset mm further in, or only from the middle down.
    Gusseted liningBody(const Drafter& d, double inset) const
    {
        Gusseted g = body(d.pattern);
        g.panel.inset = inset;
        if (!g.panel.divided)
            g.panel.easeTo = wider(d) ? d("height") / 2 : 0;
        g.panel.allowance = d("allowance.lining");
        g.panel.lowAllowance = wider(d) ? d("allowance.wide") : d("allowance.lining");
        return g;
    }

    void workGusset(Drafter& d) const
    {
        const double s = d("allowance.body");
        const double turn = cornerTurn(d("taper"), d("height"), d("bow"));
        if (d("bow") == 0)
            d.work({"gusset", "gusset.run", say("U-run of the panel"),
                "2*(hypot - radius*tan(turn/2)) + 2*radius*turn + width - 2*radius*tan(turn/2)",
                {{"hypot", std::hypot(d("height"), d("taper"))}, {"radius", d("radius")}, {"turn", turn},
                    {"width", d("width")}},
                0, Kind::Geometry, "mm",
                say("length of the side, corner and bottom edges; turn is the corner's angle in radians, hypot the "
                    "slanted side")});
        else {
            double sides = 0;
            for (const auto& e : d.piece("front").edges)
                sides += e.name == "left side" || e.name == "left ease" ? e.length() : 0;
            d.work({"gusset", "gusset.run", say("U-run of the panel"),
                "2*side + 2*radius*turn + width - 2*radius*tan(turn/2)",
                {{"side", sides}, {"radius", d("radius")}, {"turn", turn}, {"width", d("width")}}, 0, Kind::Geometry,
                "mm",
                say("side: the curved side, measured along its stitch line; turn is the corner's angle in radians")});
        }
        if (narrowing(d.pattern) > 0)
            d.work({"gusset", "gusset.narrow", say("Gusset narrows on each side by"), "(depth - mouth)/2",
                {{"depth", d("depth")}, {"mouth", d("depth.mouth")}}, 0, Kind::Geometry, "mm",
                say("the slanted edge is as long as the panel's side beside it")});
        d.work({"gusset", "gusset.surplus", say("Cut edge longer than stitch line at the corners"), "2*allowance*turn",
            {{"allowance", s}, {"turn", turn}}, 0, Kind::Geometry, "mm",
            say("allowance × angle at each corner: a gusset measured on the cut edge comes out this much too long")});
        d.work({"gusset", "gusset.clip", say("Clip spacing at the corners"), "opening*radius/allowance",
            {{"opening", 3}, {"radius", d("radius")}, {"allowance", s}}, 0, Kind::Trade, "mm",
            say("a straight allowance on a convex curve opens by allowance/radius; {} gaps are common practice",
                Len(3))});
        d.work({"gusset", "gusset.clipDepth", say("Clip depth"), "allowance - 2", {{"allowance", s}}, 0, Kind::Trade,
            "mm", say("common practice")});
    }

    bool wider(const Drafter& d) const { return d.choice("lining.fit") == "wider-seam"; }

    double liningInset(Drafter& d) const
    {
        if (wider(d))
            return d.work({lined("front"), "lining.inset", say("Lining moved in, from the middle down"),
                "wide - allowance", {{"wide", d("allowance.wide")}, {"allowance", d("allowance.lining")}}, 0,
                Kind::Trade, "mm", say("same cut as the shell, sewn with a wider seam; the mouth is unchanged")});
        if (d.choice("lining.fit") == "smaller")
            return d.work({lined("front"), "lining.inset", say("Lining moved in, all round but the mouth"), "wall",
                {{"wall", d.stack("panel", "front", "shell")}}, 0, Kind::Geometry, "mm",
                say("nested boxes: each inside dimension is twice the wall's thickness less")});
        return 0;
    }

    void draftBoard(Drafter& d) const
    {
        // A bag that is all corner has no flat for a board.
        const Edge* bottom = d.piece("front").edge("bottom");
        const double flat = bottom ? bottom->length() : 0;
        if (flat - 2 * d("board.inset") < 20 || d("depth") - 2 * d("board.inset") < 10)
            return;
        const double length = d.work({"base.board", "board.length", say("Base board length"), "bottom - 2*inset",
            {{"bottom", flat}, {"inset", d("board.inset")}}, 0, Kind::Trade, "mm",
            say("the flat of the bottom between the corners, less the gap at both ends")});
        const double width = d.work({"base.board", "board.width", say("Base board width"), "depth - 2*inset",
            {{"depth", d("depth")}, {"inset", d("board.inset")}}, 0, Kind::Trade, "mm",
            say("the gusset's depth, less the gap on both sides")});
        Piece& board = d.add({.key = "base.board",
            .code = "R",
            .name = say("Base board"),
            .coat = Coat::Interlining,
            .role = "board",
            .material = "board",
            .grain = 0});
        drawRectangle(board, length, width, 0);
        board.note = say("Round the corners so that they do not wear through.");
    }

    void addPlaces(Drafter& d) const
    {
        const std::string phases[] = {"Shell front", "Shell back", "Lining", "Lining"};
        const PieceId pieces[] = {"front", "back", lined("front"), lined("back")};
        std::size_t i = 0;
        for (const auto& spec : frontAndBack(true)) {
            d.pattern.sites.push_back({SiteId(spec.name), labelled(Label{spec.label}), {pieces[i]}, 0, d("height"),
                d("face.width"), d("height"), phases[i], spec.lining});
            ++i;
        }
        const double end = two(d) ? 0 : boundsOf(d.piece("gusset").stitch()).x1,
                     room = d("depth.mouth") - 2 * d("allowance.body");
        // Ends that are cut long are trimmed after joining: whatever is caught there is basted then.
        const bool own = two(d) && d.pattern.piece("gusset.right");
        const std::string part = cutLong(d) ? "shell"
            : own                           ? "joined gusset"
                                            : "gusset",
                          phase = cutLong(d) ? "Shell assembly" : "Shell gusset";
        d.pattern.anchors.push_back({"left", "gusset", {0, d("depth") / 2}, room, part, phase});
        d.pattern.anchors.push_back(
            {"right", own ? "gusset.right" : "gusset", {end, d("depth") / 2}, room, part, phase});
    }

    // ---- Handles and spaces ---------------------------------------------------------------------------------------

    void addHandles(Drafter& d) const
    {
        const double h = d("height"), w = d("width"), r = d("radius");
        const double diagonal = std::sqrt(0.5);
        d.pattern.handles.push_back({"width", "front", {w / 2, r * 0.2}, {1, 0}, 2});
        d.pattern.handles.push_back({"height", "front", {-w / 6, h}, {0, 1}, 1});
        d.pattern.handles.push_back({"radius", "front", {-w / 2 + r * (1 - diagonal), r * (1 - diagonal)},
            {diagonal, diagonal}, 1 / (std::sqrt(2.0) - 1)});
        d.pattern.handles.push_back({"taper", "front", {w / 2 - d("taper"), h}, {-1, 0}, 1});
        if (const Edge* side = d.piece("front").edge("right side"); side && d("bow") != 0)
            d.pattern.handles.push_back({"bow", "front", pointAlong(side->stitch, side->length() / 2), {1, 0}, 1});
        d.pattern.handles.push_back(
            {"depth", "gusset", {lengthOf(d.piece("gusset").edge("front")->stitch) / 2, d("depth")}, {0, 1}, 1});
    }

    void addSpaces(Drafter& d) const
    {
        const double panel = d.stack("panel", "front", "shell")
            + (unlined(d) ? 0 : d.stack("lining panel", lined("front"), "lining"));
        const double side = d.stack("gusset", "gusset", "shell")
            + (unlined(d) ? 0 : d.stack("lining gusset", lined("gusset"), "lining"));
        const double board = d.choice("base.board") == "yes"
            ? d.pattern.material(d.pattern.materials.at("board")).thickness
            : 0;
        const double width = d.work({"body", "inside.width", say("Inside width"), "width - 2*side",
            {{"width", d("width")}, {"side", side}}, 0, Kind::Geometry, "mm",
            say("each inside dimension is twice the wall's thickness less; side: gusset, foam and lining")});
        const double depth = d.work({"body", "inside.depth", say("Inside depth"), "depth - 2*wall",
            {{"depth", d("depth")}, {"wall", panel}}, 0, Kind::Geometry, "mm", say("wall: panel, foam and lining")});
        const double height = d.work({"body", "inside.height", say("Inside height"), "height - base - board",
            {{"height", d("height")}, {"base", side}, {"board", board}}, 0, Kind::Geometry, "mm",
            say("the mouth is open, so only the bottom takes from the height")});
        d.pattern.spaces.push_back(
            {"main", say("Main space"), width, height, depth, std::max(0.0, d("radius") - side), false});
    }

    // ---- Folding --------------------------------------------------------------------------------------------------

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const Gusseted g = body(p);
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) { foldGusseted(folder, p, g, coat); });
        const LeaningPanel panel = panelOf(p, g, {});
        dressUp(m, design, p, panel.top(), panel.mouth);
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, panel.top(), panel.mouth}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.32, p.height * 0.12, panel.low}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& gussetedSatchel()
{
    static const GussetedSatchel form;
    return form;
}

} // namespace tectonis
