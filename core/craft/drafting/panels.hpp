// SPDX-License-Identifier: GPL-3.0-or-later
// The shapes that bags are made of: U-panels, strips, rectangles.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// A panel with a straight top and round bottom corners, drawn about x = 0 with its bottom at y = 0.
/// With an inset (a lining that hangs inside) the sides move inwards by it from the top down to @c easeTo, and the
/// bottom up by it.
struct UPanel {
    double width = 0; ///< at the bottom, before rounding
    double height = 0;
    double radius = 0;
    double taper = 0; ///< how far each side leans in at the top; negative: flares
    double bow = 0;   ///< how far the middle of each side lies outside the straight line from its corner to the mouth;
                      ///< negative: inside
    double inset = 0;
    double easeTo = 0;    ///< y above which the inset fades out
    bool divided = false; ///< the sides are two edges, divided at easeTo, also without an inset
    double allowance = 0, topAllowance = 0, lowAllowance = 0; ///< lowAllowance: where the full inset is reached
    EdgeId top = "top";                                       ///< name of the top edge
    Corner topCorner = Corner::Mitre;
};

/// Adds the panel's edges: top, left ease, left side, left corner, bottom, right corner, right side, right ease.
/// Edges of no length are left out. Returns the height of the corner's upper end above the bottom line.
double drawUPanel(Piece& piece, const UPanel& shape);

/// The turn of the bottom corner, radians: pi/2 for upright sides, more when the top is narrower, less when the sides
/// bow out.
double cornerTurn(double taper, double height, double bow = 0);

/// A gusset strip lying along x, its front edge at the bottom, right for a panel's U-run. Follows the panel's inset.
struct Strip {
    double depth = 0;
    double narrow = 0; ///< how far both long edges lie further in at the mouth; needs a panel whose sides are divided
    bool half = false; ///< from the mouth to the centre bottom only
    double upTo = 0;   ///< or this far from the mouth, mm along the panel; 0 for the whole or the half
    double allowance = 0, mouthAllowance = 0, lowAllowance = 0;
};
void drawStripAlong(Piece& strip, const Piece& panel, const Strip& shape);

/// Rectangle with edges bottom, right, top, left, one corner at the origin.
void drawRectangle(Piece& piece, double width, double height, double allowance);

} // namespace tectonis
