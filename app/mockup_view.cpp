// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup_view.hpp"

#include "fonts.hpp"
#include "mockup/carry.hpp"
#include "mockup/figure.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

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

QColor shaded(QColor c, double k)
{
    return QColor::fromRgbF(std::clamp(c.redF() * float(k), 0.f, 1.f), std::clamp(c.greenF() * float(k), 0.f, 1.f),
        std::clamp(c.blueF() * float(k), 0.f, 1.f), c.alphaF());
}

} // namespace

MockupView::MockupView(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_drag(document)
{
    setAccessibleName(spoken("Mock-up of the folded bag; arrow keys turn it"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(240, 104);
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
}

void MockupView::setLook(const Look& look)
{
    m_look = look;
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
    if (m_held)
        return *m_held;
    Camera c;
    const double cy = std::cos(m_yaw), sy = std::sin(m_yaw), cp = std::cos(m_pitch), sp = std::sin(m_pitch);
    c.right = {cy, 0, -sy};
    c.back = {sy * cp, sp, cy * cp};
    c.up = cross(c.back, c.right);
    Box box;
    for (const auto& f : posed())
        for (const Vec3 v : f.corners)
            box.add(Point{dot(v, c.right), dot(v, c.up)});
    if (box.empty())
        return c;
    const View fit = View::fit(box, QRectF(rect()).adjusted(40, 12, -40, -12));
    c.scale = fit.scale * m_zoom;
    c.origin = QRectF(rect()).center() - QPointF(box.centre().x * c.scale, -box.centre().y * c.scale);
    return c;
}

/// Stitched onto a strap or a tab, not onto a wall.
static bool onStrip(const Facet& f) { return f.kind == "overlay" && dot(f.facing, f.facing) > 0; }

bool MockupView::isSewnOn(const PieceId& piece, const PieceId& strip) const
{
    const auto& all = m_document.pattern().overlays;
    return std::any_of(all.begin(), all.end(), [&](const Overlay& o) { return o.piece == piece && o.on == strip; });
}

std::vector<Facet> MockupView::posed() const
{
    const Mockup& mockup = m_document.mockup();
    std::vector<Facet> out;
    out.reserve(mockup.facets.size());
    for (const auto& f : mockup.facets) {
        const bool ofLining = f.coat == Coat::Lining;
        if (m_look.lining && !ofLining && f.kind != "thing")
            continue;
        if (const Strap* strap = m_document.pattern().strapWorn(Strap::Worn::Shoulder);
            m_look.stature > 0 && strap && (f.piece == strap->piece || (onStrip(f) && isSewnOn(f.piece, strap->piece))))
            continue; // the figure wears it at its longest
        out.push_back(f);
        if (m_look.open && !f.opened.empty()) {
            out.back().corners = f.opened;
            if (dot(f.openedFacing, f.openedFacing) > 0)
                out.back().facing = f.openedFacing;
        }
    }
    if (m_look.apart > 0) {
        // Each piece moves along its own outside, or away from the middle where it bends round; the lining is lifted
        // out of the shell.
        struct Sum {
            Vec3 normal{}, at{};
            double area = 0;
        };
        std::map<std::tuple<PieceId, int, Coat>, Sum> pieces;
        Vec3 low{1e9, 1e9, 1e9}, high{-1e9, -1e9, -1e9};
        for (const auto& f : out) {
            Vec3 middle{};
            for (const Vec3 v : f.corners) {
                middle = middle + v * (1 / double(f.corners.size()));
                low = {std::min(low.x, v.x), std::min(low.y, v.y), std::min(low.z, v.z)};
                high = {std::max(high.x, v.x), std::max(high.y, v.y), std::max(high.z, v.z)};
            }
            if (f.kind != "cloth" && f.kind != "flap" && f.kind != "inner")
                continue;
            Vec3 n{};
            for (std::size_t i = 1; i + 1 < f.corners.size(); ++i)
                n = n + cross(f.corners[i] - f.corners[0], f.corners[i + 1] - f.corners[0]);
            const double area = std::sqrt(dot(n, n)) / 2;
            Sum& sum = pieces[{f.piece, f.copy, f.coat}];
            sum.normal = sum.normal + n * 0.5, sum.at = sum.at + middle * area, sum.area += area;
        }
        const Vec3 centre = (low + high) * 0.5;
        const double reach = 0.45 * m_look.apart * std::max({high.x - low.x, high.y - low.y, high.z - low.z});
        for (auto& f : out) {
            Vec3 move{};
            const bool ofLining = f.coat == Coat::Lining;
            // What lies on a piece goes with it.
            auto sum = pieces.find({f.piece, f.copy, f.coat});
            if (sum == pieces.end())
                for (const auto& o : m_document.pattern().overlays)
                    if (o.piece == f.piece)
                        sum = pieces.find({o.on, 0, f.coat});
            if (sum != pieces.end() && sum->second.area > 0) {
                const Vec3 flat = sum->second.normal * (1 / sum->second.area),
                           away = sum->second.at * (1 / sum->second.area) - centre;
                move = dot(flat, flat) > 0.2 ? unitVec(flat) * (ofLining ? -1 : 1) : unitVec(away);
                move = move * (reach * (ofLining ? 0.4 : 1));
            }
            if (ofLining || f.kind == "thing")
                move = move + Vec3{0, (high.y - low.y) * 1.3 * m_look.apart, 0};
            for (Vec3& v : f.corners)
                v = v + move;
        }
    }
    if (m_look.stature > 0)
        for (auto& f : figureOf(m_document.pattern(), m_look.stature))
            out.push_back(std::move(f));
    return out;
}

double MockupView::passOf(const Facet& f, bool outside, double depth, const Camera& c) const
{
    constexpr double hidden = -1;
    if (f.kind == "figure")
        return c.back.z > 0 ? 0 : 7; // it stands behind the bag
    if (f.kind == "thing" && !outside)
        return hidden;
    if (f.kind == "edge" && dot(f.facing, f.facing) > 0 && dot(f.facing, c.back) <= 0)
        return hidden;
    if (f.kind == "overlay" && !outside)
        return hidden;
    // The body is convex: walls seen from inside lie behind everything in it, walls seen from outside before it.
    const bool ofLining = f.coat == Coat::Lining, on = f.kind == "overlay" || f.kind == "edge",
               fitting = f.kind == "fitting" || (f.kind == "zip" && dot(f.facing, f.facing) > 0);
    if (fitting && !outside)
        return hidden;
    if (m_look.apart > 0)
        return 1; // by depth alone
    if (ofLining) {
        if (!outside && !m_look.lining)
            return hidden; // behind the shell
        return !outside ? 3 : on || f.kind == "flap" ? 1.2 : fitting ? 1.3 : 1.1;
    }
    if (f.kind == "strap" || f.kind == "metal")
        return depth < 0 ? 0.1 : 6;
    if (onStrip(f))
        return depth < 0 ? 0.15 : 6.05;
    if (f.kind == "thing" || f.kind == "inner")
        return 2;
    if (f.kind == "flap")
        return outside ? 6 : m_look.open ? 0.5 : 0;
    if (f.flap != Facet::Flap::No) {
        const double over = f.kind == "fitting" || f.kind == "zip" ? 0.2 : 0.1;
        return f.flap == Facet::Flap::Outside ? 6 + over : m_look.open ? 0.5 + over : hidden;
    }
    if (f.kind == "zip" && f.piece.empty())
        return 2;
    return fitting ? 5 : f.kind == "overlay" ? 4 : on ? (dot(f.facing, f.facing) > 0 ? 4 : 3) : outside ? 3 : 1;
}

std::vector<MockupView::Shown> MockupView::shownFacets(const Camera& c) const
{
    std::vector<Shown> out;
    for (auto& f : posed()) {
        Shown s{{}, {}, 0, normalOf(f.corners), true, 0};
        for (const Vec3 v : f.corners) {
            s.shape << c(v);
            s.depth += c.depth(v) / double(f.corners.size());
        }
        if (!std::isfinite(s.depth))
            continue; // nothing that could be drawn
        s.outside = dot(s.normal, c.back) > 0;
        s.pass = passOf(f, s.outside, s.depth, c);
        if (s.pass < 0)
            continue;
        s.facet = std::move(f);
        out.push_back(std::move(s));
    }
    std::stable_sort(out.begin(), out.end(),
        [](const Shown& a, const Shown& b) { return a.pass != b.pass ? a.pass < b.pass : a.depth < b.depth; });
    return out;
}

void MockupView::drawFacet(QPainter& p, const Shown& s) const
{
    const Theme& t = theme();
    const Facet& f = s.facet;
    const Vec3 light = unitVec({-0.4, 0.8, 0.6});
    const double lit = 0.80 + 0.22 * std::abs(dot(s.normal, light)) * (s.outside ? 1 : 0.4);
    const bool ofLining = f.coat == Coat::Lining;
    const QColor metal(t.dark ? 0xC9CDD2 : 0x8C9299);
    QColor color = f.kind == "strap"               ? t.strip
        : f.kind == "metal" || f.kind == "fitting" ? metal
        : f.kind == "thing"  ? (f.clash ? QColor(t.dark ? 0xB4574A : 0xE0998C) : QColor(t.dark ? 0x7A5A86 : 0xC9AFD2))
        : f.kind == "zip"    ? (m_look.open ? QColor(0x2A2622) : metal)
        : f.kind == "figure" ? QColor(t.dark ? 0x4A4E55 : 0xD5D2CB)
        : ofLining || (!s.outside && f.kind != "inner" && f.kind != "edge") ? t.lining
                                                                            : t.shell;
    if (f.kind != "figure")
        color = shaded(color, lit);
    if (f.kind == "thing")
        color.setAlpha(210);
    else if (m_look.inside && m_look.apart == 0 && (s.pass == 3 || s.pass == 4 || (s.pass == 6 && f.kind == "flap")))
        color.setAlpha(120);
    const bool inHand = !f.piece.empty() && f.kind != "fitting" && f.piece == m_document.pieceInHand();
    // What is solid reaches half a pixel further, or what lies behind would shine through between the narrow facets of
    // a bend.
    color.alpha() == 255 ? p.setPen(QPen(color, 1)) : p.setPen(Qt::NoPen);
    p.setBrush(color);
    p.drawPolygon(s.shape);
    // Stitch lines like thread; folds inside a piece are not drawn.
    QPen pen(inHand ? t.accent : t.dark ? QColor(0xB9B1A3) : QColor(0x5A4F43), inHand ? 1.8 : 1.1);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    for (int i = 0; i < s.shape.size(); ++i)
        if (f.seamAfter.empty() || f.seamAfter[std::size_t(i)])
            p.drawLine(s.shape[i], s.shape[(i + 1) % s.shape.size()]);
    if (f.kind == "zip" && s.shape.size() == 4 && !m_look.open) { // the closed chain
        p.setPen(QPen(QColor(0x3A3632), 1.4, Qt::DashLine));
        const auto middle = [](QPointF a, QPointF b) { return (a + b) / 2; };
        const bool along = QLineF(s.shape[0], s.shape[1]).length() > QLineF(s.shape[1], s.shape[2]).length();
        p.drawLine(along ? middle(s.shape[0], s.shape[3]) : middle(s.shape[0], s.shape[1]),
            along ? middle(s.shape[1], s.shape[2]) : middle(s.shape[2], s.shape[3]));
    }
}

std::vector<ScreenHandle> MockupView::screenHandles() const
{
    if (m_look.apart > 0 || m_look.stature > 0)
        return {};
    const Camera c = camera();
    std::vector<ScreenHandle> out;
    for (const auto& h : m_document.mockup().handles)
        out.push_back({h.dimension, c(h.at), c(h.at + h.direction) - c(h.at), h.gain});
    return out;
}

PieceId MockupView::pieceAt(QPointF at) const
{
    const auto shown = shownFacets(camera());
    for (auto it = shown.rbegin(); it != shown.rend(); ++it)
        if (!it->facet.piece.empty() && it->shape.containsPoint(at, Qt::OddEvenFill))
            return it->facet.piece;
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
    Labels labels(QRectF(rect()).adjusted(4, 4, -4, -4));
    for (const auto* child : findChildren<QWidget*>(Qt::FindDirectChildrenOnly))
        if (child->isVisible())
            labels.avoid(child->geometry()); // buttons that lie on it
    if (m_look.inside && m_look.apart == 0 && m_look.stature == 0 && width() > 480)
        nameThings(p, shown, labels);
    if (m_look.apart == 0 && m_look.stature == 0) {
        Box box;
        for (const auto& s : shown)
            for (const QPointF& q : s.shape)
                box.add(Point{q.x(), q.y()});
        m_drag.draw(p, screenHandles(), labels,
            box.empty() ? std::optional<QPointF>() : QPointF(box.centre().x, box.centre().y));
    }
    labels.draw(p);
    m_labels = labels.placed();
    if (m_look.stature > 0) {
        const Worn worn = wornBy(m_document.pattern(), m_look.stature);
        const QString mouth = m_document.len(worn.mouthAbove);
        const QString words = worn.drop > 0
            ? spoken("Worn {}: drop {}, mouth {} above the floor", worn.how, m_document.len(worn.drop), mouth)
            : spoken("Worn {}, mouth {} above the floor", worn.how, mouth);
        p.setFont(pixelFont(12));
        p.setPen(theme().ink);
        p.drawText(QRectF(rect()).adjusted(12, 8, -12, -10), Qt::AlignBottom | Qt::AlignLeft, words);
    }
}

/// Names of the things stand at the side, with a line to each; of many only the first, and how many there are more.
void MockupView::nameThings(QPainter& p, const std::vector<Shown>& shown, Labels& labels) const
{
    constexpr std::size_t most = 8;
    std::vector<const Shown*> things;
    for (auto it = shown.rbegin(); it != shown.rend(); ++it)
        if (it->facet.kind == "thing" && std::none_of(things.begin(), things.end(), [&](const Shown* s) {
                return s->facet.copy == it->facet.copy;
            }))
            things.push_back(&*it);
    p.setFont(pixelFont(12));
    const std::size_t named = things.size() > most ? most - 1 : things.size();
    double y = height() - 14;
    const auto write = [&](const QString& words) {
        const QRectF box(12, y - 13, p.fontMetrics().horizontalAdvance(words) + 2, 17);
        p.setPen(theme().ink);
        p.drawText(box, Qt::AlignLeft | Qt::AlignVCenter, words);
        labels.avoid(box);
        y -= 20;
        return QPointF(box.right() + 4, box.center().y());
    };
    if (things.size() > named)
        write(spoken("and {} more things", things.size() - named));
    for (std::size_t i = 0; i < named; ++i) {
        const QString name = p.fontMetrics().elidedText(
            QString::fromStdString(things[i]->facet.label), Qt::ElideRight, 220);
        const QPointF end = write(name), thing = things[i]->shape.boundingRect().center();
        p.setPen(QPen(theme().muted, 0.8));
        p.drawLine(end, thing);
        p.setBrush(theme().muted);
        p.drawEllipse(thing, 2, 2);
    }
}

void MockupView::mousePressEvent(QMouseEvent* event)
{
    m_last = event->position();
    m_moved = false;
    m_turning = event->button() == Qt::LeftButton && !m_drag.press(screenHandles(), m_last);
    if (!m_drag.held().empty())
        m_held = camera();
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
    m_held.reset();
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
