// SPDX-License-Identifier: GPL-3.0-or-later
// Slip pocket on the lining's front: one piece folded at its top edge, turned, stitched on at three sides.
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

/// Left open in the pocket's seam to turn it through: 60 mm, or half of a narrow pocket (common practice, no source).
double turningGap(double width) { return std::min(60.0, width / 2); }

class SlipPocket : public FeatureKind {
public:
    std::string kind() const override { return "slip-pocket"; }
    std::string name() const override { return "Slip pocket"; }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{18, 76}, {18, 16}, {82, 16}, {82, 76}, {18, 76}}), lineRun({{18, 68}, {82, 68}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Slip pocket width", "Finished width of the pocket.", "min(110, face.width - 40)", hold(), "40",
                "face.width - 30"},
            {"height", "Slip pocket height", "Finished height of the pocket.", "min(130, 0.62*face.height)", hold(),
                "30", "face.height - 20"},
            {"drop", "Slip pocket drop", "From the lining's mouth down to the pocket's top edge.",
                "min(45, 0.2*face.height)", hold(), "15", "face.height - 40"},
            {"across", "Sideways", "From the middle of the face to the middle of the pocket; to the right is positive.",
                "0", hold(), "-(face.width - @width)/2", "(face.width - @width)/2"},
            {"allowance", "Slip pocket allowance", "Seam allowance round the pocket.", "6.4", hold(), "4", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face that the pocket sits on.", [](const SiteSpec& s) { return !s.glued; }, "lining front",
            OnParts::No, OnSmall::Yes)};
    }

    std::vector<PartFace> faces() const override { return {{"front", "Slip pocket", "@width", "@height"}}; }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const double w = f("width"), h = f("height"), s = f("allowance");
        const Site& site = f.site();
        Piece& pocket = d.add({.key = f.id,
            .code = d.freeCode("P"),
            .name = f.named(say("Slip pocket")),
            .coat = site.lining ? Coat::Lining : Coat::Shell,
            .role = "pocket",
            .material = site.lining ? "lining" : "shell"});
        // Outline order: the outside half lies below the fold, the inside half above.
        pocket.edges = {{"bottom", lineRun({{0, 0}, {w, 0}}), s, {}}, {"right", lineRun({{w, 0}, {w, h}}), s, {}},
            {"right inside", lineRun({{w, h}, {w, 2 * h}}), s, {}},
            {"bottom inside", lineRun({{w, 2 * h}, {0, 2 * h}}), s, {}},
            {"left inside", lineRun({{0, 2 * h}, {0, h}}), s, {}}, {"left", lineRun({{0, h}, {0, 0}}), s, {}}};
        pocket.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{0, h}, {w, h}})});
        pocket.lines.push_back({"mouth topstitch", FaceLine::Kind::Topstitch, lineRun({{0, h - 6.4}, {w, h - 6.4}})});

        pocket.areas["face"] = rectangleRun(0, 0, w, h);
        f.offer("front", f.named(say("Slip pocket")), f.id, {w / 2, h}, w, h, "Small parts");
        const double top = site.top - f("drop"), low = top - h, half = w / 2, x = site.x + f("across");
        Piece& face = d.pieceAt(site, (top + low) / 2);
        const EdgeId mark = f.line("slip pocket");
        f.placeOn(face, mark, lineRun({{x - half, top}, {x - half, low}, {x + half, low}, {x + half, top}}));
        d.pattern.overlays.push_back({f.id, face.key, {x - half, low}});
        d.add(Seam{.key = f.key("bag"),
            .name = say("Slip pocket to itself"),
            .a = {{f.id, "left"}, {f.id, "bottom"}, {f.id, "right"}},
            .b = {{f.id, "left inside", 0, true}, {f.id, "bottom inside", 0, true}, {f.id, "right inside", 0, true}},
            .allowance = s,
            .open = turningGap(w)});
        d.add(Seam{.key = f.key("on"),
            .name = say("Slip pocket on the lining"),
            .a = {{f.id, "left"}, {f.id, "bottom"}, {f.id, "right"}},
            .b = {{face.key, mark}},
            .stitch = "topstitch"});
        d.pattern.spaces.push_back({f.id.text(), f.named(say("Slip pocket")), w, h, d.pattern.depth / 3, 0, true});
        f.handle("width", face.key, {x + half, (top + low) / 2}, {1, 0}, 2);
        f.handle("height", face.key, {x, low}, {0, -1});
        steps(f, face.key);
    }

    void steps(FeatureScope& f, const PieceId& face) const
    {
        const act::Seams bag{f.key("bag")};
        f.d.addOnTop(Step{.id = f.key("make"),
                         .title = say("Make the slip pocket"),
                         .acts = {act::foldInHalf(f.id), act::sew(bag), act::grade(bag), act::turn(bag),
                             act::press(f.id), act::topstitch({}, 6.4, Act::To::Nowhere)},
                         .kind = StepKind::Flat,
                         .phase = "Small parts",
                         .consumes = {f.id},
                         .yields = f.key("ready"), // what sits on it is sewn on before
                         .check = say("Finished {} × {}.", Len(f("width")), Len(f("height")))},
            face);
        f.d.addOnTop(Step{.id = f.key("on"),
                         .title = say("Stitch the slip pocket onto the {}", within(f.d.piece(face).name)),
                         .acts = {act::stitchOn({f.key("on")})},
                         .kind = StepKind::Flat,
                         .phase = f.site().phase,
                         .consumes = {face, f.key("ready")},
                         .yields = face,
                         .pieces = {f.id, face},
                         .check = say("The pocket's top edge runs level with the upper edge of its face.")},
            face);
    }
};

} // namespace

const FeatureKind& slipPocketKind()
{
    static const SlipPocket kind;
    return kind;
}

} // namespace tectonis
