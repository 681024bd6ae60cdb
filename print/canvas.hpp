// SPDX-License-Identifier: GPL-3.0-or-later
// Drawing pieces: the one hand that draws them on screen, on sheets and in figures.
#pragma once

#include "pattern/pattern.hpp"

#include <QColor>
#include <QPainter>
#include <QPainterPath>
#include <QTransform>

namespace tectonis {

inline const QColor kInk(0x22, 0x22, 0x22), kFaint(0x66, 0x66, 0x66); ///< on paper

/// From millimetres, y up, to the device. Uniform scale.
struct View {
    double scale = 1;      ///< device units per mm
    QPointF origin;        ///< device position of the plane's origin
    Placement placement{}; ///< applied first: piece to plane
    QPointF operator()(Point p) const
    {
        const Point q = placement(p);
        return {origin.x() + q.x * scale, origin.y() - q.y * scale};
    }
    /// Back from the device to the plane, without the placement.
    Point plane(QPointF d) const { return {(d.x() - origin.x()) / scale, (origin.y() - d.y()) / scale}; }
    /// The view that fits @p box into @p target with @p border device units round it.
    static View fit(const Box& box, const QRectF& target, double border = 0);
};

/// Path of a run; arcs become cubics of at most 30° each, true to better than 0.0001 mm at bag size.
QPainterPath pathOf(const Run& run, const View& view, bool closed = false);

/// How pieces look. Colours with their meaning; widths in device units.
struct PieceLook {
    QColor card{0xF3, 0xE9, 0xD6}, edge{0x4A, 0x3F, 0x33}, stitch{0x8A, 0x5A, 0x33}, ink{0x33, 0x2C, 0x25},
        mark{0xA3, 0x3B, 0x2B}, layer{0x5A, 0x6B, 0x62};
    double line = 1.2; ///< width of the cut line
    bool fill = true, stitches = true, marks = true, layers = false, label = true;
    bool dashed = true;    ///< stitch lines; from afar dashes cannot be told, and cost more than all the rest
    bool foldWords = true; ///< "place on the fold" at its bracket; once where sizes are nested
    Qt::PenStyle cutStyle = Qt::SolidLine;
    QVector<qreal> cutDash; ///< size's dash pattern; empty: solid
    double textSize = 11;   ///< device units
};

void drawPiece(
    QPainter& painter, const View& view, const Piece& piece, const PieceLook& look, const QString& caption = {});

/// Fills an interlining's outline with the texture of its material: hatch, dots, weave, board.
void drawLayer(QPainter& painter, const View& view, const Layer& layer, const QColor& ink, double line);

/// Stitch line of one edge, or a placement line, emphasised.
void drawEdge(QPainter& painter, const View& view, const Run& run, const QColor& color, double width);

/// Colour and dash by which a size is told apart, on screen and on paper.
struct SizeLook {
    QColor color;
    QVector<qreal> dash;
};
SizeLook sizeLook(std::size_t index, bool dark = false);

} // namespace tectonis
