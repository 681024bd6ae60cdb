// SPDX-License-Identifier: GPL-3.0-or-later
// Sizes: nested outlines at an anchor, every dimension's rule and values, snags per size.
#include "bench.hpp"
#include "checks/snags.hpp"
#include "fonts.hpp"
#include "qtext.hpp"
#include "stage.hpp"
#include "stages.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

class NestBench : public Bench {
public:
    explicit NestBench(Document& document) : Bench(document, spoken("Nested sizes of the piece in hand")) {}
    int anchor = 0; ///< 0 centre bottom, 1 centre top, 2 lower left, 3 middle

protected:
    Placement placed(const Piece& piece) const
    {
        const Box b = boundsOf(piece.stitch());
        switch (anchor) {
        case 1: return {-b.centre().x, -b.y1};
        case 2: return {-b.x0, -b.y0};
        case 3: return {-b.centre().x, -b.centre().y};
        default: return {-b.centre().x, -b.y0};
        }
    }

    Box extent() const override
    {
        Box all;
        for (const auto& p : doc().patterns())
            if (const Piece* piece = p.piece(doc().pieceInHand())) {
                const Placement at = placed(*piece);
                const Box b = boundsOf(piece->cut);
                all.add(at({b.x0, b.y0}));
                all.add(at({b.x1, b.y1}));
            }
        if (all.empty())
            all.add(Point{}), all.add(Point{100, 100});
        return all;
    }

    void draw(QPainter& p, const View& base, Labels&) override
    {
        const Theme& t = theme();
        for (std::size_t k = doc().patterns().size(); k-- > 0;) {
            const Pattern& pattern = doc().patterns()[k];
            const Piece* piece = pattern.piece(doc().pieceInHand());
            if (!piece)
                continue;
            View v = base;
            v.placement = placed(*piece);
            const bool shown = k == doc().size();
            p.setPen(Qt::NoPen);
            QColor card = t.groupColor(piece->coat);
            card.setAlpha(shown ? 255 : 150);
            p.setBrush(card);
            p.drawPath(pathOf(piece->cut, v, true));
        }
        // Every size keeps its line in the legend, however many there are.
        const double row = std::clamp((height() - 40.0) / double(doc().patterns().size()), 12.0, 18.0);
        double y = 20;
        for (std::size_t k = 0; k < doc().patterns().size(); ++k) {
            const Piece* piece = doc().patterns()[k].piece(doc().pieceInHand());
            if (!piece)
                continue;
            View v = base;
            v.placement = placed(*piece);
            const SizeLook size = sizeLook(k, t.dark);
            QPen pen(size.color, k == doc().size() ? 2.4 : 1.5);
            if (!size.dash.isEmpty())
                pen.setDashPattern(size.dash);
            p.setPen(pen);
            p.setBrush(Qt::NoBrush);
            p.drawPath(pathOf(piece->cut, v, true));
            QPen thin(size.color, 0.8);
            thin.setDashPattern({2, 3});
            p.setPen(thin);
            p.drawPath(pathOf(piece->stitch(), v, true));
            const Box b = boundsOf(piece->cut);
            p.setPen(pen);
            p.drawLine(QPointF(14, y - 4), QPointF(54, y - 4));
            p.setPen(size.color);
            p.setFont(pixelFont(12, QFont::DemiBold));
            p.drawText(QPointF(62, y),
                spoken(
                    "{}   cut {} × {}", text(doc().patterns()[k].size), doc().len(b.width()), doc().len(b.height())));
            y += row;
        }
        p.setPen(QPen(t.accent, 1.4));
        const QPointF o = base({0, 0});
        p.drawLine(o - QPointF(7, 0), o + QPointF(7, 0));
        p.drawLine(o - QPointF(0, 7), o + QPointF(0, 7));
    }
};

class SizesStage : public Stage {
public:
    explicit SizesStage(Document& document) : Stage(document)
    {
        connect(&document, &Document::judged, this, &SizesStage::refresh); // it counts snags by size
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 4);
        column->setSpacing(4);
        m_nest = new NestBench(document);
        column->addWidget(m_nest, 5);
        auto* bar = new QHBoxLayout;
        bar->setContentsMargins(8, 0, 8, 0);
        auto* anchor = new QComboBox;
        anchor->setAccessibleName(spoken("Anchor of the nested outlines"));
        anchor->addItems({spoken("Nest at centre bottom"), spoken("Nest at centre top"), spoken("Nest at lower left"),
            spoken("Nest at the middle")});
        connect(anchor, &QComboBox::activated, this, [this](int i) {
            m_nest->anchor = i;
            m_nest->update();
        });
        m_sizes = new QLineEdit;
        m_sizes->setObjectName("sizeNames");
        m_sizes->setAccessibleName(spoken("Sizes from small to large"));
        m_sizes->setToolTip(spoken("Names from small to large, with spaces or commas between them; a name typed over "
                                   "keeps that size's own values"));
        m_sizes->setFixedWidth(190);
        connect(m_sizes, &QLineEdit::editingFinished, this, &SizesStage::sizesTyped);
        connect(m_sizes, &QLineEdit::returnPressed, this, [this] { m_nest->setFocus(); });
        m_base = new QComboBox;
        m_base->setObjectName("baseSize");
        m_base->setAccessibleName(spoken("Base size"));
        m_base->setToolTip(spoken("The size whose values are written; the others follow by their rules"));
        connect(m_base, &QComboBox::activated, this, [this](int i) {
            const std::string base = m_document.design().sizes[std::size_t(i)];
            m_document.edit(spoken("Base size: {}", text(base)), [&](Design& d) { change::sizes(d, d.sizes, base); });
        });
        auto* hint = new QLabel(spoken("Rules:  {}", "hold  ·  follow  ·  step 20  ·  ratio 1.08  ·  stock zip"));
        hint->setWordWrap(true);
        hint->setToolTip(spoken("A value typed under a size is that size's own; clear it to go back to the rule."));
        bar->addWidget(anchor);
        bar->addWidget(new QLabel(spoken("Sizes")));
        bar->addWidget(m_sizes);
        bar->addWidget(new QLabel(spoken("Base")));
        bar->addWidget(m_base);
        bar->addWidget(hint, 1);
        column->addLayout(bar);
        m_table = new QTableWidget;
        m_table->setObjectName("sizes");
        m_table->setAccessibleName(spoken("Dimensions in every size"));
        m_table->verticalHeader()->hide();
        m_table->verticalHeader()->setDefaultSectionSize(25);
        column->addWidget(m_table, 5);
        // One click edits what can be edited.
        connect(m_table, &QTableWidget::cellClicked, this, [this](int r, int c) {
            if (QTableWidgetItem* item = m_table->item(r, c); item && (item->flags() & Qt::ItemIsEditable))
                m_table->editItem(item);
        });
        connect(m_table, &QTableWidget::cellChanged, this, &SizesStage::typed);
        connect(m_table, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
            if (!m_filling && row != before)
                tellHand();
        });
        setFocusProxy(m_nest);
    }

    /// The dimension in hand: its rule, and how it comes about in every size.
    DocketPage docketPage() const override
    {
        const Design& d = m_document.design();
        const int r = m_table->currentRow();
        const QTableWidgetItem* first = r < 1 ? nullptr : m_table->item(r, 0);
        const DimensionSpec* spec = first
            ? m_document.spec().dimension(first->data(Qt::UserRole).toString().toStdString())
            : nullptr;
        if (!spec) {
            DocketPage out{spoken("Sizes"), {{spoken("Snags in every size"), {}}}, {}};
            for (const auto& size : d.sizes) {
                const SnagCount n = countSnags(m_document.findings(), {}, size);
                out.groups[0].rows.push_back({spoken("Size {}", text(size)),
                    n.all() ? spoken("{} to mend, {} doubtful", n.toMend, n.doubtful) : spoken("none"), {},
                    n.toMend > 0});
            }
            out.groups.push_back(
                {spoken("In hand"), {{spoken("Click a row below: how its values come about stands here."), "", {}}}});
            return out;
        }
        const Dimension& dim = d.dimensions.at(spec->name);
        DocketPage out{spokenName(spec->label),
            {{spoken("Dimension"),
                 {{spokenName(spec->meaning), "", {}}, {spoken("Size rule"), text(ruleText(dim.rule)), {}}}},
                {spoken("In every size"), {}}},
            {}};
        for (std::size_t k = 0; k < d.sizes.size(); ++k) {
            const Values& values = m_document.patterns()[k].values;
            const Derivation how = derivationOf(d, m_document.spec(), values, spec->name, k);
            const Range range = rangeOf(*spec, values);
            QStringList lines{how.own ? spoken("own value: {}", how.formula) : "= " + m_document.words(how.formula),
                spoken("allowed {} to {}", m_document.shown(*spec, range.min, true),
                    m_document.shown(*spec, range.max, true))};
            out.groups[1].rows.push_back(
                {d.sizes[k] == d.baseSize ? spoken("Size {}, base", d.sizes[k]) : spoken("Size {}", d.sizes[k]),
                    m_document.shown(*spec, how.result, how.own), lines});
        }
        return out;
    }

private:
    static constexpr int kFirstSize = 3;

    void fill() override
    {
        m_filling = true;
        const Design& d = m_document.design();
        QStringList headers{spoken("Dimension"), spoken("Value or formula"), spoken("Size rule")};
        m_base->clear();
        for (const auto& s : d.sizes) {
            m_base->addItem(text(s));
            headers << (s == d.baseSize ? spoken("{} (base)", s) : text(s));
        }
        m_base->setCurrentIndex(int(sizeIndex(d, d.baseSize)));
        m_sizes->setText(text(sizesText(d.sizes)));
        m_table->setColumnCount(int(headers.size()));
        m_table->setHorizontalHeaderLabels(headers);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
        m_table->setColumnWidth(0, 190);
        m_table->setColumnWidth(1, 200);
        m_table->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
        const auto& dims = m_document.spec().dimensions;
        m_table->setRowCount(int(dims.size()) + 1);
        // First row: snags per size.
        const auto put = [&](int r, int c, const QString& s, bool editable, const QColor& color) {
            auto* item = new QTableWidgetItem(s);
            item->setForeground(color);
            if (!editable)
                item->setFlags(Qt::ItemIsEnabled);
            if (c >= kFirstSize)
                item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_table->setItem(r, c, item);
            return item;
        };
        put(0, 0, spoken("Snags"), false, theme().ink)->setFont(pixelFont(13, QFont::DemiBold));
        put(0, 1, "", false, theme().ink);
        put(0, 2, "", false, theme().ink);
        for (std::size_t k = 0; k < d.sizes.size(); ++k) {
            const SnagCount n = countSnags(m_document.findings(), {}, d.sizes[k]);
            put(0, kFirstSize + int(k),
                n.toMend         ? spoken("{} to mend", n.toMend)
                    : n.doubtful ? spoken("{} doubtful", n.doubtful)
                                 : spoken("none"),
                false,
                n.toMend         ? theme().error
                    : n.doubtful ? theme().warning
                                 : theme().ink);
            m_table->setColumnWidth(kFirstSize + int(k), d.sizes.size() > 3 ? 84 : 112);
        }
        for (std::size_t i = 0; i < dims.size(); ++i) {
            const Dimension& dim = d.dimensions.at(dims[i].name);
            const int r = int(i) + 1;
            const bool length = dims[i].quantity == DimensionSpec::Quantity::Length;
            auto* label = put(r, 0, spokenName(dims[i].label), false, theme().ink);
            label->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
            label->setToolTip(spokenName(dims[i].meaning));
            label->setData(Qt::UserRole, text(dims[i].name));
            m_table->setRowHidden(r, !m_document.counts(dims[i])); // what means nothing with these choices
            put(r, 1, isFormula(dim.value) || !length ? text(dim.value) : m_document.exact(parseLength(dim.value)),
                true, isFormula(dim.value) ? theme().second : theme().ink);
            put(r, 2, text(ruleText(dim.rule)), true, theme().ink);
            for (std::size_t k = 0; k < d.sizes.size(); ++k) {
                const double v = m_document.patterns()[k].values.at(dims[i].name);
                const bool own = dim.bySize.contains(d.sizes[k]);
                auto* item = put(r, kFirstSize + int(k), m_document.shown(dims[i], v, own || !isFormula(dim.value)),
                    true, own ? theme().accent : theme().ink);
                const Derivation how = derivationOf(
                    d, m_document.spec(), m_document.patterns()[k].values, dims[i].name, k);
                item->setToolTip(m_document.words(how.formula));
                if (dim.rule.kind == SizeRule::Kind::Stock && !own) {
                    item->setFont(pixelFont(13, QFont::DemiBold));
                    item->setToolTip(item->toolTip() + "\n" + spoken("snapped to what can be bought"));
                }
            }
        }
        m_filling = false;
    }

    void typed(int r, int c)
    {
        if (m_filling || r < 1)
            return;
        const std::string name = m_document.spec().dimensions[std::size_t(r) - 1].name,
                          value = m_table->item(r, c)->text().trimmed().toStdString();
        const QString what = spoken("{} to {}", m_table->item(r, 0)->text(), text(value));
        const Design& d = m_document.design();
        if (c == 1)
            m_document.edit(what, [&](Design& next) { change::dimension(next, name, value, {}, m_document.unit()); });
        else if (c == 2)
            m_document.edit(what, [&](Design& next) { change::rule(next, name, parseRule(value)); });
        else if (c >= kFirstSize) {
            const std::string size = d.sizes[std::size_t(c - kFirstSize)];
            m_document.edit(spoken("{}, size {}", what, text(size)), [&](Design& next) {
                if (value.empty())
                    change::noOwnValue(next, name, size);
                else
                    change::dimension(next, name, value, size, m_document.unit());
            });
        }
        QMetaObject::invokeMethod(
            this, [this] { fill(); }, Qt::QueuedConnection); // shows what stands if the value was refused
    }

    void sizesTyped()
    {
        const auto names = sizeNames(m_sizes->text().toStdString());
        if (names != m_document.design().sizes)
            m_document.edit(spoken("Sizes: {}", m_sizes->text()), [&](Design& d) { change::sizes(d, names, ""); });
        fill();
    }

    NestBench* m_nest;
    QTableWidget* m_table;
    QLineEdit* m_sizes;
    QComboBox* m_base;
    bool m_filling = false;
};

} // namespace

QWidget* makeSizesStage(Document& document) { return new SizesStage(document); }

} // namespace tectonis
