// SPDX-License-Identifier: GPL-3.0-or-later
// Shoulder straps on any face: padded, with sliders on webbing that comes up from anchor triangles at the face's foot.
#include "drafting/padded_straps.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

class ShoulderStraps : public FeatureKind {
public:
    std::string kind() const override { return "shoulder-straps"; }
    std::string name() const override { return "Shoulder straps"; }
    std::string shortName() const override { return "straps"; }

    std::vector<Run> silhouette() const override
    {
        const auto strap = [](double x) {
            return Run{Cubic{{x, 90}, {x - 16, 70}, {x - 16, 40}, {x, 20}}, Line{{x, 20}, {x + 10, 20}},
                Cubic{{x + 10, 20}, {x - 4, 44}, {x - 4, 68}, {x + 10, 90}}, Line{{x + 10, 90}, {x, 90}}};
        };
        return {lineRun({{24, 96}, {24, 6}, {84, 6}, {84, 96}}), strap(34), strap(64)};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Strap width", "Finished width of the shoulder straps.", "min(60, 0.22*face.width)", hold(), "20",
                "min(100, 0.4*face.width)"},
            {"length", "Padded length", "Finished length of each padded strap, from the face down.",
                "min(400, 0.85*face.height)", follow(), "100", "900"},
            {"spread", "Strap spread", "Between the middles of both straps where they leave the face.",
                "min(max(100, @width + 20), face.width - @width - 12)", follow(), "@width + 8",
                "face.width - @width - 8"},
            {"drop", "Strap drop", "From the face's top down to where the straps are sewn on.",
                "min(60, 0.25*face.height)", hold(), "12", "0.6*face.height"},
            {"webbing", "Webbing width", "Width of the webbing and of the sliders.", "#brace.webbing", follow(), "10",
                "50"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face that they hang from.", [](const SiteSpec& s) { return !s.lining; }, "back")};
    }

    std::vector<std::string> needs(const Form&) const override { return {"brace"}; }

    std::vector<PartFace> faces() const override
    {
        return {{"strap", "Shoulder strap", "@width", "@length - @width", {}, false, true}};
    }

    void settle(Design& design, const std::string&) const override
    {
        // They are padded; a role that has its layers keeps them.
        if (std::none_of(design.layers.begin(), design.layers.end(),
                [](const LayerRule& rule) { return rule.pieces == "shoulder strap"; }))
            design.layers.push_back({"shoulder strap", "foam-sewin", "basted", "stitch", {}, ""});
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double y = site.top - f("drop");
        const Piece& face = d.pieceAt(site, y);
        const double side = d(d.firstOf("brace") + ".side");
        for (const double right : {-1.0, 1.0}) { // where their upper ends are sewn on
            const Point end{site.x + right * f("spread") / 2, y};
            const Box row = boxAround(end, f("width") / 2, 8);
            f.handle("drop", face.key, end, {0, -1}, 1, Handle::From::Top, row);
            f.handle("spread", face.key, end, {right, 0}, 2, Handle::From::Middle, row);
        }
        drawPaddedStraps(d,
            {.upper = f.key("upper"),
                .under = f.key("under"),
                .loop = f.key("loop"),
                .make = f.key("make"),
                .loops = f.key("loops"),
                .on = f.key("on"),
                .sewn = f.key("sewn"),
                .onFace = f.key("on face"),
                .code = d.pattern.pieceByCode("F") ? d.freeCode("F") : "F",
                .loopCode = d.freeCode("W"),
                .face = face.key,
                .at = {site.x, y},
                .spread = f("spread"),
                .width = f("width"),
                .length = f("length"),
                .webbing = f("webbing"),
                .allowance = d("allowance.body"),
                .foot = {site.x + site.width / 2 - side / 2, site.top - site.height + side / 2},
                .phase = site.phase,
                .line = f.line("shoulder strap").text(),
                .ready = f.key("ready"),
                .site = f.key("strap").text()});
        d.pattern.hardware.push_back({Ware::WebbingSlider, 2, f("webbing"), say("{} inside width", Len(f("webbing"))),
            say("one finish for all metal")});
    }
};

} // namespace

const FeatureKind& shoulderStrapsKind()
{
    static const ShoulderStraps kind;
    return kind;
}

} // namespace tectonis
