// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/figure.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

// Shares of the stature (common practice, no source).
constexpr double kShoulder = 0.82, kHand = 0.39, kWaist = 0.58;

const Piece* firstOf(const Pattern& p, const std::string& role)
{
    const auto it = std::find_if(
        p.pieces.begin(), p.pieces.end(), [&](const Piece& piece) { return piece.role == role; });
    return it == p.pieces.end() ? nullptr : &*it;
}

double mouthOf(const Pattern& p) { return p.height; }

} // namespace

Worn wornBy(const Pattern& p, double stature)
{
    if (const Strap* strap = p.strapWorn(Strap::Worn::Shoulder)) {
        // Half the strap falls to each ring: an isosceles triangle over the width between them.
        const double half = strap->longest / 2, spread = p.width / 2;
        const double drop = std::sqrt(std::max(0.0, half * half - spread * spread));
        return {"on the shoulder, strap at its longest", drop, kShoulder * stature - drop};
    }
    if (const Strap* strap = p.strapWorn(Strap::Worn::Doubled)) {
        const double half = strap->shortest / 2, spread = p.width / 2;
        const double drop = std::sqrt(std::max(0.0, half * half - spread * spread));
        return {"on the shoulder, strap doubled", drop, kShoulder * stature - drop};
    }
    if (const Piece* handle = firstOf(p, "handle")) {
        const double drop = p.of(handle->owner(), "drop");
        return {label("in the hand"), drop, kHand * stature - drop};
    }
    if (firstOf(p, "shoulder strap"))
        return {label("on the back"), 0, kShoulder * stature};
    if (const Strap* belt = p.strapWorn(Strap::Worn::Waist))
        return {label("round the waist"), 0, kWaist * stature + p.of(belt->piece.owner(), "down")};
    if (const Strap* loop = p.strapWorn(Strap::Worn::Wrist))
        return {"on the wrist", loop->longest, kHand * stature - loop->longest};
    return {label("on the floor"), 0, mouthOf(p)};
}

std::vector<Facet> figureOf(const Pattern& p, double stature)
{
    const Worn worn = wornBy(p, stature);
    const double floor = mouthOf(p) - worn.mouthAbove; // the bag stays where it is; the figure is moved
    const double s = stature / 7.5;                    // one head
    const bool onBack = worn.how == "on the back" || worn.how == "round the waist";
    // The bag hangs before the hand or the hip; a pack's back lies against the figure, so that it is seen behind.
    const double x = onBack                                       ? 0
        : worn.how == "in the hand" || worn.how == "on the wrist" ? -1.02 * s
        : worn.drop > 0                                           ? -0.7 * s
                                                                  : -(p.width / 2 + 1.3 * s);
    const double z = worn.drop > 0 || onBack ? -p.depth / 2 - 25 : 0;
    std::vector<Facet> out;
    const auto shape = [&](const std::vector<Point>& half) {
        for (const double sign : {1.0, -1.0}) {
            Facet f{"", "figure", "", {}, {}};
            for (const Point q : half)
                f.corners.push_back({x + sign * q.x * s, floor + q.y * s, z});
            f.seamAfter.assign(half.size(), false);
            out.push_back(std::move(f));
        }
    };
    std::vector<Point> head;
    for (int i = 0; i <= 12; ++i)
        head.push_back({0.36 * std::sin(pi * i / 12), 7.0 + 0.5 * std::cos(pi * i / 12)});
    shape(head);
    shape({{0, 6.62}, {0.16, 6.62}, {0.2, 6.3}, {0.85, 6.12}, {0.72, 5.0}, {0.62, 4.5}, {0.72, 3.7},
        {0, 3.6}}); // neck and trunk
    shape({{0.85, 6.12}, {1.02, 5.9}, {1.08, 4.6}, {1.12, 3.4}, {1.1, 2.9}, {0.94, 2.9}, {0.92, 3.4}, {0.84, 4.6},
        {0.74, 5.4}}); // arm
    shape({{0.04, 3.62}, {0.72, 3.72}, {0.6, 2.0}, {0.46, 0.3}, {0.62, 0.0}, {0.2, 0.0}, {0.18, 0.3},
        {0.14, 2.0}}); // leg
    // A strap at its longest goes up from both rings to the shoulder.
    const Strap* strap = p.strapWorn(Strap::Worn::Shoulder);
    if (!strap)
        strap = p.strapWorn(Strap::Worn::Doubled);
    if (strap && worn.drop > 0)
        for (const double ring : {-p.width / 2, p.width / 2}) {
            const Vec3 low{ring, mouthOf(p), 0}, high{x + 0.7 * s, mouthOf(p) + worn.drop, z},
                across = Vec3{strap->width / 2, 0, 0};
            out.push_back({strap->piece, "strap", "", {low - across, low + across, high + across, high - across},
                {false, true, false, true}});
        }
    return out;
}

} // namespace tectonis
