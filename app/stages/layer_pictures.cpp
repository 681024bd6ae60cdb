// SPDX-License-Identifier: GPL-3.0-or-later
#include "layer_pictures.hpp"

#include "buildup/layers.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "theme.hpp"

#include <QPainter>

#include <algorithm>

namespace tectonis {

PulledApart::PulledApart(Document& document) : Picture(document, spoken("Layers of the piece in hand, pulled apart"))
{
    setMinimumHeight(180);
}

void PulledApart::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.bench);
    const Piece* piece = m_document.pattern().piece(m_document.pieceInHand());
    if (!piece)
        return;
    const Box box = boundsOf(piece->cut);
    const int n = int(piece->layers.size()) + 1;
    // Slanted: height shrinks to 0.5, and x leans with y.
    constexpr double squash = 0.34, lean = 0.28;
    const double labelWidth = 250, w = box.width() + box.height() * lean, h = box.height() * squash;
    const double scale = std::min((width() - labelWidth - 60) / w, (height() - 36) / (h * (1 + 0.85 * (n - 1))));
    const double lift = std::min(110.0, 0.85 * h * scale); // each layer shows most of itself under the one above
    for (int i = n - 1; i >= 0; --i) {                     // the face lies on top
        const double x = 30, y = 20 + h * scale + i * lift;
        p.save();
        const QTransform slant(
            1, 0, -lean, squash, x - box.x0 * scale - box.y0 * scale * lean, y + box.y0 * scale * squash);
        p.setTransform(slant, true);
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
        const double tx = width() - labelWidth, ty = 18 + i * std::max(lift, 54.0);
        p.setPen(QPen(t.muted, 1));
        p.drawLine(QPointF(x + w * scale - 6, y - h * scale * 0.5), QPointF(tx - 8, ty + 8));
        p.setPen(t.ink);
        p.setFont(pixelFont(13, QFont::DemiBold));
        p.drawText(QRectF(tx, ty - 4, labelWidth - 8, 18), Qt::AlignLeft | Qt::AlignVCenter, name);
        p.setFont(pixelFont(12));
        p.setPen(t.muted);
        p.drawText(QRectF(tx, ty + 13, labelWidth - 8, 34), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, detail);
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
    const Seam* s = m_document.pattern().seam(seam);
    if (!s)
        return;
    const Bulk bulk = bulkAt(m_document.pattern(), *s);
    const double limit = m_document.design().workshop.machineLimit;
    const double scale = (height() - 66) / std::max({limit, bulk.atCrossing, 1.0}) * 0.92;
    p.setPen(t.ink);
    p.setFont(pixelFont(13, QFont::DemiBold));
    p.drawText(QRectF(12, 6, width() - 24, 20), Qt::AlignLeft, text(s->name));
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
