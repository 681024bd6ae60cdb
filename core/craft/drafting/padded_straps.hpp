// SPDX-License-Identifier: GPL-3.0-or-later
// A pair of padded shoulder straps on a face, each with a loop of webbing for its slider in the lower end.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

struct PaddedStraps {
    PieceId upper, under, loop; ///< pieces that are added
    StepId make, loops, on;     ///< steps
    SeamId sewn, onFace;        ///< begin of the names of seams
    std::string code, loopCode;
    PieceId face;                                             ///< that carries them
    Point at;                                                 ///< on it: between both, where they leave it
    double spread = 0;                                        ///< between the middles of both straps
    double width = 0, length = 0, webbing = 0, allowance = 0; ///< mm
    Point foot; ///< on the face: where the right one's webbing comes back to it
    std::string phase = "Shell back";
    std::string line = "strap";        ///< of the placement lines on the face
    WorkId ready = "straps";           ///< made, before they are sewn on
    std::vector<PieceId> alsoSealed{}; ///< webbing whose ends are sealed in the same go
    SiteId site{"strap"};              ///< their upper sides, as a face for what is stitched onto them
};

/// Their two layers, with @c length from the face down to the round end, loops, seams and steps.
void drawPaddedStraps(Drafter& d, const PaddedStraps& s);

} // namespace tectonis
