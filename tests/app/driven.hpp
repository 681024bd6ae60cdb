// SPDX-License-Identifier: GPL-3.0-or-later
// The real window with the demo open, and hands to drive it.
#pragma once

#include "formats/design_file.hpp"
#include "main_window.hpp"
#include "mockup_view.hpp"
#include "shell/stage_signs.hpp"
#include "theme.hpp"

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

/// A window with the demo open, on the offscreen platform.
struct Shown {
    MainWindow window;
    explicit Shown(const QString& file = kDemo)
    {
        window.resize(1280, 800);
        window.show();
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
    QString fact(const QString& label) const { return row("facts", label)->text(1); }

    /// Types into a dimension as a user does: pick the row, F2, type, Enter.
    void type(const QString& label, const QString& text)
    {
        auto* tree = find<QTreeWidget>("dimensions");
        auto* item = row("dimensions", label);
        item->parent()->setExpanded(true);
        tree->setCurrentItem(item, 1);
        tree->editItem(item, 1);
        auto* editor = tree->findChild<QLineEdit*>();
        REQUIRE(editor);
        editor->selectAll();
        QTest::keyClicks(editor, text);
        QTest::keyClick(editor, Qt::Key_Return);
        QCoreApplication::processEvents();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // the editor goes
    }
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier)
    {
        QTest::keyClick(&window, key, modifiers);
        QCoreApplication::processEvents();
    }
    void take(const std::string& piece) { window.document().takePiece(piece); }
};

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

} // namespace tectonis

