// SPDX-License-Identifier: GPL-3.0-or-later
#include "docket.hpp"
#include "qtext.hpp"

#include "buildup/layers.hpp"
#include "buildup/material.hpp"
#include "features/feature.hpp"
#include "fonts.hpp"
#include "theme.hpp"

#include <QComboBox>
#include <QHeaderView>
#include <QPainter>
#include <QSplitter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

#include <set>

namespace tectonis {
namespace {

constexpr int kNameRole = Qt::UserRole, kDetailRole = Qt::UserRole + 1;

/// Breaks a line so that it fits the docket's width; item views do not wrap spanned rows well.
QString wrapped(const QString& s, int width = 40)
{
    QString out;
    int column = 0;
    for (const QString& word : s.split(' ')) {
        if (column + word.size() > width && column > 0)
            out += '\n', column = 0;
        else if (column > 0)
            out += ' ', ++column;
        out += word;
        column += int(word.size());
    }
    return out;
}

/// Draws the value of an editable row as a field, so that it looks like what it is.
class FieldDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        if (index.column() == 1 && (index.flags() & Qt::ItemIsEditable)) {
            p->save();
            p->setRenderHint(QPainter::Antialiasing);
            p->setPen(QPen(option.state & QStyle::State_Selected ? theme().accent : theme().line, 1));
            p->setBrush(theme().field);
            p->drawRoundedRect(QRectF(option.rect).adjusted(1.5, 2.5, -3.5, -2.5), 4, 4);
            p->setPen(index.data(Qt::ForegroundRole).isValid() ? index.data(Qt::ForegroundRole).value<QBrush>().color() : theme().ink);
            p->setFont(option.font);
            p->drawText(option.rect.adjusted(7, 0, -8, 0), Qt::AlignVCenter | Qt::AlignRight, index.data().toString());
            p->restore();
            return;
        }
        QStyledItemDelegate::paint(p, option, index);
    }
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        QSize s = QStyledItemDelegate::sizeHint(option, index);
        s.setHeight(std::max(s.height(), index.parent().isValid() ? 22 : 26));
        return s;
    }
};

QTreeWidget* makeTree(const QString& name)
{
    auto* tree = new QTreeWidget;
    tree->setObjectName(name);
    tree->setColumnCount(2);
    tree->setHeaderHidden(true);
    tree->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    tree->header()->setSectionResizeMode(1, QHeaderView::Fixed);
    tree->header()->resizeSection(1, 138);
    tree->header()->setStretchLastSection(false);
    tree->setIndentation(12);
    tree->setUniformRowHeights(false);
    tree->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    tree->setItemDelegate(new FieldDelegate(tree));
    tree->setWordWrap(true);
    return tree;
}

void addDetail(QTreeWidgetItem* parent, const QString& s)
{
    auto* item = new QTreeWidgetItem(parent, {wrapped(s)});
    item->setFirstColumnSpanned(true);
    item->setForeground(0, theme().muted);
    item->setFlags(Qt::ItemIsEnabled);
}

/// Details come when the row is opened: laying out what nobody sees is what makes a drag slow.
void keepDetails(QTreeWidgetItem* item, const QStringList& details)
{
    if (details.isEmpty())
        return;
    item->setData(0, kDetailRole, details);
    item->setChildIndicatorPolicy(QTreeWidgetItem::ShowIndicator);
}

void showDetails(QTreeWidgetItem* item)
{
    if (item->childCount() == 0)
        for (const QString& line : item->data(0, kDetailRole).toStringList())
            addDetail(item, line);
}

QString valueText(const Document& doc, double v, const std::string& unit) { return unit == "mm" ? doc.len(v) : text(formatNumber(v)) + (unit.empty() ? "" : " " + text(unit)); }

void addWorking(QTreeWidgetItem* parent, const Document& doc, const Working& w)
{
    auto* item = new QTreeWidgetItem(parent, {text(w.label), valueText(doc, w.result, w.unit)});
    item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
    QStringList inputs;
    for (const auto& in : w.inputs)
        inputs << text(in.name) + " " + text(formatNumber(in.value, 4));
    keepDetails(item, {"= " + text(w.formula), inputs.join(",  "), QString(nameOf(w.kind)) + (w.source.empty() ? "" : ": " + text(w.source, doc.unit()))});
}

QTreeWidgetItem* addHeading(QTreeWidget* tree, const QString& s)
{
    auto* item = new QTreeWidgetItem(tree, {s});
    item->setFirstColumnSpanned(true);
    item->setFont(0, pixelFont(13, QFont::DemiBold));
    item->setExpanded(true);
    item->setFlags(Qt::ItemIsEnabled);
    return item;
}

/// How an edge's length comes about, segment by segment.
QString edgeWorking(const Document& doc, const Edge& e)
{
    QStringList parts;
    for (const auto& s : e.stitch) {
        if (const auto* a = std::get_if<Arc>(&s))
            parts << QString("arc: radius × angle = %1 × %2 rad").arg(doc.len(a->radius), text(formatNumber(std::abs(a->sweep), 4)));
        else if (std::holds_alternative<Line>(s))
            parts << "straight: distance of its ends, " + doc.len(lengthOf(s));
        else
            parts << "curve: measured, " + doc.len(lengthOf(s));
    }
    return parts.join("; ");
}

} // namespace

Docket::Docket(Document& document, QWidget* parent) : QWidget(parent), m_document(document)
{
    setFixedWidth(336);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(6, 4, 8, 4);
    column->setSpacing(4);
    m_title = new QLabel;
    m_title->setFont(pixelFont(15, QFont::DemiBold));
    m_title->setMinimumHeight(24);
    m_facts = makeTree("facts");
    m_facts->setAccessibleName("Facts about the piece in hand; open a row to see its working");
    m_dimensions = makeTree("dimensions");
    m_dimensions->setAccessibleName("Dimensions and choices; type to change a value, open a row for its meaning and range");
    m_dimensions->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::SelectedClicked | QAbstractItemView::EditKeyPressed | QAbstractItemView::AnyKeyPressed);
    m_refusal = new QLabel;
    m_refusal->setWordWrap(true);
    m_refusal->setObjectName("refusal");
    m_refusal->hide();
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(m_facts);
    split->addWidget(m_dimensions);
    split->setSizes({260, 330});
    column->addWidget(m_title);
    column->addWidget(split, 1);
    column->addWidget(m_refusal);
    connect(m_facts, &QTreeWidget::itemExpanded, this, [](QTreeWidgetItem* item) { showDetails(item); });
    connect(m_dimensions, &QTreeWidget::itemChanged, this, &Docket::typed);
    connect(m_dimensions, &QTreeWidget::itemExpanded, this, [this](QTreeWidgetItem* item) {
        m_filling = true;
        fillDetails(item);
        m_filling = false;
    });
    connect(&document, &Document::changed, this, &Docket::refresh);
    connect(&document, &Document::viewChanged, this, &Docket::refresh);
    connect(&document, &Document::viewChanged, m_refusal, &QWidget::hide);
    connect(&document, &Document::refused, this, [this](const QString& message) {
        m_refusal->setText(message);
        m_refusal->setStyleSheet(QString("color:%1; padding:4px;").arg(theme().error.name()));
        m_refusal->setVisible(!message.isEmpty());
        if (!message.isEmpty())
            refreshDimensions(); // shows the value that stands
    });
    refresh();
}

void Docket::refresh()
{
    refreshFacts();
    std::string key = m_document.design().form;
    for (const auto& f : m_document.design().features)
        key += "|" + f.id;
    if (key != m_builtFor) {
        m_builtFor = key;
        buildDimensions();
    }
    refreshDimensions();
}

void Docket::refreshFacts()
{
    std::set<QString> open;
    for (int i = 0; i < m_facts->topLevelItemCount(); ++i)
        for (int k = 0; k < m_facts->topLevelItem(i)->childCount(); ++k)
            if (m_facts->topLevelItem(i)->child(k)->isExpanded())
                open.insert(m_facts->topLevelItem(i)->child(k)->text(0));
    m_facts->clear();
    const Pattern& p = m_document.pattern();
    const Piece* piece = p.piece(m_document.pieceInHand());
    if (!piece) {
        m_title->setText("Nothing in hand");
        return;
    }
    m_title->setText(QString("%1  %2").arg(text(piece->code), text(piece->name)));
    const auto row = [&](QTreeWidgetItem* under, const QString& label, const QString& value, const QStringList& details = {}) {
        auto* item = new QTreeWidgetItem(under, {label, value});
        item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
        item->setToolTip(1, value);
        keepDetails(item, details);
    };
    const Box cut = boundsOf(piece->cut), stitch = boundsOf(piece->stitch());
    auto* head = addHeading(m_facts, "Piece");
    const auto face = p.materials.find(piece->material);
    row(head, "Cut from", face == p.materials.end() ? text(piece->material) : text(material(face->second).name).section(',', 0, 0));
    row(head, "Cut", piece->mirrored ? QString("%1, %2 mirrored").arg(piece->count).arg(piece->mirrored) : QString::number(piece->count));
    row(head, "Stitch line", m_document.len(stitch.width()) + " × " + text(formatLengthBare(stitch.height(), m_document.unit())), {"width × height of the stitch line's box; geometry"});
    row(head, "Cut line", m_document.len(cut.width()) + " × " + text(formatLengthBare(cut.height(), m_document.unit())), {"the stitch line offset by each edge's own allowance; geometry"});
    row(head, "Cut area", text(formatNumber(areaOf(piece->cut) / 100, 1)) + " cm²", {"Green's theorem on the cut line's lines and arcs; geometry"});
    auto* edges = addHeading(m_facts, "Edges on the stitch line");
    for (const auto& e : piece->edges) {
        QStringList details{edgeWorking(m_document, e)};
        details << (e.allowanceAtEnd ? QString("allowance %1 widening to %2").arg(m_document.len(e.allowance), m_document.len(*e.allowanceAtEnd)) : "allowance " + m_document.len(e.allowance));
        for (const auto& seam : p.seams)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (use.piece == piece->key && use.edge == e.name && use.copy == 0)
                        details << QString("seam “%1”: %2 against %3, difference %4").arg(text(seam.name), m_document.len(seam.lengthA), m_document.len(seam.lengthB), m_document.len(seam.difference()));
        row(edges, text(e.name), m_document.len(e.length()), details);
    }
    if (!piece->layers.empty()) {
        auto* layers = addHeading(m_facts, "Layers behind it");
        for (const auto& l : piece->layers)
            row(layers, text(l.code) + " " + text(material(l.material).name).section(',', 0, 0), text(l.fixing), {text(l.trim, m_document.unit()), "thickness " + m_document.len(material(l.material).thickness) + ", under the foot " + m_document.len(material(l.material).underFoot())});
    }
    QTreeWidgetItem* workings = nullptr;
    const std::string feature = piece->key.substr(0, piece->key.find('.'));
    for (const auto& w : p.workings)
        if (w.subject == piece->key || w.subject == feature || (w.subject == "body" && piece->role == "panel")) {
            if (!workings)
                workings = addHeading(m_facts, "Workings");
            addWorking(workings, m_document, w);
        }
    for (int i = 0; i < m_facts->topLevelItemCount(); ++i)
        for (int k = 0; k < m_facts->topLevelItem(i)->childCount(); ++k)
            if (auto* item = m_facts->topLevelItem(i)->child(k); open.contains(item->text(0)))
                item->setExpanded(true);
}

void Docket::buildDimensions()
{
    m_filling = true;
    m_dimensions->clear();
    std::map<std::string, QTreeWidgetItem*> groups;
    const auto groupOf = [&](const std::string& name) {
        std::string id = name.substr(0, name.find('.'));
        QString title = "Body";
        bool feature = false;
        for (const auto& f : m_document.design().features)
            if (f.id == id)
                title = text(featureKind(f.kind).name()), feature = true;
        if (!feature)
            id = "";
        auto& item = groups[id];
        if (!item) {
            item = addHeading(m_dimensions, title);
            item->setExpanded(id.empty());
        }
        return item;
    };
    for (const auto& d : m_document.spec().dimensions) {
        auto* item = new QTreeWidgetItem(groupOf(d.name), {text(d.label)});
        item->setData(0, kNameRole, text(d.name));
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
        item->setToolTip(0, text(d.meaning));
    }
    for (const auto& c : m_document.spec().choices) {
        auto* item = new QTreeWidgetItem(groupOf(c.name), {text(c.label)});
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        item->setToolTip(0, text(c.meaning));
        auto* combo = new QComboBox;
        combo->setObjectName("choice." + text(c.name));
        combo->setAccessibleName(text(c.label));
        for (const auto& [value, label] : c.options)
            combo->addItem(text(label), text(value));
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(6);
        const std::string name = c.name;
        connect(combo, &QComboBox::activated, this, [this, combo, name] {
            const std::string value = combo->currentData().toString().toStdString();
            m_document.edit(text(m_document.spec().choice(name)->label) + ": " + combo->currentText(), [&](Design& d) { setChoice(d, name, value); });
        });
        m_dimensions->setItemWidget(item, 1, combo);
    }
    auto* materialsHead = addHeading(m_dimensions, "Materials");
    materialsHead->setExpanded(false);
    for (const auto& [role, id] : m_document.design().materials) {
        auto* item = new QTreeWidgetItem(materialsHead, {text(role).left(1).toUpper() + text(role).mid(1)});
        auto* combo = new QComboBox;
        combo->setObjectName("material." + text(role));
        combo->setAccessibleName("Material of the " + text(role));
        const std::string use = material(id).use;
        for (const auto& m : materials())
            if (m.use == use)
                combo->addItem(text(m.name), text(m.id));
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(6);
        combo->view()->setMinimumWidth(260);
        const std::string key = role;
        connect(combo, &QComboBox::activated, this, [this, combo, key] {
            const std::string value = combo->currentData().toString().toStdString();
            m_document.edit("Material of the " + text(key) + ": " + combo->currentText(), [&](Design& d) { setMaterial(d, key, value); });
        });
        m_dimensions->setItemWidget(item, 1, combo);
    }
    m_filling = false;
}

void Docket::refreshDimensions()
{
    m_filling = true;
    const Pattern& p = m_document.pattern();
    for (int g = 0; g < m_dimensions->topLevelItemCount(); ++g)
        for (int i = 0; i < m_dimensions->topLevelItem(g)->childCount(); ++i) {
            QTreeWidgetItem* item = m_dimensions->topLevelItem(g)->child(i);
            const std::string name = item->data(0, kNameRole).toString().toStdString();
            const auto* spec = name.empty() ? nullptr : m_document.spec().dimension(name);
            if (!spec)
                continue;
            const double v = p.values.at(name);
            const Dimension& given = m_document.design().dimensions.at(name);
            const auto ownForSize = given.bySize.find(p.size);
            const bool formula = isFormula(ownForSize != given.bySize.end() ? ownForSize->second : given.value);
            item->setText(1, m_document.shown(*spec, v));
            item->setForeground(1, formula ? theme().second : theme().ink);
            if (item->isExpanded())
                fillDetails(item);
            item->setChildIndicatorPolicy(QTreeWidgetItem::ShowIndicator);
        }
    for (auto* combo : m_dimensions->findChildren<QComboBox*>()) {
        const std::string name = combo->objectName().toStdString();
        const bool choice = name.starts_with("choice.");
        const auto& given = choice ? m_document.design().choices : m_document.design().materials;
        const auto it = given.find(name.substr(choice ? 7 : 9));
        if (it == given.end())
            continue; // of the form before; it goes when control returns to the event loop
        combo->setCurrentIndex(combo->findData(text(it->second)));
        combo->setToolTip(combo->currentText());
    }
    m_filling = false;
}

void Docket::fillDetails(QTreeWidgetItem* item)
{
    const std::string name = item->data(0, kNameRole).toString().toStdString();
    const auto* spec = name.empty() ? nullptr : m_document.spec().dimension(name);
    if (!spec)
        return;
    const Pattern& p = m_document.pattern();
    const Derivation how = derivationOf(m_document.design(), m_document.spec(), p.values, name, p.sizeAt);
    const Range range = rangeOf(*spec, p.values);
    const auto shown = [&](double x) { return m_document.shown(*spec, x); };
    QStringList lines{text(spec->meaning), QString("%1 to %2").arg(shown(range.min), shown(range.max)), (how.own ? "own value: " : "= ") + text(how.formula)};
    if (!how.inputs.empty()) {
        QStringList inputs;
        for (const auto& [n, x] : how.inputs)
            inputs << text(n) + " " + text(formatNumber(x));
        lines << inputs.join(",  ");
    }
    lines << "size rule: " + text(ruleText(m_document.design().dimensions.at(name).rule));
    while (item->childCount() < lines.size())
        addDetail(item, "");
    while (item->childCount() > lines.size())
        delete item->takeChild(item->childCount() - 1);
    for (int k = 0; k < lines.size(); ++k) {
        item->child(k)->setText(0, wrapped(lines[k]));
        item->child(k)->setForeground(0, theme().muted);
    }
}

void Docket::typed(QTreeWidgetItem* item, int column)
{
    const std::string name = item->data(0, kNameRole).toString().toStdString();
    if (m_filling || column != 1 || name.empty())
        return;
    const std::string value = item->text(1).toStdString();
    const std::string size = m_document.design().sizes[m_document.size()];
    m_document.edit(item->text(0) + " to " + item->text(1), [&](Design& d) { setDimension(d, name, value, {}, m_document.unit(), size); });
    refreshDimensions();
}

void Docket::setStage(int stage)
{
    m_refusal->hide(); // who goes on has read it
    // Brief: the body; Fittings: what is fitted; elsewhere as the user left it.
    for (int g = 0; g < m_dimensions->topLevelItemCount(); ++g) {
        auto* item = m_dimensions->topLevelItem(g);
        if (stage == 0)
            item->setExpanded(item->text(0) == "Body");
        if (stage == 2)
            item->setExpanded(item->text(0) == "Materials");
        if (stage == 3)
            item->setExpanded(item->text(0) != "Body" && item->text(0) != "Materials");
    }
}

void Docket::showDimension(const std::string& name)
{
    for (int g = 0; g < m_dimensions->topLevelItemCount(); ++g)
        for (int i = 0; i < m_dimensions->topLevelItem(g)->childCount(); ++i)
            if (auto* item = m_dimensions->topLevelItem(g)->child(i); item->data(0, kNameRole).toString().toStdString() == name) {
                m_dimensions->topLevelItem(g)->setExpanded(true);
                m_dimensions->setCurrentItem(item);
                m_dimensions->scrollToItem(item);
            }
}

} // namespace tectonis
