// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces sewn to one another, with what lies between them.
#include "figures/planning.hpp"

namespace tectonis {

void Plan::joined()
{
    const Seam* s = seam();
    if (!s)
        return;
    if (s->a.front().piece == s->b.front().piece && s->a.front().copy == s->b.front().copy)
        return folded(*s);
    if (m_act.verb == Verb::SewTape && m_act.taken > 0)
        return lapped(*s);
    m_parts = frame(s->a) == frame(s->b); // two parts of one whole are put together again
    const auto* below = &s->a;
    const auto* above = &s->b;
    const bool aFits = !frame(s->a).empty(), bFits = !frame(s->b).empty();
    if (!aFits && !bFits)
        return stretch(*s);
    const auto bends = [&](const std::vector<EdgeUse>& side) { return shapeOf(p, side).bends(); };
    const auto area = [&](const std::vector<EdgeUse>& side) { return areaOf(p.piece(side.front().piece)->cut); };
    if (!aFits || (bFits && (bends(s->a) != bends(s->b) ? bends(s->b) : area(s->b) > area(s->a))))
        std::swap(below, above);
    const Run edge = runOf(*below);
    const auto under = piecesIn(frame(*below));
    Box box;
    for (const Piece* piece : under)
        box.add(boundsOf(piece->cut));
    lower(under);
    for (const Piece* piece : under)
        if (piece == under.front())
            codeAt(*piece, box.centre());
    if (!m_act.zips.empty())
        tape(edge, insideLeft(*below));
    between(*s, edge, insideLeft(*below));
    above_(*s, *above, edge, insideLeft(*below), box);
    sewn(edge, *s);
    alsoSewn(*s, frame(*below));
    marks(*below);
}

void Plan::lapped(const Seam& s)
{
    const Piece *face = p.piece(m_act.pieces.front()), *behind = p.piece(m_act.pieces.back());
    if (!face || !behind)
        return;
    const bool first = s.a.front().piece == face->key;
    const auto &own = first ? s.a : s.b, &others = first ? s.b : s.a;
    const Run edge = runOf(own);
    const bool left = insideLeft(own);
    // What goes on beside the face ends at its raw edge, right side down; what hangs down over the chain reaches up
    // behind the face, right side up.
    const Edge* end = behind->edge(others.front().edge);
    const bool down = !end || end->allowance <= 0;
    const Run along = runOf(others);
    if (const auto at = laidOn(insideLeft(others) != left ? along : reversed(along), edge, down, 1e9)) {
        const Polyline outline = placedAll(outlineOf(*behind), *at);
        add(Surface{outline, down ? otherSide(skinOf(*behind)) : skinOf(*behind)});
        Box box;
        for (const Point q : outline)
            box.add(q);
        codeAt(*behind, box.centre());
    }
    tape(edge, left);
    turnedBack(outlineOf(*face), edge, left, skinOf(*face), *face);
    if (down) { // hidden behind the face
        if (const auto at = laidOn(insideLeft(others) != left ? along : reversed(along), edge, true, 1e9)) {
            Polyline hidden = placedAll(outlineOf(*behind), *at);
            hidden.push_back(hidden.front());
            stroke(hidden, Kind::Fold);
            codeAt(*behind, at->operator()(boundsOf(behind->cut).centre()));
        }
    }
    Polyline row;
    for (int i = 0; i <= 40; ++i) {
        const double t = lengthOf(edge) * i / 40;
        row.push_back(pointAlong(edge, t) + rightOf(tangentAlong(edge, t)) * ((left ? -1 : 1) * m_act.taken));
    }
    stroke(row, Kind::Topstitch);
}

void Plan::tape(const Run& edge, bool left)
{
    double width = 30;
    for (const auto& zip : p.zips)
        if (std::find(m_act.zips.begin(), m_act.zips.end(), zip.key) != m_act.zips.end() && zip.tapeWidth > 0)
            width = zip.tapeWidth;
    const double half = width / 2;
    const auto beside = [&](double far) {
        Polyline side;
        for (int i = 0; i <= 40; ++i) {
            const double s = lengthOf(edge) * i / 40;
            side.push_back(pointAlong(edge, s) + rightOf(tangentAlong(edge, s)) * ((left ? 1 : -1) * far));
        }
        return side;
    };
    Polyline out = beside(-m_act.distance);
    const Polyline far = beside(half - m_act.distance);
    out.insert(out.end(), far.rbegin(), far.rend());
    add(Surface{out, Skin::Tape});
    stroke(beside(half - m_act.distance - 1.5), Kind::Mark);
}

void Plan::stretch(const Seam& s)
{
    const Piece *below = p.piece(s.a.front().piece), *above = p.piece(s.b.front().piece);
    if (!below || !above)
        return;
    const double length = std::min(lengthOf(p.runOf(s.a.front())), lengthOf(p.runOf(s.b.front())));
    const Run edge = part(p.runOf(s.a.front()), 0, length), own = part(p.runOf(s.b.front()), 0, length);
    const bool left = insideLeft(s.a);
    lower({below});
    codeAt(*below, boundsOf(below->cut).centre());
    const bool ownLeft = insideLeft(s.b);
    if (const auto laid = laidOn(ownLeft != left ? own : reversed(own), edge, true, 1e9))
        turnedBack(placedAll(outlineOf(*above), *laid), edge, left, otherSide(skinOf(*above)), *above);
    run(p.runOf(s.a.front()), Kind::Sew);
}

void Plan::sewn(const Run& edge, const Seam& s, Kind kind)
{
    const double whole = lengthOf(edge), from = s.openStart, to = whole - s.openEnd;
    if (s.open <= 0)
        return run(from > 0 || s.openEnd > 0 ? part(edge, from, to) : edge, kind);
    run(part(edge, from, (whole - s.open) / 2), kind);
    run(part(edge, (whole + s.open) / 2, to), kind);
}

void Plan::alsoSewn(const Seam& first, const PieceId& on)
{
    for (const auto& key : m_act.seams)
        if (const Seam* s = p.seam(key); s && s != &first)
            for (const auto* side : {&s->a, &s->b})
                if (!side->empty() && side->front().copy == 0 && frame(*side) == on) {
                    sewn(runOf(*side), *s);
                    break;
                }
}

void Plan::marks(const std::vector<EdgeUse>& side)
{
    for (const auto& use : side) {
        const Piece* piece = p.piece(use.piece);
        const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
        if (!edge)
            continue;
        for (const auto& n : piece->notches)
            if (n.edge == use.edge && n.along > 1 && n.along < edge->length() - 1) {
                const Point at = pointAlong(edge->stitch, n.along), out = rightOf(tangentAlong(edge->stitch, n.along));
                stroke({at - out * 7, at + out * std::max(7.0, edge->allowance)}, Kind::Mark);
            }
    }
}

void Plan::above_(const Seam& s, const std::vector<EdgeUse>& side, const Run& edge, bool left, const Box& box)
{
    const double whole = lengthOf(edge), own = p.lengthOfSide(side);
    double at = 0;
    for (std::size_t from = 0, to = 0; from < side.size(); from = to) {
        // All that one piece has of the seam at a time.
        while (to < side.size() && side[to].piece == side[from].piece && side[to].copy == side[from].copy)
            ++to;
        const std::vector<EdgeUse> uses(side.begin() + std::ptrdiff_t(from), side.begin() + std::ptrdiff_t(to));
        const Piece* piece = p.piece(uses.front().piece);
        const Run r = runOf(uses);
        const double share = lengthOf(r) / own * whole;
        const Run here = uses.size() == side.size() ? edge : part(edge, at, std::min(whole, at + share));
        at += share;
        if (!piece || r.empty())
            continue;
        const Skin wrong = otherSide(skinOf(*piece));
        // Several pieces round an edge stand; a single one that goes along with it lies flat.
        const bool alone = uses.size() == side.size();
        if (const auto laid = laidOver(p, uses, here, left, kAlike + std::abs(s.ease)); laid && alone) {
            turnedBack(placedAll(outlineOf(*piece), *laid), here, left, wrong, *piece);
            continue;
        }
        const double deep = depthOf(*piece, r);
        const double room = std::min({deep, 0.3 * std::min(box.width(), box.height()),
            0.75 * std::max(12.0, shapeOf(p, s.a).convex), 0.75 * std::max(12.0, shapeOf(p, s.b).convex)});
        const StoodRound round(
            r, insideLeft(uses), edge, at - share, share, left, deep > 0 ? std::min(1.0, room / deep) : 1);
        const Polyline outline = round(outlineOf(*piece));
        add(Surface{outline, wrong});
        const Point middle = pointAlong(here, lengthOf(here) / 2);
        codeAt(*piece, middle + rightOf(tangentAlong(here, lengthOf(here) / 2)) * ((left ? -1 : 1) * room / 2));
    }
}

double Plan::depthOf(const Piece& piece, const Run& r)
{
    double out = 0;
    const Polyline line = flattened(r, kStep);
    for (const Point q : outlineOf(piece)) {
        double best = 1e300;
        for (const Point on : line)
            best = std::min(best, distance(q, on));
        out = std::max(out, best);
    }
    return out;
}

void Plan::turnedBack(const Polyline& outline, const Run& edge, bool left, Skin wrong, const Piece& piece)
{
    const Point middle = pointAlong(edge, lengthOf(edge) / 2),
                in = rightOf(tangentAlong(edge, lengthOf(edge) / 2)) * (left ? -1 : 1);
    Box box;
    for (const Point q : outline)
        box.add(q);
    Point corner = box.centre();
    double best = -1e300;
    for (const Point q : {Point{box.x1, box.y0}, {box.x0, box.y0}, {box.x0, box.y1}, {box.x1, box.y1}})
        if (const double far = dot(q - middle, in) + (q.x > box.centre().x ? 1e-3 : 0); far > best)
            best = far, corner = q;
    const Point away = unit(corner - box.centre());
    // From where the cloth ends in that direction, a third of its smaller side.
    double end = -1e300;
    for (const Point q : outline)
        end = std::max(end, dot(q - box.centre(), away));
    const double fold = 0.34 * std::min(box.width(), box.height());
    const Point at = box.centre() + away * (end - fold * 0.75);
    const Polyline kept = cutOff(outline, at, away * -1), turned = cutOff(outline, at, away);
    if (kept.size() < 3 || turned.size() < 3)
        return add(Surface{outline, wrong});
    add(Surface{kept, wrong});
    add(Surface{mirrored(turned, at, away), otherSide(wrong)});
    codeAt(piece, box.centre() + (middle - box.centre()) * 0.45);
}

void Plan::between(const Seam& s, const Run& edge, bool left)
{
    std::set<PieceId> shown;
    for (const auto& id : s.trapped)
        if (const Piece* thing = p.piece(id); thing && !shown.contains(id)) {
            hold(*thing, edge, left);
            if (const Piece* mate = sewnTo(*thing))
                shown.insert(mate->key);
        }
}

const Piece* Plan::sewnTo(const Piece& thing) const
{
    const auto only = [](const std::vector<EdgeUse>& side) {
        const bool one = std::all_of(
            side.begin(), side.end(), [&](const EdgeUse& use) { return use.piece == side.front().piece; });
        return one && !side.empty() ? side.front().piece : PieceId();
    };
    for (const auto& s : p.seams)
        if (s.stitch == "construction" && s.trapped.empty())
            for (const auto& [own, other] : {std::pair{only(s.a), only(s.b)}, {only(s.b), only(s.a)}})
                if (own == thing.key && other != thing.key)
                    if (const Piece* mate = p.piece(other); mate && mate->owner() == thing.owner()
                        && std::abs(areaOf(mate->cut) - areaOf(thing.cut)) < 0.2 * areaOf(thing.cut))
                        return mate;
    return nullptr;
}

void Plan::hold(const Piece& thing, const Run& edge, bool left)
{
    const Edge* free = nullptr;
    int frees = 0;
    for (const auto& e : thing.edges) {
        const bool used = std::any_of(p.seams.begin(), p.seams.end(), [&](const Seam& s) {
            const auto is = [&](const EdgeUse& use) { return use.piece == thing.key && use.edge == e.name; };
            return s.stitch != "baste"
                && (std::any_of(s.a.begin(), s.a.end(), is) || std::any_of(s.b.begin(), s.b.end(), is));
        });
        if (!used)
            free = &e, ++frees;
    }
    const double whole = lengthOf(edge);
    if (frees == 1 && free->length() < whole + 1) {
        const double from = (whole - free->length()) / 2;
        const Run here = part(edge, std::max(0.0, from), std::min(whole, from + free->length()));
        if (const auto laid = laidOn(left ? reversed(free->stitch) : free->stitch, here, true, 30)) {
            const Polyline outline = placedAll(outlineOf(thing), *laid);
            // Of a thing of two layers the other one's right side looks up.
            const Piece* mate = sewnTo(thing);
            add(Surface{outline, mate ? skinOf(*mate) : otherSide(skinOf(thing))});
            Box box;
            for (const Point q : outline)
                box.add(q);
            return codeAt(mate ? *mate : thing, box.centre());
        }
    }
    if (hasRing(thing) || laidAt(thing) || m_act.verb == Verb::Lay) // of what else is caught its place is not known
        tab(thing, edge, left);
}

void Plan::tab(const Piece& thing, const Run& edge, bool left)
{
    std::vector<std::pair<double, double>> places; // along the edge, width
    bool here = false; // where none lies on the edge it is that of another piece like theirs
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Ring && f.owner() == thing.owner()) {
            const double along = nearest(edge, f.at);
            const bool on = distance(pointAlong(edge, along), f.at) < 8;
            if (on && !here)
                places.clear(), here = true;
            if (on || !here)
                places.emplace_back(along, f.size);
        }
    if (const auto at = laidAt(thing); at && places.empty())
        places.emplace_back(nearest(edge, *at), widthOf(thing));
    if (places.empty())
        places.emplace_back(lengthOf(edge) / 2, widthOf(thing));
    for (const auto& [along, width] : places) {
        const Point at = pointAlong(edge, along), t = tangentAlong(edge, along), in = rightOf(t) * (left ? -1 : 1);
        const double w = std::min(width, 0.8 * lengthOf(edge)), deep = std::max(30.0, 0.8 * w);
        add(Surface{{at - t * (w / 2) - in * 10, at + t * (w / 2) - in * 10, at + t * (w / 2) + in * deep,
                        at - t * (w / 2) + in * deep},
            skinOf(thing)});
        if (!places.empty() && width > 0 && hasRing(thing))
            ringAt(at + in * deep, w / 2);
    }
    codeAt(thing,
        pointAlong(edge, places.front().first)
            + rightOf(tangentAlong(edge, places.front().first)) * (left ? -14.0 : 14.0));
}

std::optional<Point> Plan::laidAt(const Piece& thing) const
{
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == Verb::Lay && act.at && act.pieces.front() == thing.key)
                return act.at;
    return {};
}

double Plan::widthOf(const Piece& strip) const
{
    for (const auto& strap : p.straps)
        if (strap.piece.owner() == strip.owner())
            return strap.width;
    const Box box = boundsOf(strip.cut);
    return std::min(box.width(), box.height());
}

bool Plan::hasRing(const Piece& thing) const
{
    return std::any_of(p.fittings.begin(), p.fittings.end(),
        [&](const Fitting& f) { return f.kind == Fitting::Kind::Ring && f.owner() == thing.owner(); });
}

void Plan::ringAt(Point c, double r)
{
    Polyline circle;
    for (int i = 0; i <= 32; ++i)
        circle.push_back(c + polar(2 * pi * i / 32) * r);
    stroke(circle, Kind::Mark);
}

double Plan::nearest(const Run& edge, Point q)
{
    const double whole = lengthOf(edge);
    double best = 1e300, out = 0;
    for (int i = 0; i <= 200; ++i)
        if (const double d = distance(pointAlong(edge, whole * i / 200), q); d < best)
            best = d, out = whole * i / 200;
    return out;
}

void Plan::folded(const Seam& s)
{
    const Piece& piece = *p.piece(s.a.front().piece);
    const Run a = runOf(s.a), b = runOf(s.b);
    // Where they meet is the fold; what lies farthest apart comes together.
    Point from = startOf(a), to = startOf(b);
    for (const double share : {0.5, 1.0})
        if (const Point q = pointAlong(a, share * lengthOf(a)), r = pointAlong(b, share * lengthOf(b));
            distance(q, r) > distance(from, to))
            from = q, to = r;
    if (distance(from, to) < 1)
        return;
    const Point fold = (from + to) * 0.5, towards = unit(from - to);
    const Polyline outline = outlineOf(piece), half = cutOff(outline, fold, towards);
    if (half.size() < 3)
        return;
    add(Surface{half, skinOf(piece)});
    Box box;
    for (const Point q : half)
        box.add(q);
    // The upper half is turned back at the corner that lies farthest from the fold.
    turnedBack(half, part(a, 0, lengthOf(a)), insideLeft(s.a), otherSide(skinOf(piece)), piece);
    const Point along = rightOf(towards);
    const double reach = std::max(box.width(), box.height());
    Polyline line;
    for (const double k : {-reach, reach}) {
        Point q = fold + along * k;
        q.x = std::clamp(q.x, box.x0, box.x1), q.y = std::clamp(q.y, box.y0, box.y1);
        line.push_back(q);
    }
    stroke(line, Kind::Fold);
    for (const auto& key : m_act.seams)
        if (const Seam* each = p.seam(key); each && frame(each->a) == frame(s.a))
            sewn(runOf(each->a), *each);
}

} // namespace tectonis
