// SPDX-License-Identifier: GPL-3.0-or-later
// By hand: a label dragged onto a gusset, where it stands upright; the marker of a run of bags.
#include "driven.hpp"

#include "bench.hpp"
#include "units/length.hpp"

#include <QComboBox>
#include <QTableWidget>

using namespace tectonis;

TEST_CASE("Fittings: a label is dragged onto a gusset's side, which stands upright; keys move it there; one undo")
{
    Shown s;
    Document& doc = s.window.document();
    doc.edit("label", [](Design& d) {
        change::addPart(d, "label");
        change::choice(d, "label.site", "back");
        change::dimension(d, "label.drop", "100");
        change::dimension(d, "label.width", "40");
    });
    s.window.goTo(3);
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    // In the middle of what a click on takes it in hand; @p part: what the pointer becomes a hand over.
    const auto where = [&](const PieceId& wanted, bool part) {
        std::vector<QPoint> hits;
        for (const QPoint at : gridOver(bench, part ? 6 : 24)) {
            hover(bench, at);
            if ((bench->cursor().shape() == Qt::OpenHandCursor) != part)
                continue;
            doc.takePiece("front"); // a click beside all faces leaves in hand what was
            QTest::mouseClick(bench, Qt::LeftButton, {}, at);
            if (doc.pieceInHand() == wanted)
                hits.push_back(at);
        }
        REQUIRE(!hits.empty());
        QPoint sum;
        for (const QPoint at : hits)
            sum += at;
        return sum / int(hits.size());
    };
    const QPoint from = where(PieceId(PartId("label")), true), to = where("gusset", false);
    // It stands upright: taller than it is wide.
    QPoint low = to, side = to;
    const auto isGusset = [&](QPoint at) {
        doc.takePiece("front");
        QTest::mouseClick(bench, Qt::LeftButton, {}, at);
        return doc.pieceInHand() == "gusset";
    };
    while (isGusset(low))
        low.ry() += 4;
    while (isGusset(side))
        side.rx() += 4;
    CHECK(low.y() - to.y() > 1.5 * (side.x() - to.x()));
    CHECK(doc.pattern().piece("gusset")->count == 2);
    drag(bench, from, to - QPoint(0, 10));
    s.settle();
    CHECK(doc.design().choices.at("label.site") == "left");
    REQUIRE(doc.pattern().piece("gusset.right"));
    CHECK(doc.pattern().piece("gusset")->count == 1);
    // Up is nearer to the mouth, right is across.
    const auto value = [&](const char* name) { return doc.pattern().values.at(name); };
    const double drop = value("label.drop"), across = value("label.across");
    bench->setFocus();
    QTest::keyClick(bench, Qt::Key_Up);
    CHECK(value("label.drop") == Approx(drop - 1));
    QTest::keyClick(bench, Qt::Key_Right);
    CHECK(value("label.across") == Approx(across + 1));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(doc.design().choices.at("label.site") == "back");
    CHECK(doc.pattern().piece("gusset")->count == 2);
}

TEST_CASE("Cut: the marker is one bag's or the run's, as the list below it says; without a run there is no choice")
{
    Shown s;
    s.press(Qt::Key_7);
    auto* of = s.find<QComboBox>("markerFor");
    CHECK(of->count() == 1);
    CHECK_FALSE(of->isEnabled());
    s.window.document().edit("run", [](Design& d) { change::run(d, "S", 2), change::run(d, "M", 3); });
    s.settle();
    REQUIRE(of->count() == 2);
    auto* materials = s.find<QTableWidget>("markers");
    auto* pieces = s.find<QTableWidget>("cutList");
    const auto used = [&] { return parseLength(materials->item(0, 2)->text().toStdString()); };
    const double one = used();
    const int rows = pieces->rowCount();
    of->setFocus();
    QTest::keyClick(of, Qt::Key_Down);
    s.settle();
    CHECK(of->currentText().contains("S 2"));
    CHECK(of->currentText().contains("M 3"));
    CHECK(used() > 2.5 * one);
    CHECK(used() < 5 * one);
    CHECK(pieces->rowCount() == 2 * rows); // of both sizes
    CHECK(materials->item(materials->rowCount() - 1, 0)->text().contains("S 2"));
    // A change keeps it; back to one bag.
    s.window.document().edit("wider", [](Design& d) { change::dimension(d, "width", "340"); });
    s.settle();
    CHECK(of->currentText().contains("S 2"));
    QTest::keyClick(of, Qt::Key_Up);
    s.settle();
    CHECK(pieces->rowCount() == rows);
}
