// SPDX-License-Identifier: GPL-3.0-or-later
// What Build-up draws: the layers of the piece in hand pulled apart, and a section through a seam.
#pragma once

#include "picture.hpp"

namespace tectonis {

/// The face and its layers, one below the other, seen from above at a slant.
class PulledApart : public Picture {
public:
    explicit PulledApart(Document& document);
    int inHand = -1; ///< the layer that is marked; -1: none

protected:
    void paintEvent(QPaintEvent*) override;
};

/// A section through the chosen seam, magnified, beside the machine's limit.
class Section : public Picture {
public:
    explicit Section(Document& document);
    SeamId seam;

protected:
    void paintEvent(QPaintEvent*) override;
};

} // namespace tectonis
