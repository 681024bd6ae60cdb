// SPDX-License-Identifier: GPL-3.0-or-later
// Separate base: walls sewn round a base with round or square corners; side seams at the middle of the ends, or side
// gussets.
#include "drafting/plans.hpp"
#include "drafting/walls.hpp"
#include "forms/form.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class SeparateBase : public Form {
public:
    std::string id() const override { return "separate-base"; }
    std::string name() const override { return "Tote on a base"; }
    std::string meaning() const override
    {
        return "Front and back wrap round a base of their own, with side seams at the middle of the ends or with "
               "gussets between them.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 22}, {24, 6}, {90, 6}, {90, 74}, {10, 74}, {10, 22}}),
            lineRun({{10, 22}, {76, 22}, {90, 6}}), lineRun({{76, 22}, {76, 74}}),
            {Cubic{{28, 74}, {28, 106}, {58, 106}, {58, 74}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of the base, end to end.", "320", step(30), "80", "900"},
            {"depth", "Depth", "Finished depth of the base, front to back.", "120", step(10), "30", "500"},
            {"height", "Height", "Finished height from the base seam to the mouth.", "340", step(20), "60", "900"},
            {"base.radius", "Base corner radius", "Radius of the base's corners on the stitch line; 0 for square ones.",
                "25", hold(), "0", "min(width, depth)/2"},
            {"taper", "Taper", "How far each side seam leans in at the mouth; negative flares out.", "0", hold(),
                "-min(width, depth)/4", "min(width, depth)/4"},
            {"board.inset", "Base board inset", "Gap between base board and the seam round it.", "3", hold(), "1", "15",
                DimensionSpec::Quantity::Length, "base.board=yes"},
            {"foot.inset", "Foot inset", "From the base's seams to the centre of each foot.", "25", hold(), "12",
                "min(width, depth)/2 - 5", DimensionSpec::Quantity::Length, "base.feet=yes"},
        };
        for (auto& d : coatDimensions("0.8*width", "max(130, depth + 8)"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{
            {"sides", "Sides",
                "Two walls with seams at the middle of the ends, or four walls with gussets at the ends.",
                {{"middle", "Seams at mid-end"}, {"gussets", "End gussets"}}},
            {"base.board", "Base board", "A loose board on the bottom.", {{"yes", "With board"}, {"no", "Without"}}},
            {"base.feet", "Feet", "Four feet through the base.", {{"no", "Without"}, {"yes", "Four feet"}}},
        };
        for (auto& c : coatChoices())
            out.push_back(c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width - 2*base.radius - 2*max(taper, 0)"}, {"face.height", "height"},
            {"mouth.depth", "depth - 2*max(taper, 0)"}};
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

    bool anchored() const override { return true; }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.features = {
            {"slip", "slip-pocket"}, {"zip", "zip-pocket"}, {"connectors", "connectors"}, {"strap", "strap"}};
        design.carried = {{"Folder, A4", 230, 300, 30, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawStanding(shell, body(d.pattern, 0));
        workBase(d);
        LiningOfStanding lining = draftLining(d, "front", [&](double in) { return body(d.pattern, in); });
        drawStanding(lining.coat, lining.body);
        if (d.choice("base.board") == "yes")
            addBoard(d, "base", d("board.inset"));
        addFaces(d, sites(), d("height"));
        addAnchors(d);
        addMainSpace(d, "front", "base", d("width"), d("height"), d("depth"), d("base.radius"));
        d.pattern.handles = {{"width", "base", {d("width") / 2, 0}, {1, 0}, 2},
            {"depth", "base", {0, d("depth") / 2}, {0, 1}, 2}, {"height", "front", {0, d("height")}, {0, 1}, 1}};
        if (d.choice("base.feet") == "yes")
            addFeet(d);
        sewStanding(shell, body(d.pattern, 0));
        sewStanding(lining.coat, lining.body);
        joinCoats(d,
            {.mouth = mouthOf(body(d.pattern, 0)),
                .open = lined("base"),
                .board = d.pattern.piece("base.board") ? "base.board" : ""});
    }

    /// The walls of a coat whose walls lie @p in mm further in; the mouth stays.
    Standing body(const Pattern& p, double in) const
    {
        const auto v = [&](const char* name) { return p.values.at(name); };
        const double w = v("width") - 2 * in, d = v("depth") - 2 * in, r = std::max(0.0, v("base.radius") - in);
        Standing s{.plan = roundedPlan(w, d, r), .height = v("height") - in};
        const double girth = lengthOf(s.plan);
        if (p.choices.at("sides") == "middle") {
            s.walls = {{"front", "A", say("Front"), girth / 2}, {"back", "B", say("Back"), girth / 2}};
            s.lean = v("taper") - (mouthGirth(p) - girth) / 4;
        } else {
            // Seams run down to the middle of the corners.
            const double arc = pi * r / 2, front = w - 2 * r + arc, side = d - 2 * r + arc;
            s.start = d / 2 - r + arc / 2;
            s.walls = {{"front", "A", say("Front"), front}, {"right", "D1", say("Right end"), side},
                {"back", "B", say("Back"), front}, {"left", "D2", say("Left end"), side}};
            s.lean = v("taper") - (mouthGirth(p) - girth) / 8;
        }
        return s;
    }

    /// Girth of the shell's base.
    double mouthGirth(const Pattern& p) const
    {
        return lengthOf(roundedPlan(p.values.at("width"), p.values.at("depth"), p.values.at("base.radius")));
    }

    void workBase(Drafter& d) const
    {
        d.work({"base", "base.girth", say("Base seam, once round"), "2*(width + depth) - 8*radius + 2*pi*radius",
            {{"width", d("width")}, {"depth", d("depth")}, {"radius", d("base.radius")}}, 0, Kind::Geometry, "mm",
            say("straights and four quarter circles on the stitch line; the walls together are as long")});
    }

    void addAnchors(Drafter& d) const
    {
        const double h = d("height"), room = 0.6 * d("mouth.depth");
        if (d.choice("sides") == "middle") {
            const double m = boundsOf(d.piece("front").edge("top")->stitch).x1;
            d.pattern.anchors = {{"left", "front", {-m, h}, room, "shell", "Shell assembly"},
                {"right", "front", {m, h}, room, "shell", "Shell assembly"}};
        } else
            d.pattern.anchors = {{"left", "left", {0, h}, room, "left", "Shell gusset"},
                {"right", "right", {0, h}, room, "right", "Shell gusset"}};
    }

    void addFeet(Drafter& d) const
    {
        const double x = d("width") / 2 - d("foot.inset"), y = d("depth") / 2 - d("foot.inset");
        int i = 0;
        for (const Point at : {Point{-x, -y}, {x, -y}, {x, y}, {-x, y}}) {
            d.pattern.fittings.push_back(
                {"foot." + std::to_string(++i), say("{} {}", say("Foot"), i), "base", Fitting::Kind::Foot, at, 12,
                    6 + d("allowance.body"), say("base and its interlining, before lining and board")});
            d.piece("base").drills.push_back({at, say("foot")});
        }
        d.pattern.hardware.push_back({Ware::Foot, 4, 12, say("{} across", Len(12)), say("one finish for all metal")});
        d.add(Step{.id = "feet",
            .title = say("Set the feet"),
            .acts = {act::set({"foot.1", "foot.2", "foot.3", "foot.4"}, Ware::Foot)},
            .kind = StepKind::Hardware,
            .phase = "Small parts",
            .consumes = {"base"},
            .yields = "base",
            .pieces = {"base"},
            .check = say("All four stand level.")});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const Standing s = body(p, 0);
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const auto at = [&](double in) { return body(p, in); };
            foldStanding(folder, coat.lining ? liningOf(p, at, coat.in) : at(0), coat);
        });
        const double lean = s.lean * double(s.walls.size()) / mouthGirth(p) * 2;
        dressUp(m, design, p, p.height, p.depth / 2 * (1 - lean));
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, p.depth / 2}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.32, 0, p.depth / 2}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& separateBase()
{
    static const SeparateBase form;
    return form;
}

} // namespace tectonis
