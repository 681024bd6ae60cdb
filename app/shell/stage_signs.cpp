// SPDX-License-Identifier: GPL-3.0-or-later
#include "stage_signs.hpp"

#include "qtext.hpp"

#include <QPainterPath>

namespace tectonis {

const QStringList& stageNames()
{
    static const QStringList names{
        "Brief", "Draft", "Build-up", "Fittings", "Sizes", "Sequence", "Cut", "Sheets", "Trial"};
    return names;
}

QString stageLabel(int index)
{
    static const Label labels[] = {label("Brief"), label("Draft"), label("Build-up"), label("Fittings"), label("Sizes"),
        label("Sequence"), label("Cut"), label("Sheets"), label("Trial")};
    return text(labels[index]);
}

void drawStageSign(QPainter& p, int index, const QRectF& box, const QColor& ink)
{
    p.save();
    p.translate(box.topLeft());
    p.scale(box.width() / 24, box.height() / 24);
    p.setPen(QPen(ink, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    QPainterPath path;
    switch (index) {
    case 0: // a bag on its strap
        path.moveTo(5, 10), path.lineTo(19, 10), path.lineTo(20, 18), path.quadTo(20, 21, 17, 21), path.lineTo(7, 21),
            path.quadTo(4, 21, 4, 18), path.closeSubpath();
        path.moveTo(8, 10), path.cubicTo(8, 1, 16, 1, 16, 10);
        break;
    case 1: // a panel with its stitch line
        path.moveTo(4, 4), path.lineTo(20, 4), path.lineTo(20, 14), path.quadTo(20, 20, 14, 20), path.lineTo(10, 20),
            path.quadTo(4, 20, 4, 14), path.closeSubpath();
        for (int i = 0; i < 4; ++i)
            path.moveTo(7.5 + i * 2.6, 7.5), path.lineTo(8.8 + i * 2.6, 7.5);
        break;
    case 2: // layers pulled apart
        for (int i = 0; i < 3; ++i)
            path.moveTo(4, 9 + i * 4.5), path.lineTo(12, 5.5 + i * 4.5), path.lineTo(20, 9 + i * 4.5),
                path.lineTo(12, 12.5 + i * 4.5), path.closeSubpath();
        break;
    case 3: // ring and strap
        p.drawEllipse(QPointF(12, 15), 5.5, 5.5);
        path.moveTo(9, 10), path.lineTo(9, 3), path.moveTo(15, 10), path.lineTo(15, 3);
        break;
    case 4: // nested outlines
        for (int i = 0; i < 3; ++i)
            path.addRoundedRect(QRectF(4 + i * 3, 4 + i * 4, 16 - i * 6, 16 - i * 4), 3, 3);
        break;
    case 5: // two parts become one
        path.addRect(3, 4, 6, 6), path.addRect(3, 14, 6, 6), path.addRect(16, 9, 6, 6);
        path.moveTo(9, 7), path.cubicTo(13, 7, 12, 12, 16, 12), path.moveTo(9, 17),
            path.cubicTo(13, 17, 12, 12, 16, 12);
        break;
    case 6: // shears
        p.drawEllipse(QPointF(7, 18), 2.8, 2.8), p.drawEllipse(QPointF(17, 18), 2.8, 2.8);
        path.moveTo(8.5, 15.5), path.lineTo(17, 3), path.moveTo(15.5, 15.5), path.lineTo(7, 3);
        break;
    case 7: // a sheet with a test square
        path.addRect(5, 3, 14, 18), path.addRect(8, 6, 5, 5);
        path.moveTo(8, 15), path.lineTo(16, 15), path.moveTo(8, 18), path.lineTo(13, 18);
        break;
    default: // a rule against a mark
        path.addRect(3, 9, 18, 7);
        for (int i = 0; i < 5; ++i)
            path.moveTo(6 + i * 3, 9), path.lineTo(6 + i * 3, i % 2 ? 11.5 : 13);
        break;
    }
    p.drawPath(path);
    p.restore();
}

} // namespace tectonis
