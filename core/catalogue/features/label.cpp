// SPDX-License-Identifier: GPL-3.0-or-later
// Label: sewn onto a flat face before the lining closes it off.
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

class SewnLabel : public FeatureKind {
public:
    std::string kind() const override { return "label"; }
    std::string name() const override { return "Label"; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{12, 34}, {88, 34}, {88, 70}, {12, 70}, {12, 34}}), lineRun({{26, 58}, {74, 58}}),
            lineRun({{34, 46}, {66, 46}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            // On a strap or a tab it may come nearer to the edges than on a face.
            {"width", "Label width", "Finished width of the label.", "60", hold(), "min(10, 0.4*face.width)",
                "max(face.width - 30, 0.7*face.width)"},
            {"height", "Label height", "Finished height of the label.", "25", hold(), "min(8, 0.3*face.height)",
                "max(face.height - 30, min(15, 0.6*face.height))"},
            {"drop", "Label drop", "From the mouth, or from the end of a strap or tab, down to the label's upper edge.",
                "20", hold(), "min(12, 0.15*face.height)", "max(face.height - 30, min(12, 0.3*face.height))"},
            {"across", "Sideways", "From the middle of the face to the middle of the label; to the right is positive.",
                "0", hold(), "-(face.width - @width)/2", "(face.width - @width)/2"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face that the label sits on.", [](const SiteSpec&) { return true; }, "lining back", OnParts::Yes,
            OnSmall::Strips)};
    }

    std::map<std::string, std::string> materials() const override { return {{"strap", "webbing-cotton"}}; }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double w = f("width"), h = f("height"), top = site.top - f("drop"), half = w / 2,
                     x = site.x + f("across");
        Piece& face = d.pieceAt(site, top - h / 2);
        f.placeOn(face, f.line("label"), rectangleRun(x - half, top - h, x + half, top));
        Piece& piece = d.add({.key = f.id,
            .code = d.pattern.pieceByCode("T") ? d.freeCode("T") : "T",
            .name = f.named(say("Label")),
            .coat = Coat::Strip,
            .role = "label",
            .material = "strap"});
        drawRectangle(piece, w, h, 0);
        d.pattern.overlays.push_back({f.id, face.key, {x - half, top - h}});
        d.add(Seam{.key = f.key("on"),
            .name = say("{} on its face", f.named(say("Label"))),
            .a = {{f.id, "bottom"}, {f.id, "right"}, {f.id, "top"}, {f.id, "left"}},
            .b = {{face.key, f.line("label")}},
            .stitch = "topstitch"});
        Step on{.id = f.key("on"),
            .title = say("Sew the label onto the {}", within(face.name)),
            .acts = {act::stitchOn({f.key("on")})},
            .kind = StepKind::Flat,
            .phase = site.phase,
            .consumes = {face.key, f.id},
            .yields = face.key,
            .check = say("It reads upright when the bag stands.")};
        if (!site.strip)
            return d.addOnTop(std::move(on), face.key);
        // Before the strip is folded or lined, on the part of it that is seen in the end.
        on.check = say("It lies between the fold lines that become the edges.");
        if (face.count > 1)
            on.acts.front() = act::saying(on.acts.front(), say("One of them alone has the label."));
        d.addBeforeUse(std::move(on), face.key);
    }
};

} // namespace

const FeatureKind& labelKind()
{
    static const SewnLabel kind;
    return kind;
}

} // namespace tectonis
