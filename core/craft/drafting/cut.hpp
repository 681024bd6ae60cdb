// SPDX-License-Identifier: GPL-3.0-or-later
// Cutting pieces along straight lines: a part of an outline for what is laid on it, or one piece made two.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// The part of a counter-clockwise outline where dot(@p normal, p) >= @p limit, closed by the edge @p along (name,
/// allowance, corner, hem; its run is set here). Edges keep their names; lines, arcs and cubics stay what they are.
/// Empty where the line does not part the outline in two.
std::vector<Edge> clipped(const std::vector<Edge>& edges, Point normal, double limit, Edge along);

/// A piece cut across at a height, and how the halves are called.
struct AcrossCut {
    PieceId piece;
    double y = 0;
    std::vector<double> stops;     ///< x positions where the new edge is divided
    std::vector<EdgeId> edgeNames; ///< one more than stops, from left to right
    Piece upper, lower;            ///< keys, codes and names of the halves; the rest is taken over
    double allowance = 0;
    double gap = 0; ///< mm between the halves, about y: what a zip shows. Seams along the sides run over it
};

/// A cut at @p y whose halves are called upper and lower.
AcrossCut acrossAt(const Piece& piece, double y, double allowance);

/// Cuts a piece in two along a horizontal line. Seams, lines, marks, areas, fittings, handles, anchors and sites that
/// used it use its halves.
/// @throws InputError if the line does not part the piece in two.
void cutAcross(Drafter& d, const AcrossCut& cut);

/// The lower corner of a face: what lies within @p side of it along the bottom and up the side, or what is cut off
/// aslant through the ends of both. The corner is where bottom and side would meet without rounding; on a wall that is
/// bent round the bag's corners it is the face's own. Edges of the piece keep their names; the new ones are "across"
/// and "up", or "slant", and "at the fold", "at the base" where the wall goes on. Empty where the piece leaves no
/// corner there.
std::vector<Edge> cornerOf(const Piece& piece, const Site& site, bool right, double side, bool aslant);

/// Where the outline of a piece is met by a horizontal line, furthest to one side.
struct SideSpot {
    EdgeId edge;
    Point at;
    SeamId seam; ///< that is sewn there; empty if none is
};
/// @throws InputError at @p place if the line misses the piece.
SideSpot sideSpot(const Drafter& d, const Piece& piece, double y, bool right, const std::string& place);
/// The same @p along mm up from the middle of a numbered side of a face.
/// @throws InputError at @p place if there is no side of that number.
SideSpot sideSpot(const Drafter& d, const Site& site, int number, double along, const std::string& place);
/// Lets a hand move what a part holds at a numbered side along it, by its dimension "along".
void handleAlongSide(FeatureScope& f, const Site& site, const PieceId& face, int number, Point at, const Box& grip);

} // namespace tectonis
