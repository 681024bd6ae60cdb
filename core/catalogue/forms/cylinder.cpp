// SPDX-License-Identifier: GPL-3.0-or-later
// Cylinder: a wall wrapped round a base that is a circle, a stadium or an ellipse.
#include "drafting/plans.hpp"
#include "drafting/walls.hpp"
#include "forms/form.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Cylinder : public Form {
public:
    std::string id() const override { return "cylinder"; }
    std::string name() const override { return "Bucket"; }
    std::string meaning() const override
    {
        return "A wall wrapped round a base that is a circle, a stadium (straight sides, round ends) or an ellipse.";
    }

    std::vector<Run> silhouette() const override
    {
        Run body{Line{{16, 18}, {16, 76}}, Line{{16, 76}, {84, 76}}, Line{{84, 76}, {84, 18}},
            Cubic{{84, 18}, {84, 2}, {16, 2}, {16, 18}}};
        return {body, {Cubic{{16, 76}, {16, 90}, {84, 90}, {84, 76}}}, {Cubic{{16, 76}, {16, 62}, {84, 62}, {84, 76}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Base width", "Finished width of the base from end to end; the diameter of a round one.", "220",
                step(20), "60", "600"},
            {"depth", "Base depth", "Finished depth of the base, front to back.", "140", step(10), "40", "width",
                DimensionSpec::Quantity::Length, "base.shape=stadium|ellipse"},
            {"height", "Height", "Finished height from the base seam to the mouth.", "260", step(20), "60", "900"},
            {"board.inset", "Base board inset", "Gap between base board and the seam round it.", "3", hold(), "1", "15",
                DimensionSpec::Quantity::Length, "base.board=yes"},
        };
        for (auto& d : coatDimensions("1.2*mouth.depth"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{
            {"base.shape", "Base", "Outline of the base.",
                {{"round", "Circle"}, {"stadium", "Stadium"}, {"ellipse", "Ellipse"}}},
            {"wall.pieces", "Wall", "One piece with a seam at the back, or two halves with seams at the sides.",
                {{"two", "Two halves"}, {"one", "One, seam behind"}}},
            {"base.board", "Base board", "A loose board on the bottom.", {{"no", "Without"}, {"yes", "With board"}}},
        };
        for (auto& c : coatChoices())
            out.push_back(c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "0.8*width"}, {"face.height", "height"}, {"mouth.depth", "width", "base.shape=round"},
            {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        const std::string two = "wall.pieces=two"; // the seam of a single wall runs down the back
        return {{"front", "Front", false, true}, {"back", "Back", false, true, false, two},
            {"lining front", "Lining front", true, false}, {"lining back", "Lining back", true, false, false, two}};
    }

    bool anchored() const override { return true; }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.features = {{"slip", "slip-pocket"}, {"connectors", "connectors"}, {"strap", "strap"}};
        design.carried = {{"Bottle", 75, 220, 75, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = round(p) ? d("width") : d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawStanding(shell, body(p, 0));
        workGirth(d);
        LiningOfStanding lining = draftLining(d, "front", [&](double in) { return body(p, in); });
        drawStanding(lining.coat, lining.body);
        if (d.choice("base.board") == "yes")
            addBoard(d, "base", d("board.inset"));
        auto faces = sites();
        std::erase_if(faces, [&](const SiteSpec& s) { return one(p) && !s.when.empty(); });
        addFaces(d, faces, d("height"));
        const double h = d("height"), room = 0.6 * p.depth, m = boundsOf(d.piece("front").edge("top")->stitch).x1,
                     side = one(p) ? m / 2 : m;
        p.anchors = {{"left", "front", {-side, h}, room, "shell", "Shell assembly"},
            {"right", "front", {side, h}, room, "shell", "Shell assembly"}};
        addMainSpace(d, "front", "base", p.width, h, p.depth, p.depth / 2);
        p.handles = {{"width", "base", {p.width / 2, 0}, {1, 0}, 2}, {"height", "front", {0, h}, {0, 1}, 1}};
        if (!round(p))
            p.handles.push_back({"depth", "base", {0, p.depth / 2}, {0, 1}, 2});
        sewStanding(shell, body(p, 0));
        sewStanding(lining.coat, lining.body);
        joinCoats(d,
            {.mouth = mouthOf(body(p, 0)), .open = lined("base"), .board = p.piece("base.board") ? "base.board" : ""});
    }

    bool round(const Pattern& p) const { return p.choices.at("base.shape") == "round"; }
    bool one(const Pattern& p) const { return p.choices.at("wall.pieces") == "one"; }

    Run plan(const Pattern& p, double in) const
    {
        const double w = p.values.at("width") - 2 * in, d = p.values.at("depth") - 2 * in;
        const std::string& shape = p.choices.at("base.shape");
        return shape == "round"  ? stadiumPlan(w, w)
            : shape == "stadium" ? stadiumPlan(w, d)
                                 : ellipsePlan(p.values.at("width"), p.values.at("depth"), in);
    }

    Standing body(const Pattern& p, double in) const
    {
        Standing s{.plan = plan(p, in), .height = p.values.at("height") - in};
        const double girth = lengthOf(s.plan), outside = lengthOf(plan(p, 0));
        if (one(p)) {
            s.start = girth * 0.75; // the middle of the back
            s.walls = {{"front", "A", say("Wall"), girth}};
        } else
            s.walls = {{"front", "A", say("Front"), girth / 2}, {"back", "B", say("Back"), girth / 2}};
        s.lean = -(outside - girth) / 2 / double(s.walls.size());
        return s;
    }

    void workGirth(Drafter& d) const
    {
        const std::string shape = d.choice("base.shape");
        if (shape == "ellipse") {
            d.pattern.workings.push_back({"base", "base.girth", say("Base seam, once round"), "length of the ellipse",
                {{"width", d("width")}, {"depth", d("depth")}}, lengthOf(plan(d.pattern, 0)), Kind::Geometry, "mm",
                say("measured along the curve by Gauss-Legendre quadrature; the walls together are as long")});
            return;
        }
        const bool circle = shape == "round";
        std::vector<Working::Input> inputs{{"width", d("width")}};
        if (!circle)
            inputs.push_back({"depth", d("depth")});
        d.work({"base", "base.girth", say("Base seam, once round"),
            circle ? "pi*width" : "pi*depth + 2*(width - depth)", std::move(inputs), 0, Kind::Geometry, "mm",
            say("on the stitch line; the walls together are as long, cut two allowances longer")});
        if (shape == "round")
            d.work({"base", "base.fromStrip", say("Base radius from the wall's cut length"),
                "(strip - 2*allowance)/(2*pi)",
                {{"strip", pi * d("width") + 2 * d("allowance.body")}, {"allowance", d("allowance.body")}}, 0,
                Kind::Geometry, "mm", say("the inverse: what base a strip at hand gives")});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const auto at = [&](double in) { return body(p, in); };
            foldStanding(folder, coat.lining ? liningOf(p, at, coat.in) : at(0), coat);
        });
        dressUp(m, design, p, p.height, p.depth / 2);
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, p.depth / 2 * 0.8}, {0, 1, 0}, 1}};
        if (!round(p))
            m.handles.push_back({"depth", {0, p.height * 0.1, p.depth / 2}, {0, 0, 1}, 2});
        return m;
    }
};

} // namespace

const Form& cylinder()
{
    static const Cylinder form;
    return form;
}

} // namespace tectonis
