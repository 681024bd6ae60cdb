// SPDX-License-Identifier: GPL-3.0-or-later
// Gusseted satchel: front and back with round bottom corners, a U-gusset in one or two strips, open top, full lining.
#include "drafting/coat.hpp"
#include "drafting/panels.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "mockup/folder.hpp"
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
            {"allowance.mouth", "Mouth allowance", "Seam allowance at the mouth, shell and lining.", "10", hold(), "5",
                "25"},
            {"allowance.lining", "Lining allowance", "Seam allowance of the lining's seams at the mouth end.",
                "allowance.body", follow(), "5", "20"},
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
                {{"wider-seam", "Wider seam below"}, {"smaller", "Drafted smaller"}, {"same", "Same as the shell"}}},
            {"assembly", "Joining shell and lining",
                "Bagged out through a turning opening, or the lining dropped in and edge-stitched.",
                {{"bagged-out", "Bagged out"}, {"drop-in", "Drop-in"}}},
            {"base.board", "Base board", "A loose board on the bottom.", {{"yes", "With board"}, {"no", "Without"}}},
        };
    }

    std::vector<std::pair<std::string, std::string>> derived() const override
    {
        return {
            {"corner.reach", "radius*tan(pi/4 + atan2(taper, height)/2 - atan2(4*bow, sqrt(height^2 + taper^2))/2)"},
            {"face.width", "width - 2*max(taper, 0)"}, {"face.height", "height"}, {"mouth.depth", "depth.mouth"}};
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

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
        draftShell(d);
        draftLining(d);
        if (d.choice("base.board") == "yes")
            draftBoard(d);
        addPlaces(d);
        addHandles(d);
        addSpaces(d);
        addSteps(d);
    }

    /// Two strips of the gusset are mirror images of each other, with or without a bottom between them.
    bool two(const Drafter& d) const { return d.choice("gusset.strips") != "one"; }
    bool three(const Drafter& d) const { return d.choice("gusset.strips") == "three"; }
    bool cutLong(const Drafter& d) const { return d.choice("gusset.length") == "long"; }
    static constexpr double kLong = 25; ///< mm beyond the mouth (common practice, no source)

    /// How far the side strips of three reach down the panel; of the lining's shorter run as large a share.
    static double sideReach(const Drafter& d, const Piece& panel)
    {
        const auto run = [](const Piece& of) {
            double sum = 0;
            for (const auto& e : of.edges)
                sum += e.name == "top" ? 0 : e.length();
            return sum;
        };
        const double half = run(panel) / 2;
        // The lining's sides widen over the ease: its side strips reach past that.
        const Edge* ease = panel.edge("left ease");
        return std::min(
            std::max(d("gusset.side") * half / (run(*d.pattern.piece("front")) / 2), ease ? ease->length() + 10 : 0),
            half - 10);
    }

    /// The gusset's pieces in one coat, along its front panel.
    void drawGusset(Drafter& d, Piece& piece, const std::string& of, double allowance, double low) const
    {
        const Piece& panel = d.piece(of + "front");
        Strip strip{.depth = d("depth"),
            .narrow = narrowing(d.pattern),
            .half = two(d),
            .allowance = allowance,
            .mouthAllowance = d("allowance.mouth") + (cutLong(d) ? kLong : 0),
            .lowAllowance = low};
        if (three(d))
            strip.upTo = sideReach(d, panel);
        drawStripAlong(piece, panel, strip);
        if (!three(d))
            return;
        double run = 0;
        for (const auto& e : panel.edges)
            run += e.name == "top" ? 0 : e.length();
        const double y0 = startOf(piece.edge("front")->stitch).y, y1 = startOf(piece.edge("back")->stitch).y;
        Piece& bottom = d.add({.key = of + "gusset.bottom",
            .code = piece.code + "2",
            .name = of.empty() ? say("Gusset bottom") : say("Lining gusset bottom"),
            .group = piece.group,
            .role = piece.role,
            .material = piece.material,
            .grain = 0});
        drawRectangle(bottom, run - 2 * strip.upTo, y1 - y0, low);
    }

    UPanel panelShape(const Drafter& d) const
    {
        return {.width = d("width"),
            .height = d("height"),
            .radius = d("radius"),
            .taper = d("taper"),
            .bow = d("bow"),
            .easeTo = narrowing(d.pattern) > 0 ? d("narrow.from") : 0,
            .divided = narrowing(d.pattern) > 0,
            .allowance = d("allowance.body"),
            .topAllowance = d("allowance.mouth"),
            .lowAllowance = d("allowance.body")};
    }

    /// How far each long edge of the gusset lies further in at the mouth.
    static double narrowing(const Pattern& p)
    {
        return std::max(0.0, (p.values.at("depth") - p.values.at("depth.mouth")) / 2);
    }

    void draftShell(Drafter& d) const
    {
        const double s = d("allowance.body");
        for (const auto& [key, code, name] : {std::tuple{"front", "A", say("Front")}, {"back", "B", say("Back")}}) {
            Piece& panel = d.add({.key = key,
                .code = code,
                .name = name,
                .group = PieceGroup::Shell,
                .role = "panel",
                .material = "shell"});
            drawUPanel(panel, panelShape(d));
        }
        Piece& gusset = d.add({.key = "gusset",
            .code = "C",
            .name = three(d) ? say("Gusset side")
                : two(d)     ? say("Gusset half")
                             : say("Gusset"),
            .group = PieceGroup::Shell,
            .role = "gusset",
            .material = "shell",
            .count = two(d) ? 2 : 1,
            .mirrored = two(d) ? 1 : 0,
            .grain = 0});
        drawGusset(d, gusset, "", s, s);
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
        gussetSeams(d, "", "", s);
    }

    /// Panels to gusset, front and back, and the centre-bottom seam. @p of is "" for the shell or "lining." for the
    /// lining.
    void gussetSeams(Drafter& d, const std::string& of, const std::string& title, double s) const
    {
        const std::string g = of + "gusset";
        const auto side = [&](const std::string& which) {
            std::vector<EdgeUse> uses;
            const Piece& piece = d.piece(g);
            for (const auto& e : piece.edges)
                if (e.name.text().starts_with(which))
                    uses.push_back({g, e.name});
            if (two(d)) {
                // Halves are mirror images that meet at the centre: the second is sewn against its outline's direction.
                std::vector<EdgeUse> other;
                for (auto it = uses.rbegin(); it != uses.rend(); ++it)
                    other.push_back({g, it->edge, 1, true});
                if (three(d)) // the bottom lies between the sides, its edge "bottom" to the front
                    other.insert(which == "front" ? other.begin() : other.end(),
                        {of + "gusset.bottom", which == "front" ? "bottom" : "top"});
                uses.insert(which == "front" ? uses.end() : uses.begin(), other.begin(), other.end());
            }
            return uses;
        };
        const double low = of.empty() ? s : lowAllowance(d);
        d.add(Seam{.key = of + "front-gusset",
            .name = title.empty() ? say("Front to gusset") : say("Lining front to gusset"),
            .a = d.runWithout(of + "front", "top"),
            .b = side("front"),
            .allowance = low});
        d.add(Seam{.key = of + "back-gusset",
            .name = title.empty() ? say("Back to gusset") : say("Lining back to gusset"),
            .a = d.runWithout(of + "back", "top"),
            .b = side("back"),
            .allowance = low});
        const Message lead = title.empty() ? say("Gusset") : say("Lining gusset");
        if (three(d)) {
            d.add(Seam{.key = of + "gusset-left",
                .name = say("{} side to bottom, left", lead),
                .a = {{g, "centre"}},
                .b = {{of + "gusset.bottom", "left", 0, true}},
                .allowance = low});
            d.add(Seam{.key = of + "gusset-right",
                .name = say("{} side to bottom, right", lead),
                .a = {{g, "centre", 1}},
                .b = {{of + "gusset.bottom", "right"}},
                .allowance = low});
        } else if (two(d))
            d.add(Seam{.key = of + "gusset-centre",
                .name = say("{} centre bottom", lead),
                .a = {{g, "centre"}},
                .b = {{g, "centre", 1}},
                .allowance = low});
    }

    bool wider(const Drafter& d) const { return d.choice("lining.fit") == "wider-seam"; }
    double lowAllowance(const Drafter& d) const { return wider(d) ? d("allowance.wide") : d("allowance.lining"); }

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

    void draftLining(Drafter& d) const
    {
        UPanel shape = panelShape(d);
        shape.inset = liningInset(d);
        if (!shape.divided)
            shape.easeTo = wider(d) ? d("height") / 2 : 0;
        shape.allowance = d("allowance.lining");
        shape.lowAllowance = lowAllowance(d);
        for (const auto& [key, code, name] :
            {std::tuple{lined("front"), "LA", say("Lining front")}, {lined("back"), "LB", say("Lining back")}}) {
            Piece& panel = d.add({.key = key,
                .code = code,
                .name = name,
                .group = PieceGroup::Lining,
                .role = "lining panel",
                .material = "lining"});
            drawUPanel(panel, shape);
        }
        Piece& gusset = d.add({.key = lined("gusset"),
            .code = "LC",
            .name = three(d) ? say("Lining gusset side")
                : two(d)     ? say("Lining gusset half")
                             : say("Lining gusset"),
            .group = PieceGroup::Lining,
            .role = "lining gusset",
            .material = "lining",
            .count = two(d) ? 2 : 1,
            .mirrored = two(d) ? 1 : 0,
            .grain = 0});
        drawGusset(d, gusset, "lining.", shape.allowance, shape.lowAllowance);
        gussetSeams(d, "lining.", "Lining", d("allowance.lining"));
        if (baggedOut(d))
            for (auto& seam : d.pattern.seams)
                if (seam.key == lined("front-gusset"))
                    seam.open = d("opening.length");
    }

    bool baggedOut(const Drafter& d) const { return d.choice("assembly") == "bagged-out"; }

    std::vector<EdgeUse> mouthOf(const Drafter& d) const
    {
        const EdgeUse right = two(d) ? EdgeUse{"gusset", "left mouth", 1, false}
                                     : EdgeUse{"gusset", "right mouth", 0, true};
        return {{"front", "top"}, {"gusset", "left mouth", 0, true}, {"back", "top"}, right};
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
            .group = PieceGroup::Interlining,
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
        for (const auto& spec : sites()) {
            d.pattern.sites.push_back({SiteId(spec.name), labelled(Label{spec.label}), {pieces[i]}, 0, d("height"),
                d("face.width"), d("height"), phases[i], spec.lining});
            ++i;
        }
        const double end = two(d) ? 0 : boundsOf(d.piece("gusset").stitch()).x1,
                     room = d("depth.mouth") - 2 * d("allowance.body");
        // Ends that are cut long are trimmed after joining: whatever is caught there is basted then.
        const std::string part = cutLong(d) ? "shell" : "gusset",
                          phase = cutLong(d) ? "Shell assembly" : "Shell gusset";
        d.pattern.anchors.push_back({"left", "gusset", {0, d("depth") / 2}, room, part, phase});
        d.pattern.anchors.push_back({"right", "gusset", {end, d("depth") / 2}, room, part, phase});
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
        const double panel = d.stack("panel", "front", "shell") + d.stack("lining panel", lined("front"), "lining");
        const double side = d.stack("gusset", "gusset", "shell") + d.stack("lining gusset", lined("gusset"), "lining");
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

    // ---- Steps ----------------------------------------------------------------------------------------------------

    void addSteps(Drafter& d) const
    {
        assemblySteps(d, "", "Shell gusset", "Shell assembly", "shell");
        assemblySteps(d, "lining.", "Lining", "Lining", "lining");
        joinCoats(d, {.mouth = mouthOf(d), .open = lined("front-gusset"), .board = boardFirst(d) ? "base.board" : ""});
    }

    bool boardFirst(const Drafter& d) const { return d.pattern.piece("base.board") != nullptr; }

    /// Gusset, then front, then back: the same for shell and lining.
    void assemblySteps(Drafter& d, const std::string& of, const std::string& gussetPhase, const std::string& phase,
        const std::string& whole) const
    {
        const bool lining = !of.empty();
        const std::string g = of + "gusset";
        const auto what = [&](const Message& name) { return lining ? say("lining {}", name) : name; };
        const double s = lining ? lowAllowance(d) : d("allowance.body");
        const Message at = lining && wider(d)
            ? say("{} at the mouth, widening to {} at half height", Len(d("allowance.lining")), Len(s))
            : say("{}", Len(s));
        const Len pitch(std::round(3 * d("radius") / s));
        if (two(d)) {
            const std::vector<SeamId> joins = three(d) ? std::vector<SeamId>{of + "gusset-left", of + "gusset-right"}
                                                       : std::vector<SeamId>{of + "gusset-centre"};
            const std::vector<PieceId> parts = three(d) ? std::vector<PieceId>{g, of + "gusset.bottom"}
                                                        : std::vector<PieceId>{g};
            d.add(Step{.id = g + ".join",
                .title = three(d) ? say("Join the {}'s sides and bottom", what(say("gusset")))
                                  : say("Join the {}", what(say("gusset halves"))),
                .text = say("Right sides together, sew the {} at {}. Press open and topstitch both sides.",
                    (three(d) ? say("sides to the bottom") : say("centre-bottom seam")), Len(s)),
                .kind = StepKind::Seam,
                .phase = gussetPhase,
                .consumes = {parts.begin(), parts.end()},
                .yields = g,
                .pieces = parts,
                .seams = joins,
                .allowance = s,
                .stitch = say("2.5–3 mm, lockstitch 301"),
                .tool = say("sewing machine"),
                .check = say("The joined strip is as long as the panel's U-run.")});
        }
        d.add(Step{.id = g + ".clip",
            .title = say("Clip the {} at the corners", what(say("gusset"))),
            .text = say(
                "Between the corner notches, snip into both long allowances every {}, {} deep.", pitch, Len(s - 2)),
            .kind = StepKind::Clip,
            .phase = gussetPhase,
            .consumes = {g},
            .yields = g,
            .pieces = {g},
            .tool = say("scissors"),
            .check = say("No snip reaches the stitch line.")});
        d.add(Step{.id = of + "front-gusset",
            .title = say("Sew the {} to the {}", what(say("gusset")), what(say("front"))),
            .text = together(
                say("Right sides together, match the centre and the corner notches; sew from mouth to mouth at {}, "
                    "gusset uppermost.",
                    at),
                lining && baggedOut(d)
                    ? say("Leave {} open in the middle of the bottom; back-stitch both ends of the opening.",
                        Len(d("opening.length")))
                    : Message()),
            .kind = StepKind::Seam,
            .phase = phase,
            .consumes = {of + "front", g},
            .yields = of + "front with gusset",
            .pieces = {of + "front", g},
            .seams = {of + "front-gusset"},
            .allowance = s,
            .stitch = say("2.5–3 mm, lockstitch 301"),
            .tool = say("sewing machine"),
            .check = say("Both mouth ends are level.")});
        d.add(Step{.id = of + "back-gusset",
            .title = say("Sew the {} to the {}", what(say("gusset")), what(say("back"))),
            .text = say(
                "Right sides together, match the centre and the corner notches; sew from mouth to mouth at {}.", at),
            .kind = StepKind::Seam,
            .phase = phase,
            .consumes = {of + "back", of + "front with gusset"},
            .yields = whole,
            .pieces = backPieces(d, of),
            .seams = {of + "back-gusset"},
            .allowance = s,
            .stitch = say("2.5–3 mm, lockstitch 301"),
            .tool = say("sewing machine"),
            .check = lining ? say("The lining hangs in the shell without folds.")
                            : say("Turned right side out, the corners are smooth and alike.")});
        if (cutLong(d))
            d.add(Step{.id = g + ".trim",
                .title = say("Trim the {}'s ends", what(say("gusset"))),
                .text = say(
                    "Trim both ends of the gusset level with the panels' mouths: {} were cut extra.", Len(kLong)),
                .kind = StepKind::Cut,
                .phase = phase,
                .consumes = {whole},
                .yields = whole,
                .pieces = {g},
                .tool = say("scissors"),
                .check = say("The mouth is level all round.")});
    }

    std::vector<PieceId> backPieces(const Drafter& d, const std::string& of) const
    {
        std::vector<PieceId> out;
        for (const auto& use : d.pattern.seam(of + "back-gusset")->a)
            if (out.empty() || std::find(out.begin(), out.end(), use.piece) == out.end())
                out.push_back(use.piece);
        out.push_back(of + "gusset");
        return out;
    }

    // ---- Folding --------------------------------------------------------------------------------------------------

    /// The panel's outline in space: upright up to the height where the sides are divided, leaning from there to the
    /// mouth.
    struct Profile {
        double height = 0, from = 0; ///< mm on the flat panel: its mouth, and where it begins to lean
        double low = 0, mouth = 0;   ///< mm from the middle plane
        double lift = 0;             ///< mm that the whole coat is raised
        double drop() const
        {
            return std::sqrt(std::max(0.0, (height - from) * (height - from) - (low - mouth) * (low - mouth)));
        }
        double top() const { return lift + from + drop(); }
        Vec3 operator()(Point q) const
        {
            const double share = height > from ? std::max(0.0, q.y - from) / (height - from) : 0;
            return {q.x, lift + std::min(q.y, from) + share * drop(), std::lerp(low, mouth, share)};
        }
    };

    static Profile profileOf(const Pattern& p, const LaidCoat& coat)
    {
        double from = 1e300;
        for (const auto& piece : p.pieces)
            if (const Edge* ease = piece.edge("left ease");
                ease && (piece.key == coat.key("front") || piece.whole == coat.key("front")))
                from = std::min(from, boundsOf(ease->stitch).y0);
        Profile out{.height = p.height,
            .from = std::min(from, p.height),
            .low = p.depth / 2 - coat.in,
            .mouth = p.depth / 2 - narrowing(p)};
        if (from > p.height)
            out.mouth = out.low;
        if (coat.lining)
            out.lift = profileOf(p, {}).top() - out.top(); // mouths are level
        return out;
    }

    /// Lengths along the gusset strip and along the panel's run: where the strip narrows, its edge is longer than its
    /// axis.
    struct Along {
        double ease = 0, axial = 0, whole = 0;
        double onRun(double x) const
        {
            return x < axial                               ? x * ease / axial
                : whole - 2 * ease + 2 * axial - x < axial ? whole - (whole - 2 * ease + 2 * axial - x) * ease / axial
                                                           : x - axial + ease;
        }
        double onStrip(double s) const
        {
            return s < ease        ? s * axial / ease
                : whole - s < ease ? whole - 2 * ease + 2 * axial - (whole - s) * axial / ease
                                   : s - ease + axial;
        }
        double length() const { return whole - 2 * ease + 2 * axial; }
    };

    void lay(Folder& folder, const Pattern& p, const LaidCoat& coat) const
    {
        const Profile panel = profileOf(p, coat);
        folder.lay(coat.key("front"), panel, {}, {panel.from});
        folder.lay(coat.key("back"),
            [panel](Point q) {
                const Vec3 v = panel(q);
                return Vec3{-v.x, v.y, -v.z};
            },
            {}, {panel.from});
        // The gusset follows the U-run; its second half is the mirror image, from the other mouth.
        Run run;
        double ease = 0;
        for (const auto& use : p.seam(coat.key("front-gusset").as<SeamKind>())->a)
            for (const auto& s : p.runOf(use)) {
                run.push_back(s);
                ease += use.edge.text().ends_with("left ease") ? lengthOf(s) : 0; // with what a zip across it shows
            }
        const Guide guide(run, 0.01);
        const double narrow = panel.low - panel.mouth, half = p.depth / 2;
        const Along along{
            .ease = ease, .axial = std::sqrt(std::max(0.0, ease * ease - narrow * narrow)), .whole = guide.length()};
        const auto at = [=](double s, double y, double edge) {
            const Vec3 front = panel(guide.at(s));
            return Vec3{front.x, front.y, edge > 0 ? front.z * (half - y) / edge : 0};
        };
        // Half the strip's width where the axis is at x.
        const auto halfWidth = [=](double x) {
            const double end = std::min(x, along.length() - x);
            return end < along.axial ? std::lerp(panel.mouth, panel.low, end / along.axial) : panel.low;
        };
        std::vector<double> bends, mirrored;
        for (const double s : guide.corners())
            bends.push_back(along.onStrip(s)), mirrored.push_back(along.length() - along.onStrip(s));
        const PieceId gusset = coat.key("gusset");
        folder.layTurned(
            gusset, [=](Point q) { return at(along.onRun(q.x), q.y, halfWidth(q.x)); }, bends);
        if (p.choices.at("gusset.strips") != "one")
            folder.layTurned(
                gusset, [=](Point q) { return at(along.whole - along.onRun(q.x), q.y, halfWidth(q.x)); }, mirrored, {},
                1);
        if (p.choices.at("gusset.strips") == "three") {
            const double reach = boundsOf(p.piece(gusset)->stitch()).x1;
            for (double& b : bends)
                b -= reach;
            folder.layTurned(
                gusset.sub("bottom"),
                [=](Point q) { return at(along.onRun(reach + q.x), q.y + half - panel.low, panel.low); }, bends);
        }
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) { lay(folder, p, coat); });
        const Profile panel = profileOf(p, {});
        dressUp(m, design, p, panel.top(), panel.mouth, p.width / 2 - p.values.at("taper"));
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
