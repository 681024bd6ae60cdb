// SPDX-License-Identifier: GPL-3.0-or-later
// Large tote: walls on a square base. What makes it the tote that is carried about, an overlay on the lower part,
// riveted corner patches and a facing inside the mouth, are parts that it begins with.
#include "drafting/plans.hpp"
#include "drafting/walls.hpp"
#include "forms/form.hpp"

namespace tectonis {
namespace {

class LargeTote : public Form {
public:
    std::string id() const override { return "large-tote"; }
    std::string name() const override { return "Large tote"; }
    std::string meaning() const override
    {
        return "Two walls on a square base; it begins with a second layer on the lower part, riveted corner patches "
               "and a facing inside the mouth.";
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
            {"base.board", "Base board", "A loose board on the bottom.", {{"yes", "With board"}, {"no", "Without"}}},
        };
        for (auto& c : coatChoices())
            out.push_back(c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width"}, {"face.height", "height"}, {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

    bool anchored() const override { return true; }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.features = {{"overlay", "overlay"}, {"overlay2", "overlay"}, {"corner", "corner-patch"},
            {"corner2", "corner-patch"}, {"facing", "band"}, {"facing2", "band"}, {"handles", "handles"},
            {"slip", "slip-pocket"}};
        // What lies on the back follows what lies on the front.
        design.choices = {{"overlay2.site", "back"}, {"corner2.site", "back"}, {"facing2.site", "lining back"}};
        for (const char* each :
            {"overlay.height", "corner.side", "corner.rivets", "corner.margin", "corner.rivet", "facing.height"}) {
            std::string second = each;
            second.insert(second.find('.'), "2");
            design.dimensions[second] = {each, follow(), {}, {}};
        }
        design.dimensions["overlay.height"] = {"0.38*height", follow(), {}, {}};
        design.dimensions["corner.side"] = {"70", hold(), {}, {}};
        design.dimensions["facing.height"] = {"60", hold(), {}, {}};
        design.dimensions["slip.drop"] = {"facing.height + min(45, 0.2*(height - overlay.height))", hold(), {}, {}};
        design.carried = {{"Folder, A4", 230, 300, 40, "main"}, {"Box", 300, 120, 60, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawStanding(shell, body(p, 0));
        LiningOfStanding lining = draftLining(d, "front", [&](double in) { return body(p, in); });
        drawStanding(lining.coat, lining.body);
        if (d.choice("base.board") == "yes")
            addBoard(d, "base", d("board.inset"));
        addFaces(d, sites(), d("height"));
        addMainSpace(d, "front", "base", d("width"), d("height"), d("depth"), 0);
        const double mouth = boundsOf(d.piece("front").edge("top")->stitch).x1, h = d("height");
        p.anchors = {{"left", "front", {-mouth, h}, 0.6 * p.depth, "shell", "Shell assembly"},
            {"right", "front", {mouth, h}, 0.6 * p.depth, "shell", "Shell assembly"}};
        p.handles = {{"width", "base", {d("width") / 2, 0}, {1, 0}, 2},
            {"depth", "base", {0, d("depth") / 2}, {0, 1}, 2}, {"height", "front", {0, h}, {0, 1}, 1}};
        sewStanding(shell, body(p, 0));
        sewStanding(lining.coat, lining.body);
        joinCoats(d,
            {.mouth = mouthOf(body(p, 0)), .open = lined("base"), .board = p.piece("base.board") ? "base.board" : ""});
    }

    Standing body(const Pattern& p, double in) const
    {
        const double w = p.values.at("width") - 2 * in, d = p.values.at("depth") - 2 * in;
        Standing s{
            .plan = roundedPlan(w, d, 0), .height = p.values.at("height") - in, .lean = -p.values.at("flare") - 2 * in};
        s.walls = {{"front", "A", say("Front"), w + d}, {"back", "B", say("Back"), w + d}};
        return s;
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const auto at = [&](double in) { return body(p, in); };
            foldStanding(folder, coat.lining ? liningOf(p, at, coat.in) : at(0), coat);
        });
        dressUp(m, design, p, p.height, p.depth / 2);
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
