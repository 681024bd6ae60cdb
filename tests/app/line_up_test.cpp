// SPDX-License-Identifier: GPL-3.0-or-later
// Fittings by hand: parts line up while they are dragged, are moved by keys, mirrored from their menu.
#include "driven.hpp"

#include "bench.hpp"

#include <QMenu>

using namespace tectonis;

namespace {

double valueOf(Shown& s, const char* name) { return s.window.document().pattern().values.at(name); }

} // namespace

TEST_CASE("Fittings: a label lines up with the middle while it is dragged, says so and how far it is from each side; "
          "with Shift it does not; one undo takes the drag back")
{
    Shown s;
    s.window.document().edit("label", [](Design& d) {
        change::addPart(d, "label");
        change::dimension(d, "label.across", "40");
        change::choice(d, "label.site", "back");
        change::dimension(d, "label.drop", "100");
    });
    s.window.goTo(3);
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    QPoint from; // where the pointer becomes a hand over the label
    for (const QPoint at : gridOver(bench, 5)) {
        hover(bench, at);
        if (!from.isNull() || bench->cursor().shape() != Qt::OpenHandCursor)
            continue;
        QTest::mouseClick(bench, Qt::LeftButton, {}, at);
        if (s.window.document().pieceInHand() == PieceId(PartId("label")))
            from = at;
    }
    REQUIRE(!from.isNull());
    const double scale = (bench->onScreen({100, 0}) - bench->onScreen({0, 0})).x() / 100;
    const auto drag = [&](double mmLeft, Qt::KeyboardModifiers with, bool release) {
        QTest::mousePress(bench, Qt::LeftButton, with, from);
        for (int i = 1; i <= 5; ++i) {
            const QPoint at = from - QPoint(int(std::lround(mmLeft * scale * i / 5)), 0);
            QMouseEvent move(QEvent::MouseMove, at, bench->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, with);
            QCoreApplication::sendEvent(bench, &move);
        }
        s.settle();
        if (release)
            QTest::mouseRelease(bench, Qt::LeftButton, with, from);
        s.settle();
    };
    drag(38.5, {}, false); // 1.5 mm short of the middle
    CHECK(valueOf(s, "label.across") == 0);
    const auto says = [&](const QString& words) {
        for (const auto& label : bench->labels())
            if (label.label.text.contains(words))
                return true;
        return false;
    };
    CHECK(says("middle"));
    CHECK(says(" left · "));
    CHECK(says(" below"));
    QTest::mouseRelease(bench, Qt::LeftButton, {}, from);
    s.settle();
    CHECK(!says("middle"));
    CHECK(s.window.document().design().dimensions.at("label.across").value == "0");
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(valueOf(s, "label.across") == 40);
}

TEST_CASE("Fittings: arrow keys move the part in hand by 1 mm, with Shift by 10, with Ctrl by 0.1")
{
    Shown s;
    s.window.document().edit("label", [](Design& d) {
        change::addPart(d, "label");
        change::dimension(d, "label.across", "20");
    });
    s.window.goTo(3);
    s.take("label");
    auto* bench = s.find<Bench>("fittingsBench");
    bench->setFocus();
    const double drop = valueOf(s, "label.drop");
    QTest::keyClick(bench, Qt::Key_Right);
    CHECK(valueOf(s, "label.across") == Approx(21));
    QTest::keyClick(bench, Qt::Key_Left, Qt::ShiftModifier);
    CHECK(valueOf(s, "label.across") == Approx(11));
    QTest::keyClick(bench, Qt::Key_Down);
    CHECK(valueOf(s, "label.drop") == Approx(drop + 1));
    QTest::keyClick(bench, Qt::Key_Up, Qt::ControlModifier);
    CHECK(valueOf(s, "label.drop") == Approx(drop + 0.9));
}

TEST_CASE(
    "Fittings: a part's menu puts it in the middle, mirrors it and takes it out; in the middle mirroring is refused")
{
    Shown s;
    s.window.document().edit("label", [](Design& d) {
        change::addPart(d, "label");
        change::dimension(d, "label.across", "50");
    });
    s.window.goTo(3);
    s.take("label");
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    const auto pick = [&](Qt::Key mnemonic) {
        QTimer::singleShot(300, [&, mnemonic] {
            auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
            REQUIRE(menu);
            QTest::keyClick(menu, mnemonic);
        });
        QContextMenuEvent event(QContextMenuEvent::Keyboard, QPoint(5, 5), bench->mapToGlobal(QPoint(5, 5)));
        QCoreApplication::sendEvent(bench, &event);
        s.settle();
    };
    const auto labels = [&] {
        const auto& parts = s.window.document().design().features;
        return std::count_if(parts.begin(), parts.end(), [](const auto& f) { return f.kind == "label"; });
    };
    pick(Qt::Key_M); // mirror: the other follows
    CHECK(labels() == 2);
    CHECK(valueOf(s, "label2.across") == -50);
    s.take("label");
    pick(Qt::Key_T); // taken out: what followed it stays where it was
    CHECK(labels() == 1);
    CHECK(valueOf(s, "label2.across") == -50);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(labels() == 2);
    s.take("label");
    pick(Qt::Key_I);
    CHECK(valueOf(s, "label.across") == 0);
}
