// SPDX-License-Identifier: GPL-3.0-or-later
// What is turned, folded, boxed, put into one another.
#include "figures/planning.hpp"

namespace tectonis {

void Plan::turned()
{
    const Seam* s = seam();
    const Piece* piece = s ? p.piece(s->a.front().piece) : nullptr;
    if (!piece)
        return;
    lower({piece}, true);
    codeAt(*piece, boundsOf(piece->cut).centre());
    const Run edge = runOf(s->a);
    sewn(edge, *s, Kind::Sewn);
    // Out through the opening, or where the seam leaves an edge free.
    if (s->open > 0)
        return arrowOut(edge, lengthOf(edge) / 2, insideLeft(s->a));
    for (const auto& e : piece->edges)
        if (std::none_of(s->a.begin(), s->a.end(),
                [&](const EdgeUse& use) { return use.piece == piece->key && use.edge == e.name; }))
            return arrowOut(e.stitch, e.length() / 2, true);
}

void Plan::arrowOut(const Run& edge, double along, bool left)
{
    const Point at = pointAlong(edge, along), out = rightOf(tangentAlong(edge, along)) * (left ? 1 : -1);
    add(Arrow{{at - out * 45, at - out * 15, at + out * 40}});
}

void Plan::throughOpening(bool turns)
{
    const Seam* s = nullptr;
    for (const auto& key : m_act.seams)
        s = s ? s : p.seam(key);
    const Piece* piece = s ? p.piece(s->a.front().piece) : nullptr;
    if (!piece || s->open <= 0)
        return;
    lower({piece}, turns);
    codeAt(*piece, boundsOf(piece->cut).centre());
    const Run edge = frame(s->a).empty() ? runOf({s->a.front()}) : runOf(s->a);
    const double whole = lengthOf(edge), from = std::max(0.0, (whole - s->open) / 2),
                 to = std::min(whole, (whole + s->open) / 2);
    if (turns) {
        sewn(edge, *s, Kind::Sewn);
        return arrowOut(edge, whole / 2, insideLeft(s->a));
    }
    run(part(edge, 0, from), Kind::Sewn);
    run(part(edge, to, whole), Kind::Sewn);
    run(part(edge, from, to), Kind::Sew);
    // Stitches from fold to fold.
    for (double at = from + 6; at < to; at += 12)
        stroke({pointAlong(edge, at) - rightOf(tangentAlong(edge, at)) * 3,
                   pointAlong(edge, at) + rightOf(tangentAlong(edge, at)) * 3},
            Kind::Mark);
}

void Plan::coats(bool liningIn)
{
    const Seam* s = seam();
    const Piece *shell = nullptr, *lining = nullptr;
    for (const auto* side : {&s->a, &s->b})
        for (const auto& use : *side)
            if (const Piece* piece = p.piece(use.piece))
                (piece->coat == Coat::Lining ? lining : shell) = largest(
                    piece->coat == Coat::Lining ? lining : shell, piece);
    if (!shell || !lining)
        return;
    const Piece &inner = liningIn ? *lining : *shell, &outer = liningIn ? *shell : *lining;
    const Box o = boundsOf(outer.cut), i = boundsOf(inner.cut);
    const double up = 0.4 * o.height();
    Placement lift{o.centre().x - i.centre().x, o.y1 - i.y1 + up, 0, false};
    // The one that goes in is right side out if it is the shell; what it goes into has its right side within.
    add(Surface{placedAll(outlineOf(inner), lift), liningIn ? otherSide(skinOf(inner)) : skinOf(inner)});
    codeAt(inner, {o.centre().x + 0.25 * o.width(), o.y1 + up * 0.5});
    add(Surface{outlineOf(outer), liningIn ? skinOf(outer) : otherSide(skinOf(outer))});
    codeAt(outer, {o.centre().x, o.centre().y - 0.2 * o.height()});
    add(Arrow{{{o.centre().x, o.y1 + up * 0.85}, {o.centre().x, o.y1 - 0.25 * o.height()}}});
    for (const auto* side : {&s->a, &s->b})
        for (const auto& use : *side)
            if (use.piece == outer.key)
                run(p.runOf(use), Kind::Sew);
}

const Piece* Plan::largest(const Piece* a, const Piece* b) { return !a || areaOf(b->cut) > areaOf(a->cut) ? b : a; }

void Plan::boxed()
{
    const Seam* s = nullptr;
    for (const auto& act : m_step.acts)
        for (const auto& key : act.seams)
            s = s ? s : p.seam(key);
    const Piece* piece = s ? p.piece(s->a.front().piece) : nullptr;
    if (!piece)
        return;
    const double w = s->lengthA / 2, allowance = s->allowance, h = 2 * w + allowance;
    // Seen from the wrong side: the tip is where the cut-out square was, or is cut off after.
    const bool cut = piece->edge(s->a.front().edge) != nullptr;
    add(Surface{
        cut ? Polyline{{-w, 0}, {w, 0}, {w + h, -h}, {-w - h, -h}} : Polyline{{0, w}, {w + h, -h}, {-w - h, -h}},
        otherSide(skinOf(*piece))});
    stroke({{0, cut ? 0 : w}, {0, -h}}, Kind::Sewn);
    stroke({{-w, cut ? -allowance : 0.0}, {w, cut ? -allowance : 0.0}}, Kind::Sew);
    add(Arrow{{{w * 0.6, -h * 0.55}, {w + h * 0.55, -h * 0.55}}});
    add(Arrow{{{-w * 0.6, -h * 0.55}, {-w - h * 0.55, -h * 0.55}}});
    codeAt(*piece, {0, -h * 0.85});
    add(Word{{0, cut ? 14.0 : w + 14}, say("{}", Len(s->lengthA))});
}

void Plan::foldedUp(bool up)
{
    const Piece* piece = p.piece(m_act.pieces.front());
    if (!piece)
        return;
    const Box box = boundsOf(piece->cut);
    double fold = box.centre().y;
    for (const auto& l : piece->lines)
        if (l.kind == FaceLine::Kind::Fold)
            fold = startOf(l.run).y;
    const Polyline lowHalf = cutOff(outlineOf(*piece), {box.centre().x, fold}, {0, -1});
    add(Surface{outlineOf(*piece), skinOf(*piece)});
    if (lowHalf.size() > 2) {
        Polyline raised = mirrored(lowHalf, {box.centre().x, fold}, {0, -1});
        for (Point& q : raised) // a little short of it, so that both edges show
            q.y = fold + (q.y - fold) * 0.96;
        add(Surface{raised, otherSide(skinOf(*piece))});
    }
    stroke({{box.x0, fold}, {box.x1, fold}}, Kind::Fold);
    codeAt(*piece, {box.centre().x, (fold + box.y1) / 2});
    const double x = box.x1 + 14;
    add(Arrow{{{x, box.y0}, {x + 8, fold}, {x, up ? box.y1 : fold + 0.4 * (box.y1 - fold)}}});
}

void Plan::boardIn()
{
    const Piece* board = p.piece(m_act.pieces.front());
    if (!board)
        return;
    const Box box = boundsOf(board->cut);
    lower({board});
    codeAt(*board, box.centre());
    add(Arrow{{{box.x1 + 0.25 * box.width(), box.centre().y}, {box.x1 - 0.1 * box.width(), box.centre().y}}});
}

} // namespace tectonis
