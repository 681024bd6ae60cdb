// SPDX-License-Identifier: GPL-3.0-or-later
#include "field_tree.hpp"

#include "theme.hpp"

#include <QApplication>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPainter>
#include <QStyledItemDelegate>

namespace tectonis {

/// Draws the value of an editable row as a field, so that it looks like what it is; the editor begins with the exact
/// value.
class FieldDelegate : public QStyledItemDelegate {
public:
    explicit FieldDelegate(FieldTree* tree) : QStyledItemDelegate(tree), m_tree(tree) {}

    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        if (index.column() == 1 && (index.flags() & Qt::ItemIsEditable)) {
            p->save();
            p->setRenderHint(QPainter::Antialiasing);
            p->setPen(QPen(option.state & QStyle::State_Selected ? theme().accent : theme().line, 1));
            p->setBrush(theme().field);
            p->drawRoundedRect(QRectF(option.rect).adjusted(1.5, 2.5, -3.5, -2.5), 4, 4);
            p->setPen(index.data(Qt::ForegroundRole).isValid() ? index.data(Qt::ForegroundRole).value<QBrush>().color()
                                                               : theme().ink);
            p->setFont(option.font);
            const QRect room = option.rect.adjusted(7, 0, -8, 0);
            p->drawText(room, Qt::AlignVCenter | Qt::AlignRight,
                p->fontMetrics().elidedText(index.data().toString(), Qt::ElideRight, room.width()));
            p->restore();
            return;
        }
        QStyledItemDelegate::paint(p, option, index);
    }

    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        QSize s = QStyledItemDelegate::sizeHint(option, index);
        s.setHeight(std::max(s.height(), index.parent().isValid() ? 22 : 26));
        return s;
    }

    QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex& index) const override
    {
        auto* editor = new QLineEdit(parent);
        editor->setObjectName("fieldEditor");
        editor->setAccessibleName(index.siblingAtColumn(0).data().toString());
        editor->setAlignment(Qt::AlignRight);
        return editor;
    }

    void setEditorData(QWidget* editor, const QModelIndex& index) const override
    {
        auto* line = static_cast<QLineEdit*>(editor);
        if (line->isModified())
            return; // a refresh must not take away what is being typed
        m_tree->m_refused = false;
        line->setText(index.data(FieldTree::kTyped).toString());
        line->selectAll();
    }

    void setModelData(QWidget* editor, QAbstractItemModel*, const QModelIndex& index) const override
    {
        auto* line = static_cast<QLineEdit*>(editor);
        const QString typed = line->text().trimmed();
        if (line->isModified() && typed != index.data(FieldTree::kTyped).toString() && m_tree->typed) {
            line->setModified(false);
            m_tree->m_refused = !m_tree->typed(
                index.siblingAtColumn(0).data(FieldTree::kName).toString().toStdString(), typed);
        }
    }

    void updateEditorGeometry(QWidget* editor, const QStyleOptionViewItem& option, const QModelIndex&) const override
    {
        editor->setGeometry(option.rect.adjusted(1, 1, -2, -1));
    }

private:
    FieldTree* m_tree;
};

QString wrappedLine(const QString& s, int width)
{
    const QFontMetrics metrics(QApplication::font());
    const int room = width * 31 / 5, space = metrics.horizontalAdvance(' '); // px of a middling letter
    QString out;
    int used = 0;
    for (const QString& word : s.split(' ')) {
        const int wide = metrics.horizontalAdvance(word);
        if (used > 0 && used + space + wide > room)
            out += '\n', used = 0;
        else if (used > 0)
            out += ' ', used += space;
        out += word;
        used += wide;
    }
    return out;
}

FieldTree::FieldTree(const QString& name, QWidget* parent) : QTreeWidget(parent)
{
    setObjectName(name);
    setColumnCount(2);
    setHeaderHidden(true);
    header()->setSectionResizeMode(0, QHeaderView::Stretch);
    header()->setSectionResizeMode(1, QHeaderView::Fixed);
    header()->resizeSection(1, 138);
    header()->setStretchLastSection(false);
    setIndentation(12);
    setUniformRowHeights(false);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setItemDelegate(new FieldDelegate(this));
    setWordWrap(true);
    setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::AnyKeyPressed); // the click is ours
    // A heading opens and closes by a click on its words, other rows by two.
    setExpandsOnDoubleClick(false);
    connect(this, &QTreeWidget::itemClicked, this, [](QTreeWidgetItem* item) {
        if (!item->parent())
            item->setExpanded(!item->isExpanded());
    });
    connect(this, &QTreeWidget::itemDoubleClicked, this, [](QTreeWidgetItem* item) {
        if (item->parent() && !(item->flags() & Qt::ItemIsEditable))
            item->setExpanded(!item->isExpanded());
    });
}

void FieldTree::mousePressEvent(QMouseEvent* event)
{
    m_pressed = indexAt(event->pos());
    QTreeWidget::mousePressEvent(event);
    // The field takes the keys also when its name was clicked.
    if (m_pressed.isValid())
        if (const QModelIndex field = m_pressed.sibling(m_pressed.row(), 1); field.flags() & Qt::ItemIsEditable)
            setCurrentIndex(field);
}

void FieldTree::mouseReleaseEvent(QMouseEvent* event)
{
    QTreeWidget::mouseReleaseEvent(event);
    const QModelIndex at = indexAt(event->pos());
    if (event->button() == Qt::LeftButton && at.isValid() && at == m_pressed && at.column() == 1
        && (at.flags() & Qt::ItemIsEditable) && state() != EditingState)
        edit(at);
    m_pressed = QPersistentModelIndex();
}

void FieldTree::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Escape && state() != EditingState)
        return letGo();
    if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && state() != EditingState
        && currentIndex().isValid()) {
        const QModelIndex field = currentIndex().siblingAtColumn(1);
        if (field.flags() & Qt::ItemIsEditable) {
            edit(field);
            return;
        }
    }
    QTreeWidget::keyPressEvent(event);
}

void FieldTree::updateGeometries()
{
    QTreeWidget::updateGeometries();
    updateEditorGeometries();
}

void FieldTree::scrollContentsBy(int dx, int dy)
{
    QTreeWidget::scrollContentsBy(dx, dy);
    updateEditorGeometries();
}

void FieldTree::letGo()
{
    setCurrentIndex({});
    clearSelection();
    if (left)
        left();
}

QTreeWidgetItem* FieldTree::fieldAfter(QTreeWidgetItem* item, bool backwards) const
{
    for (item = backwards ? itemAbove(item) : itemBelow(item); item;
         item = backwards ? itemAbove(item) : itemBelow(item))
        if (!item->isHidden() && (item->flags() & Qt::ItemIsEditable) && !item->data(0, kName).toString().isEmpty())
            return item;
    return nullptr;
}

void FieldTree::closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint)
{
    const bool on = hint == QAbstractItemDelegate::EditNextItem, back = hint == QAbstractItemDelegate::EditPreviousItem;
    QTreeWidgetItem* here = currentItem();
    QTreeWidget::closeEditor(editor, on || back ? QAbstractItemDelegate::NoHint : hint);
    if (hint == QAbstractItemDelegate::SubmitModelCache && !m_refused)
        return letGo();
    if (!here || !(on || back))
        return;
    if (QTreeWidgetItem* next = fieldAfter(here, back)) {
        setCurrentItem(next, 1);
        scrollToItem(next);
        edit(indexFromItem(next, 1));
    }
}

} // namespace tectonis
