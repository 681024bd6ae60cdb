// SPDX-License-Identifier: GPL-3.0-or-later
// A pair of handles on front and back: flat or rolled round a cord, stitched onto the face below the mouth.
#include "drafting/panels.hpp"
#include "drafting/rivet.hpp"
#include "drafting/strip_width.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Handles : public FeatureKind {
public:
    std::string kind() const override { return "handles"; }
    std::string name() const override { return "Handles"; }

    std::vector<Run> silhouette() const override
    {
        return {Run{Cubic{{22, 40}, {22, 108}, {78, 108}, {78, 40}}},
            Run{Cubic{{34, 40}, {34, 88}, {66, 88}, {66, 40}}}, lineRun({{8, 40}, {92, 40}}),
            lineRun({{22, 40}, {22, 20}, {34, 20}, {34, 40}}), lineRun({{66, 40}, {66, 20}, {78, 20}, {78, 40}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"width", "Handle width",
                "Finished width of a flat handle; a rolled one lies flat at this width at its ends.", "30", hold(),
                "12", "80"},
            {"drop", "Handle drop", "From the mouth up to the inside of the handle's top.", "220", hold(), "60", "450"},
            {"spread", "Spread", "Between the middles of a handle's two ends.", "max(0.4*face.width, @width + 20)",
                follow(), "@width + 20", "face.width - @width - 20"},
            {"end", "Handle end", "How far each end reaches down the face below the mouth.",
                "min(60, 0.25*face.height)", hold(), "25", "0.5*face.height"},
            {"fold", "Ends folded under", "Cloth at each end that is folded under before it is sewn down.", "15",
                hold(), "0", "40"},
            {"cord", "Cord", "Diameter of the cord in a rolled handle.", "10", hold(), "4", "25",
                DimensionSpec::Quantity::Length, "@make=rolled"},
            {"rivet", "Rivet", "Diameter of the rivets' heads.", "9", hold(), "5", "14",
                DimensionSpec::Quantity::Length, "@fixed=riveted"},
            turnDimension(),
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        ChoiceSpec where{"on", "Handles on", "Front and back, or one of the faces.", {}};
        const ChoiceSpec one = siteChoice(on, "", [](const SiteSpec& s) { return !s.lining; });
        const auto has = [&](const char* name) {
            return std::any_of(
                one.options.begin(), one.options.end(), [&](const auto& each) { return each.first == name; });
        };
        if (has("front") && has("back"))
            where.options.push_back({"both", "Front and back"});
        where.options.insert(where.options.end(), one.options.begin(), one.options.end());
        return {{"make", "Handles made", "Flat, folded from the shell; rolled round a cord; or webbing.",
                    {{"flat", "Flat, folded"}, {"rolled", "Rolled round a cord"}, {"webbing", "Webbing"}}},
            wayChoice("@make=flat"),
            {"fixed", "Handles fixed",
                "Their ends stitched onto the face in a crossed box, or held by two rivets each.",
                {{"stitched", "Box-stitched"}, {"riveted", "Riveted"}}},
            where};
    }

    std::vector<PartFace> faces() const override
    {
        return {{"handle", "Handle", "@width", "2*@drop", "@make=flat", false, true},
            {"handle", "Handle", "@width", "2*@drop", "@make=webbing", false, true}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const std::string& make = f.choice("make");
        std::vector<std::string> faces{f.choice("on")};
        if (faces.front() == "both")
            faces = {"front", "back"};
        const int count = int(faces.size());
        const std::string role = make == "webbing" ? "strap" : "shell";
        const Material& cloth = d.pattern.material(d.pattern.materials.at(role));
        // The free part is half an ellipse over the spread; each end goes down the face.
        const double bow = d.work(
            {f.id, f.key("bow"), say("Length of the free part"), "pi/2*(a + b)*(1 + 3*h/(10 + sqrt(4 - 3*h)))",
                {{"a", f("spread") / 2}, {"b", f("drop")},
                    {"h", std::pow((f("spread") / 2 - f("drop")) / (f("spread") / 2 + f("drop")), 2)}},
                0, Kind::Geometry, "mm",
                say("half an ellipse over the spread, as high as the drop (Ramanujan's second formula)")});
        const double length = d.work({f.id, f.key("length"), say("Handle cut length"), "bow + 2*(end + fold)",
            {{"bow", bow}, {"end", f("end")}, {"fold", f("fold")}}, 0, Kind::Geometry, "mm",
            say("both ends lie on the face, their raw edges folded under")});
        const std::string way = make == "flat" ? f.choice("way") : "by-cloth";
        const double turn = isFaced(way) ? f("turn") : 0;
        double cut = workCutWidth(d, f.id, f.key("cut"), say("Handle cut width"), f("width"), cloth, way, turn);
        if (make == "rolled") {
            cut = d.work({f.id, f.key("roll"), say("Rolled handle cut width"), "pi*cord + 2*allowance",
                {{"cord", f("cord")}, {"allowance", d("allowance.body")}}, 0, Kind::Geometry, "mm",
                say("once round the cord and two allowances")});
            d.pattern.hardware.push_back(
                {Ware::Cord, count, bow, say("{}, {} thick", Len(bow), Len(f("cord"))), Message()});
        }
        Piece& piece = d.add({.key = f.id,
            .code = d.pattern.pieceByCode("H") ? d.freeCode("H") : "H",
            .name = f.named(say("Handle")),
            .coat = Coat::Strip,
            .role = "handle",
            .material = role,
            .count = count});
        drawRectangle(piece, cut, length, 0);
        if (make == "flat")
            addStripFolds(piece, f("width"), cut, length, turn);
        else if (make == "rolled") // as it lies flat at its ends
            piece.plies = std::max(1, int(std::lround(cut / f("width"))));
        if (make != "rolled") // the bow is longer than twice the drop
            offerStrip(d, f.key("handle").text(), f.named(say("Handle")), f.id, f("width"), length / 2 + f("drop"),
                2 * f("drop"), "Small parts");
        const int plies = piece.plies;
        std::vector<PieceId> layers{f.id};
        if (turn > 0)
            layers.push_back(addFacing(d, f.id, f.named(say("Handle facing"))));
        if (way == "padded")
            addPadding(d, f.id, turn, f("end") + f("fold"), say("padding of the handle"));
        Act fold = act::foldStrip(f.id, f("width"));
        fold.pieces = layers, fold.taken = turn;
        d.add(Step{.id = f.key("make"),
            .title = count > 1 ? say("Make the handles") : say("Make the handle"),
            .acts = {make == "webbing" ? act::of(Act::Verb::SealCut, f.id)
                    : make == "rolled" ? act::with(act::of(Act::Verb::WrapCord, f.id, f("end")), {Ware::Cord})
                                       : fold},
            .kind = StepKind::Flat,
            .phase = "Small parts",
            .consumes = {layers.begin(), layers.end()},
            .yields = f.key("ready"),
            .pieces = layers,
            .check = count > 1 ? say("Both handles are equally long.") : Message()});
        if (f.choice("fixed") == "riveted") {
            // The end lies as often as it is folded, and once more folded under.
            const Site& site = d.site(faces.front());
            const Piece& face = d.pieceAt(site, site.top - f("end") / 2);
            std::vector<Pierced> through{{face.role, face.key, face.material}};
            const int folded = plies * (f("fold") > 0 ? 2 : 1);
            through.insert(through.end(), std::size_t(folded), {"handle", f.id, role});
            addRivets(d, f.id, f.id, 4 * count, f("rivet"), through);
        }
        for (const auto& name : faces)
            place(f, d.site(name), name == faces.front());
    }

    void place(FeatureScope& f, const Site& site, bool first) const
    {
        Drafter& d = f.d;
        const double half = f("width") / 2, top = site.top - 12, low = site.top - f("end");
        Piece& face = d.pieceAt(site, (top + low) / 2);
        std::vector<FittingId> rivets;
        const bool riveted = f.choice("fixed") == "riveted";
        // A seam across the face keeps the rivets below it.
        const double high = riveted ? std::min(top, boundsOf(face.stitch()).y1 - f("rivet") / 2 - 3) : top;
        for (const double side : {-1.0, 1.0}) {
            const double x = site.x + side * f("spread") / 2;
            const Box fixed{x - half, low, x + half, top};
            f.handle("spread", face.key, {x, low}, {side, 0}, 2, Handle::From::Middle, fixed);
            f.handle("end", face.key, {x, low}, {0, -1}, 1, Handle::From::Top, fixed);
            for (const double share : {0.25, 0.75})
                if (riveted) {
                    const Point at{x, std::lerp(low, high, share)};
                    rivets.push_back(f.key(fmt::format("{}.rivet{}", site.name, rivets.size() + 1)));
                    d.pattern.fittings.push_back({rivets.back(), say("Rivet"), face.key, Fitting::Kind::Rivet, at,
                        f("rivet"), 0, say("handle and face, not the lining")});
                    face.drills.push_back({at, say("rivet")});
                }
            face.lines.push_back(
                {EdgeId(f.line("handle").text() + (side < 0 ? ", left" : ", right")), FaceLine::Kind::Placement,
                    lineRun({{x - half, top}, {x - half, low}, {x + half, low}, {x + half, top}})});
        }
        const Point at{site.x - f("spread") / 2, low};
        d.pattern.hung.push_back(
            {f.id, face.key, at, {site.x + f("spread") / 2, low}, 0, f("width"), f("drop"), site.top});
        std::vector<Act> acts{{.verb = Act::Verb::BoxOn,
            .pieces = {f.id, face.key},
            .distance = riveted ? 0.0 : 12.0,
            .taken = f("fold")}};
        if (riveted)
            acts.push_back(act::set(rivets, Ware::Rivet));
        d.addOnTop(
            Step{.id = f.key("on " + site.name.text()),
                .title = riveted ? say("Rivet a handle to the {}", within(face.name))
                                 : say("Stitch a handle onto the {}", within(face.name)),
                .acts = std::move(acts),
                .kind = StepKind::Flat,
                .phase = site.phase,
                .consumes = first ? std::vector<WorkId>{face.key, f.key("ready")} : std::vector<WorkId>{face.key},
                .yields = face.key,
                .pieces = {f.id, face.key}},
            face.key);
    }
};

} // namespace

const FeatureKind& handlesKind()
{
    static const Handles kind;
    return kind;
}

} // namespace tectonis
