// SPDX-License-Identifier: GPL-3.0-or-later
// Large tote: walls on a base with an overlay on the lower part, corner patches with rivet rows, a facing band inside
// the mouth.
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "drafting/plans.hpp"
#include "drafting/rivet.hpp"
#include "drafting/walls.hpp"
#include "forms/form.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class LargeTote : public Form {
public:
    std::string id() const override { return "large-tote"; }
    std::string name() const override { return "Large tote"; }
    std::string meaning() const override
    {
        return "Two walls on a square base; a second layer on the lower part, riveted corner patches and a facing band "
               "inside the mouth.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 6}, {90, 6}, {94, 72}, {6, 72}, {10, 6}}), lineRun({{8, 30}, {92, 30}}),
            {Cubic{{28, 72}, {30, 106}, {70, 106}, {72, 72}}}, lineRun({{10, 20}, {24, 20}, {24, 6}}),
            lineRun({{90, 20}, {76, 20}, {76, 6}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of the base.", "420", step(30), "160", "900"},
            {"depth", "Depth", "Finished depth of the base, front to back.", "160", step(10), "50", "400"},
            {"height", "Height", "Finished height from the base seam to the mouth.", "340", step(20), "120", "800"},
            {"flare", "Flare", "How far each side seam leans out at the mouth.", "0", hold(), "0", "60"},
            {"overlay.height", "Overlay height", "Height of the second layer from the base seam.", "0.38*height",
                follow(), "40", "height - 60"},
            {"facing", "Facing", "Height of the band of shell cloth inside the mouth.", "60", hold(), "25", "height/2"},
            {"corner.side", "Corner patch", "Side of the patches on the lower corners.", "70", hold(), "25",
                "min(width, overlay.height) - 10", DimensionSpec::Quantity::Length, "patches=yes"},
            {"corner.rivets", "Rivets in a row",
                "Rivets along each of a patch's two free sides; both rows share the one in the corner, so 7 in a row "
                "are 13 in a patch.",
                "3", hold(), "1", "12", DimensionSpec::Quantity::Count, "patches=yes"},
            {"corner.margin", "Rivet margin", "From the patch's edge to the rivets' centres.", "9", hold(), "5", "25",
                DimensionSpec::Quantity::Length, "patches=yes"},
            {"rivet", "Rivet head", "Diameter of the rivet heads.", "8", hold(), "4", "15",
                DimensionSpec::Quantity::Length, "patches=yes"},
            {"board.inset", "Base board inset", "Gap between base board and the seam round it.", "4", hold(), "1", "15",
                DimensionSpec::Quantity::Length, "base.board=yes"},
        };
        for (auto& d : coatDimensions("0.8*width", "max(130, depth + 8)"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{
            {"overlay", "Overlay", "A second layer on the lower part of both walls.",
                {{"yes", "With overlay"}, {"no", "Without"}}},
            {"patches", "Corner patches", "Riveted patches on the lower corners.",
                {{"yes", "With patches"}, {"no", "Without"}}},
            {"base.board", "Base board", "A loose board on the bottom.", {{"yes", "With board"}, {"no", "Without"}}},
        };
        for (auto& c : coatChoices())
            out.push_back(c);
        return out;
    }

    std::vector<std::pair<std::string, std::string>> derived() const override
    {
        return {{"face.width", "width"}, {"face.height", "height - overlay.height"}, {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.materials["overlay"] = "waxed-canvas";
        design.features = {{"handles", "handles"}, {"slip", "slip-pocket"}};
        design.carried = {{"Folder, A4", 230, 300, 40, "main"}, {"Box", 300, 120, 60, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        Coat shell = Coat::shell(d);
        drawStanding(shell, body(p, 0));
        Coat lining = Coat::lining(d, liningShrink(d, "front"));
        drawStanding(lining, body(p, lining.shrink));
        if (d.choice("base.board") == "yes")
            addBoard(d, "base", d("board.inset"));
        addFaces(d, sites(), d("height"));
        for (const char* name : {"lining front", "lining back"})
            d.site(name).top -= d("facing"); // pockets hang below the facing
        addMainSpace(d, "front", "base", d("width"), d("height"), d("depth"), 0);
        const double mouth = boundsOf(d.piece("front").edge("top")->stitch).x1, h = d("height");
        p.anchors = {{"left", "front", {-mouth, h}, 0.6 * p.depth, "shell", "Shell assembly"},
            {"right", "front", {mouth, h}, 0.6 * p.depth, "shell", "Shell assembly"}};
        p.handles = {{"width", "base", {d("width") / 2, 0}, {1, 0}, 2},
            {"depth", "base", {0, d("depth") / 2}, {0, 1}, 2}, {"height", "front", {0, h}, {0, 1}, 1}};
        for (const char* wall : {"front", "back"}) {
            if (d.choice("overlay") == "yes")
                addOverlay(d, wall);
            if (d.choice("patches") == "yes")
                addPatches(d, wall);
        }
        sewStanding(shell, body(p, 0));
        sewStanding(lining, body(p, lining.shrink));
        joinCoats(d,
            {.mouth = mouthOf(body(p, 0)),
                .open = lined("base"),
                .board = p.piece("base.board") ? "base.board" : "",
                .openPlace = say("the lining's base seam")});
        addFacing(d, lining);
    }

    Standing body(const Pattern& p, double in) const
    {
        const double w = p.values.at("width") - 2 * in, d = p.values.at("depth") - 2 * in;
        Standing s{
            .plan = roundedPlan(w, d, 0), .height = p.values.at("height") - in, .lean = -p.values.at("flare") - 2 * in};
        s.walls = {{"front", "A", say("Front"), w + d}, {"back", "B", say("Back"), w + d}};
        return s;
    }

    /// The wall's half width at a height.
    static double halfAt(const Drafter& d, double y)
    {
        return (d("width") + d("depth")) / 2 + d("flare") * y / d("height");
    }

    static std::string phaseOf(const std::string& wall) { return wall == "front" ? "Shell front" : "Shell back"; }

    void addOverlay(Drafter& d, const std::string& wall) const
    {
        const double y = d("overlay.height"), low = halfAt(d, 0), high = halfAt(d, y), s = d("allowance.body");
        const std::string key = "overlay." + wall;
        Piece& piece = d.add({.key = key,
            .code = wall == "front" ? "O1" : "O2",
            .name = wall == "front" ? say("Overlay, front") : say("Overlay, back"),
            .group = PieceGroup::Shell,
            .role = "overlay",
            .material = "overlay"});
        piece.edges = {{"top", lineRun({{high, y}, {-high, y}}), s, {}, Corner::FoldBack, true},
            {"left", lineRun({{-high, y}, {-low, 0}}), s, {}}, {"bottom", lineRun({{-low, 0}, {low, 0}}), s, {}},
            {"right", lineRun({{low, 0}, {high, y}}), s, {}, Corner::FoldBack}};
        d.piece(wall).lines.push_back({"second layer", FaceLine::Kind::Topstitch, lineRun({{-high, y}, {high, y}})});
        d.pattern.overlays.push_back({key, wall, {}});
        d.add(Seam{.key = key + ".top",
            .name = say("{}, upper edge", piece.name),
            .a = {{wall, "second layer"}},
            .b = {{key, "top", 0, true}},
            .stitch = "topstitch"});
        d.add(Seam{.key = key + ".base",
            .name = say("{}, at the base", piece.name),
            .a = {{wall, "bottom"}},
            .b = {{key, "bottom"}},
            .allowance = s,
            .stitch = "baste"});
        d.add(Step{.id = key,
            .title = say("Lay the overlay on the {}", sideLabel(wall)),
            .text = say("Fold the upper edge in by {}, lay it on its line, topstitch {} from the fold; baste sides and "
                        "base {} from the edge.",
                Len(s), Len(3.2), Len(4)),
            .kind = StepKind::Flat,
            .phase = phaseOf(wall),
            .consumes = {wall, key},
            .yields = wall,
            .pieces = {key, wall},
            .seams = {key + ".top", key + ".base"},
            .stitch = say("3.5 mm, lockstitch 301"),
            .tool = say("sewing machine"),
            .check = say("The overlay lies flat; nap up.")});
    }

    /// Two patches to a wall, with rivets along their free sides: through overlay and wall, before the lining.
    void addPatches(Drafter& d, const std::string& wall) const
    {
        Pattern& p = d.pattern;
        const double side = d("corner.side"), margin = d("corner.margin"), low = d("width") / 2;
        const int n = int(std::lround(d("corner.rivets")));
        if (wall == "front") {
            Piece& patch = d.add({.key = "corner",
                .code = "Q",
                .name = say("Corner patch"),
                .group = PieceGroup::Shell,
                .role = "patch",
                .material = "overlay",
                .count = 4,
                .mirrored = 2});
            drawRectangle(patch, side, side, 0);
            for (auto& e : patch.edges)
                e.allowance = e.name == "bottom" ? d("allowance.body") : 0;
            const double count = d.work(
                {"corner", "rivet.count", say("Rivets in all"), "(2*row - shared)*corners*faces",
                    {{"row", double(n)}, {"shared", n > 1 ? 1.0 : 0.0}, {"corners", 2}, {"faces", 2}}, 0, Kind::Trade,
                    "", say("two rows to a patch, which share the rivet in the corner; corners × faces")});
            std::vector<Pierced> through{{"panel", "front", "shell"}, {"patch", "corner", "overlay"}};
            if (d.choice("overlay") == "yes")
                through.push_back({"overlay", "overlay.front", "overlay"});
            addRivets(d, "corner", "rivet", int(count), d("rivet"), through);
        }
        const double atSeam = std::min(std::max(margin, d("rivet") / 2 + d.design.workshop.footWidth + 1),
            side / 2); // the foot must pass when the base is sewn in
        std::vector<FittingId> set;
        for (const double sign : {-1.0, 1.0}) {
            const std::string which = sign < 0 ? "left" : "right";
            const double inner = sign * (low - side), outer = sign * low;
            d.piece(wall).lines.push_back({"corner patch, " + which, FaceLine::Kind::Topstitch,
                lineRun({{outer, 0}, {outer, side}, {inner, side}, {inner, 0}})});
            p.overlays.push_back({"corner", wall, {std::min(inner, outer), 0}});
            for (int i = 0; i < n; ++i) {
                const double share = n == 1 ? 0.5 : double(i) / (n - 1),
                             along = std::lerp(margin, side - margin, share);
                const Point up{sign * (low - side + margin), std::lerp(atSeam, side - margin, share)},
                    across{sign * (low - along), side - margin};
                for (const auto& [at, row] : {std::pair{up, "up"}, {across, "across"}}) {
                    if (row == std::string("across") && n > 1 && i == n - 1)
                        continue; // the upper end of the other row
                    const std::string key = "rivet." + wall + "." + which + "." + row + std::to_string(i + 1);
                    p.fittings.push_back({key, say("Rivet"), wall, Fitting::Kind::Rivet, at, d("rivet"), 0,
                        say("patch, overlay and wall, not the lining")});
                    d.piece(wall).drills.push_back({at, say("rivet")});
                    set.push_back(key);
                }
            }
        }
        d.add(Step{.id = "patches." + wall,
            .title = say("Rivet the corner patches to the {}", sideLabel(wall)),
            .text = say("Lay the patches on their lines; punch at the drill marks, set the rivets through patch, "
                        "overlay and wall; edge-stitch the free sides."),
            .kind = StepKind::Hardware,
            .phase = phaseOf(wall),
            .consumes = wall == "front" ? std::vector<WorkId>{wall, "corner"} : std::vector<WorkId>{wall},
            .yields = wall,
            .pieces = {"corner", wall},
            .fittings = set,
            .tool = say("punch, rivet setter, hammer"),
            .check = say("No rivet turns."),
            .cautions = {say("Punch and hammer: wear eye protection.")}});
    }

    /// The lining's upper part is cut from the shell's cloth.
    void addFacing(Drafter& d, const Coat& lining) const
    {
        for (const auto& [wall, code] : {std::pair{"front", "LA"}, {"back", "LB"}}) {
            const PieceId key = lining.key(wall), upper = key.sub("facing"), lower = key.sub("below");
            const double y = boundsOf(d.piece(key).stitch()).y1 - d("facing");
            cutAcross(d,
                {.piece = key,
                    .y = y,
                    .stops = {},
                    .edgeNames = {"facing seam"},
                    .upper = {.key = upper,
                        .code = std::string(code) + "1",
                        .name = say("Facing, {}", sideLabel(wall))},
                    .lower = {.key = lower, .code = std::string(code) + "2", .name = say("Lining {}", sideLabel(wall))},
                    .allowance = d("allowance.lining")});
            Piece& facing = d.piece(upper);
            facing.material = "shell";
            facing.role = "facing";
            facing.wholeRole.clear();
            d.add(Seam{.key = upper.as<SeamKind>(),
                .name = say("Facing to lining, {}", sideLabel(wall)),
                .a = {{upper, "facing seam"}},
                .b = {{lower, "facing seam", 0, true}},
                .allowance = d("allowance.lining")});
            d.addBeforeUse(Step{.id = upper.as<StepKindOf>(),
                               .title = say("Sew the facing to the lining {}", sideLabel(wall)),
                               .text = say("Right sides together, sew at {}; press down, topstitch {} below the seam.",
                                   Len(d("allowance.lining")), Len(3.2)),
                               .kind = StepKind::Seam,
                               .phase = "Lining",
                               .consumes = {upper, lower},
                               .yields = key,
                               .pieces = {upper, lower},
                               .seams = {upper.as<SeamKind>()},
                               .allowance = d("allowance.lining"),
                               .stitch = say("2.5–3 mm, lockstitch 301"),
                               .tool = say("sewing machine"),
                               .check = say("It is as tall as the lining was drafted.")},
                key);
        }
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(
            p, [&](Folder& folder, const LaidCoat& coat) { foldStanding(folder, body(p, coat.in), coat); });
        dressUp(m, design, p, p.height, p.depth / 2, p.width / 2);
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, p.depth / 2}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.32, 0, p.depth / 2}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& largeTote()
{
    static const LargeTote form;
    return form;
}

} // namespace tectonis
