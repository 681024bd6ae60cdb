// SPDX-License-Identifier: GPL-3.0-or-later
#include "labels.hpp"

#include "fonts.hpp"
#include "theme.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kApart = 2;       // px between words
constexpr double kLeaderFrom = 16; // px from what it names at which a label gets a leader

QFont fontOf(const DrawnLabel& label)
{
    return pixelFont(label.boxed ? 12 : 11.5, label.boxed || label.strong ? QFont::Medium : QFont::Normal);
}

QPointF nearestIn(const QRectF& box, QPointF p)
{
    return {std::clamp(p.x(), box.left(), box.right()), std::clamp(p.y(), box.top(), box.bottom())};
}

} // namespace

bool Labels::isFree(const QRectF& box) const
{
    if (!m_bounds.contains(box))
        return false;
    const QRectF wide = box.adjusted(-kApart, -kApart, kApart, kApart);
    return std::none_of(m_taken.begin(), m_taken.end(), [&](const QRectF& t) { return t.intersects(wide); });
}

/// The nearest free place, first towards where it would rather stand; empty if there is none.
QRectF Labels::placeFor(const DrawnLabel& label, const QSizeF& size) const
{
    const double wanted = std::atan2(label.towards.y(), label.towards.x());
    for (const double off : {0.0, 12.0, 26.0, 44.0, 66.0, 94.0, 128.0, 170.0, 220.0})
        for (int k = 0; k < 16; ++k) {
            const double turn = (k % 2 ? 1 : -1) * ((k + 1) / 2) * M_PI / 8, c = std::cos(wanted + turn),
                         s = std::sin(wanted + turn);
            // As far out as puts the box's near side at the distance.
            const double reach = label.clear + off
                + std::min(std::abs(c) > 1e-6 ? size.width() / 2 / std::abs(c) : 1e9,
                    std::abs(s) > 1e-6 ? size.height() / 2 / std::abs(s) : 1e9);
            QRectF box(QPointF(), size);
            box.moveCenter(label.anchor + QPointF(c, s) * reach);
            if (isFree(box))
                return box;
        }
    return {};
}

void Labels::draw(QPainter& p)
{
    const Theme& t = theme();
    std::stable_sort(
        m_waiting.begin(), m_waiting.end(), [](const DrawnLabel& a, const DrawnLabel& b) { return a.rank > b.rank; });
    for (const auto& label : m_waiting) {
        p.setFont(fontOf(label));
        const QSizeF words(p.fontMetrics().horizontalAdvance(label.text), p.fontMetrics().height());
        const QSizeF size = label.boxed ? words + QSizeF(12, 6) : words + QSizeF(2, 0);
        QRectF box = placeFor(label, size);
        if (box.isEmpty() && label.rank >= 9) {
            box = QRectF(QPointF(), size);
            box.moveCenter(label.anchor + label.towards * (label.clear + size.height()));
            box.moveLeft(
                std::clamp(box.left(), m_bounds.left(), std::max(m_bounds.left(), m_bounds.right() - size.width())));
            box.moveTop(
                std::clamp(box.top(), m_bounds.top(), std::max(m_bounds.top(), m_bounds.bottom() - size.height())));
        }
        if (box.isEmpty()) {
            ++m_leftOut;
            continue;
        }
        m_taken.push_back(box);
        const QPointF end = nearestIn(box, label.anchor);
        m_placed.push_back({label, box,
            std::hypot(end.x() - label.anchor.x(), end.y() - label.anchor.y()) > label.clear + kLeaderFrom});
    }
    m_waiting.clear();
    for (const auto& placed : m_placed)
        if (placed.leader) {
            p.setPen(QPen(t.muted, 0.8));
            p.drawLine(placed.label.anchor, nearestIn(placed.box, placed.label.anchor));
        }
    for (const auto& placed : m_placed) {
        const DrawnLabel& label = placed.label;
        p.setFont(fontOf(label));
        if (label.boxed) {
            p.setPen(QPen(label.strong ? t.accent : t.line, 1));
            p.setBrush(t.surface);
            p.drawRoundedRect(placed.box, 4, 4);
        }
        p.setPen(label.ink.isValid() ? label.ink : t.ink);
        p.drawText(placed.box, Qt::AlignCenter, label.text);
    }
}

} // namespace tectonis
