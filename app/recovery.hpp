// SPDX-License-Identifier: GPL-3.0-or-later
// Work that was not saved survives a crash: a copy is kept beside the settings while there are unsaved changes.
#pragma once

#include "document.hpp"

#include <QTimer>

namespace tectonis {

class Recovery : public QObject {
    Q_OBJECT
public:
    explicit Recovery(Document& document);
    ~Recovery() override; ///< a proper end leaves no copy

    /// A copy left by a run that did not end properly; empty if none.
    static QString leftover();
    static void discard(const QString& copy);
    /// Keeps a copy now (normally two seconds after the last edit).
    void keep();

private:
    Document& m_document;
    QTimer m_timer;
    QString m_copy;
};

} // namespace tectonis
