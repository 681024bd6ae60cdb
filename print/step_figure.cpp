// SPDX-License-Identifier: GPL-3.0-or-later
#include "step_figure.hpp"

#include "fonts.hpp"
#include "qtext.hpp"

#include <algorithm>

namespace tectonis {
namespace {

QColor mixed(const QColor& a, const QColor& b, double share)
{
    const auto one = [&](float x, float y) { return x + (y - x) * float(share); };
    return QColor::fromRgbF(one(a.redF(), b.redF()), one(a.greenF(), b.greenF()), one(a.blueF(), b.blueF()));
}

class ScenePainter {
public:
    ScenePainter(QPainter& painter, const View& view, const FigureLook& look) : p(painter), v(view), m_look(look) {}

    void operator()(const Surface& s)
    {
        QPainterPath path;
        path.addPolygon(polygon(s.outline));
        path.closeSubpath();
        path.setFillRule(Qt::WindingFill);
        const QColor color = mixed(Qt::black, colorOf(s.skin), s.light);
        p.setPen(Qt::NoPen);
        p.setBrush(color);
        p.drawPath(path);
        if (textured(s.skin))
            hatch(path, mixed(color, m_look.ink, 0.22));
        if (s.outlined) {
            p.setPen(QPen(m_look.ink, m_look.line, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
            p.setBrush(Qt::NoBrush);
            p.drawPath(path);
        }
    }

    void operator()(const Stroke& s)
    {
        using Kind = Stroke::Kind;
        const double w = m_look.line;
        QPen pen(m_look.ink, w, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
        switch (s.kind) {
        case Kind::Edge: pen.setWidthF(w * 0.8); break;
        case Kind::Sew: pen = QPen(m_look.accent, w * 2.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin); break;
        case Kind::Sewn: pen = dashed(m_look.ink, w, {4, 2.5}); break;
        case Kind::Topstitch: pen = dashed(m_look.accent, w * 1.7, {3, 1.8}); break;
        case Kind::Baste: pen = dashed(m_look.accent, w * 1.5, {6, 4}); break;
        case Kind::Fold: pen = dashed(m_look.ink, w, {8, 3, 1.5, 3}); break;
        case Kind::Cut: pen = QPen(m_look.accent, w * 1.6, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin); break;
        case Kind::Mark: pen.setColor(m_look.ink); break;
        }
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(polygon(s.line));
    }

    void operator()(const Band& b)
    {
        const QPolygonF line = polygon(b.line);
        p.setBrush(Qt::NoBrush);
        const double w = b.width * v.scale;
        p.setPen(QPen(m_look.ink, w, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
        p.drawPolyline(line);
        p.setPen(QPen(colorOf(b.skin), std::max(0.5, w - 2 * m_look.line), Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
        p.drawPolyline(line);
    }

    void operator()(const Arrow& a)
    {
        const QPolygonF line = polygon(a.line);
        if (line.size() < 2)
            return;
        const double size = std::clamp(9 * m_look.line, 6.0, 60.0);
        p.setPen(QPen(m_look.accent, m_look.line * 2.2, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(line);
        const QPointF tip = line.back(), from = line[line.size() - 2];
        const QPointF d = tip - from;
        const double n = std::hypot(d.x(), d.y());
        if (n <= 0)
            return;
        const QPointF t = d / n, side(-t.y(), t.x());
        p.setPen(Qt::NoPen);
        p.setBrush(m_look.accent);
        p.drawPolygon(QPolygonF{tip + t * (size * 0.4), tip - t * (size * 0.6) + side * (size * 0.5),
            tip - t * (size * 0.6) - side * (size * 0.5)});
    }

    void operator()(const Word& w)
    {
        if (m_look.textSize <= 0)
            return;
        p.setFont(pixelFont(m_look.textSize, QFont::DemiBold));
        const QString words = text(w.text, m_look.unit);
        const QRectF box = p.fontMetrics().boundingRect(words);
        const QPointF at = v(w.at);
        // On a quiet ground of its own, so that no line runs through it.
        QRectF ground(0, 0, box.width() + 0.5 * m_look.textSize, 1.25 * m_look.textSize);
        ground.moveCenter(at);
        QColor under = m_look.ground;
        under.setAlpha(190);
        p.setPen(Qt::NoPen);
        p.setBrush(under);
        p.drawRoundedRect(ground, m_look.textSize * 0.25, m_look.textSize * 0.25);
        p.setPen(m_look.ink);
        p.drawText(ground.adjusted(-200, 0, 200, 0), Qt::AlignCenter, words);
    }

private:
    QPolygonF polygon(const Polyline& line) const
    {
        QPolygonF out;
        for (const Point q : line)
            out << v(q);
        return out;
    }

    static QPen dashed(const QColor& color, double width, const QVector<qreal>& pattern)
    {
        QPen pen(color, width, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin);
        pen.setDashPattern(pattern);
        return pen;
    }

    QColor colorOf(Skin skin) const
    {
        switch (skin) {
        case Skin::Shell: return m_look.shell;
        case Skin::ShellWrong: return mixed(m_look.shell, m_look.ground, 0.45);
        case Skin::Lining: return m_look.lining;
        case Skin::LiningWrong: return mixed(m_look.lining, m_look.ground, 0.45);
        case Skin::Strip: return m_look.strip;
        case Skin::StripWrong: return mixed(m_look.strip, m_look.ground, 0.45);
        case Skin::Padding: return m_look.padding;
        case Skin::Metal: return m_look.metal;
        case Skin::Tape: return m_look.tape;
        }
        return m_look.shell;
    }

    static bool textured(Skin skin)
    {
        return skin == Skin::ShellWrong || skin == Skin::LiningWrong || skin == Skin::StripWrong
            || skin == Skin::Padding;
    }

    /// Slanting lines inside a path.
    void hatch(const QPainterPath& path, const QColor& color)
    {
        const QRectF box = path.boundingRect();
        const double step = 6.5 * m_look.line;
        if (box.width() < step || (box.width() + box.height()) / step > 4000)
            return;
        p.save();
        p.setClipPath(path, Qt::IntersectClip);
        p.setPen(QPen(color, m_look.line * 0.55));
        for (double x = box.left() - box.height(); x < box.right(); x += step)
            p.drawLine(QPointF(x, box.bottom()), QPointF(x + box.height(), box.top()));
        p.restore();
    }

    QPainter& p;
    const View& v;
    const FigureLook& m_look;
};

} // namespace

void drawScene(QPainter& painter, const QRectF& target, const Scene& scene, const FigureLook& look)
{
    const Box box = boundsOf(scene);
    if (box.empty() || target.width() <= 0 || target.height() <= 0)
        return;
    const double border = look.textSize > 0 ? look.textSize * 0.9 : look.line * 2;
    View view = View::fit(box, target, border);
    if (scene.kind == Scene::Kind::Section) // a few layers need not fill the room
        if (const double most = look.line * 4.2; view.scale > most) {
            const Point c = box.centre();
            view.scale = most;
            view.origin = target.center() - QPointF(c.x * most, -c.y * most);
        }
    painter.save(); // whoever writes on measures its words with the pen in hand
    ScenePainter paint(painter, view, look);
    for (const auto& item : scene.items)
        std::visit(paint, item);
    painter.restore();
}

void drawStepFigure(QPainter& painter, const QRectF& target, const StepFigure& figure, const FigureLook& look)
{
    const bool beside = !figure.section.empty() || !figure.soFar.empty();
    const double gap = target.width() * 0.02, wide = beside ? target.width() * 0.6 : target.width();
    drawScene(painter, {target.left(), target.top(), wide, target.height()}, figure.plan, look);
    if (!beside)
        return;
    const QRectF side(target.left() + wide + gap, target.top(), target.width() - wide - gap, target.height());
    if (figure.section.empty() || figure.soFar.empty())
        return drawScene(painter, side, figure.section.empty() ? figure.soFar : figure.section, look);
    drawScene(painter, {side.left(), side.top(), side.width(), side.height() * 0.48}, figure.section, look);
    drawScene(painter, {side.left(), side.top() + side.height() * 0.52, side.width(), side.height() * 0.48},
        figure.soFar, look);
}

} // namespace tectonis
