// SPDX-License-Identifier: GPL-3.0-or-later
// Each form drafted from nothing by hand, as its first user would: click, drag, type, add a pocket and a flap, look at
// every stage.
#include "driven.hpp"

#include "bench.hpp"
#include "editing/edits.hpp"
#include "forms/form.hpp"
#include "qtext.hpp"

#include <QAction>

using namespace tectonis;

namespace {

/// A new design of a form, by the menu; it begins on Brief, wherever one was.
Document& choose(Shown& s, const std::string& form)
{
    s.press(Qt::Key_8);
    for (auto* action : s.window.findChildren<QAction*>())
        if (action->objectName() == "new." + text(form))
            action->trigger();
    QCoreApplication::processEvents();
    CHECK(s.window.stage() == 0);
    return s.window.document();
}

/// Adds a part by its drawing; the refusal's words, empty if it was taken.
QString addPart(Shown& s, const char* kind)
{
    QString said;
    const auto connection = QObject::connect(
        &s.window.document(), &Document::refused, &s.window, [&](const QString& m) { said = m; });
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    auto* button = s.find<QAbstractButton>((std::string("add.") + kind).c_str());
    if (!button->isEnabled())
        said = button->toolTip();
    QTest::mouseClick(button, Qt::LeftButton);
    if (auto* offer = s.window.findChild<QWidget*>("partOffer"))
        offer->close();
    QCoreApplication::processEvents();
    s.window.activateWindow();
    QCoreApplication::processEvents();
    QObject::disconnect(connection);
    return said;
}

/// Seams of all sizes agree and nothing stops the pattern from being cut.
void checkClean(const Document& document)
{
    for (const auto& p : document.patterns())
        for (const auto& seam : p.seams) {
            INFO("size " << p.size << ", " << seam.name << ": " << seam.lengthA << " / " << seam.lengthB);
            CHECK(std::abs(seam.difference()) < 0.01);
        }
    for (const auto& f : document.findings()) {
        INFO(words(f.subject) << ": " << words(f.text));
        CHECK(f.severity != Severity::Error);
    }
}

} // namespace

TEST_CASE(
    "From nothing: each form is clicked, dragged, typed over, given a pocket and a flap, and is clean in all stages")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        Shown s;
        Document& document = choose(s, form->id());
        checkClean(document);

        // Its first handle on the mock-up is dragged outwards: the dimension grows.
        auto* view = s.find<MockupView>("mockup");
        REQUIRE(!document.mockup().handles.empty());
        const std::string dragged = document.mockup().handles.front().dimension;
        const double before = document.pattern().values.at(dragged);
        const QPoint at = view->handleAt(dragged).toPoint();
        REQUIRE(view->rect().contains(at));
        drag(view, at, at + QPoint(at.x() >= view->width() / 2 ? 20 : -20, at.x() >= view->width() / 2 ? -4 : 0));
        INFO("dragged " << dragged << " from " << before << " to " << document.pattern().values.at(dragged));
        CHECK(document.pattern().values.at(dragged) != Approx(before));
        checkClean(document);

        // A pocket and a flap: taken, or refused with the reason.
        const bool faces = !form->sites().empty();
        for (const char* kind : {"slip-pocket", "flap"}) {
            INFO("adding " << kind);
            const std::size_t parts = document.design().features.size();
            const QString said = addPart(s, kind);
            INFO("said: " << said.toStdString());
            if (document.design().features.size() == parts)
                CHECK(said.size() > 30); // the reason in words
            else
                CHECK(said.isEmpty());
            if (faces && std::string(kind) == "slip-pocket")
                CHECK(document.design().features.size() == parts + 1);
        }
        checkClean(document);
        for (int key = Qt::Key_1; key <= Qt::Key_9; ++key) {
            s.press(Qt::Key(key));
            CHECK(!s.window.grab().isNull());
        }
    }
}

namespace {

/// Drags a handle by @p by in steps and checks that it does not run ahead of the pointer nor back. True if it is right
/// under it. It may be drawn to what it lines up with, @p lines px away.
template <class At> bool dragFollowed(
    Document& document, QWidget* w, const std::string& dimension, QPointF by, At handleAt, double lines = 0)
{
    const QPointF from = handleAt();
    if (!w->rect().adjusted(8, 8, -8, -8).contains(from.toPoint()))
        return false;
    const double before = document.pattern().values.at(dimension);
    const auto lieOn = [&] {
        std::vector<PieceId> out;
        for (const auto& h : document.pattern().handles)
            if (h.dimension == dimension)
                out.push_back(h.piece);
        return out;
    };
    const auto pieces = lieOn();
    QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 5; ++i) {
        const QPointF at = from.toPoint() + by * i / 5.0;
        QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(w, &move);
    }
    const QPointF now = handleAt(), wanted = from + by;
    const bool stayed = lieOn() == pieces; // not over a seam onto the next piece, which lies elsewhere
    // Along the arrow as far as the pointer; a range may end before, then it stays where it ends.
    INFO(dimension << " from " << from.x() << " " << from.y() << " to " << now.x() << " " << now.y() << ", pointer at "
                   << wanted.x() << " " << wanted.y() << "; value " << before << " to "
                   << document.pattern().values.at(dimension));
    const double along = QPointF::dotProduct(now - from, by) / std::hypot(by.x(), by.y()),
                 pulled = std::hypot(by.x(), by.y());
    if (stayed) {
        CHECK(along <= pulled + lines + 3);
        CHECK(along >= -lines - 1);
        if (std::abs(document.pattern().values.at(dimension) - before) > 1e-6)
            CHECK(along > 0.4 - lines);
    }
    QTest::mouseRelease(w, Qt::LeftButton, {}, (from + by).toPoint());
    QCoreApplication::processEvents();
    while (document.undoStack().canUndo() && std::abs(document.pattern().values.at(dimension) - before) > 1e-6)
        document.undoStack().undo();
    QCoreApplication::processEvents();
    return stayed && std::abs(along - pulled) < 3;
}

} // namespace

TEST_CASE("A handle that is dragged stays under the pointer: on the mock-up and on the pieces of every form")
{
    int followed = 0, under = 0;
    for (const Form* form : forms()) {
        INFO(form->id());
        Shown s;
        Document& document = choose(s, form->id());
        auto* view = s.find<MockupView>("mockup");
        for (std::size_t i = 0; i < document.mockup().handles.size(); ++i) {
            const MockupHandle h = document.mockup().handles[i];
            const QPointF arrow = view->handle(h.dimension).direction;
            const double n = std::hypot(arrow.x(), arrow.y());
            if (n < 0.05)
                continue; // it points at the viewer
            under += dragFollowed(
                document, view, h.dimension, arrow / n * 12, [&] { return view->handleAt(h.dimension); });
            ++followed;
        }
        s.press(Qt::Key_2);
        auto* bench = s.find<Bench>("draftBench");
        const auto handles = document.pattern().handles;
        for (const auto& h : handles) {
            document.takePiece(h.piece);
            QCoreApplication::processEvents();
            const QPointF arrow = bench->handle(h.dimension).direction;
            const double n = std::hypot(arrow.x(), arrow.y());
            if (n < 0.01)
                continue;
            under += dragFollowed(
                document, bench, h.dimension, arrow / n * 10, [&] { return bench->handle(h.dimension).at; });
            ++followed;
        }
    }
    // The parts' handles on their faces.
    for (const char* form : {"gusseted-satchel", "boxed-corner", "roll-top", "large-tote"}) {
        INFO(form);
        Shown s;
        Document& document = choose(s, form);
        for (const char* kind : {"patch-pocket", "zip-pocket", "label", "inset-zip"})
            document.edit("", [&](Design& d) { addFeature(d, kind); });
        s.press(Qt::Key_4);
        auto* bench = s.find<Bench>("fittingsBench");
        const auto handles = document.pattern().handles;
        for (const auto& h : handles) {
            if (bench->handle(h.dimension).dimension.empty())
                continue; // the body's are dragged in Draft
            const QPointF arrow = bench->handle(h.dimension).direction;
            under += dragFollowed(
                document, bench, h.dimension, arrow / std::hypot(arrow.x(), arrow.y()) * 8,
                [&] { return bench->handle(h.dimension).at; }, 6);
            ++followed;
        }
    }
    CHECK(followed > 80);
    CHECK(under > 0.8 * followed); // the others ended at their range
}

TEST_CASE("The trial asks only for what the bag has: no strap, no zip on a flat pouch; both on the satchel")
{
    const auto asked = [](Shown& s) {
        s.press(Qt::Key_9);
        QStringList names;
        auto* table = s.find<QTableWidget>("trials");
        for (int r = 0; r < table->rowCount(); ++r)
            if (!table->isRowHidden(r))
                names << table->verticalHeaderItem(r)->text();
        return names;
    };
    Shown satchel;
    CHECK(asked(satchel).contains("Strap, longest"));
    CHECK(asked(satchel).contains("Zip opening"));
    Shown pouch;
    choose(pouch, "flat-pouch");
    CHECK_FALSE(asked(pouch).contains("Strap, longest"));
    CHECK_FALSE(asked(pouch).contains("Zip opening"));
    CHECK(asked(pouch).contains("Finished width"));
}

TEST_CASE("A label goes onto a pocket's flap by the docket's choice, which offers faces of parts as they come and go")
{
    Shown s;
    choose(s, "large-tote");
    CHECK(addPart(s, "patch-pocket").isEmpty());
    CHECK(addPart(s, "label").isEmpty());
    s.settle(); // the fields of before are gone
    auto* on = s.find<QComboBox>("choice.label.site");
    auto* lid = s.find<QComboBox>("choice.patch.lid");
    const auto pick = [&](QComboBox* combo, const QString& row, Qt::Key key) {
        s.row("dimensions", row)->parent()->setExpanded(true);
        combo->setFocus();
        QTest::keyClick(combo, key);
        QCoreApplication::processEvents();
    };
    CHECK(on->findText("Patch pocket") >= 0);
    CHECK(on->findText("Pocket flap") < 0); // there is none yet
    pick(lid, "Pocket height", Qt::Key_Down);
    CHECK(on->findText("Pocket flap") >= 0);
    s.type("Flap length", "45");
    pick(on, "Label width", Qt::Key_End); // it is the last that there is
    CHECK(on->currentText() == "Pocket flap");
    // 25 mm of label have no room there: it is made lower, and that is told.
    const QString besides = s.find<QLabel>("bannerText")->text();
    INFO(besides.toStdString());
    CHECK(besides.contains("Label height: min(25, max(face.height - 30, min(15, 0.6*face.height))) instead of 25 mm"));
    CHECK(s.window.document().pattern().values.at("label.height") == Approx(15));
    checkClean(s.window.document());
    // The order tells it where it is done.
    s.window.goTo(5);
    QCoreApplication::processEvents();
    auto* steps = s.find<QListWidget>("steps");
    QStringList told;
    for (int i = 0; i < steps->count(); ++i)
        told << steps->item(i)->text();
    const QString all = told.join("\n");
    INFO(all.toStdString());
    CHECK(all.contains("Sew the label onto the pocket flap"));
    CHECK(all.indexOf("Sew the label onto the pocket flap") < all.indexOf("Stitch the pocket's flap on"));
    // Without the flap it lies where the pocket lies.
    s.window.goTo(0);
    pick(lid, "Pocket height", Qt::Key_Up);
    CHECK(on->currentText() == "Front");
    CHECK(on->findText("Pocket flap") < 0);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(on->currentText() == "Pocket flap");
}
