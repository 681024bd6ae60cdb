// SPDX-License-Identifier: GPL-3.0-or-later
// Whatever is handled, side by side, with its lines, marks, cuts and fittings.
#include "figures/planning.hpp"

#include <algorithm>

namespace tectonis {

void Plan::aside()
{
    double x = 0;
    std::size_t shown = 0;
    for (const auto& key : m_step.pieces) {
        const Piece* piece = p.piece(key);
        if (!piece || shown == kAside)
            continue;
        ++shown;
        const Box box = boundsOf(piece->cut);
        const bool lies = box.height() > 2.5 * box.width() && m_step.pieces.size() == 1;
        const Placement at = lies ? Placement{x + box.y1, -box.x0, pi / 2, false}
                                  : Placement{x - box.x0, -box.y0, 0, false};
        add(Surface{placedAll(outlineOf(*piece), at), skinOf(*piece)});
        const Point middle = at(box.centre());
        codeAt(*piece, middle);
        linesOn(*piece, at);
        seamsOn(*piece, at);
        cutsOn(*piece, at);
        fittingsOn(*piece, at);
        if (m_act.verb == Verb::Buttonhole)
            marksOn(*piece, at);
        x += (lies ? box.height() : box.width()) + 25;
    }
    if (m_step.pieces.size() > shown && shown > 0)
        add(Word{{x + 20, 0}, say("and {} more", m_step.pieces.size() - shown)});
}

void Plan::zipEnds()
{
    std::vector<PieceId> tabs;
    const Zip* zip = nullptr;
    for (const auto& act : m_step.acts) {
        for (const auto& each : p.zips)
            if (!act.zips.empty() && act.zips.front() == each.key)
                zip = &each;
        if (act.verb == Verb::SealEnds)
            tabs.insert(tabs.end(), act.pieces.begin(), act.pieces.end());
    }
    if (!zip)
        return;
    const double w = zip->tapeWidth, length = std::clamp(zip->nominal, 4 * w, 7 * w);
    const auto box = [&](double x0, double x1, double high, Skin skin) {
        add(Surface{{{x0, -high / 2}, {x1, -high / 2}, {x1, high / 2}, {x0, high / 2}}, skin});
    };
    box(0, length, w, Skin::Tape);
    stroke({{0, 0}, {length, 0}}, Kind::Mark);
    // Its closed slider rests at the end from which it opens.
    const bool leftFirst = zip->opens != "to the left";
    const double slider = leftFirst ? 0.6 * w : length - 0.6 * w;
    box(slider - w / 8, slider + w / 8, w / 3, Skin::Metal);
    std::size_t next = 0;
    for (const bool first : {true, false}) {
        const ZipEnd& end = first ? zip->first : zip->last;
        const bool left = first == leftFirst;
        const double x = left ? 0 : length, in = left ? 1 : -1; // towards the middle
        switch (end.kind) {
        case ZipEnd::Kind::Tab: {
            const double lap = 0.4 * w;
            box(std::min(x - in * 0.5 * w, x + in * lap), std::max(x - in * 0.5 * w, x + in * lap), w, Skin::Shell);
            stroke({{x + in * (lap - 3), -w / 2}, {x + in * (lap - 3), w / 2}}, Kind::Sew);
            if (!tabs.empty())
                if (const Piece* tab = p.piece(tabs[std::min(next, tabs.size() - 1)]))
                    codeAt(*tab, {x - in * 0.15 * w, 0});
            ++next;
            break;
        }
        case ZipEnd::Kind::Folded: // aslant, to the wrong side
            add(Surface{{{x, w / 2}, {x + in * 0.5 * w, w / 2}, {x, -w / 2}}, Skin::StripWrong});
            stroke({{x + in * 0.5 * w, w / 2}, {x, -w / 2}}, Kind::Fold);
            stroke({{x + in * 0.2 * w, w / 2 - 3}, {x + in * 3, 0}}, Kind::Sew);
            add(Arrow{{{x - in * 0.6 * w, 0.1 * w}, {x - in * 0.4 * w, 0.55 * w}, {x + in * 0.1 * w, 0.7 * w}}});
            break;
        case ZipEnd::Kind::Metal:
            box(std::min(x - in * 4, x + in * 8), std::max(x - in * 4, x + in * 8), 0.6 * w, Skin::Metal);
            break;
        case ZipEnd::Kind::Stop:
            for (const double at : {4.0, 6.0})
                stroke({{x + in * at, -w / 5}, {x + in * at, w / 5}}, Kind::Sew);
            break;
        case ZipEnd::Kind::Seam: break;
        }
    }
}

void Plan::linesOn(const Piece& piece, const Placement& at)
{
    const bool own = m_act.verb == Verb::Pleat || m_act.verb == Verb::Rows; // lines of the form as well
    const bool marked = m_act.verb == Verb::Buttonhole;                     // rows that come later are only drawn on
    for (const auto& l : piece.lines)
        if (l.owner == m_step.id.owner() && (own || !l.owner.empty()) && l.kind != FaceLine::Kind::Bridge)
            stroke(placedAll(flattened(l.run, kStep), at),
                marked && l.kind == FaceLine::Kind::Topstitch                           ? Kind::Mark
                    : l.kind == FaceLine::Kind::Fold || l.kind == FaceLine::Kind::Pleat ? Kind::Fold
                    : l.kind == FaceLine::Kind::Slash                                   ? Kind::Cut
                                                                                        : Kind::Topstitch);
}

void Plan::marksOn(const Piece& piece, const Placement& at)
{
    for (const auto& m : piece.drills)
        if (m.owner == m_step.id.owner()) {
            const double half = std::max(6.0, m_act.distance / 2);
            stroke(placedAll({m.at - Point{half, 0}, m.at + Point{half, 0}}, at), Kind::Cut);
            ringAt(at(m.at), half + 4);
        }
}

void Plan::seamsOn(const Piece& piece, const Placement& at)
{
    for (const auto& key : m_step.seams)
        if (const Seam* s = p.seam(key))
            for (const auto* side : {&s->a, &s->b})
                for (const auto& use : *side)
                    if (use.piece == piece.key && use.copy == 0)
                        stroke(placedAll(flattened(p.runOf(use), kStep), at),
                            s->stitch == "topstitch"   ? Kind::Topstitch
                                : s->stitch == "baste" ? Kind::Baste
                                                       : Kind::Sew);
}

void Plan::cutsOn(const Piece& piece, const Placement& at)
{
    for (const auto& act : m_step.acts)
        if (act.verb == Verb::Clip || act.verb == Verb::Notch || act.verb == Verb::Grade)
            for (const auto& key : act.seams)
                if (const Seam* s = p.seam(key))
                    for (const bool first : {true, false})
                        cutsAlong(first ? s->a : s->b, first ? s->b : s->a, piece, at);
}

void Plan::cutsAlong(
    const std::vector<EdgeUse>& side, const std::vector<EdgeUse>& mate, const Piece& piece, const Placement& at)
{
    constexpr double apart = 14; // mm, in the figure
    const double own = p.lengthOfSide(side), ratio = own / std::max(1.0, p.lengthOfSide(mate));
    std::vector<double> spots; // along this side
    for (const auto& [run, scale] : {std::pair{runOf(mate), ratio}, {runOf(side), 1.0}}) {
        double from = 0;
        for (std::size_t i = 0; i < run.size(); ++i) {
            const double length = tectonis::lengthOf(run[i]);
            if (!std::holds_alternative<Line>(run[i]))
                for (double s = apart / 2; s < length; s += apart)
                    spots.push_back((from + s) * scale);
            from += length;
            if (i + 1 < run.size()) {
                const Point in = tangentOf(run[i], 1), out = tangentOf(run[i + 1], 0);
                if (std::abs(std::atan2(cross(in, out), dot(in, out))) > radians(15))
                    spots.push_back(from * scale);
            }
        }
    }
    double from = 0;
    std::set<EdgeId> seen;
    for (const auto& use : side) {
        const Run run = p.runOf(use);
        const double length = tectonis::lengthOf(run);
        const Edge* edge = use.piece == piece.key ? piece.edge(use.edge) : nullptr;
        if (edge && use.copy == side.front().copy) {
            if (seen.insert(use.edge).second)
                stroke(placedAll(flattened(run, kStep), at), Kind::Sewn);
            for (const double spot : spots)
                if (spot >= from - 0.01 && spot <= from + length + 0.01) {
                    const double s = std::clamp(spot - from, 0.0, length);
                    const Point on = pointAlong(run, s), out = rightOf(tangentAlong(run, s)) * (use.reversed ? -1 : 1);
                    stroke({at(on + out * edge->allowance), at(on + out * 2)}, Kind::Cut);
                }
        }
        from += length;
    }
}

void Plan::fittingsOn(const Piece& piece, const Placement& at)
{
    for (const auto& f : p.fittings) {
        if (f.piece != piece.key
            || std::find(m_step.fittings.begin(), m_step.fittings.end(), f.key) == m_step.fittings.end())
            continue;
        if (!m_act.uses.empty() && m_act.uses.front() == Ware::HookAndLoop) { // as large as its row, and a little
            for (const auto& l : piece.lines)
                if (l.owner == f.owner() && l.kind == FaceLine::Kind::Topstitch) {
                    const Box row = boundsOf(l.run);
                    add(Surface{
                        placedAll(flattened(rectangleRun(row.x0 - 2, row.y0 - 2, row.x1 + 2, row.y1 + 2), kStep), at),
                        Skin::Tape});
                    stroke(placedAll(flattened(l.run, kStep), at), Kind::Topstitch);
                }
        } else if (f.kind == Fitting::Kind::Zip) {
            const double w = f.size / 2, h = 8;
            Polyline tape{
                {f.at.x - w, f.at.y - h}, {f.at.x + w, f.at.y - h}, {f.at.x + w, f.at.y + h}, {f.at.x - w, f.at.y + h}};
            add(Surface{placedAll(tape, at), Skin::Tape});
            stroke(placedAll({{f.at.x - w, f.at.y}, {f.at.x + w, f.at.y}}, at), Kind::Mark);
        } else {
            Polyline circle;
            for (int i = 0; i < 24; ++i)
                circle.push_back(at(f.at) + polar(2 * pi * i / 24) * std::max(4.0, f.size / 2));
            add(Surface{circle, Skin::Metal});
            if (!m_act.uses.empty() && m_act.uses.front() == Ware::SewnMagnet)
                for (const auto& l : piece.lines)
                    if (l.owner == f.owner() && l.kind == FaceLine::Kind::Topstitch)
                        stroke(placedAll(flattened(l.run, kStep), at), Kind::Topstitch);
        }
    }
}

} // namespace tectonis
