// SPDX-License-Identifier: GPL-3.0-or-later
// How the bag's faces, and the straps below them, lie on the bench of Fittings.
#pragma once

#include "document.hpp"

#include <QFont>
#include <QSizeF>

#include <vector>

namespace tectonis {

/// A piece on the bench, upright.
struct LaidFace {
    const Piece* piece;
    Placement at; ///< from the piece to the bench
    Box box;      ///< of its cut line, on the bench
    /// On the piece, what lies at @p q on the bench.
    Point on(Point q) const;
};

/// What stands below a face: its code and name.
Message captionOf(const Piece& piece);

class FaceLayout {
public:
    explicit FaceLayout(const Document& document) : m_document(document) {}

    /// The faces of the bag, each with the pieces it was cut into one above the other, then every other piece that
    /// carries a fitting or a placement; as many side by side as show largest in @p room px with names in @p font.
    const std::vector<LaidFace>& faces(QSizeF room, const QFont& font) const;
    /// The pattern, or what is in hand, is another one.
    void forget() { m_known = {}; }
    /// As many side by side as now, until released: they stay where they are while something is dragged.
    void hold() { m_across = m_best, forget(); }
    void release() { m_across = 0, forget(); }

    /// Where straps begin below the faces, y on the bench.
    static double strapTop(const std::vector<LaidFace>& faces);
    /// What the faces and the straps below them take.
    Box withStraps(const std::vector<LaidFace>& faces) const;

private:
    struct Standing;
    using Groups = std::vector<std::vector<Standing>>;
    Standing standing(const Piece& piece, const QFont& font) const;
    Groups groups(const QFont& font) const;
    std::vector<LaidFace> laidOut(const Groups& groups, std::size_t across) const;

    std::vector<LaidFace> laid(QSizeF room, const QFont& font) const;

    const Document& m_document;
    mutable std::vector<LaidFace> m_known; ///< as last worked out
    mutable QSizeF m_room;                 ///< for which
    mutable std::size_t m_best = 1;        ///< faces side by side, as last chosen
    mutable double m_pixel = 0;            ///< mm of one on the screen, about
    std::size_t m_across = 0;              ///< kept while something is dragged; 0: chosen anew
};

} // namespace tectonis
