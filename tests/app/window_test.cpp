// SPDX-License-Identifier: GPL-3.0-or-later
// The real window, driven with mouse and keys; what is asserted is what the user sees or gets.
#include "driven.hpp"

#include "formats/specification.hpp"

#include <QTabBar>
#include <QTabWidget>

#include "formats/design_file.hpp"
#include "shell/stage_signs.hpp"
#include "theme.hpp"

#include <fstream>

using namespace tectonis;

TEST_CASE("Typing a width: piece, gusset, zip, step, cut and sheet follow; undo brings all back")
{
    Shown s;
    s.take("front");
    const QString piece = s.fact("Cut line"), bottom = s.fact("bottom");
    s.take("gusset");
    const QString gusset = s.fact("Cut line");
    const double zip = s.window.document().pattern().zips[0].nominal;
    s.press(Qt::Key_7);
    auto* cut = s.find<QTableWidget>("cutList");
    const QString cutLine = cut->item(0, 3)->text();
    s.press(Qt::Key_6);
    auto* steps = s.find<QListWidget>("steps");
    const int rows = steps->count();
    s.press(Qt::Key_8);
    const QString pages = s.find<QLabel>("pageCount")->text();

    s.type("Width", "46 cm");
    CHECK(s.value("Width") == "460 mm");
    s.take("front");
    CHECK(s.fact("Cut line") != piece);
    CHECK(s.fact("bottom") != bottom);
    s.take("gusset");
    CHECK(s.fact("Cut line") != gusset);
    CHECK(s.window.document().pattern().zips[0].nominal > zip);
    s.press(Qt::Key_8);
    CHECK(s.find<QLabel>("pageCount")->text() != pages);
    s.press(Qt::Key_7);
    CHECK(cut->item(0, 3)->text() != cutLine);
    s.press(Qt::Key_6);
    CHECK(steps->count() == rows);
    CHECK(s.window.windowTitle().contains("*"));

    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.value("Width") == "340 mm");
    s.take("front");
    CHECK(s.fact("Cut line") == piece);
    s.press(Qt::Key_7);
    CHECK(cut->item(0, 3)->text() == cutLine);
    CHECK_FALSE(s.window.windowTitle().contains("*"));
    s.press(Qt::Key_Y, Qt::ControlModifier);
    CHECK(s.value("Width") == "460 mm");
    s.press(Qt::Key_Z, Qt::ControlModifier);
}

TEST_CASE("Dragging a handle on the mock-up changes the dimension, as one undo step")
{
    Shown s;
    s.press(Qt::Key_1);
    auto* view = s.find<MockupView>("mockup");
    view->turnTo(0, 0.05);
    QCoreApplication::processEvents();
    const QPoint at = view->handleAt("width").toPoint();
    drag(view, at, at + QPoint(40, 0));
    const double width = s.window.document().pattern().width;
    CHECK(width > 345);
    CHECK(s.value("Width") == QString("%1 mm").arg(width));
    CHECK(s.window.document().undoStack().count() == 1);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.value("Width") == "340 mm");
}

TEST_CASE("A drag stays inside the allowed range, and the refusal says why")
{
    Shown s;
    auto* view = s.find<MockupView>("mockup");
    view->turnTo(0, 0.05);
    const QPoint at = view->handleAt("width").toPoint();
    drag(view, at, at - QPoint(2000, 0));
    CHECK(s.window.document().pattern().width >= 80);
    CHECK(s.find<QLabel>("refusal")->text().contains("allowed"));
}

TEST_CASE("A refused value is explained in place and the old value stands")
{
    Shown s;
    s.type("Corner radius", "400");
    CHECK(s.value("Corner radius") == "50 mm");
    auto* refusal = s.find<QLabel>("refusal");
    CHECK(refusal->isVisibleTo(&s.window));
    CHECK(refusal->text().contains("radius in size"));
    CHECK_FALSE(s.window.document().modified());
    s.type("Corner radius", "55");
    CHECK_FALSE(refusal->isVisibleTo(&s.window));
    // Who goes on to another stage has read it.
    s.type("Corner radius", "400");
    CHECK(refusal->isVisibleTo(&s.window));
    s.press(Qt::Key_4, Qt::ControlModifier); // the bare 4 would be typed into the field that was refused
    CHECK_FALSE(refusal->isVisibleTo(&s.window));
}

TEST_CASE("Units: the same length in mm, cm and inches; inches can be typed")
{
    Shown s;
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->text() == "in")
            QTest::mouseClick(b, Qt::LeftButton);
    CHECK(s.value("Width") == "≈ 13 3/8 in");
    s.type("Width", "14 1/2");
    CHECK(s.value("Width") == "14 1/2 in");
    CHECK(s.window.document().pattern().width == Approx(368.3));
    s.type("Width", "350 mm");
    CHECK(s.window.document().pattern().width == Approx(350));
}

TEST_CASE("Sizes: chips, a value typed in L moves the base, an own value in the table")
{
    Shown s;
    QTest::mouseClick(s.find<QPushButton>("size.L"), Qt::LeftButton);
    CHECK(s.value("Width") == "370 mm");
    s.type("Width", "400");
    CHECK(s.value("Width") == "400 mm");
    QTest::mouseClick(s.find<QPushButton>("size.M"), Qt::LeftButton);
    CHECK(s.value("Width") == "370 mm");
    s.press(Qt::Key_5);
    auto* table = s.find<QTableWidget>("sizes");
    REQUIRE(table->item(1, 0)->text() == "Width");
    table->item(1, 3)->setText("300");
    QCoreApplication::processEvents();
    CHECK(s.window.document().patterns()[0].width == 300);
    CHECK(s.window.document().patterns()[1].width == 370);
    table->item(1, 2)->setText("ratio 1.2");
    QCoreApplication::processEvents();
    CHECK(s.window.document().patterns()[2].width == Approx(444));
    table->item(1, 2)->setText("sideways");
    QCoreApplication::processEvents();
    CHECK(table->item(1, 2)->text() == "ratio 1.2");
}

TEST_CASE("Choices: two strips become one, the rail and the steps follow")
{
    Shown s;
    auto* combo = s.find<QComboBox>("choice.gusset.strips");
    REQUIRE(combo->currentText() == "Two, centre seam");
    const auto before = s.window.document().pattern().steps.size();
    combo->setCurrentIndex(combo->findData("one"));
    emit combo->activated(combo->currentIndex());
    QCoreApplication::processEvents();
    CHECK(s.window.document().pattern().piece("gusset")->count == 1);
    CHECK(s.window.document().pattern().steps.size() == before - 2);
}

TEST_CASE("Draft: the pointer over an edge tells both lengths and their difference")
{
    Shown s;
    s.press(Qt::Key_2);
    auto* bench = s.find<QWidget>("draftBench");
    auto* said = s.find<QLabel>("seamReadout");
    QCoreApplication::processEvents();
    // Sweep the pointer until an edge of the gusset seam lights up.
    bool told = false;
    for (int y = 10; y < bench->height() && !told; y += 3)
        for (int x = 10; x < bench->width() && !told; x += 5) {
            const QPointF at(x, y);
            QMouseEvent move(QEvent::MouseMove, at, bench->mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
            QCoreApplication::sendEvent(bench, &move);
            told = said->text().startsWith("Front to gusset");
        }
    REQUIRE(told);
    CHECK(said->text().contains("difference 0 mm"));
    CHECK(said->text().contains("A  "));
    CHECK(said->text().contains("C  "));
}

TEST_CASE("Snags: a broken design is told, the row offers its repair, one press mends it")
{
    Shown s;
    auto* line = s.find<QPushButton>("snags");
    CHECK(line->text().contains("No snags"));
    s.type("Connector width", "44");
    CHECK(line->text().contains("wider than the ring"));
    QTest::mouseClick(line, Qt::LeftButton);
    auto* list = s.find<QTreeWidget>("snagList");
    CHECK(list->isVisibleTo(&s.window));
    REQUIRE(list->topLevelItemCount() >= 1);
    CHECK(list->topLevelItem(0)->text(0) == "S M L");
    emit list->itemActivated(list->topLevelItem(0), 0);
    CHECK(stageNames()[s.window.stage()] == "Fittings");
    auto* mend = list->findChild<QPushButton*>("repair");
    REQUIRE(mend);
    QTest::mouseClick(mend, Qt::LeftButton);
    QCoreApplication::processEvents();
    CHECK(line->text().contains("No snags"));
    CHECK(s.value("Connector width") == "37 mm");
}

TEST_CASE(
    "Sequence: a forbidden move says which rule it breaks; the proposed order mends it; the dry run tells the state")
{
    Shown s;
    s.press(Qt::Key_6);
    auto* steps = s.find<QListWidget>("steps");
    auto* state = s.find<QLabel>("dryState");
    CHECK(state->text().contains("Opening: none yet"));
    int turn = -1;
    for (int i = 0; i < steps->count(); ++i)
        if (steps->item(i)->text().contains("Turn the bag through"))
            turn = i;
    REQUIRE(turn > 0);
    steps->setCurrentRow(turn);
    CHECK(s.find<QTextBrowser>("stepCard")->toPlainText().contains("Reach through the opening"));
    CHECK(state->text().contains("Opening: open"));
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->text() == "Earlier")
            QTest::mouseClick(b, Qt::LeftButton);
    CHECK(s.find<QTextBrowser>("stepCard")->toPlainText().contains("Forbidden order"));
    CHECK(s.find<QPushButton>("snags")->text().contains("Turn the bag"));
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->text() == "As proposed")
            QTest::mouseClick(b, Qt::LeftButton);
    CHECK(s.find<QPushButton>("snags")->text().contains("No snags"));
}

TEST_CASE("Build-up: an interlining put behind the panels shows in layers, bulk and cut list")
{
    Shown s;
    s.take("front");
    s.press(Qt::Key_3);
    const std::size_t before = s.window.document().pattern().piece("front")->layers.size();
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->text() == "Put behind")
            QTest::mouseClick(b, Qt::LeftButton);
    CHECK(s.window.document().pattern().piece("front")->layers.size() == before + 1);
    CHECK(s.window.document().pattern().piece("back.lower")->layers.size() >= 2);
}

TEST_CASE("Build-up: a layer is taken in hand in the matrix and changed: for its role, for one piece, and back")
{
    Shown s;
    s.take("front");
    s.press(Qt::Key_3);
    auto* matrix = s.find<QTableWidget>("layers");
    const auto box = [&](const char* name) {
        for (auto* b : s.window.findChildren<QComboBox*>())
            if (b->accessibleName() == name)
                return b;
        throw std::runtime_error(name);
    };
    const auto press = [&](const char* label) {
        for (auto* b : s.window.findChildren<QPushButton*>())
            if (b->text() == label && b->isVisible())
                return QTest::mouseClick(b, Qt::LeftButton);
        throw std::runtime_error(label);
    };
    const auto front = [&] { return *s.window.document().pattern().piece("front"); };
    const auto cell = [&](int row, int column) {
        QTest::mouseClick(
            matrix->viewport(), Qt::LeftButton, {}, matrix->visualItemRect(matrix->item(row, column)).center());
    };
    int row = -1;
    for (int r = 0; r < matrix->rowCount(); ++r)
        if (matrix->item(r, 0)->text().startsWith("A  Front"))
            row = r;
    REQUIRE(row >= 0);
    CHECK(matrix->item(row, 0)->text().contains("as every panel"));
    CHECK(matrix->item(row, 2)->text().contains("Sew-in foam"));
    cell(row, 2);
    CHECK(box("Interlining")->currentText().contains("Sew-in foam"));
    CHECK(box("How it is held")->currentText() == "basted");

    // Only this piece: a shape that is typed.
    QComboBox* scope = box("Layers for this role or this piece");
    scope->setCurrentIndex(1);
    QLineEdit* shape = box("Shape")->lineEdit();
    shape->setFocus();
    shape->selectAll();
    QTest::keyClicks(shape, "patch 80 x 60 at 0 100");
    QTest::keyClick(shape, Qt::Key_Return);
    CHECK(std::abs(areaOf(front().layers.front().outline) - 4800) < 1);
    CHECK(matrix->item(row, 0)->text().contains("its own layers"));
    CHECK(matrix->item(row, 2)->text().contains("a patch of 80 mm × 60 mm"));
    CHECK(s.window.document().pattern().piece("back.lower")->layers.front().wholePiece);

    // What cannot be read is told, and nothing is lost.
    shape->setFocus();
    shape->selectAll();
    QTest::keyClicks(shape, "strip of felt 3");
    QTest::keyClick(shape, Qt::Key_Return);
    QTest::keyClick(matrix, Qt::Key_Delete); // the layer is taken away
    CHECK(front().layers.size() == 1);       // the snap's patch stays
    CHECK(front().layers.front().rule == -1);
    press("As the rule");
    CHECK(front().layers.size() == 2);
    CHECK(matrix->item(row, 0)->text().contains("as every panel"));
    s.window.document().undoStack().undo();
    CHECK(front().layers.size() == 1);
    s.window.document().undoStack().redo();

    // A second one goes behind the first and is laid before it.
    cell(row, 2);
    press("Put behind");
    REQUIRE(front().layers.size() == 3);
    CHECK(matrix->currentColumn() == 3); // it is in hand: its fixing and shape come next
    CHECK(box("How it is held")->isEnabled());
    const auto first = front().layers[0].material;
    cell(row, 2);
    press("↓");
    CHECK(front().layers[1].material == first);
    CHECK(matrix->currentColumn() == 3); // the layer stays in hand

    // Two pieces at once, and no other: the same trim for the first layer of both.
    const auto rowOf = [&](const char* begin) {
        for (int r = 0; r < matrix->rowCount(); ++r)
            if (matrix->item(r, 0)->text().startsWith(begin))
                return r;
        throw std::runtime_error(begin);
    };
    const int lower = rowOf("B2"), lining = rowOf("LA");
    matrix->scrollToItem(matrix->item(lower, 2));
    cell(lower, 2);
    QTest::mouseClick(matrix->viewport(), Qt::LeftButton, Qt::ControlModifier,
        matrix->visualItemRect(matrix->item(lining, 2)).center());
    CHECK(scope->currentText() == "the 2 selected pieces");
    QLineEdit* trim = box("Trim")->lineEdit();
    trim->setFocus();
    trim->selectAll();
    QTest::keyClicks(trim, "inset 5");
    QTest::keyClick(trim, Qt::Key_Return);
    const auto reach = [&](const char* piece, const char* edge) {
        return *s.window.document().pattern().piece(piece)->layers.front().reachAt(edge);
    };
    CHECK(reach("back.lower", "bottom") == -5);
    CHECK(reach("lining.front", "bottom") == -5);
    CHECK(reach("lining.back", "bottom") > 0);
    CHECK(reach("front", "bottom") == 0);
}

TEST_CASE(
    "Build-up: come to with Ctrl held, another piece in hand, no row stays chosen besides; chosen rows move along")
{
    Shown s;
    s.window.goTo(2);
    Document& doc = s.window.document();
    auto* matrix = s.find<QTableWidget>("layers");
    const auto chosen = [&] {
        QStringList out;
        for (const auto& index : matrix->selectionModel()->selectedIndexes())
            out << matrix->item(index.row(), 0)->data(Qt::UserRole).toString();
        out.removeDuplicates();
        return out;
    };
    s.take("lining.front");
    CHECK(chosen() == QStringList{"lining.front"});
    s.window.goTo(0);
    doc.edit("zip", [](Design& d) { change::addPart(d, "inset-zip"); }); // the front becomes two rows
    doc.takePiece(PieceId("lining.back"));
    QTest::keyPress(s.window.windowHandle(), Qt::Key_3, Qt::ControlModifier);
    s.settle();
    QTest::keyRelease(s.window.windowHandle(), Qt::Key_3, Qt::NoModifier);
    CHECK(s.window.stage() == 2);
    CHECK(chosen() == QStringList{"lining.back"});
    // Two rows are chosen; rows come in above them.
    const auto rowOf = [&](const char* piece) {
        for (int r = 0; r < matrix->rowCount(); ++r)
            if (matrix->item(r, 0)->data(Qt::UserRole).toString() == piece)
                return r;
        return -1;
    };
    matrix->setCurrentCell(rowOf("lining.back"), 0);
    matrix->selectionModel()->select(matrix->model()->index(rowOf("lining.front"), 0), QItemSelectionModel::Select);
    const QStringList two = chosen();
    REQUIRE(two.size() == 2);
    const int rows = matrix->rowCount();
    REQUIRE(doc.edit("band", [](Design& d) {
        const std::string band = change::addPart(d, "band");
        change::choice(d, band + ".site", "front");
    }));
    REQUIRE(matrix->rowCount() > rows);
    s.settle();
    QStringList now = chosen(), then = two;
    now.sort(), then.sort();
    CHECK(now == then);
}

TEST_CASE("Build-up: the whole bag as a specification, sorted, as the exported table says it, in the size looked at")
{
    Shown s;
    s.take("front");
    s.press(Qt::Key_3);
    auto* tabs = s.find<QTabWidget>("buildup");
    QTest::mouseClick(tabs->tabBar(), Qt::LeftButton, {}, tabs->tabBar()->tabRect(2).center());
    auto* table = s.find<QTableWidget>("specification");
    REQUIRE(table->isVisible());
    const Document& d = s.window.document();
    const auto compare = [&] {
        const auto all = specificationOf(d.design(), d.pattern(), d.unit());
        REQUIRE(table->rowCount() == int(all.size()));
        for (const auto& p : all) {
            bool found = false;
            for (int r = 0; r < table->rowCount(); ++r) {
                if (table->item(r, 0)->text().toStdString() != p.code)
                    continue;
                found = true;
                const std::string cloth = table->item(r, 2)->text().toStdString();
                CHECK(cloth.starts_with(p.cloth + "\n" + p.thickness + " "));
                CHECK(cloth.ends_with(", " + p.weight + " g\n" + p.stiffness));
                for (const auto& [column, lines] : {std::pair{4, &p.layers}, {5, &p.seams}}) {
                    CHECK(table->item(r, column)->text().count("\n") + (lines->empty() ? 0 : 1) == int(lines->size()));
                    for (const auto& line : *lines)
                        CHECK(table->item(r, column)->text().contains(QString::fromStdString(line)));
                }
                for (const auto& step : p.steps) {
                    CHECK(table->item(r, 8)->toolTip().contains(QString::fromStdString(step)));
                    CHECK((table->item(r, 8)->text() + ",")
                              .contains(QString::fromStdString(step.substr(0, step.find(' '))) + ","));
                }
            }
            CHECK(found);
        }
    };
    compare();
    CHECK(table->item(0, 0)->text() == "A");
    // Another size and another unit: other numbers.
    const QString before = table->item(0, 4)->text();
    s.window.document().setUnit(Unit::Inch);
    s.settle();
    compare();
    CHECK(table->item(0, 4)->text() != before);
    s.window.document().setUnit(Unit::Mm);
    s.settle();
    // A row takes its piece in hand; a heading sorts.
    const QModelIndex lining = table->model()->index(4, 1);
    table->scrollTo(lining);
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualRect(lining).center());
    CHECK(d.pattern().piece(d.pieceInHand())->code == table->item(table->currentRow(), 0)->text().toStdString());
    table->sortByColumn(2, Qt::DescendingOrder);
    CHECK(table->item(0, 2)->text() >= table->item(table->rowCount() - 1, 2)->text());
}

TEST_CASE("Brief: a thing too large is told, with how much")
{
    Shown s;
    s.press(Qt::Key_1);
    auto* table = s.find<QTableWidget>("carried");
    CHECK(table->item(0, 5)->text().contains("fits"));
    table->item(0, 1)->setText("500");
    QCoreApplication::processEvents();
    CHECK(table->item(0, 5)->text().contains("too wide"));
    CHECK(s.find<QPushButton>("snags")->text().contains("too wide"));
}

TEST_CASE("Sheets: paper, sizes and a shrinking printer")
{
    Shown s;
    s.press(Qt::Key_8);
    auto* count = s.find<QLabel>("pageCount");
    CHECK(count->text().contains("210 × 297"));
    s.find<QComboBox>("paper")->setCurrentText("Letter");
    CHECK(count->text().contains("215.9"));
    CHECK(s.find<QLabel>("scaleEffect")->text().contains("97 mm"));
}

TEST_CASE("Sheets are written from the window, off its thread, where the user says")
{
    QTemporaryDir dir;
    Shown s;
    s.press(Qt::Key_8);
    const QString file = dir.filePath("out.pdf");
    QTimer::singleShot(200, [&] {
        auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
        if (!dialog)
            return;
        dialog->findChild<QLineEdit*>("fileNameEdit")->setText(file);
        QMetaObject::invokeMethod(dialog, "accept");
    });
    QTest::mouseClick(s.find<QPushButton>("write.sheets"), Qt::LeftButton);
    auto* said = s.find<QLabel>("exportSaid");
    CHECK(QTest::qWaitFor([&] { return said->text().startsWith("Written"); }, 20000));
    QFile pdf(file);
    REQUIRE(pdf.open(QIODevice::ReadOnly));
    CHECK(pdf.read(5) == "%PDF-");
}

TEST_CASE("Trial: measured beside predicted, kept in the file")
{
    QTemporaryDir dir;
    const QString file = dir.filePath("trial.tectonis");
    Shown s;
    s.press(Qt::Key_9);
    auto* table = s.find<QTableWidget>("trials");
    const int columns = table->columnCount();
    QTest::mouseClick(s.find<QPushButton>("newTrial"), Qt::LeftButton);
    REQUIRE(table->columnCount() == columns + 1);
    table->item(0, columns)->setText("338");
    QCoreApplication::processEvents();
    CHECK(table->item(0, columns)->text().startsWith("338 mm"));
    CHECK(table->item(0, columns)->text().contains("−2 mm"));
    s.window.document().save(file);
    CHECK(loadDesign(file.toStdString()).trials.back().width == 338);
}

TEST_CASE("Save and reopen: the same design; a file that cannot be opened leaves what was open")
{
    QTemporaryDir dir;
    const QString file = dir.filePath("bag.tectonis");
    Shown s;
    s.type("Depth", "135");
    s.window.document().save(file);
    CHECK_FALSE(s.window.document().modified());
    {
        Shown again(file);
        CHECK(again.window.document().design() == s.window.document().design());
        CHECK(again.value("Depth") == "135 mm");
    }
    std::ofstream(dir.filePath("foreign.tectonis").toStdString()) << "{\"format\": \"recipe\"}";
    CHECK_FALSE(s.window.openFile(dir.filePath("foreign.tectonis")));
    CHECK(s.value("Depth") == "135 mm");
    bool told = false;
    for (auto* label : s.window.findChildren<QLabel*>())
        told |= label->isVisibleTo(&s.window) && label->text().contains("not a Tectonis design");
    CHECK(told);
}

TEST_CASE("Closing with unsaved changes asks; cancel keeps the window")
{
    Shown s;
    s.type("Depth", "125");
    REQUIRE(s.window.document().modified());
    bool asked = false;
    QTimer::singleShot(50, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            asked = box->text().contains("not saved");
            QTest::mouseClick(box->button(QMessageBox::Cancel), Qt::LeftButton);
        }
    });
    CHECK_FALSE(s.window.close());
    CHECK(asked);
    CHECK(s.window.isVisible());
    s.window.document().undoStack().undo();
    REQUIRE_FALSE(s.window.document().modified());
    CHECK(s.window.close());
}

TEST_CASE("After a crash the unsaved work is offered and can be opened")
{
    Design d = loadDesign(kDemo.toStdString());
    setDimension(d, "depth", "133");
    {
        // What a run that was killed leaves: a copy under a process id that is gone.
        Shown s;
        s.type("Depth", "133");
        Recovery keeper(s.window.document());
        keeper.keep();
        REQUIRE(QFile::exists(keeper.copy()));
        REQUIRE(QFile::copy(keeper.copy(), QFileInfo(keeper.copy()).path() + "/999999999.tectonis"));
        REQUIRE(QFile::copy(
            keeper.copy().replace(".tectonis", ".json"), QFileInfo(keeper.copy()).path() + "/999999999.json"));
        s.press(Qt::Key_Z, Qt::ControlModifier);
    }
    Shown s;
    s.window.offerRecovery();
    s.settle();
    QPushButton* yes = nullptr;
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->text() == "Open it" && b->isVisibleTo(&s.window))
            yes = b;
    REQUIRE(yes);
    QTest::mouseClick(yes, Qt::LeftButton);
    CHECK(s.value("Depth") == "133 mm");
    CHECK(s.window.document().modified());
    CHECK(Recovery::leftovers().empty());
}

TEST_CASE(
    "All nine stages open by their keys at 1280 × 800 and nothing needs more room; controls have names; light and dark")
{
    Shown s;
    for (const bool dark : {false, true}) {
        s.window.setDark(dark);
        for (int i = 0; i < 9; ++i) {
            s.press(Qt::Key(Qt::Key_1 + i));
            CHECK(s.window.stage() == i);
            CHECK(s.window.screen()->availableGeometry().contains(s.window.frameGeometry()));
            CHECK(!s.window.grab().isNull());
        }
    }
    s.window.setDark(false);
    for (auto* b : s.window.findChildren<QAbstractButton*>())
        if (b->isVisibleTo(&s.window) && b->focusPolicy() != Qt::NoFocus) {
            INFO(b->metaObject()->className());
            CHECK_FALSE((b->text().isEmpty() && b->accessibleName().isEmpty()));
        }
}

TEST_CASE("Contrast of text against its ground is at least 4.5 to 1 (WCAG 2.1, 1.4.3)")
{
    const auto luminance = [](const QColor& c) {
        const auto part = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
    };
    const auto contrast = [&](const QColor& a, const QColor& b) {
        const double x = luminance(a), y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    };
    for (const bool dark : {false, true}) {
        applyTheme(*qApp, dark);
        const Theme& t = theme();
        for (const QColor& ground : {t.window, t.surface, t.bench, t.field})
            for (const QColor& ink : {t.ink, t.muted, t.accent, t.second, t.error, t.warning, t.note}) {
                INFO((dark ? "dark " : "light ") << ink.name().toStdString() << " on " << ground.name().toStdString());
                CHECK(contrast(ink, ground) >= 4.5);
            }
        for (const QColor& card : {t.shell, t.lining, t.strip, t.interlining})
            CHECK(contrast(t.ink, card) >= 4.5);
        CHECK(contrast(t.accentInk, t.accent) >= 4.5);
    }
    applyTheme(*qApp, false);
}

TEST_CASE("Snags: the list is as high as what it tells, shows each text whole, and closes when nothing is left")
{
    Shown s;
    REQUIRE(s.window.document().edit("Depth", [](Design& d) { change::dimension(d, "depth", "140"); }));
    auto* line = s.find<QPushButton>("snags");
    auto* list = s.find<QTreeWidget>("snagList");
    QTest::mouseClick(line, Qt::LeftButton);
    REQUIRE(list->isVisible());
    REQUIRE(list->topLevelItemCount() == 1);
    CHECK(list->height() < 110); // one snag leaves the stage its room
    const QTreeWidgetItem* row = list->topLevelItem(0);
    const QRect cell = list->visualItemRect(row);
    const int needed = QFontMetrics(list->font())
                           .boundingRect(QRect(0, 0, list->columnWidth(2) - 8, 1000), Qt::TextWordWrap, row->text(2))
                           .height();
    CHECK(cell.height() >= needed);
    CHECK(list->viewport()->rect().contains(cell.bottomLeft())); // nothing is scrolled out of sight
    s.window.document().undoStack().undo();
    CHECK_FALSE(list->isVisible());
    CHECK(line->text().contains("No snags"));
}
