// SPDX-License-Identifier: GPL-3.0-or-later
#include "purchase_list.hpp"

#include "editing/edits.hpp"
#include "editing/validated.hpp"
#include "edition/consequences.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"
#include "units/error.hpp"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSpinBox>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

QString amount(double value, Purchase::Unit unit)
{
    switch (unit) {
    case Purchase::Unit::Metres: return fixed(value, 2) + " m";
    case Purchase::Unit::Spools: return spokenSome("{} spool", "{} spools", value > 1 ? 2 : 1, fixed(value, 2));
    case Purchase::Unit::Grams: return fixed(value, value < 10 ? 1 : 0) + " g";
    case Purchase::Unit::Pieces: break;
    }
    return fixed(value, value == std::floor(value) ? 0 : value < 1 ? 2 : 1);
}

} // namespace

PurchaseList::PurchaseList(Document& document) : m_document(document)
{
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(8, 0, 8, 0);
    column->setSpacing(4);
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel(spoken("Bags to make")));
    m_bagsRow = new QHBoxLayout;
    row->addLayout(m_bagsRow);
    row->addStretch(1);
    m_sum = new QLabel;
    m_sum->setObjectName("purchaseSum");
    row->addWidget(m_sum);
    column->addLayout(row);
    m_table = tableToRead({spoken("What"), spoken("Size"), spoken("Needed"), spoken("In stock"), spoken("Buy"),
                              spoken("A unit"), spoken("Cost"), spoken("Arrives in")},
        "purchases", spoken("What to buy"));
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    column->addWidget(m_table, 3);
    auto* low = new QHBoxLayout;
    m_instead = tableToRead({spoken("Could be taken instead"), spoken("What changes")}, "substitutes",
        spoken("What could be taken instead"));
    m_instead->setSelectionMode(QAbstractItemView::SingleSelection);
    m_instead->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    m_instead->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    m_take = new QPushButton(spoken("Take it instead"));
    m_take->setObjectName("takeInstead");
    m_take->setToolTip(spoken("Takes the chosen cloth wherever the design has the one in hand"));
    m_with = new QListWidget;
    m_with->setObjectName("consequences");
    m_with->setAccessibleName(spoken("What follows from taking it"));
    m_with->setWordWrap(true);
    m_with->setFocusPolicy(Qt::TabFocus);
    m_with->setSelectionMode(QAbstractItemView::NoSelection);
    low->addWidget(m_instead, 3);
    low->addWidget(m_with, 2);
    low->addWidget(m_take, 0, Qt::AlignTop);
    column->addLayout(low, 1);
    connect(m_table, &QTableWidget::currentCellChanged, this, [this](int r) {
        fillSubstitutes();
        if (picked && r >= 0 && r < int(m_purchases.size()) && !m_purchases[std::size_t(r)].cloth.empty())
            picked(m_purchases[std::size_t(r)].cloth);
    });
    connect(m_instead, &QTableWidget::currentCellChanged, this, &PurchaseList::tellConsequences);
    connect(m_take, &QPushButton::clicked, this, &PurchaseList::takeInstead);
}

void PurchaseList::fillBags()
{
    const Design& design = m_document.design();
    std::vector<std::string> shown;
    std::transform(
        m_bags.begin(), m_bags.end(), std::back_inserter(shown), [](const auto& each) { return each.first; });
    if (shown != design.sizes) {
        while (QLayoutItem* item = m_bagsRow->takeAt(0)) {
            item->widget()->hide();
            item->widget()->deleteLater();
            delete item;
        }
        m_bags.clear();
        for (const auto& size : design.sizes) {
            auto* label = new QLabel("&" + text(size));
            auto* bags = new QSpinBox;
            bags->setObjectName("bags." + text(size));
            bags->setAccessibleName(spoken("Bags of size {}", text(size)));
            bags->setRange(0, 10000);
            label->setBuddy(bags);
            m_bagsRow->addWidget(label);
            m_bagsRow->addWidget(bags);
            m_bags.emplace_back(size, bags);
            connect(bags, &QSpinBox::valueChanged, this, [this, size](int value) {
                m_document.edit(
                    spoken("Bags of size {}", text(size)), [&](Design& d) { change::run(d, size, value); },
                    "run." + text(size));
            });
        }
    }
    const auto run = bagsOf(design);
    for (auto& [size, bags] : m_bags) {
        const QSignalBlocker quiet(bags);
        const auto at = run.find(size);
        bags->setValue(at == run.end() ? 0 : at->second);
    }
}

void PurchaseList::fill()
{
    fillBags();
    const int row = std::max(0, m_table->currentRow());
    std::vector<const Pattern*> all;
    for (const auto& p : m_document.patterns())
        all.push_back(&p);
    m_purchases = purchasesFor(m_document.design(), all);
    {
        const QSignalBlocker quiet(m_table);
        m_table->setRowCount(int(m_purchases.size()));
        for (std::size_t i = 0; i < m_purchases.size(); ++i) {
            const Purchase& p = m_purchases[i];
            QStringList bySize;
            for (const auto& [size, needed] : p.bySize)
                bySize << text(size) + " " + amount(needed, p.unit);
            const QString cells[] = {text(p.what), text(p.size, m_document.unit()), amount(p.needed, p.unit),
                p.stock > 0 ? amount(p.stock, p.unit) : "–", p.buy > 0 ? amount(p.buy, p.unit) : spoken("nothing"),
                p.entry.empty() ? spoken("not in the library") : fixed(p.price, 2), fixed(p.cost, 2),
                p.lead > 0 && p.buy > 0 ? spokenSome("{} day", "{} days", long(p.lead), fixed(p.lead, 0)) : "–"};
            for (int c = 0; c < 8; ++c) {
                auto* cell = new QTableWidgetItem(cells[c]);
                if (c >= 2)
                    cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                cell->setToolTip(c == 2 && p.bySize.size() > 1 ? bySize.join("  ·  ") : cells[c]);
                m_table->setItem(int(i), c, cell);
            }
        }
        m_table->setCurrentCell(std::min(row, int(m_purchases.size()) - 1), 0);
    }
    double cost = 0, lead = 0;
    for (const auto& p : m_purchases)
        cost += p.cost, lead = std::max(lead, p.buy > 0 ? p.lead : 0);
    m_sum->setText(lead > 0 ? spoken("To buy for {}; all is there in {}", fixed(cost, 2),
                       spokenSome("{} day", "{} days", long(lead), fixed(lead, 0)))
                            : spoken("To buy for {}", fixed(cost, 2)));
    fillSubstitutes();
}

namespace {

/// A cloth by its name wherever the design has it, a thing wherever it fits.
void exchange(Design& d, const Purchase& now, const Substitute& then)
{
    if (!now.cloth.empty())
        return change::exchangeMaterial(d, now.cloth.text(), then.entry);
    if (std::find(d.goods.begin(), d.goods.end(), now.entry) != d.goods.end())
        change::leaveGood(d, now.entry);
    change::takeGood(d, then.entry);
}

} // namespace

void PurchaseList::fillSubstitutes()
{
    const int row = m_table->currentRow();
    m_substitutes.clear();
    if (row >= 0 && row < int(m_purchases.size()))
        m_substitutes = substitutesFor(m_document.pattern(), m_purchases[std::size_t(row)]);
    m_instead->setRowCount(int(m_substitutes.size()));
    for (std::size_t i = 0; i < m_substitutes.size(); ++i) {
        QStringList changes;
        for (const auto& each : m_substitutes[i].changes)
            changes << text(each, m_document.unit());
        for (const auto& [c, words] : {std::pair{0, text(m_substitutes[i].what)}, {1, changes.join("; ")}}) {
            auto* cell = new QTableWidgetItem(words);
            cell->setToolTip(words);
            m_instead->setItem(int(i), c, cell);
        }
    }
    m_instead->setCurrentCell(m_substitutes.empty() ? -1 : 0, 0);
    tellConsequences();
}

void PurchaseList::tellConsequences()
{
    const int row = m_table->currentRow(), other = m_instead->currentRow();
    const bool any = row >= 0 && other >= 0 && row < int(m_purchases.size()) && other < int(m_substitutes.size())
        && m_substitutes[std::size_t(other)].inDesign;
    m_take->setEnabled(any);
    m_with->setVisible(any);
    m_with->clear();
    if (!any)
        return;
    try {
        Design next = m_document.design();
        edit(next, [&](Design& d) { exchange(d, m_purchases[std::size_t(row)], m_substitutes[std::size_t(other)]); });
        for (const auto& each : consequencesOf(m_document.design(), next))
            m_with->addItem(
                QString::fromStdString(capitalised(words(each.what, m_document.unit(), readersLanguage()))));
        if (m_with->count() == 0)
            m_with->addItem(spoken("Nothing else changes."));
    } catch (const InputError& e) {
        m_with->addItem(text(e.problem(), m_document.unit()));
        m_take->setEnabled(false);
    }
}

void PurchaseList::takeInstead()
{
    const int row = m_table->currentRow(), at = m_instead->currentRow();
    if (row < 0 || at < 0 || row >= int(m_purchases.size()) || at >= int(m_substitutes.size()))
        return;
    const Purchase purchase = m_purchases[std::size_t(row)]; // the list is filled anew while it is edited
    const Substitute other = m_substitutes[std::size_t(at)];
    m_document.edit(purchase.cloth.empty() ? spoken("Another thing") : spoken("Another cloth"),
        [&](Design& d) { exchange(d, purchase, other); });
}

} // namespace tectonis
