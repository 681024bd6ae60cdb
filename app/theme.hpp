// SPDX-License-Identifier: GPL-3.0-or-later
// Colours of the workroom, light and dark. Text on its ground keeps 4.5:1 or better.
#pragma once

#include "canvas.hpp"
#include "step_figure.hpp"

#include <QColor>

class QApplication;

namespace tectonis {

struct Theme {
    bool dark = false;
    QColor window, surface, bench, field, ink, muted, line, accent, accentInk, second, error, warning, note;
    QColor shell, lining, strip, interlining; ///< card colours by group
    QColor groupColor(Coat group) const;
    PieceLook pieceLook(Coat group, bool inHand = false) const;
    FigureLook figureLook() const;
    QColor severity(int severity) const { return severity == 0 ? error : severity == 1 ? warning : note; }
};

/// The theme in force.
const Theme& theme();
void applyTheme(QApplication& app, bool dark);

} // namespace tectonis
