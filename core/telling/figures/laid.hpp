// SPDX-License-Identifier: GPL-3.0-or-later
// How one piece lies on another while they are sewn: laid flat where their edges are alike, stood round the edge where
// one is straight and the other bends.
#pragma once

#include "geometry/run.hpp"

#include <optional>

namespace tectonis {

/// Puts @p upper, turned over if @p mirror, so that its run lies on @p lower from the same start to the same end. None
/// if they part by more than @p slack mm anywhere.
std::optional<Placement> laidOn(const Run& upper, const Run& lower, bool mirror, double slack);

/// A piece bent round an edge: what lies along its own run comes to lie along the edge, what lies @c t inside of the
/// one lies @c squeeze · t inside of the other.
class StoodRound {
public:
    /// @param own the piece's run; @param edge on which it goes from @p from for @p length mm; inside lies to the left
    /// of the edge if @p left, and of the piece's run if @p ownLeft. At corners of the edge it is mitred.
    StoodRound(const Run& own, bool ownLeft, const Run& edge, double from, double length, bool left, double squeeze);
    Polyline operator()(const Polyline& closed) const;

private:
    struct Corner {
        double at, slope; ///< along the edge; how much of the depth a mitre takes there
    };
    Point placed(Point p) const;
    Polyline m_own;
    std::vector<double> m_along;
    Run m_edge;
    std::vector<Corner> m_corners;
    double m_ownLength, m_from, m_length, m_squeeze;
    bool m_ownLeft, m_left;
};

/// @p closed with points no more than @p step mm apart.
Polyline dense(const Polyline& closed, double step);

/// What of a closed outline lies on that side of the line through @p at to which @p normal points; it is closed along
/// the line.
Polyline cutOff(const Polyline& closed, Point at, Point normal);

/// @p points mirrored in the line through @p at square to @p normal (of length 1).
Polyline mirrored(const Polyline& points, Point at, Point normal);

} // namespace tectonis
