// SPDX-License-Identifier: GPL-3.0-or-later
// The figure of a construction step, drawn from the pieces themselves.
#pragma once

#include "canvas.hpp"

namespace tectonis {

struct FigureLook {
    QColor ground{Qt::white}, shell{0xF3, 0xE9, 0xD6}, lining{0xDC, 0xE6, 0xEA}, ink{0x33, 0x2C, 0x25},
        accent{0xB5, 0x3B, 0x1E}, faint{0xA0, 0x97, 0x8B};
    double line = 1.2; ///< device units
};

/// Pieces of the step side by side, the seams it sews in the accent colour, interlinings and fittings it adds.
void drawStepFigure(
    QPainter& painter, const QRectF& target, const Pattern& pattern, const Step& step, const FigureLook& look);

} // namespace tectonis
