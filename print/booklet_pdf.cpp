// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet_pdf.hpp"
#include "qtext.hpp"

#include "edition/edition.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/told.hpp"
#include "step_figure.hpp"
#include "units/length.hpp"

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

void materialsSection(Flow& flow, const Edition& edition, Unit unit)
{
    flow.heading(text(say("Materials")));
    const std::vector<double> columns{0.46, 0.16, 0.38};
    flow.row({text(say("Material")), text(say("Cloth width")), text(say("Length to buy"))}, columns, true);
    for (const auto& row : edition.markers()) {
        const Marker& m = row.any();
        flow.row(
            {text(edition.material(m.material).name),
                m.clothWidth > 0 ? text(readersLanguage().length(m.clothWidth, unit)) : text(say("by the metre")),
                text(edition.bySize<Marker>(row,
                    [](const Marker& each) { return readersLanguage().number(each.soldLength / 1000, 1) + " m"; }))},
            columns);
    }
    flow.heading(text(say("Notions")));
    const std::vector<double> notions{0.3, 0.14, 0.56};
    flow.row({text(say("Part")), text(say("Count")), text(say("Size"))}, notions, true);
    for (const auto& row : edition.notions())
        flow.row({text(called(row.any().kind)),
                     text(edition.bySize<Hardware>(row, [](const Hardware& h) { return std::to_string(h.count); })),
                     text(edition.bySize<Hardware>(
                         row, [&](const Hardware& h) { return words(h.sizeText, unit, readersLanguage()); }))},
            notions);
}

void cutListSection(Flow& flow, const Edition& edition, Unit unit)
{
    flow.heading(text(say("Cut list")));
    flow.paragraph(text(say("Width × height of the cut piece in {}. Interlinings carry the code of their piece.",
                       std::string(unitSign(unit)))),
        3.2, QFont::Normal, kFaint);
    const std::vector<double> columns{0.09, 0.2, 0.28, 0.15, 0.28};
    flow.row(
        {text(say("Code")), text(say("Piece")), text(say("Material")), text(say("Cut")), text(say("Width × height"))},
        columns, true);
    for (const auto& row : edition.cutList()) {
        const auto each = [&](const std::function<std::string(const CutItem&)>& value) {
            return text(edition.bySize<CutItem>(row, value));
        };
        flow.row(
            {each([](const CutItem& i) { return i.code; }),
                text(edition.words<CutItem>(
                    row, [](const CutItem& i) { return i.name; }, unit, readersLanguage())),
                each([&](const CutItem& i) { return edition.material(i.material).name; }), each([](const CutItem& i) {
                    const Message cut = i.mirrored ? say("{} ({} mirrored)", i.count, i.mirrored) : say("{}", i.count);
                    return words(cut, Unit::Mm, readersLanguage());
                }),
                each([&](const CutItem& i) {
                    const Box b = boundsOf(i.outline);
                    return readersLanguage().lengthBare(b.width(), unit) + " × "
                        + readersLanguage().lengthBare(b.height(), unit);
                })},
            columns);
    }
}

/// Every seam of the body with both runs in all sizes: what was walked, so that a maker need not.
void seamsSection(Flow& flow, const Edition& edition, Unit unit)
{
    flow.heading(text(say("Seams, walked")));
    flow.paragraph(
        text(say("Stitch lengths in {}, from mark to mark on both pieces; a difference that is not stated as "
                 "ease would pucker.",
            std::string(unitSign(unit)))),
        3.2, QFont::Normal, kFaint);
    const std::vector<double> columns{0.34, 0.24, 0.24, 0.18};
    flow.row({text(say("Seam")), text(say("One run")), text(say("Other run")), text(say("Ease"))}, columns, true);
    for (const auto& row : edition.seams()) {
        if (row.any().stitch != "construction")
            continue;
        const auto each = [&](const std::function<std::string(const Seam&)>& value) {
            return text(edition.bySize<Seam>(row, value));
        };
        flow.row({text(edition.words<Seam>(
                      row, [](const Seam& s) { return s.name; }, unit, readersLanguage())),
                     each([&](const Seam& s) { return readersLanguage().exactLengthBare(s.lengthA, unit); }),
                     each([&](const Seam& s) { return readersLanguage().exactLengthBare(s.lengthB, unit); }),
                     each([&](const Seam& s) {
                         return std::abs(s.ease) < 0.005 ? words(say("none"), unit, readersLanguage())
                                                         : readersLanguage().exactLength(s.ease, unit)
                                 + (s.easeNote.empty() ? "" : ", " + words(s.easeNote, unit, readersLanguage()));
                     })},
            columns);
    }
}

/// What is told at a step in every size that has it.
class SaidInSizes {
public:
    SaidInSizes(const Edition& edition, const AllSizes<Step>& row) : m_edition(edition), m_said(row.in.size())
    {
        for (std::size_t i = 0; i < row.in.size(); ++i) {
            if (row.in[i])
                m_said[i] = told(*edition.patterns()[i], *row.in[i]);
            m_minutes.push_back(row.in[i]
                    ? tectonis::words(say("{} min", Num(minutesOf(*edition.patterns()[i], *row.in[i]).result, 1)),
                        Unit::Mm, readersLanguage())
                    : std::string());
            m_row.in.push_back(row.in[i] ? &m_said[i] : nullptr);
        }
    }
    const AllSizes<StepWords>& row() const { return m_row; }
    QString words(Message StepWords::*which, Unit unit) const
    {
        return text(m_edition.words<StepWords>(
            m_row, [&](const StepWords& w) { return w.*which; }, unit, readersLanguage()));
    }

    QString minutes() const { return text(m_edition.bySize(m_minutes)); }

private:
    const Edition& m_edition;
    std::vector<StepWords> m_said;
    std::vector<std::string> m_minutes;
    AllSizes<StepWords> m_row;
};

/// Sizes that have a step, where not all have it.
QString onlyIn(const Edition& edition, const AllSizes<Step>& row)
{
    QStringList sizes;
    for (std::size_t i = 0; i < row.in.size(); ++i)
        if (row.in[i])
            sizes << text(edition.patterns()[i]->size);
    return std::size_t(sizes.size()) == row.in.size() ? QString()
                                                      : " " + text(say("({} only)", sizes.join(", ").toStdString()));
}

bool stepsSection(Flow& flow, const Edition& edition, Unit unit, const std::function<bool()>& told)
{
    const auto& patterns = edition.patterns();
    flow.heading(text(say("Steps")), 76); // a note, a phase and a step with its figure
    if (patterns.size() > 1)
        flow.paragraph(
            text(say("Figures show size {}, or the first size that has the step; lengths in the text are those of "
                     "every size.",
                patterns.front()->size)),
            3.2, QFont::Normal, kFaint);
    int number = 0;
    std::string phase;
    for (const auto& row : edition.steps()) {
        const Step& s = row.any();
        const Pattern& p = *patterns[std::size_t(std::find(row.in.begin(), row.in.end(), &s) - row.in.begin())];
        const SaidInSizes said(edition, row);
        const QString title = text(edition.words<Step>(
                                  row, [](const Step&each) { return each.title; }, unit, readersLanguage()))
            + onlyIn(edition, row),
                      body = said.words(&StepWords::text, unit), check = said.words(&StepWords::check, unit);
        const double figure = 62, wide = flow.width() - figure - 6;
        QStringList cautions;
        for (const auto& c : edition.sentences<StepWords>(
                 said.row(), [](const StepWords& each) { return each.cautions; }, unit, readersLanguage()))
            cautions << text(c);
        double h = flow.heightOf(title, 3.9, QFont::DemiBold, wide) + flow.heightOf(body, 3.4, QFont::Normal, wide)
            + 14;
        for (const auto& c : cautions)
            h += flow.heightOf(c, 3.1, QFont::Normal, wide) + 1.5;
        flow.need(std::max(h, 46.0) + (s.phase != phase ? 10 : 0));
        if (s.phase != phase) {
            phase = s.phase;
            flow.skip(3);
            flow.paragraph(text(Label{phase}), 3.4, QFont::DemiBold, kFaint);
        }
        flow.rule();
        flow.skip(2);
        const double top = flow.y();
        FigureLook look;
        look.line = 0.3 * kScale;
        drawStepFigure(flow.painter(), flow.area(wide + 6, figure, 38), p, s, look);
        flow.paragraph(QString::number(++number) + ".  " + title, 3.9, QFont::DemiBold, kInk, 0, wide);
        flow.paragraph(body, 3.4, QFont::Normal, kInk, 0, wide);
        QStringList facts;
        facts << text(edition.bySize<StepWords>(said.row(), [&](const StepWords& each) {
            std::string all;
            for (const auto& fact : factsOf(each))
                all += (all.empty() ? "" : "; ") + words(fact, unit, readersLanguage());
            return all;
        })) << said.minutes();
        flow.paragraph(facts.join("; "), 3.0, QFont::Normal, kFaint, 0, wide);
        if (!check.isEmpty())
            flow.paragraph(text(say("Check: {}", check.toStdString())), 3.1, QFont::Medium, kInk, 0, wide);
        for (const auto& c : cautions)
            flow.paragraph(text(say("Caution: {}", c.toStdString())), 3.1, QFont::Normal, kWarn, 0, wide);
        flow.skip(std::max(2.0, top + 40 - flow.y()));
        if (!told())
            return false;
    }
    return true;
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
    const Edition edition(design, patterns);
    const int total = int(edition.steps().size()) + 2;
    int done = 0;
    const auto told = [&] { return !progress || progress(++done, total); };
    bool whole = true;
    {
        QPainter painter(&writer);
        Flow flow(writer, painter, paper, text(design.name));
        flow.paragraph(text(design.name), 9, QFont::DemiBold);
        if (!design.studio.empty())
            flow.paragraph(text(design.studio), 4, QFont::Normal, kFaint);
        if (!design.notes.empty())
            flow.paragraph(text(design.notes), 3.6);
        std::vector<std::string> finished;
        for (const auto* p : patterns)
            finished.push_back(readersLanguage().lengthBare(p->width, unit) + " × "
                + readersLanguage().lengthBare(p->height, unit) + " × " + readersLanguage().length(p->depth, unit));
        flow.paragraph(text(say("Finished width × height × depth: {}", edition.bySize(finished))), 3.6);
        materialsSection(flow, edition, unit);
        whole = told();
        cutListSection(flow, edition, unit);
        whole = whole && told() && stepsSection(flow, edition, unit, told);
        if (whole)
            seamsSection(flow, edition, unit);
        if (whole) {
            flow.heading(text(say("Before you sell or load it")));
            flow.paragraph(
                text(say("Local safety rules and product-safety law go first. Load ratings need testing by someone "
                         "qualified.")),
                3.4);
        }
    }
    return whole ? bytes : QByteArray();
}

} // namespace tectonis
