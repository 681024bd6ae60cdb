// SPDX-License-Identifier: GPL-3.0-or-later
// Closed outlines: the cut line from the stitch line, and the questions asked of either.
#pragma once

#include "geometry/run.hpp"

#include <optional>
#include <span>

namespace tectonis {

/// What the cut line does at a corner of the stitch line.
enum class Corner {
    Mitre,   ///< both cut lines run on until they meet
    Blunt,   ///< the tip is cut across, square to the bisector, at the allowance from the corner
    Square,  ///< each cut line ends level with the stitch corner; the ends are joined square
    FoldBack ///< a hem: the neighbour's cut line is mirrored about the hem, so that the allowance lies flush when
             ///< folded
};

/// One edge of an outline and how far the new line lies to its right (outside of a counter-clockwise outline).
/// Negative distances lie inside. @c atEnd differs from @c atStart only on an edge whose allowance widens evenly.
struct OffsetEdge {
    std::span<const Segment> run; ///< not copied: it must live until the outline is offset
    double atStart = 0, atEnd = 0;
    Corner corner = Corner::Mitre; ///< at the end of this edge
    bool hem = false;              ///< this edge is the one that is folded back (Corner::FoldBack at either end)
};

/// Offsets a closed, counter-clockwise outline edge by edge. Lines and arcs stay exact; cubics become chords within
/// 0.002 mm. An arc whose radius would fall to nothing is left out and its neighbours meet. A mitre longer than @p
/// mitreLimit times the wider distance is blunted. Edges of zero length are skipped; an empty input gives an empty run.
Run offsetOutline(const std::vector<OffsetEdge>& edges, double mitreLimit = 4);

/// Where a closed polyline crosses itself or comes within 0.001 mm of itself, if it does; neighbours do not count.
std::optional<Point> selfCrossing(const Polyline& closed);

/// True if every point of @p inner lies inside @p outer or within @p slack mm of it.
bool containsOutline(const Polyline& outer, const Polyline& inner, double slack = 0.005);

bool insideOutline(const Polyline& closed, Point p);
double distanceTo(const Polyline& line, Point p);

} // namespace tectonis
