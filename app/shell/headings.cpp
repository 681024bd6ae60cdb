// SPDX-License-Identifier: GPL-3.0-or-later
#include "headings.hpp"

namespace tectonis {

Headings::Headings(QTableWidget* table) : QHeaderView(Qt::Horizontal, table)
{
    setSectionsClickable(true);
    setHighlightSections(true);
    setDefaultAlignment(Qt::AlignCenter | Qt::Alignment(Qt::TextWordWrap));
    // The height follows the widths.
    connect(this, &QHeaderView::sectionResized, this, [this] { updateGeometry(); });
}

QSize Headings::sectionSizeFromContents(int section) const
{
    const QSize usual = QHeaderView::sectionSizeFromContents(section);
    const QString words = model()->headerData(section, Qt::Horizontal).toString();
    const QRect room(0, 0, std::max(10, sectionSize(section) - 8), 1000);
    const int lines = fontMetrics().boundingRect(room, Qt::AlignCenter | Qt::TextWordWrap, words).height();
    return {usual.width(), std::max(usual.height(), lines + 8)};
}

QTableWidget* tableToRead(const QStringList& headings, const QString& name, const QString& aloud)
{
    auto* table = new QTableWidget(0, int(headings.size()));
    table->setObjectName(name);
    table->setAccessibleName(aloud);
    Headings::over(*table);
    table->setHorizontalHeaderLabels(headings);
    table->verticalHeader()->hide();
    table->verticalHeader()->setDefaultSectionSize(25);
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    return table;
}

} // namespace tectonis
