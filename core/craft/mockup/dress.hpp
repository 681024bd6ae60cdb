// SPDX-License-Identifier: GPL-3.0-or-later
// What is hung on and put into a folded bag: flaps, zip bands, handles, straps, the things it carries.
#pragma once

#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// A ribbon along a path in space, @p across wide from edge to edge.
void foldRibbon(Mockup& m, const PieceId& piece, const std::vector<Vec3>& path, Vec3 across);

/// Handles of a bag whose faces stand at z = ±@p halfDepth with their mouths at @p height: half an ellipse each over
/// its spread.
void foldHandles(Mockup& m, const Pattern& p, double height, double halfDepth);

/// Lays every flap over the mouth of a bag whose faces stand at z = ±@p halfDepth with their mouths at @p height.
void foldFlaps(Mockup& m, const Pattern& p, double height, double halfDepth);

/// Lays the bands of a recessed zip level across the mouth; open, they hang down.
void foldZipBands(Mockup& m, const Pattern& p, double height, double halfDepth);

/// Draws the strap at its shortest between the rings at ±@p ring.x, as half an ellipse of the strap's true length, and
/// the rings.
void foldStrap(Mockup& m, const Pattern& p, Vec3 ring);

/// Puts the things to carry into their places, bottom up.
void placeThings(Mockup& m, const Design& design, const Pattern& p);

/// Flaps, handles, strap and things to carry of a bag whose faces stand at z = ±@p halfDepth; rings hang at x = ±@p
/// ringX.
void dressUp(Mockup& m, const Design& design, const Pattern& p, double height, double halfDepth, double ringX);

/// Height of half an ellipse over the chord @p width whose length is @p length (Ramanujan's second formula); 0 if it is
/// too short.
double bowHeight(double width, double length);

} // namespace tectonis
