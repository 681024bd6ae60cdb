// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/plan.hpp"

#include "figures/laid.hpp"
#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

using Verb = Act::Verb;
using Kind = Stroke::Kind;

constexpr double kStep = 0.2;     // mm between a curve and its chords
constexpr std::size_t kAside = 4; // pieces beside each other; more would be too small to read
constexpr double kRoom = 25;      // mm between pieces beside each other
constexpr double kAlike = 3;      // mm that two edges may part and still lie on each other

Polyline outlineOf(const Piece& piece) { return flattened(piece.cut, kStep); }

Polyline placedAll(const Polyline& line, const Placement& m)
{
    Polyline out;
    for (const Point p : line)
        out.push_back(m(p));
    return out;
}

/// One act seen from above.
class Plan {
public:
    Plan(const Pattern& pattern, const Step& step, const Act& act) : p(pattern), m_step(step), m_act(act) {}

    Scene scene()
    {
        switch (m_act.verb) {
        case Verb::Interline:
        case Verb::Quilt:
        case Verb::CutToShape:
        case Verb::RoundCorners: interlined(); break;
        case Verb::Sew:
        case Verb::SewTape: joined(); break;
        case Verb::Hinge: hinged(); break;
        case Verb::LayOver: laidOnFace(); break;
        case Verb::LayTape: taped(); break;
        case Verb::Insert: inserted(); break;
        case Verb::FoldUp:
        case Verb::Crease: foldedUp(m_act.verb == Verb::FoldUp); break;
        case Verb::StitchOn:
        case Verb::Window:
        case Verb::Glue: laidFlat(); break;
        case Verb::Lay: caught(); break;
        case Verb::Line: lined(); break;
        case Verb::Turn: turned(); break;
        case Verb::TurnBag:
        case Verb::CloseOpening: throughOpening(m_act.verb == Verb::TurnBag); break;
        case Verb::JoinCoats:
        case Verb::DropIn: coats(m_act.verb == Verb::DropIn); break;
        case Verb::PutIn: boardIn(); break;
        case Verb::Box: boxed(); break;
        case Verb::BoxOn: boxedOn(); break;
        default: break;
        }
        if (m_scene.items.empty())
            aside();
        return std::move(m_scene);
    }

private:
    template <class Item> void add(Item item) { m_scene.items.emplace_back(std::move(item)); }
    void stroke(Polyline line, Kind kind)
    {
        if (line.size() > 1)
            add(Stroke{std::move(line), kind});
    }
    void run(const Run& r, Kind kind) { stroke(flattened(r, kStep), kind); }
    void codeAt(const Piece& piece, Point at) { add(Word{at, naming(piece.code)}); }

    const Seam* seam() const
    {
        for (const auto& key : m_act.seams)
            if (const Seam* s = p.seam(key); s && !s->a.empty() && !s->b.empty())
                return s;
        return nullptr;
    }

    /// The whole that a piece is a part of: parts of one whole lie in its coordinates.
    PieceId frameOf(const Piece& piece) const { return piece.whole.empty() || m_parts ? piece.key : piece.whole; }

    /// The frame of one side of a seam; empty if its pieces lie in several.
    PieceId frame(const std::vector<EdgeUse>& side) const
    {
        PieceId out;
        for (const auto& use : side) {
            const Piece* piece = p.piece(use.piece);
            if (!piece || use.copy != side.front().copy || (!out.empty() && frameOf(*piece) != out))
                return {};
            out = frameOf(*piece);
        }
        return out;
    }

    std::vector<const Piece*> piecesIn(const PieceId& wanted) const
    {
        std::vector<const Piece*> out;
        const auto handled = [&](const Piece& piece) {
            return std::find(m_step.pieces.begin(), m_step.pieces.end(), piece.key) != m_step.pieces.end();
        };
        for (const auto& piece : p.pieces)
            if (frameOf(piece) == wanted && (piece.key == wanted || handled(piece)))
                out.push_back(&piece);
        return out;
    }

    Run runOf(const std::vector<EdgeUse>& side) const { return tectonis::runOf(p, side); }
    bool insideLeft(const std::vector<EdgeUse>& side) const { return tectonis::insideLeft(p, side); }

    /// Pieces lying with their right side up, zips and what is fixed to them drawn on them.
    void lower(const std::vector<const Piece*>& pieces, bool wrong = false)
    {
        for (const Piece* piece : pieces) {
            add(Surface{outlineOf(*piece), wrong ? otherSide(skinOf(*piece)) : skinOf(*piece)});
            if (wrong)
                continue;
            for (const auto& o : p.overlays)
                if (const Piece* over = p.piece(o.piece); over && o.on == piece->key && done(o.piece))
                    add(Surface{finished(*over, o.placement), skinOf(*over)});
        }
    }

    /// What a piece covers when it is stitched on: what its rows enclose, if they enclose anything.
    Polyline finished(const Piece& over, const Placement& at) const
    {
        for (const auto& s : p.seams)
            if (s.stitch == "topstitch")
                for (const auto* side : {&s.a, &s.b})
                    for (const auto* mate : {&s.a, &s.b})
                        if (side != mate && side->front().piece == over.key && p.piece(mate->front().piece)
                            && !p.piece(mate->front().piece)->edge(mate->front().edge))
                            if (Polyline rows = flattened(runOf(*mate), kStep);
                                rows.size() > 2 && std::abs(areaOf(lineRun(rows))) > 400)
                                return rows;
        return placedAll(outlineOf(over), at);
    }

    /// Was the thing put on before this step?
    bool done(const PieceId& thing) const
    {
        for (const auto& step : p.steps) {
            if (step.id == m_step.id)
                return false;
            for (const auto& act : step.acts)
                if (act.verb == Verb::StitchOn)
                    for (const auto& key : act.seams)
                        if (const Seam* s = p.seam(key))
                            for (const auto* side : {&s->a, &s->b})
                                if (side->front().piece == thing)
                                    return true;
        }
        return false;
    }

    // ---- Sewn right sides together ------------------------------------------------------------------------------

    void joined()
    {
        const Seam* s = seam();
        if (!s)
            return;
        if (s->a.front().piece == s->b.front().piece && s->a.front().copy == s->b.front().copy)
            return folded(*s);
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

    /// A zip's tape along an edge, its chain outside.
    void tape(const Run& edge, bool left)
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

    /// Of a seam all round, where both sides go over several pieces: as far as the first piece reaches.
    void stretch(const Seam& s)
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

    /// What is sewn along @p edge, with its opening.
    void sewn(const Run& edge, const Seam& s, Kind kind = Kind::Sew)
    {
        const double whole = lengthOf(edge), from = s.openStart, to = whole - s.openEnd;
        if (s.open <= 0)
            return run(from > 0 || s.openEnd > 0 ? part(edge, from, to) : edge, kind);
        run(part(edge, from, (whole - s.open) / 2), kind);
        run(part(edge, (whole + s.open) / 2, to), kind);
    }

    /// The other seams of the act on the same piece.
    void alsoSewn(const Seam& first, const PieceId& on)
    {
        for (const auto& key : m_act.seams)
            if (const Seam* s = p.seam(key); s && s != &first)
                for (const auto* side : {&s->a, &s->b})
                    if (!side->empty() && side->front().copy == 0 && frame(*side) == on) {
                        sewn(runOf(*side), *s);
                        break;
                    }
    }

    /// Notches of the lower piece along the seam.
    void marks(const std::vector<EdgeUse>& side)
    {
        for (const auto& use : side) {
            const Piece* piece = p.piece(use.piece);
            const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
            if (!edge)
                continue;
            for (const auto& n : piece->notches)
                if (n.edge == use.edge && n.along > 1 && n.along < edge->length() - 1) {
                    const Point at = pointAlong(edge->stitch, n.along),
                                out = rightOf(tangentAlong(edge->stitch, n.along));
                    stroke({at - out * 7, at + out * std::max(7.0, edge->allowance)}, Kind::Mark);
                }
        }
    }

    /// The pieces on top, wrong side up: laid flat with a corner turned back, or stood round the edge.
    void above_(const Seam& s, const std::vector<EdgeUse>& side, const Run& edge, bool left, const Box& box)
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

    /// How far a piece reaches from its run.
    static double depthOf(const Piece& piece, const Run& r)
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

    /// The corner farthest from the seam is turned back, so that the right sides show.
    void turnedBack(const Polyline& outline, const Run& edge, bool left, Skin wrong, const Piece& piece)
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

    /// What is caught between, on the lower piece, pointing away from the seam.
    void between(const Seam& s, const Run& edge, bool left)
    {
        std::set<PieceId> shown;
        for (const auto& id : s.trapped)
            if (const Piece* thing = p.piece(id); thing && !shown.contains(id)) {
                hold(*thing, edge, left);
                if (const Piece* mate = sewnTo(*thing))
                    shown.insert(mate->key);
            }
    }

    /// The other layer of a thing that was sewn and turned before, a flap's lining; null if it has none.
    const Piece* sewnTo(const Piece& thing) const
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

    /// @returns false where its place along the edge is not known.
    void hold(const Piece& thing, const Run& edge, bool left)
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
        if (hasRing(thing) || m_act.verb == Verb::Lay) // of what else is caught its place is not known
            tab(thing, edge, left);
    }

    /// A loop or a strip: a short tab at its anchors, or in the middle of the edge; with its ring.
    void tab(const Piece& thing, const Run& edge, bool left)
    {
        std::vector<std::pair<double, double>> places; // along the edge, width
        for (const auto& f : p.fittings)
            if (f.kind == Fitting::Kind::Ring && f.owner() == thing.owner())
                places.emplace_back(nearest(edge, f.at), f.size);
        const Box box = boundsOf(thing.cut);
        if (places.empty())
            places.emplace_back(lengthOf(edge) / 2, std::min(box.width(), box.height()));
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

    bool hasRing(const Piece& thing) const
    {
        return std::any_of(p.fittings.begin(), p.fittings.end(),
            [&](const Fitting& f) { return f.kind == Fitting::Kind::Ring && f.owner() == thing.owner(); });
    }

    void ringAt(Point c, double r)
    {
        Polyline circle;
        for (int i = 0; i <= 32; ++i)
            circle.push_back(c + polar(2 * pi * i / 32) * r);
        stroke(circle, Kind::Mark);
    }

    static double nearest(const Run& edge, Point q)
    {
        const double whole = lengthOf(edge);
        double best = 1e300, out = 0;
        for (int i = 0; i <= 200; ++i)
            if (const double d = distance(pointAlong(edge, whole * i / 200), q); d < best)
                best = d, out = whole * i / 200;
        return out;
    }

    /// A piece folded onto itself, right sides together.
    void folded(const Seam& s)
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

    // ---- Layers behind their pieces -----------------------------------------------------------------------------

    /// The rows of a quilted block.
    void quiltRows(const Piece& piece, const Placement& at)
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
                stroke(placedAll(
                           {{low, rising ? box.y0 + y0 : box.y1 - y0}, {high, rising ? box.y0 + y1 : box.y1 - y1}}, at),
                    Kind::Topstitch);
            }
    }

    /// All pieces wrong side up with what lies on them, in rows.
    void interlined()
    {
        struct Laid {
            const Piece* piece;
            std::vector<const Layer*> layers;
            Box box;
        };
        std::vector<Laid> all;
        double area = 0, widest = 0;
        for (const auto& piece : p.pieces) {
            Laid laid{
                &piece, {}, boundsOf(m_act.verb == Verb::Interline || piece.rough.empty() ? piece.cut : piece.rough)};
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

    // ---- Laid on and stitched -----------------------------------------------------------------------------------

    void laidFlat()
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

    void putOn(const std::vector<EdgeUse>& side, const Run& line, bool window)
    {
        const Piece* upper = p.piece(side.front().piece);
        if (!upper)
            return;
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

    void slash(const Piece& face)
    {
        for (const auto& l : face.lines)
            if (l.kind == FaceLine::Kind::Slash)
                run(l.run, Kind::Cut);
    }

    /// Something basted at the edge that will catch it.
    void caught()
    {
        const Piece *thing = p.piece(m_act.pieces.front()), *holder = p.piece(m_act.pieces.back());
        if (!thing || !holder)
            return;
        // Along the edge of the seam that will catch it.
        const auto trapping = std::find_if(p.seams.begin(), p.seams.end(), [&](const Seam& each) {
            return std::find(each.trapped.begin(), each.trapped.end(), thing->key) != each.trapped.end()
                && !usesOf(each, holder->key).empty();
        });
        // A cord lies along all that it is basted to.
        const Seam* s = trapping != p.seams.end() && thing->role != "piping" ? &*trapping : seam();
        const auto side = s ? usesOf(*s, holder->key) : std::vector<EdgeUse>{};
        if (side.empty())
            return;
        lower({holder});
        const Box box = boundsOf(holder->cut);
        codeAt(*holder, {box.centre().x, box.centre().y - box.height() * 0.3});
        if (thing->role == "piping") {
            for (const auto& use : side) {
                corded(*thing, p.runOf(use), insideLeft(side));
                run(p.runOf(use), Kind::Baste);
            }
            return;
        }
        const Run edge = runOf(side);
        hold(*thing, edge, insideLeft(side));
        run(edge, Kind::Baste);
    }

    /// A covered cord along an edge, its flange level with the raw edge.
    void corded(const Piece& piping, const Run& edge, bool left)
    {
        const Box own = boundsOf(piping.cut);
        const double flange = std::clamp(std::min(own.width(), own.height()) / 2 - 6, 6.0, 20.0), cord = 4;
        const auto beside = [&](double in) {
            Polyline side;
            const double whole = lengthOf(edge);
            const int n = std::max(12, int(whole / 6));
            for (int i = 0; i <= n; ++i)
                side.push_back(pointAlong(edge, whole * i / n)
                    + rightOf(tangentAlong(edge, whole * i / n)) * ((left ? -1 : 1) * in));
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

    /// What of a seam runs along a piece.
    static std::vector<EdgeUse> usesOf(const Seam& s, const PieceId& piece)
    {
        std::vector<EdgeUse> out;
        for (const auto* side : {&s.a, &s.b})
            for (const auto& use : *side)
                if (use.piece == piece && (out.empty() || use.copy == out.front().copy))
                    out.push_back(use);
        return out;
    }

    void lined()
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

    // ---- Turned, put together ------------------------------------------------------------------------------------

    void turned()
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

    void arrowOut(const Run& edge, double along, bool left)
    {
        const Point at = pointAlong(edge, along), out = rightOf(tangentAlong(edge, along)) * (left ? 1 : -1);
        add(Arrow{{at - out * 45, at - out * 15, at + out * 40}});
    }

    void throughOpening(bool turns)
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

    /// Shell and lining: one goes into the other.
    void coats(bool liningIn)
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

    static const Piece* largest(const Piece* a, const Piece* b)
    {
        return !a || areaOf(b->cut) > areaOf(a->cut) ? b : a;
    }

    /// A corner pulled apart until its two seams lie on each other, sewn across.
    void boxed()
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

    /// A strap's ends on their lines, the strap itself leaving upwards, each end boxed and crossed.
    void boxedOn()
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
            const double out = std::max(30.0, box.y1 + 40 - end.y1);
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
            codeAt(*strap, {end.centre().x, end.y1 + out - 12});
        }
        fittingsOn(*face, {});
    }

    /// A piece in its place on another one, right side up; both copies where it is mirrored.
    void laidOnFace()
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

    /// A flap's or lid's edge on its line, the thing pointing away from where it will hang, and how it is folded over.
    void hinged()
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
        stroke({{startOf(line).x, middle.y - m_act.distance}, {endOf(line).x, middle.y - m_act.distance}},
            Kind::Topstitch);
        const double x = there.x1 + 14;
        add(Arrow{{{x, there.centre().y}, {x + 10, middle.y}, {x, middle.y - 0.5 * there.height()}}});
        const Box whole = boundsOf(face->cut);
        codeAt(*face, {whole.centre().x, whole.y0 + 0.15 * whole.height()});
    }

    /// A zip face down along the mouth of each face.
    void taped()
    {
        const Piece* face = p.piece(m_act.pieces.front());
        const auto zip = std::find_if(p.zips.begin(), p.zips.end(),
            [&](const Zip& z) { return !m_act.zips.empty() && z.key == m_act.zips.front(); });
        if (!face || zip == p.zips.end())
            return;
        lower({face});
        const Box box = boundsOf(face->stitch());
        const double x0 = box.x0 + m_act.distance, x1 = box.x1 - m_act.distance, top = box.y1 + m_act.taken;
        add(Surface{{{x0, top}, {x1, top}, {x1, top - zip->tapeWidth}, {x0, top - zip->tapeWidth}}, Skin::Tape});
        stroke({{x0, top - zip->tapeWidth / 2}, {x1, top - zip->tapeWidth / 2}}, Kind::Mark);
        stroke({{x0, box.y1}, {x1, box.y1}}, Kind::Baste);
        codeAt(*face, box.centre());
    }

    /// A strap's open end with what is pushed into it.
    void inserted()
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

    /// A piece folded across its middle, its lower half brought up.
    void foldedUp(bool up)
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

    void boardIn()
    {
        const Piece* board = p.piece(m_act.pieces.front());
        if (!board)
            return;
        const Box box = boundsOf(board->cut);
        lower({board});
        codeAt(*board, box.centre());
        add(Arrow{{{box.x1 + 0.25 * box.width(), box.centre().y}, {box.x1 - 0.1 * box.width(), box.centre().y}}});
    }

    // ---- Whatever is handled, side by side ----------------------------------------------------------------------

    void aside()
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

    /// Lines that this part put on the piece: where things are laid, stitched or slashed.
    void linesOn(const Piece& piece, const Placement& at)
    {
        const bool own = m_act.verb == Verb::Pleat || m_act.verb == Verb::Rows; // lines of the form as well
        const bool marked = m_act.verb == Verb::Buttonhole; // rows that come later are only drawn on
        for (const auto& l : piece.lines)
            if (l.owner == m_step.id.owner() && (own || !l.owner.empty()) && l.kind != FaceLine::Kind::Bridge)
                stroke(placedAll(flattened(l.run, kStep), at),
                    marked && l.kind == FaceLine::Kind::Topstitch                           ? Kind::Mark
                        : l.kind == FaceLine::Kind::Fold || l.kind == FaceLine::Kind::Pleat ? Kind::Fold
                        : l.kind == FaceLine::Kind::Slash                                   ? Kind::Cut
                                                                                            : Kind::Topstitch);
    }

    /// Short cuts at the drill marks that this part made.
    void marksOn(const Piece& piece, const Placement& at)
    {
        for (const auto& m : piece.drills)
            if (m.owner == m_step.id.owner()) {
                const double half = std::max(6.0, m_act.distance / 2);
                stroke(placedAll({m.at - Point{half, 0}, m.at + Point{half, 0}}, at), Kind::Cut);
                ringAt(at(m.at), half + 4);
            }
    }

    void seamsOn(const Piece& piece, const Placement& at)
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

    /// Clips and notches along the piece's edges.
    void cutsOn(const Piece& piece, const Placement& at)
    {
        for (const auto& act : m_step.acts)
            if (act.verb == Verb::Clip || act.verb == Verb::Notch || act.verb == Verb::Grade)
                for (const auto& key : act.seams)
                    if (const Seam* s = p.seam(key))
                        for (const bool first : {true, false})
                            cutsAlong(first ? s->a : s->b, first ? s->b : s->a, piece, at);
    }

    /// Where this side or its mate goes round a curve or a corner.
    void cutsAlong(
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
                        const Point on = pointAlong(run, s),
                                    out = rightOf(tangentAlong(run, s)) * (use.reversed ? -1 : 1);
                        stroke({at(on + out * edge->allowance), at(on + out * 2)}, Kind::Cut);
                    }
            }
            from += length;
        }
    }

    void fittingsOn(const Piece& piece, const Placement& at)
    {
        for (const auto& f : p.fittings) {
            if (f.piece != piece.key
                || std::find(m_step.fittings.begin(), m_step.fittings.end(), f.key) == m_step.fittings.end())
                continue;
            if (f.kind == Fitting::Kind::Zip) {
                const double w = f.size / 2, h = 8;
                Polyline tape{{f.at.x - w, f.at.y - h}, {f.at.x + w, f.at.y - h}, {f.at.x + w, f.at.y + h},
                    {f.at.x - w, f.at.y + h}};
                add(Surface{placedAll(tape, at), Skin::Tape});
                stroke(placedAll({{f.at.x - w, f.at.y}, {f.at.x + w, f.at.y}}, at), Kind::Mark);
            } else {
                Polyline circle;
                for (int i = 0; i < 24; ++i)
                    circle.push_back(at(f.at) + polar(2 * pi * i / 24) * std::max(4.0, f.size / 2));
                add(Surface{circle, Skin::Metal});
            }
        }
    }

    const Pattern& p;
    const Step& m_step;
    const Act& m_act;
    Scene m_scene;
    bool m_parts = false; ///< parts of a whole are told apart
};

int weight(Verb verb)
{
    switch (verb) {
    case Verb::JoinCoats:
    case Verb::DropIn: return 9;
    case Verb::Box:
    case Verb::Window:
    case Verb::SewTape:
    case Verb::InsertZip: return 8;
    case Verb::Sew: return 7;
    case Verb::BoxOn:
    case Verb::Hinge:
    case Verb::Interline:
    case Verb::RoundCorners:
    case Verb::Quilt:
    case Verb::CutToShape:
    case Verb::StitchOn: return 6;
    case Verb::Lay:
    case Verb::LayOver:
    case Verb::LayTape:
    case Verb::Line: return 5;
    case Verb::TurnBag:
    case Verb::CloseOpening:
    case Verb::PutIn:
    case Verb::Insert:
    case Verb::WrapOver:
    case Verb::Turn: return 4;
    case Verb::Set:
    case Verb::Bind:
    case Verb::Pleat:
    case Verb::Rows:
    case Verb::Buttonhole:
    case Verb::Glue: return 3;
    case Verb::FoldUp:
    case Verb::Crease: return 2;
    default: return 1;
    }
}

} // namespace

bool insideLeft(const Pattern& p, const std::vector<EdgeUse>& side)
{
    const Piece* piece = p.piece(side.front().piece);
    const bool outline = piece && piece->edge(side.front().edge);
    return !outline || !side.front().reversed;
}

Run runOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    Run out;
    for (const auto& use : side)
        for (const auto& segment : p.runOf(use))
            out.push_back(segment);
    return out;
}

std::optional<Placement> laidOver(
    const Pattern& p, const std::vector<EdgeUse>& upper, const Run& edge, bool left, double slack)
{
    const Run own = runOf(p, upper);
    const Piece* piece = p.piece(upper.front().piece);
    // A copy that is cut mirrored shows its wrong side as it is drawn.
    const bool mirroredCopy = piece && piece->mirrored > 0 && upper.front().copy >= piece->count - piece->mirrored;
    return laidOn((insideLeft(p, upper) == mirroredCopy) == left ? own : reversed(own), edge, !mirroredCopy, slack);
}

Skin skinOf(const Piece& piece)
{
    switch (piece.coat) {
    case Coat::Lining: return Skin::Lining;
    case Coat::Strip: return Skin::Strip;
    case Coat::Interlining: return Skin::Padding;
    default: return Skin::Shell;
    }
}

const Act* leadingAct(const Step& step)
{
    const Act* out = nullptr;
    for (const auto& act : step.acts)
        if (!out || weight(act.verb) > weight(out->verb))
            out = &act;
    return out;
}

bool movesPieces(const Act& act) { return weight(act.verb) > 1 && !(act.verb == Verb::TurnBag && act.seams.empty()); }

Scene planOf(const Pattern& pattern, const Step& step)
{
    static const Act none{.verb = Verb::Note};
    const Act* act = leadingAct(step);
    return Plan(pattern, step, act ? *act : none).scene();
}

} // namespace tectonis
