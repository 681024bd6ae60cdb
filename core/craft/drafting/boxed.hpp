// SPDX-License-Identifier: GPL-3.0-or-later
// Two panels whose lower corners are boxed. The form's dimensions are called width, height, depth and taper, its choice
// "boxing".
#pragma once

#include "drafting/coat.hpp"
#include "mockup/folder.hpp"

namespace tectonis {

/// What pleats at the base add to each half of a panel's lower edge, mm: of every pleat of visible depth p, 2p of
/// width. None where the form has no "pleats".
double pleatHalf(const Values& values);

/// Front and back of one coat with their seams: sides, bottom, boxes. Where the squares are cut later, their stitch
/// lines are lines on the face, called as the edges would be.
void drawBoxed(CoatDraft& coat);
/// Steps: sides and bottom, then the boxes. Yields "shell" or "lining".
void sewBoxed(CoatDraft& coat);
/// Workings of the lining's slack, and of its wider seam; @p shrink: how much further in its walls are drafted.
void workBoxedSlack(Drafter& d, double shrink);
/// Lays the panels of one coat.
void foldBoxed(Folder& folder, const Pattern& pattern, const LaidCoat& coat);

} // namespace tectonis
