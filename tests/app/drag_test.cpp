// SPDX-License-Identifier: GPL-3.0-or-later
// While a hand drags, what is drawn follows at once and what the checks say soon after.
#include "driven.hpp"

using namespace tectonis;

TEST_CASE(
    "Dragged: pieces and docket follow each move, snags within a tenth of a second; a plain edit is judged at once")
{
    Shown s;
    Document& d = s.window.document();
    auto* snags = s.find<QPushButton>("snags");
    REQUIRE(snags->text().contains("No snags"));
    int changed = 0, judged = 0;
    std::vector<double> stood;
    for (const Pattern& p : d.patterns())
        stood.push_back(p.values.at("depth"));
    QObject::connect(&d, &Document::changed, [&] { ++changed; });
    QObject::connect(&d, &Document::judged, [&] { ++judged; });
    // A drag of the depth, as handles send it: the base board outgrows the turning opening.
    for (int mm = 121; mm <= 150; ++mm)
        REQUIRE(d.edit(
            "Depth", [&](Design& next) { change::dimensionMm(next, "depth", mm, "M"); }, "drag depth"));
    CHECK(changed == 30);
    CHECK(judged < 30);
    CHECK(d.pattern().values.at("depth") == Approx(150));
    CHECK(s.value("Depth") == "150 mm");
    for (std::size_t i = 0; i < d.patterns().size(); ++i) // every size is drafted with what is seen
        CHECK(d.patterns()[i].values.at("depth") == Approx(stood[i] + 30));
    QTest::qWait(200);
    CHECK(judged >= 1);
    CHECK(snags->text().contains("to mend"));
    CHECK_FALSE(d.findings().empty());
    // One step back takes the whole drag, and is judged at once.
    const int before = judged;
    d.undoStack().undo();
    CHECK(judged == before + 1);
    CHECK(snags->text().contains("No snags"));
    CHECK(s.value("Depth") == "120 mm");
    // What was put off is gone once something else was judged: nothing comes late.
    REQUIRE(d.edit(
        "Depth", [](Design& next) { change::dimensionMm(next, "depth", 150, "M"); }, "another drag"));
    CHECK(judged == before + 1);
    d.undoStack().undo();
    CHECK(judged == before + 2);
    QTest::qWait(200);
    CHECK(judged == before + 2);
}

TEST_CASE("Facts in the docket are filled where they are: an opened row stays open and shows the new working")
{
    Shown s;
    s.press(Qt::Key_2);
    auto* facts = s.find<QTreeWidget>("facts");
    QTreeWidgetItem* row = s.row("facts", "Stitch line");
    row->setExpanded(true);
    const QString was = row->text(1);
    Document& d = s.window.document();
    REQUIRE(d.edit("Width", [](Design& next) { change::dimension(next, "width", "360"); }));
    QTreeWidgetItem* now = s.row("facts", "Stitch line");
    CHECK(now == row);
    CHECK(now->text(1) != was);
    CHECK(now->isExpanded());
    CHECK(facts->topLevelItemCount() > 1);
    // Another piece has other rows.
    s.take("gusset");
    CHECK(s.find<QLabel>("docketTitle")->text().startsWith("C"));
}
