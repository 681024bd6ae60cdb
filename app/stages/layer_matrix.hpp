// SPDX-License-Identifier: GPL-3.0-or-later
// The build-up of the whole bag: pieces down, layers across.
#pragma once

#include "document.hpp"

#include <QTableWidget>

namespace tectonis {

class LayerMatrix : public QTableWidget {
    Q_OBJECT
public:
    /// A layer of a piece; @c layer -1: none of them.
    struct Spot {
        PieceId piece;
        int layer = -1;
        bool operator==(const Spot&) const = default;
    };

    explicit LayerMatrix(Document& document);

    void fill();
    Spot inHand() const { return spotAt(currentRow(), currentColumn()); }
    /// What is selected, one for each piece: the current one first.
    std::vector<Spot> selected() const;
    /// Takes a layer in hand: after a change that moved it, or a click on its picture.
    void take(const Spot& spot);

signals:
    void picked();
    void takeAway(); ///< the key to delete was pressed

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    Spot spotAt(int row, int column) const;
    void share(); ///< the width among the layers

    Document& m_document;
    bool m_filling = false;
};

} // namespace tectonis
