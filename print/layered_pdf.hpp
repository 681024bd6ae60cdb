// SPDX-License-Identifier: GPL-3.0-or-later
// One PDF from several of the same pages: a ground and layers that a reader can show and hide.
#pragma once

#include <QByteArray>
#include <QString>
#include <vector>

namespace tectonis {

struct PdfLayer {
    QString name;
    QByteArray pdf; ///< as many pages as the ground, of the same size
};

/// Puts each layer over the ground as an optional content group (ISO 32000-1, 8.11), all shown at first.
/// @throws InputError if the parts cannot be joined.
QByteArray layeredPdf(const QByteArray& ground, const std::vector<PdfLayer>& layers);

} // namespace tectonis
