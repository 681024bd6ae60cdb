// SPDX-License-Identifier: GPL-3.0-or-later
// The real window with the demo open, and hands to drive it.
#pragma once

#include "english.hpp"
#include "formats/design_file.hpp"
#include "main_window.hpp"
#include "mockup_view.hpp"
#include "shell/stage_signs.hpp"
#include "theme.hpp"

#include <QAction>
#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QFile>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QPushButton>
#include <QScreen>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>
#include <QTextBrowser>
#include <QTimer>
#include <QTreeWidget>

#include <catch2/catch.hpp>

#include <fstream>

namespace tectonis {

inline const QString kDemo = QString(TECTONIS_DATA) + "/demos/tuners-satchel.tectonis";

/// Answers questions while it lives: each box that comes up is read and the button of that label clicked, one label
/// after the other, the last for all that follow.
class Answers {
public:
    explicit Answers(QStringList labels) : m_labels(std::move(labels))
    {
        QObject::connect(&m_timer, &QTimer::timeout, [this] { look(); });
        m_timer.start(15);
    }
    const QStringList& asked() const { return m_asked; }

private:
    void look()
    {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!box)
            return;
        m_asked << box->text();
        const QString label = m_labels.size() > 1 ? m_labels.takeFirst() : m_labels.value(0);
        for (auto* b : box->buttons())
            if (QString(b->text()).remove('&') == label)
                return QTest::mouseClick(b, Qt::LeftButton);
        m_asked << "NO BUTTON " + label;
        box->reject();
    }
    QTimer m_timer;
    QStringList m_labels, m_asked;
};

/// A window with the demo open, on the offscreen platform.
struct Shown {
    MainWindow window;
    explicit Shown(const QString& file = kDemo)
    {
        window.resize(1272, 766); // with a frame this is a screen of 1280 × 800
        window.show();
        window.activateWindow();
        if (!file.isEmpty())
            REQUIRE(window.openFile(file));
        QCoreApplication::processEvents();
    }
    template <class W> W* find(const char* name) const
    {
        W* w = window.findChild<W*>(name);
        REQUIRE(w);
        return w;
    }
    QTreeWidgetItem* row(const char* tree, const QString& label) const
    {
        auto* t = find<QTreeWidget>(tree);
        for (int g = 0; g < t->topLevelItemCount(); ++g)
            for (int i = 0; i < t->topLevelItem(g)->childCount(); ++i)
                if (t->topLevelItem(g)->child(i)->text(0) == label)
                    return t->topLevelItem(g)->child(i);
        FAIL("no row " << label.toStdString());
        return nullptr;
    }
    QString value(const QString& label) const { return row("dimensions", label)->text(1); }
    /// A fact of the piece in hand, as the docket shows it on Draft.
    QString fact(const QString& label)
    {
        const int before = window.stage();
        if (stageNames()[before] != "Draft")
            window.goTo(1);
        const QString shown = row("facts", label)->text(1);
        window.goTo(before);
        return shown;
    }

    /// Brings a field into sight as a user does: by going to a stage that shows it, opening its group and scrolling.
    QTreeWidgetItem* bringUp(const QString& label)
    {
        auto* tree = find<QTreeWidget>("dimensions");
        auto* item = row("dimensions", label);
        if (item->parent()->isHidden() || tree->isHidden())
            window.goTo(0); // Brief shows them all
        item->parent()->setExpanded(true);
        tree->scrollToItem(item, QAbstractItemView::PositionAtCenter);
        QCoreApplication::processEvents();
        return item;
    }

    /// Types into a field as a hand does: one click on it, the keys, Enter. Whatever has the focus gets the keys.
    void type(const QString& label, const QString& text, Qt::Key last = Qt::Key_Return)
    {
        auto* tree = find<QTreeWidget>("dimensions");
        auto* item = bringUp(label);
        REQUIRE_FALSE(item->isHidden());
        const QRect field = tree->visualItemRect(item);
        QTest::mouseClick(
            tree->viewport(), Qt::LeftButton, {}, QPoint(tree->columnViewportPosition(1) + 60, field.center().y()));
        QCoreApplication::processEvents();
        keys(text);
        QTest::keyClick(focus(), last);
        settle();
    }
    /// Clicks a form's drawing and takes what cannot stay as read.
    void clickForm(const std::string& form)
    {
        const Answers yes({"Change the form"});
        QTest::mouseClick(find<QAbstractButton>(("form." + form).c_str()), Qt::LeftButton);
        window.activateWindow(); // as a window manager does when a question is answered
        settle();
    }
    /// What has the focus in the window.
    QWidget* focus()
    {
        QWidget* w = window.focusWidget();
        REQUIRE(w);
        return w;
    }
    /// Types as a keyboard does: each key goes to what has the focus then.
    void keys(const QString& text)
    {
        for (const QChar c : text) {
            QTest::keyClicks(focus(), QString(c));
            QCoreApplication::processEvents();
        }
    }
    void settle()
    {
        QCoreApplication::processEvents();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // editors go
        QCoreApplication::processEvents();
    }
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier)
    {
        QWidget* at = window.focusWidget();
        QTest::keyClick(at ? at : &window, key, modifiers);
        QCoreApplication::processEvents();
    }
    void take(const std::string& piece) { window.document().takePiece(piece); }
};

/// Points of a widget in a grid, row by row.
inline std::vector<QPoint> gridOver(const QWidget* w, int step)
{
    std::vector<QPoint> out;
    for (int y = step / 2; y < w->height(); y += step)
        for (int x = step / 2; x < w->width(); x += step)
            out.push_back({x, y});
    return out;
}

inline void hover(QWidget* w, QPoint at)
{
    QMouseEvent move(QEvent::MouseMove, QPointF(at), w->mapToGlobal(QPointF(at)), Qt::NoButton, Qt::NoButton, {});
    QCoreApplication::sendEvent(w, &move);
}

inline void drag(QWidget* w, QPoint from, QPoint to)
{
    QTest::mousePress(w, Qt::LeftButton, {}, from);
    for (int i = 1; i <= 8; ++i) {
        // Events with the button held, as a real drag sends them.
        const QPointF at = QPointF(from) + QPointF(to - from) * i / 8.0;
        QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(w, &move);
    }
    QTest::mouseRelease(w, Qt::LeftButton, {}, to);
    QCoreApplication::processEvents();
}

/// Chooses a menu entry by its words.
inline void trigger(Shown& s, const QString& words)
{
    for (auto* action : s.window.findChildren<QAction*>())
        if (QString(action->text()).remove('&') == words)
            return action->trigger();
    FAIL("no menu entry " << words.toStdString());
}

/// Types a name into the next file dialog and presses its button.
struct FileName {
    QTimer timer;
    explicit FileName(QStringList names)
    {
        QObject::connect(&timer, &QTimer::timeout, [this, names]() mutable {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            if (!dialog || names.isEmpty())
                return;
            auto* edit = dialog->findChild<QLineEdit*>("fileNameEdit");
            edit->selectAll();
            QTest::keyClicks(edit, names.takeFirst()); // typed: only that unselects the file that was proposed
            QMetaObject::invokeMethod(dialog, "accept");
        });
        timer.start(350); // when the dialog has read its folder
    }
};

/// Words that the docket shows, all in one text.
inline QString docketText(Shown& s)
{
    QString all = s.find<QLabel>("docketTitle")->text() + "\n";
    auto* facts = s.find<QTreeWidget>("facts");
    for (int g = 0; g < facts->topLevelItemCount(); ++g) {
        all += facts->topLevelItem(g)->text(0) + "\n";
        for (int i = 0; i < facts->topLevelItem(g)->childCount(); ++i)
            all += facts->topLevelItem(g)->child(i)->text(0).replace('\n', ' ') + " "
                + facts->topLevelItem(g)->child(i)->text(1) + "\n";
    }
    return all;
}

} // namespace tectonis
