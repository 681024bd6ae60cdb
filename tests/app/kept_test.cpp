// SPDX-License-Identifier: GPL-3.0-or-later
// Work is never lost in silence: what is saved over, closed, changed, recovered or renamed is asked or told first.
#include "driven.hpp"

#include "process.hpp"
#include "qtext.hpp"
#include "recovery.hpp"

#include <QAction>
#include <QMenu>

#include <sys/stat.h>
#include <thread>

using namespace tectonis;

namespace {

void closeWithout(Shown& s)
{
    const Answers discard({"Discard"});
    CHECK(s.window.close());
}

} // namespace

TEST_CASE("Save as: the ending is put on before it is asked; “bag v1.2” becomes bag v1.2.tectonis; an existing file is "
          "replaced only when told")
{
    QTemporaryDir dir;
    QFile::copy(kDemo, dir.filePath("own.tectonis"));
    QFile::setPermissions(dir.filePath("own.tectonis"), QFile::ReadOwner | QFile::WriteOwner);
    Shown s(dir.filePath("own.tectonis"));
    s.type("Depth", "131");
    {
        const FileName name({dir.filePath("bag v1.2")});
        trigger(s, "Save as…");
    }
    CHECK(QFile::exists(dir.filePath("bag v1.2.tectonis")));
    CHECK_FALSE(s.window.document().modified());
    const std::string other = "somebody else's";
    writeWhole(dir.filePath("taken.tectonis").toStdString(), other);
    {
        const FileName name({dir.filePath("taken")});
        const Answers keep({"Cancel"});
        trigger(s, "Save as…");
        REQUIRE(keep.asked().size() == 1);
        CHECK(keep.asked()[0].contains("taken.tectonis"));
    }
    CHECK(slurp(dir.filePath("taken.tectonis").toStdString()) == other);
    {
        const FileName name({dir.filePath("taken"), dir.filePath("free")});
        const Answers another({"Another name…"});
        trigger(s, "Save as…");
    }
    CHECK(slurp(dir.filePath("taken.tectonis").toStdString()) == other);
    CHECK(QFile::exists(dir.filePath("free.tectonis")));
    {
        const FileName name({dir.filePath("taken.tectonis")});
        const Answers replace({"Replace it"});
        trigger(s, "Save as…");
    }
    CHECK(loadDesign(dir.filePath("taken.tectonis").toStdString()).dimensions.at("depth").value == "131");
}

TEST_CASE("What stands in an open field is saved with the rest")
{
    QTemporaryDir dir;
    Shown s;
    const QString file = dir.filePath("bag.tectonis");
    s.window.document().save(file);
    auto* tree = s.find<QTreeWidget>("dimensions");
    QTest::mouseClick(
        tree->viewport(), Qt::LeftButton, {}, tree->visualItemRect(s.bringUp("Depth")).center() + QPoint(90, 0));
    s.keys("137"); // no Enter
    trigger(s, "Save");
    CHECK(loadDesign(file.toStdString()).dimensions.at("depth").value == "137");
    CHECK_FALSE(s.window.document().modified());
}

TEST_CASE("A file that somebody else changed is not overwritten without a question")
{
    QTemporaryDir dir;
    const QString file = dir.filePath("bag.tectonis");
    QFile::copy(kDemo, file);
    QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
    Shown one(file), two(file);
    two.type("Depth", "128");
    trigger(two, "Save");
    CHECK(loadDesign(file.toStdString()).dimensions.at("depth").value == "128");
    one.type("Depth", "134");
    {
        const Answers no({"Cancel"});
        trigger(one, "Save");
        REQUIRE(no.asked().size() == 1);
        CHECK(no.asked()[0].contains("changed by another"));
    }
    CHECK(loadDesign(file.toStdString()).dimensions.at("depth").value == "128");
    CHECK(one.window.document().modified());
    {
        const Answers yes({"Put mine in its place"});
        trigger(one, "Save");
    }
    CHECK(loadDesign(file.toStdString()).dimensions.at("depth").value == "134");
    // A file that is gone is simply written again; a read-only one is refused in words.
    QFile::remove(file);
    one.type("Depth", "135");
    trigger(one, "Save");
    CHECK(QFile::exists(file));
    ::chmod(file.toStdString().c_str(), 0444);
    one.type("Depth", "136");
    trigger(one, "Save");
    CHECK(one.find<QLabel>("bannerText")->text().contains("read-only"));
    CHECK(one.window.document().modified());
    ::chmod(file.toStdString().c_str(), 0644);
    closeWithout(one);
}

TEST_CASE("Recovery: steady editing is kept, the offer asks before it replaces, what is put away can be fetched again, "
          "the file's name is known")
{
    QTemporaryDir dir;
    const QString file = dir.filePath("bag.tectonis");
    QFile::copy(kDemo, file);
    QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
    // A run that edits without a pause and is killed.
    const Ran killed = shell("timeout -s KILL 7 " + QCoreApplication::applicationFilePath().toStdString()
        + " --edit-until-killed " + file.toStdString());
    CHECK(killed.code == 137);
    auto left = Recovery::leftovers();
    for (int i = 0; i < 40 && left.empty(); ++i) { // the killed one may still be going
        QTest::qWait(50);
        left = Recovery::leftovers();
    }
    REQUIRE(left.size() == 1);
    CHECK(left[0].file == file);
    CHECK(left[0].name == "Tuner's tool satchel");
    const Design kept = loadDesign(left[0].copy.toStdString());
    CHECK(std::stod(kept.dimensions.at("depth").value) > 120.5);
    left.clear();

    Shown s;
    s.type("Depth", "133");
    s.window.offerRecovery();
    s.settle();
    CHECK(s.find<QLabel>("bannerText")->text().contains("bag.tectonis"));
    // A broken file named then is told too, not hidden.
    std::ofstream(dir.filePath("broken.tectonis").toStdString()) << "nothing";
    CHECK_FALSE(s.window.openFile(dir.filePath("broken.tectonis")));
    s.settle();
    CHECK(s.find<QLabel>("bannerText")->text().contains("broken.tectonis"));
    QTest::mouseClick(s.find<QPushButton>("banner.Understood"), Qt::LeftButton);
    s.settle();
    {
        const Answers no({"Cancel"});
        QTest::mouseClick(s.find<QPushButton>("banner.Open it"), Qt::LeftButton);
        CHECK(no.asked().size() == 1);
    }
    CHECK(s.value("Depth") == "133 mm");
    QTest::mouseClick(s.find<QPushButton>("banner.Put it away"), Qt::LeftButton);
    s.settle();
    CHECK_FALSE(s.find<QWidget>("banner")->isVisibleTo(&s.window));
    CHECK(Recovery::leftovers().empty());
    REQUIRE(Recovery::putAwayCopies().size() == 1);
    // Fetched again from the menu: it is as it was, and Save would go to its own file.
    QMenu* away = nullptr;
    for (auto* menu : s.window.findChildren<QMenu*>())
        if (QString(menu->title()).remove('&') == "Unsaved work put away")
            away = menu;
    REQUIRE(away);
    emit away->aboutToShow();
    {
        const Answers discard({"Discard"});
        away->actions().first()->trigger();
    }
    CHECK(s.window.document().design() == kept);
    CHECK(s.window.document().fileName() == file);
    CHECK(s.window.document().modified());
    trigger(s, "Save");
    CHECK(loadDesign(file.toStdString()) == kept);
    CHECK(Recovery::leftovers().empty());
}

TEST_CASE("Another form: what cannot stay is told before; name, things, trials and own sizes stay; keeping the form "
          "keeps everything")
{
    Shown s;
    s.type("Corner radius", "47");
    s.window.document().edit("own", [](Design& d) {
        setSizes(d, {"Small", "Tall"}, "Small");
        d.trials.push_back({"2026-11-25", "Small", "Strap (webbing) too short", 331, 0, 0, 0, 0, 0, {}});
        d.revisions.push_back({"2026-11-25", "taller", {}});
    });
    const Design before = s.window.document().design();
    {
        const Answers keep({"Keep this one"});
        QTest::mouseClick(s.find<QAbstractButton>("form.large-tote"), Qt::LeftButton);
        REQUIRE(keep.asked().size() == 1);
        CHECK(keep.asked()[0].contains("Corner radius 47 mm"));
    }
    CHECK(s.window.document().design() == before);
    s.window.activateWindow();
    s.clickForm("large-tote");
    const Design& after = s.window.document().design();
    CHECK(after.form == "large-tote");
    CHECK(after.name == before.name);
    CHECK(after.carried == before.carried);
    CHECK(after.trials == before.trials);
    CHECK(after.revisions == before.revisions);
    CHECK(after.sizes == before.sizes);
    CHECK(after.dimensions.at("width") == before.dimensions.at("width"));
    s.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(s.window.document().design() == before);
}

TEST_CASE("A trial's note is kept whole, minutes that no work takes are refused with their range, a renamed size keeps "
          "its values")
{
    Shown s;
    s.press(Qt::Key_9, Qt::ControlModifier);
    QTest::mouseClick(s.find<QPushButton>("newTrial"), Qt::LeftButton);
    s.settle();
    auto* table = s.find<QTableWidget>("trials");
    const int column = table->columnCount() - 1;
    int note = 0;
    while (table->verticalHeaderItem(note)->text() != "Note")
        ++note;
    const int minutes = note - 1;
    const auto type = [&](int row, const QString& words) {
        QTest::mouseClick(
            table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(row, column)).center());
        s.keys(words);
        QTest::keyClick(s.focus(), Qt::Key_Return);
        s.settle();
    };
    type(note, "Strap (webbing) too short; 5 mm");
    CHECK(s.window.document().design().trials.back().note == "Strap (webbing) too short; 5 mm");
    type(minutes, "20261112");
    CHECK(s.find<QLabel>("refusal")->text().contains("0 to 100000"));
    CHECK(s.window.document().design().trials.back().minutes == 0);
    type(minutes, "95");
    CHECK(s.window.document().design().trials.back().minutes == 95);
    // Editing a measure begins with the measure alone, not with the difference behind it.
    type(0, "338");
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(0, column)).center());
    CHECK(qobject_cast<QLineEdit*>(s.focus())->text() == "338 mm");
    QTest::keyClick(s.focus(), Qt::Key_Escape);

    s.press(Qt::Key_5, Qt::ControlModifier);
    s.window.document().edit("own", [](Design& d) { setDimension(d, "width", "365", "L"); });
    auto* names = s.find<QLineEdit>("sizeNames");
    QTest::mouseClick(names, Qt::LeftButton);
    names->selectAll();
    s.keys("S M Large4");
    QTest::keyClick(names, Qt::Key_Return);
    s.settle();
    CHECK(s.window.document().design().sizes.back() == "Large4");
    CHECK(s.window.document().design().dimensions.at("width").bySize
        == std::map<std::string, std::string>{{"Large4", "365"}});
    // Enter lets go: the next key is the stage's again.
    s.press(Qt::Key_4);
    CHECK(s.window.stage() == 3);
    CHECK(names->text() == "S M Large4");
}

TEST_CASE("Pieces as SVG from the window: as many files as pieces, whatever the sizes are called")
{
    QTemporaryDir dir;
    Shown s;
    s.window.document().edit("names", [](Design& d) { setSizes(d, {"S/M", "S*M", "小"}, ""); });
    s.press(Qt::Key_8, Qt::ControlModifier);
    s.settle();
    for (const char* size : {"S/M", "S*M", "小"})
        if (auto* box = s.find<QCheckBox>((std::string("sheetSize.") + size).c_str()); !box->isChecked())
            QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
    s.settle();
    const FileName name({dir.path()});
    QTest::mouseClick(s.find<QPushButton>("write.pieces"), Qt::LeftButton);
    auto* said = s.find<QLabel>("exportSaid");
    REQUIRE(QTest::qWaitFor([&] { return said->text().startsWith("Written"); }, 20000));
    const int pieces = int(s.window.document().pattern().pieces.size()) * 3;
    CHECK(QDir(dir.path()).entryList({"*.svg"}, QDir::Files).size() == pieces);
    CHECK(said->text().contains(QString("%1 pieces").arg(pieces)));
}
