// SPDX-License-Identifier: GPL-3.0-or-later
// Layers with a shape of their own: strips, patches, corners, drawn outlines, another piece made smaller.
#pragma once

#include "pattern/pattern.hpp"

#include <optional>

namespace tectonis {

/// A length, or a share of the piece's width or height: "40", "30%".
struct Measure {
    double value = 0;
    bool share = false; ///< of the piece, 0 to 1
    double of(double whole) const { return share ? value * whole : value; }
};

/// The shape of a layer as a rule's text says it. Places are told from the middle of the piece to the right and from
/// the top of its stitch line down, so that they hold in every size.
struct LayerShape {
    enum class Kind {
        Whole,  ///< "": the piece's outline, trimmed
        Area,   ///< "base": an area that the form names
        Strip,  ///< "strip 40 along top": inwards from where the layer ends at that edge
        Patch,  ///< "patch 60 x 40 at 0 45": its middle there
        Corner, ///< "corner 60 x 60 lower left"
        Drawn,  ///< "drawn -40,0 40,0 30%,80": a closed outline, in either sense
        Copied ///< "as flap.outer less 3": another piece's stitch line, so much inside, top on top and middle on middle
    };
    Kind kind = Kind::Whole;
    std::string name{}; ///< of the area, the edge, the other piece; of a corner "lower left"
    Measure width{}, height{}, x{}, y{};
    std::vector<std::pair<Measure, Measure>> points{};
    double less = 0; ///< mm
};

/// @throws InputError for what cannot be read, widths of nothing, outlines of fewer than three points.
LayerShape parseShape(const std::string& text);

/// What parseShape() reads as the same shape.
std::string textOf(const LayerShape& shape);

/// What of a shape is taken hold of.
struct ShapeHold {
    int across = 0, up = 0; ///< an edge of it: -1 the left or lower, 1 the right or upper one; 0 and 0: the whole
    int point = -1;         ///< of a drawn outline; -1: none
};
/// At a point of its piece, within @p reach mm of an edge or a corner, else anywhere on @p outline, which is the
/// shape's. Nothing where the shape is the whole piece or an area that the form names, or at another place.
std::optional<ShapeHold> holdAt(
    const LayerShape& shape, const Piece& piece, const Run& outline, Point at, double reach);
/// The shape when what is held goes @p by (mm on the piece): measures come to whole @p step mm, shares to half a
/// percent, and none below 4 mm.
LayerShape pulled(const LayerShape& shape, const ShapeHold& hold, const Piece& piece, Point at, Point by, double step);

/// The part of a closed outline that lies left of the lines through each two following points of a convex outline that
/// turns left (Sutherland and Hodgman's way).
Polyline clippedTo(const Polyline& outline, const Polyline& convex);

/// The outline of a shape on a piece. @p trimmed: the layer as it would be over the whole piece; strips, patches and
/// corners end there at the latest. @p reach: how far it lies past the stitch line at the strip's edge, mm.
/// Nothing where the piece has no such edge or area, or nothing of the shape lies on it.
std::optional<Run> shapeOn(
    const LayerShape& shape, const Piece& piece, const Run& trimmed, double reach, const Pattern& pattern);

/// How far an outline reaches past a stitch line, mm: positive in the allowance; nothing where it does not come to that
/// edge. @p allowance is how far is looked.
std::optional<double> reachPast(const Polyline& outline, const Run& stitch, double allowance);

/// The shape in words: "strip 40 mm wide along the top".
Message inWords(const LayerShape& shape, const Pattern& pattern);

} // namespace tectonis
