// SPDX-License-Identifier: GPL-3.0-or-later
// The steps as a list whose rows are dragged.
#pragma once

#include <QListWidget>

#include <functional>
#include <vector>

namespace tectonis {

/// Any row can be dragged by hand, also one that was not picked before, to any place, also between two rows.
class OrderList : public QListWidget {
    Q_OBJECT
public:
    std::function<void(int from, int to)> moved; ///< @c to: the place among the rows before it is taken out
    /// Why a row must not go before each row, and behind the last; empty where it may.
    std::function<std::vector<QString>(int from)> forbidden;

protected:
    void startDrag(Qt::DropActions actions) override;
    void dragMoveEvent(QDragMoveEvent* event) override;
    void dragLeaveEvent(QDragLeaveEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    /// The row before which a drop at @p at puts the dragged one.
    int placeAt(const QPoint& at) const;
    QString whyNot() const;

    int m_dragged = -1, m_target = -1;
    std::vector<QString> m_why;
};

} // namespace tectonis
