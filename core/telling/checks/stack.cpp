// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/stack.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

PieceId wallOf(const Piece& piece) { return piece.whole.empty() ? piece.key : piece.whole; }

/// The box of a wall, over all pieces it was cut into.
Box boxOf(const Pattern& p, const PieceId& wall)
{
    Box box;
    for (const auto& piece : p.pieces)
        if (wallOf(piece) == wall)
            box.add(boundsOf(piece.stitch()));
    return box;
}

/// One after the other: first @p inner, then @p outer.
Placement both(const Placement& outer, const Placement& inner)
{
    const Point zero = outer(inner({0, 0})), up = outer(inner({0, 1})) - zero;
    return {zero.x, zero.y, std::atan2(-up.x, up.y), outer.mirror != inner.mirror};
}

} // namespace

std::vector<OnWall> wallsOf(const Pattern& p, const Piece& piece)
{
    std::vector<OnWall> out;
    for (const auto& o : p.overlays)
        if (o.piece == piece.key)
            if (const Piece* on = p.piece(o.on); on && on != &piece)
                for (const auto& below : wallsOf(p, *on)) // a part may lie on a part
                    out.push_back({below.wall, both(below.to, o.placement)});
    if (out.empty())
        out.push_back({wallOf(piece), {}});
    return out;
}

std::optional<OnWall> behind(const Pattern& p, const PieceId& wall)
{
    const PieceId lining = lined(wall);
    const Box outside = boxOf(p, wall), inside = boxOf(p, lining);
    if (outside.empty() || inside.empty())
        return std::nullopt;
    return OnWall{lining, {inside.centre().x + outside.centre().x, inside.y1 - outside.y1, 0, true}};
}

} // namespace tectonis
