// SPDX-License-Identifier: GPL-3.0-or-later
// Zip at the mouth: recessed between two bands that hang from the lining, or sewn to front and back right at the mouth.
#include "drafting/cut.hpp"
#include "drafting/flat_order.hpp"
#include "drafting/panels.hpp"
#include "drafting/unlined.hpp"
#include "drafting/zips.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

constexpr double kTabLap = 12; // a tab laps the tape by so much: common practice, no source

class TopZip : public FeatureKind {
public:
    std::string kind() const override { return "top-zip"; }
    std::string shortName() const override { return "topzip"; }
    std::string name() const override { return "Zip at the mouth"; }
    bool cutsAcross() const override { return true; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{8, 60}, {24, 88}, {92, 88}, {76, 60}, {8, 60}}), lineRun({{16, 74}, {84, 74}}),
            lineRun({{8, 60}, {8, 10}, {76, 10}, {76, 60}}), lineRun({{76, 10}, {92, 38}, {92, 88}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"end", "Zip ends short",
                "From the side of the face to the zip's first stitch, at both ends. On a wall that goes round the "
                "bag's corners the side of the face is the corner, not the seam; negative: past the corner, towards "
                "the side seam.",
                "19", hold(), "-mouth.depth/2", "0.25*face.width"},
            {"drop", "Zip below the mouth", "How deep a recessed zip's bands hang below the mouth.",
                "min(30, 0.15*face.height)", hold(), "15", "face.height/3", DimensionSpec::Quantity::Length,
                "@held=bands"},
            {"past", "Zip past the mouth",
                "How far the zip's tail reaches past the mouth's end (the side seam), so that the mouth opens fully; "
                "0: the zip ends inside the mouth.",
                "50", hold(), "0", "120"},
            {"gauge", "Zip gauge", "Gauge number: about the width of the closed chain in mm.", "5", hold(), "3", "10",
                DimensionSpec::Quantity::Count},
            {"tape", "Tape width", "Width of the zip's tapes with the closed chain.", "32", hold(), "20", "50"},
            {"sewn", "Tape sewn at", "From the tape's edge to the stitch line.", "10", hold(), "4", "@tape/2 - 3"},
            {"allowance", "Band allowance", "Seam allowance of the bands' ends and zip edges.", "8", hold(), "4", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier&) const override
    {
        std::vector<ChoiceSpec> out{{"held", "Zip held by",
            "Two bands that hang from the lining below the mouth; or the mouth itself, where front and back meet.",
            {{"bands", "Recessed, on bands"}, {"mouth", "The mouth's edges"}}}};
        for (auto& choice : zipChoices(false))
            out.push_back(std::move(choice));
        return out;
    }

    Message unfit(const Form& form) const override
    {
        const auto sites = form.sites();
        const auto found = std::count_if(sites.begin(), sites.end(), [](const SiteSpec& site) {
            const std::string& of = site.name;
            return site.when.empty() && (of == "front" || of == "back" || of == "lining front" || of == "lining back");
        });
        const auto dimensions = form.dimensions();
        const bool mouth = std::any_of(
            dimensions.begin(), dimensions.end(), [](const DimensionSpec& d) { return d.name == "allowance.mouth"; });
        return found == 4 && mouth
            ? Message()
            : say("a zip at the mouth needs an open mouth between a front and a back, both lined");
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        if (unlined(d))
            throw InputError(f.id.text(),
                say("a zip at the mouth is caught between shell and lining, or hangs from the "
                    "lining: a bag without one has no place for it"));
        const double gap = d.work({f.id, f.key("gap"), say("Visible zip gap"), "tape - 2*sewn",
            {{"tape", f("tape")}, {"sewn", f("sewn")}}, 0, Kind::Geometry, "mm", say("g = T − 2·s_z")});
        const double opening = d.work({f.id, f.key("opening"), say("Zip between its ends"), "face - 2*end",
            {{"face", d("face.width")}, {"end", f("end")}}, 0, Kind::Trade, "mm",
            say("it ends short of the side seams; tabs make up the rest")});
        const bool recessed = f.choice("held") == "bands", longTail = f("past") > 0;
        const PieceId held = recessed ? f.key("band") : d.pieceAt(d.site("front"), d.site("front").top).key;
        const Point at = recessed ? Point{opening / 2, 0} : Point{d.site("front").x, d.site("front").top};
        // Codes go by the order of adding, so the tab stands before the bands.
        d.add({.key = f.key("tab"),
            .code = d.freeCode("X"),
            .name = f.named(say("Zip tab")),
            .coat = Coat::Shell,
            .role = "tab",
            .material = "shell",
            .count = longTail && !recessed ? 1 : 2});
        if (longTail && !recessed)
            addTailTab(f);
        const double fromSeam = recessed ? onBands(f, gap, opening) : atMouth(f, gap, opening);
        const double tail = d.work({f.id, f.key("tail"), say("Tail past the zip's end"),
            "(past > 0 ? from_seam + past : 0)", {{"from_seam", fromSeam}, {"past", f("past")}}, 0, Kind::Trade, "mm",
            say("on to the side seam and past it; none where the zip ends inside the mouth")});
        const double tape = d.work({f.id, f.key("tape cut"), say("Tape cut"), "opening + tail",
            {{"opening", opening}, {"tail", tail}}, 0, Kind::Trade, "mm", say("the tail lets the mouth open fully")});
        const double reach = recessed ? 0 : std::max(0.0, fromSeam);
        const double length = d.work({f.id, f.key("tab.length"), say("Tab, unfolded"), "2*(reach + lap)",
            {{"reach", reach}, {"lap", kTabLap}}, 0, Kind::Trade, "mm",
            recessed
                ? say("folded over the tape's end")
                : say("folded, it laps the tape's end and reaches to the side seam: tape and tabs make up the mouth")});
        Piece& tab = d.piece(f.key("tab"));
        drawRectangle(tab, f("tape"), length, f("allowance"));
        tab.note = recessed ? say("Folded over the tape's end and stitched.")
                            : say("Folded over the tape's end and stitched; its raw end lies in the side seam.");
        addZip(
            f, {f.key("zip"), say("Zip at the mouth"), held, at, int(f("gauge")), opening, tape, f("tape"), gap}, tape);
        readyBefore(d, f.key("zip"), Act::Verb::SealEnds);
    }

    /// Where the zip is held by the mouth, a tail that hangs out of it has a tab of its own.
    static void addTailTab(FeatureScope& f)
    {
        Piece& tab = f.d.add({.key = f.key("tab.tail"),
            .code = f.d.freeCode("X"),
            .name = f.named(say("Zip tail tab")),
            .coat = Coat::Shell,
            .role = "tab",
            .material = "shell"});
        drawRectangle(tab, f("tape"), 2 * kTabLap, f("allowance"));
        tab.note = say("Folded over the tail's end and stitched.");
    }

    /// @returns how far the zip ends from the side seam, mm.
    double onBands(FeatureScope& f, double gap, double opening) const
    {
        Drafter& d = f.d;
        const double s = f("allowance"), hinge = d("allowance.lining");
        const double wide = d.work({f.id, f.key("band.width"), say("Finished width of each band"), "(depth - gap)/2",
            {{"depth", d("mouth.depth")}, {"gap", gap}}, 0, Kind::Geometry, "mm",
            say("both bands and the gap make the mouth's depth")});
        if (wide < 8)
            throw InputError(f.id.text(),
                say("the mouth is too narrow for bands beside the zip: its depth less the visible gap leaves less than "
                    "8 mm for each. Hold the zip by the mouth's edges instead"));
        for (const bool under : {false, true}) {
            Piece& band = d.add({.key = f.key(under ? "band.under" : "band"),
                .code = d.freeCode("X"),
                .name = f.named(under ? say("Zip band lining") : say("Zip band")),
                .coat = under ? Coat::Lining : Coat::Shell,
                .role = "zip band",
                .material = under ? "lining" : "shell",
                .count = 2,
                .grain = 0});
            band.edges = {{"zip", lineRun({{0, 0}, {opening, 0}}), s, {}},
                {"right", lineRun({{opening, 0}, {opening, wide}}), s, {}},
                {"hinge", lineRun({{opening, wide}, {0, wide}}), hinge, {}},
                {"left", lineRun({{0, wide}, {0, 0}}), s, {}}};
        }
        const PieceId band = f.key("band"), under = f.key("band.under");
        std::vector<SeamId> seams;
        for (int copy = 0; copy < 2; ++copy)
            for (const char* edge : {"left", "zip", "right"}) {
                const SeamId key = f.key(std::string(edge) + (copy ? " back" : " front"));
                d.add(Seam{.key = key,
                    .name = say("Zip band, {}{}", (copy ? say("back, ") : say("front, ")),
                        (std::string(edge) == "zip" ? say("along the zip") : say("{} end", sideLabel(edge)))),
                    .a = {{band, edge, copy}},
                    .b = {{under, edge, copy}},
                    .allowance = s});
                seams.push_back(key);
            }
        std::vector<AcrossCut> cuts;
        std::vector<Piece> faces;
        double fromSeam = 0;
        for (const char* side : {"front", "back"}) {
            const Site& site = d.site(std::string("lining ") + side);
            const double y = site.top - f("drop"), half = opening / 2;
            faces.push_back(d.pieceAt(site, y));
            AcrossCut cut = acrossAt(faces.back(), y, hinge);
            cut.stops = {site.x - half, site.x + half},
            cut.edgeNames = {"left of " + f.id.text(), f.id, "right of " + f.id.text()};
            cutAcross(d, cut);
            if (cuts.empty()) {
                double panel = 0;
                for (const auto& name : cut.edgeNames)
                    panel += d.piece(cut.lower.key).edge(name)->length();
                fromSeam = endFromSeam(f, panel, opening);
            }
            for (const auto& piece : {cut.upper.key, cut.lower.key})
                for (const double at : {0.0, opening})
                    d.piece(piece).notches.push_back({f.id, at, say("band ends"), true});
            cuts.push_back(std::move(cut));
        }
        // What stands in the bag must pass below the bands when the zip is closed.
        for (auto& space : d.pattern.spaces)
            if (space.place == "main")
                space.height = d.work({"body", "inside.below", say("Inside height below the zip bands"),
                    "height - drop", {{"height", space.height}, {"drop", f("drop")}}, 0, Kind::Geometry, "mm",
                    say("the zip closes over what is carried")});
        const std::vector<WorkId> both{faces[0].key, faces[1].key};
        makeBands(f, both, seams);
        for (const std::size_t i : {0u, 1u})
            basteBand(f, faces[i], cuts[i], both, i);
        for (const std::size_t i : {0u, 1u})
            joinOverBand(f, faces[i], cuts[i], i);
        openBeforeTurning(f, faces.back().key);
        return fromSeam;
    }

    static double endFromSeam(FeatureScope& f, double panel, double opening)
    {
        return f.d.work({f.id, f.key("from seam"), say("Zip's end from the side seam"), "(panel - opening)/2",
            {{"panel", panel}, {"opening", opening}}, 0, Kind::Geometry, "mm",
            say("where a wall goes round the bag's corner, the seam lies that much further than the face's side")});
    }

    /// The length of a piece's mouth: its straight edges at the height of @p top. A curved mouth has none; then the
    /// face's width stands for it.
    static double mouthOf(const Piece& face, double top, double width)
    {
        double length = 0;
        for (const auto& e : face.edges)
            if (std::abs(startOf(e.stitch).y - top) < 0.01 && std::abs(endOf(e.stitch).y - top) < 0.01)
                length += e.length();
        return length > 0 ? length : width;
    }

    static std::string sideOf(std::size_t i) { return i == 0 ? " front" : " back"; }

    void basteBand(FeatureScope& f, const Piece& face, const AcrossCut& cut, const std::vector<WorkId>& before,
        std::size_t i) const
    {
        const SeamId key = f.key("caught" + sideOf(i));
        const PieceId band = f.key("band");
        f.d.add(Seam{.key = key,
            .name = say("Zip band in the {} seam", within(face.name)),
            .a = {{cut.upper.key, f.id}},
            .b = {{band, "hinge", int(i), true}},
            .allowance = cut.allowance,
            .stitch = "baste"});
        std::vector<WorkId> parts{cut.lower.key};
        if (i == 0)
            parts.insert(parts.begin(), f.key("zipped"));
        f.d.addBeforeUse(
            Step{.id = f.key("baste" + sideOf(i)),
                .title = say("Baste a zip band to the lower {}", within(face.name)),
                .acts = {act::saying(act::lay(band, cut.lower.key, key), say("The zip lies towards the bag's middle.")),
                    act::baste(4)},
                .kind = StepKind::Baste,
                .phase = "Lining",
                .consumes = parts,
                .yields = cut.lower.key,
                .check = say("Both ends are on their marks.")},
            before);
    }

    void joinOverBand(FeatureScope& f, const Piece& face, const AcrossCut& cut, std::size_t i) const
    {
        const SeamId key = f.key("hinge" + sideOf(i));
        const PieceId band = f.key("band"), under = f.key("band.under");
        std::vector<EdgeUse> above, below;
        for (const auto& e : cut.edgeNames)
            above.push_back({cut.upper.key, e}), below.push_back({cut.lower.key, e, 0, true});
        f.d.add(Seam{.key = key,
            .name = say("{} seam with the zip band", face.name),
            .a = above,
            .b = below,
            .allowance = cut.allowance,
            .trapped = {band, under}});
        f.d.addBeforeUse(Step{.id = key.as<StepKindOf>(),
                             .title = say("Join the {} over the zip band", within(face.name)),
                             .acts = {act::sew({key}), act::press({key}, Act::To::First),
                                 act::topstitch({key}, 3.2, Act::To::First)},
                             .kind = StepKind::Seam,
                             .phase = "Lining",
                             .consumes = {cut.upper.key, cut.lower.key},
                             .yields = face.key,
                             .pieces = {cut.upper.key, cut.lower.key, band},
                             .check = say("It is as tall as the lining was drafted.")},
            face.key);
    }

    void makeBands(FeatureScope& f, const std::vector<WorkId>& before, const std::vector<SeamId>& seams) const
    {
        f.d.addBeforeUse(
            Step{.id = f.key("make"),
                .title = say("Make the zip bands"),
                .acts = {act::ofZip(Act::Verb::SealEnds, f.key("zip"), {f.key("tab")}),
                    {.verb = Act::Verb::Sew, .seams = seams, .zips = {f.key("zip")}, .distance = f("sewn")},
                    act::turn(seams), act::roll(seams, 3.2)},
                .kind = StepKind::Flat,
                .phase = "Lining",
                .consumes = {f.key("band"), f.key("band.under"), f.key("tab")},
                .yields = f.key("zipped"),
                .pieces = {f.key("band"), f.key("band.under"), f.key("tab")},
                .check = say("The hinge edges lie level when the zip is closed."),
                .closesZips = {f.key("zip")}},
            before);
    }

    /// The tapes lie in the mouth's seam, between shell and lining.
    /// @returns how far the zip ends from the side seam, mm.
    double atMouth(FeatureScope& f, double gap, double opening) const
    {
        Drafter& d = f.d;
        const Site& front = d.site("front");
        Piece& face = d.pieceAt(front, front.top);
        const PieceId key = face.key;
        const double fromSeam = endFromSeam(f, mouthOf(face, front.top, d("face.width")), opening);
        d.pattern.fittings.push_back({f.key("zip"), say("Zip at the mouth"), key, Fitting::Kind::Zip,
            {front.x, front.top - gap / 2}, opening, 0, say("between shell and lining")});
        d.work({f.id, f.key("pull"), say("Depth that the zip draws in at the mouth"), "depth - gap",
            {{"depth", d("mouth.depth")}, {"gap", gap}}, 0, Kind::Geometry, "mm",
            say("nothing where the depth at the mouth is the visible gap")});
        std::vector<PieceId> tabs{f.key("tab")};
        if (f("past") > 0)
            tabs.push_back(f.key("tab.tail"));
        d.addBeforeUse(Step{.id = f.key("tabs"),
                           .title = say("Cover the zip's ends"),
                           .acts = {act::saying(act::ofZip(Act::Verb::SealEnds, f.key("zip"), tabs),
                               say("Their raw ends reach past the side seams' lines."))},
                           .kind = StepKind::Flat,
                           .phase = "Small parts",
                           .consumes = {tabs.begin(), tabs.end()},
                           .yields = f.key("tab"),
                           .pieces = tabs,
                           .check = say("No stitch lies over the chain where the slider runs."),
                           .closesZips = {f.key("zip")}},
            mouthFirst(d) ? WorkId(key) : WorkId("shell"));
        Step on{.id = f.key("on"),
            .title = say("Baste the zip to the mouth"),
            .acts = {{.verb = Act::Verb::LayTape,
                         .pieces = {key, d.pieceAt(d.site("back"), d.site("back").top).key},
                         .zips = {f.key("zip")},
                         .distance = fromSeam,
                         .taken = f("sewn")},
                act::baste(d("allowance.mouth")), act::ofZip(Act::Verb::OpenZip, f.key("zip"))},
            .kind = StepKind::Baste,
            .phase = "Shell assembly",
            .consumes = {"shell", f.key("tab")},
            .yields = "shell",
            .pieces = {key},
            .fittings = {f.key("zip")},
            .check = say("Closed, the sides meet level.")};
        if (mouthFirst(d)) {
            on.phase = "Joining";
            on.consumes = {on.acts.front().pieces.front(), on.acts.front().pieces.back(), f.key("tab")};
            bridgeWalls(d, std::move(on));
        } else
            d.addBeforeJoining(std::move(on));
        return fromSeam;
    }

    /// Closed to true the bands, opened before the lining is sewn round it.
    void openBeforeTurning(FeatureScope& f, const PieceId& face) const
    {
        f.d.addBeforeUse(Step{.id = f.key("open"),
                             .title = say("Open the zip"),
                             .acts = {act::ofZip(Act::Verb::OpenZip, f.key("zip"))},
                             .kind = StepKind::Press,
                             .phase = "Lining",
                             .consumes = {face},
                             .yields = face,
                             .pieces = {f.key("band")},
                             .check = say("The slider is at the tail.")},
            face);
    }
};

} // namespace

const FeatureKind& topZipKind()
{
    static const TopZip kind;
    return kind;
}

} // namespace tectonis
