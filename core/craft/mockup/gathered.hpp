// SPDX-License-Identifier: GPL-3.0-or-later
// A disc of cloth drawn together by a cord in a channel.
#pragma once

#include "geometry/run.hpp"
#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

#include <array>

namespace tectonis {

/// The floor lies flat; from there each radius rises along arcs of its own true length, and each ring of the cloth
/// keeps its true length in even folds. What cannot be had without stretch is the change from the flat floor to the
/// first folds. Stands at the origin, y up; mm.
class Gathered {
public:
    static constexpr int panels = 48; ///< flat parts between folds
    static constexpr double floorShare = 0.36;
    const double floor; ///< radius of the flat floor

    /// @p radius of the disc; @p neck: distance of the channel from the centre on the flat cloth. Drawn shut, the cloth
    /// of @p thickness fills the circle within the channel: its area is the ring's length times the thickness.
    Gathered(double radius, double neck, double thickness);

    /// Where the point lies that is @p away from the centre of the flat cloth, at @p turn radians round it, @p inwards
    /// within the shell's face.
    Vec3 at(double away, double turn, double inwards) const;

    /// The same for a point of the flat cloth, seen from outside, between the folds as flat as they are.
    Vec3 at(Point flat, double inwards) const;
    /// Lines through the middle along which the cloth is folded.
    static std::vector<Line> folds();

    struct Room {
        double radius = 0, height = 0;
    };
    /// The largest upright cylinder on the floor within the wall.
    Room room() const;

    /// The disc of @p radius as flat parts, ring by ring from the floor.
    std::vector<Facet> facets(const Piece& piece, double inwards, double radius) const;

    /// Volume in litres up to the channel, closed flat there.
    double litres(double inwards) const;

private:
    /// A part of the radius, from one distance on the flat cloth to another, whose lean from the upright (radians,
    /// outwards) changes evenly.
    struct Bow {
        double from = 0, to = 0, leanFrom = 0, leanTo = 0;
    };
    struct Spot {
        double out = 0, up = 0, lean = pi / 2;
    };
    Spot profile(double away) const;
    std::vector<double> ringsTo(double radius) const;

    const double m_neck;
    std::array<Bow, 3> m_arcs;
};

} // namespace tectonis
