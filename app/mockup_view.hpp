// SPDX-License-Identifier: GPL-3.0-or-later
// The folded bag, turnable, with its things inside and dimension handles on it.
#pragma once

#include "handles.hpp"

#include <QWidget>

#include <optional>

namespace tectonis {

class MockupView : public QWidget {
    Q_OBJECT
public:
    explicit MockupView(Document& document, QWidget* parent = nullptr);
    /// How the bag is shown. Not part of the design.
    struct Look {
        bool inside = true;  ///< walls towards the viewer let the inside show through
        bool open = false;   ///< flap and zips open
        bool lining = false; ///< the lining alone
        double apart = 0;    ///< 0 together to 1 pulled apart
        double stature = 0;  ///< mm of the figure beside the bag; 0: none
    };
    void setLook(const Look& look);
    const Look& look() const { return m_look; }
    void turnTo(double yaw, double pitch);
    /// Where a dimension's handle is in the widget; null point if it has none. For tests and guided tours.
    ScreenHandle handle(const std::string& dimension) const { return handleOf(screenHandles(), dimension); }
    QPointF handleAt(const std::string& dimension) const { return handle(dimension).at; }
    /// Words as they were last placed.
    const std::vector<PlacedLabel>& labels() const { return m_labels; }
    /// Piece whose face is on top at a point; empty if none.
    PieceId pieceAt(QPointF at) const;

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
        QPointF operator()(Vec3 v) const
        {
            return {origin.x() + dot(v, right) * scale, origin.y() - dot(v, up) * scale};
        }
        double depth(Vec3 v) const { return dot(v, back); }
    };
    Camera camera() const;
    std::optional<Camera> m_held; ///< while a handle is dragged nothing moves but what follows it
    std::vector<ScreenHandle> screenHandles() const;
    struct Shown {
        Facet facet;
        QPolygonF shape;
        double depth;
        Vec3 normal;
        bool outside; ///< its outer face is towards the viewer
        double pass;
    };
    std::vector<Shown> shownFacets(const Camera& camera) const;
    /// What is seen through first is drawn first; a negative pass is not drawn at all.
    double passOf(const Facet& facet, bool outside, double depth, const Camera& camera) const;
    /// The facets as they are shown: of the coats chosen, opened, pulled apart, with the figure.
    /// Is it stitched onto that strap?
    bool isSewnOn(const PieceId& piece, const PieceId& strip) const;
    std::vector<Facet> posed() const;
    void drawFacet(QPainter& painter, const Shown& shown) const;
    void nameThings(QPainter& painter, const std::vector<Shown>& shown, Labels& labels) const;

    Document& m_document;
    HandleDrag m_drag;
    double m_yaw = -0.5, m_pitch = 0.32, m_zoom = 1;
    Look m_look;
    bool m_turning = false, m_moved = false;
    QPointF m_last;
    std::vector<PlacedLabel> m_labels;
};

} // namespace tectonis
