// SPDX-License-Identifier: GPL-3.0-or-later
// The library to look into and to edit: search, sort, duplicate, compare, undo. What is changed is the user's own at
// once.
#pragma once

#include "library_model.hpp"

#include <QDialog>
#include <QUndoStack>

class QLabel;
class QLineEdit;
class QPushButton;
class QTableView;
class QTabWidget;

namespace tectonis {

class LibraryWindow : public QDialog {
    Q_OBJECT
public:
    /// @p changed is called when the user's own library was written.
    LibraryWindow(Unit unit, std::function<void()> changed, QWidget* parent);

private:
    struct Page {
        LibraryModel* model;
        class LibraryFilter* filter;
        QTableView* view;
    };
    Page makePage(LibraryModel::Of of, Unit unit, const QString& title, const char* name);
    Page& page();
    QList<int> selectedRows(); ///< of the model
    bool edit(const QString& what, const Library& own);
    void write(const Library& own);
    void addLike(bool likeTheOneInHand);
    void compare(bool on);
    void tell();

    std::function<void()> m_changed;
    Library m_own;
    QUndoStack m_undo;
    QTabWidget* m_tabs;
    std::vector<Page> m_pages;
    QLineEdit* m_search;
    QLabel* m_told;
    QPushButton *m_remove, *m_compare, *m_duplicate;
};

} // namespace tectonis
