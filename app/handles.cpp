// SPDX-License-Identifier: GPL-3.0-or-later
#include "handles.hpp"

#include "fonts.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kGrip = 7; // px

const ScreenHandle* under(const std::vector<ScreenHandle>& handles, QPointF at)
{
    const ScreenHandle* best = nullptr;
    double nearest = kGrip + 5;
    for (const auto& h : handles)
        if (const double d = std::hypot(h.at.x() - at.x(), h.at.y() - at.y()); d < nearest)
            nearest = d, best = &h;
    return best;
}

} // namespace

std::vector<ScreenHandle> handlesOnPieces(
    const Pattern& pattern, const View& base, const std::function<const Placement*(const PieceId&)>& placeOf)
{
    std::vector<ScreenHandle> out;
    for (const auto& h : pattern.handles)
        if (const Placement* at = h.grip.empty() ? placeOf(h.piece) : nullptr) {
            View v = base;
            v.placement = *at;
            out.push_back({h.dimension, v(h.at), v(h.at + h.direction) - v(h.at), h.gain, &h - pattern.handles.data()});
        }
    return out;
}

ScreenHandle handleOf(const std::vector<ScreenHandle>& handles, const std::string& dimension)
{
    const auto it = std::find_if(
        handles.begin(), handles.end(), [&](const ScreenHandle& h) { return h.dimension == dimension; });
    return it == handles.end() ? ScreenHandle{} : *it;
}

bool HandleDrag::press(const std::vector<ScreenHandle>& handles, QPointF at)
{
    const ScreenHandle* h = under(handles, at);
    if (!h)
        return false;
    m_held = *h;
    m_start = at;
    m_value = m_document.pattern().values.at(h->dimension);
    ++m_drags;
    return true;
}

void HandleDrag::move(QPointF at)
{
    if (m_held.dimension.empty())
        return;
    const double n = QPointF::dotProduct(m_held.direction, m_held.direction);
    if (n < 1e-9)
        return;
    const double along = QPointF::dotProduct(at - m_start, m_held.direction) / n;
    const double mm = std::round((m_value + along * m_held.gain) * 2)
        / 2; // half millimetres: typing is for finer values
    const std::string name = m_held.dimension, size = m_document.design().sizes[m_document.size()];
    const auto* spec = m_document.spec().dimension(name);
    const QString label = spec ? spokenName(spec->label) : QString::fromStdString(name);
    m_document.edit(
        spoken("{} to {}", label, m_document.len(mm)), [&](Design& d) { change::dimensionMm(d, name, mm, size); },
        QString("drag %1 %2").arg(QString::fromStdString(name)).arg(m_drags));
}

QPointF HandleDrag::heldAt() const
{
    const auto& values = m_document.pattern().values;
    const auto now = values.find(m_held.dimension);
    return m_held.at + m_held.direction * (now == values.end() ? 0 : (now->second - m_value) / m_held.gain);
}

void HandleDrag::hover(const std::vector<ScreenHandle>& handles, QPointF at)
{
    const ScreenHandle* h = under(handles, at);
    m_hovered = h ? h->dimension : "";
}

void HandleDrag::draw(QPainter& p, const std::vector<ScreenHandle>& handles, Labels& labels,
    std::optional<QPointF> centre, const std::function<bool(const ScreenHandle&)>& named) const
{
    const Theme& t = theme();
    for (const auto& h : handles) {
        const bool hot = h.dimension == m_held.dimension || h.dimension == m_hovered;
        const double n = std::hypot(h.direction.x(), h.direction.y());
        const QPointF d = n > 1e-9 ? h.direction / n : QPointF(1, 0), side(-d.y(), d.x());
        p.setPen(QPen(t.accent, 1.6));
        for (const double sign : {1.0, -1.0}) {
            const QPointF tip = h.at + d * sign * (kGrip + 8);
            p.drawLine(h.at + d * sign * kGrip, tip);
            p.drawPolyline(QPolygonF{tip - d * sign * 4 + side * 3, tip, tip - d * sign * 4 - side * 3});
        }
        p.setBrush(hot ? t.accent : t.surface);
        p.drawEllipse(h.at, kGrip, kGrip);
        labels.avoid(QRectF(h.at - QPointF(kGrip + 2, kGrip + 2), QSizeF(2 * kGrip + 4, 2 * kGrip + 4)));
        if (!hot && named && !named(h))
            continue;
        const auto* spec = m_document.spec().dimension(h.dimension);
        const QString text = (spec ? spokenName(spec->label) : QString::fromStdString(h.dimension)) + "  "
            + m_document.len(m_document.pattern().values.at(h.dimension));
        const QPointF out = centre ? h.at - *centre : std::abs(d.y()) > 0.7 ? QPointF(1, 0) : QPointF(0, -1);
        const double far = std::hypot(out.x(), out.y());
        labels.add({text, h.at, far > 1e-9 ? out / far : QPointF(0, -1), kGrip + 9, hot ? 9 : 5, true, hot, {}});
    }
}

} // namespace tectonis
