// SPDX-License-Identifier: GPL-3.0-or-later
#include "seam_ledger.hpp"

#include "qtext.hpp"
#include "shell/headings.hpp"
#include "theme.hpp"

#include <QHeaderView>

#include <cmath>

namespace tectonis {
namespace {

enum Column { Name, RunA, LengthA, RunB, LengthB, Ease, Difference, Allowance, OpenStart, OpenEnd, Columns };

/// Codes of the pieces along one side of a seam.
QString codesOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    QStringList list;
    for (const auto& use : side)
        if (const Piece* piece = p.piece(use.piece); piece && !list.contains(text(piece->code)))
            list << text(piece->code);
    return list.join(" + ");
}

} // namespace

SeamLedger::SeamLedger(Document& document) : QTableWidget(0, Columns), m_document(document)
{
    setObjectName("ledger");
    setAccessibleName(spoken("Seam ledger"));
    Headings::over(*this);
    setHorizontalHeaderLabels(
        {spoken("Seam"), spoken("One run"), spoken("Length"), spoken("Other run"), spoken("Length"), spoken("Ease"),
            spoken("Difference"), spoken("Allowance"), spoken("Open, start"), spoken("Open, end")});
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(24);
    setSelectionBehavior(QAbstractItemView::SelectRows);
    setEditTriggers(
        QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed | QAbstractItemView::AnyKeyPressed);
    horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    for (const auto& [column, width] : {std::pair{RunA, 92}, {LengthA, 72}, {RunB, 92}, {LengthB, 72}, {Ease, 60},
             {Difference, 80}, {Allowance, 76}, {OpenStart, 88}, {OpenEnd, 82}})
        setColumnWidth(column, width);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    horizontalHeader()->setSectionResizeMode(Name, QHeaderView::Stretch);
    setFixedHeight(210);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0 && std::size_t(row) < m_seams.size() && picked)
            picked(m_seams[std::size_t(row)]);
    });
    connect(this, &QTableWidget::cellChanged, this, &SeamLedger::typed);
    // It looks at all sizes, so it follows a drag a tenth of a second behind.
    for (auto signal : {&Document::judged, &Document::viewChanged})
        connect(&document, signal, this, &SeamLedger::fill);
}

void SeamLedger::setAllSizes(bool on)
{
    m_allSizes = on;
    fill();
}

void SeamLedger::typed(int row, int column)
{
    if (column < OpenStart || std::size_t(row) >= m_seams.size())
        return;
    const std::string value = item(row, column)->text().toStdString();
    const SeamId key = m_seams[std::size_t(row)];
    const Seam* seam = m_document.pattern().seam(key);
    if (!seam)
        return;
    SeamEnds ends{seam->openStart, seam->openEnd};
    m_document.edit(spoken("Seam left open: {}", text(seam->name)), [&](Design& d) {
        (column == OpenStart ? ends.start : ends.end) = parseLength(value, m_document.unit());
        change::seamEnds(d, key.text(), ends);
    });
    fill();
}

void SeamLedger::fill()
{
    if (!isVisible())
        return;
    std::vector<const Pattern*> sizes;
    for (const auto& p : m_document.patterns())
        if (m_allSizes || &p == &m_document.pattern())
            sizes.push_back(&p);
    const QSignalBlocker quiet(this);
    m_seams.clear();
    setRowCount(int(m_document.pattern().seams.size() * sizes.size()));
    for (const auto& seam : m_document.pattern().seams)
        for (const Pattern* size : sizes)
            if (const Seam* there = size->seam(seam.key)) {
                fillRow(int(m_seams.size()), *size, *there);
                m_seams.push_back(seam.key);
            }
    setRowCount(int(m_seams.size()));
}

void SeamLedger::fillRow(int row, const Pattern& p, const Seam& s)
{
    // With one size in view the difference is the worst of all.
    double difference = s.difference();
    if (!m_allSizes)
        for (const auto& size : m_document.patterns())
            if (const Seam* other = size.seam(s.key); other && std::abs(other->difference()) > std::abs(difference))
                difference = other->difference();
    const auto len = [this](double mm) { return m_document.len(mm); };
    const QStringList cells{m_allSizes ? text(p.size) + "  " + text(s.name) : text(s.name), codesOf(p, s.a),
        len(s.lengthA), codesOf(p, s.b), len(s.lengthB),
        s.ease == 0 ? spoken("none") : len(s.ease) + (s.easeNote.empty() ? QString() : ": " + text(s.easeNote)),
        std::abs(difference) < 0.005 ? spoken("none") : len(difference),
        s.allowance > 0 ? len(s.allowance) : text(s.stitch), len(s.openStart), len(s.openEnd)};
    for (int c = 0; c < Columns; ++c) {
        auto* cell = new QTableWidgetItem(cells[c]);
        cell->setToolTip(c == Difference && !m_allSizes ? spoken("{}, the worst of all sizes", cells[c]) : cells[c]);
        if (c == Difference && std::abs(difference) > 0.01)
            cell->setForeground(theme().error);
        if (c < OpenStart)
            cell->setFlags(Qt::ItemIsSelectable | Qt::ItemIsEnabled);
        setItem(row, c, cell);
    }
}

} // namespace tectonis
