// SPDX-License-Identifier: GPL-3.0-or-later
// Window zip pocket in the lining's back: a box cut into the lining, the zip behind it, a bag folded from one piece.
#include "drafting/panels.hpp"
#include "drafting/zips.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class ZipPocket : public FeatureKind {
public:
    std::string kind() const override { return "zip-pocket"; }
    std::string name() const override { return "Window zip pocket"; }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 58}, {90, 58}, {90, 74}, {10, 74}, {10, 58}}), lineRun({{10, 66}, {90, 66}}),
            lineRun({{16, 58}, {16, 14}, {84, 14}, {84, 58}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"length", "Zip length", "Nominal length of the zip, stop to stop; the window is as long.",
                "0.6*face.width", stock("zip"), "100", "face.width - 50"},
            {"window", "Window height", "Height of the box that shows the zip.", "12.7", hold(), "8", "25"},
            {"drop", "Zip pocket drop", "From the lining's mouth down to the window's upper edge.", "45", hold(), "25",
                "face.height/2"},
            {"across", "Sideways", "From the middle of the face to the middle of the window; to the right is positive.",
                "0", hold(), "-(face.width - @length)/2", "(face.width - @length)/2"},
            {"depth", "Zip pocket depth", "From the window's upper edge to the bottom of the pocket bag.",
                "0.55*face.height", follow(), "50", "face.height - @drop - 12"},
            {"margin", "Bag margin", "How far the pocket bag reaches past the window at both ends, seam to seam.", "15",
                hold(), "8", "40"},
            {"gauge", "Zip gauge", "Gauge number: about the width of the closed chain in mm.", "3", hold(), "3", "10",
                DimensionSpec::Quantity::Count},
            {"tape", "Tape width", "Width of the zip's tapes with the closed chain.", "27", hold(), "20", "50"},
            {"allowance", "Zip pocket allowance", "Seam allowance of the pocket bag.", "10", hold(), "5", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        std::vector<ChoiceSpec> out{siteChoice(
            on, "The face that the window is cut into.", [](const SiteSpec& s) { return !s.glued; }, "lining back",
            OnParts::Yes, OnSmall::Yes)};
        for (auto& choice : zipChoices(true))
            out.push_back(std::move(choice));
        using Kind = ZipEnd::Kind;
        out.push_back(zipEndChoice("ends", "Zip's ends",
            "Bar-tacked across at the window's ends; the tape folded away behind; or as long as the sides of the "
            "pocket "
            "bag, which catch it.",
            {Kind::Stop, Kind::Folded, Kind::Seam}));
        return out;
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const double zip = f("length"), box = f("window"), depth = f("depth");
        const Site& site = f.site();
        const double y1 = site.top - f("drop"), y0 = y1 - box, half = zip / 2, x = site.x + f("across");
        Piece& panel = d.pieceAt(site, (y0 + y1) / 2);
        f.placeOn(panel, f.line("zip window"), rectangleRun(x - half, y0, x + half, y1));
        const double cut = std::min(6.4, zip / 4), ym = (y0 + y1) / 2;
        panel.lines.push_back(
            {"zip slash", FaceLine::Kind::Slash, lineRun({{x - half + cut, ym}, {x + half - cut, ym}})});
        for (const double side : {-1.0, 1.0}) {
            panel.lines.push_back(
                {"Y-cut", FaceLine::Kind::Slash, lineRun({{x + side * (half - cut), ym}, {x + side * half, y1}})});
            panel.lines.push_back(
                {"Y-cut", FaceLine::Kind::Slash, lineRun({{x + side * (half - cut), ym}, {x + side * half, y0}})});
        }
        drawBag(f, panel.key);
        const double reach = half + f("margin") + f("allowance"), s = f("allowance");
        d.pattern.bags.push_back(
            {f.id, panel.key, {f.key("bag"), f.key("bag")}, {x - reach, y1 - f("depth"), x + reach, y1 + kRise + s}});

        const ZipEnd::Kind ends = zipEndOf(f.choice("ends"));
        const double tape = ends == ZipEnd::Kind::Seam
            ? d.work({f.id, f.key("tape"), say("Tape cut from continuous zip"), "nominal + 2*(margin + allowance)",
                {{"nominal", zip}, {"margin", f("margin")}, {"allowance", f("allowance")}}, 0, Kind::Geometry, "mm",
                say("on both sides over the bag's margin and into its side seam")})
            : d.work({f.id, f.key("tape"), say("Tape cut from continuous zip"), "nominal + 2*25.4", {{"nominal", zip}},
                0, Kind::Trade, "mm",
                say("a finished zip has tape beyond each stop: {} in all, common practice", Len(50.8))});
        const double gap = d.work({f.id, f.key("gap"), say("Visible zip gap"), "tape - 2*((tape - window)/2)",
            {{"tape", f("tape")}, {"window", box}}, 0, Kind::Geometry, "mm",
            say("g = T − 2·s_z; the tape is sewn where the window's edges lie")});
        d.work({f.id, f.key("lap"), say("Tape behind each window edge"), "(tape - window)/2",
            {{"tape", f("tape")}, {"window", box}}, 0, Kind::Geometry, "mm", say("what there is to stitch through")});
        Zip made{f.key("zip"), say("Pocket zip"), panel.key, {x, ym}, int(f("gauge")), zip, tape, f("tape"), gap};
        const double left = (site.width - zip) / 2 + f("across"), right = (site.width - zip) / 2 - f("across");
        made.first = {ends, f.choice("opens") == "left" ? right : left};
        made.last = {ends, f.choice("opens") == "left" ? left : right};
        addZip(f, std::move(made), zip);
        d.pattern.fittings.push_back({f.key("zip"), say("Pocket zip"), panel.key, Fitting::Kind::Zip, {x, ym}, zip, 0,
            say("one layer, in a window")});
        d.pattern.spaces.push_back(
            {f.id.text(), f.named(say("Zip pocket")), zip, depth - box, d.pattern.depth / 3, 0, true});
        f.handle("drop", panel.key, {x + half, y1}, {0, -1}, 1, Handle::From::Top);
        steps(f, panel.key);
    }

    static constexpr double kRise = 15; ///< mm of the bag above its window (common practice, no source)

    /// The bag hangs from the window's lower edge, folds up and closes behind the upper edge: its strip is folded at
    /// the bottom.
    void drawBag(FeatureScope& f, const PieceId& panel) const
    {
        Drafter& d = f.d;
        const double w = d.work({f.key("bag"), f.key("bag.width"), say("Pocket bag width"), "zip + 2*margin",
            {{"zip", f("length")}, {"margin", f("margin")}}, 0, Kind::Trade, "mm",
            say("seam to seam; past the window at both ends")});
        const double s = f("allowance"), rise = kRise, back = f("depth") + rise;
        // Both halves run from the fold at the bottom to the top edges above the window.
        Piece& bag = d.add({.key = f.key("bag"),
            .code = d.freeCode("P"),
            .name = f.named(say("Zip pocket bag")),
            .coat = Coat::Lining,
            .role = "pocket",
            .material = "lining"});
        bag.edges = {{"top front", lineRun({{0, 0}, {w, 0}}), s, {}},
            {"right front", lineRun({{w, 0}, {w, back}}), s, {}},
            {"right back", lineRun({{w, back}, {w, 2 * back}}), s, {}},
            {"top back", lineRun({{w, 2 * back}, {0, 2 * back}}), s, {}},
            {"left back", lineRun({{0, 2 * back}, {0, back}}), s, {}},
            {"left front", lineRun({{0, back}, {0, 0}}), s, {}}};
        bag.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{0, back}, {w, back}})});
        const double half = f("length") / 2, box = f("window");
        bag.lines.push_back(
            {"zip window", FaceLine::Kind::Placement, rectangleRun(w / 2 - half, rise, w / 2 + half, rise + box)});
        d.add(Seam{.key = f.key("window"),
            .name = say("{}, bag to face", f.named(say("Window"))),
            .a = {{panel, f.line("zip window")}},
            .b = {{f.key("bag"), "zip window"}}});
        d.add(Seam{.key = f.key("sides"),
            .name = say("Zip pocket bag, sides and top"),
            .a = {{f.key("bag"), "right front", 0, true}, {f.key("bag"), "top front", 0, true},
                {f.key("bag"), "left front", 0, true}},
            .b = {{f.key("bag"), "right back"}, {f.key("bag"), "top back"}, {f.key("bag"), "left back"}},
            .allowance = s});
    }

    void steps(FeatureScope& f, const PieceId& panel) const
    {
        const auto add = [&](const char* id, const Message& title, StepKind kind, std::vector<Act> acts, bool bag) {
            Step step{.id = f.key(id),
                .title = title,
                .acts = std::move(acts),
                .kind = kind,
                .phase = f.site().phase,
                .consumes = {panel},
                .yields = panel};
            if (bag)
                step.consumes.push_back(f.key("bag"));
            f.d.addBeforeUse(std::move(step), panel);
        };
        const Message name = within(f.d.piece(panel).name);
        // The latest goes in first: each is put before what is there.
        add("bag", say("Close the zip pocket bag"), StepKind::Flat,
            {act::of(Act::Verb::FoldUp, f.key("bag")), {.verb = Act::Verb::HoldAway, .pieces = {panel}},
                act::saying(act::sew({f.key("sides")}), say("The {} is not caught.", name))},
            false);
        add("zip", say("Sew the zip behind the window"), StepKind::Hardware,
            {{.verb = Act::Verb::InsertZip,
                .pieces = {panel},
                .fittings = {f.key("zip")},
                .zips = {f.key("zip")},
                .distance = 2}},
            false);
        readyBefore(f.d, f.key("zip"), Act::Verb::InsertZip);
        add("window", say("Open the window in the {}", name), StepKind::Flat,
            {{.verb = Act::Verb::Window, .seams = {f.key("window")}, .distance = 6.4}}, true);
    }
};

} // namespace

const FeatureKind& zipPocketKind()
{
    static const ZipPocket kind;
    return kind;
}

} // namespace tectonis
