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

namespace {

/// Presses at @p from, moves by @p by in steps, and says what stands at the pointer before it lets go.
QStringList dragged(Shown& s, Bench* bench, QPoint from, QPoint by, int steps = 6)
{
    QTest::mousePress(bench, Qt::LeftButton, {}, from);
    for (int i = 1; i <= steps; ++i) {
        const QPoint at = from + by * i / steps;
        QMouseEvent move(QEvent::MouseMove, at, bench->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(bench, &move);
    }
    s.settle();
    QStringList out;
    for (const auto& label : bench->labels())
        out << label.label.text;
    QTest::mouseRelease(bench, Qt::LeftButton, {}, from + by);
    s.settle();
    return out;
}

bool says(const QStringList& labels, const char* words)
{
    return std::any_of(labels.begin(), labels.end(), [&](const QString& l) { return l.contains(words); });
}

} // namespace

TEST_CASE("Fittings: an inset zip is taken hold of itself: it lines up with half the height, goes onto the other face, "
          "keys move it")
{
    Shown s;
    choose(s, "separate-base");
    Document& doc = s.window.document();
    doc.edit("zip", [](Design& d) {
        change::addPart(d, "inset-zip");
        change::dimension(d, "inset.drop", "120");
    });
    s.press(Qt::Key_4);
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    const double scale = (bench->onScreen({100, 0}) - bench->onScreen({0, 0})).x() / 100;
    // The zip lies in the gap below the upper part, which has the handle, above the lower one.
    const QPointF end = bench->handle("inset.drop").at;
    QPoint zip;
    for (int y = 4; y < 80 && zip.isNull(); y += 2) {
        const QPoint at = (end + QPointF(-40, y)).toPoint();
        hover(bench, at);
        if (bench->cursor().shape() == Qt::OpenHandCursor)
            zip = at;
    }
    REQUIRE(!zip.isNull());
    zip.ry() += 2;
    const double half = doc.pattern().site(std::string("front"))->height / 2;
    const auto labels = dragged(s, bench, zip, QPoint(0, int(std::lround((half - 120 - 3) * scale))));
    CHECK(valueOf(s, "inset.drop") == Approx(half));
    CHECK(doc.design().dimensions.at("inset.drop").value == "face.height/2");
    CHECK(says(labels, "half the height"));
    CHECK(says(labels, " above"));
    for (const auto& p : draftAll(doc.design()))
        CHECK(p.values.at("inset.drop") == Approx(p.site(std::string("front"))->height / 2));
    const double drop = valueOf(s, "inset.drop");
    bench->setFocus();
    QTest::keyClick(bench, Qt::Key_Up);
    CHECK(valueOf(s, "inset.drop") == Approx(drop - 1));
    // Up over the gap onto the upper part at once, as far as the pointer goes.
    const QPoint here = zip + QPoint(0, int(std::lround((drop - 1 - 120) * scale)));
    dragged(s, bench, here, QPoint(0, -int(std::lround(75 * scale))), 1);
    CHECK(valueOf(s, "inset.drop") == Approx(drop - 76).margin(6 / scale + 1));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    REQUIRE(valueOf(s, "inset.drop") == Approx(drop - 1));
    // Onto the back: its other handle shows where that lies.
    const Pattern before = doc.pattern();
    const QPoint now = zip + QPoint(0, int(std::lround((drop - 1 - 120) * scale)));
    QPoint back;
    for (int x = 0; x < bench->width() && back.isNull(); x += 12) {
        QTest::mouseClick(bench, Qt::LeftButton, {}, QPoint(x, now.y()));
        if (doc.pieceInHand() == PieceId("back"))
            back = QPoint(x + 24, now.y());
    }
    REQUIRE(!back.isNull());
    dragged(s, bench, now, back - now);
    CHECK(doc.design().choices.at("inset.site") == "back");
    CHECK(doc.pattern().piece("back.lower"));
    CHECK(doc.pattern().piece("front"));
    CHECK(doc.pieceInHand() == PieceId("back.lower"));
}

TEST_CASE("Fittings: a snap lines up with the middle, both its halves; one undo")
{
    Shown s;
    Document& doc = s.window.document(); // the satchel: a snap under its flap
    doc.edit("across", [](Design& d) { change::dimension(d, "snap.across", "30"); });
    s.press(Qt::Key_4);
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    const auto scale = [&] { return (bench->onScreen({100, 0}) - bench->onScreen({0, 0})).x() / 100; };
    const auto at = [&](const char* handle) { return bench->handle(handle).at.toPoint(); };
    auto labels = dragged(s, bench, at("snap.across"), QPoint(-int(std::lround(27 * scale())), 0));
    CHECK(valueOf(s, "snap.across") == 0);
    CHECK(doc.design().dimensions.at("snap.across").value == "0");
    CHECK(says(labels, "middle"));
    CHECK(says(labels, " left · "));
    // Both halves moved.
    for (const auto& f : doc.pattern().fittings)
        if (f.owner() == PartId("snap"))
            CHECK(std::abs(f.at.x - boundsOf(doc.pattern().piece(f.piece)->stitch()).centre().x) < 0.01);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(valueOf(s, "snap.across") == 30);
}

TEST_CASE("Fittings: riveted rings move as a pair, handles by their ends, feet by keys")
{
    Shown s;
    choose(s, "separate-base");
    Document& doc = s.window.document();
    doc.edit("rivets", [](Design& d) {
        while (!d.features.empty())
            change::removePart(d, d.features.back().id);
        change::addPart(d, "connectors");
        change::choice(d, "connectors.held", "riveted");
        change::choice(d, "connectors.site", "back");
        change::addPart(d, "handles");
        change::addPart(d, "feet");
        change::addPart(d, "label");
        change::choice(d, "label.site", "back");
        change::dimension(d, "label.drop", "130");
    });
    s.press(Qt::Key_4);
    s.settle();
    auto* bench = s.find<Bench>("fittingsBench");
    const auto scale = [&] { return (bench->onScreen({100, 0}) - bench->onScreen({0, 0})).x() / 100; };
    const auto at = [&](const char* handle) { return bench->handle(handle).at.toPoint(); };
    // Inwards by 12 mm: the other ring as far.
    const double inset = valueOf(s, "connectors.inset");
    const auto middle = [&] {
        double sum = 0;
        for (const auto& f : doc.pattern().fittings)
            if (f.kind == Fitting::Kind::Ring)
                sum += f.at.x;
        return sum / 2;
    };
    const double x = middle();
    const double way = bench->handle("connectors.inset").direction.x();
    dragged(s, bench, at("connectors.inset"), QPoint(int(std::lround((way > 0 ? 14 : -14) * scale())), 0));
    CHECK(valueOf(s, "connectors.inset") > inset + 5);
    CHECK(middle() == Approx(x).margin(0.01));
    // Handles: apart by twice as much.
    const double spread = valueOf(s, "handles.spread");
    const double out = bench->handle("handles.spread").direction.x();
    dragged(s, bench, at("handles.spread"), QPoint(int(std::lround((out > 0 ? 11 : -11) * scale())), 0));
    CHECK(valueOf(s, "handles.spread") > spread + 8);
    // A foot by keys: both ways it is as far in.
    const QPoint foot = at("feet.inset");
    QTest::mouseClick(bench, Qt::LeftButton, {}, foot);
    bench->setFocus();
    const double feet = valueOf(s, "feet.inset");
    QTest::keyClick(bench, Qt::Key_Right);
    const double once = valueOf(s, "feet.inset");
    CHECK(std::abs(std::abs(once - feet) - 1) < 0.01);
    QTest::keyClick(bench, Qt::Key_Left);
    CHECK(valueOf(s, "feet.inset") == Approx(feet).margin(0.01));
}
