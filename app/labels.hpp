// SPDX-License-Identifier: GPL-3.0-or-later
// Words on a drawing: one routine finds each a free place near what it names, with a leader where that is further off.
// Words never cover words, nor what must be seen.
#pragma once

#include <QColor>
#include <QPointF>
#include <QRectF>
#include <QString>

#include <vector>

class QPainter;

namespace tectonis {

struct DrawnLabel {
    QString text;
    QPointF anchor;         ///< what it names
    QPointF towards{0, -1}; ///< where it would rather stand, seen from there
    double clear = 8;       ///< px that it keeps from the anchor
    int rank = 1;           ///< higher ones are placed first; from 9 on it is shown even where nothing is free
    bool boxed = false;     ///< in a frame of its own, for what can be taken hold of
    bool strong = false;    ///< what is in hand
    QColor ink;             ///< invalid: the theme's
};

struct PlacedLabel {
    DrawnLabel label;
    QRectF box;
    bool leader = false;
};

class Labels {
public:
    explicit Labels(const QRectF& bounds) : m_bounds(bounds) {}
    /// Keeps words off a place.
    void avoid(const QRectF& place) { m_taken.push_back(place); }
    void add(DrawnLabel label) { m_waiting.push_back(std::move(label)); }
    /// Places what was added and draws it. Words that find no room are left out; hovering shows them.
    void draw(QPainter& painter);
    const std::vector<PlacedLabel>& placed() const { return m_placed; }
    std::size_t leftOut() const { return m_leftOut; }

private:
    bool isFree(const QRectF& box) const;
    QRectF placeFor(const DrawnLabel& label, const QSizeF& size) const;

    QRectF m_bounds;
    std::vector<QRectF> m_taken;
    std::vector<DrawnLabel> m_waiting;
    std::vector<PlacedLabel> m_placed;
    std::size_t m_leftOut = 0;
};

} // namespace tectonis
