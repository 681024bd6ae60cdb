// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/movables.hpp"

#include "units/error.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kStraight = 1e-6; // of a unit vector

/// The piece as a face, where it is none of the bag's.
Site faceOfItsOwn(const Piece& piece)
{
    const Box box = boundsOf(piece.stitch());
    return {SiteId(), piece.name, {piece.key}, box.centre().x, box.y1, box.width(), box.height(), {}, false};
}

Movable onFace(const Pattern& p, const PartId& part, const PieceId& piece, const Box& area, Point at)
{
    const Site* site = siteAt(p, piece, at);
    Movable out{part, piece, site ? *site : faceOfItsOwn(*p.piece(piece)), {}, {}, {}, false};
    out.at = out.face.upright(at);
    out.area = area.empty() ? boxAround(out.at, 0, 0) : out.face.upright(area);
    return out;
}

} // namespace

bool MovableWay::sideways() const { return std::abs(direction.y) < kStraight; }
bool MovableWay::upDown() const { return std::abs(direction.x) < kStraight; }

const MovableWay* Movable::way(bool upright) const
{
    for (const auto& each : ways)
        if (upright ? each.sideways() : each.upDown())
            return &each;
    return nullptr;
}

std::vector<Movable> movablesOf(const Pattern& p)
{
    std::vector<Movable> out;
    for (const auto& place : p.places) {
        Movable part = onFace(p, place.feature, place.piece, place.area, place.at);
        part.wanders = true;
        const auto add = [&](const char* name, Point direction, Handle::From from) {
            const std::string dimension = place.feature.text() + "." + name;
            if (p.values.contains(dimension))
                part.ways.push_back({dimension, direction, 1, from});
        };
        add("across", {1, 0}, Handle::From::Middle);
        add("drop", {0, -1}, Handle::From::Top);
        out.push_back(std::move(part));
    }
    std::vector<Movable> handles;
    const Handle* before = nullptr;
    for (const auto& handle : p.handles) {
        if (handle.part.empty() || !p.piece(handle.piece))
            continue;
        const auto turned = [&](const Site& face) { return face.upright(handle.direction) - face.upright(Point{}); };
        const bool same = before && before->part == handle.part && before->piece == handle.piece && !handle.grip.empty()
            && before->grip.centre() == handle.grip.centre();
        std::vector<Movable>& list = handle.grip.empty() ? handles : out;
        if (!same)
            list.push_back(onFace(p, handle.part, handle.piece, handle.grip, handle.at));
        list.back().ways.push_back({handle.dimension, turned(list.back().face), handle.gain, handle.from});
        before = &handle;
    }
    out.insert(out.end(), handles.begin(), handles.end());
    return out;
}

Movable movableOf(const Pattern& p, const PartId& part)
{
    for (auto& each : movablesOf(p))
        if (each.part == part)
            return each;
    throw InputError(part.text(), say("this part has no place of its own to be moved"));
}

double valueAt(const Pattern& seenIn, const Movable& moved, const MovableWay& way, const Site& face, Point to)
{
    using From = Handle::From;
    const double side = way.direction.x, up = way.direction.y;
    switch (way.from) {
    case From::Middle: return way.gain * side * (to.x - face.x);
    case From::Side: return way.gain * (side * (to.x - face.x) + face.width / 2);
    case From::Top: return way.gain * (face.top - to.y);
    case From::Base: return way.gain * up * (to.y - (face.top - face.height));
    case From::Nowhere: break;
    }
    return seenIn.values.at(way.dimension) + way.gain * dot(to - moved.at, way.direction);
}

} // namespace tectonis
