// SPDX-License-Identifier: GPL-3.0-or-later
// Bodies that open like a case: two faces and a closed loop of zip panel and band between them; lined flat, raw seams
// bound.
#pragma once

#include "drafting/coat.hpp"
#include "mockup/folder.hpp"

namespace tectonis {

struct LoopBody {
    Run face;             ///< stitch line of a face, counter-clockwise, centred on x = 0
    double topCentre = 0; ///< mm along the face, clockwise seen from the front: where the zip panel's middle lies
    double zip = 0;       ///< mm of the face's outline that the zip panel covers
    double depth = 0;
    bool threeBands = false;    ///< side, bottom, side instead of one band
    double right = 0, left = 0; ///< mm of the outline that the side bands cover, from the zip panel's ends
    /// Upright sides on which parts may sit: mm from the zip panel's ends to where they begin, and how far they go
    /// down; 0: there are none.
    double rightFrom = 0, leftFrom = 0, upright = 0;
};

/// Dimensions and choices that all such bodies have. @p girth: formula of the face's outline.
std::vector<DimensionSpec> loopDimensions(const std::string& girth);
std::vector<ChoiceSpec> loopChoices();
void furnishLoop(Design& design);

/// Draws faces, zip panel, bands and linings with their seams and steps, and registers sites, anchors and
/// space.
void draftLoop(Drafter& d, const LoopBody& body, double inWidth, double inHeight);
Mockup foldLoop(const Design& design, const Pattern& p, const LoopBody& body);

} // namespace tectonis
