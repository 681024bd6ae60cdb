// SPDX-License-Identifier: GPL-3.0-or-later
// What the window shows of a size is what `measure` says of that size: cloth to buy, bulk, steps, seams, the bag. Each
// size is clicked.
#include "driven.hpp"

#include "checks/finding.hpp"
#include "editing/draft.hpp"
#include "formats/measure_json.hpp"
#include "library/library.hpp"
#include "units/length.hpp"

#include "editing/edits.hpp"

#include <QCheckBox>
#include <QListWidget>
#include <QTableWidget>
#include <QTreeWidgetItemIterator>

#include <nlohmann/json.hpp>

using namespace tectonis;
using nlohmann::json;

TEST_CASE("The window's numbers of each size are measure's of that size")
{
    for (const char* form : {"gusseted-satchel", "large-tote", "zip-around"}) {
        Shown s;
        s.press(Qt::Key_1);
        if (std::string(form) != "gusseted-satchel")
            s.clickForm(form);
        const Design design = s.window.document().design();
        const auto patterns = draftAll(design);
        const json measured = json::parse(measureJson(design, patterns, checkAll(design, patterns)));
        for (const auto& size : measured["sizes"]) {
            const std::string name = size["name"];
            INFO(form << ", size " << name);
            QTest::mouseClick(s.find<QPushButton>(("size." + name).c_str()), Qt::LeftButton);
            s.settle();
            const auto shown = [](const json& mm) { return QString::fromStdString(formatLength(mm, Unit::Mm)); };
            s.press(Qt::Key_7);
            s.settle();
            auto* cloth = s.find<QTableWidget>("markers");
            REQUIRE(cloth->rowCount() == int(size["materials"].size()) + 1);
            for (int r = 0; r + 1 < cloth->rowCount(); ++r) {
                const json& m = size["materials"][std::size_t(r)];
                CHECK(cloth->item(r, 3)->text().toStdString()
                    == formatNumber(m["sold_length"].get<double>() / 1000, 1)
                        + (formatNumber(m["sold_length"].get<double>() / 1000, 1).find('.') == std::string::npos
                                ? ".0 m"
                                : " m"));
                CHECK(cloth->item(r, 2)->text() == shown(m["length"]));
                CHECK(cloth->item(r, 5)->text() == QString::number(m["cost"].get<double>(), 'f', 2));
            }
            s.press(Qt::Key_3);
            s.settle();
            auto* bulk = s.find<QTableWidget>("bulk");
            const int seams = int(size["seams"].size());
            REQUIRE(bulk->rowCount() == seams + int(size["strap_ends"].size()));
            for (int r = seams; r < bulk->rowCount(); ++r)
                CHECK(bulk->item(r, 1)->text() == shown(size["strap_ends"][std::size_t(r - seams)]["under_foot"]));
            for (int r = 0; r < seams; ++r) {
                const json& seam = size["seams"][std::size_t(r)];
                INFO(seam["key"]);
                CHECK(bulk->item(r, 1)->text() == shown(seam["under_foot"]));
                CHECK(bulk->item(r, 2)->text() == shown(seam["at_crossing"]));
            }
            s.press(Qt::Key_6);
            s.settle();
            auto* steps = s.find<QListWidget>("steps");
            REQUIRE(steps->count() == int(size["steps"].size()));
            for (int r = 0; r < steps->count(); ++r)
                CHECK(steps->item(r)->text()
                    == QString("%1  %2").arg(r + 1).arg(
                        QString::fromStdString(size["steps"][std::size_t(r)]["title"].get<std::string>())));
        }
    }
}

TEST_CASE("Sheets: the fold is offered where it saves pages, rectangles are left off when they are ticked, and undo "
          "brings both back")
{
    Shown s;
    s.press(Qt::Key_8);
    s.settle();
    const auto pages = [&] { return s.find<QLabel>("pageCount")->text(); };
    const QString whole = pages();
    auto* fold = s.find<QPushButton>("onTheFold");
    REQUIRE(fold->isVisibleTo(&s.window));
    const QString offered = fold->text().section(':', 1).section(' ', 1, 1); // "On the fold: 12 pages"
    QTest::mouseClick(fold, Qt::LeftButton);
    s.settle();
    CHECK(s.window.document().design().choices.at("templates") == "half");
    CHECK(pages().contains(": " + offered + " pages"));
    CHECK_FALSE(fold->isVisibleTo(&s.window)); // nothing more to save
    s.press(Qt::Key_Z, Qt::ControlModifier);
    s.settle();
    CHECK(pages() == whole);
    auto* figures = s.find<QCheckBox>("figures");
    QTest::mouseClick(figures, Qt::LeftButton, {}, QPoint(8, figures->height() / 2));
    s.settle();
    CHECK(figures->isChecked());
    CHECK(pages() != whole);
}

TEST_CASE("Inside measures are the main room's, also where a pocket was drafted first")
{
    Shown s;
    s.press(Qt::Key_1);
    s.clickForm("flat-pouch");
    s.window.document().edit("Pocket", [](Design& d) { setChoice(d, "pocket", "yes"); });
    s.settle();
    const Pattern& p = s.window.document().pattern();
    const auto main = std::find_if(
        p.spaces.begin(), p.spaces.end(), [](const Space& each) { return each.place == "main"; });
    REQUIRE(main != p.spaces.end());
    REQUIRE(main != p.spaces.begin()); // the pocket comes first
    QString all;
    for (auto* tree : s.window.findChildren<QTreeWidget*>())
        for (QTreeWidgetItemIterator it(tree); *it; ++it)
            if ((*it)->text(0) == "Inside")
                all += (*it)->text(1);
    CHECK(all.contains(QString::fromStdString(formatLengthBare(main->height, Unit::Mm))));
}
