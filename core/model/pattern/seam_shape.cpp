// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kCorner = 0.26; // radians (15°): a stitch line that turns more has a corner, as match marks see it
constexpr double kFlat = 3000;   // mm: a wider curve is handled like a straight (common practice, no source)

/// Adds what one segment bends. Outlines run counter-clockwise: turning left bulges out of the piece.
void addBends(SideShape& out, const Segment& s)
{
    const auto bend = [&](double radius, bool left) {
        if (radius < kFlat)
            (left ? out.convex : out.concave) = std::min(left ? out.convex : out.concave, radius);
    };
    if (const auto* arc = std::get_if<Arc>(&s))
        bend(arc->radius, arc->sweep > 0);
    else if (std::holds_alternative<Line>(s))
        out.straights |= lengthOf(s) >= 20;
    else {
        // A cubic's bend between neighbouring parameters: angle over length.
        constexpr int parts = 16;
        const double length = lengthOf(s) / parts;
        for (int i = 0; i < parts; ++i) {
            const Point a = tangentOf(s, double(i) / parts), b = tangentOf(s, double(i + 1) / parts);
            const double turn = std::atan2(cross(a, b), dot(a, b));
            if (std::abs(turn) > 1e-6)
                bend(length / std::abs(turn), turn > 0);
        }
    }
}

} // namespace

SideShape shapeOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    SideShape out;
    Point before{}; // the way in which the seam arrives
    const EdgeUse* last = nullptr;
    for (const auto& use : side) {
        const Run* run = p.runBehind(use);
        if (!run || run->empty())
            continue;
        // As the outline runs: the way in which the hand goes round it does not change what bulges.
        for (const auto& s : *run)
            addBends(out, s);
        const auto corner = [&](Point a, Point b, bool asOutline) {
            const double turn = std::atan2(cross(a, b), dot(a, b)) * (asOutline ? 1 : -1);
            if (std::abs(turn) > kCorner)
                ++(turn > 0 ? out.convexCorners : out.concaveCorners);
        };
        for (std::size_t i = 1; i < run->size(); ++i)
            corner(tangentOf((*run)[i - 1], 1), tangentOf((*run)[i], 0), true);
        const Point arrives = use.reversed ? tangentOf(run->back(), 1) * -1 : tangentOf(run->front(), 0),
                    leaves = use.reversed ? tangentOf(run->front(), 0) * -1 : tangentOf(run->back(), 1);
        if (last && last->piece == use.piece && last->copy == use.copy)
            corner(before, arrives, !use.reversed);
        before = leaves, last = &use;
    }
    return out;
}

std::vector<PieceId> piecesOf(const std::vector<EdgeUse>& side)
{
    std::vector<PieceId> out;
    for (const auto& use : side)
        if (std::find(out.begin(), out.end(), use.piece) == out.end())
            out.push_back(use.piece);
    return out;
}

std::pair<double, double> allowancesOf(const Pattern& p, const Seam& seam)
{
    double least = 1e9, most = 0;
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& use : *side)
            if (const Piece* piece = p.piece(use.piece))
                if (const Edge* e = piece->edge(use.edge)) {
                    const double end = e->allowanceAtEnd.value_or(e->allowance);
                    least = std::min({least, e->allowance, end});
                    most = std::max({most, e->allowance, end});
                }
    return most > 0 ? std::pair{least, most} : std::pair{0.0, 0.0};
}

bool hasMarks(const Pattern& p, const Seam& seam)
{
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& use : *side)
            if (const Piece* piece = p.piece(use.piece))
                if (std::any_of(piece->notches.begin(), piece->notches.end(),
                        [&](const Notch& n) { return n.edge == use.edge; }))
                    return true;
    return false;
}

} // namespace tectonis
