// SPDX-License-Identifier: GPL-3.0-or-later
#include "layer_pictures.hpp"

#include "buildup/layers.hpp"
#include "buildup/strap_ends.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "theme.hpp"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace tectonis {

PulledApart::PulledApart(Document& document) : Picture(document, spoken("Layers of the piece in hand, pulled apart"))
{
    setMinimumHeight(180);
    setMouseTracking(true);
}

const Piece* PulledApart::piece() const { return m_document.pattern().piece(m_document.pieceInHand()); }

Point PulledApart::onPiece(int layer, QPointF at) const
{
    const QPointF p = m_onto[std::size_t(layer) + 1].inverted().map(at);
    return {p.x(), p.y()};
}

int PulledApart::layerAt(QPointF at) const
{
    const Piece* p = piece();
    for (int i = 0; p && i < int(p->layers.size()) && std::size_t(i) + 1 < m_onto.size(); ++i)
        if (insideOutline(flattened(p->layers[std::size_t(i)].outline, 0.2), onPiece(i, at)) || holdOf(i, at))
            return i;
    return -1;
}

std::optional<LayerShape> PulledApart::shapeOf(int layer) const
{
    const Piece* p = piece();
    const auto rules = layerRulesFor(m_document.design(), *p);
    const int rule = p->layers[std::size_t(layer)].rule;
    if (rule < 0 || std::size_t(rule) >= rules.size())
        return std::nullopt;
    return parseShape(rules[std::size_t(rule)]->area);
}

std::optional<ShapeHold> PulledApart::holdOf(int layer, QPointF at) const
{
    const auto shape = shapeOf(layer);
    if (!shape)
        return std::nullopt;
    constexpr double reach = 7; // pixels
    const double scale = std::sqrt(std::abs(m_onto[0].determinant()));
    return holdAt(*shape, *piece(), piece()->layers[std::size_t(layer)].outline, onPiece(layer, at),
        reach / std::max(scale, 1e-3));
}

void PulledApart::mousePressEvent(QMouseEvent* event)
{
    const int layer = event->button() == Qt::LeftButton ? layerAt(event->position()) : -1;
    if (layer < 0)
        return;
    if (taken)
        taken(layer);
    if (const auto hold = holdOf(layer, event->position()))
        m_held = Held{layer, *hold, *shapeOf(layer), *shapeOf(layer), onPiece(layer, event->position()),
            QString("shape %1").arg(++m_drags)};
}

void PulledApart::mouseMoveEvent(QMouseEvent* event)
{
    m_pointer = event->position();
    if (!m_held) {
        const int layer = layerAt(m_pointer);
        const auto hold = layer >= 0 ? holdOf(layer, m_pointer) : std::nullopt;
        if (!hold)
            return layer >= 0 ? setCursor(Qt::PointingHandCursor) : unsetCursor();
        const bool corner = hold->across != 0 && hold->up != 0;
        setCursor(hold->point >= 0  ? Qt::CrossCursor
                : corner            ? (hold->across == hold->up ? Qt::SizeBDiagCursor : Qt::SizeFDiagCursor)
                : hold->across != 0 ? Qt::SizeHorCursor
                : hold->up != 0     ? Qt::SizeVerCursor
                                    : Qt::SizeAllCursor);
        return;
    }
    const Piece* p = piece();
    if (!p || m_held->layer >= int(p->layers.size()))
        return m_held.reset();
    const double step = m_document.unit() == Unit::Inch ? 25.4 / 16 : 0.5;
    const Point to = onPiece(m_held->layer, m_pointer);
    m_held->now = pulled(m_held->shape, m_held->hold, *p, m_held->from, to - m_held->from, step);
    if (reshaped)
        reshaped(m_held->layer, textOf(m_held->now), m_held->drag);
    update();
}

void PulledApart::mouseReleaseEvent(QMouseEvent*)
{
    m_held.reset();
    update();
}

void PulledApart::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.bench);
    const Piece* piece = this->piece();
    m_onto.clear();
    if (!piece)
        return;
    const Box box = boundsOf(piece->cut);
    const int n = int(piece->layers.size()) + 1;
    // Slanted: height shrinks, less where there is room, and x leans with y.
    constexpr double lean = 0.28;
    const double labelWidth = 250, w = box.width() + box.height() * lean, layers = 1 + 0.85 * (n - 1),
                 across = (width() - labelWidth - 60) / w, room = height() - 36,
                 squash = std::clamp(room / (layers * box.height() * across), 0.34, 0.62), h = box.height() * squash;
    const double scale = std::min(across, room / (h * layers));
    m_onto.resize(std::size_t(n));
    const double lift = std::min(110.0, 0.85 * h * scale); // each layer shows most of itself under the one above
    for (int i = n - 1; i >= 0; --i) {                     // the face lies on top
        const double x = 30, y = 20 + h * scale + i * lift;
        p.save();
        const QTransform slant(
            1, 0, -lean, squash, x - box.x0 * scale - box.y0 * scale * lean, y + box.y0 * scale * squash);
        p.setTransform(slant, true);
        m_onto[std::size_t(i)] = QTransform::fromScale(scale, -scale) * slant;
        View v;
        v.scale = scale;
        PieceLook look = t.pieceLook(piece->coat);
        look.label = false, look.marks = false;
        if (i == 0)
            drawPiece(p, v, *piece, look);
        else {
            if (!piece->layers[std::size_t(i) - 1].wholePiece) { // where on the piece it lies
                p.setPen(QPen(t.muted, 0.8, Qt::DotLine));
                p.setBrush(Qt::NoBrush);
                p.drawPath(pathOf(piece->cut, v, true));
            }
            p.setPen(i - 1 == inHand ? QPen(t.accent, 2) : QPen(Qt::NoPen));
            p.setBrush(t.surface);
            p.drawPath(pathOf(piece->layers[std::size_t(i) - 1].outline, v, true));
            drawLayer(p, v, piece->layers[std::size_t(i) - 1], look.layer, 1.2);
        }
        p.restore();
        const QString name = i == 0
            ? text(m_document.pattern().material(m_document.pattern().materials.at(piece->material)).name)
            : text(m_document.pattern().material(piece->layers[std::size_t(i) - 1].material).name);
        const QString detail = i == 0
            ? spoken("face, {} thick",
                m_document.len(
                    m_document.pattern().material(m_document.pattern().materials.at(piece->material)).thickness))
            : text(say("{}  {}, {}", piece->layers[std::size_t(i) - 1].code,
                       roleLabel(piece->layers[std::size_t(i) - 1].fixing), piece->layers[std::size_t(i) - 1].trim),
                m_document.unit());
        const double tx = width() - labelWidth, ty = 18 + i * std::max(lift, std::min(70.0, room / n));
        p.setPen(QPen(t.muted, 1));
        p.drawLine(QPointF(x + w * scale - 6, y - h * scale * 0.5), QPointF(tx - 8, ty + 8));
        p.setPen(t.ink);
        p.setFont(pixelFont(13, QFont::DemiBold));
        p.drawText(QRectF(tx, ty - 4, labelWidth - 8, 18), Qt::AlignLeft | Qt::AlignVCenter, name);
        p.setFont(pixelFont(12));
        p.setPen(t.muted);
        p.drawText(QRectF(tx, ty + 13, labelWidth - 8, std::max(34.0, std::min(70.0, room / n) - 20)),
            Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, detail);
    }
    if (m_held && m_held->layer < int(piece->layers.size())) { // what it measures now, at the pointer
        Message told = piece->layers[std::size_t(m_held->layer)].trim;
        if (const int at = m_held->hold.point; at >= 0) {
            const Box own = boundsOf(piece->stitch());
            const auto& [x, y] = m_held->now.points[std::size_t(at)];
            told = say("{} right of the middle, {} below the top", Len(x.of(own.width())), Len(y.of(own.height())));
        }
        const QString now = text(told, m_document.unit());
        p.setFont(pixelFont(12, QFont::DemiBold));
        QRectF at = p.fontMetrics().boundingRect(now).adjusted(-6, -3, 6, 3);
        at.moveTopLeft(m_pointer + QPointF(14, 14));
        at.moveRight(std::min(at.right(), width() - 4.0));
        at.moveBottom(std::min(at.bottom(), height() - 4.0));
        p.setPen(QPen(t.accent, 1));
        p.setBrush(t.surface);
        p.drawRoundedRect(at, 3, 3);
        p.setPen(t.ink);
        p.drawText(at, Qt::AlignCenter, now);
    }
}

Section::Section(Document& document) : Picture(document, spoken("Section through the chosen seam"))
{
    setFixedWidth(300);
}

void Section::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.bench);
    const Pattern& pattern = m_document.pattern();
    const Seam* s = pattern.seam(seam);
    const auto ends = s ? std::vector<StrapEnd>() : strapEnds(pattern);
    const auto end = std::find_if(ends.begin(), ends.end(), [&](const StrapEnd& e) { return e.piece == strap; });
    if (!s && end == ends.end())
        return;
    const Bulk bulk = s ? bulkAt(pattern, *s) : end->bulk;
    const double limit = m_document.design().workshop.machineLimit;
    const double scale = (height() - 66) / std::max({limit, bulk.atCrossing, 1.0}) * 0.92;
    p.setPen(t.ink);
    p.setFont(pixelFont(13, QFont::DemiBold));
    p.drawText(QRectF(12, 6, width() - 24, 20), Qt::AlignLeft, text(s ? s->name : end->name));
    const double floor = height() - 26.0, left = 14, w = 88;
    double y = floor;
    int k = 0;
    double labelY = floor;
    for (const auto& part : bulk.parts)
        for (int i = 0; i < part.times; ++i, ++k) {
            const double h = part.each * scale;
            const bool inter = part.layer != nullptr;
            p.setPen(QPen(t.dark ? QColor(0xB9B1A3) : QColor(0x5A4F43), 1));
            p.setBrush(inter ? t.interlining : k % 2 ? t.shell.darker(108) : t.shell);
            p.drawRect(QRectF(left, y - h, w, h));
            if (i == part.times / 2) {
                labelY = std::min(labelY - 15, y - h / 2);
                p.setPen(t.ink);
                p.setFont(pixelFont(11));
                p.drawText(QRectF(left + w + 8, labelY - 8, width() - left - w - 10, 16),
                    Qt::AlignLeft | Qt::AlignVCenter,
                    (part.times > 1 ? QString("%1 × ").arg(part.times) : QString())
                        + text(part.label(m_document.pattern())).left(24) + "  "
                        + m_document.len(part.each * part.times));
            }
            y -= h;
        }
    const double ly = floor - limit * scale;
    p.setPen(QPen(t.error, 1.6, Qt::DashLine));
    p.drawLine(QPointF(4, ly), QPointF(width() - 4, ly));
    p.setPen(t.error);
    p.setFont(pixelFont(11, QFont::Medium));
    p.drawText(QRectF(4, ly - 17, width() - 8, 16), Qt::AlignRight, spoken("machine takes {}", m_document.len(limit)));
    p.setPen(bulk.underFoot > limit ? t.error : t.ink);
    p.setFont(pixelFont(12, QFont::DemiBold));
    p.drawText(QRectF(12, height() - 22, width() - 20, 18), Qt::AlignLeft,
        spoken("under the foot: {}", m_document.len(bulk.underFoot)));
}

} // namespace tectonis
