// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet_pdf.hpp"
#include "qtext.hpp"

#include "buildup/material.hpp"
#include "cutting/cut_list.hpp"
#include "fonts.hpp"
#include "sequence/order.hpp"
#include "step_figure.hpp"
#include "units/length.hpp"

#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>

#include <set>

namespace tectonis {
namespace {

constexpr double kDpi = 600, kScale = kDpi / mmPerInch, kMargin = 15; // margin in mm
const QColor kInk(0x22, 0x22, 0x22), kFaint(0x66, 0x66, 0x66), kRule(0xBB, 0xB3, 0xA6), kWarn(0x9A, 0x2E, 0x12);


/// Lets text, tables and figures flow down the pages.
class Flow {
public:
    Flow(QPdfWriter& writer, QPainter& painter, const Paper& paper, const QString& foot) : m_writer(writer), m_p(painter), m_paper(paper), m_foot(foot) { drawFoot(); }

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

    void paragraph(const QString& s, double em, QFont::Weight weight = QFont::Normal, QColor color = kInk, double x = 0, double w = -1)
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

    void write(const QString& s, double em, QFont::Weight weight, QColor color, double x, double w, double dy = 0, int align = Qt::AlignLeft)
    {
        m_p.setFont(pixelFont(em * kScale, weight));
        m_p.setPen(color);
        m_p.drawText(QRectF((kMargin + x) * kScale, (m_y + dy) * kScale, w * kScale, 10000 * kScale), Qt::TextWordWrap | Qt::AlignTop | align, s);
    }

    void heading(const QString& s)
    {
        need(22);
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
            h = std::max(h, heightOf(cells[i], em, head ? QFont::DemiBold : QFont::Normal, columns[std::size_t(i)] * width() - 2));
        need(h + 2.4);
        double x = 0;
        for (int i = 0; i < cells.size(); ++i) {
            write(cells[i], em, head ? QFont::DemiBold : QFont::Normal, kInk, x, columns[std::size_t(i)] * width() - 2, 1);
            x += columns[std::size_t(i)] * width();
        }
        m_y += h + 2;
        rule();
    }

    void rule()
    {
        m_p.setPen(QPen(kRule, 0.2 * kScale));
        m_p.drawLine(QPointF(kMargin * kScale, m_y * kScale), QPointF((m_paper.width - kMargin) * kScale, m_y * kScale));
    }

    QRectF area(double x, double w, double h) const { return {(kMargin + x) * kScale, m_y * kScale, w * kScale, h * kScale}; }
    QPainter& painter() { return m_p; }

private:
    void drawFoot()
    {
        m_p.setFont(pixelFont(2.8 * kScale));
        m_p.setPen(kFaint);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale), Qt::AlignLeft, m_foot);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale), Qt::AlignRight, QString::number(m_page));
    }

    QPdfWriter& m_writer;
    QPainter& m_p;
    Paper m_paper;
    QString m_foot;
    double m_y = kMargin;
    int m_page = 1;
};

QString sizeList(const std::vector<const Pattern*>& patterns, const std::function<QString(const Pattern&)>& value)
{
    // The same in every size is said once.
    QStringList each;
    std::set<QString> different;
    for (const auto* p : patterns) {
        different.insert(value(*p));
        each << text(p->size) + ": " + value(*p);
    }
    return different.size() == 1 ? *different.begin() : each.join("   ");
}

void materialsSection(Flow& flow, const std::vector<const Pattern*>& patterns, Unit unit)
{
    flow.heading("Materials");
    const std::vector<double> columns{0.46, 0.16, 0.38};
    flow.row({"Material", "Cloth width", "Length to buy"}, columns, true);
    std::vector<std::vector<Marker>> all;
    for (const auto* p : patterns)
        all.push_back(makeMarkers(*p));
    for (std::size_t k = 0; k < all.front().size(); ++k) {
        const Marker& m = all.front()[k];
        std::size_t at = 0;
        const QString lengths = sizeList(patterns, [&](const Pattern&) {
            const auto& markers = all[at++ % all.size()];
            for (const auto& other : markers)
                if (other.material == m.material)
                    return text(formatNumber(other.soldLength / 1000, 1)) + " m";
            return QString("–");
        });
        flow.row({text(material(m.material).name), m.clothWidth > 0 ? text(formatLength(m.clothWidth, unit)) : "by the metre", lengths}, columns);
    }
    flow.heading("Notions");
    const std::vector<double> notions{0.3, 0.1, 0.6};
    flow.row({"Part", "Count", "Size"}, notions, true);
    const auto& first = patterns.front()->hardware;
    for (std::size_t i = 0; i < first.size(); ++i)
        flow.row({text(first[i].kind), QString::number(first[i].count), sizeList(patterns, [&](const Pattern& p) { return i < p.hardware.size() ? text(p.hardware[i].sizeText, unit) : QString("–"); })}, notions);
}

void cutListSection(Flow& flow, const std::vector<const Pattern*>& patterns, Unit unit)
{
    flow.heading("Cut list");
    flow.paragraph(QString("Width × height of the cut piece in %1. Interlinings carry the code of their piece.").arg(QString::fromUtf8(unitSign(unit).data())), 3.2, QFont::Normal, kFaint);
    const std::vector<double> columns{0.09, 0.2, 0.28, 0.15, 0.28};
    flow.row({"Code", "Piece", "Material", "Cut", "Width × height"}, columns, true);
    const auto items = cutItems(*patterns.front());
    std::vector<std::vector<CutItem>> all;
    for (const auto* p : patterns)
        all.push_back(cutItems(*p));
    for (const auto& item : items) {
        std::size_t at = 0;
        const QString sizes = sizeList(patterns, [&](const Pattern&) {
            for (const auto& other : all[at % all.size()])
                if (other.code == item.code) {
                    ++at;
                    const Box b = boundsOf(other.outline);
                    return text(formatLengthBare(b.width(), unit) + " × " + formatLengthBare(b.height(), unit));
                }
            ++at;
            return QString("–");
        });
        QString count = QString::number(item.count);
        if (item.mirrored)
            count += QString(" (%1 mirrored)").arg(item.mirrored);
        flow.row({text(item.code), text(item.name), text(material(item.material).name), count, sizes}, columns);
    }
}

/// Every seam of the body with both runs in all sizes: what was walked, so that a maker need not.
void seamsSection(Flow& flow, const std::vector<const Pattern*>& patterns, Unit unit)
{
    flow.heading("Seams, walked");
    flow.paragraph(QString("Stitch lengths in %1, from mark to mark on both pieces; a difference that is not stated as ease would pucker.").arg(QString::fromUtf8(unitSign(unit).data())), 3.2, QFont::Normal, kFaint);
    const std::vector<double> columns{0.34, 0.24, 0.24, 0.18};
    flow.row({"Seam", "One run", "Other run", "Ease"}, columns, true);
    for (const auto& seam : patterns.front()->seams) {
        if (seam.stitch != "construction")
            continue;
        const auto length = [&](double Seam::* which) {
            return sizeList(patterns, [&](const Pattern& p) {
                const Seam* s = p.seam(seam.key);
                return s ? text(exactLengthBare(s->*which, unit)) : QString("–");
            });
        };
        const QString ease = std::abs(seam.ease) < 0.005 ? QString("none") : text(exactLength(seam.ease, unit) + (seam.easeNote.empty() ? "" : ", " + seam.easeNote));
        flow.row({text(seam.name), length(&Seam::lengthA), length(&Seam::lengthB), ease}, columns);
    }
}

bool stepsSection(Flow& flow, const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const std::function<bool()>& told)
{
    const Pattern& p = *patterns.front();
    flow.heading("Steps");
    if (patterns.size() > 1)
        flow.paragraph("Figures and lengths in the text are those of size " + text(p.size) + "; the seams are the same in every size.", 3.2, QFont::Normal, kFaint);
    int number = 0;
    std::string phase;
    for (const auto i : orderOf(design, p)) {
        const Step& s = p.steps[i];
        const double figure = 62, words = flow.width() - figure - 6;
        double h = flow.heightOf(text(s.title), 3.9, QFont::DemiBold, words) + flow.heightOf(text(s.text, unit), 3.4, QFont::Normal, words) + 14;
        for (const auto& c : s.cautions)
            h += flow.heightOf(text(c), 3.1, QFont::Normal, words) + 1.5;
        flow.need(std::max(h, 46.0) + (s.phase != phase ? 10 : 0));
        if (s.phase != phase) {
            phase = s.phase;
            flow.skip(3);
            flow.paragraph(text(phase), 3.4, QFont::DemiBold, kFaint);
        }
        flow.rule();
        flow.skip(2);
        const double top = flow.y();
        FigureLook look;
        look.line = 0.3 * kScale;
        drawStepFigure(flow.painter(), flow.area(words + 6, figure, 38), p, s, look);
        flow.paragraph(QString::number(++number) + ".  " + text(s.title), 3.9, QFont::DemiBold, kInk, 0, words);
        flow.paragraph(text(s.text, unit), 3.4, QFont::Normal, kInk, 0, words);
        QStringList facts;
        for (const auto& fact : factsOf(s, unit))
            facts << text(fact);
        facts << text(formatNumber(s.minutes, 1)) + " min";
        flow.paragraph(facts.join("  ·  "), 3.0, QFont::Normal, kFaint, 0, words);
        if (!s.check.empty())
            flow.paragraph("Check: " + text(s.check, unit), 3.1, QFont::Medium, kInk, 0, words);
        for (const auto& c : s.cautions)
            flow.paragraph("Caution: " + text(c), 3.1, QFont::Normal, kWarn, 0, words);
        flow.skip(std::max(2.0, top + 40 - flow.y()));
        if (!told())
            return false;
    }
    return true;
}

} // namespace

QByteArray bookletPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit, const Progress& progress)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setTitle(text(design.name) + " – booklet");
    writer.setCreator("Tectonis");
    writer.setResolution(int(kDpi));
    writer.setPageSize(QPageSize(QSizeF(paper.width, paper.height), QPageSize::Millimeter, text(paper.name), QPageSize::ExactMatch));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    const int total = int(patterns.front()->steps.size()) + 2;
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
        flow.paragraph("Finished width × height × depth: " + sizeList(patterns, [&](const Pattern& p) {
                           return text(formatLengthBare(p.width, unit) + " × " + formatLengthBare(p.height, unit) + " × " + formatLength(p.depth, unit));
                       }), 3.6);
        materialsSection(flow, patterns, unit);
        whole = told();
        cutListSection(flow, patterns, unit);
        whole = whole && told() && stepsSection(flow, design, patterns, unit, told);
        if (whole)
            seamsSection(flow, patterns, unit);
        if (whole) {
            flow.heading("Before you sell or load it");
            flow.paragraph("Local safety rules and product-safety law go first. Load ratings need testing by someone qualified.", 3.4);
        }
    }
    return whole ? bytes : QByteArray();
}

} // namespace tectonis
