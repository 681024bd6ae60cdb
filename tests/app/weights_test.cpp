// SPDX-License-Identifier: GPL-3.0-or-later
// What things weigh is typed on Brief; Fittings tells what the strap carries.
#include "driven.hpp"

using namespace tectonis;

TEST_CASE("Brief: a thing's weight is typed in its row; the strap's facts follow; what is no weight is refused")
{
    Shown s;
    s.window.goTo(0);
    auto* table = s.find<QTableWidget>("carried");
    REQUIRE(table->horizontalHeaderItem(6)->text() == "Weight");
    const auto enter = [&](int row, const QString& typed) {
        table->scrollToItem(table->item(row, 6));
        QCoreApplication::processEvents();
        QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(row, 6)).center());
        QCoreApplication::processEvents();
        s.keys(typed);
        QTest::keyClick(s.focus(), Qt::Key_Return);
        s.settle();
    };
    const auto carried = [&] {
        s.window.goTo(3);
        QString out;
        auto* facts = s.find<QTreeWidget>("facts");
        for (int g = 0; g < facts->topLevelItemCount(); ++g)
            for (int i = 0; i < facts->topLevelItem(g)->childCount(); ++i)
                if (facts->topLevelItem(g)->child(i)->text(0) == "Weight carried")
                    out = facts->topLevelItem(g)->child(i)->text(1);
        s.window.goTo(0);
        return out.section(' ', 0, 0).toDouble();
    };
    const double before = s.window.document().design().carried[0].weight, all = carried();
    enter(0, "1.5 kg");
    CHECK(table->item(0, 6)->text() == "1500 g");
    CHECK(carried() == Approx(all + 1500 - before).margin(1));
    enter(0, "heavy");
    CHECK(table->item(0, 6)->text() == "1500 g"); // as it was
    s.window.document().undoStack().undo();
    CHECK(s.window.document().design().carried[0].weight == before);
}
