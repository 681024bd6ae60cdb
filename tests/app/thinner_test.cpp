// SPDX-License-Identifier: GPL-3.0-or-later
// Thick seams in the window: every remedy with its gain, done and taken back by a click; other ways beside a snag.
#include "driven.hpp"

#include "buildup/bulk.hpp"

#include <QMenu>
#include <QTabWidget>
#include <QToolButton>

using namespace tectonis;

namespace {

/// The menu of a button as it opens, its entry that begins so.
QAction* entryOf(QToolButton* button, const QString& begin)
{
    emit button->menu()->aboutToShow();
    for (QAction* action : button->menu()->actions())
        if (action->text().startsWith(begin))
            return action;
    return nullptr;
}

/// A hand opens the menu, goes down to an entry and takes it.
void take(QToolButton* button, const QString& begin)
{
    bool taken = false;
    QTimer::singleShot(150, [&] {
        auto* menu = button->menu();
        for (QAction* action : menu->actions())
            if (action->text().startsWith(begin) && action->isEnabled()) {
                QTest::mouseClick(menu, Qt::LeftButton, {}, menu->actionGeometry(action).center());
                taken = true;
                return;
            }
        menu->close();
    });
    QTest::mouseClick(button, Qt::LeftButton);
    for (int i = 0; i < 50 && !taken; ++i)
        QTest::qWait(10);
    REQUIRE(taken);
}

int rowOfSeam(QTableWidget* table, const QString& name)
{
    for (int r = 0; r < table->rowCount(); ++r)
        if (table->item(r, 0)->text() == name)
            return r;
    FAIL("no seam " << name.toStdString());
    return -1;
}

} // namespace

TEST_CASE("Build-up: a thick seam is made thinner by a click in the order of the trade, and as it was by another")
{
    Shown s;
    s.window.goTo(2);
    s.settle();
    auto* table = s.find<QTableWidget>("bulk");
    for (auto* tabs : s.window.findChildren<QTabWidget*>())
        for (int i = 0; i < tabs->count(); ++i)
            if (tabs->widget(i)->isAncestorOf(table))
                QTest::mouseClick(tabs->tabBar(), Qt::LeftButton, {}, tabs->tabBar()->tabRect(i).center());
    s.settle();
    const int row = rowOfSeam(table, "Mouth, shell to lining");
    table->scrollToItem(table->item(row, 0));
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(row, 0)).center());
    auto* thinner = s.find<QToolButton>("thinner");
    // All six, in order; what is no use is dim and says why.
    emit thinner->menu()->aboutToShow();
    const auto all = thinner->menu()->actions();
    REQUIRE(all.size() == 6);
    const char* order[] = {"Trim", "Grade", "Press", "Sew up to", "Hammer", "Sew it by hand"};
    for (int i = 0; i < 6; ++i) {
        INFO(all[i]->text().toStdString());
        CHECK(all[i]->text().startsWith(order[i]));
        CHECK((all[i]->isEnabled() || !all[i]->toolTip().isEmpty()));
        if (all[i]->isEnabled() && i != 5)
            CHECK(all[i]->text().contains(" less, "));
    }
    const QString before = table->item(row, 1)->text();
    REQUIRE(entryOf(thinner, "Hammer")->isEnabled());
    const QString leaves = entryOf(thinner, "Hammer")->text().section(" less, ", 1).section(" left", 0, 0);
    take(thinner, "Hammer");
    s.settle();
    CHECK(table->item(row, 1)->text() == leaves);
    CHECK(entryOf(thinner, "Hammer")->isChecked());
    take(thinner, "Hammer");
    s.settle();
    CHECK(table->item(row, 1)->text() == before);
    CHECK(!entryOf(thinner, "Hammer")->isChecked());
}

TEST_CASE("A snag that can be mended in several ways offers the others beside its repair")
{
    Shown s;
    s.window.goTo(2);
    auto* workshop = s.find<QComboBox>("workshop");
    const int household = workshop->findText("Household flat-bed");
    REQUIRE(household >= 0);
    workshop->setCurrentIndex(household);
    emit workshop->activated(household);
    s.settle();
    QTest::mouseClick(s.find<QPushButton>("snags"), Qt::LeftButton);
    s.settle();
    auto* list = s.find<QTreeWidget>("snagList");
    REQUIRE(list->topLevelItemCount() >= 1);
    const int before = list->topLevelItemCount();
    auto* others = s.find<QToolButton>("otherRepairs");
    CHECK(others->menu()->actions().size() >= 2);
    for (QAction* action : others->menu()->actions())
        CHECK((action->text().contains(" less") || action->text().startsWith("Sew it by hand")));
    take(others, "Sew it by hand");
    s.settle();
    CHECK(list->topLevelItemCount() == before - 1);
}
