// SPDX-License-Identifier: GPL-3.0-or-later
// What all PDFs have in common.
#pragma once

#include "library/library.hpp"

#include <QPageSize>
#include <QPdfWriter>

namespace tectonis {

/// Title, page and resolution of a PDF without margins: what is drawn on it keeps its own.
inline void setUp(QPdfWriter& writer, const QString& title, const Paper& paper, double dpi)
{
    writer.setTitle(title);
    writer.setCreator("Tectonis");
    writer.setResolution(int(dpi));
    writer.setPageSize(QPageSize(QSizeF(paper.width, paper.height), QPageSize::Millimeter,
        QString::fromStdString(paper.name), QPageSize::ExactMatch));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
}

} // namespace tectonis
