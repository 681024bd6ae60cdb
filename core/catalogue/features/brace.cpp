// SPDX-License-Identifier: GPL-3.0-or-later
// Anchor triangles: doubled triangles in the lower corners of a face, caught in its side and base seams, each holding a
// length of webbing.
#include "drafting/cut.hpp"
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Brace : public FeatureKind {
public:
    std::string kind() const override { return "brace"; }
    std::string name() const override { return "Anchor triangles"; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{30, 92}, {30, 8}, {92, 8}, {92, 92}}), lineRun({{30, 8}, {66, 8}, {30, 44}, {30, 8}}),
            lineRun({{44, 34}, {8, 66}, {2, 58}, {40, 26}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"side", "Triangle side", "Length of the two sides that lie in the seams, from the corner of the face.",
                "min(80, 0.4*min(face.width, face.height))", hold(), "25", "0.48*min(face.width, face.height)"},
            {"webbing", "Webbing width", "Width of the webbing that leaves each triangle.", "25", hold(), "10",
                "@side"},
            {"tail", "Webbing tail", "Length of each piece of webbing.", "400", hold(), "80", "1200"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face in whose lower corners they lie.", [](const SiteSpec& s) { return !s.lining; }, "back")};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double low = boundsOf(d.piece(site.pieces.back()).stitch()).y0;
        const Piece& face = d.pieceAt(site, site.folded ? site.top - site.height + f("side") / 3 : low + f("side") / 3);
        auto edges = cornerOf(face, site, true, f("side"), true);
        if (edges.empty())
            throw InputError(
                f.dimension("side"), say("the {} leaves no corner for a triangle of that size", within(face.name)));
        const double s = d("allowance.body");
        const auto slantOf = [](const std::vector<Edge>& corner) {
            const auto slant = std::find_if(
                corner.begin(), corner.end(), [](const Edge& e) { return e.name == "slant"; });
            return pointAlong(slant->stitch, slant->length() / 2);
        };
        if (const auto smaller = cornerOf(face, site, true, f("side") - 0.1, true); !smaller.empty())
            f.handleTo("side", face.key, slantOf(edges), slantOf(smaller), -0.1);
        Piece& tri = d.add({.key = f.id,
            .code = d.freeCode("V"),
            .name = f.named(say("Anchor triangle")),
            .coat = Coat::Shell,
            .role = "brace",
            .material = face.material,
            .count = 4,
            .mirrored = 2});
        tri.plies = 2; // each triangle is of two layers
        for (auto& e : edges)
            if (!face.edge(e.name))
                e.allowance = s; // sewn and turned: the slant, and legs at which the wall goes on
        tri.edges = edges;
        for (int pair = 0; pair < 2; ++pair)
            d.add(Seam{.key = f.key(pair ? "slant left" : "slant right"),
                .name = pair ? say("{}, left", tri.name) : say("{}, right", tri.name),
                .a = {{f.id, "slant", pair}},
                .b = {{f.id, "slant", pair + 2}},
                .allowance = s,
                .trapped = {f.key("webbing")}});
        drawRectangle(d.add({.key = f.key("webbing"),
                          .code = d.freeCode("W"),
                          .name = f.named(say("Anchor webbing")),
                          .coat = Coat::Strip,
                          .role = "webbing",
                          .material = "strap",
                          .count = 2}),
            f("webbing"), f("tail"), 0);
        const bool straps = !d.firstOf("shoulder-straps").empty(); // they bring the sliders
        if (!straps)
            d.pattern.hardware.push_back({Ware::WebbingSlider, 2, f("webbing"),
                say("{} inside width", Len(f("webbing"))), say("one finish for all metal")});
        d.work({f.id, f.key("slant.length"), say("Slanting side"), "side*sqrt(2)", {{"side", f("side")}}, 0,
            Kind::Geometry, "mm",
            say("between square legs of equal length; round corners leave it as it is, slanting sides change it a "
                "little")});
        // Seams that hold the triangle: those that use an edge which it shares.
        for (auto& seam : d.pattern.seams)
            for (const auto* run : {&seam.a, &seam.b})
                if (seam.stitch == "construction"
                    && std::any_of(run->begin(), run->end(),
                        [&](const EdgeUse& u) { return u.piece == face.key && u.edge != "slant" && tri.edge(u.edge); })
                    && std::find(seam.trapped.begin(), seam.trapped.end(), f.id) == seam.trapped.end())
                    seam.trapped.push_back(f.id);
        d.pattern.overlays.push_back({f.id, face.key, {}});
        d.pattern.overlays.push_back({f.id, face.key, {2 * site.x, 0, 0, true}});
        d.addOnTop(
            Step{.id = f.key("make"),
                .title = say("Make the anchor triangles"),
                .acts = {act::of(Act::Verb::SealCut, f.key("webbing")),
                    act::sew({f.key("slant right"), f.key("slant left")}),
                    act::turn({f.key("slant right"), f.key("slant left")}), act::topstitch({}, 3.2, Act::To::Nowhere),
                    act::topstitch({}, 9.5, Act::To::Nowhere)},
                .kind = StepKind::Flat,
                .phase = "Small parts",
                .consumes = {f.id, f.key("webbing")},
                .yields = f.key("ready"),
                .pieces = {f.id, f.key("webbing")},
                .check = say("The webbing leaves the triangle at its middle, square to the slanting side."),
                .cautions = {say("Load ratings need testing by someone qualified; local safety rules go first.")}},
            face.key);
        d.addOnTop(
            Step{.id = f.key("on"),
                .title = say("Baste the triangles to the {}", within(face.name)),
                .acts = {act::layOver(f.id, face.key,
                             site.folded ? say("The legs lie in its lower corners, level with its lines, the webbing "
                                               "points in and up. Edge-stitch the legs that no seam will catch.")
                                         : say("The legs lie in its lower corners, level with its edges, the webbing "
                                               "points in and up.")),
                    act::baste(4)},
                .kind = StepKind::Baste,
                .phase = site.phase,
                .consumes = {face.key, f.key("ready")},
                .yields = face.key,
                .pieces = {f.id, face.key},
                .check = say("Both triangles mirror each other.")},
            face.key);
        d.add(Step{.id = f.key("thread"),
            .title = say("Thread the webbing through its sliders"),
            .acts = {straps ? act::of(Act::Verb::ThreadTails, f.key("webbing"))
                            : act::with(act::of(Act::Verb::ThreadTails, f.key("webbing")), {Ware::WebbingSlider})},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag"});
    }
};

} // namespace

const FeatureKind& braceKind()
{
    static const Brace kind;
    return kind;
}

} // namespace tectonis
