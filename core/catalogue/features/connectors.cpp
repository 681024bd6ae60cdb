// SPDX-License-Identifier: GPL-3.0-or-later
// Ring connectors for a strap: folded tabs with a ring each, caught in the mouth's seam, in the seams beside a face, or
// riveted onto a face or onto both side walls.
#include "drafting/cut.hpp"
#include "drafting/flat_order.hpp"
#include "drafting/panels.hpp"
#include "drafting/rivet.hpp"
#include "drafting/strip_width.hpp"
#include "drafting/turned.hpp"
#include "drafting/unlined.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Connectors : public FeatureKind {
public:
    std::string kind() const override { return "connectors"; }
    std::string name() const override { return "Connectors with rings"; }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{40, 92}, {40, 40}}), lineRun({{60, 92}, {60, 40}}), circleRun({50, 26}, 18),
            circleRun({50, 26}, 12)};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        using Q = DimensionSpec::Quantity;
        return {
            {"ring", "Ring inside width",
                "Inside width of the rings; rings are also sold by outside width, so measure.", "32", stock("ring"),
                "10", "60"},
            {"width", "Connector width", "Finished width of the tabs; just under the ring's inside width.", "@ring - 1",
                follow(), "8", "60"},
            {"loop", "Connector loop", "From the seam, or the upper rivet, up to the ring, along the folded tab.", "25",
                hold(), "10", "80"},
            {"overlap", "Ends past the edge", "How far the raw ends reach past the cut edge before trimming.", "6",
                hold(), "0", "20", Q::Length, "@held=mouth|sides|numbered"},
            {"down", "Connectors down", "From the top of the face to the middle of the tabs, or to their upper ends.",
                "min(40, 0.2*face.height)", follow(), "@width/2 + 4", "0.8*face.height", Q::Length,
                "@held=sides|riveted|walls"},
            {"left.side", "Left one in side", kNumbered, "face.sides", hold(), "1", "face.sides", Q::Count,
                "@held=numbered"},
            {"right.side", "Right one in side", kNumbered, "2", hold(), "1", "face.sides", Q::Count, "@held=numbered"},
            {"along", "Up from the middle", "From the middles of those sides up to the middles of the tabs.", "0",
                hold(), "-60", "60", Q::Length, "@held=numbered"},
            {"inset", "Connectors in", "From the sides of the face to the middle of the tabs.",
                "max(@width/2 + 12, 0.15*face.width)", follow(), "@width/2 + 4", "0.5*face.width - @width/2 - 4",
                Q::Length, "@held=riveted"},
            {"end", "Riveted end", "How far each tab reaches down the face; its rivets stand in it.", "30", hold(),
                "18", "min(80, 0.6*face.height)", Q::Length, "@held=riveted|walls"},
            {"rivet", "Rivet", "Diameter of the rivets' heads.", "9", hold(), "5", "14", Q::Length,
                "@held=riveted|walls"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        ChoiceSpec held{"held", "Connectors held",
            "Caught in the mouth's seam; in the seams at both sides of a face, or in sides that are called by their "
            "numbers; or riveted, through the shell alone, onto a face or one onto each side wall.",
            {}};
        if (on.form.anchored())
            held.options.push_back({"mouth", "In the mouth's seam"});
        ChoiceSpec site = siteChoice(
            on, "The face that carries them, where the mouth's seam does not.",
            [](const SiteSpec& s) { return !s.lining && s.own.empty(); }, "back", OnParts::No, OnSmall::Yes);
        site.when = "@held=sides|riveted|numbered";
        if (!site.options.empty()) {
            held.options.push_back({"sides", "In the seams beside a face"});
            held.options.push_back({"riveted", "Riveted onto a face"});
            const auto wall = [&](const char* name) {
                return std::any_of(
                    on.sites.begin(), on.sites.end(), [&](const SiteSpec& s) { return s.name == name && !s.lining; });
            };
            if (wall("left") && wall("right"))
                held.options.push_back({"walls", "Riveted onto the side walls"});
            if (on.form.numbersSides())
                held.options.push_back({"numbered", "In sides of a face, by their numbers"});
        }
        const ChoiceSpec sides{"sides", "Connectors at", "Both sides, or one of them alone, for a strap on the wrist.",
            {{"both", "Both sides"}, {"left", "The left side"}, {"right", "The right side"}}};
        if (held.options.size() == 1)
            return {held, sides};
        return {held, site, sides};
    }

    Message unfit(const Form& form) const override
    {
        return choices(form).front().options.empty()
            ? say("this form has neither a mouth's seam nor a face for connectors")
            : Message();
    }

    std::vector<PartFace> faces() const override { return {{"tab", "Connector", "@width", "@loop", {}, false, true}}; }

    void settle(Design& design, const std::string& id) const override
    {
        const auto assembly = design.choices.find("assembly");
        const bool mouthCannot = assembly != design.choices.end()
            && (assembly->second == "flat" || assembly->second.starts_with("unlined"));
        if (std::string& held = design.choices.at(id + ".held"); held == "mouth" && mouthCannot)
            held = "sides";
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const std::string& held = f.choice("held");
        const bool mouth = held == "mouth", riveted = held == "riveted" || held == "walls";
        if (mouth)
            requireMouth(f);
        const double allowance = d(mouth ? "allowance.mouth" : "allowance.body");
        const double length = d.work({f.id, f.key("length"), say("Connector cut length"),
            riveted ? "2*(loop + end)" : "2*(loop + allowance + overlap)",
            riveted
                ? std::vector<Working::Input>{{"loop", f("loop")}, {"end", f("end")}}
                : std::vector<Working::Input>{{"loop", f("loop")}, {"allowance", allowance}, {"overlap", f("overlap")}},
            0, Kind::Trade, "mm",
            riveted ? say("looped: both ends lie under the rivets") : say("looped: both ends lie in the seam")});
        const Material& cloth = d.pattern.material(d.pattern.materials.at("shell"));
        const double cut = workCutWidth(d, f.id, f.key("cut"), say("Connector cut width"), f("width"), cloth);
        Piece& tab = d.add({.key = f.id,
            .code = d.pattern.pieceByCode("E") ? d.freeCode("E") : "E",
            .name = f.named(say("Connector")),
            .coat = Coat::Strip,
            .role = "connector",
            .material = "shell",
            .count = count(f)});
        drawRectangle(tab, cut, length, 0);
        addStripFolds(tab, f("width"), cut, length);
        // From the ring down, on the half that lies in front.
        offerStrip(
            d, f.key("tab").text(), f.named(say("Connector")), f.id, f("width"), length / 2, f("loop"), "Small parts");
        tab.plies *= 2; // looped: both ends lie in the seam
        if (!riveted)
            tab.note = mouth ? say("Ends are trimmed level with the mouth after basting.")
                             : say("Ends are trimmed level with the edge after basting.");
        d.pattern.hardware.push_back(
            {Ware::Ring, count(f), f("ring"), say("{} inside width", Len(f("ring"))), say("one finish for all metal")});
        d.addFlatWork({.id = f.key("make"),
            .title = count(f) > 1 ? say("Make the connectors") : say("Make the connector"),
            .acts = {act::foldStrip(f.id, f("width")),
                {.verb = Act::Verb::Ring, .pieces = {f.id}, .fittings = {first(f)}, .uses = {Ware::Ring}}},
            .kind = StepKind::Flat,
            .phase = "Small parts",
            .consumes = {f.id},
            .yields = f.id,
            .check = say(
                "The ring turns freely: the tab is {} wide in a ring of {}.", Len(f("width")), Len(f("ring")))});
        mouth ? inMouth(f) : riveted ? onFace(f, cut) : inSides(f);
    }

private:
    static constexpr const char* kNumbered = "Number of the side, counted anticlockwise from the lowest as seen from "
                                             "the front.";

    /// Is there one at that side?
    static bool isAt(const FeatureScope& f, std::string_view side)
    {
        return f.choice("sides") == "both" || f.choice("sides") == side;
    }
    static int count(const FeatureScope& f) { return f.choice("sides") == "both" ? 2 : 1; }
    static FittingId first(const FeatureScope& f) { return f.key(isAt(f, "left") ? "left" : "right"); }
    static std::vector<FittingId> rings(const FeatureScope& f)
    {
        std::vector<FittingId> out;
        for (const char* side : {"left", "right"})
            if (isAt(f, side))
                out.push_back(f.key(side));
        return out;
    }

    static void requireMouth(FeatureScope& f)
    {
        if (unlined(f.d))
            throw InputError(f.id.text(),
                say("connectors are caught between shell and lining: a bag without a lining carries them in the seams "
                    "beside a face, riveted, or carries handles"));
        if (mouthFirst(f.d))
            throw InputError(f.id.text(),
                say("connectors lie over the side seams: they cannot be caught in a mouth that is sewn before the "
                    "sides; hold them in the seams beside a face, or riveted"));
    }

    static void addRing(FeatureScope& f, const std::string& side, const PieceId& piece, Point at, Message through)
    {
        f.d.pattern.fittings.push_back({f.key(side), say("Ring, {}", sideLabel(side)), piece, Fitting::Kind::Ring, at,
            f("ring"), 0, std::move(through)});
    }

    void inMouth(FeatureScope& f) const
    {
        Drafter& d = f.d;
        std::vector<const Anchor*> anchors;
        for (const auto& anchor : d.pattern.anchors)
            if (anchor.name == "left" || anchor.name == "right") {
                const bool same = !anchors.empty() && anchors.front()->piece == anchor.piece
                    && anchors.front()->at == anchor.at; // on two copies of one piece
                anchors.push_back(&anchor);
                if (!same ? isAt(f, anchor.name.text()) : count(f) == 1 && anchor.name.text() == f.choice("sides"))
                    addRing(f, anchor.name.text(), anchor.piece, anchor.at, say("trapped in the mouth seam"));
            }
        if (anchors.size() != 2)
            throw InputError(f.id.text(), say("this form has no two places at its mouth for connectors"));
        const Anchor& held = *anchors[isAt(f, anchors.front()->name.text()) ? 0 : 1];
        for (auto& seam : d.pattern.seams)
            if (seam.key == "mouth")
                seam.trapped.push_back(f.id);
        d.addBeforeJoining({.id = f.key("baste"),
            .title = count(f) > 1 ? say("Baste the connectors to the mouth") : say("Baste the connector to the mouth"),
            .acts = {act::lay(f.id, held.piece, "mouth", f("overlap")), act::baste(5), act::trim(f.id, 0)},
            .kind = StepKind::Baste,
            .phase = held.phase,
            .consumes = {held.part, f.id},
            .yields = held.part,
            .fittings = {first(f)},
            .check = count(f) > 1
                ? say("Each is in the middle of its side; the ring points down, into the bag side of the piece.")
                : say("It is in the middle of its side; the ring points down, into the bag side of the piece.")});
    }

    /// In the seams at both sides of a face, level with each other.
    void inSides(FeatureScope& f) const
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const bool numbered = f.choice("held") == "numbered";
        const double y = numbered ? site.top - site.height / 2 : site.top - f("down");
        const Piece& face = d.pieceAt(site, y);
        std::vector<SeamId> seams;
        for (const bool right : {false, true}) {
            if (!isAt(f, right ? "right" : "left"))
                continue;
            const std::string place = f.dimension(!numbered ? "down" : right ? "right.side" : "left.side");
            const SideSpot spot = numbered
                ? sideSpot(d, site, int(std::lround(f(right ? "right.side" : "left.side"))), f("along"), place)
                : sideSpot(d, face, y, right, place);
            if (spot.seam.empty())
                throw InputError(place, say("no seam is sewn at that side of the {}", within(face.name)));
            addRing(f, right ? "right" : "left", face.key, spot.at, say("trapped in the seam beside the face"));
            const Box ring = boxAround(spot.at, f("ring") / 2, f("ring") / 2);
            if (numbered)
                handleAlongSide(
                    f, site, face.key, int(std::lround(f(right ? "right.side" : "left.side"))), spot.at, ring);
            else
                f.handle("down", face.key, spot.at, {0, -1}, 1, Handle::From::Top, ring);
            if (std::find(seams.begin(), seams.end(), spot.seam) == seams.end())
                seams.push_back(spot.seam);
        }
        for (auto& seam : d.pattern.seams)
            if (std::find(seams.begin(), seams.end(), seam.key) != seams.end())
                seam.trapped.push_back(f.id);
        Act laid = act::lay(f.id, face.key, seams.front(), f("overlap"));
        laid.seams = seams;
        d.addOnTop(
            {.id = f.key("baste"),
                .title = count(f) > 1 ? say("Baste the connectors to the {}", within(face.name))
                                      : say("Baste the connector to the {}", within(face.name)),
                .acts = {std::move(laid), act::baste(5), act::trim(f.id, 0)},
                .kind = StepKind::Baste,
                .phase = site.phase,
                .consumes = {face.key, f.id},
                .yields = face.key,
                .fittings = rings(f),
                .check = numbered  ? numberedCheck(f)
                    : count(f) > 1 ? say("Their middles lie {} below the top, at both sides alike; the rings "
                                         "point inwards.",
                          Len(f("down")))
                                   : say("Its middle lies {} below the top; the ring points inwards.", Len(f("down")))},
            face.key);
    }

    static Message numberedCheck(const FeatureScope& f)
    {
        const double along = f("along");
        const Message where = std::abs(along) < 0.01 ? say("in the middle of its side")
            : along > 0                              ? say("{} above the middle of its side", Len(along))
                                                     : say("{} below the middle of its side", Len(-along));
        return count(f) > 1 ? say("Each lies {}; the rings point inwards.", where)
                            : say("It lies {}; the ring points inwards.", where);
    }

    /// On one face or on each side wall, the ring above, two rivets below each other.
    void onFace(FeatureScope& f, double cut) const
    {
        Drafter& d = f.d;
        if (f.choice("held") == "riveted") {
            buyRivets(f, f.site(), cut);
            return rivetOn(f, f.site(), {"left", "right"}, true);
        }
        bool first = true;
        for (const char* side : {"left", "right"}) {
            if (!isAt(f, side))
                continue;
            const StoodUp stood(d.pattern, side);
            const Site& wall = d.site(SiteId(side));
            if (first)
                buyRivets(f, wall, cut);
            rivetOn(f, wall, {side}, first);
            first = false;
        }
    }

    static void buyRivets(FeatureScope& f, const Site& site, double cut)
    {
        Drafter& d = f.d;
        const Piece& face = d.pieceAt(site, site.top - f("down") - f("end") / 2);
        // The tab lies as often as it is folded, and twice for its loop.
        std::vector<Pierced> through{{face.role, face.key, face.material}};
        const long folds = std::max(1L, std::lround(cut / f("width")));
        through.insert(through.end(), 2 * std::size_t(folds), Pierced{"connector", f.id, "shell"});
        addRivets(d, f.id, f.id, 2 * count(f), f("rivet"), through);
    }

    /// Those of @p sides on one face; @p first: they come from where they were made.
    void rivetOn(FeatureScope& f, const Site& site, const std::vector<std::string>& sides, bool first) const
    {
        Drafter& d = f.d;
        const bool wall = sides.size() == 1;
        const double top = site.top - f("down"), low = top - f("end"), half = f("width") / 2;
        Piece& face = d.pieceAt(site, (top + low) / 2);
        const bool both = !wall && count(f) > 1;
        std::vector<FittingId> rivets;
        const Message what = f.named(say("patch for the rivets"));
        for (const std::string& name : sides) {
            if (!isAt(f, name))
                continue;
            const double x = wall ? site.x : site.x + (name == "left" ? -1 : 1) * (site.width / 2 - f("inset"));
            addRing(f, name, face.key, {x, top + f("loop")}, say("in the riveted tab"));
            const Box tab{x - half, low, x + half, top + f("loop")};
            f.handle("down", face.key, {x, top}, {0, -1}, 1, Handle::From::Top, tab);
            if (!wall)
                f.handle("inset", face.key, {x, top}, {name == "left" ? 1.0 : -1.0, 0}, 1, Handle::From::Side, tab);
            for (const double share : {0.25, 0.75}) {
                const Point at{x, std::lerp(low, top, share)};
                rivets.push_back(f.key(fmt::format("{}.rivet{}", name, rivets.size() % 2 + 1)));
                d.pattern.fittings.push_back({rivets.back(), say("Rivet"), face.key, Fitting::Kind::Rivet, at,
                    f("rivet"), 0, say("tab, face and its patch, not the lining")});
                face.drills.push_back({at, say("rivet")});
            }
            const std::string area = words(say("{}, {}", what, sideLabel(name)));
            face.areas[area] = rectangleRun(x - half - 6, low - 6, x + half + 6, top + 6);
            d.patches.push_back({face.key, {.material = "patch-felt", .fixing = "glued", .area = area}, what});
            face.lines.push_back({EdgeId(f.line("connector").text() + ", " + name), FaceLine::Kind::Placement,
                lineRun({{x - half, top}, {x - half, low}, {x + half, low}, {x + half, top}})});
        }
        d.addOnTop(Step{.id = f.key(wall ? "on " + site.name.text() : "on"),
                       .title = both ? say("Rivet the connectors to the {}", within(face.name))
                                     : say("Rivet the connector to the {}", within(face.name)),
                       .acts = {{.verb = Act::Verb::BoxOn, .pieces = {f.id, face.key}}, act::set(rivets, Ware::Rivet)},
                       .kind = StepKind::Flat,
                       .phase = site.phase,
                       .consumes = first ? std::vector<WorkId>{face.key, f.id} : std::vector<WorkId>{face.key},
                       .yields = face.key,
                       .pieces = {f.id, face.key},
                       .check = both ? say("The rings point up, {} below the top, at both sides alike.",
                                    Len(f("down") - f("loop")))
                                     : say("The ring points up, {} below the top.", Len(f("down") - f("loop")))},
            face.key);
    }
};

} // namespace

const FeatureKind& connectorsKind()
{
    static const Connectors kind;
    return kind;
}

} // namespace tectonis
