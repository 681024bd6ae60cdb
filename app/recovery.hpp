// SPDX-License-Identifier: GPL-3.0-or-later
// Work that was not saved survives a crash: while there are unsaved changes a copy lies beside the settings, at most
// two seconds old.
#pragma once

#include "document.hpp"
#include "files/files.hpp"

#include <QDateTime>
#include <QTimer>

#include <memory>

namespace tectonis {

/// A copy left by a run that did not end properly. While it lives no other window is offered the same.
struct Leftover {
    QString copy, file; ///< where it lies; the file that it was opened from, empty if it was never saved
    QString stamp;      ///< of that file when it was opened
    QString name;       ///< of the design, if it can be read
    QDateTime when;
    std::shared_ptr<FileLock> held;
};

class Recovery : public QObject {
    Q_OBJECT
public:
    explicit Recovery(Document& document);
    ~Recovery() override; ///< a proper end leaves no copy

    /// Newest first; those of windows that are open are not among them.
    static std::vector<Leftover> leftovers();
    /// Moves a copy to those that were put away; the newest twenty are kept.
    static void putAway(const Leftover& leftover);
    /// Copies that were put away, newest first.
    static std::vector<Leftover> putAwayCopies();

    /// A leftover was opened: it goes only when this run's own copy of it, or the saved file, is safe.
    void adopt(Leftover leftover);
    /// Keeps a copy now (normally two seconds after an edit, however many follow).
    void keep();
    QString copy() const { return m_copy; }

private:
    Document& m_document;
    QTimer m_timer;
    QString m_copy;
    std::optional<FileLock> m_lock;
    std::vector<Leftover> m_adopted;
};

} // namespace tectonis
