// SPDX-License-Identifier: GPL-3.0-or-later
// Headings of a table that wrap where their column is narrow: other languages are longer.
#pragma once

#include <QHeaderView>
#include <QTableWidget>

namespace tectonis {

class Headings : public QHeaderView {
public:
    /// Takes the place of @p table's own headings; before anything is said to those.
    static void over(QTableWidget& table) { table.setHorizontalHeader(new Headings(&table)); }

protected:
    QSize sectionSizeFromContents(int section) const override;

private:
    explicit Headings(QTableWidget* table);
};

/// A table of whole rows to read and pick from. @p name for tests, @p aloud for those who hear it.
QTableWidget* tableToRead(const QStringList& headings, const QString& name, const QString& aloud);

} // namespace tectonis
