// SPDX-License-Identifier: GPL-3.0-or-later
// The window as a hand uses it: clicks where it sees something, types what it thinks, scrolls past what it does not
// mean.
#include "driven.hpp"

#include "application.hpp"
#include "bench.hpp"
#include "canvas.hpp"
#include "features/feature.hpp"
#include "process.hpp"
#include "qtext.hpp"

#include <QAbstractSpinBox>
#include <QDropEvent>
#include <QMimeData>
#include <QScrollBar>
#include <QWheelEvent>

#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

void wheel(QWidget* over, int degrees)
{
    const QPointF at = over->rect().center();
    QWheelEvent event(
        at, over->mapToGlobal(at), {}, {0, degrees * 8}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(over, &event);
}

QRect onScreen(const QWidget* w) { return {w->mapToGlobal(QPoint(0, 0)), w->size()}; }

void checkApart(const std::vector<PlacedLabel>& labels, const QRectF& bounds)
{
    for (std::size_t i = 0; i < labels.size(); ++i) {
        INFO(labels[i].label.text.toStdString());
        CHECK(bounds.adjusted(-1, -1, 1, 1).contains(labels[i].box));
        for (std::size_t k = 0; k < i; ++k) {
            INFO("and " << labels[k].label.text.toStdString());
            CHECK_FALSE(labels[i].box.intersects(labels[k].box));
        }
    }
}

} // namespace

TEST_CASE("README, first minutes: one click on Depth, 140, Enter; the stage stays, the bag follows; its snags are "
          "mended; 8 goes to Sheets and the PDF is written")
{
    Shown s;
    auto* tree = s.find<QTreeWidget>("dimensions");
    auto* item = s.row("dimensions", "Depth");
    // It is there to be clicked without scrolling.
    const QRect field = tree->visualItemRect(item);
    REQUIRE(tree->viewport()->rect().contains(field));
    QTest::mouseClick(
        tree->viewport(), Qt::LeftButton, {}, QPoint(tree->columnViewportPosition(1) + 60, field.center().y()));
    s.keys("140");
    CHECK(s.window.stage() == 0);
    QTest::keyClick(s.focus(), Qt::Key_Return);
    s.settle();
    CHECK(s.value("Depth") == "140 mm");
    CHECK(s.window.document().pattern().depth == Approx(140));
    auto* snags = s.find<QPushButton>("snags");
    CHECK(snags->text().contains("to mend"));
    QTest::mouseClick(snags, Qt::LeftButton);
    s.settle();
    // In one stroke for both sizes: what is offered is what the wider board of size L needs.
    auto* mend = s.find<QTreeWidget>("snagList")->findChild<QPushButton*>("repair");
    REQUIRE(mend);
    CHECK(mend->text().startsWith("Make the opening 154"));
    CHECK(s.find<QTreeWidget>("snagList")->topLevelItem(0)->text(0) == "M L");
    QTest::mouseClick(mend, Qt::LeftButton);
    s.settle();
    INFO(snags->text().toStdString());
    CHECK(snags->text().contains("No snags"));
    QTest::mouseClick(snags, Qt::LeftButton);
    s.settle();
    s.press(Qt::Key_8);
    CHECK(s.window.stage() == 7);
    QTemporaryDir dir;
    QTimer::singleShot(150, [&] {
        auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
        REQUIRE(dialog);
        dialog->findChild<QLineEdit*>("fileNameEdit")->setText(dir.filePath("sheets")); // the ending is put on
        QMetaObject::invokeMethod(dialog, "accept");
    });
    QTest::mouseClick(s.find<QPushButton>("write.sheets"), Qt::LeftButton);
    REQUIRE(QTest::qWaitFor([&] { return s.find<QLabel>("exportSaid")->text().startsWith("Written"); }, 20000));
    CHECK(QFile::exists(dir.filePath("sheets.pdf")));
    // What was written of this design says nothing of the next.
    s.type("Depth", "130");
    CHECK(s.find<QLabel>("exportSaid")->text().isEmpty());
}

TEST_CASE("A key typed on a selected number begins to edit; Tab goes on; Esc takes back; Enter lets go; Ctrl and a "
          "number always goes to a stage")
{
    Shown s;
    auto* tree = s.find<QTreeWidget>("dimensions");
    auto* item = s.bringUp("Width");
    QTest::mouseClick(
        tree->viewport(), Qt::LeftButton, {}, tree->visualItemRect(item).center() - QPoint(60, 0)); // on its name
    s.keys("350");
    CHECK(s.window.stage() == 0);
    QTest::keyClick(s.focus(), Qt::Key_Tab);
    s.settle();
    CHECK(s.value("Width") == "350 mm");
    // Now the next field is open.
    s.keys("260");
    QTest::keyClick(s.focus(), Qt::Key_Backtab, Qt::ShiftModifier);
    s.settle();
    CHECK(s.value("Height") == "260 mm");
    s.keys("1");
    QTest::keyClick(s.focus(), Qt::Key_Escape);
    s.settle();
    CHECK(s.value("Width") == "350 mm");
    s.press(Qt::Key_6, Qt::ControlModifier);
    CHECK(s.window.stage() == 5);
    s.press(Qt::Key_1);
    CHECK(s.window.stage() == 0);
    // A formula is edited as a formula; looking at a field changes nothing.
    const auto count = s.window.document().undoStack().count();
    s.type("Depth at the mouth", "");
    CHECK(s.window.document().undoStack().count() == count);
    s.type("Depth at the mouth", "depth - 10");
    CHECK(s.value("Depth at the mouth") == "110 mm");
    // Letters that are keys of the window elsewhere are typed here.
    s.type("Height", "max(250, width*0.5)");
    CHECK(s.value("Height") == "250 mm");
    CHECK(s.window.stage() == 0);
}

TEST_CASE("A refusal says which dimension by its label and does not shift the rows under the pointer")
{
    Shown s;
    QTest::qWait(120); // the window has found its place on the screen
    auto* tree = s.find<QTreeWidget>("dimensions");
    s.bringUp("Corner radius");
    auto* item = s.bringUp("Corner radius");
    const QPoint before = tree->viewport()->mapTo(&s.window, tree->visualItemRect(item).topLeft());
    s.type("Corner radius", "400");
    auto* refusal = s.find<QLabel>("refusal");
    CHECK(refusal->isVisibleTo(&s.window));
    CHECK(refusal->text().startsWith("Corner radius in size"));
    INFO(before.y() << " " << tree->viewport()->mapTo(&s.window, tree->visualItemRect(item).topLeft()).y() << " stage "
                    << s.window.stage());
    CHECK(tree->viewport()->mapTo(&s.window, tree->visualItemRect(item).topLeft()) == before);
}

TEST_CASE("The wheel scrolls: over a closed choice or a number it changes nothing")
{
    Shown s;
    const Design before = s.window.document().design();
    auto* combo = s.find<QComboBox>("choice.gusset.strips");
    s.bringUp("Gusset strips");
    combo->setFocus();
    for (int i = 0; i < 5; ++i)
        wheel(combo, -15);
    CHECK(s.window.document().design() == before);
    CHECK(combo->currentText() == "Two, centre seam");
    s.press(Qt::Key_8, Qt::ControlModifier);
    for (auto* box : s.window.findChildren<QAbstractSpinBox*>()) {
        const QString was = box->text();
        wheel(box, -15);
        CHECK(box->text() == was);
    }
    auto* paper = s.find<QComboBox>("paper");
    wheel(paper, -15);
    CHECK(paper->currentIndex() == 0);
}

TEST_CASE("Name and studio are typed in the docket; the bar and the title follow at once; undo too")
{
    Shown s;
    s.type("Name", "Tuner's bag <b>2</b>");
    s.type("Studio", "Alder Loft");
    CHECK(s.window.document().design().name == "Tuner's bag <b>2</b>");
    CHECK(s.window.document().design().studio == "Alder Loft");
    bool shown = false;
    for (auto* label : s.window.findChildren<QLabel*>())
        shown |= label->isVisibleTo(&s.window) && label->text().startsWith("Tuner's bag <b>2</b>");
    CHECK(shown);
    CHECK(s.window.windowTitle().contains("*"));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.window.document().design().name == "Tuner's tool satchel");
}

TEST_CASE("Text from a file is plain everywhere: no label takes it for markup, no tool tip either")
{
    Shown s;
    const std::string trap = "<img src=\"/dev/zero\"><b>x</b>";
    s.window.document().edit("trap", [&](Design& d) {
        d.name = d.studio = d.notes = trap;
        d.carried[0].name = trap;
        d.trials.push_back({"<b>", "M", trap, 0, 0, 0, 0, 0, 0, {}});
        d.revisions.push_back({"<i>", trap, {}});
        Library::Contents cloths;
        cloths.materials.push_back({.id = "trap", .name = trap, .thickness = 0.5});
        cloths.materials.push_back({.id = "trap-behind", .name = trap, .use = "interlining", .thickness = 0.5});
        d.library = SharedLibrary(d.library->with(Library(cloths)));
        d.materials["shell"] = "trap";
        d.layers.push_back({"panel", "trap-behind", "basted", "stitch", {}, ""});
        d.workshop.machine = trap;
    });
    for (int i = 0; i < 9; ++i) {
        s.window.goTo(i);
        s.settle();
        for (auto* label : s.window.findChildren<QLabel*>())
            if (label->isVisibleTo(&s.window)) {
                INFO(label->text().toStdString());
                CHECK((label->textFormat() == Qt::PlainText || !label->text().contains("<img")));
            }
        for (auto* browser : s.window.findChildren<QTextBrowser*>())
            CHECK_FALSE(browser->toHtml().contains("<img"));
    }
    CHECK(asPlain(text(trap)).startsWith("<qt>&lt;img"));
    CHECK(asPlain("5 < 6") == "5 < 6");
    CHECK_FALSE(s.find<QTextBrowser>("stepCard")->toHtml().contains("<img"));
}

TEST_CASE("Sheets: the booklet for the practised in both units, chosen by hand and read back from the PDF")
{
    Shown s;
    s.press(Qt::Key_8);
    QTemporaryDir dir;
    const auto written = [&](const char* name) {
        QTimer::singleShot(150, [&, name] {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            REQUIRE(dialog);
            dialog->findChild<QLineEdit*>("fileNameEdit")->setText(dir.filePath(name));
            QMetaObject::invokeMethod(dialog, "accept");
        });
        QTest::mouseClick(s.find<QPushButton>("write.booklet"), Qt::LeftButton);
        REQUIRE(QTest::qWaitFor([&] { return s.find<QLabel>("exportSaid")->text().contains(name); }, 20000));
        return shell("pdftotext -raw -enc UTF-8 " + dir.filePath(name).toStdString() + " -").out;
    };
    const std::string full = written("full.pdf");
    CHECK_THAT(full, Contains("Why now:") && Contains("Cut list") && !Contains(" in)"));
    auto* level = s.find<QComboBox>("level");
    level->setFocus();
    QTest::keyClick(level, Qt::Key_Down);
    auto* both = s.find<QCheckBox>("bothUnits");
    QTest::mouseClick(both, Qt::LeftButton, {}, QPoint(8, both->height() / 2));
    s.settle();
    const std::string terse = written("terse.pdf");
    CHECK_THAT(terse, Contains(" in)") && Contains("mm (in)") && !Contains("Why now:"));
}

TEST_CASE("Sheets: three ticked sizes are three layers in the PDF; twelve sizes have their boxes, colours and dashes")
{
    Shown s;
    s.press(Qt::Key_8);
    const auto box = [&](const QString& size) {
        return s.find<QCheckBox>(("sheetSize." + size.toStdString()).c_str());
    };
    CHECK(box("M")->isChecked());
    for (const char* size : {"S", "L"})
        QTest::mouseClick(box(size), Qt::LeftButton, {}, QPoint(8, box(size)->height() / 2));
    s.settle();
    CHECK(s.find<QLabel>("pageCount")->text().startsWith("Size S, M, L"));
    QTemporaryDir dir;
    QTimer::singleShot(150, [&] {
        auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
        REQUIRE(dialog);
        dialog->findChild<QLineEdit*>("fileNameEdit")->setText(dir.filePath("three.pdf"));
        QMetaObject::invokeMethod(dialog, "accept");
    });
    QTest::mouseClick(s.find<QPushButton>("write.sheets"), Qt::LeftButton);
    REQUIRE(QTest::qWaitFor([&] { return s.find<QLabel>("exportSaid")->text().startsWith("Written"); }, 20000));
    // Outside check: qpdf lists the optional content groups.
    const Ran layers = shell("qpdf --qdf --object-streams=disable " + dir.filePath("three.pdf").toStdString()
        + " - | grep -a -A3 -B3 '/Type /OCG' | grep -a -o '/Name (Size [^)]*)' | sort -u | wc -l");
    CHECK(layers.out == "3\n");

    s.window.document().edit("twelve", [](Design& d) {
        setSizes(d, {"S", "M", "L", "4", "5", "6", "7", "8", "9", "10", "11", "12"}, "");
    });
    s.settle();
    auto* scroll = s.find<QWidget>("sizeBoxes");
    int inside = 0;
    for (const auto& name : s.window.document().design().sizes) {
        auto* b = box(text(name));
        inside += scroll->rect().contains(QRect(b->mapTo(scroll, QPoint(0, 0)), b->size()));
    }
    CHECK(inside == 12);
    CHECK(s.find<QComboBox>("sizeChoice")->isVisibleTo(&s.window));
    std::set<std::pair<QRgb, QList<qreal>>> looks;
    for (std::size_t i = 0; i < 24; ++i)
        looks.insert({sizeLook(i).color.rgb(), sizeLook(i).dash});
    CHECK(looks.size() == 24);
    s.press(Qt::Key_5);
    CHECK(!s.window.grab().isNull());
}

TEST_CASE("Add a part: every drawing lies on the screen; what the form cannot take is dim and says why")
{
    Shown s;
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    s.settle();
    auto* offer = s.find<QWidget>("partOffer");
    const QRect screen = s.window.screen()->availableGeometry();
    INFO(screen.width() << "x" << screen.height() << ": " << onScreen(offer).x() << "," << onScreen(offer).y() << " "
                        << offer->width() << "x" << offer->height());
    CHECK(screen.contains(onScreen(offer)));
    int dim = 0, all = 0;
    for (auto* b : offer->findChildren<QAbstractButton*>()) {
        ++all;
        CHECK(screen.contains(onScreen(b)));
        if (!b->isEnabled()) {
            ++dim;
            CHECK(b->toolTip().size() > 20);
        }
    }
    CHECK(all == int(featureKinds().size()));
    offer->close();
    s.settle();
    s.clickForm("frame-clutch");
    QTest::mouseClick(s.find<QPushButton>("addPart"), Qt::LeftButton);
    s.settle();
    int refused = 0;
    for (auto* b : s.find<QWidget>("partOffer")->findChildren<QAbstractButton*>())
        refused += !b->isEnabled() && !b->toolTip().contains("no such");
    CHECK(refused > 3);
    s.find<QWidget>("partOffer")->close();
}

TEST_CASE("Everything fits a screen of 1280 × 800 and of 1024 × 640, frame and title counted, in every stage")
{
    for (const QSize screen : {QSize(1280, 800), QSize(1024, 640)}) {
        const QSize room = screen - QSize(8, 34); // a usual frame and title
        Shown s;
        s.window.resize(room);
        for (int i = 0; i < 9; ++i) {
            s.window.goTo(i);
            s.settle();
            INFO("stage " << i << " at " << screen.width());
            CHECK(s.window.width() <= room.width());
            CHECK(s.window.height() <= room.height());
            auto* snags = s.find<QPushButton>("snags");
            CHECK(QRect(QPoint(0, 0), room).contains(QRect(snags->mapTo(&s.window, QPoint(0, 0)), snags->size())));
            std::vector<QRect> taken;
            for (auto* b : s.window.findChildren<QAbstractButton*>()) {
                bool scrolled = false;
                for (QWidget* w = b->parentWidget(); w; w = w->parentWidget())
                    scrolled |= qobject_cast<QAbstractScrollArea*>(w) != nullptr;
                if (!b->isVisibleTo(&s.window) || scrolled)
                    continue;
                INFO(b->text().toStdString() << " " << b->objectName().toStdString());
                const QRect here(b->mapTo(&s.window, QPoint(0, 0)), b->size());
                CHECK(QRect(QPoint(0, 0), s.window.size()).contains(here));
                CHECK(b->width() >= std::min(b->minimumSizeHint().width(), 30));
                for (const QRect& other : taken)
                    CHECK_FALSE(here.adjusted(1, 1, -1, -1)
                                    .intersects(other.adjusted(1, 1, -1, -1))); // nothing is squeezed over another
                taken.push_back(here);
            }
        }
    }
}

TEST_CASE("Sequence: a step that was not picked before is dragged, and dropped between two rows it lands there")
{
    Shown s;
    s.press(Qt::Key_6);
    auto* list = s.find<QListWidget>("steps");
    REQUIRE(list->count() > 8);
    const QString moved = list->item(6)->data(Qt::UserRole).toString();
    // Press on a row that is not the current one: it stays the row that was pressed, so a drag can begin.
    QTest::mousePress(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(6)).center());
    s.settle();
    CHECK(list->currentRow() == 6);
    CHECK(list->item(6)->data(Qt::UserRole).toString() == moved);
    // Dropped in the gap between the second and the third row.
    const QRect above = list->visualItemRect(list->item(1)), below = list->visualItemRect(list->item(2));
    const std::unique_ptr<QMimeData> data(list->model()->mimeData({list->model()->index(6, 0)}));
    const QPointF gap(20, (above.bottom() + below.top()) / 2.0 + 0.5);
    QDropEvent drop(gap, Qt::MoveAction, data.get(), Qt::LeftButton, {});
    // The platform without a screen has no drags: what the end of one sends is handed over directly.
    struct Opened : QListWidget {
        using QListWidget::dropEvent;
    };
    (list->*&Opened::dropEvent)(&drop);
    QTest::mouseRelease(list->viewport(), Qt::LeftButton);
    s.settle();
    CHECK(list->item(2)->data(Qt::UserRole).toString() == moved);
    CHECK(s.window.document().design().stepOrder.size() == std::size_t(list->count()));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(list->item(6)->data(Qt::UserRole).toString() == moved);
}

TEST_CASE("The docket shows what is in hand at each stage, and other things in hand change it")
{
    Shown s;
    std::set<QString> titles;
    for (int i = 0; i < 9; ++i) {
        s.window.goTo(i);
        s.settle();
        titles.insert(docketText(s));
    }
    CHECK(titles.size() == 9);
    // Edge lengths say nothing on Sequence, Cut, Sheets or Trial.
    for (const int stage : {5, 6, 7, 8}) {
        s.window.goTo(stage);
        s.settle();
        CHECK_FALSE(docketText(s).contains("Edges on the stitch line"));
    }
    s.window.goTo(5);
    auto* steps = s.find<QListWidget>("steps");
    steps->setCurrentRow(3);
    s.settle();
    CHECK(s.find<QLabel>("docketTitle")->text().startsWith("Step 4"));
    CHECK(docketText(s).contains("Minutes"));
    s.window.goTo(6);
    s.settle();
    auto* markers = s.find<QTableWidget>("markers");
    markers->setCurrentCell(1, 0);
    s.settle();
    CHECK(docketText(s).contains("To buy " + markers->item(1, 3)->text()));
    CHECK(docketText(s).contains("Yield"));
    s.window.goTo(7);
    s.settle();
    CHECK(docketText(s).startsWith("Cover"));
    for (auto* b : s.window.findChildren<QPushButton*>())
        if (b->accessibleName() == "Next page" && b->isVisibleTo(&s.window))
            QTest::mouseClick(b, Qt::LeftButton);
    s.settle();
    CHECK(docketText(s).startsWith("Sheet A1"));
    CHECK(docketText(s).contains("On this sheet"));
    s.window.goTo(8);
    QTest::mouseClick(s.find<QPushButton>("newTrial"), Qt::LeftButton);
    auto* trials = s.find<QTableWidget>("trials");
    trials->setCurrentCell(0, trials->columnCount() - 1);
    trials->item(0, trials->columnCount() - 1)->setText("338");
    s.settle();
    CHECK(docketText(s).contains("Finished width −2 mm"));
    s.window.goTo(2);
    s.take("front");
    s.settle();
    CHECK(docketText(s).contains("Under the foot"));
    CHECK(docketText(s).contains("A/1"));
}

TEST_CASE("Fields that mean nothing with these choices are not shown: sides 6 and 7 of a pentagon")
{
    Shown s;
    s.clickForm("polygon");
    s.type("Sides", "5");
    CHECK(s.row("dimensions", "Side 6")->isHidden());
    CHECK(s.row("dimensions", "Side 7")->isHidden());
    CHECK(s.row("dimensions", "Angle 5")->isHidden());
    CHECK_FALSE(s.row("dimensions", "Angle 3")->isHidden());
    CHECK_FALSE(s.row("dimensions", "Side 4")->isHidden());
    s.type("Sides", "8");
    CHECK_FALSE(s.row("dimensions", "Side 7")->isHidden());
}

TEST_CASE("Words on the drawings never cover one another, in every demo, on mock-up, Draft and Fittings")
{
    std::size_t words = 0;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(TECTONIS_DATA) + "/demos"))
        for (const QSize size : {QSize(1272, 766), QSize(1016, 606)}) {
            INFO(entry.path().filename().string() << " at " << size.width());
            Shown s(text(entry.path().string()));
            s.window.resize(size);
            s.settle();
            auto* view = s.find<MockupView>("mockup");
            view->grab();
            words += view->labels().size();
            checkApart(view->labels(), view->rect());
            for (const char* name : {"draftBench", "fittingsBench"}) {
                s.window.goTo(name == std::string("draftBench") ? 1 : 3);
                s.settle();
                auto* bench = static_cast<Bench*>(s.find<QWidget>(name));
                for (const auto& piece : s.window.document().pattern().pieces) {
                    s.take(piece.key.text());
                    bench->grab();
                    words += bench->labels().size();
                    checkApart(bench->labels(), bench->rect());
                }
            }
        }
    CHECK(words > 500);
}

TEST_CASE("A hundred things carried: eight lines name them, the rest in words; the window stays quick to draw")
{
    Shown s;
    s.window.document().edit("many", [](Design& d) {
        for (int i = int(d.carried.size()); i < 100; ++i)
            d.carried.push_back({"Reed " + std::to_string(i), 20, 20, 5, "main", {}});
    });
    s.settle();
    CHECK(!s.window.grab().isNull());
    CHECK(s.find<QTableWidget>("carried")->rowCount() == 100);
}

TEST_CASE("Whatever fails while an event is handled ends nothing: it is told")
{
    Shown s;
    QTimer::singleShot(0, &s.window, [] { throw std::runtime_error("the unforeseen"); });
    s.settle();
    CHECK(s.find<QLabel>("bannerText")->text().contains("the unforeseen"));
    QTest::mouseClick(s.find<QPushButton>("banner.Understood"), Qt::LeftButton);
    s.settle();
    CHECK_FALSE(s.find<QWidget>("banner")->isVisibleTo(&s.window));
}

TEST_CASE("Snags are counted alike in the badge, the line and the grid of sizes; one click on one jumps there")
{
    Shown s;
    s.window.document().edit("wide", [](Design& d) {
        d.carried.push_back({"Tin", 2000, 10, 10, "main", {}});
        d.carried.push_back({"Tin", 3000, 10, 10, "main", {}});
    });
    s.settle();
    auto* line = s.find<QPushButton>("snags");
    QTest::mouseClick(line, Qt::LeftButton);
    s.settle();
    auto* list = s.find<QTreeWidget>("snagList");
    const int rows = list->topLevelItemCount();
    const auto n = line->text().section("to mend", 0, 0).section(' ', -2, -2).toInt()
        + line->text().section("doubtful", 0, 0).section(' ', -2, -2).toInt();
    CHECK(n == rows);
    int badges = 0;
    for (auto* b : s.window.findChildren<QAbstractButton*>())
        if (stageNames().contains(b->text()) && b->accessibleName().contains("snags"))
            badges += b->accessibleName().section(' ', -2, -2).toInt();
    CHECK(badges == rows);
    s.window.goTo(6);
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->topLevelItem(0)).center());
    s.settle();
    CHECK(stageNames()[s.window.stage()] == "Brief");
}

TEST_CASE("A heading of the docket opens and closes by one click on its words")
{
    Shown s;
    auto* tree = s.find<QTreeWidget>("dimensions");
    QTreeWidgetItem* materials = nullptr;
    for (int i = 0; i < tree->topLevelItemCount(); ++i)
        if (tree->topLevelItem(i)->text(0) == "Materials")
            materials = tree->topLevelItem(i);
    REQUIRE(materials);
    REQUIRE_FALSE(materials->isExpanded());
    for (const bool open : {true, false}) {
        tree->scrollToItem(materials, QAbstractItemView::PositionAtCenter);
        QCoreApplication::processEvents();
        const QRect row = tree->visualItemRect(materials);
        QTest::mouseClick(tree->viewport(), Qt::LeftButton, {}, QPoint(row.left() + 40, row.center().y()));
        CHECK(materials->isExpanded() == open);
    }
}

TEST_CASE("A part taken in hand on Brief is opened in the docket and brought into sight")
{
    Shown s;
    s.window.goTo(0);
    auto* tree = s.find<QTreeWidget>("dimensions");
    s.take("slip");
    QCoreApplication::processEvents();
    for (int i = 0; i < tree->topLevelItemCount(); ++i) {
        const auto* head = tree->topLevelItem(i);
        CHECK(head->isExpanded() == (head->text(0) == "Slip pocket"));
        if (head->isExpanded())
            CHECK(tree->viewport()->rect().contains(tree->visualItemRect(head).center()));
    }
}

TEST_CASE("Cut: how many bags are made is typed, what to buy follows; another cloth is taken by a click")
{
    Shown s;
    s.press(Qt::Key_7);
    auto* buy = s.find<QPushButton>("purchasesButton");
    QTest::mouseClick(buy, Qt::LeftButton);
    QCoreApplication::processEvents();
    auto* bags = s.find<QSpinBox>("bags.M");
    QTest::mouseDClick(bags, Qt::LeftButton, {}, QPoint(14, bags->height() / 2));
    bags->selectAll();
    QTest::keyClicks(bags, "12");
    QTest::keyClick(bags, Qt::Key_Tab);
    QCoreApplication::processEvents();
    auto* list = s.find<QTableWidget>("purchases");
    const auto bought = [&](const QString& what, int column) -> QString {
        for (int r = 0; r < list->rowCount(); ++r)
            if (list->item(r, 0)->text().startsWith(what))
                return list->item(r, column)->text();
        return {};
    };
    CHECK(bought("D-ring", 2) == "24");
    CHECK(bought("D-ring", 4) == "24");
    CHECK(bought("D-ring", 6) == "21.60");
    CHECK(bought("Cotton canvas", 4).endsWith(" m"));
    CHECK(s.find<QLabel>("purchaseSum")->text().startsWith("To buy for "));
    CHECK(s.window.document().design().run == std::map<std::string, int>{{"M", 12}});
    // The first row is canvas: waxed canvas instead, and back.
    list->setCurrentCell(0, 0);
    QCoreApplication::processEvents();
    auto* instead = s.find<QTableWidget>("substitutes");
    for (int r = 0; r < instead->rowCount(); ++r)
        if (instead->item(r, 0)->text().startsWith("Waxed canvas")) {
            CHECK(instead->item(r, 1)->text().contains("does not bear the iron"));
            instead->setCurrentCell(r, 0);
        }
    QTest::mouseClick(s.find<QPushButton>("takeInstead"), Qt::LeftButton);
    QCoreApplication::processEvents();
    CHECK(bought("Cotton canvas", 4).isEmpty());
    CHECK(bought("Waxed canvas", 4).endsWith(" m"));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bought("Waxed canvas", 4).isEmpty());
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bought("D-ring", 4) == "2");
}

TEST_CASE("Repairs stand in the rows of their snags, whole, also after one of them was taken")
{
    Shown s;
    s.type("Depth", "140"); // its snags are many
    s.type("Width", "240");
    s.type("Height", "180");
    QTest::mouseClick(s.find<QPushButton>("snags"), Qt::LeftButton);
    s.settle();
    auto* list = s.find<QTreeWidget>("snagList");
    const auto inPlace = [&] {
        int seen = 0;
        for (int i = 0; i < list->topLevelItemCount(); ++i) {
            auto* row = list->topLevelItem(i);
            auto* mend = qobject_cast<QPushButton*>(list->itemWidget(row, 3));
            if (!mend)
                continue;
            INFO(row->text(2).toStdString());
            const QRect at = list->visualItemRect(row);
            CHECK(std::abs(mend->geometry().center().y() - at.center().y()) <= 2);
            CHECK(mend->width() >= mend->fontMetrics().horizontalAdvance(mend->text()) + 8);
            ++seen;
        }
        return seen;
    };
    const int before = list->topLevelItemCount();
    REQUIRE(inPlace() >= 2);
    for (int i = 0; i < list->topLevelItemCount(); ++i)
        if (auto* mend = qobject_cast<QPushButton*>(list->itemWidget(list->topLevelItem(i), 3));
            mend && mend->isEnabled()) {
            QTest::mouseClick(mend, Qt::LeftButton);
            break;
        }
    s.settle();
    QTest::qWait(30);
    CHECK(list->topLevelItemCount() != before);
    inPlace();
}

TEST_CASE("A snag about a seam's thickness leads to that seam under the foot")
{
    Shown s;
    s.window.document().edit("thin", [](Design& d) { d.workshop.machineLimit = 3; });
    s.settle();
    QTest::mouseClick(s.find<QPushButton>("snags"), Qt::LeftButton);
    s.settle();
    auto* list = s.find<QTreeWidget>("snagList");
    QTreeWidgetItem* thick = nullptr;
    for (int i = 0; i < list->topLevelItemCount() && !thick; ++i)
        if (list->topLevelItem(i)->text(2).contains("under the foot")
            && list->topLevelItem(i)->text(1).contains("ining"))
            thick = list->topLevelItem(i);
    for (int i = 0; i < list->topLevelItemCount() && !thick; ++i)
        if (list->topLevelItem(i)->text(2).contains("under the foot"))
            thick = list->topLevelItem(i);
    REQUIRE(thick);
    const QString seam = thick->text(1).section("“", 1).section("”", 0, 0);
    list->scrollToItem(thick);
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(thick).center());
    s.settle();
    CHECK(stageNames()[s.window.stage()] == "Build-up");
    auto* bulk = s.find<QTableWidget>("bulk");
    CHECK(bulk->isVisible());
    CHECK(bulk->item(bulk->currentRow(), 0)->text() == seam);
}
