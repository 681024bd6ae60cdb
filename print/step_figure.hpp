// SPDX-License-Identifier: GPL-3.0-or-later
// Scenes and figures of construction steps, painted.
#pragma once

#include "canvas.hpp"
#include "figures/figure.hpp"

namespace tectonis {

struct FigureLook {
    QColor ground{Qt::white}, shell{0xF3, 0xE9, 0xD6}, lining{0xDC, 0xE6, 0xEA}, strip{0xE3, 0xD8, 0xC2},
        padding{0xE4, 0xE4, 0xDE}, tape{0x6B, 0x66, 0x60}, metal{0x9A, 0xA0, 0xA6}, ink{0x33, 0x2C, 0x25},
        accent{0xB5, 0x3B, 0x1E}, faint{0xA0, 0x97, 0x8B};
    double line = 1.2;    ///< device units
    double textSize = 11; ///< device units; 0: no words
    Unit unit = Unit::Mm;
};

/// Fits a scene into @p target.
void drawScene(QPainter& painter, const QRectF& target, const Scene& scene, const FigureLook& look);

/// The plan large; beside it the section and the part so far, where there are any.
void drawStepFigure(QPainter& painter, const QRectF& target, const StepFigure& figure, const FigureLook& look);

} // namespace tectonis
