// SPDX-License-Identifier: GPL-3.0-or-later
// What a hand can take hold of on a face of the bag, and which dimensions follow where it is moved: parts that have a
// place of their own, and rings, ends, halves, feet, free edges of others.
#pragma once

#include "pattern/site_at.hpp"

#include <string>
#include <vector>

namespace tectonis {

/// One dimension that follows.
struct MovableWay {
    std::string dimension;
    Point direction; ///< unit vector in which it grows, on the face as it stands upright
    double gain = 1; ///< mm of the dimension per mm along it
    Handle::From from = Handle::From::Nowhere;
    /// Growth goes straight sideways; straight up or down.
    bool sideways() const;
    bool upDown() const;
};

struct Movable {
    PartId part;
    PieceId piece; ///< on which it lies
    Site face;     ///< of that piece; without a name where the piece is not one of the bag's faces
    Box area;      ///< what can be taken hold of, as it stands upright; without size for a handle
    Point at;      ///< what its dimensions lead to
    std::vector<MovableWay> ways;
    bool wanders = false; ///< it can be put on another face
    /// The way straight sideways, or straight up and down; null if there is none.
    const MovableWay* way(bool upright) const;
};

/// All on a pattern; those of one part always in the same order, parts that have a place before single handles.
std::vector<Movable> movablesOf(const Pattern& pattern);

/// The place of a part that can be put on another face, or the first thing of it that can be moved.
/// @throws InputError if nothing of it can be.
Movable movableOf(const Pattern& pattern, const PartId& part);

/// What a dimension is where its thing lies at @p to on a face, upright. A way that counts from nowhere on its face is
/// measured from where it lies in @p seenIn.
double valueAt(const Pattern& seenIn, const Movable& moved, const MovableWay& way, const Site& face, Point to);

} // namespace tectonis
