// SPDX-License-Identifier: GPL-3.0-or-later
// Closed loop: a zip panel, sides and a bottom go once round a whole rectangular face with round or square corners.
#include "drafting/loop.hpp"
#include "drafting/plans.hpp"
#include "forms/form.hpp"

namespace tectonis {
namespace {

class ZipAround : public Form {
public:
    std::string id() const override { return "zip-around"; }
    std::string name() const override { return "Zip-around case"; }
    std::string meaning() const override
    {
        return "Two rectangular faces with a closed loop between them: a zip panel, sides and a bottom. It opens like "
               "a case.";
    }

    std::vector<Run> silhouette() const override
    {
        return {placed(roundedPlan(84, 62, 14), {50, 40}), placed(Run{Line{{-36, 22}, {36, 22}}}, {50, 40}),
            {Cubic{{34, 71}, {34, 90}, {66, 90}, {66, 71}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of the faces, seam to seam.", "240", step(20), "80", "700"},
            {"height", "Height", "Finished height of the faces, seam to seam.", "180", step(15), "60", "700"},
            {"radius", "Corner radius", "Radius of the faces' corners on the stitch line; 0 for square ones.", "30",
                hold(), "0", "min(width, height)/2"},
        };
        for (auto& d : loopDimensions("2*(width + height) - 8*radius + 2*pi*radius"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override { return loopChoices(); }
    std::vector<DerivedSpec> derived() const override
    {
        // What the zip panel leaves of the straight sides; a side band may end before them.
        const std::string corner = "(width/2 - radius + pi/2*radius)";
        return {{"face.width", "width - radius"}, {"face.height", "height"}, {"mouth.depth", "depth"},
            {"side.face.height",
                "max(1, min(height - 2*radius, " + corner + " + height - 2*radius - zip.length/2 - abs(zip.shift)))",
                "bands=one"},
            {"side.face.height",
                "max(1, min(min(side.right, side.left) - max(0, " + corner
                    + " - zip.length/2 + abs(zip.shift)), min(height - 2*radius, " + corner
                    + " + height - 2*radius - zip.length/2 - abs(zip.shift))))"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        auto out = frontAndBack(true);
        for (auto& side : sideWalls())
            out.push_back(std::move(side));
        return out;
    }

    void furnish(Design& design) const override
    {
        furnishLoop(design);
        design.features.push_back({"slip", "slip-pocket"});
        design.carried = {{"Notebook", 148, 130, 15, "main"}};
    }

    LoopBody body(const Pattern& p) const
    {
        const auto v = [&](const char* name) { return p.values.at(name); };
        LoopBody b{.face = roundedPlan(v("width"), v("height"), v("radius")),
            .zip = v("zip.length"),
            .depth = v("depth"),
            .threeBands = p.choices.at("bands") == "three",
            .right = v("side.right"),
            .left = v("side.left")};
        const double girth = lengthOf(b.face);
        b.topCentre = girth / 4 + v("zip.shift");
        const double corner = v("width") / 2 - v("radius") + pi / 2 * v("radius"); // from the top's middle
        b.rightFrom = std::max(0.0, corner - b.zip / 2 - v("zip.shift"));
        b.leftFrom = std::max(0.0, corner - b.zip / 2 + v("zip.shift"));
        b.upright = v("side.face.height");
        return b;
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        draftLoop(d, body(p), p.width, p.height);
        p.handles.push_back({"width", "front", {p.width / 2, 0}, {1, 0}, 2});
        p.handles.push_back({"height", "front", {0, -p.height / 2}, {0, -1}, 2});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldLoop(design, p, body(p));
        m.handles = {{"width", {p.width / 2, p.height / 2, p.depth / 2}, {1, 0, 0}, 2},
            {"height", {0, p.height, p.depth / 2}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.3, p.height * 0.2, p.depth / 2}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& zipAround()
{
    static const ZipAround form;
    return form;
}

} // namespace tectonis
