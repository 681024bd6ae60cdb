// SPDX-License-Identifier: GPL-3.0-or-later
#include "step_figure.hpp"

#include "fonts.hpp"
#include "qtext.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr std::size_t kMostPieces = 4; // more would be too small to read

std::vector<const Piece*> piecesOf(const Pattern& p, const Step& step)
{
    std::vector<const Piece*> out;
    for (const auto& key : step.pieces)
        if (const Piece* piece = p.piece(key); piece && out.size() < kMostPieces)
            out.push_back(piece);
    return out;
}

void drawSeams(
    QPainter& painter, const View& view, const Pattern& p, const Piece& piece, const Step& step, const FigureLook& look)
{
    for (const auto& key : step.seams) {
        const Seam* seam = p.seam(key);
        if (!seam)
            continue;
        for (const auto* side : {&seam->a, &seam->b})
            for (const auto& use : *side) {
                if (use.piece != piece.key || use.copy > 0)
                    continue;
                const Run run = p.runOf(use);
                const double whole = lengthOf(run);
                const bool opening = seam->open > 0 && use.edge == "bottom";
                if (step.kind == StepKind::CloseOpening) {
                    if (opening)
                        drawEdge(painter, view, part(run, (whole - seam->open) / 2, (whole + seam->open) / 2),
                            look.accent, look.line * 3);
                } else if (opening) {
                    drawEdge(painter, view, part(run, 0, (whole - seam->open) / 2), look.accent, look.line * 3);
                    drawEdge(painter, view, part(run, (whole + seam->open) / 2, whole), look.accent, look.line * 3);
                } else
                    drawEdge(painter, view, run, look.accent, look.line * 3);
            }
    }
}

void drawFittings(
    QPainter& painter, const View& view, const Pattern& p, const Piece& piece, const Step& step, const FigureLook& look)
{
    for (const auto& f : p.fittings) {
        if (f.piece != piece.key || std::find(step.fittings.begin(), step.fittings.end(), f.key) == step.fittings.end())
            continue;
        painter.setPen(QPen(look.accent, look.line * 1.6));
        painter.setBrush(look.ground);
        const QPointF c = view(f.at);
        if (f.kind == Fitting::Kind::Zip) {
            const double w = f.size * view.scale, h = std::max(4.0 * look.line, 10 * view.scale);
            painter.drawRect(QRectF(c.x() - w / 2, c.y() - h / 2, w, h));
            painter.drawLine(QPointF(c.x() - w / 2, c.y()), QPointF(c.x() + w / 2, c.y()));
        } else {
            const double r = std::max(3.0 * look.line, f.size / 2 * view.scale);
            painter.drawEllipse(c, r, r);
            painter.drawEllipse(c, r * 0.4, r * 0.4);
        }
    }
}

} // namespace

void drawStepFigure(QPainter& painter, const QRectF& target, const Pattern& p, const Step& step, const FigureLook& look)
{
    const auto pieces = piecesOf(p, step);
    if (pieces.empty())
        return;
    // All pieces at one scale, lying beside each other; long ones lie down.
    struct Laid {
        const Piece* piece;
        Box box;
        bool turned;
        double w() const { return turned ? box.height() : box.width(); }
        double h() const { return turned ? box.width() : box.height(); }
    };
    std::vector<Laid> laid;
    double width = 0, height = 1;
    for (const Piece* piece : pieces) {
        const Box box = boundsOf(piece->cut);
        laid.push_back({piece, box, box.width() > 2.5 * box.height() && pieces.size() > 1});
        width += laid.back().w();
        height = std::max(height, laid.back().h());
    }
    const double gap = target.width() * 0.03, caption = std::max(9.0 * look.line, target.height() * 0.09);
    const double scale = std::min(
        (target.width() - gap * double(laid.size() + 1)) / width, (target.height() - caption - gap) / height);
    if (scale <= 0)
        return;
    double x = target.center().x() - (width * scale + gap * double(laid.size() - 1)) / 2;
    for (const auto& l : laid) {
        View view;
        view.scale = scale;
        view.placement.angle = l.turned ? pi / 2 : 0;
        const double left = l.turned ? -l.box.y1 : l.box.x0, top = l.turned ? l.box.x1 : l.box.y1;
        const double spare = (target.height() - caption - l.h() * scale) / 2;
        view.origin = {x - left * scale, target.top() + spare + top * scale};
        PieceLook pieceLook;
        pieceLook.card = l.piece->coat == Coat::Lining ? look.lining : look.shell;
        pieceLook.edge = pieceLook.ink = look.ink;
        pieceLook.stitch = look.faint;
        pieceLook.line = look.line;
        pieceLook.marks = false, pieceLook.label = false;
        pieceLook.layers = step.kind == StepKind::Interline;
        drawPiece(painter, view, *l.piece, pieceLook);
        drawSeams(painter, view, p, *l.piece, step, look);
        drawFittings(painter, view, p, *l.piece, step, look);
        painter.setFont(pixelFont(caption * 0.7, QFont::DemiBold));
        painter.setPen(look.ink);
        painter.drawText(QRectF(x - 200, target.bottom() - caption, l.w() * scale + 400, caption), Qt::AlignCenter,
            QString::fromStdString(l.piece->code));
        x += l.w() * scale + gap;
    }
    if (step.pieces.size() > pieces.size()) {
        painter.setFont(pixelFont(caption * 0.6));
        painter.drawText(QRectF(target.left(), target.top(), target.width(), caption), Qt::AlignRight | Qt::AlignTop,
            text(say("and {} more", step.pieces.size() - pieces.size())));
    }
}

} // namespace tectonis
