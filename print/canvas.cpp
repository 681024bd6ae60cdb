// SPDX-License-Identifier: GPL-3.0-or-later
#include "canvas.hpp"

#include "fonts.hpp"
#include "formats/svg.hpp"
#include "library/library.hpp"
#include "qtext.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace tectonis {
namespace {

void addArc(QPainterPath& path, const Arc& a, const View& view)
{
    const int n = std::max(1, int(std::ceil(std::abs(a.sweep) / (pi / 6))));
    const double step = a.sweep / n, k = 4.0 / 3 * std::tan(step / 4) * a.radius;
    for (int i = 0; i < n; ++i) {
        const Point u = polar(a.start + step * i), v = polar(a.start + step * (i + 1));
        const Point p0 = a.centre + u * a.radius, p3 = a.centre + v * a.radius;
        path.cubicTo(view(p0 + Point{-u.y, u.x} * k), view(p3 - Point{-v.y, v.x} * k), view(p3));
    }
}

void drawGrain(QPainter& p, const View& view, const Piece& piece, const PieceLook& look)
{
    const Box box = boundsOf(piece.stitch());
    const Point along = polar(radians(piece.grain));
    const double reach = std::min(std::abs(along.x) > 0.5 ? box.width() : box.height(), 160.0) * 0.3;
    const Point side = rightOf(along);
    const Point mid = box.centre() + side * (std::abs(along.x) > 0.5 ? box.height() * 0.3 : box.width() * 0.3);
    const QPointF a = view(mid - along * reach), b = view(mid + along * reach);
    p.setPen(QPen(look.ink, look.line * 0.8));
    p.drawLine(a, b);
    const QPointF d = (b - a) / std::max(1e-9, std::hypot(b.x() - a.x(), b.y() - a.y())), n(-d.y(), d.x());
    const double s = look.textSize * 0.45;
    for (const auto& [tip, sign] : {std::pair{a, 1.0}, std::pair{b, -1.0}})
        p.drawPolyline(QPolygonF{tip + (d * sign + n * 0.5) * s, tip, tip + (d * sign - n * 0.5) * s});
}

void drawMarks(QPainter& p, const View& view, const Piece& piece, const PieceLook& look)
{
    for (const auto& n : piece.notches) {
        const auto [a, b] = notchTick(piece, n);
        p.setPen(QPen(look.ink, look.line));
        p.drawLine(view(a), view(b));
        if (n.stop) {
            const QPointF c = view(b);
            const double s = look.line * 2.5;
            p.drawRect(QRectF(c.x() - s, c.y() - s, 2 * s, 2 * s));
        }
    }
    for (const auto& line : piece.lines) {
        if (line.kind == FaceLine::Kind::Bridge)
            continue;
        QPen pen(line.kind == FaceLine::Kind::Slash ? look.mark : look.ink, look.line * 0.8);
        if (line.kind == FaceLine::Kind::Fold || line.kind == FaceLine::Kind::Pleat)
            pen.setDashPattern({8, 3, 1.5, 3});
        else if (line.kind == FaceLine::Kind::Placement)
            pen.setDashPattern({2, 2.5});
        else if (line.kind == FaceLine::Kind::Topstitch)
            pen = QPen(look.stitch, look.line * 0.8), pen.setDashPattern({4, 3});
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawPath(pathOf(line.run, view));
    }
    p.setPen(QPen(look.mark, look.line));
    for (const auto& drill : piece.drills) {
        const QPointF c = view(drill.at);
        const double s = std::max(3.0 * look.line, 2.5 * view.scale);
        p.drawEllipse(c, s * 0.6, s * 0.6);
        p.drawLine(c - QPointF(s, 0), c + QPointF(s, 0));
        p.drawLine(c - QPointF(0, s), c + QPointF(0, s));
    }
}

void drawLabel(QPainter& p, const View& view, const Piece& piece, const PieceLook& look, const QString& caption)
{
    const Box box = boundsOf(piece.stitch());
    const QPointF c = view(box.centre());
    const QPointF a = view({box.x0, box.y0}), b = view({box.x1, box.y1});
    const double w = std::abs(a.x() - b.x()), h = std::abs(a.y() - b.y());
    const QString code = QString::fromStdString(piece.code);
    const QString text = caption.isEmpty() ? code : code + "  " + caption;
    double size = look.textSize;
    p.setFont(pixelFont(size, QFont::DemiBold));
    const bool upright = h > 2.2 * w && p.fontMetrics().horizontalAdvance(text) > w * 0.9;
    const double room = (upright ? h : w) * 0.9;
    if (const double need = p.fontMetrics().horizontalAdvance(text); need > room)
        size = std::max(look.textSize * 0.6, size * room / need);
    p.save();
    p.setFont(pixelFont(size, QFont::DemiBold));
    p.setPen(look.ink);
    p.translate(c);
    if (upright)
        p.rotate(-90);
    const QString shown = p.fontMetrics().horizontalAdvance(text) > room ? code : text;
    p.drawText(QRectF(-2000, -size, 4000, 2 * size), Qt::AlignCenter, shown);
    p.restore();
}

/// The edge on the fold: a bracket with arrows that point at it.
void drawFold(QPainter& p, const View& view, const Edge& fold, const PieceLook& look)
{
    const Point out = rightOf(unit(endOf(fold.stitch) - startOf(fold.stitch)));
    const double length = fold.length(), inside = std::min(12.0, length / 6);
    const Point a = pointAlong(fold.stitch, length * 0.15), b = pointAlong(fold.stitch, length * 0.85);
    p.setPen(QPen(look.ink, look.line));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(QPolygonF{view(a), view(a - out * inside), view(b - out * inside), view(b)});
    const double head = inside / 3;
    for (const Point tip : {a, b})
        for (const double side : {-1.0, 1.0})
            p.drawLine(view(tip), view(tip - out * head + Point{-out.y, out.x} * (side * head * 0.6)));
    if (!look.foldWords)
        return;
    const QPointF middle = view(lerp(a, b, 0.5) - out * inside);
    const QPointF along = view(b) - view(a);
    double angle = degrees(std::atan2(along.y(), along.x()));
    angle -= angle > 90.5 ? 180 : angle < -90.5 ? -180 : 0; // never upside down
    p.save();
    p.translate(middle);
    p.rotate(angle);
    p.setFont(pixelFont(look.textSize * 0.8));
    p.drawText(QRectF(-2000, look.textSize * 0.2, 4000, look.textSize * 1.6), Qt::AlignHCenter | Qt::AlignTop,
        spoken("place on the fold"));
    p.restore();
}

} // namespace

View View::fit(const Box& box, const QRectF& target, double border)
{
    View v;
    const double w = std::max(1e-6, box.width()), h = std::max(1e-6, box.height());
    v.scale = std::max(1e-6, std::min((target.width() - 2 * border) / w, (target.height() - 2 * border) / h));
    v.origin = {target.center().x() - box.centre().x * v.scale, target.center().y() + box.centre().y * v.scale};
    return v;
}

QPainterPath pathOf(const Run& run, const View& view, bool closed)
{
    QPainterPath path;
    if (run.empty())
        return path;
    path.moveTo(view(startOf(run)));
    for (const auto& s : run) {
        if (const auto* a = std::get_if<Arc>(&s))
            addArc(path, *a, view);
        else if (const auto* c = std::get_if<Cubic>(&s))
            path.cubicTo(view(c->p1), view(c->p2), view(c->p3));
        else
            path.lineTo(view(endOf(s)));
    }
    if (closed)
        path.closeSubpath();
    return path;
}

void drawLayer(QPainter& p, const View& view, const Layer& layer, const QColor& ink, double line)
{
    const QPainterPath path = pathOf(layer.outline, view, true);
    QColor tint = ink;
    tint.setAlpha(layer.kind == "board" ? 90 : 34);
    p.setPen(Qt::NoPen);
    p.setBrush(tint);
    p.drawPath(path);
    p.save();
    p.setClipPath(path, Qt::IntersectClip);
    QColor thread = ink;
    thread.setAlpha(120);
    const QRectF r = path.boundingRect();
    const double gap = std::max(5 * line, 4.5);
    p.setPen(QPen(thread, line * 0.7));
    if (layer.loft) { // loft: dots
        p.setPen(Qt::NoPen);
        p.setBrush(thread);
        int row = 0;
        for (double y = r.top(); y < r.bottom(); y += gap, ++row)
            for (double x = r.left() + (row % 2) * gap / 2; x < r.right(); x += gap)
                p.drawEllipse(QPointF(x, y), line * 0.8, line * 0.8);
    } else {
        for (double k = r.left() - r.height(); k < r.right(); k += gap)
            p.drawLine(QPointF(k, r.bottom()), QPointF(k + r.height(), r.top()));
        if (layer.kind == "fusible") // weave: crossed
            for (double k = r.left(); k < r.right() + r.height(); k += gap)
                p.drawLine(QPointF(k, r.bottom()), QPointF(k - r.height(), r.top()));
    }
    p.restore();
    QPen outline(ink, line);
    outline.setDashPattern({1.5, 2});
    p.setPen(outline);
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
}

void drawEdge(QPainter& p, const View& view, const Run& run, const QColor& color, double width)
{
    p.setPen(QPen(color, width, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    p.drawPath(pathOf(run, view));
}

void drawPiece(QPainter& p, const View& view, const Piece& piece, const PieceLook& look, const QString& caption)
{
    QPen cut(look.edge, look.line, look.cutStyle, Qt::FlatCap, Qt::MiterJoin);
    if (!look.cutDash.isEmpty())
        cut.setDashPattern(look.cutDash);
    p.setPen(cut);
    p.setBrush(look.fill ? QBrush(look.card) : Qt::NoBrush);
    p.drawPath(pathOf(piece.cut, view, true));
    p.setBrush(Qt::NoBrush);
    if (look.layers)
        for (const auto& layer : piece.layers)
            drawLayer(p, view, layer, look.layer, look.line * 0.8);
    if (look.stitches) {
        QPen thread(look.stitch, look.line * 0.9, Qt::SolidLine, Qt::RoundCap);
        if (look.dashed)
            thread.setDashPattern({3.2, 2.4});
        p.setPen(thread);
        Run sewn;
        for (const auto& e : piece.edges)
            if (!e.onFold)
                sewn.insert(sewn.end(), e.stitch.begin(), e.stitch.end());
        p.drawPath(pathOf(sewn, view, sewn.size() == piece.edges.size()));
    }
    if (look.marks) {
        drawMarks(p, view, piece, look);
        drawGrain(p, view, piece, look);
        for (const auto& e : piece.edges)
            if (e.onFold)
                drawFold(p, view, e, look);
    }
    if (look.label)
        drawLabel(p, view, piece, look, caption);
}

SizeLook sizeLook(std::size_t index, bool dark)
{
    // Light and dark variants keep 4.5:1 against their ground.
    static const std::array<std::pair<QColor, QColor>, 8> colors{{{QColor(0x1F, 0x5F, 0x8B), QColor(0x7F, 0xC1, 0xEC)},
        {QColor(0x8A, 0x3B, 0x12), QColor(0xF0, 0xA8, 0x7C)}, {QColor(0x2F, 0x6B, 0x3A), QColor(0x8F, 0xD3, 0x9A)},
        {QColor(0x6B, 0x2F, 0x7A), QColor(0xD9, 0xA2, 0xE8)}, {QColor(0x7A, 0x5C, 0x00), QColor(0xE6, 0xC8, 0x60)},
        {QColor(0x9A, 0x1F, 0x4B), QColor(0xF5, 0x9A, 0xB9)}, {QColor(0x33, 0x4E, 0x9A), QColor(0xA5, 0xB8, 0xF5)},
        {QColor(0x3D, 0x3D, 0x3D), QColor(0xD0, 0xD0, 0xD0)}}};
    // Seven dashes to eight colours: no two of 56 sizes share both.
    static const std::array<QVector<qreal>, 7> dashes{
        {{7, 3}, {}, {10, 3, 2, 3}, {2, 3}, {12, 3, 2, 3, 2, 3}, {5, 5}, {14, 4}}};
    const auto& color = colors[index % colors.size()];
    return {dark ? color.second : color.first, dashes[index % dashes.size()]};
}

} // namespace tectonis
