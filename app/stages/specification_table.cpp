// SPDX-License-Identifier: GPL-3.0-or-later
#include "specification_table.hpp"

#include "formats/specification.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"

#include <QHeaderView>
#include <QSignalBlocker>

#include <algorithm>

namespace tectonis {
namespace {

QString lines(const std::vector<std::string>& all)
{
    QStringList out;
    for (const auto& line : all)
        out << text(line);
    return out.join("\n");
}

/// The numbers of steps; their titles are told on hovering. Hidden ones have none.
QString numbers(const std::vector<std::string>& steps)
{
    QStringList out;
    for (const auto& step : steps)
        if (const QString number = text(step.substr(0, step.find(' '))); number.toInt() > 0)
            out << number;
    return out.join(", ");
}

/// Codes in the order of people: A, A2, A10.
QString sortable(const QString& code)
{
    QString out;
    for (const QChar c : code)
        out += c.isDigit() ? QString(c) : QString(c) + " ";
    const int space = int(out.lastIndexOf(' ')) + 1;
    return out.left(space) + out.mid(space).rightJustified(4, '0');
}

/// Sorts by what is behind the words where that is told.
class Cell : public QTableWidgetItem {
public:
    using QTableWidgetItem::QTableWidgetItem;
    bool operator<(const QTableWidgetItem& other) const override
    {
        const QVariant a = data(Qt::UserRole + 1), b = other.data(Qt::UserRole + 1);
        return a.isValid() && b.isValid() ? a.toString() < b.toString() : text() < other.text();
    }
};

} // namespace

SpecificationTable::SpecificationTable(Document& document) : QTableWidget(0, 9), m_document(document)
{
    setObjectName("specification");
    setAccessibleName(spoken("Specification of every piece"));
    Headings::over(*this);
    setHorizontalHeaderLabels({spoken("Code"), spoken("Piece"), spoken("Cloth"), spoken("Count"), spoken("Layers"),
        spoken("Seams"), spoken("Marks"), spoken("Fittings"), spoken("Steps")});
    verticalHeader()->hide();
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    sortByColumn(0, Qt::AscendingOrder);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0 && item(row, 0))
            m_document.takePiece(PieceId(item(row, 0)->data(Qt::UserRole).toString().toStdString()));
    });
}

void SpecificationTable::resizeEvent(QResizeEvent* event)
{
    QTableWidget::resizeEvent(event);
    constexpr double shares[]{0.075, 0.1, 0.12, 0.08, 0.165, 0.19, 0.1, 0.09, 0.08};
    for (int c = 0; c < columnCount(); ++c)
        setColumnWidth(c, int(shares[c] * viewport()->width()));
    resizeRowsToContents();
}

void SpecificationTable::fill()
{
    const QSignalBlocker quiet(this);
    setSortingEnabled(false);
    const auto all = specificationOf(m_document.design(), m_document.pattern(), m_document.unit(), readersLanguage());
    setRowCount(int(all.size()));
    int row = 0;
    for (const auto& p : all) {
        const QString count = p.mirrored.empty() || p.mirrored == "0"
            ? text(p.count)
            : spoken("{}, {} mirrored", text(p.count), text(p.mirrored));
        const QString cloth = text(p.cloth) + "\n"
            + spoken("{} {}, {} g", p.thickness, unitSign(m_document.unit()), p.weight) + "\n" + text(p.stiffness);
        int c = 0;
        for (const QString& words : {text(p.code), text(p.name), cloth, count, lines(p.layers), lines(p.seams),
                 lines(p.marks), lines(p.fittings), numbers(p.steps)}) {
            auto* cell = new Cell(words);
            cell->setTextAlignment(Qt::AlignLeft | Qt::AlignTop);
            cell->setToolTip(c == 8 ? lines(p.steps) : words);
            cell->setData(Qt::UserRole, text(p.key));
            if (c == 0)
                cell->setData(Qt::UserRole + 1, sortable(words));
            setItem(row, c++, cell);
        }
        ++row;
    }
    setSortingEnabled(true);
    resizeRowsToContents();
    for (int r = 0; r < rowCount(); ++r)
        if (item(r, 0)->data(Qt::UserRole).toString() == text(m_document.pieceInHand()))
            setCurrentCell(r, std::max(0, currentColumn()));
}

} // namespace tectonis
