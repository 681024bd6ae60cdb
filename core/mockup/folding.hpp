// SPDX-License-Identifier: GPL-3.0-or-later
// Folding pieces into space: flat, round a run, over a profile.
#pragma once

#include "pattern/pattern.hpp"

#include <functional>

namespace tectonis {

using Fold = std::function<Vec3(Point)>;

/// Lays a whole piece into space as one facet.
void foldFlat(Mockup& m, const Pattern& p, const std::string& piece, const Fold& at, const std::string& kind);

/// Bends a strip round the @p run of a panel: strip x follows the run's length, strip y goes from z = depth/2 backwards.
void foldStripRound(Mockup& m, const Pattern& p, const std::vector<EdgeUse>& run, const std::string& strip, double depth);

/// Lays every flap over the mouth: up the back, across, down the front. Does nothing if there is no flap.
void foldFlapOver(Mockup& m, const Pattern& p, double height, double halfDepth);

/// Draws the strap at its shortest between the rings at ±@p ring.x, as half an ellipse of the strap's true length, and the rings.
void foldStrap(Mockup& m, const Pattern& p, Vec3 ring);

/// Puts the things to carry into their places, bottom up.
void placeThings(Mockup& m, const Design& design, const Pattern& p);

/// Height of half an ellipse over the chord @p width whose length is @p length (Ramanujan's second formula); 0 if it is too short.
double bowHeight(double width, double length);

} // namespace tectonis
