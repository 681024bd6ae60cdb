// SPDX-License-Identifier: GPL-3.0-or-later
// A monkey at the window: seeded clicks, keys, drags and wheels anywhere. Nothing it does may end the window or leave a
// design that cannot be saved and read.
#include "driven.hpp"

#include "application.hpp"

#include <QAbstractSpinBox>
#include <QMenu>
#include <QWheelEvent>

#include <random>

using namespace tectonis;

TEST_CASE("A monkey's 2,000 actions end nothing, and what is left can be saved, read again and undone to the beginning")
{
    Shown s;
    const Design first = s.window.document().design();
    const Answers answers({"Change the form", "Keep this one", "Cancel", "Change the form"});
    // Dialogs and popups that it opens are closed again.
    QTimer closer;
    QObject::connect(&closer, &QTimer::timeout, [] {
        if (auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget()))
            dialog->reject();
        else if (auto* popup = QApplication::activePopupWidget())
            popup->close();
    });
    closer.start(10);
    int failed = 0;
    static_cast<Application*>(qApp)->failed = [&](const QString& words) {
        ++failed;
        UNSCOPED_INFO(words.toStdString());
    };
    std::mt19937 random(20261125);
    const auto one = [&](int n) { return int(random() % std::uint32_t(std::max(1, n))); };
    const QString typed = "0123456789.,/-+*( )abcdeinm°½\"x";
    for (int i = 0; i < 2000; ++i) {
        const QPoint at(one(s.window.width()), one(s.window.height()));
        QWidget* under = s.window.childAt(at);
        if (!under)
            continue;
        const QPoint here = under->mapFrom(&s.window, at);
        switch (one(10)) {
        case 0:
        case 1:
        case 2:
            // Not into menus and not onto the buttons that write files.
            if (!under->inherits("QMenuBar") && !under->objectName().startsWith("write."))
                QTest::mouseClick(under, Qt::LeftButton, {}, here);
            break;
        case 3: drag(under, here, here + QPoint(one(160) - 80, one(160) - 80)); break;
        case 4: {
            QWheelEvent wheel(here, under->mapToGlobal(here), {}, {0, (one(3) - 1) * 240}, Qt::NoButton, Qt::NoModifier,
                Qt::NoScrollPhase, false);
            QApplication::sendEvent(under, &wheel);
            break;
        }
        case 5:
        case 6:
            if (QWidget* focus = s.window.focusWidget())
                for (int k = 0; k < 1 + one(5) && (focus = s.window.focusWidget()); ++k)
                    QTest::keyClicks(focus, QString(typed[one(int(typed.size()))]));
            break;
        case 7:
            if (QWidget* focus = s.window.focusWidget()) {
                const Qt::Key keys[] = {Qt::Key_Return, Qt::Key_Tab, Qt::Key_Escape, Qt::Key_Up, Qt::Key_Down,
                    Qt::Key_Left, Qt::Key_Right, Qt::Key_Delete, Qt::Key_Backspace, Qt::Key_F2};
                QTest::keyClick(focus, keys[one(10)]);
            }
            break;
        case 8:
            if (one(3) == 0)
                s.press(one(2) ? Qt::Key_Z : Qt::Key_Y, Qt::ControlModifier);
            else
                s.window.goTo(one(9));
            break;
        default: s.window.document().setSize(std::size_t(one(3))); s.window.document().setUnit(Unit(one(3)));
        }
        if (i % 10 == 0)
            s.settle();
    }
    s.settle();
    CHECK(failed == 0);
    const Design left = s.window.document().design();
    CHECK(designFromText(designText(left), "left") == left);
    while (s.window.document().undoStack().canUndo())
        s.window.document().undoStack().undo();
    CHECK(s.window.document().design() == first);
}
