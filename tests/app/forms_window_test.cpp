// SPDX-License-Identifier: GPL-3.0-or-later
// Forms and parts chosen by drawing in the Brief, as a new user would.
#include "driven.hpp"

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
        QTest::mouseClick(button, Qt::LeftButton);
        QCoreApplication::processEvents();
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
    QTest::mouseClick(s.find<QAbstractButton>("form.circle-pouch"), Qt::LeftButton);
    QCoreApplication::processEvents();
    QString said;
    QObject::connect(&s.window.document(), &Document::refused, &s.window, [&](const QString& m) { said = m; });
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    QTest::mouseClick(s.find<QAbstractButton>("add.slip-pocket"), Qt::LeftButton);
    QCoreApplication::processEvents();
    CHECK(said.contains("face"));
    CHECK(s.window.document().design().features.empty());
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
    // Lengths follow the unit.
    s.window.document().setUnit(Unit::Inch);
    QCoreApplication::processEvents();
    CHECK(ledger->item(1, 2)->text().endsWith(" in"));
}
