// SPDX-License-Identifier: GPL-3.0-or-later
#include "layer_matrix.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"
#include "theme.hpp"

#include <QHeaderView>
#include <QKeyEvent>
#include <QSignalBlocker>

#include <algorithm>

namespace tectonis {
namespace {

constexpr int kFirst = 2; // the first column of layers, behind piece and face

} // namespace

LayerMatrix::LayerMatrix(Document& document) : QTableWidget(0, kFirst + 1), m_document(document)
{
    setObjectName("layers");
    setAccessibleName(spoken("Pieces and what lies behind them"));
    Headings::over(*this);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(38);
    setWordWrap(false);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setSelectionMode(QAbstractItemView::ExtendedSelection);
    setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row, int) {
        if (m_filling || row < 0)
            return;
        const PieceId piece = inHand().piece;
        m_document.takePiece(piece);
        emit picked();
    });
    connect(this, &QTableWidget::itemSelectionChanged, this, [this] {
        if (!m_filling)
            emit picked();
    });
}

LayerMatrix::Spot LayerMatrix::spotAt(int row, int column) const
{
    const QTableWidgetItem* at = row >= 0 ? item(row, 0) : nullptr;
    if (!at)
        return {};
    const Spot out{at->data(Qt::UserRole).toString().toStdString(), column - kFirst};
    const Piece* piece = m_document.pattern().piece(out.piece);
    return piece && out.layer >= 0 && out.layer < int(piece->layers.size()) ? out : Spot{out.piece, -1};
}

std::vector<LayerMatrix::Spot> LayerMatrix::selected() const
{
    std::vector<Spot> out{inHand()};
    if (out.front().piece.empty())
        return {};
    for (const auto& index : selectedIndexes()) {
        const Spot spot = spotAt(index.row(), index.column());
        const bool known = std::any_of(out.begin(), out.end(), [&](const Spot& s) { return s.piece == spot.piece; });
        if (!known && (spot.layer >= 0) == (out.front().layer >= 0))
            out.push_back(spot);
    }
    return out;
}

void LayerMatrix::take(const Spot& spot)
{
    for (int row = 0; row < rowCount(); ++row)
        if (item(row, 0)->data(Qt::UserRole).toString() == text(spot.piece))
            setCurrentCell(row, spot.layer < 0 ? 0 : kFirst + spot.layer, QItemSelectionModel::ClearAndSelect);
}

void LayerMatrix::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace)
        emit takeAway();
    else
        QTableWidget::keyPressEvent(event);
}

void LayerMatrix::resizeEvent(QResizeEvent* event)
{
    QTableWidget::resizeEvent(event);
    share();
}

void LayerMatrix::share()
{
    constexpr int piece = 150, face = 178, least = 186;
    const int layers = columnCount() - kFirst;
    for (int c = 0; c < columnCount(); ++c)
        setColumnWidth(c,
            c == 0       ? piece
                : c == 1 ? face
                         : std::max(least, (viewport()->width() - piece - face) / layers));
}

void LayerMatrix::fill()
{
    const Pattern& p = m_document.pattern();
    const Theme& t = theme();
    const Spot kept = inHand();
    const int column = std::max(0, currentColumn());
    m_filling = true;
    QStringList before, after; // pieces by row
    std::vector<std::pair<QString, int>> chosen;
    for (int r = 0; r < rowCount(); ++r)
        before << item(r, 0)->data(Qt::UserRole).toString();
    for (const auto& index : selectedIndexes())
        chosen.emplace_back(before[index.row()], index.column());
    std::size_t most = 0;
    for (const auto& piece : p.pieces)
        most = std::max(most, piece.layers.size());
    setColumnCount(kFirst + std::max<int>(1, int(most)));
    QStringList headings{spoken("Piece"), spoken("Face")};
    for (int i = kFirst; i < columnCount(); ++i)
        headings << spoken("Layer {}", i - kFirst + 1);
    setHorizontalHeaderLabels(headings);
    share();
    setRowCount(int(p.pieces.size()));
    int row = 0;
    const auto put = [&](int c, const QString& words, const QColor& ink, const QString& more = {}) {
        auto* cell = item(row, c);
        if (!cell)
            setItem(row, c, cell = new QTableWidgetItem);
        cell->setText(words);
        cell->setToolTip(more.isEmpty() ? words : more);
        cell->setForeground(ink);
    };
    for (const auto& piece : p.pieces) {
        const std::string by = rulesFor(m_document.design(), piece);
        const QString from = by.empty()                  ? spoken("no rule")
            : by == piece.key.text() && by != piece.role ? spoken("its own layers")
            : by == piece.whole.text()                   ? spoken("as the whole piece")
                                                         : spoken("as every {}", text(roleLabel(by)));
        put(0, text(say("{}  {}", piece.code, piece.name)) + "\n" + from, t.ink);
        item(row, 0)->setData(Qt::UserRole, text(piece.key));
        const auto face = p.materials.find(piece.material);
        if (face != p.materials.end()) {
            const Material& cloth = p.material(face->second);
            put(1,
                text(cloth.name) + "\n"
                    + spoken("{}, {} g", m_document.len(cloth.thickness), number(weightOf(p, piece), 0)),
                t.ink,
                spoken("{}: {} thick; {} of this piece with its layers weigh {} g", text(cloth.name),
                    m_document.len(cloth.thickness), QString::number(piece.count), number(weightOf(p, piece), 0)));
        } else
            put(1, {}, t.ink);
        for (int c = kFirst; c < columnCount(); ++c) {
            const std::size_t i = std::size_t(c - kFirst);
            if (i >= piece.layers.size()) {
                put(c, {}, t.muted);
                continue;
            }
            const Layer& layer = piece.layers[i];
            const QString held = text(say("{}, {}", roleLabel(layer.fixing), layer.trim), m_document.unit());
            put(c, text(p.material(layer.material).name) + "\n" + held, layer.rule < 0 ? t.muted : t.ink,
                text(say("{}  {}", layer.code, p.material(layer.material).name)) + "\n" + held
                    + (layer.rule < 0 ? "\n" + spoken("asked for by a part of the bag") : QString()));
        }
        ++row;
    }
    int at = -1;
    const PieceId wanted = m_document.pieceInHand();
    for (int r = 0; r < rowCount(); ++r)
        if (after << item(r, 0)->data(Qt::UserRole).toString(); after.back() == text(wanted))
            at = r;
    // Whatever keys are held, no row comes in besides; rows that moved stay selected where they are now.
    if (at >= 0 && (at != currentRow() || before != after)) {
        setCurrentCell(at, kept.piece == wanted ? column : 0, QItemSelectionModel::ClearAndSelect);
        if (kept.piece == wanted)
            for (const auto& [piece, c] : chosen)
                if (const auto row = after.indexOf(piece); row >= 0)
                    selectionModel()->select(model()->index(int(row), c), QItemSelectionModel::Select);
    }
    m_filling = false;
}

} // namespace tectonis
