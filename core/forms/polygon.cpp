// SPDX-License-Identifier: GPL-3.0-or-later
// Polygonal faces, pentagon to octagon, with a strip round them: its fold positions are the running lengths of the sides.
#include "drafting/loop.hpp"
#include "drafting/plans.hpp"
#include "forms/form.hpp"

#include <cmath>

namespace tectonis {
namespace {

class Polygon : public Form {
public:
    std::string id() const override { return "polygon"; }
    std::string name() const override { return "Polygon hip bag"; }
    std::string meaning() const override { return "Two regular faces of five to eight sides with a strip round them; the zip panel lies over the top sides."; }

    std::vector<Run> silhouette() const override { return {placed(polygonPlan(6, 42), {50, 44}), lineRun({{8, 44}, {0, 44}}), lineRun({{92, 44}, {100, 44}}), lineRun({{31, 71}, {69, 71}})}; }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"sides", "Sides", "Number of sides of the faces.", "6", hold(), "5", "8", DimensionSpec::Quantity::Count},
            {"side", "Side length", "Length of each side on the stitch line.", "110", step(10), "40", "300"},
        };
        for (auto& d : loopDimensions("sides*side"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override { return loopChoices(); }

    std::vector<std::pair<std::string, std::string>> derived() const override
    {
        return {{"face.height", "side/tan(pi/sides)"}, {"face.width", "side*1.2"}, {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override { return {{"front", "Front", false, false}, {"lining back", "Lining back", true, false}}; }

    void furnish(Design& design) const override
    {
        furnishLoop(design);
        design.carried = {{"Phone", 76, 150, 9, "main"}};
    }

    LoopBody body(const Pattern& p) const
    {
        const int n = int(std::lround(p.values.at("sides")));
        const double side = p.values.at("side");
        LoopBody b{.face = polygonPlan(n, side), .zip = p.values.at("zip.length"), .depth = p.values.at("depth"), .threeBands = p.choices.at("bands") == "three"};
        b.topCentre = n * side / 2 - side / 2;
        for (int i = 0; i < n; ++i)
            b.stops.push_back(i * side);
        return b;
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        const Box box = boundsOf(body(p).face);
        p.width = box.width(), p.height = box.height(), p.depth = d("depth");
        d.work({"front", "face.angle", "Corner angle", "180 - 360/sides", {{"sides", d("sides")}}, 0, Working::Kind::Geometry, "°", "the corners of n sides sum up to (n − 2)·180°"});
        d.work({"band", "face.girth", "Strip once round", "sides*side", {{"sides", d("sides")}, {"side", d("side")}}, 0, Working::Kind::Geometry, "mm", "fold positions are the running lengths of the sides"});
        draftLoop(d, body(p), p.width * 0.8, p.height);
        p.handles.push_back({"side", "front", {d("side") / 2, -p.height / 2}, {1, 0}, 2});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldLoop(design, p, body(p));
        m.handles = {{"side", {p.values.at("side") / 2, 0, p.depth / 2}, {1, 0, 0}, 2}, {"depth", {0, p.height * 0.2, p.depth / 2}, {0, 0, 1}, 2}};
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
