// SPDX-License-Identifier: GPL-3.0-or-later
// Choices in the docket: what shows of them, after rows have come and gone above them.
#include "driven.hpp"

#include <QHeaderView>
#include <QScrollBar>

using namespace tectonis;

namespace {

/// Labels of rows in sight whose box is not there.
QStringList withoutBox(QTreeWidget* tree)
{
    QStringList out;
    for (int g = 0; g < tree->topLevelItemCount(); ++g)
        for (int i = 0; i < tree->topLevelItem(g)->childCount(); ++i) {
            auto* item = tree->topLevelItem(g)->child(i);
            auto* box = tree->itemWidget(item, 1);
            const QRect row = tree->visualItemRect(item);
            if (!box || item->isHidden() || item->parent()->isHidden() || !item->parent()->isExpanded()
                || !tree->viewport()->rect().contains(row.center()))
                continue;
            const QPoint middle = box->mapTo(tree->viewport(), box->rect().center());
            if (!box->isVisible() || std::abs(middle.y() - row.center().y()) > 3)
                out << item->text(0);
        }
    return out;
}

} // namespace

TEST_CASE("Every choice in sight in the docket has its box beside its name, after rows have come and gone")
{
    Shown s;
    auto* tree = s.find<QTreeWidget>("dimensions");
    for (const int from : {0, 3}) {
        s.window.goTo(from);
        s.settle();
        for (const char* held : {"choice.connectors.held", "choice.strap.worn", "choice.snap.closure"})
            for (int n = 0; n < s.find<QComboBox>(held)->count(); ++n) {
                for (int g = 0; g < tree->topLevelItemCount(); ++g)
                    tree->topLevelItem(g)->setExpanded((g + n) % 3 != 0);
                for (const int at : {0, 40, 100}) {
                    tree->verticalScrollBar()->setValue(tree->verticalScrollBar()->maximum() * at / 100);
                    QCoreApplication::processEvents();
                    auto* combo = s.find<QComboBox>(held);
                    combo->setFocus();
                    QTest::keyClick(combo, at == 40 ? Qt::Key_Up : Qt::Key_Down);
                    s.settle();
                    INFO(held << " " << combo->currentText().toStdString() << ", scrolled by " << at << " from "
                              << from);
                    CHECK(withoutBox(tree).join(", ").toStdString() == "");
                    s.window.goTo(3 - from);
                    s.settle();
                    CHECK(withoutBox(tree).join(", ").toStdString() == "");
                    tree->verticalScrollBar()->setValue(tree->verticalScrollBar()->maximum());
                    QCoreApplication::processEvents();
                    CHECK(withoutBox(tree).join(", ").toStdString() == "");
                    s.window.goTo(from);
                    s.settle();
                }
            }
    }
}
