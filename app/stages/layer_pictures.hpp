// SPDX-License-Identifier: GPL-3.0-or-later
// What Build-up draws: the layers of the piece in hand pulled apart, and a section through a seam.
#pragma once

#include "buildup/shapes.hpp"
#include "picture.hpp"

#include <QTransform>

#include <functional>
#include <optional>

namespace tectonis {

/// The face and its layers, one below the other, seen from above at a slant. A click takes a layer in hand; one with a
/// shape of its own is moved and pulled larger there.
class PulledApart : public Picture {
public:
    explicit PulledApart(Document& document);
    int inHand = -1; ///< the layer that is marked; -1: none
    std::function<void(int)> taken;
    /// A layer's shape, as a rule's text says it, and what this drag merges with.
    std::function<void(int, const std::string&, const QString&)> reshaped;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;

private:
    struct Held {
        int layer;
        ShapeHold hold;
        LayerShape shape;
        LayerShape now; ///< as it is pulled
        Point from;     ///< on the piece
        QString drag;   ///< its own name, so that the next drag is an edit of its own
    };
    const Piece* piece() const;
    Point onPiece(int layer, QPointF at) const;
    int layerAt(QPointF at) const; ///< the uppermost there; -1: none
    std::optional<LayerShape> shapeOf(int layer) const;
    std::optional<ShapeHold> holdOf(int layer, QPointF at) const;

    std::vector<QTransform> m_onto; ///< piece to widget: of the face, then of each layer
    std::optional<Held> m_held;
    QPointF m_pointer;
    int m_drags = 0;
};

/// A section through the chosen seam, magnified, beside the machine's limit.
class Section : public Picture {
public:
    explicit Section(Document& document);
    SeamId seam;
    PieceId strap; ///< else: the end of a strap, belt or handle

protected:
    void paintEvent(QPaintEvent*) override;
};

} // namespace tectonis
