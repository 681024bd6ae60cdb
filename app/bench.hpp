// SPDX-License-Identifier: GPL-3.0-or-later
// A drawing at true proportion that can be moved and zoomed. Stages that show pieces derive from it.
#pragma once

#include "document.hpp"
#include "handles.hpp"
#include "theme.hpp"

#include <QWidget>

namespace tectonis {

class Bench : public QWidget {
    Q_OBJECT
public:
    Bench(Document& document, const QString& name, QWidget* parent = nullptr);

    void fitAll();                                     ///< everything in view; follows the window until zoomed by hand
    void setScaleShown(bool on) { m_scaleShown = on; } ///< off for drawings that are not to scale
    void trueSize();                                   ///< 1 mm on screen is 1 mm, by the screen's reported density

    /// Where a point of the plane is in the widget.
    QPointF onScreen(Point p) const { return view()(p); }
    /// Words as they were last placed.
    const std::vector<PlacedLabel>& labels() const { return m_labels; }
    /// A dimension's handle as it is shown; without a name if it has none here.
    virtual ScreenHandle handle(const std::string& /*dimension*/) const { return {}; }

protected:
    Document& doc() const { return m_document; }
    View view() const;

    virtual Box extent() const = 0; ///< what has to be in view, mm
    /// Words go to @p labels, which finds them free places when all is drawn.
    virtual void draw(QPainter& painter, const View& view, Labels& labels) = 0;
    virtual bool press(Point, QPointF) { return false; } ///< true: this drag is the stage's own
    virtual void drag(Point, QPointF) {}
    virtual void release() {}
    virtual void hover(Point, QPointF) {}

    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void zoom(double factor, QPointF about);

    Document& m_document;
    bool m_fit = true, m_scaleShown = true;
    View m_view;
    View m_held; ///< what is seen while the stage's own drag goes on: nothing moves but what is dragged
    bool m_own = false, m_pan = false;
    QPointF m_last;
    std::vector<PlacedLabel> m_labels;
};

} // namespace tectonis
