// SPDX-License-Identifier: GPL-3.0-or-later
// What is hung on and put into a folded bag: flaps, zip bands, handles, straps, the things it carries.
#pragma once

#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// A ribbon along a path in space, @p across wide from edge to edge.
void foldRibbon(Mockup& m, const PieceId& piece, const std::vector<Vec3>& path, Vec3 across);

/// Lays the bands of a recessed zip level across the mouth; open, they hang down.
void foldZipBands(Mockup& m, const Pattern& p, double height, double halfDepth);

/// Draws tabs and rings where the mock-up's rings are held, and every strap at its shortest from one to the other, as
/// half an ellipse of its true length.
void foldConnectors(Mockup& m, const Pattern& p);

/// Lays what is stitched onto a strap, handle or tab on the first of its ribbons, outside: as far along it as on the
/// piece from its upper end, on a tab from its ring.
void sewOntoStrips(Mockup& m, const Pattern& p);

/// Puts the things to carry into their places, bottom up.
void placeThings(Mockup& m, const Design& design, const Pattern& p);

/// Zip bands and things to carry of a bag whose faces stand at z = ±@p halfDepth.
void dressUp(Mockup& m, const Design& design, const Pattern& p, double height, double halfDepth);

/// Height of half an ellipse over the chord @p width whose length is @p length (Ramanujan's second formula); 0 if it is
/// too short.
double bowHeight(double width, double length);

} // namespace tectonis
