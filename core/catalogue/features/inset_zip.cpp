// SPDX-License-Identifier: GPL-3.0-or-later
// Inset zip pockets: the face is cut in two, the zip lies in the gap, and the face stays as tall as it was. Several may
// be stacked.
#include "buildup/zip_ends.hpp"
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "drafting/zips.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class InsetZip : public FeatureKind {
public:
    std::string kind() const override { return "inset-zip"; }
    std::string name() const override { return "Inset zip pocket"; }
    bool cutsAcross() const override { return true; }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 60}, {90, 60}, {90, 88}, {10, 88}, {10, 60}}),
            lineRun({{10, 10}, {90, 10}, {90, 52}, {10, 52}, {10, 10}}), lineRun({{10, 56}, {90, 56}}),
            lineRun({{76, 60}, {84, 60}, {84, 52}, {76, 52}, {76, 60}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"count", "Zips, stacked", "How many zips lie one below the other, each with its own pocket bag.", "1",
                hold(), "1", "3", DimensionSpec::Quantity::Count},
            {"drop", "Inset zip drop", "From the mouth down to the middle of the first zip.", "0.3*face.height",
                follow(), "20", "face.height - (@count - 1)*@spacing - 30"},
            {"spacing", "Between zips", "From the middle of one zip to the middle of the next.",
                "min(60, 0.2*face.height)", follow(), "@tape - 2*@sewn + 15", "face.height/2",
                DimensionSpec::Quantity::Length, "@count > 1"},
            {"width", "Pocket bag width",
                "Width of the pocket bags, seam to seam, and of the zip's opening; tabs of cloth make up the rest to "
                "the sides. The bags hang free behind the face.",
                "0.7*face.width", follow(), "40", "face.width - 16"},
            {"depth", "Pocket bag depth", "From the zip down to the bottom of each pocket bag.",
                "0.8*(face.height - @drop - (@count - 1)*@spacing)", follow(), "25",
                "face.height - @drop - (@count - 1)*@spacing - 5"},
            {"gauge", "Zip gauge", "Gauge number: about the width of the closed chain in mm.", "5", hold(), "3", "10",
                DimensionSpec::Quantity::Count},
            {"tape", "Tape width", "Width of the zip's tapes with the closed chain.", "32", hold(), "20", "50"},
            {"sewn", "Tape sewn at", "From the tape's edge to the stitch line, or to a raw edge that laps over it.",
                "10", hold(), "4", "@tape/2 - 3"},
            {"allowance", "Zip seam allowance", "Seam allowance along the zip and round the pocket bag.", "10", hold(),
                "5", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        std::vector<ChoiceSpec> out{siteChoice(
                                        on, "The face that is cut in two for the zip.",
                                        [](const SiteSpec& s) { return !s.lining; }, "front", OnParts::Yes),
            {"edge", "Edges at the zip",
                "Sewn right sides together with the tape and turned, or cut where they lie, lapped over the tape and "
                "left raw.",
                {{"turned", "Turned"}, {"raw", "Raw, lapped"}}}};
        for (auto& choice : zipChoices(false))
            out.push_back(std::move(choice));
        out.push_back(zipEndChoice("ends", "Zip's ends",
            "Tabs of cloth from the zip's ends to the sides; or the zip itself from side to side, into both side "
            "seams, "
            "bar-tacked where the pocket bag ends.",
            {ZipEnd::Kind::Tab, ZipEnd::Kind::Seam}));
        return out;
    }

    void settle(Design& design, const std::string& id) const override
    {
        if (!design.library->material(design.materials.at("shell")).frays())
            design.choices.at(id + ".edge") = "raw";
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const double gap = d.work({f.id, f.key("gap"), say("Visible zip gap"), "tape - 2*sewn",
            {{"tape", f("tape")}, {"sewn", f("sewn")}}, 0, Kind::Geometry, "mm",
            f.choice("edge") == "raw" ? say("g = T − 2·l: what laps over the tape on both sides hides it")
                                      : say("g = T − 2·s_z")});
        const Site& site = f.site();
        d.work({f.id, f.key("kept"), say("Face, stitch to stitch, without what the zips show"), "height - count*gap",
            {{"height", site.height}, {"count", f("count")}, {"gap", gap}}, 0, Kind::Geometry, "mm",
            say("upper and lower parts together: H − g for each zip, so that the finished face is not taller")});
        for (int i = 0; i < int(std::lround(f("count"))); ++i)
            addZip(f, i, site.top - f("drop") - i * f("spacing"), gap);
    }

    void addZip(FeatureScope& f, int number, double y, double gap) const
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const Piece face = d.pieceAt(site, y);
        const double s = f("allowance"), half = f("width") / 2;
        const std::string tag = number == 0 ? "" : " " + std::to_string(number + 1),
                          bagEdge = "bag of " + f.id.text() + tag;
        AcrossCut cut = acrossAt(face, y, f.choice("edge") == "raw" ? 0 : s);
        cut.gap = gap;
        cut.stops = {site.x - half, site.x + half},
        cut.edgeNames = {"left of " + bagEdge, bagEdge, "right of " + bagEdge};
        cutAcross(d, cut);
        const PieceId upper = cut.upper.key, lower = cut.lower.key;
        const Box opening = boundsOf(lineRun({startOf(d.piece(lower).edge("right of " + bagEdge)->stitch),
            endOf(d.piece(lower).edge("left of " + bagEdge)->stitch)}));

        const Message one = f.named(say("Inset zip")), title = number == 0 ? one : say("{} {}", one, number + 1);
        drawBag(f, tag, title, gap, {upper, bagEdge}, {lower, bagEdge});
        const double w = f("width"), mouth = y - gap / 2;
        d.pattern.bags.push_back({f.id, lower, {f.key("bag front" + tag), f.key("bag back" + tag)},
            {site.x - half - s, mouth - f("depth") - s, site.x + half + s, mouth}});
        const double length = w;
        const bool tabbed = f.choice("ends") == "tab";
        const double tape = tabbed
            ? d.work({f.id, f.key("tape cut" + tag), say("Tape cut from continuous zip"), "opening + 2*lap",
                {{"opening", length}, {"lap", kTabLap}}, 0, Kind::Trade, "mm",
                say("the opening is as long as the bag is wide, so that nothing gapes into the lining; {} at both ends "
                    "lie in the tabs",
                    Len(kTabLap))})
            : d.work({f.id, f.key("tape cut" + tag), say("Tape cut from continuous zip"), "face + 2*allowance",
                {{"face", opening.width()}, {"allowance", d("allowance.body")}}, 0, Kind::Geometry, "mm",
                say("from side to side and into both side seams; it opens as far as the bag is wide")});
        std::vector<PieceId> tabs;
        if (tabbed)
            tabs = {drawTab(f, tag, title, face, opening.width())};
        Zip made{
            f.key("zip" + tag), title, lower, {site.x, y - gap / 2}, int(f("gauge")), length, tape, f("tape"), gap};
        made.first = made.last = {
            zipEndOf(f.choice("ends")), (opening.width() - length) / 2, tabbed ? tabs.front() : PieceId()};
        tectonis::addZip(f, made, tabbed ? length : tape);
        d.pattern.fittings.push_back({f.key("zip" + tag), title, lower, Fitting::Kind::Zip, {site.x, y}, length, 0,
            say("between the halves of the face")});
        d.pattern.spaces.push_back({f.id.text() + tag, title, w, f("depth"), d.pattern.depth / 3, 0, true});
        const Point middle{site.x, y}, end{site.x + half, y + gap / 2};
        if (number == 0) {
            d.pattern.places.push_back({f.id, lower, boxAround(middle, half, std::max(gap, 8.0) / 2), middle});
            f.handle("drop", upper, end, {0, -1});
        } else
            f.handle("spacing", upper, end, {0, -1}, 1.0 / number);

        addSteps(f, tag, face, {upper, lower}, made, tabs);
    }

    /// From the zip's end to the side of the face.
    PieceId drawTab(
        FeatureScope& f, const std::string& tag, const Message& title, const Piece& face, double width) const
    {
        Drafter& d = f.d;
        const double tab = d.work({f.id, f.key("tab" + tag), say("Tab at each end of the zip, cut length"),
            "(face - opening)/2 + lap + allowance",
            {{"face", width}, {"opening", f("width")}, {"lap", kTabLap}, {"allowance", d("allowance.body")}}, 0,
            Kind::Geometry, "mm",
            say("from the zip's end to the side of the face, over the tape's end and into the side seam")});
        Piece& cover = d.add({.key = f.key("tab" + tag),
            .code = d.freeCode("X"),
            .name = say("{}, end tab", title),
            .coat = Coat::Shell,
            .role = "tab",
            .material = face.material,
            .count = 4});
        drawRectangle(cover, tab, f("tape"), 0);
        cover.note = say("Two to each end, right sides together over the tape, turned outwards.");
        return cover.key;
    }

    /// The bag's front hangs from the lower tape, its back from the upper one: it is taller by the gap.
    void drawBag(FeatureScope& f, const std::string& tag, const Message& title, double gap, const EdgeUse& upper,
        const EdgeUse& lower) const
    {
        Drafter& d = f.d;
        const PieceId front = f.key("bag front" + tag), back = f.key("bag back" + tag);
        const bool raw = f.choice("edge") == "raw"; // what hangs beside the face ends at its raw edge
        const double w = f("width"), h = f("depth"), s = f("allowance");
        Piece& before = d.add({.key = front,
            .code = d.freeCode("P"),
            .name = say("{}, bag front", title),
            .coat = Coat::Lining,
            .role = "pocket",
            .material = "lining"});
        drawRectangle(before, w, h, s);
        for (auto& e : before.edges)
            if (raw && e.name == "top")
                e.allowance = 0;
        Piece& behind = d.add({.key = back,
            .code = d.freeCode("P"),
            .name = say("{}, bag back", title),
            .coat = Coat::Lining,
            .role = "pocket",
            .material = "lining"});
        behind.edges = {{"bottom", lineRun({{0, 0}, {w, 0}}), s, {}}, {"right", lineRun({{w, 0}, {w, h}}), s, {}},
            {"right end", lineRun({{w, h}, {w, h + gap}}), s, {}},
            {"top", lineRun({{w, h + gap}, {0, h + gap}}), s, {}}, {"left end", lineRun({{0, h + gap}, {0, h}}), s, {}},
            {"left", lineRun({{0, h}, {0, 0}}), s, {}}};
        const SeamId lowSeam = f.key("lower" + tag), upSeam = f.key("upper" + tag), bagSeam = f.key("sides" + tag);
        const char* stitch = raw ? "topstitch" : "construction";
        d.add(Seam{.key = lowSeam,
            .name = say("{}, lower edge", title),
            .a = {lower},
            .b = {{front, "top"}},
            .allowance = raw ? 0 : s,
            .stitch = stitch,
            .rawOutside = raw ? lower.piece : PieceId()});
        d.add(Seam{.key = upSeam,
            .name = say("{}, upper edge", title),
            .a = {upper},
            .b = {{back, "top", 0, true}},
            .allowance = raw ? 0 : s,
            .stitch = stitch,
            .rawOutside = raw ? upper.piece : PieceId()});
        d.add(Seam{.key = bagSeam,
            .name = say("{}, sides of the bag", title),
            .a = {{front, "left"}, {front, "bottom"}, {front, "right"}},
            .b = {{back, "left"}, {back, "bottom"}, {back, "right"}},
            .allowance = s});
    }

    /// @param pieces upper and lower part of the face.
    void addSteps(FeatureScope& f, const std::string& tag, const Piece& face, const std::vector<PieceId>& pieces,
        const Zip& made, const std::vector<PieceId>& tabs) const
    {
        Drafter& d = f.d;
        const PieceId &upper = pieces[0], &lower = pieces[1];
        const PieceId front = f.key("bag front" + tag), back = f.key("bag back" + tag);
        const SeamId lowSeam = f.key("lower" + tag), upSeam = f.key("upper" + tag), bagSeam = f.key("sides" + tag);
        const Site& site = f.site();
        const ZipId zip = f.key("zip" + tag);
        const Message what = within(face.name);
        const double lapped = f.choice("edge") == "raw" ? 3.2 : 0; // the row, from the raw edge
        const auto add = [&](const SeamId& id, const Message& title, std::vector<Act> acts,
                             std::vector<WorkId> consumes, const WorkId& yields, const Message& check) {
            d.addBeforeUse(Step{.id = id.as<StepKindOf>(),
                               .title = title,
                               .acts = std::move(acts),
                               .kind = StepKind::Flat,
                               .phase = site.phase,
                               .consumes = std::move(consumes),
                               .yields = yields,
                               .fittings = {zip.as<FittingKind>()},
                               .check = check},
                face.key);
        };
        std::vector<Act> acts = zipEndActs(made, tabs);
        const Act::Verb begins = firstZipVerb(acts, Act::Verb::SewTape);
        acts.push_back({.verb = Act::Verb::SewTape,
            .seams = {lowSeam},
            .pieces = {lower, front},
            .zips = {zip},
            .distance = f("sewn"),
            .taken = lapped});
        std::vector<WorkId> parts{lower, front};
        parts.insert(parts.end(), tabs.begin(), tabs.end());
        add(lowSeam, say("Sew the zip to the lower {}", what), std::move(acts), std::move(parts), lower,
            say("The slider runs freely."));
        readyBefore(d, zip, begins);
        // What lies in the side seams later: the tabs, or the tape itself.
        const Act held = tabs.empty() ? act::saying(act::ofZip(Act::Verb::BarTack, zip),
                             say("The bar tacks lie where the pocket bag ends; beyond them the zip runs on to the "
                                 "sides of the face, its tape "
                                 "basted {} from the edge.",
                                 Len(4)))
                                      : Act{.verb = Act::Verb::Baste, .pieces = tabs, .distance = 4};
        add(upSeam, say("Sew the zip to the upper {}", what),
            {{.verb = Act::Verb::SewTape,
                 .seams = {upSeam},
                 .pieces = {upper, back},
                 .zips = {zip},
                 .distance = f("sewn"),
                 .taken = lapped},
                held},
            {upper, lower, back}, face.key,
            say("Laid flat, the face is as tall as its lining: {} of zip show.", Len(made.visibleGap)));
        add(bagSeam, say("Close the pocket bag"),
            {{.verb = Act::Verb::HoldAway, .pieces = {face.key}}, act::sew({bagSeam})}, {face.key}, face.key,
            say("The slider is in the middle, so that the ends can be sewn over."));
    }
};

} // namespace

const FeatureKind& insetZipKind()
{
    static const InsetZip kind;
    return kind;
}

} // namespace tectonis
