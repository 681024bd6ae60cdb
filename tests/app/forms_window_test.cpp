// SPDX-License-Identifier: GPL-3.0-or-later
// Forms and parts chosen by drawing in the Brief, as a new user would.
#include "driven.hpp"

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"

#include <QSlider>

using namespace tectonis;

TEST_CASE("Every form is drafted by a click on its drawing; all nine stages show it; undo brings the satchel back")
{
    Shown s;
    s.press(Qt::Key_1);
    const std::string before = s.window.document().design().form;
    for (const Form* form : forms()) {
        INFO(form->id());
        auto* button = s.find<QAbstractButton>(("form." + form->id()).c_str());
        s.clickForm(form->id());
        CHECK(s.window.document().design().form == form->id());
        CHECK(button->isChecked());
        for (int key = Qt::Key_1; key <= Qt::Key_9; ++key) {
            s.press(Qt::Key(key));
            CHECK(!s.window.grab().isNull());
        }
        s.press(Qt::Key_1);
        // Its first dimension is there to be typed over.
        const auto& spec = s.window.document().spec().dimensions.front();
        CHECK(!s.value(QString::fromStdString(spec.label)).isEmpty());
    }
    while (s.window.document().undoStack().canUndo())
        s.window.document().undoStack().undo();
    CHECK(s.window.document().design().form == before);
}

TEST_CASE("A part is added from the drawn offer and taken out by its chip; undo restores it")
{
    Shown s;
    s.press(Qt::Key_1);
    const std::size_t before = s.window.document().design().features.size();
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    auto* offer = s.find<QAbstractButton>("add.handles");
    QTest::mouseClick(offer, Qt::LeftButton);
    QCoreApplication::processEvents();
    s.window.activateWindow(); // the offscreen platform does not give the focus back when a popup closes
    QCoreApplication::processEvents();
    CHECK(s.window.document().design().features.size() == before + 1);
    CHECK(s.window.document().pattern().piece("handles") != nullptr);
    CHECK(s.value("Handle drop") == "220 mm");
    s.type("Handle drop", "180");
    CHECK(s.value("Handle drop") == "180 mm");
    CHECK(s.window.document().undoStack().count() == 2);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.value("Handle drop") == "220 mm");
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.window.document().design().features.size() == before);
    // A part that the form cannot carry is refused in words, and nothing changes.
    s.clickForm("circle-pouch");
    QCoreApplication::processEvents();
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    const std::size_t carried = s.window.document().design().features.size();
    auto* dim = s.find<QAbstractButton>("add.handles");
    CHECK_FALSE(dim->isEnabled());
    CHECK(dim->toolTip().contains("face"));
    QTest::mouseClick(dim, Qt::LeftButton);
    QCoreApplication::processEvents();
    CHECK(s.window.document().design().features.size() == carried);
    s.find<QWidget>("partOffer")->close();
}

TEST_CASE("The seam ledger lists every seam with both runs; picking one says both lengths; walking rolls the mate")
{
    Shown s;
    s.press(Qt::Key_2);
    auto* ledger = s.find<QTableWidget>("ledger");
    CHECK(!ledger->isVisible());
    QTest::mouseClick(s.find<QPushButton>("ledgerButton"), Qt::LeftButton);
    QCoreApplication::processEvents();
    REQUIRE(ledger->isVisible());
    const Pattern& p = s.window.document().pattern();
    REQUIRE(ledger->rowCount() == int(p.seams.size()));
    for (int r = 0; r < ledger->rowCount(); ++r) {
        CHECK(ledger->item(r, 2)->text() == s.window.document().len(p.seams[std::size_t(r)].lengthA));
        CHECK(ledger->item(r, 6)->text() == "none");
    }
    ledger->setCurrentCell(1, 0);
    QCoreApplication::processEvents();
    CHECK(s.find<QLabel>("seamReadout")->text().contains(ledger->item(1, 2)->text()));
    auto* bench = s.find<QWidget>("draftBench");
    const QImage before = bench->grab().toImage();
    s.find<QSlider>("walk")->setValue(400);
    QCoreApplication::processEvents();
    CHECK(bench->grab().toImage() != before);
    // What is left open at a seam's start is typed into its row; the stop squares follow, undo takes it back.
    const int row = [&] {
        for (int r = 0; r < ledger->rowCount(); ++r)
            if (ledger->item(r, 0)->text() == "Front to gusset")
                return r;
        return -1;
    }();
    REQUIRE(row >= 0);
    ledger->setCurrentCell(row, 8);
    ledger->editItem(ledger->item(row, 8));
    auto* editor = ledger->findChild<QLineEdit*>();
    REQUIRE(editor);
    editor->selectAll();
    QTest::keyClicks(editor, "35");
    QTest::keyClick(editor, Qt::Key_Return);
    QCoreApplication::processEvents();
    CHECK(ledger->item(row, 8)->text() == "35 mm");
    CHECK(s.window.document().pattern().seam("front-gusset")->openStart == Approx(35));
    s.window.document().undoStack().undo();
    QCoreApplication::processEvents();
    CHECK(ledger->item(row, 8)->text() == "0 mm");
    // All sizes, one below the other; a row of another size is typed into as well.
    s.find<QCheckBox>("ledgerSizes")->click();
    QCoreApplication::processEvents();
    const auto& sizes = s.window.document().patterns();
    REQUIRE(ledger->rowCount() == int(sizes.front().seams.size() * sizes.size()));
    for (int r = 0; r < ledger->rowCount(); ++r) {
        const Pattern& size = sizes[std::size_t(r) % sizes.size()];
        const Seam& seam = size.seams[std::size_t(r) / sizes.size()];
        CHECK(ledger->item(r, 0)->text() == QString::fromStdString(size.size + "  " + words(seam.name)));
        CHECK(ledger->item(r, 4)->text() == s.window.document().len(seam.lengthB));
    }
    ledger->setCurrentCell(3 * row + 2, 9);
    ledger->editItem(ledger->item(3 * row + 2, 9));
    editor = ledger->findChild<QLineEdit*>();
    REQUIRE(editor);
    editor->selectAll();
    QTest::keyClicks(editor, "20");
    QTest::keyClick(editor, Qt::Key_Return);
    QCoreApplication::processEvents();
    for (int k = 0; k < 3; ++k)
        CHECK(ledger->item(3 * row + k, 9)->text() == "20 mm");
    s.window.document().undoStack().undo();
    s.find<QCheckBox>("ledgerSizes")->click();
    QCoreApplication::processEvents();
    CHECK(ledger->rowCount() == int(s.window.document().pattern().seams.size()));
    // Lengths follow the unit.
    s.window.document().setUnit(Unit::Inch);
    QCoreApplication::processEvents();
    CHECK(ledger->item(1, 2)->text().endsWith(" in"));
}

TEST_CASE("On the faces a part shows the hand, is dragged onto another face, and Delete takes it out")
{
    Shown s;
    s.press(Qt::Key_4);
    Document& d = s.window.document();
    auto* bench = s.find<QWidget>("fittingsBench");
    // As a user looks for it: where the pointer becomes a hand, the slip pocket can be taken hold of.
    QPoint pocket, front;
    for (const QPoint at : gridOver(bench, 10)) {
        hover(bench, at);
        const bool part = bench->cursor().shape() == Qt::OpenHandCursor;
        s.take("gusset"); // so that a click beside all faces is told from one on them
        QTest::mouseClick(bench, Qt::LeftButton, {}, at);
        if (part && pocket.isNull() && d.pieceInHand() == "slip")
            pocket = at;
        if (!part && front.isNull() && d.pieceInHand() == "front")
            front = at + QPoint(20, 20);
    }
    REQUIRE(!pocket.isNull());
    REQUIRE(!front.isNull());
    CHECK(d.design().choices.at("slip.site") == "lining front");
    const int edits = d.undoStack().count();
    drag(bench, pocket, front);
    CHECK(d.design().choices.at("slip.site") == "front");
    CHECK(d.undoStack().count() == edits + 1); // one drag, one step back
    CHECK(d.pattern().piece("slip")->coat == Coat::Shell);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.design().choices.at("slip.site") == "lining front");
    // Sideways on its own face: the docket says by how much.
    drag(bench, pocket, pocket + QPoint(12, 0));
    CHECK(d.pattern().values.at("slip.across") > 5);
    CHECK(d.design().choices.at("slip.site") == "lining front");
    s.take("slip");
    s.press(Qt::Key_Delete);
    CHECK(d.pattern().piece("slip") == nullptr);
    CHECK(std::none_of(
        d.design().features.begin(), d.design().features.end(), [](const Feature& f) { return f.id == "slip"; }));
    // A piece of the body is no part: Delete leaves it.
    s.take("front");
    const Design before = d.design();
    s.press(Qt::Key_Delete);
    CHECK(d.design() == before);
}

TEST_CASE("The mock-up is opened, pulled apart, shows its lining alone and is worn; its words say the drop")
{
    Shown s;
    s.press(Qt::Key_1);
    auto* view = s.find<MockupView>("mockup");
    const auto picture = [&] {
        QCoreApplication::processEvents();
        return view->grab().toImage();
    };
    const QImage plain = picture();
    const QPointF handle = view->handleAt("width");
    CHECK(!handle.isNull());
    std::vector<QImage> seen{plain};
    const auto differs = [&] {
        const QImage now = picture();
        const bool unseen = std::none_of(seen.begin(), seen.end(), [&](const QImage& i) { return i == now; });
        seen.push_back(now);
        return unseen;
    };
    s.find<QCheckBox>("look.open")->click();
    CHECK(differs());
    s.find<QCheckBox>("look.lining")->click();
    CHECK(differs());
    // Picking what is seen picks a piece of the lining.
    std::string picked;
    for (const QPoint at : gridOver(view, 40))
        if (const std::string piece = view->pieceAt(at).text(); piece.starts_with("lining."))
            picked = piece;
    CHECK(!picked.empty());
    s.find<QCheckBox>("look.lining")->click();
    s.find<QCheckBox>("look.open")->click();
    s.find<QSlider>("look.apart")->setValue(70);
    CHECK(differs());
    CHECK(view->handleAt("width").isNull()); // nothing to drag on loose pieces
    s.find<QSlider>("look.apart")->setValue(0);
    s.find<QComboBox>("look.person")->setCurrentIndex(3);
    CHECK(differs());
    s.find<QComboBox>("look.person")->setCurrentIndex(0);
    CHECK(picture() == plain);
}

TEST_CASE("A hip bag's angle is typed and shown in degrees, whatever the unit")
{
    Shown s;
    s.press(Qt::Key_1);
    s.clickForm("polygon");
    QCoreApplication::processEvents();
    CHECK(s.value("Angle 2") == "120°");
    // The face follows the outline: the pocket that came along must leave it room.
    s.type("Slip pocket width", "70");
    s.type("Angle 2", "126");
    CHECK(s.value("Angle 2") == "126°");
    s.window.document().setUnit(Unit::Inch);
    QCoreApplication::processEvents();
    CHECK(s.value("Angle 2") == "126°");
    s.type("Angle 2", "118°");
    CHECK(s.value("Angle 2") == "118°");
    s.press(Qt::Key_5);
    REQUIRE(s.window.stage() == 4);
    auto* table = s.find<QTableWidget>("sizes");
    bool shown = false;
    for (int r = 0; r < table->rowCount(); ++r)
        shown |= table->item(r, 0)->text() == "Angle 2" && table->item(r, table->columnCount() - 1)->text() == "118°";
    CHECK(shown);
}

TEST_CASE("With many parts each keeps its whole drawing, none lies over another, and the next can still be added")
{
    Shown s;
    s.press(Qt::Key_1);
    for (const char* kind : {"label", "patch-pocket", "slip-pocket", "channel", "piping", "overlay", "brace",
             "corner-patch", "handles", "label"})
        s.window.document().edit("Add", [&](Design& d) { addFeature(d, kind); });
    QCoreApplication::processEvents();
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    std::vector<QRect> chips;
    for (const auto& f : s.window.document().design().features) {
        auto* chip = s.find<QAbstractButton>(("part." + f.id).c_str());
        CHECK(chip->width() >= 70);
        const QRect place(chip->mapTo(&s.window, QPoint(0, 0)), chip->size());
        for (const QRect& other : chips)
            CHECK(!place.intersects(other));
        chips.push_back(place);
    }
    CHECK(chips.size() == s.window.document().design().features.size());
    auto* add = s.find<QPushButton>("addPart");
    CHECK(add->isVisible());
    CHECK(add->width() >= add->sizeHint().width());
    CHECK(add->mapTo(&s.window, QPoint(add->width(), 0)).x() < s.window.width());
    auto* person = s.find<QComboBox>("look.person");
    s.window.document().setUnit(Unit::Inch);
    QCoreApplication::processEvents();
    CHECK(person->itemText(3).endsWith(" in"));
}
