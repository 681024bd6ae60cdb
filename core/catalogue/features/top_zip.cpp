// SPDX-License-Identifier: GPL-3.0-or-later
// Zip at the mouth: recessed between two bands that hang from the lining, or sewn to front and back right at the mouth.
#include "buildup/zip_ends.hpp"
#include "design/evaluate.hpp"
#include "drafting/cut.hpp"
#include "drafting/flat_order.hpp"
#include "drafting/panels.hpp"
#include "drafting/unlined.hpp"
#include "drafting/zips.hpp"
#include "features/feature.hpp"
#include "features/spec_of.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

constexpr double kLeastBand = 8; // mm, each

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
            {"end", "First stitch",
                "From the side of the face to the zip's first stitch, where its closed slider rests. On a wall that "
                "goes "
                "round the bag's corners the side of the face is the corner, not the seam; negative: past the corner, "
                "towards the side seam.",
                "19", hold(), "-mouth.depth/2", "0.25*face.width"},
            {"last", "Last stitch", "The same at its other end, where the slider goes when it is opened.", "@end",
                follow(), "-mouth.depth/2", "0.25*face.width"},
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
        using Kind = ZipEnd::Kind;
        out.push_back(zipEndChoice("first", "Zip begins",
            "How its end is made where the closed slider rests: under a tab of cloth, the tape folded away, running on "
            "into the side seam where the mouth is sewn first, or between bands bar-tacked or in a metal end.",
            {Kind::Tab, Kind::Folded, Kind::Seam, Kind::Stop, Kind::Metal}));
        out.push_back(zipEndChoice("tail", "Zip ends",
            "The same at its other end; what hangs out past the mouth is under a tab, folded, bar-tacked or in a metal "
            "end.",
            {Kind::Tab, Kind::Folded, Kind::Seam, Kind::Stop, Kind::Metal}));
        return out;
    }

    Message unfit(const Form& form) const override
    {
        const auto sites = form.sites();
        const auto found = std::count_if(sites.begin(), sites.end(), [](const SiteSpec& site) {
            const std::string& of = site.name;
            return of == "front" || of == "back" || of == "lining front" || of == "lining back";
        });
        const auto dimensions = form.dimensions();
        const bool mouth = std::any_of(
            dimensions.begin(), dimensions.end(), [](const DimensionSpec& d) { return d.name == "allowance.mouth"; });
        return found == 4 && mouth
            ? Message()
            : say("a zip at the mouth needs an open mouth between a front and a back, both lined");
    }

    void settle(Design& design, const std::string& id) const override
    {
        // A flat mouth has no depth for bands.
        const Values values = evaluate(design, specOf(design), sizeIndex(design, design.baseSize));
        const double gap = values.at(id + ".tape") - 2 * values.at(id + ".sewn");
        if (values.at("mouth.depth") - gap < 2 * kLeastBand)
            design.choices.at(id + ".held") = "mouth";
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        for (const char* wall : {"front", "back"})
            if (!d.pattern.piece(wall) && !d.pattern.site(SiteId(wall)))
                throw InputError(f.id.text(),
                    say("a zip at the mouth goes from seam to seam between a front and a back, and this bag's wall is "
                        "one "
                        "piece round it"));
        if (unlined(d))
            throw InputError(f.id.text(),
                say("a zip at the mouth is caught between shell and lining, or hangs from the "
                    "lining: a bag without one has no place for it"));
        const double gap = d.work({f.id, f.key("gap"), say("Visible zip gap"), "tape - 2*sewn",
            {{"tape", f("tape")}, {"sewn", f("sewn")}}, 0, Kind::Geometry, "mm", say("g = T − 2·s_z")});
        const double opening = d.work({f.id, f.key("opening"), say("Zip between its ends"), "face - first - last",
            {{"face", d("face.width")}, {"first", f("end")}, {"last", f("last")}}, 0, Kind::Trade, "mm",
            say("it ends short of the side seams; tabs make up the rest")});
        const bool recessed = f.choice("held") == "bands";
        const Wall front = wallOf(d, "front");
        TopZipDraft z{.gap = gap, .opening = opening};
        // To the right of the front's middle.
        z.aside = (f.choice("opens") == "left" ? f("last") - f("end") : f("end") - f("last")) / 2;
        z.held = recessed ? f.key("band") : front.piece;
        z.zip = {f.key("zip"), say("Zip at the mouth"), z.held,
            recessed ? Point{opening / 2, 0} : Point{front.x + z.aside, front.top}, int(f("gauge")), opening, 0,
            f("tape"), gap};
        z.zip.first.kind = madeAs(f, "first", false);
        z.zip.last.hangs = f("past") > 0;
        z.zip.last.kind = madeAs(f, "tail", z.zip.last.hangs);
        addTabs(f, z);
        recessed ? onBands(f, z) : atMouth(f, z);
        cutTape(f, z);
        drawTabs(f, z);
        addZip(f, z.zip, z.zip.tape);
        readyBefore(d, f.key("zip"), firstZipVerb(zipEndActs(z.zip, z.tabs), z.sewn));
    }

    /// A wall at the mouth, also one whose face is taken up by a pocket of the form.
    struct Wall {
        PieceId piece;
        double x = 0, top = 0;
    };
    static Wall wallOf(Drafter& d, const char* name)
    {
        if (const Site* site = d.pattern.site(SiteId(name)))
            return {d.pieceAt(*site, site->top).key, site->x, site->top};
        const Box box = boundsOf(d.piece(PieceId(name)).stitch());
        return {PieceId(name), box.centre().x, box.y1};
    }

    /// What is known of the zip while it is drafted.
    struct TopZipDraft {
        double gap = 0, opening = 0, aside = 0;
        PieceId held{};
        Zip zip{};
        std::vector<PieceId> tabs{};         ///< one for both ends where they are alike
        Act::Verb sewn = Act::Verb::LayTape; ///< the act that sews it in
    };

    /// The kind of an end as it can be made: no seam is there for a zip on bands, nor for one that goes onto a mouth
    /// whose sides are sewn, nor for a tail that hangs out; an end that lies between shell and lining is folded away.
    /// What is made otherwise than chosen is told (checks/zips).
    static ZipEnd::Kind madeAs(const FeatureScope& f, std::string_view choice, bool hangsOut)
    {
        using Kind = ZipEnd::Kind;
        const Kind chosen = zipEndOf(f.choice(choice));
        const bool recessed = f.choice("held") == "bands";
        const bool can = chosen == Kind::Seam               ? !recessed && !hangsOut && mouthFirst(f.d)
            : chosen == Kind::Stop || chosen == Kind::Metal ? recessed || hangsOut
                                                            : true;
        return can ? chosen : Kind::Folded;
    }

    /// Codes go by the order of adding, so the tabs stand before the bands.
    static void addTabs(FeatureScope& f, TopZipDraft& z)
    {
        const auto add = [&](const char* key, Message name, int count) {
            z.tabs.push_back(f.d.add({.key = f.key(key),
                                         .code = f.d.freeCode("X"),
                                         .name = f.named(std::move(name)),
                                         .coat = Coat::Shell,
                                         .role = "tab",
                                         .material = "shell",
                                         .count = count})
                                 .key);
        };
        const bool first = z.zip.first.kind == ZipEnd::Kind::Tab, last = z.zip.last.kind == ZipEnd::Kind::Tab;
        if (first)
            z.zip.first.tab = f.key("tab");
        const bool alike = f.choice("held") == "bands" || (f("past") <= 0 && std::abs(f("end") - f("last")) < 0.005);
        if (first)
            add("tab", say("Zip tab"), last && alike ? 2 : 1);
        if (last && !(first && alike))
            add("tab.tail", say("Zip tail tab"), 1);
        if (last)
            z.zip.last.tab = z.tabs.back();
    }

    /// A tail hangs past the mouth's end; a folded end takes tape, one that runs on into a seam as far as its raw edge.
    static void cutTape(FeatureScope& f, TopZipDraft& z)
    {
        Drafter& d = f.d;
        const double tail = d.work({f.id, f.key("tail"), say("Tail past the zip's end"),
            "(past > 0 ? from_seam + past : 0)", {{"from_seam", z.zip.last.stitch}, {"past", f("past")}}, 0,
            Kind::Trade, "mm", say("on to the side seam and past it; none where the zip ends inside the mouth")});
        double ends = 0;
        for (const ZipEnd* end : {&z.zip.first, &z.zip.last})
            ends += end->kind == ZipEnd::Kind::Folded ? kTabLap
                : end->kind == ZipEnd::Kind::Seam     ? std::max(0.0, end->stitch) + d("allowance.body")
                                                      : 0;
        if (ends > 0)
            z.zip.tape = d.work({f.id, f.key("tape cut"), say("Tape cut"), "opening + tail + ends",
                {{"opening", z.opening}, {"tail", tail}, {"ends", ends}}, 0, Kind::Trade, "mm",
                say("the tail lets the mouth open fully; a folded end takes {}, one in the side seam all of its "
                    "allowance",
                    Len(kTabLap))});
        else
            z.zip.tape = d.work(
                {f.id, f.key("tape cut"), say("Tape cut"), "opening + tail", {{"opening", z.opening}, {"tail", tail}},
                    0, Kind::Trade, "mm", say("the tail lets the mouth open fully")});
    }

    static void drawTabs(FeatureScope& f, const TopZipDraft& z)
    {
        for (const auto& key : z.tabs) {
            const bool tail = key == f.key("tab.tail"), hangs = tail && f("past") > 0;
            const double reach = f.choice("held") == "bands" || hangs
                ? 0
                : std::max(0.0, (tail ? z.zip.last : z.zip.first).stitch);
            const double length = f.d.work({f.id, f.key(tail ? "tab.tail.length" : "tab.length"),
                tail ? say("Tail tab, unfolded") : say("Tab, unfolded"), "2*(reach + lap)",
                {{"reach", reach}, {"lap", kTabLap}}, 0, Kind::Trade, "mm",
                reach <= 0
                    ? say("folded over the tape's end")
                    : say("folded, it laps the tape's end and reaches to the side seam: tape and tabs make up the "
                          "mouth")});
            Piece& tab = f.d.piece(key);
            drawRectangle(tab, f("tape"), length, f("allowance"));
            tab.note = hangs ? say("Folded over the tail's end and stitched.")
                : reach <= 0 ? say("Folded over the tape's end and stitched.")
                             : say("Folded over the tape's end and stitched; its raw end lies in the side seam.");
        }
    }

    void onBands(FeatureScope& f, TopZipDraft& z) const
    {
        const double gap = z.gap, opening = z.opening;
        Drafter& d = f.d;
        const double s = f("allowance"), hinge = d("allowance.lining");
        const double wide = d.work({f.id, f.key("band.width"), say("Finished width of each band"), "(depth - gap)/2",
            {{"depth", d("mouth.depth")}, {"gap", gap}}, 0, Kind::Geometry, "mm",
            say("both bands and the gap make the mouth's depth")});
        if (wide < kLeastBand)
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
        for (const char* side : {"front", "back"}) {
            const Site& site = d.site(std::string("lining ") + side);
            // Seen from inside the bag: of the front's lining the bag's right lies to the left.
            const double y = site.top - f("drop"), half = opening / 2,
                         x = site.x + (std::string(side) == "front" ? -z.aside : z.aside);
            faces.push_back(d.pieceAt(site, y));
            AcrossCut cut = acrossAt(faces.back(), y, hinge);
            cut.stops = {x - half, x + half},
            cut.edgeNames = {"left of " + f.id.text(), f.id, "right of " + f.id.text()};
            cutAcross(d, cut);
            if (cuts.empty()) {
                double panel = 0;
                for (const auto& name : cut.edgeNames)
                    panel += d.piece(cut.lower.key).edge(name)->length();
                endsFromSeam(f, panel, z.zip);
            }
            for (const auto& piece : {cut.upper.key, cut.lower.key})
                for (const double at : {0.0, opening})
                    d.piece(piece).notches.push_back({f.id, at, say("band ends"), true});
            // Its ends, as they lie on the lining: seen from inside.
            const bool begins = (std::string(side) == "front") == (f.choice("opens") == "left");
            const Site& cutFace = d.site(std::string("lining ") + side);
            f.handle(begins ? "end" : "last", cut.lower.key, {x - half, y}, {1, 0}, 1, Handle::From::Side);
            f.handle(begins ? "last" : "end", cut.lower.key, {x + half, y}, {-1, 0}, 1, Handle::From::Side);
            f.handle("drop", cut.lower.key, {cutFace.x, y}, {0, -1}, 1, Handle::From::Top);
            cuts.push_back(std::move(cut));
        }
        // What stands in the bag must pass below the bands when the zip is closed.
        for (auto& space : d.pattern.spaces)
            if (space.place == "main")
                space.height = d.work({"body", "inside.below", say("Inside height below the zip bands"),
                    "height - drop", {{"height", space.height}, {"drop", f("drop")}}, 0, Kind::Geometry, "mm",
                    say("the zip closes over what is carried")});
        const std::vector<WorkId> both{faces[0].key, faces[1].key};
        makeBands(f, z, both, seams);
        for (const std::size_t i : {0u, 1u})
            basteBand(f, faces[i], cuts[i], both, i);
        for (const std::size_t i : {0u, 1u})
            joinOverBand(f, faces[i], cuts[i], i);
        openBeforeTurning(f, faces.back().key);
    }

    static void endsFromSeam(FeatureScope& f, double panel, Zip& zip)
    {
        for (const bool first : {true, false})
            (first ? zip.first : zip.last).stitch = f.d.work({f.id, f.key(first ? "from seam" : "last from seam"),
                first ? say("First stitch from the side seam") : say("Last stitch from the side seam"),
                "(panel - face)/2 + end",
                {{"panel", panel}, {"face", f.d("face.width")}, {"end", f(first ? "end" : "last")}}, 0, Kind::Geometry,
                "mm",
                say("where a wall goes round the bag's corner, the seam lies that much further than the face's "
                    "side")});
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

    static void makeBands(
        FeatureScope& f, TopZipDraft& z, const std::vector<WorkId>& before, const std::vector<SeamId>& seams)
    {
        z.sewn = Act::Verb::Sew;
        std::vector<Act> acts = zipEndActs(z.zip, z.tabs);
        acts.insert(acts.end(),
            {{.verb = Act::Verb::Sew, .seams = seams, .zips = {f.key("zip")}, .distance = f("sewn")}, act::turn(seams),
                act::roll(seams, 3.2)});
        std::vector<PieceId> pieces{f.key("band"), f.key("band.under")};
        pieces.insert(pieces.end(), z.tabs.begin(), z.tabs.end());
        f.d.addBeforeUse(Step{.id = f.key("make"),
                             .title = say("Make the zip bands"),
                             .acts = std::move(acts),
                             .kind = StepKind::Flat,
                             .phase = "Lining",
                             .consumes = {pieces.begin(), pieces.end()},
                             .yields = f.key("zipped"),
                             .pieces = pieces,
                             .check = say("The hinge edges lie level when the zip is closed."),
                             .closesZips = {f.key("zip")}},
            before);
    }

    /// The tapes lie in the mouth's seam, between shell and lining.
    void atMouth(FeatureScope& f, TopZipDraft& z) const
    {
        Drafter& d = f.d;
        const double gap = z.gap;
        const Wall front = wallOf(d, "front");
        const PieceId key = front.piece;
        endsFromSeam(f, mouthOf(d.piece(key), front.top, d("face.width")), z.zip);
        d.pattern.fittings.push_back({f.key("zip"), say("Zip at the mouth"), key, Fitting::Kind::Zip,
            {front.x + z.aside, front.top - gap / 2}, z.opening, 0, say("between shell and lining")});
        const bool begins = f.choice("opens") != "left"; // at its left
        const Point middle{front.x + z.aside, front.top};
        f.handle(begins ? "end" : "last", key, middle - Point{z.opening / 2, 0}, {1, 0}, 1, Handle::From::Side);
        f.handle(begins ? "last" : "end", key, middle + Point{z.opening / 2, 0}, {-1, 0}, 1, Handle::From::Side);
        d.work({f.id, f.key("pull"), say("Depth that the zip draws in at the mouth"), "max(0, depth - gap)",
            {{"depth", d("mouth.depth")}, {"gap", gap}}, 0, Kind::Geometry, "mm",
            say("nothing where the depth at the mouth is the visible gap")});
        const auto& tabs = z.tabs;
        std::vector<Act> ends = zipEndActs(z.zip, tabs);
        for (auto& act : ends)
            if (act.verb == Act::Verb::SealEnds && !(act.pieces.front() == f.key("tab.tail") && f("past") > 0))
                act.note = say("Its raw ends reach past the side seam's line.");
        const bool made = !ends.empty(); // else the tape runs on into both side seams
        if (made)
            d.addBeforeUse(Step{.id = f.key("tabs"),
                               .title = tabs.empty() ? say("Make the zip's ends") : say("Cover the zip's ends"),
                               .acts = std::move(ends),
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
                         .pieces = {key, wallOf(d, "back").piece},
                         .zips = {f.key("zip")},
                         .distance = z.zip.first.stitch,
                         .taken = f("sewn")},
                act::baste(d("allowance.mouth")), act::ofZip(Act::Verb::OpenZip, f.key("zip"))},
            .kind = StepKind::Baste,
            .phase = "Shell assembly",
            .consumes = {"shell"},
            .yields = "shell",
            .pieces = {key},
            .fittings = {f.key("zip")},
            .check = say("Closed, the sides meet level.")};
        if (mouthFirst(d)) {
            on.phase = "Joining";
            on.consumes = {on.acts.front().pieces.front(), on.acts.front().pieces.back()};
        }
        if (made)
            on.consumes.push_back(f.key("tab"));
        if (mouthFirst(d))
            bridgeWalls(d, std::move(on));
        else
            d.addBeforeJoining(std::move(on));
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
