// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup_view.hpp"

#include "checks/carry.hpp"
#include "fonts.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

Vec3 unitVec(Vec3 v)
{
    const double n = std::sqrt(dot(v, v));
    return n > 0 ? v * (1 / n) : v;
}

/// Newell's normal of a polygon: right for any planar polygon, convex or not.
Vec3 normalOf(const std::vector<Vec3>& c)
{
    Vec3 n;
    for (std::size_t i = 0; i < c.size(); ++i) {
        const Vec3 a = c[i], b = c[(i + 1) % c.size()];
        n = n + Vec3{(a.y - b.y) * (a.z + b.z), (a.z - b.z) * (a.x + b.x), (a.x - b.x) * (a.y + b.y)};
    }
    return unitVec(n);
}

QColor shaded(QColor c, double k) { return QColor::fromRgbF(std::clamp(c.redF() * float(k), 0.f, 1.f), std::clamp(c.greenF() * float(k), 0.f, 1.f), std::clamp(c.blueF() * float(k), 0.f, 1.f), c.alphaF()); }

} // namespace

MockupView::MockupView(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_drag(document)
{
    setAccessibleName("Mock-up of the folded bag; arrow keys turn it");
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(240, 200);
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
}

void MockupView::setLookInside(bool on)
{
    m_inside = on;
    update();
}

void MockupView::turnTo(double yaw, double pitch)
{
    m_yaw = yaw;
    m_pitch = std::clamp(pitch, -1.4, 1.4);
    update();
}

MockupView::Camera MockupView::camera() const
{
    Camera c;
    const double cy = std::cos(m_yaw), sy = std::sin(m_yaw), cp = std::cos(m_pitch), sp = std::sin(m_pitch);
    c.right = {cy, 0, -sy};
    c.back = {sy * cp, sp, cy * cp};
    c.up = cross(c.back, c.right);
    Box box;
    for (const auto& f : m_document.pattern().mockup.facets)
        for (const Vec3 v : f.corners)
            box.add(Point{dot(v, c.right), dot(v, c.up)});
    if (box.empty())
        return c;
    const View fit = View::fit(box, QRectF(rect()).adjusted(40, 12, -40, -12));
    c.scale = fit.scale * m_zoom;
    c.origin = QRectF(rect()).center() - QPointF(box.centre().x * c.scale, -box.centre().y * c.scale);
    return c;
}

std::vector<MockupView::Shown> MockupView::shownFacets(const Camera& c) const
{
    std::vector<Shown> out;
    for (const auto& f : m_document.pattern().mockup.facets) {
        Shown s{&f, {}, 0, normalOf(f.corners), true, 0};
        for (const Vec3 v : f.corners) {
            s.shape << c(v);
            s.depth += c.depth(v) / double(f.corners.size());
        }
        s.outside = dot(s.normal, c.back) > 0;
        // The body is convex: walls seen from inside lie behind everything in it, walls seen from outside before it.
        const bool thing = f.kind == "thing", loose = f.kind == "strap" || f.kind == "metal";
        if (thing && !s.outside)
            continue;
        const bool onCloth = f.kind == "overlay" || f.kind == "fitting";
        if (onCloth && !s.outside)
            continue;
        s.pass = loose ? (s.depth < 0 ? 0 : 6) : thing ? 2 : f.kind == "flap" ? (s.outside ? 6 : 0) : f.kind == "overlay" ? 4 : onCloth ? 5 : s.outside ? 3 : 1;
        out.push_back(std::move(s));
    }
    std::stable_sort(out.begin(), out.end(), [](const Shown& a, const Shown& b) { return a.pass != b.pass ? a.pass < b.pass : a.depth < b.depth; });
    return out;
}

void MockupView::drawFacet(QPainter& p, const Shown& s) const
{
    const Theme& t = theme();
    const Facet& f = *s.facet;
    const Vec3 light = unitVec({-0.4, 0.8, 0.6});
    const double lit = 0.80 + 0.22 * std::abs(dot(s.normal, light)) * (s.outside ? 1 : 0.4);
    QColor color = f.kind == "strap" ? t.strip : f.kind == "metal" || f.kind == "fitting" ? QColor(t.dark ? 0xC9CDD2 : 0x8C9299) : f.kind == "thing" ? QColor(t.dark ? 0x7A5A86 : 0xC9AFD2)
                                     : s.outside ? t.shell : t.lining;
    color = shaded(color, lit);
    if (f.kind == "thing")
        color.setAlpha(210);
    else if (m_inside && (s.pass == 3 || s.pass == 4 || (s.pass == 6 && f.kind == "flap")))
        color.setAlpha(120);
    const bool inHand = !f.piece.empty() && f.piece == m_document.pieceInHand();
    p.setPen(Qt::NoPen);
    p.setBrush(color);
    p.drawPolygon(s.shape);
    // Stitch lines like thread; folds inside a piece are not drawn.
    QPen pen(inHand ? t.accent : t.dark ? QColor(0xB9B1A3) : QColor(0x5A4F43), inHand ? 1.8 : 1.1);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    for (int i = 0; i < s.shape.size(); ++i)
        if (f.seamAfter.empty() || f.seamAfter[std::size_t(i)])
            p.drawLine(s.shape[i], s.shape[(i + 1) % s.shape.size()]);
}

std::vector<ScreenHandle> MockupView::screenHandles() const
{
    const Camera c = camera();
    std::vector<ScreenHandle> out;
    for (const auto& h : m_document.pattern().mockup.handles)
        out.push_back({h.dimension, c(h.at), c(h.at + h.direction) - c(h.at), h.gain});
    return out;
}

QPointF MockupView::handleAt(const std::string& dimension) const
{
    for (const auto& h : screenHandles())
        if (h.dimension == dimension)
            return h.at;
    return {};
}

std::string MockupView::pieceAt(QPointF at) const
{
    const auto shown = shownFacets(camera());
    for (auto it = shown.rbegin(); it != shown.rend(); ++it)
        if (!it->facet->piece.empty() && it->shape.containsPoint(at, Qt::OddEvenFill))
            return it->facet->piece;
    return {};
}

void MockupView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().bench);
    const Camera c = camera();
    const auto shown = shownFacets(c);
    for (const auto& s : shown)
        drawFacet(p, s);
    // Names of the things stand at the side, with a line to each.
    if (m_inside && width() > 480) {
        std::set<std::string> named;
        p.setFont(pixelFont(12));
        double y = height() - 14;
        for (auto it = shown.rbegin(); it != shown.rend(); ++it) {
            if (it->facet->kind != "thing" || !named.insert(it->facet->label).second)
                continue;
            const QString label = QString::fromStdString(it->facet->label);
            const QPointF end(18 + p.fontMetrics().horizontalAdvance(label), y - 4), thing = it->shape.boundingRect().center();
            p.setPen(QPen(theme().muted, 0.8));
            p.drawLine(end, thing);
            p.setBrush(theme().muted);
            p.drawEllipse(thing, 2, 2);
            p.setPen(theme().ink);
            p.drawText(QPointF(12, y), label);
            y -= 20;
        }
    }
    m_drag.draw(p, screenHandles(), rect());
}

void MockupView::mousePressEvent(QMouseEvent* event)
{
    m_last = event->position();
    m_moved = false;
    m_turning = event->button() == Qt::LeftButton && !m_drag.press(screenHandles(), m_last);
}

void MockupView::mouseMoveEvent(QMouseEvent* event)
{
    const QPointF at = event->position();
    if (!m_drag.held().empty())
        m_drag.move(at);
    else if (m_turning && event->buttons()) {
        if (m_moved || (at - m_last).manhattanLength() > 3) {
            m_moved = true;
            turnTo(m_yaw - (at.x() - m_last.x()) * 0.008, m_pitch + (at.y() - m_last.y()) * 0.008);
            m_last = at;
        }
    } else {
        m_drag.hover(screenHandles(), at);
        update();
    }
}

void MockupView::mouseReleaseEvent(QMouseEvent* event)
{
    if (m_turning && !m_moved)
        m_document.takePiece(pieceAt(event->position()));
    m_turning = false;
    m_drag.release();
    update();
}

void MockupView::wheelEvent(QWheelEvent* event)
{
    m_zoom = std::clamp(m_zoom * std::pow(1.0015, event->angleDelta().y()), 0.3, 6.0);
    update();
}

void MockupView::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Left: return turnTo(m_yaw + 0.1, m_pitch);
    case Qt::Key_Right: return turnTo(m_yaw - 0.1, m_pitch);
    case Qt::Key_Up: return turnTo(m_yaw, m_pitch - 0.1);
    case Qt::Key_Down: return turnTo(m_yaw, m_pitch + 0.1);
    default: QWidget::keyPressEvent(event);
    }
}

} // namespace tectonis
