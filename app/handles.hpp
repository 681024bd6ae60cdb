// SPDX-License-Identifier: GPL-3.0-or-later
// Dimension handles: round grips that carry the dimension's name and value and change it when dragged.
#pragma once

#include "document.hpp"
#include "labels.hpp"
#include "theme.hpp"

#include <QPainter>
#include <functional>
#include <optional>

namespace tectonis {

/// A handle on the screen: where it is and what a pixel of drag means.
struct ScreenHandle {
    std::string dimension;
    QPointF at;
    QPointF direction;          ///< pixels per mm of growth along the handle's own direction
    double gain = 1;            ///< mm of the dimension per mm along it
    std::ptrdiff_t number = -1; ///< among the pattern's handles: a dimension may have several on one piece
};

/// The pattern's handles on pieces that lie at @p placeOf; pieces it has no place for are left out, and so are things
/// that are fixed to them, which are moved on the faces.
std::vector<ScreenHandle> handlesOnPieces(
    const Pattern& pattern, const View& base, const std::function<const Placement*(const PieceId& piece)>& placeOf);

/// A dimension's handle; one without a dimension's name if it is not among them.
ScreenHandle handleOf(const std::vector<ScreenHandle>& handles, const std::string& dimension);

class HandleDrag {
public:
    explicit HandleDrag(Document& document) : m_document(document) {}

    /// Takes hold of the handle under @p at, if there is one.
    bool press(const std::vector<ScreenHandle>& handles, QPointF at);
    void move(QPointF at);
    void release() { m_held.dimension.clear(); }
    const std::string& held() const { return m_held.dimension; }
    std::ptrdiff_t heldNumber() const { return m_held.number; }
    /// Where the handle in hand belongs now: as far along its arrow from where it was taken as its dimension has grown.
    QPointF heldAt() const;
    void hover(const std::vector<ScreenHandle>& handles, QPointF at);

    /// Draws the grips and hands their words to @p labels: those that @p named gives true for, and always the one in
    /// hand or under the pointer. With @p centre, words rather stand on the far side of their grip from it.
    void draw(QPainter& painter, const std::vector<ScreenHandle>& handles, Labels& labels,
        std::optional<QPointF> centre = {}, const std::function<bool(const ScreenHandle&)>& named = {}) const;

private:
    Document& m_document;
    ScreenHandle m_held;
    std::string m_hovered;
    QPointF m_start;
    double m_value = 0;
    int m_drags = 0; ///< each drag is one undo step
};

} // namespace tectonis
