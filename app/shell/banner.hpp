// SPDX-License-Identifier: GPL-3.0-or-later
// Notices above the rail, one at a time: what could not be done, what was found, with the ways out as buttons. None
// hides another.
#pragma once

#include <QLabel>
#include <QWidget>

#include <functional>
#include <list>

class QHBoxLayout;

namespace tectonis {

struct Notice {
    QString text;
    struct Way {
        QString label;
        std::function<bool()> take; ///< true: that settled it; empty: it is just put away
    };
    std::vector<Way> ways{{spoken("Understood"), {}}};
};

class Banner : public QWidget {
    Q_OBJECT
public:
    explicit Banner(QWidget* parent = nullptr);
    /// Shown at once, before those that wait; words that are there already are not said twice.
    void tell(Notice notice);
    /// Shown after those that wait.
    void tellLater(Notice notice);
    /// All notices of one way out that were merely told, put away.
    void clearTold();
    QString text() const { return m_text->text(); }

private:
    void show();

    std::list<Notice> m_notices;
    QLabel* m_text;
    QHBoxLayout* m_buttons;
};

} // namespace tectonis
