// SPDX-License-Identifier: GPL-3.0-or-later
// The bag folded up: pieces bent into space. Millimetres, x right, y up, z towards the viewer of the front.
#pragma once

#include "pattern/ids.hpp"
#include "words/message.hpp"

#include <cmath>
#include <string>
#include <vector>

namespace tectonis {

constexpr double kLift = 1.5; ///< mm that fittings and what is hung on lie above the cloth

struct Vec3 {
    double x = 0, y = 0, z = 0;
    friend constexpr Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
    friend constexpr Vec3 operator-(Vec3 a, Vec3 b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
    friend constexpr Vec3 operator*(Vec3 a, double k) { return {a.x * k, a.y * k, a.z * k}; }
};
constexpr double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
constexpr Vec3 cross(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }

/// The zero vector stays itself.
inline Vec3 unitOf(Vec3 v)
{
    const double n = std::sqrt(dot(v, v));
    return n > 0 ? v * (1 / n) : v;
}

/// A flat polygon of the folded bag.
struct Facet {
    enum class Flap { No, Outside, Inside };
    PieceId piece;     ///< empty for hardware and things carried
    std::string kind;  ///< "cloth", "overlay" (stitched onto cloth), "zip", "edge" (a layer's thickness), "inner"
                       ///< (inside the mouth), "flap", "fitting", "metal" (rings), "strap", "thing"
    std::string label; ///< of a thing carried: what it is called
    std::vector<Vec3> corners;
    std::vector<bool> seamAfter; ///< per corner: is the side to the next corner a stitch line? empty: all sides are
    Coat coat = Coat::Shell;
    int copy = 0;             ///< which of the piece's cut copies; of a thing: its place in the design's list
    std::vector<Vec3> opened; ///< corners when flap and zips are open; empty: the same
    Vec3 facing{};            ///< outside of the surface that a layer's edge belongs to; zero: none in particular
    Vec3 openedFacing{};      ///< the same when flap and zips are open; zero: the same
    bool clash = false;       ///< a thing that does not fit
    Flap flap = Flap::No;     ///< on which side of a flap it lies
    FittingId fitting{};      ///< which one it shows, if it shows one
};

/// A dimension shown as a draggable handle on the folded bag.
struct MockupHandle {
    std::string dimension;
    Vec3 at, direction; ///< unit vector of growth
    double gain = 1;    ///< mm of the dimension per mm along the direction
};

/// Where a ring's tab is held, and the outside of what it is held on.
struct RingSpot {
    FittingId ring;
    Vec3 at, out;
};

struct Mockup {
    std::vector<Facet> facets;
    std::vector<RingSpot> rings;
    std::vector<MockupHandle> handles;
    double largestGap = 0;   ///< mm between edges that are sewn together
    Message gapAt;           ///< the seam where it is
    double litres = 0;       ///< volume inside the shell's stitch lines, the mouth closed flat
    double liningLitres = 0; ///< the same inside the lining; 0 where it is not folded
};

} // namespace tectonis
