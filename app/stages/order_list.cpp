// SPDX-License-Identifier: GPL-3.0-or-later
#include "order_list.hpp"

#include "theme.hpp"

#include <QDropEvent>
#include <QPainter>
#include <QToolTip>

namespace tectonis {

void OrderList::startDrag(Qt::DropActions)
{
    m_dragged = currentRow();
    m_target = -1;
    m_why = forbidden && m_dragged >= 0 ? forbidden(m_dragged) : std::vector<QString>();
    QListWidget::startDrag(Qt::MoveAction);
    m_dragged = -1;
    m_why.clear();
    viewport()->update();
}

QString OrderList::whyNot() const
{
    return m_target >= 0 && m_target < int(m_why.size()) ? m_why[std::size_t(m_target)] : QString();
}

void OrderList::dragMoveEvent(QDragMoveEvent* event)
{
    QListWidget::dragMoveEvent(event);
    if (event->source() == this)
        event->accept();            // also in the gaps between rows
    if (m_why.empty() && forbidden) // dragged by other means than this list's own start
        m_why = forbidden(m_dragged >= 0 ? m_dragged : currentRow());
    m_target = placeAt(event->position().toPoint());
    if (const QString why = whyNot(); why.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(viewport()->mapToGlobal(event->position().toPoint()) + QPoint(14, 10), why, this);
    viewport()->update();
}

void OrderList::dragLeaveEvent(QDragLeaveEvent* event)
{
    m_target = -1;
    QToolTip::hideText();
    QListWidget::dragLeaveEvent(event);
    viewport()->update();
}

void OrderList::dropEvent(QDropEvent* event)
{
    const int from = m_dragged >= 0 ? m_dragged : currentRow(), to = placeAt(event->position().toPoint());
    m_target = -1;
    m_why.clear();
    QToolTip::hideText();
    event->setDropAction(Qt::IgnoreAction); // the rows follow from the design's order
    event->accept();
    viewport()->update();
    if (from >= 0 && moved)
        moved(from, to);
}

void OrderList::paintEvent(QPaintEvent* event)
{
    QListWidget::paintEvent(event);
    if (m_target < 0 || count() == 0)
        return;
    QPainter p(viewport());
    const Theme& t = theme();
    // Between rows where it must not go lies a hatched seam.
    QColor tint = t.error;
    tint.setAlpha(90);
    const auto edge = [&](int place) {
        return place < count() ? visualItemRect(item(place)).top() : visualItemRect(item(count() - 1)).bottom();
    };
    for (int place = 0; place <= count() && place < int(m_why.size()); ++place)
        if (!m_why[std::size_t(place)].isEmpty())
            p.fillRect(QRect(0, edge(place) - 4, viewport()->width(), 8), QBrush(tint, Qt::BDiagPattern));
    const bool no = !whyNot().isEmpty();
    p.setPen(QPen(no ? t.error : t.accent, no ? 3 : 2, no ? Qt::DashLine : Qt::SolidLine));
    p.drawLine(2, edge(m_target), viewport()->width() - 2, edge(m_target));
}

int OrderList::placeAt(const QPoint& at) const
{
    for (int i = 0; i < count(); ++i)
        if (at.y() < visualItemRect(item(i)).center().y())
            return i;
    return count();
}

} // namespace tectonis
