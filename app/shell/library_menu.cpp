// SPDX-License-Identifier: GPL-3.0-or-later
#include "library_menu.hpp"

#include "library_window.hpp"

#include "ask_file.hpp"
#include "design/carried_library.hpp"
#include "document.hpp"
#include "formats/own_library.hpp"
#include "qtext.hpp"

#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace tectonis {

LibraryMenu::LibraryMenu(Document& document, std::function<void(const QString&)> say, QWidget* parent)
    : QMenu(spoken("&Library"), parent), m_document(document), m_say(std::move(say))
{
    addAction(spoken("&Open the library…"), this, &LibraryMenu::open)->setObjectName("library.open");
    addAction(spoken("&Add materials from a file…"), this, &LibraryMenu::addFrom)->setObjectName("library.add");
    addAction(spoken("&Keep the design's materials in my library"), this, &LibraryMenu::keepTheDesigns)
        ->setObjectName("library.keep");
    addAction(spoken("&Write my library…"), this, &LibraryMenu::write)->setObjectName("library.write");
    addSeparator();
    addAction(spoken("&Take newer values into the design…"), this, &LibraryMenu::takeNewer)
        ->setObjectName("library.newer");
}

void LibraryMenu::readOwn()
{
    try {
        m_document.setLibrary(SharedLibrary(myLibrary()));
    } catch (const std::exception& e) {
        m_say(spoken(
            "Your own library cannot be read, so only what ships with Tectonis is offered. {}", spokenReason(e)));
    }
}

void LibraryMenu::open()
{
    LibraryWindow window(
        m_document.unit(), [this] { readOwn(); }, this->parentWidget());
    window.exec();
}

void LibraryMenu::addFrom()
{
    const QString file = QFileDialog::getOpenFileName(this->parentWidget(), spoken("Add materials from a file"),
        lastFolder(), spoken("Tables and libraries") + " (*.csv *.tsv *.txt *.json);;" + spoken("All files") + " (*)");
    if (file.isEmpty())
        return;
    rememberFolder(file);
    try {
        const ReadLibrary read = addToOwnLibrary(file.toStdString());
        readOwn();
        const auto& c = read.library.contents();
        QStringList names;
        for (const auto& m : c.materials)
            names << text(m.name);
        for (const auto& g : c.goods)
            names << text(g.name);
        const std::size_t others = c.stock.size() + c.papers.size() + c.workshops.size();
        const QString list = names.mid(0, 5).join("; ") + (names.size() > 5 ? "; …" : "");
        QString words = names.size() == 1
            ? spoken("One entry is in your library now: {}.", list)
            : spoken("{} entries are in your library now: {}.", QString::number(names.size()), list);
        if (others > 0)
            words += spoken(" And {} stock tables, papers and workshops.", others);
        for (const auto& told : read.told)
            words += " " + text(told).left(1).toUpper() + text(told).mid(1) + ".";
        m_say(words);
    } catch (const std::exception& e) {
        m_say(spoken("Nothing was taken. {}", spokenReason(e)));
    }
}

void LibraryMenu::keepTheDesigns()
{
    try {
        const std::size_t kept = keepInOwnLibrary(carriedBy(m_document.design()));
        readOwn();
        m_say(kept == 0     ? spoken("Your library has all entries of this design already.")
                : kept == 1 ? spoken("One of the design's entries is new in your library.")
                            : spoken("{} of the design's entries are new in your library.", kept));
    } catch (const std::exception& e) {
        m_say(spokenReason(e));
    }
}

void LibraryMenu::write()
{
    const QString file = askFileToWrite(this->parentWidget(), spoken("Write my library"), "library.csv", ".csv",
        spoken("Table of materials") + " (*.csv)");
    if (file.isEmpty())
        return;
    try {
        saveLibrary(*m_document.library(), file.toStdString());
        m_say(spoken("Written: {}", QFileInfo(file).fileName()));
    } catch (const std::exception& e) {
        m_say(spokenReason(e));
    }
}

void LibraryMenu::takeNewer()
{
    const auto values = newerValues(m_document.design(), *m_document.library());
    if (values.empty())
        return m_say(spoken("The design has the values of your library already."));
    QDialog dialog(this->parentWidget());
    dialog.setObjectName("newerValues");
    dialog.setWindowTitle(spoken("Newer values"));
    auto* column = new QVBoxLayout(&dialog);
    column->addWidget(new QLabel(spoken("The design carries other values than your library has.")));
    auto* table = new QTableWidget(int(values.size()), 4);
    table->setHorizontalHeaderLabels(
        {spoken("Of"), spoken("Value"), spoken("In the design"), spoken("In your library")});
    table->verticalHeader()->hide();
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int row = 0; row < int(values.size()); ++row) {
        const NewerValue& v = values[std::size_t(row)];
        int c = 0;
        for (const Message* words : {&v.name, &v.field, &v.was, &v.now})
            table->setItem(row, c++, new QTableWidgetItem(text(*words)));
    }
    column->addWidget(table);
    auto* buttons = new QDialogButtonBox;
    buttons->addButton(spoken("Take them"), QDialogButtonBox::AcceptRole);
    buttons->addButton(spoken("Leave the design as it is"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
    column->addWidget(buttons);
    dialog.resize(680, 300);
    if (dialog.exec() == QDialog::Accepted)
        m_document.edit(
            spoken("Newer values from the library"), [&](Design& d) { change::newerValues(d, *m_document.library()); });
}

void fillMaterials(QComboBox& box, const Library& library, const std::string& use)
{
    std::vector<const Material*> wanted;
    for (const auto& m : library.materials())
        if (m.use == use)
            wanted.push_back(&m);
    bool same = box.count() == int(wanted.size());
    for (int i = 0; same && i < box.count(); ++i)
        same = box.itemData(i).toString() == text(wanted[std::size_t(i)]->id)
            && box.itemText(i) == text(wanted[std::size_t(i)]->name);
    if (same)
        return;
    const QString chosen = box.currentData().toString();
    box.clear();
    for (const Material* m : wanted)
        box.addItem(text(m->name), text(m->id));
    if (const int at = box.findData(chosen); at >= 0)
        box.setCurrentIndex(at);
}

} // namespace tectonis
