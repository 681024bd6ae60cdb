// SPDX-License-Identifier: GPL-3.0-or-later
// A two-column list of names and fields that a hand can use: one click or a key typed begins to edit, Tab goes on to
// the next field, Esc takes back and lets go.
#pragma once

#include <QTreeWidget>

#include <functional>

namespace tectonis {

class FieldTree : public QTreeWidget {
public:
    explicit FieldTree(const QString& name, QWidget* parent = nullptr);

    static constexpr int kName = Qt::UserRole;        ///< on column 0: what the row edits; empty: nothing
    static constexpr int kDetails = Qt::UserRole + 1; ///< on column 0: lines shown when the row is opened
    static constexpr int kTyped = Qt::UserRole + 2;   ///< on column 1: what stands in the field while it is edited

    /// Called with a row's name and the text when a field was changed by hand; false: it was refused.
    std::function<bool(const std::string& name, const QString& text)> typed;
    /// Called when Enter (with a value that was taken) or Esc lets go of the list: the next key is the stage's.
    std::function<void()> left;

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) override;
    // Boxes beside rows that come into sight are shown at once; Qt leaves out some that were hidden before.
    void updateGeometries() override;
    void scrollContentsBy(int dx, int dy) override;

private:
    QTreeWidgetItem* fieldAfter(QTreeWidgetItem* item, bool backwards) const;
    void letGo();
    QPersistentModelIndex m_pressed;
    mutable bool m_refused = false; ///< what was typed last
    friend class FieldDelegate;
};

/// A line under an opened row, broken to the docket's width.
QString wrappedLine(const QString& s, int width = 40);

} // namespace tectonis
