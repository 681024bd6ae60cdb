// SPDX-License-Identifier: GPL-3.0-or-later
// Flat pouch: two panels without depth, lower corners of their own radius each: equal for a pouch, unequal for a sling.
#include "drafting/coat.hpp"
#include "drafting/panels.hpp"
#include "forms/form.hpp"
#include "mockup/folder.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

class FlatPouch : public Form {
public:
    std::string id() const override { return "flat-pouch"; }
    std::string name() const override { return "Flat pouch or sling"; }
    std::string meaning() const override
    {
        return "Two panels sewn flat to each other; each lower corner has its own radius, and a pocket with a slanting "
               "mouth may lie on the front.";
    }

    std::vector<Run> silhouette() const override
    {
        return {Run{Line{{12, 74}, {12, 20}}, Arc{{22, 20}, 10, pi, pi / 2}, Line{{22, 10}, {46, 10}},
                    Arc{{46, 50}, 40, -pi / 2, pi / 2}, Line{{86, 50}, {86, 74}}, Line{{86, 74}, {12, 74}}},
            lineRun({{12, 36}, {84, 60}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of the panels.", "240", step(20), "60", "700"},
            {"height", "Height", "Finished height of the panels, from the bottom to the mouth.", "200", step(15), "60",
                "700"},
            {"radius.left", "Left corner radius", "Radius of the lower left corner of the front, on the stitch line.",
                "30", hold(), "4", "min(width/2, height - 20)"},
            {"radius.right", "Right corner radius",
                "Radius of the lower right corner of the front; larger than the left one for a sling.", "radius.left",
                follow(), "4", "min(width - radius.left - 10, height - 20)"},
            {"pocket.left", "Pocket, left side", "Height of the angled pocket's mouth at the left side.", "height*0.5",
                follow(), "radius.left + 8", "height - 20", DimensionSpec::Quantity::Length, "pocket=yes"},
            {"pocket.right", "Pocket, right side", "Height of the angled pocket's mouth at the right side.",
                "height*0.75", follow(), "radius.right + 8", "height - 20", DimensionSpec::Quantity::Length,
                "pocket=yes"},
        };
        for (auto& d : coatDimensions("0.6*width", "130", "min(radius.left, radius.right) - 0.8"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{
            {"pocket", "Angled pocket", "A pocket over the lower front, caught in its seams, with a slanting mouth.",
                {{"yes", "With pocket"}, {"no", "Without"}}}};
        for (auto& c : coatChoices()) {
            if (c.name == "lining.fit") { // a thin pouch's lining is the same, or sewn wider below
                c.meaning = "How the lining is made to hang inside without wrinkles: the same size, or cut by the "
                            "shell's template and sewn with a wider seam from the middle down.";
                std::erase_if(c.options, [](const auto& option) { return option.first == "smaller"; });
            }
            out.push_back(c);
        }
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width"}, {"face.height", "height"}, {"mouth.depth", "4"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        // The angled pocket covers the front.
        return {{"back", "Back", false, true}, {"front", "Front", false, true, false, "pocket=no"},
            {"lining front", "Lining front", true, false}, {"lining back", "Lining back", true, false}};
    }

    bool anchored() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.layers = {
            {"panel", "fusible-woven", "fused", "full", {}, ""}, {"pocket", "fusible-woven", "fused", "full", {}, ""}};
        design.carried = {{"Tablet", 180, 150, 8, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = 0;
        CoatDraft shell = CoatDraft::shell(d), lining = CoatDraft::lining(d, 0);
        drawCoat(shell);
        drawCoat(lining);
        workWide(d, "front");
        const auto hull = [&](double in) { return Hull{p.width - 2 * in, 0, p.height - in, 2 * (p.width - 2 * in)}; };
        workSlack(d, "front", hull(0), hull(lining.wide), hull(d.stack("panel", "front", "shell")).girth);
        if (pocket(d))
            drawPocket(shell);
        auto faces = sites();
        std::erase_if(faces, [&](const SiteSpec& s) { return pocket(d) && !s.when.empty(); });
        addFaces(d, faces, d("height"));
        const double w = d("width"), h = d("height");
        p.anchors = {{"left", "front", {-w / 2, h}, w / 4, "shell", "Shell assembly"},
            {"right", "front", {w / 2, h}, w / 4, "shell", "Shell assembly"}};
        p.spaces.push_back({"main", say("Main space"), w, h, 12, std::min(d("radius.left"), d("radius.right")), true});
        const double rl = d("radius.left"), rr = d("radius.right"), diagonal = std::sqrt(0.5),
                     gain = 1 / (std::sqrt(2.0) - 1);
        p.handles = {{"width", "front", {w / 2, h * 0.6}, {1, 0}, 2}, {"height", "front", {0, h}, {0, 1}, 1},
            {"radius.left", "front", {-w / 2 + rl * (1 - diagonal), rl * (1 - diagonal)}, {diagonal, diagonal}, gain},
            {"radius.right", "front", {w / 2 - rr * (1 - diagonal), rr * (1 - diagonal)}, {-diagonal, diagonal}, gain}};
        sewCoat(shell);
        sewCoat(lining);
        joinCoats(d, {.mouth = {{"front", "top"}, {"back", "top"}}, .open = lined("outline")});
    }

    bool pocket(const Drafter& d) const { return d.choice("pocket") == "yes"; }

    /// A panel with its own radius at each lower corner. Sides are divided at the heights given.
    static void drawPanel(Piece& piece, double width, double height, double left, double right, double splitLeft,
        double splitRight, double mouth, double s)
    {
        const double w = width / 2;
        piece.edges.push_back({"top", lineRun({{w, height}, {-w, height}}), mouth, {}});
        if (splitLeft > 0) {
            piece.edges.push_back({"left above", lineRun({{-w, height}, {-w, splitLeft}}), s, {}});
            piece.edges.push_back({"left side", lineRun({{-w, splitLeft}, {-w, left}}), s, {}});
        } else
            piece.edges.push_back({"left side", lineRun({{-w, height}, {-w, left}}), s, {}});
        piece.edges.push_back({"left corner", {Arc{{-w + left, left}, left, pi, pi / 2}}, s, {}});
        piece.edges.push_back({"bottom", lineRun({{-w + left, 0}, {w - right, 0}}), s, {}});
        piece.edges.push_back({"right corner", {Arc{{w - right, right}, right, -pi / 2, pi / 2}}, s, {}});
        if (splitRight > 0) {
            piece.edges.push_back({"right side", lineRun({{w, right}, {w, splitRight}}), s, {}});
            piece.edges.push_back({"right above", lineRun({{w, splitRight}, {w, height}}), s, {}});
        } else
            piece.edges.push_back({"right side", lineRun({{w, right}, {w, height}}), s, {}});
    }

    /// Moves a panel's stitch line in by @p wide from the middle down, on the same template.
    static void sewWider(Piece& piece, double width, double height, double wide)
    {
        const double w = width / 2;
        std::vector<Edge> out;
        for (Edge& edge : piece.edges) {
            const bool right = edge.name.text().starts_with("right");
            if (edge.name == "left side" || edge.name == "right side") {
                const double low = std::min(startOf(edge.stitch).y, endOf(edge.stitch).y), s = edge.allowance,
                             middle = std::max(height / 2, low), x = right ? w : -w, in = right ? w - wide : wide - w;
                Edge ease{right ? "right ease" : "left ease", lineRun({{x, height}, {in, middle}}), s, s + wide};
                Edge side{edge.name, lineRun({{in, middle}, {in, low}}), s + wide, {}};
                if (right) {
                    for (Edge* e : {&ease, &side})
                        e->stitch = reversed(e->stitch);
                    std::swap(ease.allowance, *ease.allowanceAtEnd);
                }
                if (right && middle > low)
                    out.push_back(side);
                out.push_back(ease);
                if (!right && middle > low)
                    out.push_back(side);
                continue;
            }
            if (edge.name == "bottom")
                edge.stitch = placed(edge.stitch, Placement{0, wide});
            else if (edge.name != "top") {
                Arc& arc = std::get<Arc>(edge.stitch.front());
                arc.radius -= wide;
            }
            if (edge.name != "top")
                edge.allowance += wide;
            out.push_back(edge);
        }
        piece.edges = std::move(out);
    }

    void drawCoat(CoatDraft& c) const
    {
        Drafter& d = c.d;
        // The lining's face is seen from the other side.
        const double w = d("width"), h = d("height"), rl = d(c.isLining ? "radius.right" : "radius.left"),
                     rr = d(c.isLining ? "radius.left" : "radius.right");
        const bool split = pocket(d) && !c.isLining;
        for (const auto& [part, code, name] : {std::tuple{"front", "A", say("Front")}, {"back", "B", say("Back")}})
            c.add(part, code, name, "panel");
        Piece &front = c.piece("front"), &back = c.piece("back");
        drawPanel(
            front, w, h, rl, rr, split ? d("pocket.left") : 0, split ? d("pocket.right") : 0, c.mouth, c.allowance);
        drawPanel(back, w, h, rr, rl, 0, 0, c.mouth, c.allowance); // seen from its own face: mirrored
        if (c.wide > 0)
            for (Piece* piece : {&front, &back})
                sewWider(*piece, w, h, c.wide);
        Seam& outline = c.join("outline", say("Front to back"), d.runWithout(c.key("front"), "top"),
            reversedRun(d.runWithout(c.key("back"), "top")));
        outline.allowance += c.wide;
        c.leaveOpen(outline);
    }

    /// Two layers of the front's lower part, turned at the slanting mouth.
    void drawPocket(CoatDraft& c) const
    {
        Drafter& d = c.d;
        const double w = d("width") / 2, rl = d("radius.left"), rr = d("radius.right"), yl = d("pocket.left"),
                     yr = d("pocket.right"), s = c.allowance;
        for (const bool lining : {false, true}) {
            Piece& piece = d.add({.key = lining ? "pocket.lining" : "pocket",
                .code = lining ? "LP" : "P",
                .name = lining ? say("Pocket lining") : say("Angled pocket"),
                .coat = lining ? Coat::Lining : Coat::Shell,
                .role = "pocket",
                .material = lining ? "lining" : "shell",
                .mirrored = lining ? 1 : 0}); // right sides together they are each other's mirror image
            piece.edges = {{"mouth", lineRun({{w, yr}, {-w, yl}}), s, {}},
                {"left side", lineRun({{-w, yl}, {-w, rl}}), s, {}},
                {"left corner", {Arc{{-w + rl, rl}, rl, pi, pi / 2}}, s, {}},
                {"bottom", lineRun({{-w + rl, 0}, {w - rr, 0}}), s, {}},
                {"right corner", {Arc{{w - rr, rr}, rr, -pi / 2, pi / 2}}, s, {}},
                {"right side", lineRun({{w, rr}, {w, yr}}), s, {}}};
        }
        d.add(Seam{.key = "pocket.mouth",
            .name = say("Pocket mouth"),
            .a = {{"pocket", "mouth"}},
            .b = {{"pocket.lining", "mouth"}},
            .allowance = s});
        d.add(Seam{.key = "pocket.on",
            .name = say("Pocket on the front"),
            .a = d.runWithout("pocket", "mouth"),
            .b = d.runFromTo("front", "left side", "right side"),
            .allowance = s,
            .stitch = "baste"});
        for (auto& seam : d.pattern.seams)
            if (seam.key == "outline")
                seam.trapped.push_back("pocket");
        d.pattern.overlays.push_back({"pocket", "front", {}});
        d.pattern.spaces.push_back({"pocket", say("Angled pocket"), d("width"), std::min(yl, yr), 10, 0, true});
        d.add(Step{.id = "pocket.mouth",
            .title = say("Sew and turn the pocket's mouth"),
            .acts = {act::sew({"pocket.mouth"}), act::turn({"pocket.mouth"}),
                {.verb = Act::Verb::Roll, .seams = {"pocket.mouth"}, .distance = 3.2, .taken = 9.5}},
            .kind = StepKind::Seam,
            .phase = "Shell front",
            .consumes = {"pocket", "pocket.lining"},
            .yields = "pocket ready",
            .check = say("The mouth is not stretched: it runs across the grain.")});
        d.add(Step{.id = "pocket.on",
            .title = say("Baste the pocket to the front"),
            .acts = {act::layOver("pocket", "front", say("Edges are level.")),
                {.verb = Act::Verb::Baste, .seams = {"pocket.on"}, .distance = 4}},
            .kind = StepKind::Baste,
            .phase = "Shell front",
            .consumes = {"front", "pocket ready"},
            .yields = "front",
            .pieces = {"front", "pocket"},
            .check = say("The mouth lies flat on the front.")});
    }

    void sewCoat(CoatDraft& c) const
    {
        c.sew({.id = "outline",
            .title = say("Sew {}", c.what(say("front to back"))),
            .seams = {"outline"},
            .consumes = {"front", "back"},
            .yields = "shell",
            .phase = "Shell assembly",
            .then = {act::notch({})},
            .check = say("Both corners are smooth.")});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const double z = !coat.lining ? 0.2 : 0.1; // mm: layers of cloth lie on each other
            folder.lay(coat.key("front"), [z](Point q) { return Vec3{q.x, q.y, z}; });
            folder.lay(coat.key("back"), [z](Point q) { return Vec3{-q.x, q.y, -z}; });
            folder.fill(p.values.at("mouth.depth") - 2 * z);
        });
        dressUp(m, design, p, p.height, 2);
        m.handles = {{"width", {p.width / 2, p.height * 0.6, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, 0}, {0, 1, 0}, 1}};
        return m;
    }
};

} // namespace

const Form& flatPouch()
{
    static const FlatPouch form;
    return form;
}

} // namespace tectonis
