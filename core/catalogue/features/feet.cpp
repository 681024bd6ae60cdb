// SPDX-License-Identifier: GPL-3.0-or-later
// Feet under the bag: studs through what it stands on, before board and lining.
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

class Feet : public FeatureKind {
public:
    std::string kind() const override { return "feet"; }
    std::string name() const override { return "Feet"; }

    std::vector<Run> silhouette() const override
    {
        std::vector<Run> out{lineRun({{8, 24}, {92, 24}, {92, 90}, {8, 90}, {8, 24}})};
        for (const double x : {22.0, 78.0})
            out.push_back(lineRun({{x - 7, 24}, {x - 4, 10}, {x + 4, 10}, {x + 7, 24}}));
        return out;
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        using Q = DimensionSpec::Quantity;
        return {
            {"diameter", "Foot", "Diameter of the feet.", "12", hold(), "6", "25"},
            {"inset", "Feet inset", "From the edges of what the bag stands on to the middle of the feet.",
                "max(@diameter/2 + 14, min(25, 0.2*mouth.depth))", follow(), "@diameter/2 + 8", "120"},
            {"row", "Feet in a row", "How many stand along each long side.", "2", hold(), "2", "5", Q::Count},
        };
    }

    Message unfit(const Form& form) const override
    {
        return form.stands() ? Message() : say("this form has no base that feet could stand under");
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        if (const auto own = d.pattern.choices.find("base.feet");
            own != d.pattern.choices.end() && own->second == "yes")
            throw InputError(f.id.text(), say("the body has feet of its own"));
        if (d.pattern.bottoms.empty())
            throw InputError(f.id.text(), say("the bag has no base of its own: feet would stand on a seam"));
        std::vector<FittingId> all;
        std::vector<WorkId> pieces;
        for (const auto& bottom : d.pattern.bottoms) {
            const auto places = placesOn(f, d.piece(bottom.piece), bottom, f("inset")),
                       outer = placesOn(f, d.piece(bottom.piece), bottom, f("inset") - 0.1);
            std::size_t nth = 0;
            for (const Point at : places) {
                all.push_back(f.key(fmt::format("foot {}", all.size() + 1)));
                d.pattern.fittings.push_back({all.back(), say("{} {}", say("Foot"), int(all.size())), bottom.piece,
                    Fitting::Kind::Foot, at, f("diameter"), f("diameter") / 2 + d("allowance.body"),
                    say("base and its interlining, before lining and board")});
                d.piece(bottom.piece).drills.push_back({at, say("foot")});
                f.handleTo(
                    "inset", bottom.piece, at, outer[nth++], -0.1, boxAround(at, f("diameter") / 2, f("diameter") / 2));
            }
            pieces.push_back(bottom.piece);
        }
        d.pattern.hardware.push_back({Ware::Foot, int(all.size()), f("diameter"), say("{} across", Len(f("diameter"))),
            say("one finish for all metal")});
        // One step for each piece: each is set while it lies flat.
        for (const auto& bottom : d.pattern.bottoms) {
            std::vector<FittingId> own;
            for (const auto& fitting : d.pattern.fittings)
                if (fitting.piece == bottom.piece && std::find(all.begin(), all.end(), fitting.key) != all.end())
                    own.push_back(fitting.key);
            d.addOnTop(Step{.id = f.key("set " + bottom.piece.text()),
                           .title = d.pattern.bottoms.size() > 1
                               ? say("Set the feet in the {}", within(d.piece(bottom.piece).name))
                               : say("Set the feet"),
                           .acts = {act::set(own, Ware::Foot)},
                           .kind = StepKind::Hardware,
                           .phase = "Small parts",
                           .consumes = {bottom.piece},
                           .yields = bottom.piece,
                           .pieces = {bottom.piece},
                           .check = say("All stand level.")},
                bottom.piece);
        }
    }

private:
    /// Rows along the long sides, inset from the base's edges; on round bases where the inset outline is met from the
    /// middle.
    static std::vector<Point> placesOn(FeatureScope& f, const Piece& piece, const Bottom& bottom, double inset)
    {
        const int n = int(std::lround(f("row")));
        const Box& box = bottom.area;
        const double w = box.width() / 2 - inset, h = bottom.whole ? box.height() / 2 - inset : box.height() - inset;
        if (w < f("diameter") || h < f("diameter") / 2)
            throw InputError(f.dimension("inset"),
                say("what the bag stands on is {} × {}: no room for feet that far inside", Len(box.width()),
                    Len(bottom.whole ? box.height() : 2 * box.height())));
        const Point middle = box.centre();
        std::vector<Point> out;
        for (const double side : {-1.0, 1.0})
            for (int i = 0; i < n; ++i) {
                if (!bottom.whole && side < 0)
                    continue; // the other long side belongs to another piece
                const double x = n == 1 ? 0 : -w + 2 * w * i / (n - 1),
                             y = bottom.whole ? side * h : h - box.height() / 2;
                out.push_back(middle + Point{x, y});
            }
        if (!bottom.whole)
            return out;
        std::vector<OffsetEdge> edges;
        for (const auto& e : piece.edges)
            edges.push_back({e.stitch, -inset, -inset});
        const Polyline inner = flattened(offsetOutline(edges), 0.05);
        for (Point& at : out)
            if (inner.size() > 3 && !insideOutline(inner, at) && distanceTo(inner, at) > 0.02) {
                double in = 0, beyond = 1; // towards the middle until it is inside
                for (int k = 0; k < 40; ++k) {
                    const double half = (in + beyond) / 2;
                    (insideOutline(inner, middle + (at - middle) * half) ? in : beyond) = half;
                }
                at = middle + (at - middle) * in;
            }
        return out;
    }
};

} // namespace

const FeatureKind& feetKind()
{
    static const Feet kind;
    return kind;
}

} // namespace tectonis
