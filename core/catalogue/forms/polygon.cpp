// SPDX-License-Identifier: GPL-3.0-or-later
// Polygonal faces, pentagon to octagon, regular or by their own sides and angles, with a strip round them: its fold
// positions are the running lengths of the sides.
#include "drafting/loop.hpp"
#include "drafting/plans.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

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
            if (i < 7)
                way += " + pi - angle." + n + "*pi/180";
        }
        out.push_back({"outline.width", x1 + " - " + x0});
        out.push_back({"outline.height", y1 + " - " + y0});
        out.push_back({"outline.girth", others + " + sqrt(" + x + "^2 + " + y + "^2)"});
        // Of a regular hexagon this is 1.2 sides: what lies clear of slanting sides (common practice, no source).
        out.push_back({"face.sides", "sides"});
        out.insert(out.end(),
            {{"face.height", "outline.height"}, {"face.width", "0.6*outline.width"}, {"mouth.depth", "depth"}});
        return out;
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

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
        const Run clockwise = reversed(b.face);
        const double top = boundsOf(b.face).y1;
        double at = 0, first = -1, last = 0;
        for (const auto& s : clockwise) {
            if (startOf(s).y > top - 1e-6)
                first = first < 0 ? at : first, last = at;
            at += lengthOf(s);
        }
        b.topCentre = (first + last) / 2 + p.values.at("zip.shift");
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
