// SPDX-License-Identifier: GPL-3.0-or-later
// The nine stages' signs, drawn.
#pragma once

#include <QColor>
#include <QPainter>
#include <QStringList>

namespace tectonis {

/// What findings call the stages; readers see stageLabel().
const QStringList& stageNames();
QString stageLabel(int index);

/// Sign of stage @p index (0 to 8) in a square of @p size pixels.
void drawStageSign(QPainter& painter, int index, const QRectF& box, const QColor& ink);

} // namespace tectonis
