// SPDX-License-Identifier: GPL-3.0-or-later
// The user's own library in the window: in from a table, chosen, saved with the design, brought up to date.
#include "driven.hpp"

#include "formats/own_library.hpp"
#include "qtext.hpp"
#include "shell/banner.hpp"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QMenuBar>
#include <QScopeGuard>
#include <QTabBar>
#include <QTabWidget>
#include <QTableView>

using namespace tectonis;

namespace {

/// Leaves no library behind for the tests that follow.
struct NoOwnLibrary {
    ~NoOwnLibrary() { std::filesystem::remove(ownLibraryFile()); }
};

void write(const QString& file, const QByteArray& bytes)
{
    QFile out(file);
    REQUIRE(out.open(QIODevice::WriteOnly));
    out.write(bytes);
}

QComboBox* shellBox(Shown& s)
{
    s.window.goTo(2); // Build-up shows the materials
    s.settle();
    return s.find<QComboBox>("material.shell");
}

/// Chooses an item as a hand does: the box is opened, the item clicked.
void choose(Shown& s, QComboBox* box, const QString& words)
{
    const int at = box->findText(words);
    REQUIRE(at >= 0);
    box->setFocus();
    box->showPopup();
    s.settle();
    auto* list = box->view();
    list->scrollTo(list->model()->index(at, 0));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualRect(list->model()->index(at, 0)).center());
    s.settle();
    QTest::qWait(30);
}

QString said(Shown& s) { return s.window.findChild<Banner*>()->text(); }

} // namespace

TEST_CASE("A cloth from a table is chosen, saved with the design, and follows the library only when told")
{
    const NoOwnLibrary after;
    QTemporaryDir dir;
    const QString table = dir.filePath("cloths.csv"), file = dir.filePath("bag.tectonis");
    QFile::copy(kDemo, file);
    QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
    Shown s(file);
    write(table, "name;thickness;gsm;heat\nCork, blue;0,8;10 oz;nein\n");
    {
        FileName name({table});
        trigger(s, "Add materials from a file…");
    }
    CHECK(said(s).contains("line 2, column 22: heat: “nein”"));
    CHECK(shellBox(s)->findText("Cork, blue") < 0);
    write(table, "name;thickness;gsm;heat\nCork, blue;0,8;10 oz;no\n");
    {
        FileName name({table});
        trigger(s, "Add materials from a file…");
    }
    CHECK(said(s).contains("One entry is in your library now: Cork, blue."));
    choose(s, shellBox(s), "Cork, blue");
    CHECK(s.window.document().design().materials.at("shell") == "cork-blue");
    CHECK(shellBox(s)->currentText() == "Cork, blue");
    // Undone, the cloth can still be chosen again.
    s.window.document().undoStack().undo();
    s.settle();
    CHECK(shellBox(s)->currentText() != "Cork, blue");
    choose(s, shellBox(s), "Cork, blue");
    trigger(s, "Save");
    CHECK_FALSE(s.window.document().modified());

    // The supplier's next lot is thicker.
    write(table, "id,name,thickness,gsm,heat\ncork-blue,\"Cork, blue\",0.95,339,no\n");
    {
        FileName name({table});
        trigger(s, "Add materials from a file…");
    }
    CHECK(s.window.document().pattern().material("cork-blue").thickness == Approx(0.8));
    QStringList listed;
    const auto answer = [&](QDialogButtonBox::ButtonRole role) {
        QTimer::singleShot(200, [&listed, role] {
            QWidget* dialog = QApplication::activeModalWidget();
            REQUIRE(dialog);
            REQUIRE(dialog->objectName() == "newerValues");
            auto* rows = dialog->findChild<QTableWidget*>();
            for (int r = 0; r < rows->rowCount(); ++r)
                listed << rows->item(r, 0)->text() + " " + rows->item(r, 1)->text() + " " + rows->item(r, 2)->text()
                        + " " + rows->item(r, 3)->text();
            auto* buttons = dialog->findChild<QDialogButtonBox*>();
            for (auto* b : buttons->buttons())
                if (buttons->buttonRole(b) == role)
                    QTest::mouseClick(b, Qt::LeftButton);
        });
        trigger(s, "Take newer values into the design…");
    };
    answer(QDialogButtonBox::RejectRole);
    REQUIRE(listed.size() == 2);
    CHECK(listed[0] == "Cork, blue Thickness 0.8 0.95");
    CHECK(s.window.document().pattern().material("cork-blue").thickness == Approx(0.8));
    answer(QDialogButtonBox::AcceptRole);
    s.settle();
    CHECK(s.window.document().pattern().material("cork-blue").thickness == Approx(0.95));
    CHECK(s.window.document().modified());
    s.window.document().undoStack().undo();
    CHECK(s.window.document().pattern().material("cork-blue").thickness == Approx(0.8));
    s.window.document().undoStack().redo();
    trigger(s, "Take newer values into the design…");
    CHECK(said(s).contains("has the values of your library already"));

    // Out as a table.
    const QString out = dir.filePath("mine.csv");
    {
        FileName name({out});
        trigger(s, "Write my library…");
    }
    QFile written(out);
    REQUIRE(written.open(QIODevice::ReadOnly));
    CHECK(QString::fromUtf8(written.readAll()).contains("cork-blue,\"Cork, blue\",face"));
    trigger(s, "Save");
}

TEST_CASE("A file with somebody else's cloth opens; its cloth can be kept")
{
    const NoOwnLibrary after;
    QTemporaryDir dir;
    const QString file = dir.filePath("other.tectonis");
    Design d = newDesign("large-tote");
    Library::Contents contents;
    contents.materials.push_back({.id = "sailcloth", .name = "Old sail", .thickness = 0.33, .gsm = 210});
    d.library = SharedLibrary(Library::builtIn()->with(Library(contents)));
    setMaterial(d, "shell", "sailcloth");
    saveDesign(d, file.toStdString());
    {
        Shown s(file);
        CHECK(shellBox(s)->currentText() == "Old sail");
        // Far back in the undo stack it is still what it was.
        for (const char* height : {"331", "332", "333", "334"})
            s.window.document().edit("Height", [&](Design& n) { change::dimension(n, "height", height); });
        while (s.window.document().undoStack().canUndo())
            s.window.document().undoStack().undo();
        CHECK(s.window.document().pattern().material("sailcloth").thickness == Approx(0.33));
        CHECK(s.window.document().design() == d);
        trigger(s, "Keep the design's materials in my library");
        CHECK(said(s).contains("One of the design's entries is new"));
        trigger(s, "Keep the design's materials in my library");
        CHECK(said(s).contains("has all entries of this design already"));
    }
    Shown s; // another design, later
    CHECK(shellBox(s)->findText("Old sail") >= 0);
}

TEST_CASE("A material that nobody knows is a snag that leads to Build-up, and the window shows it as unknown")
{
    QTemporaryDir dir;
    const QString file = dir.filePath("strange.tectonis");
    std::string bytes = designText(newDesign("large-tote"));
    const std::string id = newDesign("large-tote").materials.at("shell");
    for (std::size_t at; (at = bytes.find("\"shell\": \"" + id)) != std::string::npos;)
        bytes.replace(at, 10 + id.size(), "\"shell\": \"heirloom");
    write(file, QByteArray::fromStdString(bytes));
    Shown s(file);
    CHECK(shellBox(s)->currentText() == "Unknown: heirloom");
    const auto& found = s.window.document().findings();
    CHECK(std::any_of(found.begin(), found.end(), [](const Finding& f) { return f.check == "library"; }));
    choose(s, shellBox(s), "Denim, 10 oz (339 g/m²)");
    const auto& after = s.window.document().findings();
    CHECK(std::none_of(after.begin(), after.end(), [](const Finding& f) { return f.check == "library"; }));
    trigger(s, "Save");
}

TEST_CASE("The machine chosen on Build-up brings its limit, foot and rates")
{
    Shown s;
    s.window.goTo(2);
    auto* box = s.find<QComboBox>("workshop");
    choose(s, box, "Household flat-bed");
    CHECK(s.window.document().design().workshop.machineLimit == 6);
    CHECK(s.find<QComboBox>("workshop")->currentText() == "Household flat-bed");
    s.window.document().undoStack().undo();
    CHECK(s.window.document().design().workshop.machineLimit == 8);
}

TEST_CASE("A workshop is made of another one by typing, and chosen on Build-up with what was typed")
{
    const NoOwnLibrary after;
    Shown s;
    QTimer::singleShot(200, [&] {
        auto* window = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        REQUIRE(window);
        const auto closed = qScopeGuard([&] { window->reject(); });
        window->activateWindow();
        CHECK(QTest::qWaitForWindowActive(window));
        auto* tabs = window->findChild<QTabWidget*>();
        QTest::mouseClick(tabs->tabBar(), Qt::LeftButton, {}, tabs->tabBar()->tabRect(2).center());
        auto* view = window->findChild<QTableView*>("workshops");
        REQUIRE(view->isVisible());
        REQUIRE(view->model()->rowCount() == int(Library::builtIn()->workshops().size()));
        CHECK(
            view->model()->headerData(view->model()->columnCount() - 1, Qt::Horizontal).toString() == "Ways of making");
        const auto click = [&](int row, int column) {
            const QModelIndex at = view->model()->index(row, column);
            view->scrollTo(at);
            QTest::mouseClick(view->viewport(), Qt::LeftButton, {}, view->visualRect(at).center());
        };
        const auto typed = [&](const char* words) {
            QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
            REQUIRE(QTest::qWaitFor([&] { return view->viewport()->findChild<QLineEdit*>() != nullptr; }, 5000));
            auto* editor = view->viewport()->findChild<QLineEdit*>();
            editor->selectAll();
            QTest::keyClicks(editor, words);
            QTest::keyClick(editor, Qt::Key_Return);
            QCoreApplication::processEvents();
        };
        click(2, 0); // the household machine
        for (auto* b : window->findChildren<QPushButton*>())
            if (b->text() == "Duplicate")
                QTest::mouseClick(b, Qt::LeftButton);
        typed("Grandmother's treadle");
        REQUIRE(ownLibrary().workshops().size() == 1);
        CHECK(ownLibrary().workshops().front().machine == "Grandmother's treadle");
        int row = -1;
        for (int r = 0; r < view->model()->rowCount(); ++r)
            if (view->model()->index(r, 0).data().toString() == "Grandmother's treadle")
                row = r;
        click(row, 1);
        QTest::keyClick(view, Qt::Key_5);
        typed("5 mm");
        CHECK(ownLibrary().workshops().front().machineLimit == 5);
        click(row, 1);
        QTest::keyClick(view, Qt::Key_9);
        typed("900");
        CHECK(window->findChild<QLabel*>("library.told")->text().contains("Thickest stack"));
        CHECK(ownLibrary().workshops().front().machineLimit == 5);
    });
    for (auto* action : s.window.findChildren<QAction*>())
        if (action->objectName() == "library.open")
            action->trigger();
    s.window.goTo(2);
    choose(s, s.find<QComboBox>("workshop"), "Grandmother's treadle");
    CHECK(s.window.document().design().workshop.machineLimit == 5);
    CHECK(s.window.document().design().workshop.stitchSpeed == 0.8);
}

TEST_CASE("The library is searched, sorted, duplicated, edited by typing, compared and undone; designs choose from it")
{
    const NoOwnLibrary after;
    Shown s;
    QTimer::singleShot(200, [&] {
        auto* window = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        REQUIRE(window);
        const auto closed = qScopeGuard([&] { window->reject(); }); // whatever is found
        window->activateWindow();
        CHECK(QTest::qWaitForWindowActive(window));
        auto* view = window->findChild<QTableView*>("materials");
        auto* search = window->findChild<QLineEdit*>("library.search");
        const auto press = [&](const char* label) {
            for (auto* b : window->findChildren<QPushButton*>())
                if (b->text() == label)
                    QTest::mouseClick(b, Qt::LeftButton);
        };
        const auto shown = [&](int row, int column) { return view->model()->index(row, column).data().toString(); };
        const auto click = [&](int row, int column, Qt::KeyboardModifiers with = {}) {
            const QModelIndex at = view->model()->index(row, column);
            view->scrollTo(at);
            QTest::mouseClick(view->viewport(), Qt::LeftButton, with, view->visualRect(at).center());
        };
        const auto column = [&](const char* title) {
            for (int c = 0; c < view->model()->columnCount(); ++c)
                if (view->model()->headerData(c, Qt::Horizontal).toString() == title)
                    return c;
            throw std::runtime_error(title);
        };
        const auto enter = [](QLineEdit* editor) {
            QTest::keyClick(editor, Qt::Key_Return);
            QCoreApplication::processEvents(); // what was typed is taken then
        };
        const int all = view->model()->rowCount();
        QTest::keyClicks(search, "canvas 12");
        REQUIRE(view->model()->rowCount() == 1);
        CHECK(shown(0, 0).startsWith("Cotton canvas, 12 oz"));

        // Duplicate: the copy's name is typed at once; then a price, by one click and typing.
        click(0, 0);
        press("Duplicate");
        CHECK(search->text().isEmpty());
        const auto field = [&] {
            QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // editors that were closed
            CHECK(QTest::qWaitFor([&] { return view->viewport()->findChild<QLineEdit*>() != nullptr; }, 5000));
            auto* open = view->viewport()->findChild<QLineEdit*>();
            REQUIRE(open);
            return open;
        };
        auto* editor = field();
        editor->selectAll();
        QTest::keyClicks(editor, "Sailcloth from the attic");
        enter(editor);
        QTest::keyClicks(search, "attic");
        REQUIRE(view->model()->rowCount() == 1);
        click(0, column("Price per metre"));
        QTest::keyClicks(view, "0");
        enter(field());
        CHECK(ownLibrary().materials().size() == 1);
        CHECK(ownLibrary().materials().front().name == "Sailcloth from the attic");
        CHECK(ownLibrary().materials().front().price == 0);
        CHECK(shown(0, column("Price per metre")) == "0"); // donated, and it says so
        CHECK(view->verticalHeader()->isVisible());        // the price lies to the right: the rows keep their names
        CHECK(view->model()->headerData(0, Qt::Vertical).toString() == "Sailcloth from the attic");

        // What cannot be is told, and nothing is lost.
        click(0, column("Thickness"));
        QTest::keyClicks(view, "thick");
        enter(field());
        CHECK(window->findChild<QLabel*>("library.told")->text().contains("Thickness"));
        CHECK(ownLibrary().materials().front().thickness == 0.75);
        click(0, column("Thickness"));
        for (const char c : std::string("1/32 in")) { // the first opens the field, the rest goes into it
            QTest::keyClick(QApplication::focusWidget(), c);
            QCoreApplication::processEvents();
        }
        enter(field());
        CHECK(std::abs(ownLibrary().materials().front().thickness - 0.79375) < 1e-6);
        press("Undo");
        CHECK(ownLibrary().materials().front().thickness == 0.75);
        press("Redo");
        CHECK(ownLibrary().materials().front().thickness > 0.79);

        // Two side by side: only columns that differ are left.
        search->clear();
        CHECK(view->model()->rowCount() == all + 1);
        int first = -1, second = -1;
        for (int r = 0; r < view->model()->rowCount(); ++r) {
            if (shown(r, 0).startsWith("Cotton canvas"))
                first = r;
            if (shown(r, 0).startsWith("Sailcloth"))
                second = r;
        }
        click(first, 0);
        click(second, 0, Qt::ControlModifier);
        press("Compare");
        CHECK(view->model()->rowCount() == 2);
        CHECK(!view->isColumnHidden(column("Price per metre")));
        CHECK(view->isColumnHidden(column("Width")));
        press("Compare");
        CHECK(view->model()->rowCount() == all + 1);

        // Sorted by thickness as numbers.
        view->sortByColumn(column("Thickness"), Qt::DescendingOrder);
        CHECK(shown(0, column("Thickness")) == "10 mm");

        // An own one is taken out; what ships cannot be.
        QTest::keyClicks(search, "attic");
        click(0, 0);
        press("Take out");
        CHECK(ownLibrary().materials().empty());
        press("Undo");
        CHECK(ownLibrary().materials().size() == 1);
    });
    for (auto* action : s.window.findChildren<QAction*>())
        if (action->objectName() == "library.open")
            action->trigger();
    const auto& mine = s.window.document().library()->materials();
    CHECK(
        std::any_of(mine.begin(), mine.end(), [](const Material& m) { return m.name == "Sailcloth from the attic"; }));
}
