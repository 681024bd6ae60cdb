// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/bulk.hpp"

#include "library/library.hpp"

#include <algorithm>
#include <utility>

namespace tectonis {
namespace {

constexpr double kTopstitch = 3.2; // mm from the seam (common practice, no source)

Message nameOf(const Pattern& p, const Layer& layer)
{
    return say("{} {}", layer.code, p.material(layer.material).name);
}

/// Does a point lie on a run? Chords are made for free curves only.
bool liesOn(const Run& run, Point p)
{
    constexpr double near = 0.5;
    for (const auto& s : run) {
        if (const auto* line = std::get_if<Line>(&s)) {
            const Point d = line->b - line->a, to = p - line->a;
            const double n = dot(d, d), t = n > 0 ? std::clamp(dot(to, d) / n, 0.0, 1.0) : 0;
            if (distance(to, d * t) < near)
                return true;
        } else if (const auto* arc = std::get_if<Arc>(&s)) {
            const Point out = p - arc->centre;
            if (std::abs(norm(out) - arc->radius) >= near)
                continue;
            const double turn = std::remainder(std::atan2(out.y, out.x) - arc->start - arc->sweep / 2, 2 * pi);
            if (std::abs(turn) <= std::abs(arc->sweep) / 2 + near / arc->radius)
                return true;
        } else if (distanceTo(flattened({s}, 0.1), p) < near)
            return true;
    }
    return false;
}

/// Pleats that begin at an edge.
bool pleated(const Piece& piece, const Edge& edge)
{
    return std::any_of(piece.lines.begin(), piece.lines.end(),
        [&](const FaceLine& l) { return l.kind == FaceLine::Kind::Pleat && liesOn(edge.stitch, startOf(l.run)); });
}

/// What is caught in a seam at its thickest place: what runs along it, and of the things that are laid at places of
/// their own, a belt's two ends, those that lie on each other.
std::vector<PieceId> trappedAtOnce(const Pattern& p, const Seam& seam)
{
    if (seam.trapped.size() < 2)
        return seam.trapped;
    constexpr double apart = 40; // mm: nearer than that they lie under one foot
    struct Spot {
        PieceId thing, holder;
        Point at;
        double thick;
    };
    std::vector<Spot> spots;
    std::vector<PieceId> out;
    for (const auto& key : seam.trapped) {
        const Act* laid = nullptr;
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                if (act.verb == Act::Verb::Lay && act.at && act.pieces.front() == key)
                    laid = &act;
        const Piece* piece = p.piece(key);
        if (laid && piece)
            spots.push_back({key, laid->pieces.back(), *laid->at,
                piece->plies * p.material(p.materials.at(piece->material)).underFoot()});
        else
            out.push_back(key);
    }
    std::vector<PieceId> most;
    double thickest = -1;
    for (const auto& here : spots) {
        std::vector<PieceId> together;
        double thick = 0;
        for (const auto& other : spots)
            if (other.holder == here.holder && distance(other.at, here.at) < apart)
                together.push_back(other.thing), thick += other.thick;
        if (thick > thickest)
            thickest = thick, most = std::move(together);
    }
    out.insert(out.end(), most.begin(), most.end());
    return out;
}

} // namespace

bool Bulks::trimmed(const Layer& layer) const
{
    return !m_instead.trimmed.empty() && m_instead.trimmed.contains({layer.rules, layer.rule});
}

/// Does it reach past a line so far inside the stitch line of an edge, and is not trimmed instead?
bool Bulks::lies(const Layer& layer, const EdgeId& edge, double within) const
{
    const double* reach = layer.reachAt(edge);
    return reach && *reach > -within && !trimmed(layer);
}

/// Visits everything that one edge brings into the allowance: its cloth, interlinings that reach past the stitch line,
/// overlays of which an edge lies there, pleats, the lining that is basted behind it.
template <class Visit> void Bulks::forEachCaught(const EdgeUse& use, const Seam& seam, Visit visit) const
{
    const Piece* piece = p.piece(use.piece);
    if (!piece)
        return;
    const auto add = [&](const Piece& each, const EdgeId& edge, int times) {
        visit(BulkPart{&each, nullptr, times, p.material(p.materials.at(each.material)).underFoot()});
        for (const auto& layer : each.layers)
            if (lies(layer, edge, 0))
                visit(BulkPart{&each, &layer, times, p.material(layer.material).underFoot()});
    };
    const Edge* own = piece->edge(use.edge);
    add(*piece, use.edge, own && pleated(*piece, *own) ? 3 : 1); // the folded cloth lies three times at a pleat
    if (const Piece* behind = p.piece(piece->backing))
        add(*behind, use.edge, 1);
    const Piece* before = nullptr; // two patches of one piece lie at both ends of an edge, not on each other
    for (const auto& o : p.overlays) {
        if (!own || o.on != piece->key
            || std::find(seam.trapped.begin(), seam.trapped.end(), o.piece) != seam.trapped.end())
            continue;
        const Piece* on = p.piece(o.piece);
        if (!on || on == before)
            continue;
        for (const auto& e : on->edges)
            if (e.allowance > 0 && liesOn(own->stitch, o.placement(pointAlong(e.stitch, e.length() / 2)))) {
                add(*on, e.name, 1);
                before = on;
                break;
            }
    }
}

double Bulks::sumAlong(const EdgeUse& use, const Seam& seam) const
{
    double sum = 0;
    forEachCaught(use, seam, [&](const BulkPart& c) { sum += c.times * c.each; });
    return sum;
}

/// How often each side lies in the seam's row: a hem three times, its raw edge turned in; an edge that is left raw
/// once; a mouth that is folded in and dropped in twice.
int Bulks::timesFolded(const Seam& seam)
{
    if (foldedOver(seam))
        return seam.rawOutside.empty() ? 3 : 1;
    return seam.mouth && worked(seam.key).dropped ? 2 : 1;
}

/// Of a run over several pieces the use that brings most; null for none.
const EdgeUse* Bulks::thickestOf(const std::vector<EdgeUse>& side, const Seam& seam) const
{
    if (side.size() < 2)
        return side.empty() ? nullptr : &side.front();
    const EdgeUse* best = nullptr;
    double most = 0;
    for (const auto& use : side)
        if (const double sum = sumAlong(use, seam); sum > most || !best)
            most = sum, best = &use;
    return best;
}

Message BulkPart::label(const Pattern& p) const { return layer ? nameOf(p, *layer) : piece->name; }

Bulk bulkAt(const Pattern& p, const Seam& seam) { return Bulks(p).at(seam); }

Bulk bulkUnderTopstitch(const Pattern& p, const Seam& seam) { return Bulks(p).underTopstitch(seam); }

/// The seam by which the edge of a piece was turned before it is stitched on; null for none.
const Seam* Bulks::turnedAlong(const EdgeUse& use, const Seam& own)
{
    readActs();
    const auto of = m_turned.find(use.piece);
    if (of == m_turned.end())
        return nullptr;
    for (const Seam* seam : of->second)
        for (const auto* side : {&seam->a, &seam->b})
            if (seam != &own && std::any_of(side->begin(), side->end(), [&](const EdgeUse& each) {
                    return each.piece == use.piece && each.edge == use.edge;
                }))
                return seam;
    return nullptr;
}

void Bulks::readActs()
{
    if (m_read)
        return;
    m_read = true;
    std::size_t nth = 0;
    for (const auto& step : p.steps)
        for (const auto& act : step.acts) {
            const bool joins = act::joins(act), row = act.verb == Act::Verb::Topstitch;
            for (const auto& key : act.seams) {
                Worked& seam = m_worked[key];
                if (joins && seam.nth == 0)
                    seam.nth = ++nth;
                seam.turned |= act.verb == Act::Verb::Turn;
                seam.dropped |= act.verb == Act::Verb::DropIn;
                if (row && seam.side == Act::To::Nowhere)
                    seam.side = act.to;
                seam.row |= row || act.verb == Act::Verb::Roll;
            }
        }
    for (const auto& seam : p.seams)
        if (const auto it = m_worked.find(seam.key); it != m_worked.end() && it->second.turned)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (auto& all = m_turned[use.piece]; all.empty() || all.back() != &seam)
                        all.push_back(&seam);
}

const Bulks::Worked& Bulks::worked(const SeamId& seam)
{
    readActs();
    return m_worked[seam];
}

bool foldedOver(const Seam& seam)
{
    return !seam.a.empty()
        && std::equal(
            seam.a.begin(), seam.a.end(), seam.b.begin(), seam.b.end(), [](const EdgeUse& a, const EdgeUse& b) {
                return a.piece == b.piece && a.edge == b.edge && a.copy == b.copy;
            });
}

const SeamCare& Bulks::careOf(const Seam& seam) const
{
    const auto instead = m_instead.care.find(seam.key);
    return instead == m_instead.care.end() ? seam.care : instead->second;
}

bool Bulks::opened(const Seam& seam) const
{
    // Its steps press it open by themselves, or because of its care.
    return m_instead.care.contains(seam.key) ? careOf(seam).open || (seam.pressedOpen && !seam.care.open)
                                             : seam.pressedOpen;
}

const std::pair<Bulks::Thick, Bulks::Thick>& Bulks::allowances(const Seam& seam)
{
    const auto [known, fresh] = m_allowances.try_emplace(&seam);
    if (fresh)
        for (const bool first : {true, false})
            for (const auto& use : first ? seam.a : seam.b) {
                Thick here;
                forEachCaught(
                    use, seam, [&](const BulkPart& c) { (c.layer ? here.layers : here.cloth) += c.times * c.each; });
                Thick& most = first ? known->second.first : known->second.second;
                if (here.with(1) > most.with(1))
                    most = here;
            }
    return known->second;
}

double Bulks::allowanceThickness(const Seam& crossing, double hammered)
{
    const auto& [first, second] = allowances(crossing);
    const double a = first.with(hammered), b = second.with(hammered);
    // Graded, the thicker one ends at the stitches where another seam crosses; open, each lies on its own side.
    if (careOf(crossing).graded)
        return std::min(a, b);
    return opened(crossing) ? std::max(a, b) : a + b;
}

/// What is caught at the thickest place, with what lies behind it.
void Bulks::addTrapped(const Seam& seam, std::vector<BulkPart>& parts)
{
    for (const auto& key : trappedAtOnce(p, seam)) {
        const Piece* piece = p.piece(key);
        if (!piece)
            continue;
        parts.push_back({piece, nullptr, piece->plies, p.material(p.materials.at(piece->material)).underFoot()});
        for (const auto& layer : piece->layers)
            if (layer.wholePiece && !trimmed(layer)
                && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) { return r.second > 0; }))
                parts.push_back({piece, &layer, 1, p.material(layer.material).underFoot()});
    }
    if (!m_bags)
        m_bags = caughtBags(p);
    const PocketBag* before = nullptr; // it may reach past a seam with several of its sides
    for (const auto& caught : *m_bags)
        if (caught.seam == &seam && std::exchange(before, caught.bag) != caught.bag)
            for (const auto& key : caught.bag->layers)
                if (const Piece* piece = p.piece(key)) {
                    parts.push_back({piece, nullptr, 1, p.material(p.materials.at(piece->material)).underFoot()});
                    for (const auto& layer : piece->layers)
                        if (!trimmed(layer) && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) {
                                return r.second > 0;
                            }))
                            parts.push_back({piece, &layer, 1, p.material(layer.material).underFoot()});
                }
}

Bulk Bulks::at(const Seam& seam)
{
    Bulk bulk;
    double most = 0;
    const int times = timesFolded(seam);
    const auto sides = foldedOver(seam) ? std::vector{&seam.a} : std::vector{&seam.a, &seam.b};
    for (const auto* side : sides)
        if (const EdgeUse* use = thickestOf(*side, seam)) {
            const auto add = [&](BulkPart caught) {
                bulk.parts.push_back(caught);
                if (caught.layer && caught.each > most)
                    most = caught.each, bulk.heaviest = caught;
            };
            const Piece* piece = p.piece(use->piece);
            const Edge* edge = piece ? piece->edge(use->edge) : nullptr;
            const bool laidOn = seam.stitch == "topstitch" && seam.rawOutside.empty() && edge && edge->allowance > 0;
            if (const Seam* turned = laidOn ? turnedAlong(*use, seam) : nullptr)
                for (const auto& part : underTopstitch(*turned).parts)
                    add(part);
            else
                forEachCaught(*use, seam, [&](BulkPart caught) {
                    caught.times *= laidOn ? 2 : times; // its edge is folded in
                    add(caught);
                });
        }
    if (const Piece* binding = p.piece(seam.bound))
        bulk.parts.push_back({binding, nullptr, 4,
            p.material(p.materials.at(binding->material)).underFoot()}); // folded in on both sides of the edge
    if (seam.enclosed)                                                   // the allowances once more
        for (auto& part : bulk.parts)
            part.times *= 2;
    const std::size_t along = bulk.parts.size(); // what follows lies away from where other seams cross
    addTrapped(seam, bulk.parts);
    if (careOf(seam).hammered)
        for (auto& part : bulk.parts)
            part.each *= part.layer ? 1 : kHammered;
    double plain = 0;
    for (std::size_t i = 0; i < bulk.parts.size(); ++i) {
        const double thick = bulk.parts[i].times * bulk.parts[i].each;
        bulk.underFoot += thick;
        plain += i < along ? thick : 0;
    }
    bulk.atCrossing = bulk.underFoot;
    auto across = acrossOf(seam);
    if (careOf(seam).aside) // they are turned aside; about a zip nothing can be done so
        std::erase_if(across, [](const Across& each) { return each.seam; });
    findCrossings(
        across,
        [&](const std::vector<Across>& here) {
            double thick = plain;
            for (const auto& each : here)
                thick += times * (each.onA + each.onB) + each.once;
            return thick;
        },
        bulk);
    return bulk;
}

/// The places where others cross a seam; @p thickOf tells how many mm lie at one in all, from what crosses there.
template <class ThickOf> void Bulks::findCrossings(const std::vector<Across>& all, ThickOf thickOf, Bulk& bulk)
{
    struct Place {
        std::vector<Across> across;
        double thick = 0;
    };
    std::vector<Place> places;
    for (const auto& across : all) {
        const auto here = std::find_if(places.begin(), places.end(),
            [&](const Place& place) { return std::abs(place.across.front().at - across.at) < 1; });
        Place& place = here == places.end() ? places.emplace_back(Place{}) : *here;
        if (std::none_of(place.across.begin(), place.across.end(),
                [&](const Across& known) { return known.seam == across.seam && known.zip == across.zip; }))
            place.across.push_back(across);
    }
    const Place* worst = nullptr;
    for (auto& place : places) {
        place.thick = thickOf(place.across);
        bulk.everyCrossing.push_back(place.thick);
        if (place.thick > bulk.atCrossing)
            worst = &place, bulk.atCrossing = place.thick;
    }
    if (!worst)
        return;
    for (const auto& across : worst->across) {
        const Message& one = across.seam ? across.seam->name : across.zip->name;
        bulk.crossing = bulk.crossing.empty() ? one : say("{} and {}", bulk.crossing, one);
    }
    const double limit = p.workshop.machineLimit + 0.001;
    const auto list = [](auto& keys, const auto& key) {
        if (std::find(keys.begin(), keys.end(), key) == keys.end())
            keys.push_back(key);
    };
    for (const auto& place : places)
        if (place.thick > (bulk.atCrossing > limit ? limit : bulk.atCrossing - 0.005))
            for (const auto& across : place.across)
                across.seam ? list(bulk.crossedBy, across.seam->key) : list(bulk.crossedByZips, across.zip->key);
}

Bulk Bulks::underTopstitch(const Seam& seam)
{
    struct Side {
        std::vector<BulkPart> parts{};
        int times = 2; ///< its cloth lies: piece and allowance; of what is pressed over the other once
        double allowance = 0, whole = 0; ///< mm
    };
    std::vector<Side> sides;
    const double hammered = careOf(seam).hammered ? kHammered : 1;
    const Act::To pressed = worked(seam.key).side;
    for (const auto* run : {&seam.a, &seam.b}) {
        Side side;
        const bool twice = run == &seam.b && foldedOver(seam); // told by its first side already
        const EdgeUse* thickest = twice ? nullptr : thickestOf(*run, seam);
        const Piece* piece = thickest ? p.piece(thickest->piece) : nullptr;
        if (foldedOver(seam))
            side.times = twice ? 0 : timesFolded(seam);
        if (pressed == (run == &seam.a ? Act::To::Second : Act::To::First) && !opened(seam))
            side.times = 1;
        const auto add = [&](BulkPart part) {
            part.each *= part.layer ? 1 : hammered;
            side.whole += part.times * part.each;
            side.parts.push_back(part);
        };
        if (piece) {
            // The piece itself and its own allowance behind it.
            forEachCaught(*thickest, seam, [&](BulkPart caught) {
                side.allowance += caught.times * caught.each * (caught.layer ? 1 : hammered);
                caught.times *= side.times;
                add(caught);
            });
            for (const auto& layer : piece->layers)
                if (side.times > 1 && lies(layer, thickest->edge, kTopstitch) && !lies(layer, thickest->edge, 0))
                    add({piece, &layer, 1, p.material(layer.material).underFoot()});
        }
        sides.push_back(std::move(side));
    }
    if ((careOf(seam).graded || seam.graded) && !sides[0].parts.empty() && !sides[1].parts.empty()) {
        // The thicker allowance ends before the row.
        Side& thick = sides[0].allowance >= sides[1].allowance ? sides[0] : sides[1];
        thick.whole -= thick.allowance;
        for (auto& part : thick.parts)
            part.times = thick.times > 1 && part.times > 1 ? part.times / thick.times
                : thick.times > 1                          ? part.times
                                                           : 0;
        std::erase_if(thick.parts, [](const BulkPart& part) { return part.times == 0; });
        --thick.times;
    }
    std::vector<BulkPart> trapped; // its end lies in the allowances; away from where other seams cross
    addTrapped(seam, trapped);
    double caught = 0;
    for (auto& part : trapped)
        part.each *= part.layer ? 1 : hammered, caught += part.times * part.each;
    const bool open = opened(seam);
    const auto sum = [&](double onA, double onB) {
        const double a = sides[0].whole + onA * sides[0].times, b = sides[1].whole + onB * sides[1].times;
        return open ? std::max(a, b) : a + b; // each row meets one of them
    };
    Bulk bulk;
    bulk.underFoot = bulk.atCrossing = sum(0, 0) + caught;
    bulk.parts = trapped;
    for (const Side& side : sides) {
        if (open && &side != (sides[0].whole >= sides[1].whole ? &sides[0] : &sides[1]))
            continue;
        for (const auto& part : side.parts) {
            bulk.parts.push_back(part);
            if (part.layer && part.times * part.each > bulk.heaviest.times * bulk.heaviest.each)
                bulk.heaviest = part;
        }
    }
    findCrossings(
        acrossOf(seam),
        [&](const std::vector<Across>& here) {
            double onA = 0, onB = 0, once = 0;
            for (const auto& each : here)
                onA += each.onA, onB += each.onB, once += each.once;
            return sum(onA, onB) + once;
        },
        bulk);
    return bulk;
}

} // namespace tectonis
