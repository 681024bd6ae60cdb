// SPDX-License-Identifier: GPL-3.0-or-later
// The outline of a PDF, which readers show beside its pages.
#pragma once

#include <QByteArray>
#include <QString>

#include <vector>

namespace tectonis {

struct Bookmark {
    QString title;
    int page = 0;   ///< 0: the first
    double top = 0; ///< points from the lower edge of the page
    int level = 0;  ///< 0: a heading; one more: below the one before
};

/// The same PDF with an outline.
QByteArray withBookmarks(const QByteArray& pdf, const std::vector<Bookmark>& bookmarks);

} // namespace tectonis
