// SPDX-License-Identifier: GPL-3.0-or-later
#include "library_model.hpp"

#include "library/fields.hpp"
#include "qtext.hpp"

#include <QFont>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

template <class Item> std::vector<Item>& itemsOf(Library::Contents& contents)
{
    if constexpr (std::is_same_v<Item, Material>)
        return contents.materials;
    else if constexpr (std::is_same_v<Item, Good>)
        return contents.goods;
    else
        return contents.workshops;
}

template <class Item> const std::vector<Item>& itemsOf(const Library& library)
{
    if constexpr (std::is_same_v<Item, Material>)
        return library.materials();
    else if constexpr (std::is_same_v<Item, Good>)
        return library.goods();
    else
        return library.workshops();
}

/// Columns: every field but an id that is a name for files.
template <class Item> constexpr int kHidden = std::is_same_v<Item, Workshop> ? 0 : 1;
template <class Item> const Field<Item>& fieldAt(int column)
{
    return fieldsOf<Item>()[std::size_t(column + kHidden<Item>)];
}

template <class Item> std::string& nameOf(Item& item)
{
    if constexpr (std::is_same_v<Item, Workshop>)
        return item.machine;
    else
        return item.name;
}

template <class Item> QString shown(const Item& item, const Field<Item>& field, Unit unit)
{
    return std::visit(
        [&](auto member) -> QString {
            const auto& value = item.*member;
            if constexpr (std::is_same_v<std::decay_t<decltype(value)>, double>) {
                if (field.quantity == FieldSpec::Quantity::Length)
                    return value == 0 ? QString() : text(readersLanguage().exactLength(value, unit));
                if (field.quantity == FieldSpec::Quantity::Weight)
                    return value == 0 ? QString() : number(value, 0) + " g/m²";
                return value == 0 && !field.zero ? QString() : number(value, 2);
            } else if constexpr (std::is_same_v<std::decay_t<decltype(value)>, bool>)
                return value ? spoken("yes") : spoken("no");
            else
                return text(value);
        },
        field.member);
}

} // namespace

template <class Visit> auto LibraryModel::visit(Visit&& visit) const
{
    return m_of == Of::Materials ? visit(Material()) : m_of == Of::Goods ? visit(Good()) : visit(Workshop());
}

LibraryModel::LibraryModel(Of of, Unit unit, std::function<bool(const QString&, const Library&)> edit, QObject* parent)
    : QAbstractTableModel(parent), m_of(of), m_unit(unit), m_edit(std::move(edit))
{}

void LibraryModel::show(const Library& own)
{
    Library mine = Library::builtIn()->with(own);
    const bool same = visit([&](auto kind) {
        const auto &was = itemsOf<decltype(kind)>(m_mine), &is = itemsOf<decltype(kind)>(mine);
        return std::equal(was.begin(), was.end(), is.begin(), is.end(),
            [](const auto& a, const auto& b) { return idOf(a) == idOf(b); });
    });
    if (!same)
        beginResetModel();
    m_own = own;
    m_mine = std::move(mine);
    if (same && rowCount() > 0) { // an editor that is open stays where it is
        emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
        return;
    }
    if (!same)
        endResetModel();
}

QString LibraryModel::idAt(int row) const
{
    return visit([&](auto kind) {
        const auto& items = itemsOf<decltype(kind)>(m_mine);
        return row >= 0 && row < int(items.size()) ? text(idOf(items[std::size_t(row)])) : QString();
    });
}

int LibraryModel::rowOf(const QString& id) const
{
    for (int row = 0; row < rowCount(); ++row)
        if (idAt(row) == id)
            return row;
    return -1;
}

bool LibraryModel::isOwn(int row) const
{
    const std::string id = idAt(row).toStdString();
    return visit([&](auto kind) {
        const auto& items = itemsOf<decltype(kind)>(m_own);
        return std::any_of(items.begin(), items.end(), [&](const auto& each) { return idOf(each) == id; });
    });
}

QString LibraryModel::addLike(int row)
{
    return visit([&](auto kind) {
        using Item = decltype(kind);
        const auto& items = itemsOf<Item>(m_mine);
        Item fresh = row >= 0 && row < int(items.size()) ? items[std::size_t(row)] : Item();
        nameOf(fresh) = row < 0 ? spoken("New entry").toStdString()
                                : spoken("{}, copy", text(nameOf(fresh))).toStdString();
        if constexpr (std::is_same_v<Item, Material>) {
            if (row < 0)
                fresh.thickness = 0.5;
        } else if constexpr (std::is_same_v<Item, Good>)
            if (row < 0)
                fresh.kind = items.empty() ? "ring" : items.front().kind;
        std::set<std::string> taken;
        for (const auto& each : items)
            taken.insert(idOf(each));
        if constexpr (!std::is_same_v<Item, Workshop>)
            fresh.id.clear(); // made from its name
        if (!completed(fresh).empty())
            return QString();
        const std::string plain = idOf(fresh);
        for (int n = 2; taken.contains(idOf(fresh)); ++n)
            idOf(fresh) = plain + (kHidden<Item> ? "-" : " ") + std::to_string(n);
        Library::Contents own = m_own.contents();
        itemsOf<Item>(own).push_back(fresh);
        return m_edit(row < 0 ? spoken("New entry") : spoken("Duplicate"), Library(own)) ? text(idOf(fresh))
                                                                                         : QString();
    });
}

bool LibraryModel::remove(int row)
{
    if (!isOwn(row))
        return false;
    const std::string id = idAt(row).toStdString();
    return visit([&](auto kind) {
        Library::Contents own = m_own.contents();
        std::erase_if(itemsOf<decltype(kind)>(own), [&](const auto& each) { return idOf(each) == id; });
        return m_edit(spoken("Take out of the library"), Library(own));
    });
}

bool LibraryModel::differ(const QList<int>& rows, int column) const
{
    return std::any_of(rows.begin(), rows.end(), [&](int row) {
        return data(index(row, column), Qt::DisplayRole) != data(index(rows.front(), column), Qt::DisplayRole);
    });
}

int LibraryModel::rowCount(const QModelIndex& parent) const
{
    return parent.isValid() ? 0 : visit([&](auto kind) { return int(itemsOf<decltype(kind)>(m_mine).size()); });
}

int LibraryModel::columnCount(const QModelIndex&) const
{
    return visit([](auto kind) { return int(fieldsOf<decltype(kind)>().size()) - kHidden<decltype(kind)>; });
}

QVariant LibraryModel::data(const QModelIndex& at, int role) const
{
    if (!at.isValid())
        return {};
    return visit([&](auto kind) -> QVariant {
        using Item = decltype(kind);
        const Item& item = itemsOf<Item>(m_mine)[std::size_t(at.row())];
        const auto& field = fieldAt<Item>(at.column());
        switch (role) {
        case Qt::DisplayRole: return shown(item, field, m_unit);
        case Qt::EditRole: return text(fieldText(item, field));
        case Qt::UserRole: // for sorting
            return std::visit(
                [&](auto member) -> QVariant {
                    if constexpr (std::is_same_v<std::decay_t<decltype(item.*member)>, std::string>)
                        return text(item.*member).toLower();
                    else
                        return item.*member;
                },
                field.member);
        case Qt::FontRole: {
            QFont font;
            font.setBold(isOwn(at.row()));
            return font;
        }
        case Qt::ToolTipRole:
            return text(idOf(item)) + "\n"
                + (isOwn(at.row()) ? spoken("your own") : spoken("ships with Tectonis; editing it makes it your own"));
        default: return {};
        }
    });
}

QVariant LibraryModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (role != Qt::DisplayRole)
        return {};
    if (orientation == Qt::Vertical) // its name, for when the column of names is out of sight
        return data(index(section, 0), role);
    return visit([&](auto kind) -> QVariant { return text(labelled(fieldAt<decltype(kind)>(section).title)); });
}

Qt::ItemFlags LibraryModel::flags(const QModelIndex& at) const
{
    return QAbstractTableModel::flags(at) | Qt::ItemIsEditable;
}

bool LibraryModel::setData(const QModelIndex& at, const QVariant& value, int role)
{
    if (role != Qt::EditRole || !at.isValid())
        return false;
    return visit([&](auto kind) {
        using Item = decltype(kind);
        Item item = itemsOf<Item>(m_mine)[std::size_t(at.row())];
        const auto& field = fieldAt<Item>(at.column());
        const std::string typed = value.toString().trimmed().toStdString();
        if (typed == fieldText(item, field))
            return false;
        const std::string id = idOf(item);
        Message wrong = setField(item, field, typed);
        if (wrong.empty())
            wrong = completed(item);
        if (wrong.empty() && idOf(item) != id && rowOf(text(idOf(item))) >= 0)
            wrong = say("there is another “{}”", idOf(item));
        if (!wrong.empty()) {
            emit refused(text(labelled(field.title)) + ": " + text(wrong));
            return false;
        }
        Library::Contents own = m_own.contents();
        auto& items = itemsOf<Item>(own);
        const auto known = std::find_if(items.begin(), items.end(), [&](const Item& each) { return idOf(each) == id; });
        if (known != items.end())
            *known = item;
        else
            items.push_back(item);
        return m_edit(text(labelled(field.title)), Library(own));
    });
}

} // namespace tectonis
