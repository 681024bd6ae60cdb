// SPDX-License-Identifier: GPL-3.0-or-later
#include "specification_pdf.hpp"

#include "flow.hpp"
#include "formats/specification.hpp"
#include "qtext.hpp"
#include "step_figure.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// A piece with its stitch line, layers, marks and grain.
Scene drawingOf(const Pattern& pattern, const Piece& piece)
{
    Scene out;
    const auto stroke = [&](const Run& run, Stroke::Kind kind) {
        out.items.emplace_back(Stroke{flattened(run, 0.2), kind});
    };
    out.items.emplace_back(Surface{flattened(piece.cut, 0.2), skinOf(piece)});
    for (const auto& layer : piece.layers)
        out.items.emplace_back(Surface{flattened(layer.outline, 0.2), Skin::Padding});
    stroke(piece.stitch(), Stroke::Kind::Sewn);
    for (const auto& line : piece.lines)
        if (line.kind != FaceLine::Kind::Bridge)
            stroke(line.run,
                line.kind == FaceLine::Kind::Fold || line.kind == FaceLine::Kind::Pleat ? Stroke::Kind::Fold
                    : line.kind == FaceLine::Kind::Slash                                ? Stroke::Kind::Cut
                                                                                        : Stroke::Kind::Topstitch);
    for (const auto& n : piece.notches)
        if (const Edge* edge = piece.edge(n.edge)) {
            const Point at = pointAlong(edge->stitch, n.along), across = rightOf(tangentAlong(edge->stitch, n.along));
            out.items.emplace_back(Stroke{{at, at + across * std::max(4.0, edge->allowance)}, Stroke::Kind::Mark});
        }
    for (const auto& f : pattern.fittings)
        if (f.piece == piece.key)
            out.items.emplace_back(
                Stroke{flattened(circleRun(f.at, std::max(2.0, f.kind == Fitting::Kind::Zip ? 2.0 : f.size / 2)), 0.2),
                    Stroke::Kind::Mark});
    const Box box = boundsOf(piece.cut);
    const Point along = polar(radians(piece.grain)) * (0.3 * std::min(box.width(), box.height()));
    out.items.emplace_back(Arrow{{box.centre() - along, box.centre() + along}});
    return out;
}

void addPiece(Flow& flow, const Pattern& pattern, const PieceSpecification& p, Unit unit)
{
    const double drawing = 58, wide = flow.width() - drawing - 6;
    std::vector<QString> lines{
        text(say("{} · {} cut, {} of them mirrored · grain {}", p.cloth, p.count, p.mirrored, p.grain)),
        text(say("{} × {} {}", p.width, p.height, std::string(unitSign(unit))))};
    const auto listed = [&](const Message& head, const std::vector<std::string>& list) {
        if (list.empty())
            return;
        QString all;
        for (const auto& each : list)
            all += (all.isEmpty() ? "" : "; ") + text(each);
        lines.push_back(text(head) + ": " + all);
    };
    listed(say("Layers"), p.layers);
    listed(say("Seams"), p.seams);
    listed(say("Marks"), p.marks);
    listed(say("Fittings"), p.fittings);
    listed(say("Steps"), p.steps);
    if (!p.note.empty())
        lines.push_back(text(p.note));
    double h = 10;
    for (const auto& line : lines)
        h += flow.heightOf(line, 3.2, QFont::Normal, wide) + 1.2;
    flow.need(std::max(h, 50.0));
    flow.rule();
    flow.skip(2);
    const double top = flow.y();
    FigureLook look;
    look.line = 0.26 * kScale, look.textSize = 0, look.unit = unit;
    drawScene(flow.painter(), flow.area(wide + 6, drawing, 44), drawingOf(pattern, *pattern.piece(p.key)), look);
    const QString title = text(p.code) + "  " + text(p.name);
    flow.mark(title, 1);
    flow.paragraph(title, 4, QFont::DemiBold, kInk, 0, wide);
    for (const auto& line : lines)
        flow.paragraph(line, 3.2, QFont::Normal, kInk, 0, wide);
    flow.skip(std::max(2.0, top + 46 - flow.y()));
}

} // namespace

QByteArray specificationPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper,
    Unit unit, const Progress& progress)
{
    int total = 0, done = 0;
    for (const auto* p : patterns)
        total += int(p->pieces.size());
    return flowed(text(say("{} – specification", design.name)), text(design.name), paper, [&](Flow& flow) {
        flow.paragraph(text(design.name), 7, QFont::DemiBold);
        for (const auto* p : patterns) {
            flow.heading(text(say("Specification, size {}", p->size)), 60);
            for (const auto& piece : specificationOf(design, *p, unit, readersLanguage())) {
                addPiece(flow, *p, piece, unit);
                if (progress && !progress(++done, total))
                    return false;
            }
        }
        return true;
    });
}

} // namespace tectonis
