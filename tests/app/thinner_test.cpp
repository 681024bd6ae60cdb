// SPDX-License-Identifier: GPL-3.0-or-later
// Thick seams in the window: every remedy with its gain, done and taken back by a click; other ways beside a snag.
#include "driven.hpp"

#include "buildup/remedies.hpp"

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

/// A hand opens the menu by a click, goes down to an entry and takes it by Enter. A menu that is left open would hold
/// the click for ever.
void take(QToolButton* button, const QString& begin)
{
    bool taken = false;
    QTimer look;
    QObject::connect(&look, &QTimer::timeout, [&] {
        QMenu* menu = button->menu();
        if (!menu->isVisible())
            return;
        for (QAction* action : menu->actions())
            if (action->text().startsWith(begin) && action->isEnabled()) {
                menu->setActiveAction(action);
                QTest::keyClick(menu, Qt::Key_Return);
                taken = true;
            }
        menu->close();
    });
    look.start(40);
    QTest::mouseClick(button, Qt::LeftButton);
    for (int i = 0; i < 100 && !taken; ++i)
        QTest::qWait(20);
    REQUIRE(taken);
}

QTableWidget* seamsUnderTheFoot(Shown& s)
{
    s.window.goTo(2);
    s.settle();
    auto* table = s.find<QTableWidget>("bulk");
    for (auto* tabs : s.window.findChildren<QTabWidget*>())
        for (int i = 0; i < tabs->count(); ++i)
            if (tabs->widget(i)->isAncestorOf(table))
                QTest::mouseClick(tabs->tabBar(), Qt::LeftButton, {}, tabs->tabBar()->tabRect(i).center());
    s.settle();
    return table;
}

void pick(QTableWidget* table, int row)
{
    table->scrollToItem(table->item(row, 0));
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(row, 0)).center());
}

QToolButton* thinner(const Shown& s) { return s.find<QToolButton>("thinner"); }

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
    QTableWidget* table = seamsUnderTheFoot(s);
    // The section and the docket tell of every row, also of seams of parts and of the strap's end.
    auto* facts = s.find<QTreeWidget>("facts");
    for (int r = 0; r < table->rowCount(); ++r) {
        pick(table, r);
        s.settle();
        const QString name = table->item(r, 0)->text();
        bool told = false;
        for (int g = 0; g < facts->topLevelItemCount(); ++g)
            told |= facts->topLevelItem(g)->text(0).endsWith(name);
        INFO(name.toStdString());
        CHECK(told);
        CHECK(thinner(s)->isEnabled());
    }
    const int row = rowOfSeam(table, "Mouth, shell to lining");
    pick(table, row);
    auto* thinner = ::thinner(s);
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

TEST_CASE("Build-up: the end of a strap is hammered, or sewn by hand, by a click, and as it was by another")
{
    Shown s;
    QTableWidget* table = seamsUnderTheFoot(s);
    const int row = table->rowCount() - 1;
    REQUIRE(table->item(row, 0)->text().startsWith("End of"));
    pick(table, row);
    s.settle();
    QToolButton* button = thinner(s);
    const QString before = table->item(row, 1)->text();
    emit button->menu()->aboutToShow();
    const QString leaves = entryOf(button, "Hammer")->text().section(" less, ", 1).section(" left", 0, 0);
    CHECK(leaves != before);
    take(button, "Hammer");
    s.settle();
    CHECK(table->item(row, 1)->text() == leaves);
    CHECK(entryOf(button, "Hammer")->isChecked());
    take(button, "Sew it by hand");
    s.settle();
    emit button->menu()->aboutToShow();
    CHECK(entryOf(button, "Sew it by hand")->isChecked());
    for (const char* back : {"Sew it by hand", "Hammer"}) {
        take(button, back);
        s.settle();
    }
    CHECK(table->item(row, 1)->text() == before);
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
