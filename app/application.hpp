// SPDX-License-Identifier: GPL-3.0-or-later
// Manners of the whole window, kept in one place: nothing that fails ends it, what comes from a file is plain text,
// keys and wheel go where a hand means them.
#pragma once

#include <QApplication>

#include <functional>

namespace tectonis {

class Application : public QApplication {
public:
    Application(int& argc, char** argv);

    /// Called with words when something failed that nobody foresaw; what was open is still open.
    std::function<void(const QString&)> failed;

    bool notify(QObject* receiver, QEvent* event) override;
};

/// Text that a widget may take for rich text (a tool tip), made to be shown as it is.
QString asPlain(const QString& text);

/// Moves a window that is about to show so that all of it is on the screen, near @p wanted (global).
void placeOnScreen(QWidget* window, const QPoint& wanted);

} // namespace tectonis
