// SPDX-License-Identifier: GPL-3.0-or-later
// Fields of the layer in hand, and what can be done with it: for one piece, for all of a role, for the selected ones.
#pragma once

#include "layer_matrix.hpp"

#include <QWidget>

class QComboBox;
class QPushButton;

namespace tectonis {

class LayerBar : public QWidget {
    Q_OBJECT
public:
    LayerBar(Document& document, LayerMatrix& matrix);

    void fill();
    void takeAway();
    /// The shape of the layer in hand, as a rule's text says it; @p drag: what these edits merge with.
    void reshape(const std::string& area, const QString& drag);

private:
    const Piece* piece() const;
    const Layer* layer() const;
    const LayerRule* rule() const;
    /// Names of roles or pieces that a change is for, each with the number of its layer there; -1: none.
    std::vector<std::pair<std::string, int>> targets() const;
    void change(const QString& what, const std::function<void(LayerRule&)>& change, const QString& drag = {});
    void changeTrim();
    void putBehind();
    void move(bool inwards);
    void restore();
    std::string edge() const;

    Document& m_document;
    LayerMatrix& m_matrix;
    QComboBox *m_scope, *m_material, *m_fixing, *m_shape, *m_edge, *m_trim, *m_grain;
    QPushButton *m_remove, *m_out, *m_in, *m_restore;
    bool m_filling = false;
};

} // namespace tectonis
