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

TEST_CASE("Dragged: other sizes follow when they are asked for; a drag that one of them cannot follow goes back to the "
          "last that all could")
{
    Shown s;
    Document& d = s.window.document();
    auto* message = s.find<QLabel>("refusal");
    const auto drag = [&](double mm) {
        return d.edit(
            "Width", [&](Design& next) { change::dimensionMm(next, "width", mm, "M"); }, "drag width");
    };
    // Of a seam along the width 250 mm stay open: S, with a width of its own, has the least left to sew.
    const Pattern* small = &d.patterns()[sizeIndex(d.design(), "S")];
    const auto along = std::find_if(small->seams.begin(), small->seams.end(), [&](const Seam& seam) {
        return seam.lengthA > 0.8 * small->width && seam.lengthA < 1.1 * small->width && seam.openEnd == 0;
    });
    REQUIRE(along != small->seams.end());
    const std::string seam = along->key.text();
    REQUIRE(d.edit("Open", [&](Design& next) { change::seamEnds(next, seam, {along->lengthA - 22, 0, {}}); }));
    const double stood = d.pattern().width, smallest = d.patterns()[0].width;
    REQUIRE(drag(stood - 1)); // S loses a millimetre as well: 21 mm are sewn
    CHECK(d.pattern().width == Approx(stood - 1));
    CHECK(d.patterns()[0].width == Approx(smallest - 1)); // asked for, so it is there
    REQUIRE(drag(stood - 10));                            // M could, S cannot
    CHECK(d.pattern().width == Approx(stood - 10));
    QTest::qWait(250);
    CHECK(d.pattern().width == Approx(stood - 1));
    CHECK(s.value("Width") == d.len(stood - 1));
    CHECK(message->isVisible());
    CHECK(message->text().contains("in size S"));
    CHECK_FALSE(drag(stood - 12)); // from here on every step looks at all sizes: nothing flickers
    CHECK(d.pattern().width == Approx(stood - 1));
    CHECK(drag(stood + 3));
    d.undoStack().undo(); // the whole drag is one step
    CHECK(d.pattern().width == Approx(stood));
    d.undoStack().redo();
    CHECK(d.pattern().width == Approx(stood + 3));
    // Taken back by hand before anybody looked at all sizes: what can be done again is what all could.
    d.undoStack().undo();
    REQUIRE(d.edit("Depth", [](Design& next) { change::dimensionMm(next, "depth", 121, "M"); }));
    REQUIRE(drag(stood - 1));
    static_cast<void>(d.patterns());
    REQUIRE(drag(stood - 10));
    d.undoStack().undo();
    CHECK(d.pattern().width == Approx(stood));
    d.undoStack().redo();
    CHECK(d.pattern().width == Approx(stood - 1));
    // Saved, or another size looked at: what was put off is done before.
    REQUIRE(drag(stood - 0.5));
    d.setSize(0);
    CHECK(d.pattern().width == Approx(smallest - 0.5));
}
