// SPDX-License-Identifier: GPL-3.0-or-later
#include "run_dialog.hpp"

#include "qtext.hpp"
#include "sequence/order.hpp"
#include "shell/headings.hpp"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>
#include <QVBoxLayout>

namespace tectonis {

RunDialog::RunDialog(Document& document, QWidget* parent) : QDialog(parent), m_document(document)
{
    setObjectName("run");
    setWindowTitle(spoken("A run of several bags"));
    resize(720, 560);
    auto* column = new QVBoxLayout(this);
    auto* row = new QHBoxLayout;
    auto* bags = new QLabel(spoken("&Bags"));
    m_bags = new QSpinBox;
    m_bags->setObjectName("runBags");
    m_bags->setRange(1, 10000);
    const auto planned = document.design().run.find(document.pattern().size);
    m_bags->setValue(planned != document.design().run.end() ? planned->second : 12);
    bags->setBuddy(m_bags);
    m_which = new QComboBox;
    m_which->setObjectName("runOrder");
    m_which->setAccessibleName(spoken("Which order"));
    m_which->addItems({spoken("In the order as it stands"), spoken("By tool: as long as can be at one place")});
    row->addWidget(bags);
    row->addWidget(m_bags);
    row->addSpacing(12);
    row->addWidget(m_which);
    row->addStretch(1);
    column->addLayout(row);
    m_table = new QTableWidget(0, 4);
    m_table->setObjectName("runBatches");
    m_table->setAccessibleName(spoken("Batches"));
    Headings::over(*m_table);
    m_table->setHorizontalHeaderLabels(
        {spoken("Where"), spoken("Steps"), spoken("Minutes a bag"), spoken("Minutes in all")});
    m_table->verticalHeader()->hide();
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionMode(QAbstractItemView::NoSelection);
    m_table->setWordWrap(true);
    column->addWidget(m_table, 1);
    m_sums = new QLabel;
    m_sums->setObjectName("runSums");
    m_sums->setWordWrap(true);
    column->addWidget(m_sums);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    m_take = buttons->addButton(spoken("&Take this order"), QDialogButtonBox::ActionRole);
    m_take->setObjectName("runTake");
    column->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    connect(m_take, &QPushButton::clicked, this, &RunDialog::take);
    connect(m_bags, &QSpinBox::valueChanged, this, [this] { fill(); });
    connect(m_which, &QComboBox::currentIndexChanged, this, [this] { fill(); });
    m_bags->setFocus();
    m_bags->selectAll();
    fill();
}

void RunDialog::fill()
{
    const Design& design = m_document.design();
    const Pattern& p = m_document.pattern();
    const auto now = orderOf(design, p), order = m_which->currentIndex() == 1 ? batchedOrder(design, p) : now;
    const auto numbers = numbersOf(p, order);
    const BagRun run = runOf(p, order, m_bags->value());
    m_table->setRowCount(int(run.batches.size()));
    std::size_t place = 0;
    for (int r = 0; r < m_table->rowCount(); ++r) {
        const Batch& batch = run.batches[std::size_t(r)];
        QStringList steps;
        for (const auto i : batch.steps) {
            const int number = numbers[place++];
            steps << (number > 0 ? QString::number(number) + "  " : QString("–  ")) + text(p.steps[i].title);
        }
        const QString cells[]{
            text(nameOf(batch.place)), steps.join("\n"), fixed(batch.minutes, 1), fixed(batch.minutes * run.bags, 0)};
        for (int c = 0; c < 4; ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            item->setTextAlignment((c < 2 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignTop);
            m_table->setItem(r, c, item);
        }
    }
    m_table->resizeRowsToContents();
    const BagRun other = runOf(p, now, run.bags);
    QString sums = spoken("{} min in all: {} of work, {} of setting up in {} batches, {} of waiting. The same bags one "
                          "after the other: {} min.",
        fixed(run.whole(), 0), fixed(run.work, 0), fixed(run.setUp, 0), int(run.batches.size()), fixed(run.waiting, 0),
        fixed(run.bagByBag, 0));
    if (m_which->currentIndex() == 1)
        sums += " "
            + spoken(
                "In the order as it stands: {} min in {} batches.", fixed(other.whole(), 0), int(other.batches.size()));
    sums += " "
        + spoken("Each change of place takes {} min; common practice, no source: your workshop may say otherwise.",
            fixed(p.workshop.setUp, 0));
    m_sums->setText(sums);
    m_take->setEnabled(order != now);
    m_take->setToolTip(order != now ? QString() : spoken("It is the order that stands."));
}

void RunDialog::take()
{
    const Pattern& p = m_document.pattern();
    const auto order = batchedOrder(m_document.design(), p);
    m_document.edit(spoken("Order by tool"), [&](Design& d) {
        d.stepOrder.clear();
        for (const auto i : order)
            d.stepOrder.push_back(p.steps[i].id.text());
    });
    m_which->setCurrentIndex(0);
    fill();
}

} // namespace tectonis
