// SPDX-License-Identifier: GPL-3.0-or-later
// Layers with shapes of their own, moved and pulled larger in the drawing of the layers pulled apart.
#include "driven.hpp"

using namespace tectonis;

namespace {

struct BuildUp : Shown {
    QWidget* apart = nullptr;
    QTableWidget* matrix = nullptr;
    int row = -1;

    explicit BuildUp(const char* shape)
    {
        take("front");
        press(Qt::Key_3);
        matrix = find<QTableWidget>("layers");
        for (auto* w : window.findChildren<QWidget*>())
            if (w->accessibleName() == "Layers of the piece in hand, pulled apart" && w->isVisible())
                apart = w;
        REQUIRE(apart);
        for (int r = 0; r < matrix->rowCount(); ++r)
            if (matrix->item(r, 0)->text().startsWith("A  Front"))
                row = r;
        REQUIRE(row >= 0);
        QTest::mouseClick(
            matrix->viewport(), Qt::LeftButton, {}, matrix->visualItemRect(matrix->item(row, 2)).center());
        for (auto* b : window.findChildren<QComboBox*>())
            if (b->accessibleName() == "Shape") {
                b->lineEdit()->setFocus();
                b->lineEdit()->selectAll();
                QTest::keyClicks(b->lineEdit(), shape);
                QTest::keyClick(b->lineEdit(), Qt::Key_Return);
            }
        settle();
        apart->grab(); // painted: it knows where its layers lie
    }
    QString told() const { return matrix->item(row, 2)->text(); }
    /// Where the pointer turns to a shape over the drawing.
    QPoint where(Qt::CursorShape cursor)
    {
        QPoint sum;
        int n = 0;
        for (const QPoint at : gridOver(apart, 2)) {
            hover(apart, at);
            if (apart->cursor().shape() == cursor)
                sum += at, ++n;
        }
        if (n == 0)
            return {-1, -1};
        // The nearest one to their middle.
        QPoint best;
        double least = 1e9;
        for (const QPoint at : gridOver(apart, 2)) {
            hover(apart, at);
            if (const QPoint d = at - sum / n;
                apart->cursor().shape() == cursor && d.x() * d.x() + d.y() * d.y() < least)
                best = at, least = d.x() * d.x() + d.y() * d.y();
        }
        return best;
    }
    Run outline() { return window.document().pattern().piece("front")->layers.front().outline; }
};

} // namespace

TEST_CASE("Build-up: a patch is moved in the drawing, and pulled wider at an edge; one drag is one undo")
{
    BuildUp s("patch 80 x 60 at 0 100");
    REQUIRE(s.told().contains("80 mm × 60 mm"));
    const Box before = boundsOf(s.outline());
    const QPoint middle = s.where(Qt::SizeAllCursor);
    REQUIRE(middle.x() > 0);
    drag(s.apart, middle, middle + QPoint(30, 0));
    const Box moved = boundsOf(s.outline());
    CHECK(moved.centre().x > before.centre().x + 5);
    CHECK(moved.centre().y == Approx(before.centre().y).margin(0.6));
    CHECK(moved.width() == Approx(80));
    CHECK(s.told().contains("80 mm × 60 mm"));
    s.window.document().undoStack().undo();
    CHECK(boundsOf(s.outline()).centre().x == Approx(before.centre().x));

    s.apart->grab();
    // Its right or left edge: the one across from it stays.
    const QPoint edge = s.where(Qt::SizeHorCursor);
    REQUIRE(edge.x() > 0);
    const Box whole = boundsOf(s.outline());
    QPoint right;
    for (const QPoint at : gridOver(s.apart, 2)) {
        hover(s.apart, at);
        if (s.apart->cursor().shape() == Qt::SizeHorCursor && at.x() > right.x())
            right = at;
    }
    drag(s.apart, right, right + QPoint(20, 0));
    const Box wider = boundsOf(s.outline());
    CHECK(wider.x0 == Approx(whole.x0).margin(0.3));
    CHECK(wider.x1 > whole.x1 + 3);
    CHECK(wider.height() == Approx(whole.height()));
    CHECK(std::abs(wider.width() * 2 - std::round(wider.width() * 2)) < 0.01); // whole half millimetres
}

TEST_CASE("Build-up: a strip is pulled wider, a drawn outline by its points; a layer of the whole piece stays")
{
    BuildUp strip("strip 40 along top");
    const double was = areaOf(strip.outline());
    QPoint low;
    for (const QPoint at : gridOver(strip.apart, 2)) {
        hover(strip.apart, at);
        if (strip.apart->cursor().shape() == Qt::SizeVerCursor && at.y() > low.y())
            low = at;
    }
    REQUIRE(low.y() > 0);
    drag(strip.apart, low, low + QPoint(0, 8));
    CHECK(areaOf(strip.outline()) > was * 1.1);

    BuildUp drawn("drawn -40,20 40,20 40,90 -40,90");
    const Run before = drawn.outline();
    const QPoint point = drawn.where(Qt::CrossCursor);
    REQUIRE(point.x() > 0);
    QPoint corner;
    for (const QPoint at : gridOver(drawn.apart, 2)) {
        hover(drawn.apart, at);
        if (drawn.apart->cursor().shape() == Qt::CrossCursor && at.x() > corner.x())
            corner = at;
    }
    drag(drawn.apart, corner, corner + QPoint(14, 0));
    const Run after = drawn.outline();
    CHECK(areaOf(after) > areaOf(before));
    CHECK(boundsOf(after).x0 == Approx(boundsOf(before).x0)); // the other points stay

    BuildUp whole("");
    const Run same = whole.outline();
    drag(whole.apart, {60, whole.apart->height() / 2}, {100, whole.apart->height() / 2});
    CHECK(areaOf(whole.outline()) == Approx(areaOf(same)));
}

TEST_CASE("Build-up: every shape that is offered for a layer is drawn as it says, the piece behind among them")
{
    BuildUp s("patch 60 x 60 at 0 50%");
    QComboBox* shapes = nullptr;
    for (auto* b : s.window.findChildren<QComboBox*>())
        if (b->accessibleName() == "Shape")
            shapes = b;
    REQUIRE(shapes);
    QStringList offered;
    for (int i = 1; i < shapes->count(); ++i)
        offered << shapes->itemText(i);
    CHECK(offered.filter("drawn").size() == 1);
    CHECK(offered.contains("as lining.front less 3"));
    std::set<double> areas;
    for (const QString& shape : offered) {
        INFO(shape.toStdString());
        shapes->lineEdit()->setFocus();
        shapes->lineEdit()->selectAll();
        QTest::keyClicks(shapes->lineEdit(), shape);
        QTest::keyClick(shapes->lineEdit(), Qt::Key_Return);
        s.settle();
        const Piece& front = *s.window.document().pattern().piece("front");
        REQUIRE(!front.layers.empty());
        areas.insert(areaOf(front.layers.front().outline));
        CHECK(front.layers.front().rule >= 0);
        CHECK(s.find<QLabel>("refusal")->isHidden());
    }
    // Both lower corners are of one size, so are strips along sides of one length.
    CHECK(areas.size() >= 6);
}
