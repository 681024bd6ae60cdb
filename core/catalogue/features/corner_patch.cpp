// SPDX-License-Identifier: GPL-3.0-or-later
// Corner patches on the lower corners of a face, with rows of rivets along their free sides.
#include "drafting/cut.hpp"
#include "drafting/rivet.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class CornerPatch : public FeatureKind {
public:
    std::string kind() const override { return "corner-patch"; }
    std::string name() const override { return "Corner patches"; }
    std::map<std::string, std::string> materials() const override { return {{"overlay", "waxed-canvas"}}; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{8, 88}, {8, 10}, {92, 10}, {92, 88}}),
            lineRun({{8, 10}, {42, 10}, {42, 44}, {8, 44}, {8, 10}}),
            lineRun({{92, 10}, {58, 10}, {58, 44}, {92, 44}, {92, 10}}), circleRun({18, 38}, 3), circleRun({36, 20}, 3),
            circleRun({82, 38}, 3), circleRun({64, 20}, 3)};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"side", "Patch side", "How far each patch reaches from the corner of the face, across and up.",
                "min(60, 0.25*min(face.width, face.height))", hold(), "20", "0.45*min(face.width, face.height)"},
            {"rivets", "Rivets in a row",
                "Rivets along each of a patch's two free sides; both rows share the one in the corner, so 7 in a row "
                "are 13 in a patch.",
                "3", hold(), "1", "12", DimensionSpec::Quantity::Count},
            {"margin", "Rivet margin", "From the patch's free edge to the rivets' centres.", "8", hold(), "4",
                "@side/3"},
            {"rivet", "Rivet head", "Diameter of the rivet heads.", "8", hold(), "4", "15"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
            on, "The face whose corners are covered.", [](const SiteSpec& s) { return !s.lining; }, "front",
            OnParts::Yes)};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        Piece& face = d.pieceAt(site,
            site.folded ? site.top - site.height + f("side") / 2
                        : boundsOf(d.piece(site.pieces.back()).stitch()).y0 + f("side") / 2);
        const auto edges = cornerOf(face, site, true, f("side"), false);
        const auto has = [&](const char* name) {
            return std::any_of(edges.begin(), edges.end(), [&](const Edge& e) { return e.name == name; });
        };
        if (!has("across") || !has("up"))
            throw InputError(
                f.dimension("side"), say("the {} leaves no corner for a patch of that size", within(face.name)));
        Piece& patch = d.add({.key = f.id,
            .code = d.freeCode("Q"),
            .name = f.named(say("Corner patch")),
            .coat = Coat::Shell,
            .role = "patch",
            .material = "overlay",
            .count = 2,
            .mirrored = 1});
        patch.edges = edges;
        const PieceId faceKey = face.key;
        const double n = std::round(f("rivets"));
        const double count = d.work({f.id, f.key("count"), say("Rivets"), "(2*row - shared)*patches",
            {{"row", n}, {"shared", n > 1 ? 1.0 : 0.0}, {"patches", 2}}, 0, Kind::Trade, "",
            say("two rows to a patch, which share the rivet in the corner")});
        std::vector<Pierced> through{{face.role, face.key, face.material}, {"patch", f.id, "overlay"}};
        for (const auto& o : d.pattern.overlays)
            if (const Piece& on = d.piece(o.piece);
                o.on == face.key && on.role == "overlay") // a second layer lies under the patch
                through.push_back({on.role, on.key, on.material});
        addRivets(d, f.id, f.id, int(count), f("rivet"), through);

        // Where lines a margin inside both free sides meet.
        const Run top = patch.edge("across")->stitch, inner = patch.edge("up")->stitch;
        const auto insideOf = [&](const Run& run) {
            const Point way = tangentAlong(run, lengthOf(run) / 2);
            return std::pair{
                pointAlong(run, lengthOf(run) / 2) - rightOf(way) * std::min(f("margin"), lengthOf(run) / 3), way};
        };
        const auto [onTop, along] = insideOf(top);
        const auto [onInner, down] = insideOf(inner);
        const Point shared = onTop + along * (cross(onInner - onTop, down) / cross(along, down));
        std::vector<FittingId> set;
        const Placement mirror{2 * site.x, 0, 0, true};
        Point smaller; // where the free corner of a smaller patch lies
        for (const auto& e : cornerOf(face, site, true, f("side") - 0.1, false))
            if (e.name == "up")
                smaller = startOf(e.stitch);
        for (const bool right : {true, false}) {
            const auto there = [&](Point p) { return right ? p : mirror(p); };
            f.handleTo("side", faceKey, there(startOf(inner)), there(smaller), -0.1);
            const std::string side = right ? "right" : "left";
            for (const char* edge : {"across", "up"}) {
                const Run run = patch.edge(edge)->stitch;
                const EdgeId line(f.line("corner patch").text() + ", " + side + " " + edge);
                face.lines.push_back({line, FaceLine::Kind::Topstitch, right ? run : reversed(placed(run, mirror))});
                d.add(Seam{.key = f.key(side + " " + edge),
                    .name = say("{}, {}, {}", patch.name, sideLabel(side), sideLabel(edge)),
                    .a = {{faceKey, line, 0, !right}},
                    .b = {{f.id, edge, right ? 0 : 1}},
                    .stitch = "topstitch"});
                // From the corner rivet, which both rows share, to the last one before the face's own seam, where the
                // foot must pass beside the head.
                const double length = lengthOf(run), margin = std::min(f("margin"), length / 3);
                const bool across = std::string(edge)
                    == "across"; // ends in the patch's free corner; the other begins there
                const double atSeam = std::min(
                    std::max(margin, f("rivet") / 2 + d.pattern.footWidth("shell") + 1), length / 2);
                const Point in = rightOf(tangentAlong(run, length / 2)) * -margin,
                            last = pointAlong(run, across ? atSeam : length - atSeam) + in;
                for (int i = across ? 0 : 1; i < std::max(int(n), across ? 1 : 2); ++i) {
                    if (n > 1 && i >= int(n))
                        break;
                    const Point at = there(n == 1 ? pointAlong(run, length / 2) + in : lerp(shared, last, i / (n - 1)));
                    const FittingId key = f.key(side + "." + edge + std::to_string(i + 1));
                    d.pattern.fittings.push_back({key, say("Rivet"), faceKey, Fitting::Kind::Rivet, at, f("rivet"), 0,
                        say("patch and face, not the lining")});
                    face.drills.push_back({at, say("rivet")});
                    set.push_back(key);
                }
            }
            d.pattern.overlays.push_back({f.id, faceKey, right ? Placement{} : mirror});
        }
        d.addOnTop(Step{.id = f.key("on"),
                       .title = say("Rivet the corner patches to the {}", within(face.name)),
                       .acts = {act::stitchOn(
                                    {f.key("right across"), f.key("right up"), f.key("left across"), f.key("left up")}),
                           act::set(set, Ware::Rivet),
                           act::saying(act::baste(4),
                               say("The sides that lie in the face's own edges are caught in its seams."))},
                       .kind = StepKind::Hardware,
                       .phase = site.phase,
                       .consumes = {faceKey, f.id},
                       .yields = faceKey,
                       .pieces = {f.id, faceKey},
                       .check = say("No rivet turns.")},
            faceKey);
    }
};

} // namespace

const FeatureKind& cornerPatchKind()
{
    static const CornerPatch kind;
    return kind;
}

} // namespace tectonis
