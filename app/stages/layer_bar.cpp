// SPDX-License-Identifier: GPL-3.0-or-later
#include "layer_bar.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/library_menu.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

QComboBox* box(const QString& name, int letters, bool typed = false)
{
    auto* out = new QComboBox;
    out->setAccessibleName(name);
    out->setToolTip(name);
    out->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    out->setMinimumContentsLength(letters);
    out->setEditable(typed);
    if (typed)
        out->setInsertPolicy(QComboBox::NoInsert);
    return out;
}

} // namespace

LayerBar::LayerBar(Document& document, LayerMatrix& matrix) : m_document(document), m_matrix(matrix)
{
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(8, 2, 8, 2);
    column->setSpacing(4);
    auto *upper = new QHBoxLayout, *lower = new QHBoxLayout;
    m_scope = box(spoken("Layers for this role or this piece"), 9);
    m_material = box(spoken("Interlining"), 10);
    m_fixing = box(spoken("How it is held"), 6);
    for (const char* fixing : {"fused", "basted", "glued", "loose", "quilted"})
        m_fixing->addItem(text(roleLabel(fixing)), QString(fixing));
    m_shape = box(spoken("Shape"), 9, true);
    m_shape->setToolTip(
        spoken("Empty: the whole piece. Else strip 40 along top; patch 60 x 40 at 0 45, its middle so far "
               "right of the piece's and below its top; corner 60 x 60 lower left; drawn -40,0 40,0 "
               "0,80, points from there; as front less 3, another piece made smaller; or an area's name"));
    m_shape->lineEdit()->setPlaceholderText(spoken("whole piece"));
    m_edge = box(spoken("Edge that is trimmed"), 7);
    m_trim = box(spoken("Trim"), 7, true);
    m_trim->addItems({"stitch", "full", "inset 3", "past 3", "rows 30", "diamonds 40"});
    m_trim->setToolTip(spoken("full: to the cut line; stitch: to the stitch line; inset 3: 3 mm inside it; past 3: 3 "
                              "mm beyond it; rows 30 or "
                              "diamonds 40: quilted to its cloth, so many mm apart, before that is cut to shape"));
    m_grain = box(spoken("Grain, degrees; empty: as its piece"), 4, true);
    m_grain->addItems({"", "0", "45", "90"});
    m_grain->lineEdit()->setPlaceholderText(spoken("grain"));
    auto* add = new QPushButton(spoken("Put behind"));
    m_remove = new QPushButton(spoken("Take away"));
    m_out = new QPushButton("↑");
    m_in = new QPushButton("↓");
    for (const auto& [button, name] :
        {std::pair{m_out, spoken("Lay it nearer to the face")}, {m_in, spoken("Lay it further from the face")}}) {
        button->setFixedWidth(34);
        button->setToolTip(name);
        button->setAccessibleName(name);
    }
    m_restore = new QPushButton(spoken("As the rule"));
    for (QWidget* each : std::initializer_list<QWidget*>{m_edge, m_trim, m_grain})
        lower->addWidget(each, 2);
    for (QWidget* each : std::initializer_list<QWidget*>{add, m_remove, m_restore})
        lower->addWidget(each);
    for (QComboBox* each : {m_scope, m_material, m_fixing, m_shape})
        upper->addWidget(each, each == m_material || each == m_shape ? 3 : 2);
    upper->addWidget(m_out);
    upper->addWidget(m_in);
    column->addLayout(upper);
    column->addLayout(lower);

    connect(add, &QPushButton::clicked, this, &LayerBar::putBehind);
    connect(m_remove, &QPushButton::clicked, this, &LayerBar::takeAway);
    connect(m_out, &QPushButton::clicked, this, [this] { move(false); });
    connect(m_in, &QPushButton::clicked, this, [this] { move(true); });
    connect(m_restore, &QPushButton::clicked, this, &LayerBar::restore);
    connect(m_material, &QComboBox::activated, this, [this] {
        const std::string id = m_material->currentData().toString().toStdString();
        const Material* cloth = m_document.design().library->find(id);
        change(spoken("Interlining"), [&](LayerRule& r) {
            r.material = id;
            if (cloth && r.fixing != "quilted")
                r.fixing = change::usualFixing(*cloth);
        });
    });
    connect(m_fixing, &QComboBox::activated, this, [this] {
        const std::string fixing = m_fixing->currentData().toString().toStdString();
        change(spoken("How it is held"), [&](LayerRule& r) {
            const bool was = r.fixing == "quilted", is = fixing == "quilted";
            r.fixing = fixing;
            if (was != is)
                r.trim = is ? "rows 30" : "stitch";
        });
    });
    const auto shaped = [this] {
        const std::string shape = m_shape->currentText().trimmed().toStdString();
        if (rule() && rule()->area != shape)
            change(spoken("Shape of a layer"), [&](LayerRule& r) { r.area = shape; });
    };
    connect(m_shape->lineEdit(), &QLineEdit::editingFinished, this, shaped);
    connect(m_shape, &QComboBox::activated, this, shaped);
    connect(m_trim->lineEdit(), &QLineEdit::editingFinished, this, &LayerBar::changeTrim);
    connect(m_trim, &QComboBox::activated, this, &LayerBar::changeTrim);
    connect(m_edge, &QComboBox::activated, this, &LayerBar::fill);
    const auto turned = [this] {
        const QString typed = m_grain->currentText().trimmed();
        const std::string was = rule() ? rule()->grain : "";
        if (rule() && typed.toStdString() != was)
            change(spoken("Grain of a layer"), [&](LayerRule& r) { r.grain = typed.toStdString(); });
    };
    connect(m_grain->lineEdit(), &QLineEdit::editingFinished, this, turned);
    connect(m_grain, &QComboBox::activated, this, turned);
    connect(&m_matrix, &LayerMatrix::picked, this, &LayerBar::fill);
    connect(&m_matrix, &LayerMatrix::takeAway, this, &LayerBar::takeAway);
}

const Piece* LayerBar::piece() const { return m_document.pattern().piece(m_document.pieceInHand()); }

const Layer* LayerBar::layer() const
{
    const auto spot = m_matrix.inHand();
    const Piece* p = m_document.pattern().piece(spot.piece);
    return p && spot.layer >= 0 && spot.layer < int(p->layers.size()) ? &p->layers[std::size_t(spot.layer)] : nullptr;
}

const LayerRule* LayerBar::rule() const
{
    const Layer* l = layer();
    const Piece* p = piece();
    if (!l || !p || l->rule < 0)
        return nullptr;
    const auto rules = layerRulesFor(m_document.design(), *p);
    return std::size_t(l->rule) < rules.size() ? rules[std::size_t(l->rule)] : nullptr;
}

std::string LayerBar::edge() const { return m_edge->currentData().toString().toStdString(); }

std::vector<std::pair<std::string, int>> LayerBar::targets() const
{
    const auto number = [&](const LayerMatrix::Spot& spot) {
        const Piece* p = m_document.pattern().piece(spot.piece);
        return p && spot.layer >= 0 && spot.layer < int(p->layers.size()) ? p->layers[std::size_t(spot.layer)].rule
                                                                          : -1;
    };
    const auto spots = m_matrix.selected();
    if (spots.empty())
        return {};
    const std::string scope = m_scope->currentData().toString().toStdString();
    if (!scope.empty())
        return {{scope, number(spots.front())}};
    std::vector<std::pair<std::string, int>> out;
    for (const auto& spot : spots)
        out.emplace_back(spot.piece.text(), number(spot));
    return out;
}

void LayerBar::change(const QString& what, const std::function<void(LayerRule&)>& change, const QString& drag)
{
    if (m_filling || !rule())
        return;
    const auto all = targets();
    m_document.edit(
        what,
        [&](Design& d) {
            for (const auto& [pieces, nth] : all)
                if (nth >= 0)
                    change::layer(d, m_document.pattern(), pieces, std::size_t(nth), change);
        },
        drag);
    fill();
}

void LayerBar::reshape(const std::string& area, const QString& drag)
{
    change(
        spoken("Shape of a layer"), [&](LayerRule& r) { r.area = area; }, drag);
}

void LayerBar::changeTrim()
{
    const std::string trim = m_trim->currentText().trimmed().toStdString();
    const LayerRule* r = rule();
    if (!r)
        return;
    const std::string at = edge();
    const auto own = r->edges.find(at);
    if (trim == (at.empty() ? r->trim : own != r->edges.end() ? own->second : r->trim))
        return;
    change(spoken("Trim"), [&](LayerRule& next) {
        if (at.empty()) {
            next.trim = trim;
            if (trim.starts_with("rows") || trim.starts_with("diamonds"))
                next.fixing = "quilted";
        } else if (trim.empty() || trim == next.trim)
            next.edges.erase(at);
        else
            next.edges[at] = trim;
    });
}

void LayerBar::putBehind()
{
    const std::string id = m_material->currentData().toString().toStdString(),
                      trim = m_trim->currentText().trimmed().toStdString();
    const auto all = targets();
    m_document.edit(spoken("Put an interlining behind"), [&](Design& d) {
        for (const auto& [pieces, nth] : all)
            change::putBehind(d, m_document.pattern(), {.pieces = pieces, .material = id, .trim = trim});
    });
    // What was just put there is in hand: its fixing and its shape come next.
    if (const Piece* piece = m_document.pattern().piece(m_matrix.inHand().piece))
        for (int i = int(piece->layers.size()) - 1; i >= 0; --i)
            if (piece->layers[std::size_t(i)].rule >= 0)
                return m_matrix.take({piece->key, i});
}

void LayerBar::takeAway()
{
    const auto all = targets();
    m_document.edit(spoken("Take an interlining away"), [&](Design& d) {
        for (const auto& [pieces, nth] : all)
            if (nth >= 0)
                change::takeLayer(d, m_document.pattern(), pieces, std::size_t(nth));
            else
                change::takeFromBehind(d, m_document.pattern(), pieces);
    });
}

void LayerBar::move(bool inwards)
{
    const auto all = targets();
    const auto spot = m_matrix.inHand();
    const bool done = m_document.edit(spoken("Move a layer"), [&](Design& d) {
        for (const auto& [pieces, nth] : all)
            if (nth >= 0)
                change::moveLayer(d, m_document.pattern(), pieces, std::size_t(nth), inwards);
    });
    if (done)
        m_matrix.take({spot.piece, spot.layer + (inwards ? 1 : -1)});
}

void LayerBar::restore()
{
    const auto all = targets();
    m_document.edit(spoken("Layers as the rule"), [&](Design& d) {
        for (const auto& [pieces, nth] : all)
            change::restoreLayers(d, m_document.pattern(), pieces);
    });
}

void LayerBar::fill()
{
    m_filling = true;
    fillMaterials(*m_material, *m_document.design().library, "interlining");
    const Piece* p = piece();
    const std::size_t many = m_matrix.selected().size();
    const QString only = many > 1 ? spoken("the {} selected pieces", many)
        : p                       ? spoken("only {}", text(say("{} {}", p->code, p->name)))
                                  : QString();
    const bool same = p && m_scope->count() == 2 && m_scope->itemData(0).toString() == text(p->role)
        && m_scope->itemText(1) == only;
    if (!same) {
        m_scope->clear();
        if (p) {
            m_scope->addItem(spoken("every {}", text(roleLabel(p->role))), text(p->role));
            m_scope->addItem(only, QString());
            m_scope->setCurrentIndex(rulesFor(m_document.design(), *p) == p->key.text() || many > 1 ? 1 : 0);
        }
    }
    const QString edgeWas = m_edge->currentData().toString();
    m_edge->clear();
    m_edge->addItem(spoken("all edges"), QString());
    if (p)
        for (const auto& e : p->edges)
            m_edge->addItem(text(edgeLabel(m_document.pattern(), e.name)), text(e.name));
    m_edge->setCurrentIndex(std::max(0, m_edge->findData(edgeWas)));
    m_shape->clear();
    m_shape->addItem(QString());
    if (p) {
        for (const auto& e : p->edges)
            m_shape->addItem(QString("strip 40 along %1").arg(text(e.name)));
        m_shape->addItems({"patch 60 x 60 at 0 50%", "corner 60 x 60 lower left", "corner 60 x 60 lower right"});
        // To be pulled into shape on the drawing; the outline of what hangs behind, or before.
        m_shape->addItem("drawn -35%,15% 35%,15% 35%,70% 20%,85% -20%,85% -35%,70%");
        for (const auto& other : m_document.pattern().pieces)
            if (other.owner() == p->owner() && other.key != p->key
                && (other.coat == Coat::Lining) != (p->coat == Coat::Lining) && other.coat != Coat::Strip)
                m_shape->addItem(QString("as %1 less 3").arg(text(other.key)));
        for (const auto& [name, outline] : p->areas)
            if (name.find(' ') == std::string::npos) // the others are where parts of the bag want patches
                m_shape->addItem(text(name));
    }
    const LayerRule* r = rule();
    if (r) {
        m_material->setCurrentIndex(m_material->findData(text(r->material)));
        m_fixing->setCurrentIndex(m_fixing->findData(text(r->fixing)));
        const auto own = r->edges.find(edge());
        m_trim->setEditText(text(own != r->edges.end() ? own->second : r->trim));
    }
    m_shape->setEditText(r ? text(r->area) : QString());
    m_grain->setEditText(r ? text(r->grain) : QString());
    for (QWidget* each : std::initializer_list<QWidget*>{m_fixing, m_shape, m_grain, m_out, m_in})
        each->setEnabled(r != nullptr);
    m_restore->setEnabled(p != nullptr);
    m_filling = false;
}

} // namespace tectonis
