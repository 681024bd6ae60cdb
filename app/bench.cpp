// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench.hpp"

#include "fonts.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScreen>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <utility>

namespace tectonis {

Bench::Bench(Document& document, const QString& name, QWidget* parent) : QWidget(parent), m_document(document)
{
    setAccessibleName(name);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(200, 150);
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
}

View Bench::view() const { return m_own ? m_held : m_fit ? View::fit(extent(), rect(), 26) : m_view; }

void Bench::fitAll()
{
    m_fit = true;
    update();
}

void Bench::trueSize()
{
    const double perMm = (screen() ? screen()->physicalDotsPerInch() : 96) / mmPerInch;
    zoom(perMm / view().scale, rect().center());
}

void Bench::zoom(double factor, QPointF about)
{
    const View before = view();
    m_view = before;
    m_fit = false;
    m_view.scale = std::clamp(before.scale * factor, 0.02, 60.0);
    const double k = m_view.scale / before.scale;
    m_view.origin = about + (before.origin - about) * k;
    update();
}

void Bench::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().bench);
    const View v = view();
    Labels labels(QRectF(rect()).adjusted(3, 3, -3, -3));
    labels.avoid(QRectF(0, height() - 30, 190, 30)); // the rule
    draw(p, v, labels);
    labels.draw(p);
    m_labels = labels.placed();
    if (!m_scaleShown)
        return;
    // A rule at the lower left tells the scale.
    const double wanted = 90 / v.scale;
    const double ten = std::pow(10, std::floor(std::log10(wanted)));
    const double mm = wanted >= 5 * ten ? 5 * ten : wanted >= 2 * ten ? 2 * ten : ten;
    const double x = 14, y = height() - 14, w = mm * v.scale;
    p.setPen(QPen(theme().muted, 1.4));
    p.drawPolyline(QPolygonF{{x, y - 4}, {x, y}, {x + w, y}, {x + w, y - 4}});
    p.setFont(pixelFont(11));
    p.drawText(QPointF(x + w + 6, y + 1), doc().len(mm));
}

void Bench::wheelEvent(QWheelEvent* event) { zoom(std::pow(1.0015, event->angleDelta().y()), event->position()); }

void Bench::mousePressEvent(QMouseEvent* event)
{
    m_last = event->position();
    const View seen = view();
    m_own = event->button() == Qt::LeftButton && press(seen.plane(m_last), m_last);
    m_held = seen;
    m_pan = !m_own;
}

void Bench::mouseMoveEvent(QMouseEvent* event)
{
    const QPointF at = event->position();
    if (m_own && event->buttons())
        drag(view().plane(at), at);
    else if (m_pan && event->buttons()) {
        if (!m_fit || (at - m_last).manhattanLength() > 3) {
            m_view = view();
            m_fit = false;
            m_view.origin += at - m_last;
            m_last = at;
            update();
        }
    } else
        hover(view().plane(at), at);
}

void Bench::mouseReleaseEvent(QMouseEvent*)
{
    if (std::exchange(m_own, false))
        release();
    m_pan = false;
    update();
}

void Bench::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Plus || event->key() == Qt::Key_Equal)
        zoom(1.25, rect().center());
    else if (event->key() == Qt::Key_Minus)
        zoom(0.8, rect().center());
    else if (event->key() == Qt::Key_F || event->key() == Qt::Key_Home)
        fitAll();
    else if (event->key() == Qt::Key_T)
        trueSize();
    else
        QWidget::keyPressEvent(event);
}

} // namespace tectonis
