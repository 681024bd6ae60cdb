// SPDX-License-Identifier: GPL-3.0-or-later
// Boxed corners: two panels whose lower corners are boxed, by one of three schools that finish alike.
#include "drafting/boxed.hpp"
#include "forms/form.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class BoxedCorner : public Form {
public:
    std::string id() const override { return "boxed-corner"; }
    std::string name() const override { return "Boxed corners"; }
    std::string meaning() const override
    {
        return "Two panels; their lower corners are boxed to make the depth, without a base or a gusset.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{14, 8}, {72, 8}, {86, 22}, {86, 72}, {14, 72}, {14, 8}}),
            lineRun({{72, 8}, {72, 22}, {86, 22}}), {Cubic{{30, 72}, {30, 104}, {70, 104}, {70, 72}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of front and back, between the folds at the sides.", "300", step(30),
                "60", "900"},
            {"height", "Height", "Finished height from the base to the mouth.", "300", step(20), "60", "900"},
            {"depth", "Depth", "Finished depth that the boxed corners make.", "100", step(10), "30",
                "min(width, height)"},
            {"taper", "Taper", "How far each side leans in at the mouth; negative flares out.", "0", hold(), "-depth/2",
                "depth/2 + width/4"},
            {"pleats", "Pleats at the base", "Pleats in the lower edge of front and of back; the mouth stays as wide.",
                "0", hold(), "0", "6", DimensionSpec::Quantity::Count},
            {"pleat", "Pleat depth", "Visible depth of each pleat; it takes twice as much of the panel's width.",
                "min(12, width/(4*max(pleats, 1)))", follow(), "2", "min(40, width/(4*max(pleats, 1)))"},
        };
        for (auto& d : coatDimensions("0.8*width"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{
            {"boxing", "Boxing",
                "How the corners are boxed: squares cut out beforehand and measured from the raw edges; squares "
                "measured from the sewn seams and cut away then; or stitched across and trimmed.",
                {{"pre-cut", "Squares cut first"}, {"from-seams", "Squares from the seams"},
                    {"across", "Stitched across"}}},
        };
        for (auto& c : coatChoices())
            out.push_back(c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width - 2*max(taper, 0)"}, {"face.height", "height"}, {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

    bool anchored() const override { return true; }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.features = {{"slip", "slip-pocket"}, {"connectors", "connectors"}, {"strap", "strap"}};
        design.carried = {{"Book", 170, 240, 35, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawBoxed(shell);
        workBox(d);
        CoatDraft lining = CoatDraft::lining(d, liningShrink(d, "front"));
        drawBoxed(lining);
        workBoxedSlack(d, lining.shrink);
        const double top = d("height") + d("depth") / 2;
        addFaces(d, sites(), top);
        const double mouth = boundsOf(d.piece("front").edge("top")->stitch).x1, room = 0.8 * d("depth");
        p.anchors = {{"left", "front", {-mouth, top}, room, "shell", "Shell assembly"},
            {"right", "front", {mouth, top}, room, "shell", "Shell assembly"}};
        addMainSpace(d, "front", "front", d("width"), d("height"), d("depth"), 0);
        const double q = d("depth") / 2;
        p.handles = {{"width", "front", {d("width") / 2, q + d("height") / 2}, {1, 0}, 2},
            {"height", "front", {0, top}, {0, 1}, 1}, {"depth", "front", {d("width") / 2 + q, q}, {0, 1}, 2},
            {"taper", "front", {mouth, top}, {-1, 0}, 1}};
        sewBoxed(shell);
        sewBoxed(lining);
        joinCoats(d, {.mouth = {{"front", "top"}, {"back", "top"}}, .open = lined("bottom")});
    }

    void workBox(Drafter& d) const
    {
        const double s = d("allowance.body"), depth = d("depth");
        const std::string& school = d.choice("boxing");
        if (school == "pre-cut")
            d.work({"front", "box.square", say("Square cut out of each raw corner"), "depth/2", {{"depth", depth}}, 0,
                Kind::Geometry, "mm", say("c from the raw edges, all allowances alike: finished depth = 2c")});
        else if (school == "from-seams")
            d.work({"front", "box.square", say("Square cut away, measured from the sewn seams"), "depth/2 - allowance",
                {{"depth", depth}, {"allowance", s}}, 0, Kind::Geometry, "mm",
                say("q from the seams, sewn at s: finished depth = 2(q + s)")});
        else
            d.work({"front", "box.across", say("Stitched across, from where the seams cross"), "depth/2",
                {{"depth", depth}}, 0, Kind::Geometry, "mm",
                say("a from the crossing: finished depth = 2a; trim the tip")});
        if (pleatHalf(d.pattern.values) > 0)
            d.work({"front", "box.pleats", say("Width taken by the pleats"), "count*2*depth",
                {{"count", d("pleats")}, {"depth", d("pleat")}}, 0, Kind::Geometry, "mm",
                say("a pleat of visible depth p takes 2p of width")});
        d.work({"front", "box.rawWidth", say("Cut width of a panel at the base"),
            "width + depth + pleats + 2*allowance",
            {{"width", d("width")}, {"pleats", 2 * pleatHalf(d.pattern.values)}, {"depth", depth}, {"allowance", s}}, 0,
            Kind::Geometry, "mm", say("the face loses half the depth at each side")});
        d.work({"front", "box.rawHeight", say("Cut height of a panel"), "height + depth/2 + allowance + mouth",
            {{"height", d("height")}, {"depth", depth}, {"allowance", s}, {"mouth", d("allowance.mouth")}}, 0,
            Kind::Geometry, "mm", say("and half the depth at the base")});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const double q = p.depth / 2, h = p.height;
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) { foldBoxed(folder, p, coat); });
        dressUp(m, design, p, h, q);
        m.handles = {{"width", {p.width / 2, h * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, h, q}, {0, 1, 0}, 1}, {"depth", {p.width * 0.32, h * 0.1, q}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& boxedCorner()
{
    static const BoxedCorner form;
    return form;
}

} // namespace tectonis
