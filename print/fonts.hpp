// SPDX-License-Identifier: GPL-3.0-or-later
// The bundled typeface (data/fonts), the same on screen and on paper.
#pragma once

#include <QFont>

namespace tectonis {

/// Registers the bundled typeface; call once after the application object exists.
void loadFonts();

/// Weights: QFont::Normal, QFont::Medium, QFont::DemiBold.
QFont bodyFont(double points, QFont::Weight weight = QFont::Normal);
/// Sized in device pixels, for drawing on a canvas.
QFont pixelFont(double pixels, QFont::Weight weight = QFont::Normal);

} // namespace tectonis
