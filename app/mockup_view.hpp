// SPDX-License-Identifier: GPL-3.0-or-later
// The folded bag, turnable, with its things inside and dimension handles on it.
#pragma once

#include "handles.hpp"

#include <QWidget>

namespace tectonis {

class MockupView : public QWidget {
    Q_OBJECT
public:
    explicit MockupView(Document& document, QWidget* parent = nullptr);
    void setLookInside(bool on);
    bool lookInside() const { return m_inside; }
    void turnTo(double yaw, double pitch);
    /// Where a dimension's handle is in the widget; null point if it has none. For tests and guided tours.
    QPointF handleAt(const std::string& dimension) const;
    /// Piece whose face is on top at a point; empty if none.
    std::string pieceAt(QPointF at) const;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Camera {
        double scale = 1;
        QPointF origin;
        Vec3 right, up, back;
        QPointF operator()(Vec3 v) const { return {origin.x() + dot(v, right) * scale, origin.y() - dot(v, up) * scale}; }
        double depth(Vec3 v) const { return dot(v, back); }
    };
    Camera camera() const;
    std::vector<ScreenHandle> screenHandles() const;
    struct Shown {
        const Facet* facet;
        QPolygonF shape;
        double depth;
        Vec3 normal;
        bool outside; ///< its outer face is towards the viewer
        int pass;
    };
    std::vector<Shown> shownFacets(const Camera& camera) const;
    void drawFacet(QPainter& painter, const Shown& shown) const;

    Document& m_document;
    HandleDrag m_drag;
    double m_yaw = -0.5, m_pitch = 0.32, m_zoom = 1;
    bool m_inside = true, m_turning = false, m_moved = false;
    QPointF m_last;
};

} // namespace tectonis
