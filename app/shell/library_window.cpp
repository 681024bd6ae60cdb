// SPDX-License-Identifier: GPL-3.0-or-later
#include "library_window.hpp"

#include "formats/own_library.hpp"
#include "qtext.hpp"
#include "units/error.hpp"

#include <QAction>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollBar>
#include <QSortFilterProxyModel>
#include <QTabBar>
#include <QTabWidget>
#include <QTableView>
#include <QUndoCommand>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {

/// Rows that hold all words that are sought, anywhere; or just those that are compared.
class LibraryFilter : public QSortFilterProxyModel {
public:
    using QSortFilterProxyModel::QSortFilterProxyModel;
    void seek(const QString& words)
    {
        m_words = words.split(' ', Qt::SkipEmptyParts);
        invalidateFilter();
    }
    void only(const QList<int>& rows)
    {
        m_only = rows;
        invalidateFilter();
    }

protected:
    bool filterAcceptsRow(int row, const QModelIndex&) const override
    {
        if (!m_only.isEmpty())
            return m_only.contains(row);
        return std::all_of(m_words.begin(), m_words.end(), [&](const QString& word) {
            for (int c = 0; c < sourceModel()->columnCount(); ++c)
                if (sourceModel()->data(sourceModel()->index(row, c)).toString().contains(word, Qt::CaseInsensitive))
                    return true;
            return false;
        });
    }

private:
    QStringList m_words;
    QList<int> m_only;
};

namespace {

class OwnLibraryEdit : public QUndoCommand {
public:
    OwnLibraryEdit(const QString& what, Library before, Library after, std::function<void(const Library&)> write)
        : QUndoCommand(what), m_before(std::move(before)), m_after(std::move(after)), m_write(std::move(write))
    {}
    void undo() override { m_write(m_before); }
    void redo() override { m_write(m_after); }

private:
    Library m_before, m_after;
    std::function<void(const Library&)> m_write;
};

} // namespace

LibraryWindow::LibraryWindow(Unit unit, std::function<void()> changed, QWidget* parent)
    : QDialog(parent), m_changed(std::move(changed))
{
    setObjectName("library");
    setWindowTitle(spoken("Library"));
    auto* column = new QVBoxLayout(this);
    auto* bar = new QHBoxLayout;
    m_search = new QLineEdit;
    m_search->setObjectName("library.search");
    m_search->setPlaceholderText(spoken("Search"));
    m_search->setAccessibleName(spoken("Search"));
    m_search->setClearButtonEnabled(true);
    bar->addWidget(m_search, 1);
    const auto button = [&](const QString& words) {
        auto* out = new QPushButton(words);
        out->setAutoDefault(false);
        bar->addWidget(out);
        return out;
    };
    auto* fresh = button(spoken("New entry"));
    m_duplicate = button(spoken("Duplicate"));
    m_remove = button(spoken("Take out"));
    m_compare = button(spoken("Compare"));
    m_compare->setCheckable(true);
    auto* undo = button(spoken("Undo"));
    auto* redo = button(spoken("Redo"));
    column->addLayout(bar);
    m_tabs = new QTabWidget;
    m_tabs->setDocumentMode(true);
    m_tabs->setUsesScrollButtons(false);
    for (auto* unused : m_tabs->tabBar()->findChildren<QAbstractButton*>())
        unused->setAccessibleName({}); // Qt gives them names in English
    column->addWidget(m_tabs, 1);
    m_pages = {makePage(LibraryModel::Of::Materials, unit, spoken("Cloths, interlinings, webbing"), "materials"),
        makePage(LibraryModel::Of::Goods, unit, spoken("Zips, hardware, thread"), "goods"),
        makePage(LibraryModel::Of::Workshops, unit, spoken("Workshops"), "workshops")};
    m_told = new QLabel;
    m_told->setObjectName("library.told");
    m_told->setWordWrap(true);
    column->addWidget(m_told);

    connect(m_search, &QLineEdit::textChanged, this, [this](const QString& words) {
        for (auto& each : m_pages)
            each.filter->seek(words);
    });
    connect(fresh, &QPushButton::clicked, this, [this] { addLike(false); });
    connect(m_duplicate, &QPushButton::clicked, this, [this] { addLike(true); });
    connect(m_remove, &QPushButton::clicked, this, [this] {
        if (const auto rows = selectedRows(); rows.size() == 1)
            page().model->remove(rows.front());
    });
    connect(m_compare, &QPushButton::toggled, this, &LibraryWindow::compare);
    for (const auto& [press, action] :
        {std::pair{undo, m_undo.createUndoAction(this)}, {redo, m_undo.createRedoAction(this)}}) {
        action->setShortcut(press == undo ? QKeySequence::Undo : QKeySequence::Redo);
        addAction(action);
        connect(press, &QPushButton::clicked, action, &QAction::trigger);
        connect(action, &QAction::changed, press,
            [press = press, action = action] { press->setEnabled(action->isEnabled()); });
        press->setEnabled(false);
    }
    connect(m_tabs, &QTabWidget::currentChanged, this, [this] {
        m_compare->setChecked(false);
        tell();
    });
    try {
        m_own = ownLibrary();
    } catch (const std::exception& e) {
        m_told->setText(spokenReason(e));
        fresh->setEnabled(false);
    }
    for (auto& each : m_pages)
        each.model->show(m_own);
    tell();
    resize(1120, 640);
}

LibraryWindow::Page LibraryWindow::makePage(LibraryModel::Of of, Unit unit, const QString& title, const char* name)
{
    Page out;
    out.model = new LibraryModel(
        of, unit, [this](const QString& what, const Library& own) { return edit(what, own); }, this);
    out.filter = new LibraryFilter(this);
    out.filter->setSourceModel(out.model);
    out.filter->setSortRole(Qt::UserRole);
    out.view = new QTableView;
    out.view->setObjectName(name);
    out.view->setAccessibleName(title);
    out.view->setModel(out.filter);
    out.view->setSortingEnabled(true);
    out.view->sortByColumn(0, Qt::AscendingOrder);
    out.view->verticalHeader()->hide();
    out.view->setSelectionMode(QAbstractItemView::ExtendedSelection);
    // A click that opens a little later (SelectedClicked) would select all that was typed by then.
    out.view->setEditTriggers(
        QAbstractItemView::DoubleClicked | QAbstractItemView::AnyKeyPressed | QAbstractItemView::EditKeyPressed);
    out.view->setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
    for (int c = 1; c < out.model->columnCount(); ++c) // a heading has its room, and “2000 g/m²”
        out.view->setColumnWidth(c,
            std::max(86,
                26
                    + out.view->horizontalHeader()->fontMetrics().horizontalAdvance(
                        out.model->headerData(c, Qt::Horizontal, Qt::DisplayRole).toString())));
    out.view->setColumnWidth(0, 260);
    // Scrolled to the right, the rows keep their names.
    auto* names = out.view->verticalHeader();
    names->setMaximumWidth(230);
    names->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    connect(out.view->horizontalScrollBar(), &QScrollBar::valueChanged, names,
        [names](int value) { names->setVisible(value > 120); });
    m_tabs->addTab(out.view, title);
    connect(out.model, &LibraryModel::refused, this, [this](const QString& why) { m_told->setText(why); });
    connect(out.view->selectionModel(), &QItemSelectionModel::selectionChanged, this, &LibraryWindow::tell);
    return out;
}

LibraryWindow::Page& LibraryWindow::page() { return m_pages[std::size_t(std::max(0, m_tabs->currentIndex()))]; }

QList<int> LibraryWindow::selectedRows()
{
    QList<int> out;
    for (const auto& index : page().view->selectionModel()->selectedIndexes())
        if (const int row = page().filter->mapToSource(index).row(); !out.contains(row))
            out << row;
    return out;
}

bool LibraryWindow::edit(const QString& what, const Library& own)
{
    m_undo.push(new OwnLibraryEdit(what, m_own, own, [this](const Library& library) { write(library); }));
    return m_own == own; // else it could not be written
}

void LibraryWindow::write(const Library& own)
{
    try {
        writeOwnLibrary(own);
    } catch (const std::exception& e) {
        m_told->setText(spokenReason(e));
        return;
    }
    m_own = own;
    const QModelIndex at = page().filter->mapToSource(page().view->currentIndex());
    const QString id = page().model->idAt(at.row());
    for (auto& each : m_pages)
        each.model->show(m_own);
    if (const int row = page().model->rowOf(id); row >= 0)
        page().view->setCurrentIndex(page().filter->mapFromSource(page().model->index(row, at.column())));
    m_changed();
    tell();
}

void LibraryWindow::addLike(bool likeTheOneInHand)
{
    const auto rows = selectedRows();
    if (likeTheOneInHand && rows.isEmpty())
        return;
    m_search->clear();
    const QString id = page().model->addLike(likeTheOneInHand ? rows.front() : -1);
    if (const int row = page().model->rowOf(id); row >= 0) {
        const QModelIndex at = page().filter->mapFromSource(page().model->index(row, 0));
        page().view->setCurrentIndex(at);
        page().view->scrollTo(at);
        page().view->edit(at); // its name is typed first
    }
}

void LibraryWindow::compare(bool on)
{
    const auto rows = selectedRows();
    Page& here = page();
    const bool compares = on && rows.size() > 1;
    for (int c = 1; c < here.model->columnCount(); ++c)
        here.view->setColumnHidden(c, compares && !here.model->differ(rows, c));
    here.filter->only(compares ? rows : QList<int>());
    m_compare->setChecked(compares);
    tell();
}

void LibraryWindow::tell()
{
    const auto rows = selectedRows();
    m_duplicate->setEnabled(rows.size() == 1);
    m_remove->setEnabled(rows.size() == 1 && page().model->isOwn(rows.front()));
    m_remove->setToolTip(
        m_remove->isEnabled() ? QString() : spoken("Only what is your own, in bold, can be taken out."));
    m_compare->setEnabled(rows.size() > 1 || m_compare->isChecked());
    m_told->setText(m_compare->isChecked()
            ? spoken("Only what differs is shown.")
            : spoken(
                "In bold: your own. Click a value and type; what ships is kept under it. A design takes newer values "
                "when you ask for them in the Library menu."));
}

} // namespace tectonis
