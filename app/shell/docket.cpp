// SPDX-License-Identifier: GPL-3.0-or-later
#include "docket.hpp"
#include "qtext.hpp"

#include "pattern/labels.hpp"

#include "features/feature.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "library_menu.hpp"
#include "theme.hpp"

#include <QComboBox>
#include <QHeaderView>
#include <QSplitter>
#include <QVBoxLayout>

#include <set>

namespace tectonis {
namespace {

void addDetail(QTreeWidgetItem* parent, const QString& s)
{
    auto* item = new QTreeWidgetItem(parent, {wrappedLine(s)});
    item->setFirstColumnSpanned(true);
    item->setForeground(0, theme().muted);
    item->setFlags(Qt::ItemIsEnabled);
}

/// Details come when the row is opened: laying out what nobody sees is what makes a drag slow.
void showDetails(QTreeWidgetItem* item)
{
    if (item->childCount() == 0)
        for (const QString& line : item->data(0, FieldTree::kDetails).toStringList())
            addDetail(item, line);
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

QString firstColumn(const DocketRow& row) { return row.value.isEmpty() ? wrappedLine(row.label, 44) : row.label; }

/// Has the tree the page's groups and rows, whatever their values? Then they are filled where they are: a drag changes
/// numbers, not rows.
bool sameRows(const QTreeWidget& tree, const DocketPage& page)
{
    if (tree.topLevelItemCount() != int(page.groups.size()))
        return false;
    for (std::size_t g = 0; g < page.groups.size(); ++g) {
        const QTreeWidgetItem& head = *tree.topLevelItem(int(g));
        const auto& rows = page.groups[g].rows;
        if (head.text(0) != page.groups[g].title || head.childCount() != int(rows.size()))
            return false;
        for (std::size_t i = 0; i < rows.size(); ++i)
            if (head.child(int(i))->text(0) != firstColumn(rows[i])
                || head.child(int(i))->text(1).isEmpty() != rows[i].value.isEmpty())
                return false;
    }
    return true;
}

/// New rows; those of the same name stay open.
void makeRows(QTreeWidget& tree, const DocketPage& page)
{
    std::set<QString> open;
    for (int i = 0; i < tree.topLevelItemCount(); ++i)
        for (int k = 0; k < tree.topLevelItem(i)->childCount(); ++k)
            if (tree.topLevelItem(i)->child(k)->isExpanded())
                open.insert(tree.topLevelItem(i)->child(k)->text(0));
    tree.clear();
    for (const auto& group : page.groups) {
        auto* head = addHeading(&tree, group.title);
        for (const auto& row : group.rows) {
            auto* item = new QTreeWidgetItem(head, {firstColumn(row), row.value});
            item->setFirstColumnSpanned(row.value.isEmpty());
            item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
            item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
            item->setData(0, FieldTree::kDetails, row.details);
            item->setExpanded(open.contains(item->text(0)));
        }
    }
}

void fillRow(QTreeWidgetItem& item, const DocketRow& row)
{
    item.setText(1, row.value);
    item.setToolTip(0, row.label);
    item.setToolTip(1, row.value);
    item.setData(
        row.value.isEmpty() ? 0 : 1, Qt::ForegroundRole, row.bad ? QVariant(QBrush(theme().error)) : QVariant());
    if (item.data(0, FieldTree::kDetails).toStringList() != row.details) {
        item.setData(0, FieldTree::kDetails, row.details);
        qDeleteAll(item.takeChildren());
        if (item.isExpanded())
            showDetails(&item);
    }
    item.setChildIndicatorPolicy(
        row.details.isEmpty() ? QTreeWidgetItem::DontShowIndicator : QTreeWidgetItem::ShowIndicator);
}

/// What can be chosen now: faces of parts come and go with what is chosen for these. Of several parts with a face of
/// one name each is told apart by its part.
void fillChoice(QComboBox& combo, const ChoiceSpec& spec, const Pattern& pattern)
{
    QStringList words, values;
    for (const auto& [value, label] : spec.options) {
        const auto alike = std::count_if(
            spec.options.begin(), spec.options.end(), [&](const auto& other) { return other.second == label; });
        const std::string part = value.substr(0, value.rfind('.'));
        words << (alike > 1 ? spoken("{} ({})", spokenName(label), text(partLabel(pattern, part))) : spokenName(label));
        values << text(value);
    }
    bool same = combo.count() == words.size();
    for (int i = 0; same && i < words.size(); ++i)
        same = combo.itemData(i).toString() == values[i] && combo.itemText(i) == words[i];
    if (same)
        return;
    combo.clear();
    for (int i = 0; i < words.size(); ++i)
        combo.addItem(words[i], values[i]);
}

/// The design's words: name and meaning of the field, and where it stands.
struct Words {
    const char* name;
    Label label, meaning;
    std::string Design::*field;
};
const Words kWords[] = {
    {"name", label("Name"), label("What the design is called: on the booklet, the sheets and in the bar."),
        &Design::name},
    {"studio", label("Studio"), label("Who publishes the pattern; printed on the sheets and the booklet."),
        &Design::studio},
    {"notes", label("Notes"), label("Your own notes; they stay in the file."), &Design::notes}};

} // namespace

Docket::Docket(Document& document, QWidget* parent) : QWidget(parent), m_document(document)
{
    setFixedWidth(336);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(6, 4, 8, 4);
    column->setSpacing(4);
    m_title = new QLabel;
    m_title->setObjectName("docketTitle");
    m_title->setTextFormat(Qt::PlainText);
    m_title->setFont(pixelFont(15, QFont::DemiBold));
    m_title->setMinimumHeight(24);
    m_facts = new FieldTree("facts");
    m_facts->header()->resizeSection(1, 176);
    m_facts->setAccessibleName(spoken("Facts about what is in hand; open a row to see its working"));
    m_fields = new FieldTree("dimensions");
    m_fields->setAccessibleName(
        spoken("Dimensions and choices; click or type to change a value, open a row for its meaning and range"));
    m_split = new QSplitter(Qt::Vertical);
    m_split->setChildrenCollapsible(false);
    m_split->addWidget(m_facts);
    m_split->addWidget(m_fields);
    m_split->setSizes({230, 360});
    column->addWidget(m_title);
    column->addWidget(m_split, 1);
    m_refusal = new QLabel(this);
    m_refusal->setObjectName("refusal");
    m_refusal->setTextFormat(Qt::PlainText);
    m_refusal->setWordWrap(true);
    m_refusal->hide();
    connect(m_facts, &QTreeWidget::itemExpanded, this, [](QTreeWidgetItem* item) { showDetails(item); });
    connect(m_fields, &QTreeWidget::itemExpanded, this, [this](QTreeWidgetItem* item) { fillDetails(item); });
    m_fields->typed = [this](const std::string& name, const QString& value) { return typed(name, value); };
    m_fields->left = m_facts->left = [this] {
        if (left)
            left();
    };
    connect(&document, &Document::changed, this, &Docket::refresh);
    connect(&document, &Document::viewChanged, this, &Docket::refresh);
    connect(&document, &Document::viewChanged, m_refusal, &QWidget::hide);
    connect(&document, &Document::refused, this, &Docket::say);
    refresh();
}

void Docket::say(const QString& refusal)
{
    m_refusal->setText(refusal);
    m_refusal->setStyleSheet(QString("color:%1; background:%2; border:1px solid %1; border-radius:5px; padding:6px;")
                                 .arg(theme().error.name(), theme().surface.name()));
    m_refusal->setVisible(!refusal.isEmpty());
    resizeEvent(nullptr);
    if (!refusal.isEmpty()) {
        m_refusal->raise();
        refreshFields(); // shows the value that stands
    }
}

void Docket::resizeEvent(QResizeEvent*)
{
    fitValues();
    const int wide = width() - 22, high = m_refusal->heightForWidth(wide);
    m_refusal->setGeometry(10, m_split->y() + 4, wide, std::max(30, high));
}

void Docket::follow(DocketSource* stage)
{
    if (m_stage)
        m_stage->handChanged = {};
    m_stage = stage;
    if (m_stage)
        m_stage->handChanged = [this] { refreshFacts(); };
    m_refusal->hide(); // who goes on has read it
    m_openedFor.clear();
    refresh();
    // What the stage opens gets the room.
    const int high = std::max(300, m_split->height()),
              facts = m_page.fields.opened.empty() ? 62
        : m_page.fields.design                     ? 27
                                                   : 45;
    // Facts take no more than they fill, so far as not every piece moves the split.
    int rows = 0;
    for (const auto& group : m_page.groups)
        rows += 1 + int(group.rows.size());
    const int shown = std::min(high * facts / 100, std::max(high * 38 / 100, 24 * rows + 12));
    m_split->setSizes({shown, high - shown});
}

void Docket::refresh()
{
    std::string key = m_document.design().form;
    for (const auto& f : m_document.design().features)
        key += "|" + f.id;
    for (const auto& [role, unused] : m_document.design().materials)
        key += "|" + role;
    if (key != m_builtFor) {
        m_builtFor = key;
        buildFields();
    }
    refreshFacts();
    refreshFields();
}

void Docket::refreshFacts()
{
    if (m_stage)
        m_stage->freshen();
    m_page = m_stage ? m_stage->docketPage() : pagePiece(m_document, m_document.pieceInHand());
    m_title->setText(m_title->fontMetrics().elidedText(m_page.title, Qt::ElideRight, width() - 20));
    m_title->setToolTip(m_page.title);
    std::erase_if(m_page.groups, [](const DocketGroup& group) { return group.rows.empty(); });
    if (!sameRows(*m_facts, m_page))
        makeRows(*m_facts, m_page);
    for (int g = 0; g < m_facts->topLevelItemCount(); ++g)
        for (int i = 0; i < m_facts->topLevelItem(g)->childCount(); ++i)
            fillRow(*m_facts->topLevelItem(g)->child(i), m_page.groups[std::size_t(g)].rows[std::size_t(i)]);
    fitValues();
    showGroups();
}

void Docket::fitValues()
{
    int wide = 90;
    for (int g = 0; g < m_facts->topLevelItemCount(); ++g)
        for (int i = 0; i < m_facts->topLevelItem(g)->childCount(); ++i)
            wide = std::max(
                wide, m_facts->fontMetrics().horizontalAdvance(m_facts->topLevelItem(g)->child(i)->text(1)) + 20);
    m_facts->header()->resizeSection(1, std::min(wide, width() * 13 / 25));
}

void Docket::showGroups()
{
    const DocketFields& wanted = m_page.fields;
    const auto partOf = [&](const std::string& id) {
        return std::any_of(m_document.design().features.begin(), m_document.design().features.end(),
            [&](const Feature& f) { return f.id == id; });
    };
    for (const auto& [id, group] : m_groups) {
        const bool on = id == "#design" ? wanted.design
            : id == "#body"             ? wanted.body
            : id == "#materials"        ? wanted.materials
                                        : wanted.parts || id == wanted.part;
        if (group->isHidden() == on)
            group->setHidden(!on);
    }
    if (const std::string opened = wanted.opened.empty() || partOf(wanted.opened) ? wanted.opened : "#" + wanted.opened;
        !opened.empty() && opened != m_openedFor) {
        m_openedFor = opened;
        for (const auto& [id, group] : m_groups)
            group->setExpanded(id == opened || (id == "#design" && opened == "#body"));
        if (const auto part = m_groups.find(opened); part != m_groups.end() && opened.front() != '#')
            m_fields->scrollToItem(part->second, QAbstractItemView::PositionAtTop);
    }
    const bool any = wanted.any();
    if (m_fields->isHidden() == any)
        m_fields->setVisible(any);
}

QTreeWidgetItem* Docket::groupOf(const std::string& id, const QString& title)
{
    auto& item = m_groups[id];
    if (!item)
        item = addHeading(m_fields, title);
    return item;
}

QTreeWidgetItem* Docket::addField(
    QTreeWidgetItem* group, const std::string& name, const std::string& label, const std::string& meaning)
{
    auto* item = new QTreeWidgetItem(group, {spokenName(label)});
    item->setData(0, FieldTree::kName, text(name));
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
    item->setToolTip(0, spokenName(meaning));
    return item;
}

void Docket::buildFields()
{
    m_fields->clear();
    m_groups.clear();
    m_choices.clear();
    m_openedFor.clear();
    auto* words = groupOf("#design", spoken("Design"));
    for (const auto& w : kWords)
        addField(words, w.name, w.label.source, w.meaning.source);
    groupOf("#body", spoken("Body"));
    for (const auto& f : m_document.design().features)
        groupOf(f.id, text(partLabel(m_document.pattern(), f.id)));
    const auto ownerOf = [&](const std::string& name) {
        const std::string id = name.substr(0, name.find('.'));
        return id != name && m_groups.contains(id) ? id : std::string("#body");
    };
    for (const auto& d : m_document.spec().dimensions)
        addField(m_groups.at(ownerOf(d.name)), d.name, d.label, d.meaning);
    for (const auto& c : m_document.spec().choices) {
        auto* item = new QTreeWidgetItem(m_groups.at(ownerOf(c.name)), {spokenName(c.label)});
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        item->setToolTip(0, spokenName(c.meaning));
        auto* combo = new QComboBox;
        combo->setObjectName("choice." + text(c.name));
        combo->setAccessibleName(spokenName(c.label));
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(6);
        const std::string name = c.name;
        m_choices[name] = item;
        connect(combo, &QComboBox::activated, this, [this, combo, name] {
            const std::string value = combo->currentData().toString().toStdString();
            m_document.edit(spokenName(m_document.spec().choice(name)->label) + ": " + combo->currentText(),
                [&](Design& d) { change::choice(d, name, value); });
        });
        m_fields->setItemWidget(item, 1, combo);
    }
    addMaterials();
    for (const auto& [id, group] : m_groups)
        group->setExpanded(false);
}

void Docket::addMaterials()
{
    auto* head = groupOf("#materials", spoken("Materials"));
    for (const auto& [role, id] : m_document.design().materials) {
        auto* item = new QTreeWidgetItem(
            head, {text(roleLabel(role)).left(1).toUpper() + text(roleLabel(role)).mid(1)});
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        auto* combo = new QComboBox;
        combo->setObjectName("material." + text(role));
        combo->setAccessibleName(spoken("Material of the {}", text(roleLabel(role))));
        fillMaterials(*combo, *m_document.design().library, m_document.pattern().material(id).use);
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(6);
        combo->view()->setMinimumWidth(260);
        const std::string key = role;
        connect(combo, &QComboBox::activated, this, [this, combo, key] {
            const std::string value = combo->currentData().toString().toStdString();
            m_document.edit(spoken("Material of the {}: {}", text(roleLabel(key)), combo->currentText()),
                [&](Design& d) { change::material(d, key, value); });
        });
        m_fields->setItemWidget(item, 1, combo);
    }
}

void Docket::refreshFields()
{
    const Pattern& p = m_document.pattern();
    const Design& design = m_document.design();
    for (const auto& [id, group] : m_groups)
        for (int i = 0; i < group->childCount(); ++i) {
            QTreeWidgetItem* item = group->child(i);
            const std::string name = item->data(0, FieldTree::kName).toString().toStdString();
            for (const auto& w : kWords)
                if (id == "#design" && name == w.name) {
                    const QString all = text(design.*w.field);
                    item->setText(1, QString(all).replace('\n', ' '));
                    item->setData(1, FieldTree::kTyped, QString(all).replace('\n', "\\n"));
                    item->setToolTip(1, all);
                }
            const auto* spec = id == "#design" || name.empty() ? nullptr : m_document.spec().dimension(name);
            if (!spec)
                continue;
            // What means nothing with these choices is not asked for.
            if (const bool dead = !m_document.counts(*spec); item->isHidden() != dead)
                item->setHidden(dead);
            const double v = p.values.at(name);
            const Dimension& given = design.dimensions.at(name);
            const auto ownForSize = given.bySize.find(p.size);
            const std::string& source = ownForSize != given.bySize.end() ? ownForSize->second : given.value;
            const bool formula = isFormula(source);
            item->setText(1, m_document.shown(*spec, v, !formula));
            item->setToolTip(1, formula ? "= " + text(source) : QString());
            item->setData(1, FieldTree::kTyped,
                formula                                                 ? text(source)
                    : spec->quantity == DimensionSpec::Quantity::Length ? m_document.exact(v)
                                                                        : m_document.shown(*spec, v, true));
            item->setForeground(1, formula ? theme().second : theme().ink);
            if (item->isExpanded())
                fillDetails(item);
            item->setChildIndicatorPolicy(QTreeWidgetItem::ShowIndicator);
        }
    for (const auto& [name, item] : m_choices)
        if (const ChoiceSpec* spec = m_document.spec().choice(name))
            if (const bool dead = !counts(*spec, design.choices); item->isHidden() != dead)
                item->setHidden(dead);
    for (auto* combo : m_fields->findChildren<QComboBox*>()) {
        const std::string name = combo->objectName().toStdString();
        const bool choice = name.starts_with("choice.");
        const auto& given = choice ? design.choices : design.materials;
        const auto it = given.find(name.substr(choice ? 7 : 9));
        if (it == given.end())
            continue; // of the form before; it goes when control returns to the event loop
        if (const ChoiceSpec* spec = choice ? m_document.spec().choice(it->first) : nullptr)
            fillChoice(*combo, *spec, m_document.pattern());
        if (!choice)
            fillMaterials(*combo, *design.library, design.library->material(it->second).use);
        combo->setCurrentIndex(combo->findData(text(it->second)));
        combo->setToolTip(combo->currentText());
    }
}

void Docket::fillDetails(QTreeWidgetItem* item)
{
    const std::string name = item->data(0, FieldTree::kName).toString().toStdString();
    const auto* spec = name.empty() ? nullptr : m_document.spec().dimension(name);
    if (!spec)
        return;
    const Pattern& p = m_document.pattern();
    const Derivation how = derivationOf(m_document.design(), m_document.spec(), p.values, name, p.sizeAt);
    const Range range = rangeOf(*spec, p.values);
    const auto shown = [&](double x) { return m_document.shown(*spec, x, true); };
    QStringList lines{spokenName(spec->meaning), spoken("{} to {}", shown(range.min), shown(range.max)),
        how.own ? spoken("own value: {}", how.formula) : "= " + m_document.words(how.formula)};
    if (!how.inputs.empty()) {
        QStringList inputs;
        for (const auto& [n, x] : how.inputs)
            inputs << text(n) + " " + number(x);
        lines << inputs.join(",  ")
              << "= "
                + (spec->quantity == DimensionSpec::Quantity::Length ? m_document.exact(how.result)
                                                                     : shown(how.result));
    }
    lines << spoken("size rule: {}", text(ruleText(m_document.design().dimensions.at(name).rule)));
    while (item->childCount() < lines.size())
        addDetail(item, "");
    while (item->childCount() > lines.size())
        delete item->takeChild(item->childCount() - 1);
    for (int k = 0; k < lines.size(); ++k) {
        item->child(k)->setText(0, wrappedLine(lines[k]));
        item->child(k)->setForeground(0, theme().muted);
    }
}

bool Docket::typed(const std::string& name, const QString& value)
{
    for (const auto& w : kWords)
        if (name == w.name) {
            const bool taken = m_document.edit(text(w.label) + ": " + value,
                [&](Design& d) { change::assign(d, name + "=" + QString(value).replace("\\n", "\n").toStdString()); });
            refreshFields();
            return taken;
        }
    const auto* spec = m_document.spec().dimension(name);
    const std::string size = m_document.design().sizes[m_document.size()];
    const bool taken = m_document.edit(spoken("{} to {}", (spec ? spokenName(spec->label) : text(name)), value),
        [&](Design& d) { change::dimension(d, name, value.toStdString(), {}, m_document.unit(), size); });
    refreshFields();
    return taken;
}

void Docket::showDimension(const std::string& name)
{
    for (const auto& [id, group] : m_groups)
        for (int i = 0; i < group->childCount(); ++i)
            if (auto* item = group->child(i); item->data(0, FieldTree::kName).toString().toStdString() == name) {
                group->setHidden(false);
                m_fields->setVisible(true);
                group->setExpanded(true);
                m_fields->setCurrentItem(item, 1);
                m_fields->scrollToItem(item);
            }
}

} // namespace tectonis
