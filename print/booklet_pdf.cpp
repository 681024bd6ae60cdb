// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet_pdf.hpp"
#include "qtext.hpp"

#include "booklet/booklet.hpp"
#include "fonts.hpp"
#include "step_figure.hpp"

#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>

namespace tectonis {
namespace {

constexpr double kBookletDpi = 600, kScale = kBookletDpi / mmPerInch, kMargin = 15; // margin in mm
const QColor kRule(0xBB, 0xB3, 0xA6), kWarn(0x9A, 0x2E, 0x12);

/// Lets text, tables and figures flow down the pages.
class Flow {
public:
    Flow(QPdfWriter& writer, QPainter& painter, const Paper& paper, const QString& foot)
        : m_writer(writer), m_p(painter), m_paper(paper), m_foot(foot)
    {
        drawFoot();
    }

    double width() const { return m_paper.width - 2 * kMargin; }
    double y() const { return m_y; }
    void skip(double mm) { m_y += mm; }

    /// Starts a new page unless @p height mm are free.
    void need(double height)
    {
        if (m_y + height <= m_paper.height - kMargin - 6)
            return;
        m_writer.newPage();
        ++m_page;
        m_y = kMargin;
        drawFoot();
    }

    void paragraph(const QString& s, double em, QFont::Weight weight = QFont::Normal, QColor color = kInk, double x = 0,
        double w = -1)
    {
        if (w < 0)
            w = width() - x;
        const double h = heightOf(s, em, weight, w);
        need(h);
        write(s, em, weight, color, x, w);
        m_y += h + em * 0.35;
    }

    double heightOf(const QString& s, double em, QFont::Weight weight, double w)
    {
        m_p.setFont(pixelFont(em * kScale, weight));
        return m_p.boundingRect(QRectF(0, 0, w * kScale, 10000 * kScale), Qt::TextWordWrap, s).height() / kScale;
    }

    void write(const QString& s, double em, QFont::Weight weight, QColor color, double x, double w, double dy = 0,
        int align = Qt::AlignLeft)
    {
        m_p.setFont(pixelFont(em * kScale, weight));
        m_p.setPen(color);
        m_p.drawText(QRectF((kMargin + x) * kScale, (m_y + dy) * kScale, w * kScale, 10000 * kScale),
            Qt::TextWordWrap | Qt::AlignTop | align, s);
    }

    /// @p below: mm that what stands below it needs to begin: a line of words, a table's head and its first row.
    void heading(const QString& s, double below = 34)
    {
        need(below + 14);
        m_y += 5;
        paragraph(s, 5.2, QFont::DemiBold);
        m_y += 1;
    }

    /// @p columns: share of the width of each column.
    void row(const QStringList& cells, const std::vector<double>& columns, bool head = false)
    {
        constexpr double em = 3.3;
        double h = 0;
        for (int i = 0; i < cells.size(); ++i)
            h = std::max(h,
                heightOf(cells[i], em, head ? QFont::DemiBold : QFont::Normal, columns[std::size_t(i)] * width() - 2));
        need(h + 2.4);
        double x = 0;
        for (int i = 0; i < cells.size(); ++i) {
            write(cells[i], em, head ? QFont::DemiBold : QFont::Normal, kInk, x, columns[std::size_t(i)] * width() - 2,
                1);
            x += columns[std::size_t(i)] * width();
        }
        m_y += h + 2;
        rule();
    }

    void rule()
    {
        m_p.setPen(QPen(kRule, 0.2 * kScale));
        m_p.drawLine(
            QPointF(kMargin * kScale, m_y * kScale), QPointF((m_paper.width - kMargin) * kScale, m_y * kScale));
    }

    QRectF area(double x, double w, double h) const
    {
        return {(kMargin + x) * kScale, m_y * kScale, w * kScale, h * kScale};
    }
    QPainter& painter() { return m_p; }

private:
    void drawFoot()
    {
        m_p.setFont(pixelFont(2.8 * kScale));
        m_p.setPen(kFaint);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale),
            Qt::AlignLeft, m_foot);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale),
            Qt::AlignRight, QString::number(m_page));
    }

    QPdfWriter& m_writer;
    QPainter& m_p;
    Paper m_paper;
    QString m_foot;
    double m_y = kMargin;
    int m_page = 1;
};

void addTable(Flow& flow, const BookletTable& table)
{
    flow.heading(text(table.heading));
    if (!table.note.empty())
        flow.paragraph(text(table.note), 3.2, QFont::Normal, kFaint);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        QStringList cells;
        for (const auto& cell : table.rows[r])
            cells << text(cell);
        flow.row(cells, table.columns, r == 0);
    }
}

void addStep(Flow& flow, const BookletStep& s, int number, bool beginsPhase, Unit unit)
{
    const double figure = 92, wide = flow.width() - figure - 6;
    const QString title = text(s.title), body = text(s.text);
    double h = flow.heightOf(title, 3.9, QFont::DemiBold, wide) + flow.heightOf(body, 3.4, QFont::Normal, wide) + 14;
    for (const auto& c : s.cautions)
        h += flow.heightOf(text(c), 3.1, QFont::Normal, wide) + 1.5;
    flow.need(std::max(h, 54.0) + (beginsPhase ? 10 : 0));
    if (beginsPhase) {
        flow.skip(3);
        flow.paragraph(text(s.phase), 3.4, QFont::DemiBold, kFaint);
    }
    flow.rule();
    flow.skip(2);
    const double top = flow.y();
    FigureLook look;
    look.line = 0.26 * kScale, look.textSize = 2.6 * kScale, look.unit = unit;
    drawStepFigure(flow.painter(), flow.area(wide + 6, figure, 48), s.figure, look);
    flow.paragraph(QString::number(number) + ".  " + title, 3.9, QFont::DemiBold, kInk, 0, wide);
    flow.paragraph(body, 3.4, QFont::Normal, kInk, 0, wide);
    flow.paragraph(text(s.facts), 3.0, QFont::Normal, kFaint, 0, wide);
    if (!s.check.empty())
        flow.paragraph(text(say("Check: {}", s.check)), 3.1, QFont::Medium, kInk, 0, wide);
    for (const auto& c : s.cautions)
        flow.paragraph(text(say("Caution: {}", c)), 3.1, QFont::Normal, kWarn, 0, wide);
    flow.skip(std::max(2.0, top + 50 - flow.y()));
}

bool addSteps(Flow& flow, const Booklet& booklet, Unit unit, const std::function<bool()>& told)
{
    flow.heading(text(say("Steps")), 84); // a note, a phase and a step with its figure
    if (!booklet.aboutFigures.empty())
        flow.paragraph(text(booklet.aboutFigures), 3.2, QFont::Normal, kFaint);
    int number = 0;
    std::string phase;
    for (const auto& s : booklet.steps) {
        addStep(flow, s, ++number, s.phase != phase, unit);
        phase = s.phase;
        if (!told())
            return false;
    }
    return true;
}

void addCover(Flow& flow, const Booklet& booklet, Unit unit)
{
    flow.paragraph(text(booklet.title), 9, QFont::DemiBold);
    if (!booklet.studio.empty())
        flow.paragraph(text(booklet.studio), 4, QFont::Normal, kFaint);
    if (!booklet.notes.empty())
        flow.paragraph(text(booklet.notes), 3.6);
    if (!booklet.bag.empty()) {
        flow.need(76);
        FigureLook look;
        look.line = 0.26 * kScale, look.textSize = 0, look.unit = unit;
        drawScene(flow.painter(), flow.area(0, flow.width() * 0.62, 72), booklet.bag, look);
        flow.skip(75);
    }
    for (const auto& fact : booklet.facts)
        flow.paragraph(text(fact), 3.6);
}

} // namespace

QByteArray bookletPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit,
    const Progress& progress)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setTitle(text(say("{} – booklet", design.name)));
    writer.setCreator("Tectonis");
    writer.setResolution(int(kBookletDpi));
    writer.setPageSize(
        QPageSize(QSizeF(paper.width, paper.height), QPageSize::Millimeter, text(paper.name), QPageSize::ExactMatch));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    const Booklet booklet = bookletOf(design, patterns, unit, readersLanguage());
    const int total = int(booklet.steps.size()) + 2;
    int done = 0;
    const auto told = [&] { return !progress || progress(++done, total); };
    bool whole = true;
    {
        QPainter painter(&writer);
        Flow flow(writer, painter, paper, text(design.name));
        addCover(flow, booklet, unit);
        whole = told();
        for (const auto& table : booklet.before)
            addTable(flow, table);
        whole = whole && told() && addSteps(flow, booklet, unit, told);
        if (whole) {
            for (const auto& table : booklet.after)
                addTable(flow, table);
            for (const auto& list : booklet.closing) {
                flow.heading(text(list.heading));
                for (const auto& line : list.lines)
                    flow.paragraph(text(line), 3.4);
            }
        }
    }
    return whole ? bytes : QByteArray();
}

} // namespace tectonis
