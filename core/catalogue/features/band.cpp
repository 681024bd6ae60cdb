// SPDX-License-Identifier: GPL-3.0-or-later
// Top band or facing: the upper part of a face, outside or in the lining, cut from another cloth.
#include "drafting/cut.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

class Band : public FeatureKind {
public:
    std::string kind() const override { return "band"; }
    std::string name() const override { return "Top band or facing"; }
    bool cutsAcross() const override { return true; }
    Message unfit(const Form& form) const override
    {
        const auto sewn = form.dimensions();
        return std::any_of(sewn.begin(), sewn.end(),
                   [](const DimensionSpec& d) { return d.name == "allowance.body" || d.name == "allowance.lining"; })
            ? Message()
            : say("its faces are glued, not sewn: there is no seam that a band could hang from");
    }
    std::map<std::string, std::string> materials() const override { return {{"overlay", "waxed-canvas"}}; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 70}, {90, 70}, {90, 90}, {10, 90}, {10, 70}}),
            lineRun({{10, 66}, {90, 66}, {90, 10}, {10, 10}, {10, 66}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {{"height", "Band height", "From the mouth down to the seam below the band.",
            "min(60, 0.25*face.height)", hold(), "15", "face.height/2"}};
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
                    on, "The face whose upper part it is: a band outside, a facing in the lining.",
                    [](const SiteSpec&) { return true; }, "lining front"),
            {"cloth", "Cloth", "What the band is cut from.",
                {{"shell", "Shell"}, {"overlay", "Second cloth"}, {"lining", "Lining"}}}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double y = site.top - f("height"),
                     s = d(site.lining && d.pattern.values.contains("allowance.lining") ? "allowance.lining"
                                                                                        : "allowance.body");
        const Piece face = d.pieceAt(site, y);
        AcrossCut cut = acrossAt(face, y, s);
        cut.edgeNames = {"below " + f.id.text()};
        cut.upper.name = site.lining ? say("Facing, {}", within(face.name)) : say("Top band, {}", within(face.name));
        cutAcross(d, cut);
        Piece& band = d.piece(cut.upper.key);
        band.material = f.choice("cloth"), band.role = site.lining ? "facing" : "band";
        if (site.lining)
            band.wholeRole.clear(); // a facing is no lining: it takes no interlining of the lining's
        const Message title = site.lining ? say("facing") : say("top band");
        d.add(Seam{.key = f.key("seam"),
            .name = say("{}, to the part below", band.name),
            .a = {{cut.upper.key, "below " + f.id.text()}},
            .b = {{cut.lower.key, "below " + f.id.text(), 0, true}},
            .allowance = s});
        const Run below = d.piece(cut.lower.key).edge("below " + f.id.text())->stitch;
        f.handle("height", cut.lower.key, pointAlong(below, 0.9 * lengthOf(below)), {0, -1}, 1, Handle::From::Top);
        d.addBeforeUse(Step{.id = f.key("seam"),
                           .title = say("Sew the {} to the {}", title, within(face.name)),
                           .acts = {act::sew({f.key("seam")}), act::press({f.key("seam")}, Act::To::Second),
                               act::topstitch({f.key("seam")}, 3.2, Act::To::Second)},
                           .kind = StepKind::Flat,
                           .phase = site.phase,
                           .consumes = {cut.upper.key, cut.lower.key},
                           .yields = face.key,
                           .check = say("Laid flat, it is as tall as it was drafted.")},
            face.key);
    }
};

} // namespace

const FeatureKind& bandKind()
{
    static const Band kind;
    return kind;
}

} // namespace tectonis
