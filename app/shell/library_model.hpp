// SPDX-License-Identifier: GPL-3.0-or-later
// The library as a table: what ships with the user's own over it. Editing an entry makes it the user's own.
#pragma once

#include "languages.hpp"
#include "library/library.hpp"
#include "units/length.hpp"

#include <QAbstractTableModel>

#include <functional>

namespace tectonis {

/// Materials, goods or workshops, one row each, a column for every field but the id.
class LibraryModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum class Of { Materials, Goods, Workshops };
    /// @p edit is given what the user's own library shall be, and what was done in words; it may refuse.
    LibraryModel(Of of, Unit unit, std::function<bool(const QString&, const Library&)> edit, QObject* parent);

    /// @p own: the user's, which lies over what ships.
    void show(const Library& own);
    QString idAt(int row) const;
    int rowOf(const QString& id) const; ///< -1: none
    bool isOwn(int row) const;
    /// A new entry, like that of @p row if there is one. Returns its id; empty if it was refused.
    QString addLike(int row);
    /// The user's own is taken out; one that ships comes back as it was. False for what is not the user's.
    bool remove(int row);
    /// Do the rows differ in that column?
    bool differ(const QList<int>& rows, int column) const;

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

signals:
    void refused(const QString& why);

private:
    template <class Visit> auto visit(Visit&& visit) const;
    Of m_of;
    Unit m_unit;
    std::function<bool(const QString&, const Library&)> m_edit;
    Library m_own, m_mine;
};

} // namespace tectonis
