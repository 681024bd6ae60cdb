// SPDX-License-Identifier: GPL-3.0-or-later
// Layers, and pieces that are laid, stitched or caught on others.
#include "figures/planning.hpp"

namespace tectonis {

void Plan::washed()
{
    double x = 0;
    std::set<MaterialId> drawn;
    for (const auto& id : m_act.pieces) {
        const Piece* piece = p.piece(id);
        const auto of = piece ? p.materials.find(piece->material) : p.materials.end();
        if (of == p.materials.end() || !drawn.insert(of->second).second)
            continue;
        const Material& cloth = p.material(of->second);
        const double width = cloth.width > 0 ? cloth.width : 100, left = 1000 * (1 - cloth.shrink / 100);
        add(Surface{{{x, 0}, {x + width, 0}, {x + width, 1000}, {x, 1000}}, otherSide(skinOf(*piece))});
        add(Surface{{{x, 0}, {x + width, 0}, {x + width, left}, {x, left}}, skinOf(*piece)});
        add(Arrow{{{x + width / 2, 1120}, {x + width / 2, left}}});
        add(Word{{x + width / 2, left / 2}, say("{} m", Num(left / 1000, 2))});
        x += width + 150;
    }
}

void Plan::quiltRows(const Piece& piece, const Placement& at)
{
    const auto layer = std::find_if(
        piece.layers.begin(), piece.layers.end(), [](const Layer& l) { return l.quilted > 0; });
    if (layer == piece.layers.end())
        return;
    const Box box = boundsOf(piece.rough);
    const double step = layer->quilted;
    if (!layer->diamonds) {
        for (double x = box.x0 + step / 2; x < box.x1; x += step)
            stroke(placedAll({{x, box.y0}, {x, box.y1}}, at), Kind::Topstitch);
        return;
    }
    const double h = box.height(), along = step * std::sqrt(2.0);
    for (double x = box.x0 - h + along / 2; x < box.x1; x += along)
        for (const bool rising : {true, false}) { // at 45°, cut off at the block's edges
            const double low = std::max(x, box.x0), high = std::min(x + h, box.x1);
            const double y0 = low - x, y1 = high - x;
            stroke(
                placedAll({{low, rising ? box.y0 + y0 : box.y1 - y0}, {high, rising ? box.y0 + y1 : box.y1 - y1}}, at),
                Kind::Topstitch);
        }
}

void Plan::interlined()
{
    struct Laid {
        const Piece* piece;
        std::vector<const Layer*> layers;
        Box box;
    };
    std::vector<Laid> all;
    double area = 0, widest = 0;
    for (const auto& piece : p.pieces) {
        Laid laid{&piece, {}, boundsOf(m_act.verb == Verb::Interline || piece.rough.empty() ? piece.cut : piece.rough)};
        for (const auto& layer : piece.layers)
            if (std::any_of(m_step.acts.begin(), m_step.acts.end(), [&](const Act& act) {
                    return std::find(act.layers.begin(), act.layers.end(), layer.id) != act.layers.end();
                }))
                laid.layers.push_back(&layer);
        const bool rounds = m_act.verb != Verb::Interline
            && std::find(m_act.pieces.begin(), m_act.pieces.end(), piece.key) != m_act.pieces.end();
        if (laid.layers.empty() && !rounds)
            continue;
        area += (laid.box.width() + kRoom) * (laid.box.height() + kRoom);
        widest = std::max(widest, laid.box.width());
        all.push_back(std::move(laid));
    }
    std::stable_sort(
        all.begin(), all.end(), [](const Laid& a, const Laid& b) { return a.box.height() > b.box.height(); });
    const double room = std::max(widest, std::sqrt(2.2 * area)); // rows that fill a figure's shape
    double x = 0, y = 0, tall = 0;
    for (const auto& laid : all) {
        if (x > 0 && x + laid.box.width() > room)
            x = 0, y -= tall + kRoom, tall = 0;
        // Wrong side up a piece is seen mirrored.
        const Placement at{x + laid.box.x1, y - laid.box.y1, 0, true};
        const bool rounds = m_act.verb != Verb::Interline; // of a piece that is cut with more cloth
        add(Surface{placedAll(rounds ? flattened(laid.piece->rough, kStep) : outlineOf(*laid.piece), at),
            otherSide(skinOf(*laid.piece))});
        if (rounds)
            for (const auto& segment : laid.piece->cut)
                if (m_act.verb == Verb::CutToShape
                    || (m_act.verb == Verb::RoundCorners && std::holds_alternative<Arc>(segment)))
                    stroke(placedAll(flattened({segment}, kStep), at), Kind::Cut);
        if (m_act.verb == Verb::Quilt)
            quiltRows(*laid.piece, at);
        for (const Layer* layer : laid.layers)
            if (!rounds)
                add(Surface{placedAll(flattened(layer->outline, kStep), at), Skin::Padding});
        codeAt(*laid.piece, at(laid.box.centre()));
        x += laid.box.width() + kRoom, tall = std::max(tall, laid.box.height());
    }
}

void Plan::laidFlat()
{
    const Seam* s = seam();
    if (!s)
        return;
    const auto onLine = [&](const std::vector<EdgeUse>& side) {
        const Piece* piece = p.piece(side.front().piece);
        return piece && !piece->edge(side.front().edge);
    };
    const auto& upperSide = onLine(s->a) ? s->b : s->a;
    const auto& lowerSide = onLine(s->a) ? s->a : s->b;
    const Piece* upper = p.piece(upperSide.front().piece);
    if (!upper || frame(lowerSide).empty())
        return;
    const auto under = piecesIn(frame(lowerSide));
    lower(under);
    const bool window = m_act.verb == Verb::Window; // its bag lies right sides together
    for (const auto& key : m_act.seams)
        if (const Seam* each = p.seam(key); each && !each->a.empty() && !each->b.empty())
            putOn(onLine(each->a) ? each->b : each->a, runOf(onLine(each->a) ? each->a : each->b), window);
    if (!under.empty()) {
        const Box box = boundsOf(under.front()->cut);
        codeAt(*under.front(), {box.x0 + box.width() * 0.12, box.y1 - box.height() * 0.12});
    }
    for (const auto& key : m_act.seams)
        if (const Seam* each = p.seam(key))
            for (const auto* side : {&each->a, &each->b})
                if (!side->empty() && onLine(*side) && frame(*side) == frame(lowerSide))
                    run(runOf(*side), window ? Kind::Sew : Kind::Topstitch);
    if (window)
        slash(*under.front());
}

void Plan::putOn(const std::vector<EdgeUse>& side, const Run& line, bool window)
{
    const Piece* upper = p.piece(side.front().piece);
    if (!upper)
        return;
    // Of a part that was cut across both halves are there.
    std::set<PieceId> halves;
    for (const auto& use : side)
        if (const Piece* piece = p.piece(use.piece); piece && !piece->whole.empty() && piece->whole == upper->whole)
            halves.insert(piece->key);
    if (halves.size() > 1) {
        for (const auto& o : p.overlays)
            if (halves.contains(o.piece)) {
                const Piece& half = *p.piece(o.piece);
                const Polyline outline = placedAll(flattened(half.stitch(), kStep), o.placement);
                add(Surface{outline, skinOf(half)});
                Box box;
                for (const Point q : outline)
                    box.add(q);
                codeAt(half, box.centre());
            }
        return;
    }
    std::optional<Placement> where;
    for (const auto& o : p.overlays)
        if (o.piece == upper->key) {
            if (side.front().copy > 0)
                return; // its row tells where the other one lies
            where = o.placement;
        }
    if (!where)
        where = laidOn(runOf(side), line, window, 1e9);
    if (!where)
        return;
    const Polyline outline = window ? placedAll(outlineOf(*upper), *where) : finished(*upper, *where);
    add(Surface{outline, window ? otherSide(skinOf(*upper)) : skinOf(*upper)});
    Box box;
    for (const Point q : outline)
        box.add(q);
    codeAt(*upper, box.centre());
}

void Plan::slash(const Piece& face)
{
    for (const auto& l : face.lines)
        if (l.kind == FaceLine::Kind::Slash)
            run(l.run, Kind::Cut);
}

void Plan::caught()
{
    const Piece* thing = p.piece(m_act.pieces.front());
    const Seam* s = seam();
    // A face that was cut across is several pieces: the one with the edge holds it.
    const Piece* holder = nullptr;
    bool known = false;
    const auto among = [](const std::vector<PieceId>& ids, const PieceId& id) {
        return std::find(ids.begin(), ids.end(), id) != ids.end();
    };
    const auto on = [&](const Act& act,
                        const Piece& piece) { // a piece that is no more was cut: the step names its parts
        return std::any_of(act.pieces.begin() + 1, act.pieces.end(), [&](const PieceId& id) {
            return id == piece.key
                || (!p.piece(id) && !among(act.pieces, piece.key) && among(m_step.pieces, piece.key));
        });
    };
    for (const auto& each : p.pieces)
        if (thing && !holder && on(m_act, each)) {
            known = s && !usesOf(*s, each.key).empty();
            if (known || !edgesThatCatch(*thing, each).empty())
                holder = &each;
        }
    if (!holder)
        return;
    const auto under = piecesIn(frameOf(*holder));
    lower(under.empty() ? std::vector<const Piece*>{holder} : under);
    const Box box = boundsOf(holder->cut);
    codeAt(*holder, {box.centre().x, box.centre().y - box.height() * 0.3});
    if (thing->role == "piping") { // along all that it is basted to
        const auto side = known ? usesOf(*s, holder->key) : edgesThatCatch(*thing, *holder).front();
        for (const auto& use : side) {
            corded(*thing, p.runOf(use), insideLeft(side));
            run(p.runOf(use), Kind::Baste);
        }
        return;
    }
    // Whatever is laid on it in the same go, each along the edges of the seams that will catch it.
    for (const auto& act : m_step.acts) {
        const Piece* each = act.verb == Verb::Lay ? p.piece(act.pieces.front()) : nullptr;
        if (!each || !on(act, *holder))
            continue;
        auto sides = edgesThatCatch(*each, *holder);
        if (sides.empty() && known)
            sides = {usesOf(*s, holder->key)};
        for (const auto& side : sides) {
            hold(*each, runOf(side), insideLeft(side));
            // A loop's seam has edges on both sides of its face; a flap's is longer than the flap, which is basted
            // along the part that bears the flap's own edge.
            const Seam* own = act.seams.empty() ? nullptr : p.seam(act.seams.front());
            const auto borne = [&](const EdgeUse& use) {
                const auto named = [&](const std::vector<EdgeUse>& uses) {
                    return std::any_of(uses.begin(), uses.end(), [&](const EdgeUse& u) { return u.edge == use.edge; });
                };
                return own && (named(own->a) || named(own->b));
            };
            const bool some = std::any_of(side.begin(), side.end(), borne);
            for (const auto& use : side)
                if (!some || borne(use))
                    run(p.runOf(use), Kind::Baste);
        }
    }
}

std::vector<std::vector<EdgeUse>> Plan::edgesThatCatch(const Piece& thing, const Piece& holder) const
{
    std::vector<std::vector<EdgeUse>> out;
    for (const auto& seam : p.seams)
        if (std::find(seam.trapped.begin(), seam.trapped.end(), thing.key) != seam.trapped.end())
            if (auto side = usesOf(seam, holder.key); !side.empty())
                out.push_back(std::move(side));
    return out;
}

void Plan::corded(const Piece& piping, const Run& edge, bool left)
{
    const Box own = boundsOf(piping.cut);
    const double flange = std::clamp(std::min(own.width(), own.height()) / 2 - 6, 6.0, 20.0), cord = 4;
    const auto beside = [&](double in) {
        Polyline side;
        const double whole = lengthOf(edge);
        const int n = std::max(12, int(whole / 6));
        for (int i = 0; i <= n; ++i)
            side.push_back(
                pointAlong(edge, whole * i / n) + rightOf(tangentAlong(edge, whole * i / n)) * ((left ? -1 : 1) * in));
        return side;
    };
    Polyline strip = beside(-flange);
    const Polyline inner = beside(cord);
    strip.insert(strip.end(), inner.rbegin(), inner.rend());
    add(Surface{strip, skinOf(piping)});
    stroke(beside(0.3), Kind::Edge);
    const Point middle = pointAlong(edge, lengthOf(edge) / 2);
    codeAt(piping, middle + rightOf(tangentAlong(edge, lengthOf(edge) / 2)) * (left ? -16.0 : 16.0));
}

std::vector<EdgeUse> Plan::usesOf(const Seam& s, const PieceId& piece)
{
    std::vector<EdgeUse> out;
    for (const auto* side : {&s.a, &s.b})
        for (const auto& use : *side)
            if (use.piece == piece && (out.empty() || use.copy == out.front().copy))
                out.push_back(use);
    return out;
}

void Plan::lined()
{
    const Piece *behind = p.piece(m_act.pieces.front()), *face = p.piece(m_act.pieces.back());
    if (!behind || !face)
        return;
    // The face turned back at a corner shows what lies behind it, wrong side to wrong side.
    add(Surface{outlineOf(*behind), otherSide(skinOf(*behind))});
    const Box box = boundsOf(face->cut);
    turnedBack(outlineOf(*face), lineRun({{box.x0, box.y1}, {box.x1, box.y1}}), false, skinOf(*face), *face);
    run(face->stitch(), Kind::Baste);
}

void Plan::boxedOn()
{
    const Piece *strap = p.piece(m_act.pieces.front()), *face = p.piece(m_act.pieces.back());
    if (!strap || !face)
        return;
    lower({face});
    const Box box = boundsOf(face->cut);
    codeAt(*face, {box.centre().x, box.y0 + 0.3 * box.height()});
    for (const auto& l : face->lines) {
        if (l.owner != m_step.id.owner() || l.kind != FaceLine::Kind::Placement)
            continue;
        Box end;
        for (const Point q : flattened(l.run, kStep))
            end.add(q);
        // A tab ends at its ring; a strap goes on beyond the face.
        // A strip may carry one at each end, each with a step of its own.
        const auto mine = [&](const Fitting& f) {
            return f.piece == face->key && end.contains(f.at)
                && std::find(m_step.fittings.begin(), m_step.fittings.end(), f.key) != m_step.fittings.end();
        };
        if (!m_step.fittings.empty() && std::none_of(p.fittings.begin(), p.fittings.end(), mine))
            continue;
        const Fitting* ring = nullptr;
        for (const auto& f : p.fittings)
            if (f.kind == Fitting::Kind::Ring && f.owner() == strap->owner() && f.piece == face->key
                && std::abs(f.at.x - end.centre().x) < 1
                && (!ring || distance(f.at, end.centre()) < distance(ring->at, end.centre())))
                ring = &f;
        const bool tab = ring != nullptr;
        const double out = tab ? ring->at.y - end.y1 : std::max(30.0, box.y1 + 40 - end.y1);
        add(Surface{
            {{end.x0, end.y0}, {end.x1, end.y0}, {end.x1, end.y1 + out}, {end.x0, end.y1 + out}}, skinOf(*strap)});
        const double in = std::min(3.5, end.width() / 6);
        const Point a{end.x0 + in, end.y0 + in}, b{end.x1 - in, end.y0 + in}, c{end.x1 - in, end.y1 - in},
            d{end.x0 + in, end.y1 - in};
        if (m_act.distance > 0) {
            stroke({a, b, c, d, a}, Kind::Topstitch);
            stroke({a, c}, Kind::Topstitch);
            stroke({b, d}, Kind::Topstitch);
        }
        if (tab)
            ringAt(ring->at, ring->size / 2);
        codeAt(*strap, {end.centre().x, end.y1 + (tab ? out / 2 : out - 12)});
    }
    fittingsOn(*face, {});
}

void Plan::laidOnFace()
{
    const Piece *thing = p.piece(m_act.pieces.front()), *face = p.piece(m_act.pieces.back());
    if (!thing || !face)
        return;
    lower({face});
    const Box whole = boundsOf(face->cut);
    bool known = false;
    for (const auto& o : p.overlays)
        if (o.piece == thing->key && o.on == face->key) {
            const Polyline outline = placedAll(outlineOf(*thing), o.placement);
            add(Surface{outline, skinOf(*thing)});
            Box box;
            for (const Point q : outline)
                box.add(q);
            codeAt(*thing, box.centre());
            known = true;
        }
    if (!known) { // concentric, if they were drawn so; else at the middle of its upper edge
        const Box box = boundsOf(thing->cut);
        const Placement at = distance(box.centre(), whole.centre()) < 1
            ? Placement{}
            : Placement{whole.centre().x - box.centre().x, whole.y1 - box.y1, 0, false};
        add(Surface{placedAll(outlineOf(*thing), at), skinOf(*thing)});
        codeAt(*thing, at(box.centre()));
    }
    codeAt(*face, {whole.centre().x, whole.y0 + 0.2 * whole.height()});
}

void Plan::hinged()
{
    const Seam* s = seam();
    const bool aEdge = s && p.piece(s->a.front().piece) && p.piece(s->a.front().piece)->edge(s->a.front().edge);
    const Piece *lid = s ? p.piece((aEdge ? s->a : s->b).front().piece) : nullptr,
                *face = s ? p.piece((aEdge ? s->b : s->a).front().piece) : nullptr;
    if (!lid || !face)
        return;
    lower({face});
    const Run line = runOf(aEdge ? s->b : s->a), own = runOf(aEdge ? s->a : s->b);
    const Point middle = pointAlong(line, lengthOf(line) / 2), hinge = pointAlong(own, lengthOf(own) / 2);
    const Box box = boundsOf(lid->cut);
    // Its inside ends up below the line in the end, so it lies above now, wrong side up.
    const bool inBelow = box.centre().y < hinge.y;
    const Placement at = inBelow ? Placement{middle.x - hinge.x, middle.y + hinge.y, pi, true}
                                 : Placement{middle.x + hinge.x, middle.y - hinge.y, 0, true};
    const Polyline outline = placedAll(outlineOf(*lid), at);
    add(Surface{outline, otherSide(skinOf(*lid))});
    Box there;
    for (const Point q : outline)
        there.add(q);
    codeAt(*lid, there.centre());
    run(line, Kind::Sew);
    stroke({{startOf(line).x, middle.y - m_act.distance}, {endOf(line).x, middle.y - m_act.distance}}, Kind::Topstitch);
    const double x = there.x1 + 14;
    add(Arrow{{{x, there.centre().y}, {x + 10, middle.y}, {x, middle.y - 0.5 * there.height()}}});
    const Box whole = boundsOf(face->cut);
    codeAt(*face, {whole.centre().x, whole.y0 + 0.15 * whole.height()});
}

void Plan::taped()
{
    const Piece* face = p.piece(m_act.pieces.front());
    const auto zip = std::find_if(
        p.zips.begin(), p.zips.end(), [&](const Zip& z) { return !m_act.zips.empty() && z.key == m_act.zips.front(); });
    if (!face || zip == p.zips.end())
        return;
    lower({face});
    const Box box = boundsOf(face->stitch());
    const bool toLeft = zip->opens == "to the left";
    const double x0 = box.x0 + (toLeft ? zip->last : zip->first).stitch,
                 x1 = box.x1 - (toLeft ? zip->first : zip->last).stitch, top = box.y1 + m_act.taken;
    add(Surface{{{x0, top}, {x1, top}, {x1, top - zip->tapeWidth}, {x0, top - zip->tapeWidth}}, Skin::Tape});
    stroke({{x0, top - zip->tapeWidth / 2}, {x1, top - zip->tapeWidth / 2}}, Kind::Mark);
    stroke({{x0, box.y1}, {x1, box.y1}}, Kind::Baste);
    codeAt(*face, box.centre());
}

void Plan::inserted()
{
    const Piece *loop = p.piece(m_act.pieces.front()), *strap = p.piece(m_act.pieces.back());
    if (!loop || !strap)
        return;
    const Box box = boundsOf(strap->cut), own = boundsOf(loop->cut);
    const double w = std::min(own.width(), own.height()), out = std::max(own.width(), own.height()) / 2,
                 x = box.centre().x, y = box.y0 + 10;
    add(Surface{{{x - w / 2, y + m_act.distance}, {x + w / 2, y + m_act.distance},
                    {x + w / 2, y + m_act.distance - out}, {x - w / 2, y + m_act.distance - out}},
        skinOf(*loop)});
    ringAt({x, y + m_act.distance - out}, w / 2);
    const Polyline near = cutOff(outlineOf(*strap), {x, box.y0 + std::min(box.height(), 4 * w)}, {0, -1});
    add(Surface{near.size() > 2 ? near : outlineOf(*strap), skinOf(*strap)});
    for (const double row : {6.0, 10.0})
        stroke({{x - w / 2, box.y0 + 10 + row}, {x + w / 2, box.y0 + 10 + row}}, Kind::Topstitch);
    codeAt(*strap, {x, box.y0 + 2.5 * w});
    codeAt(*loop, {x, y - out / 2 + m_act.distance / 2});
    add(Arrow{{{x + w, y - out}, {x + w, y}}});
}

} // namespace tectonis
