// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet_pdf.hpp"
#include "qtext.hpp"

#include "booklet/booklet.hpp"
#include "flow.hpp"
#include "step_figure.hpp"

namespace tectonis {
namespace {

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
    if (!s.why.empty())
        h += flow.heightOf(text(s.why), 3.1, QFont::Normal, wide) + 1.5;
    for (const auto& c : s.cautions)
        h += flow.heightOf(text(c), 3.1, QFont::Normal, wide) + 1.5;
    const double figures = 50.0 * double(s.figures.size());
    flow.need(std::max(h, figures + 4) + (beginsPhase ? 10 : 0));
    if (beginsPhase) {
        flow.skip(3);
        flow.mark(text(s.phase), 1);
        flow.paragraph(text(s.phase), 3.4, QFont::DemiBold, kFaint);
    }
    flow.rule();
    flow.skip(2);
    const double top = flow.y();
    flow.mark(QString::number(number) + ".  " + title, 2);
    FigureLook look;
    look.line = 0.26 * kScale, look.textSize = 2.6 * kScale, look.unit = unit;
    const QRectF beside = flow.area(wide + 6, figure, 48);
    for (std::size_t i = 0; i < s.figures.size(); ++i)
        drawStepFigure(flow.painter(), beside.translated(0, double(i) * 50 * kScale), s.figures[i], look);
    flow.paragraph(QString::number(number) + ".  " + title, 3.9, QFont::DemiBold, kInk, 0, wide);
    flow.paragraph(body, 3.4, QFont::Normal, kInk, 0, wide);
    flow.paragraph(text(s.facts), 3.0, QFont::Normal, kFaint, 0, wide);
    if (!s.why.empty())
        flow.paragraph(text(say("Why now: {}", s.why)), 3.1, QFont::Normal, kFaint, 0, wide);
    if (!s.check.empty())
        flow.paragraph(text(say("Check: {}", s.check)), 3.1, QFont::Medium, kInk, 0, wide);
    for (const auto& c : s.cautions)
        flow.paragraph(text(say("Caution: {}", c)), 3.1, QFont::Normal, kWarn, 0, wide);
    flow.skip(std::max(2.0, top + figures - flow.y()));
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
    const BookletManner& manner, const Progress& progress)
{
    const Booklet booklet = bookletOf(design, patterns, unit, readersLanguage(), manner);
    const int total = int(booklet.steps.size()) + 2;
    int done = 0;
    const auto told = [&] { return !progress || progress(++done, total); };
    return flowed(text(say("{} – booklet", design.name)), text(design.name), paper, [&](Flow& flow) {
        addCover(flow, booklet, unit);
        if (!told())
            return false;
        for (const auto& table : booklet.before)
            addTable(flow, table);
        if (!told() || !addSteps(flow, booklet, unit, told))
            return false;
        for (const auto& table : booklet.after)
            addTable(flow, table);
        for (const auto& list : booklet.closing) {
            flow.heading(text(list.heading));
            for (const auto& line : list.lines)
                flow.paragraph(text(line), 3.4);
        }
        return true;
    });
}

} // namespace tectonis
