// SPDX-License-Identifier: GPL-3.0-or-later
// Polygonal faces, pentagon to octagon, regular or by their own sides and angles, with a strip round them: its fold
// positions are the running lengths of the sides.
#include "drafting/loop.hpp"
#include "drafting/plans.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {
namespace {

class Polygon : public Form {
public:
    std::string id() const override { return "polygon"; }
    std::string name() const override { return "Polygon hip bag"; }
    std::string meaning() const override
    {
        return "Two faces of five to eight sides, regular or with own lengths and angles, with a strip round them; the "
               "zip panel lies over the top sides.";
    }

    std::vector<Run> silhouette() const override
    {
        return {placed(polygonPlan(6, 42), {50, 44}), lineRun({{8, 44}, {0, 44}}), lineRun({{92, 44}, {100, 44}}),
            lineRun({{31, 71}, {69, 71}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"sides", "Sides", "Number of sides of the faces.", "6", hold(), "5", "8", DimensionSpec::Quantity::Count},
            {"side", "Side length",
                "Length of each side of a regular face on the stitch line; sides that have no length of their own "
                "follow it.",
                "110", step(10), "40", "300"},
        };
        // One side and two corners fewer than there are: they follow from the rest.
        for (int i = 1; i < 8; ++i)
            out.push_back({"side." + std::to_string(i), "Side " + std::to_string(i),
                i == 1 ? "Length of the lowest side."
                       : "Length of this side, counted anticlockwise from the lowest; the last side of the face closes "
                         "it.",
                "side", follow(), "15", "500", DimensionSpec::Quantity::Length, "sides > " + std::to_string(i)});
        for (int i = 1; i < 7; ++i)
            out.push_back({"angle." + std::to_string(i), "Angle " + std::to_string(i),
                "Inside angle between this side and the next one.", "180 - 360/sides", follow(), "60", "178",
                DimensionSpec::Quantity::Angle, "sides > " + std::to_string(i + 1)});
        out.push_back({"wall", "Side wall",
            "Which side is the bag's right side wall, counted anticlockwise from the lowest; its mirror image is the "
            "left one. Labels, pockets and connectors may sit on them.",
            "sides > 6 ? 3 : 2", follow(), "2", "sides > 6 ? 4 : 3", DimensionSpec::Quantity::Count});
        for (auto& d : loopDimensions("outline.girth"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override { return loopChoices(); }

    std::vector<DerivedSpec> derived() const override
    {
        // The corners one after another, from the first side's left end; the last side closes the face.
        std::vector<DerivedSpec> out;
        std::string x = "0", y = "0", x0 = "0", x1 = "0", y0 = "0", y1 = "0", way = "0", others = "0";
        for (int i = 1; i < 8; ++i) {
            const std::string n = std::to_string(i), here = "(sides > " + n + " ? side." + n + " : 0)";
            out.push_back({"corner." + n + ".x", x + " + " + here + "*cos(" + way + ")"});
            out.push_back({"corner." + n + ".y", y + " + " + here + "*sin(" + way + ")"});
            x = "corner." + n + ".x", y = "corner." + n + ".y";
            x0 = "min(" + x0 + ", " + x + ")", x1 = "max(" + x1 + ", " + x + ")", y0 = "min(" + y0 + ", " + y + ")",
            y1 = "max(" + y1 + ", " + y + ")";
            others += " + " + here;
            out.push_back({"corner." + n + ".along", others});
            others = "corner." + n + ".along";
            if (i < 7)
                way += " + pi - angle." + n + "*pi/180";
        }
        out.push_back({"outline.width", x1 + " - " + x0});
        out.push_back({"outline.height", y1 + " - " + y0});
        out.push_back({"outline.girth", others + " + sqrt(" + x + "^2 + " + y + "^2)"});
        // The highest corners: how far along the first and the last of them lie.
        out.push_back({"top.y", y1});
        std::string first = "outline.girth", last = "0";
        for (int i = 1; i < 8; ++i) {
            const std::string n = std::to_string(i), highest = "corner." + n + ".y > top.y - 0.000001 ? ",
                              along = "corner." + n + ".along";
            out.push_back({"top.first." + n, highest + "min(" + first + ", " + along + ") : " + first});
            out.push_back({"top.last." + n, highest + along + " : " + last});
            first = "top.first." + n, last = "top.last." + n;
        }
        out.push_back({"top.centre", "outline.girth - (" + first + " + " + last + ")/2"}); // clockwise
        addWalls(out);
        // Of a regular hexagon this is 1.2 sides: what lies clear of slanting sides (common practice, no source).
        out.push_back({"face.sides", "sides"});
        out.insert(out.end(),
            {{"face.height", "outline.height"}, {"face.width", "0.6*outline.width"}, {"mouth.depth", "depth"}});
        return out;
    }

    /// The two sides that are the bag's side walls, as far as the zip panel leaves them: from its ends, in mm, to where
    /// they begin and how far they reach.
    static void addWalls(std::vector<DerivedSpec>& out)
    {
        const auto along = [](const std::string& corner) { // anticlockwise, from the lowest side's left end
            std::string formula = corner + " > sides - 0.5 ? outline.girth : ";
            for (int i = 1; i < 7; ++i)
                formula += fmt::format("{0} < {1}.5 ? corner.{1}.along : ", corner, i);
            return formula + "corner.7.along";
        };
        out.push_back({"wall.right.low", along("(wall - 1)")});
        out.push_back({"wall.right.high", along("wall")});
        out.push_back({"wall.left.high", along("(sides + 1 - wall)")});
        out.push_back({"wall.left.low", along("(sides + 2 - wall)")});
        // The zip's ends, anticlockwise.
        const std::string end = "(outline.girth - top.centre - zip.length/2 - zip.shift)",
                          begin = "(outline.girth - top.centre + zip.length/2 - zip.shift)";
        out.push_back({"wall.right.from", "max(0, " + end + " - wall.right.high)"});
        out.push_back({"wall.right.to", end + " - wall.right.low"});
        out.push_back({"wall.left.from", "max(0, wall.left.high - " + begin + ")"});
        out.push_back({"wall.left.to", "wall.left.low - " + begin});
        out.push_back({"side.face.height",
            "max(1, min(wall.right.to - wall.right.from, wall.left.to - wall.left.from))", "bands=one"});
        out.push_back({"side.face.height",
            "max(1, min(min(side.right, wall.right.to) - wall.right.from, min(side.left, wall.left.to) - "
            "wall.left.from))"});
    }

    std::vector<SiteSpec> sites() const override
    {
        auto out = frontAndBack(true);
        for (auto& side : sideWalls())
            out.push_back(std::move(side));
        return out;
    }

    bool numbersSides() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishLoop(design);
        design.carried = {{"Phone", 76, 150, 9, "main"}};
    }

    LoopBody body(const Pattern& p) const
    {
        const int n = int(std::lround(p.values.at("sides")));
        std::vector<double> sides, angles;
        for (int i = 1; i < n; ++i)
            sides.push_back(p.values.at("side." + std::to_string(i)));
        for (int i = 1; i < n - 1; ++i)
            angles.push_back(p.values.at("angle." + std::to_string(i)));
        LoopBody b{.face = polygonPlan(sides, angles),
            .zip = p.values.at("zip.length"),
            .depth = p.values.at("depth"),
            .threeBands = p.choices.at("bands") == "three",
            .right = p.values.at("side.right"),
            .left = p.values.at("side.left")};
        // Clockwise from the first corner; the zip's middle lies on the highest side or corner.
        b.topCentre = p.values.at("top.centre") + p.values.at("zip.shift");
        b.rightFrom = p.values.at("wall.right.from"), b.leftFrom = p.values.at("wall.left.from");
        b.upright = p.values.at("side.face.height");
        return b;
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        const LoopBody b = body(p);
        const Box box = boundsOf(b.face);
        p.width = box.width(), p.height = box.height(), p.depth = d("depth");
        const double girth = lengthOf(b.face);
        if (b.zip > 0.85 * girth)
            throw InputError("zip.length",
                say("the zip panel takes nearly all of the face's outline; make it shorter or the sides longer"));
        d.work({"front", "face.angles", say("Corner angles, all together"), "(sides - 2)*180", {{"sides", d("sides")}},
            0, Working::Kind::Geometry, "°", say("the corners of n sides sum up to (n − 2)·180°")});
        d.work({"front", "face.last", say("Last side, which closes the face"), "girth - others",
            {{"girth", girth}, {"others", girth - lengthOf(b.face.back())}}, 0, Working::Kind::Geometry, "mm",
            say("from the end of the last but one to the beginning of the first")});
        d.work({"band", "face.girth", say("Strip once round"), "zip + rest", {{"zip", b.zip}, {"rest", girth - b.zip}},
            0, Working::Kind::Geometry, "mm", say("fold positions are the running lengths of the sides")});
        draftLoop(d, b, p.width * 0.8, p.height);
        for (auto& site : p.sites) {
            if (site.turn != 0) // a side wall
                continue;
            // Of what is seen from the other side, the mirror image.
            const bool mirrored = (site.name == "back") != site.lining;
            for (const auto& side : b.face)
                site.sides.push_back(placed(Run{side}, {0, 0, 0, mirrored}));
        }
        p.handles.push_back({"side.1", "front", {endOf(b.face.front()).x, -p.height / 2}, {1, 0}, 1});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldLoop(design, p, body(p));
        m.handles = {{"side", {p.values.at("side") / 2, 0, p.depth / 2}, {1, 0, 0}, 2},
            {"depth", {0, p.height * 0.2, p.depth / 2}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& polygon()
{
    static const Polygon form;
    return form;
}

} // namespace tectonis
