// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/bulk.hpp"

#include "library/library.hpp"
#include "pattern/seam_shape.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kTopstitch = 3.2; // mm from the seam (common practice, no source)
constexpr double kHammered = 0.85; // of a cloth's thickness is left (common practice, no source; from memory)
constexpr double kAround = 40;     // mm sewn by hand where a crossing is too thick (common practice, no source)

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

/// The seam that joins two neighbours of a run where they meet; null where they are only laid side by side.
const Seam* seamBetween(const Pattern& p, const EdgeUse& before, const EdgeUse& after, const Seam& own)
{
    const auto begins = [&](const EdgeUse& use) {
        const Run* run = p.runBehind(use);
        return !run || run->empty() ? Point{} : use.reversed ? endOf(run->back()) : startOf(run->front());
    };
    const auto stops = [&](const EdgeUse& use) {
        const Run* run = p.runBehind(use);
        return !run || run->empty() ? Point{} : use.reversed ? startOf(run->front()) : endOf(run->back());
    };
    const Point leaves = stops(before), arrives = begins(after); // the place where they meet, on each piece
    const auto ends = [&](const std::vector<EdgeUse>& side, const EdgeUse& use, bool first) {
        const EdgeUse& end = first ? side.front() : side.back();
        if (end.piece != use.piece || end.copy != use.copy)
            return false;
        return distance(first ? begins(end) : stops(end), &use == &before ? leaves : arrives) < 0.01;
    };
    for (const auto& other : p.seams) {
        if (&other == &own || other.stitch != "construction" || other.a.empty() || other.b.empty())
            continue;
        for (const bool first : {true, false}) // it begins or ends on the run
            if ((ends(other.a, before, first) && ends(other.b, after, first))
                || (ends(other.a, after, first) && ends(other.b, before, first)))
                return &other;
    }
    return nullptr;
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
/// overlays of which an edge lies there, pleats.
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

Bulk Bulks::at(const Seam& seam)
{
    Bulk bulk;
    double most = 0;
    for (const auto* side : {&seam.a, &seam.b})
        if (const EdgeUse* use = thickestOf(*side, seam))
            forEachCaught(*use, seam, [&](const BulkPart& caught) {
                bulk.parts.push_back(caught);
                if (caught.layer && caught.each > most)
                    most = caught.each, bulk.heaviest = caught;
            });
    if (const Piece* binding = p.piece(seam.bound))
        bulk.parts.push_back({binding, nullptr, 4,
            p.material(p.materials.at(binding->material)).underFoot()}); // folded in on both sides of the edge
    if (seam.enclosed)                                                   // the allowances once more
        for (auto& part : bulk.parts)
            part.times *= 2;
    const std::size_t along = bulk.parts.size(); // what follows lies away from where other seams cross
    for (const auto& key : trappedAtOnce(p, seam)) {
        const Piece* piece = p.piece(key);
        if (!piece)
            continue;
        bulk.parts.push_back({piece, nullptr, piece->plies, p.material(p.materials.at(piece->material)).underFoot()});
        for (const auto& layer : piece->layers)
            if (layer.wholePiece && !trimmed(layer)
                && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) { return r.second > 0; }))
                bulk.parts.push_back({piece, &layer, 1, p.material(layer.material).underFoot()});
    }
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
    if (!careOf(seam).aside)
        findCrossings(seam, plain, bulk);
    return bulk;
}

void Bulks::findCrossings(const Seam& seam, double plain, Bulk& bulk)
{
    // Seams that join neighbours of either run end on it, and their folded allowances lie across it: where both runs
    // are joined at one place, both do.
    std::vector<std::pair<double, const Seam*>> crossings;
    for (const auto* side : {&seam.a, &seam.b}) {
        double at = 0;
        const double whole = side == &seam.a ? seam.lengthA : seam.lengthB;
        for (std::size_t i = 0; i < side->size(); ++i) {
            const EdgeUse &here = (*side)[i], &before = (*side)[i == 0 ? side->size() - 1 : i - 1];
            if (side->size() > 1 && (here.piece != before.piece || here.copy != before.copy))
                if (const Seam* other = seamBetween(p, before, here, seam))
                    crossings.push_back({whole > 0 ? at / whole : 0, other});
            if (const Run* run = p.runBehind(here))
                at += lengthOf(*run);
        }
    }
    const double hammered = careOf(seam).hammered ? kHammered : 1;
    struct Place {
        double at = 0, thick = 0;
        std::vector<const Seam*> seams;
    };
    std::vector<Place> places;
    for (const auto& [at, other] : crossings) {
        const auto here = std::find_if(places.begin(), places.end(),
            [&, at = at](const Place& place) { return std::abs(place.at - at) * seam.lengthA < 1; });
        const auto nth = std::size_t(here - places.begin());
        if (nth == places.size())
            places.push_back({at, plain, {}});
        Place& place = places[nth];
        if (std::find(place.seams.begin(), place.seams.end(), other) == place.seams.end()) {
            place.seams.push_back(other);
            place.thick += allowanceThickness(*other, hammered);
        }
    }
    const Place* worst = nullptr;
    for (const auto& place : places) {
        bulk.everyCrossing.push_back(place.thick);
        if (place.thick > bulk.atCrossing)
            worst = &place, bulk.atCrossing = place.thick;
    }
    if (!worst)
        return;
    for (const Seam* other : worst->seams)
        bulk.crossing = bulk.crossing.empty() ? other->name : say("{} and {}", bulk.crossing, other->name);
    const double limit = p.workshop.machineLimit + 0.001;
    for (const auto& place : places)
        if (place.thick > (bulk.atCrossing > limit ? limit : bulk.atCrossing - 0.005))
            for (const Seam* other : place.seams)
                if (std::find(bulk.crossedBy.begin(), bulk.crossedBy.end(), other->key) == bulk.crossedBy.end())
                    bulk.crossedBy.push_back(other->key);
}

Bulk Bulks::underTopstitch(const Seam& seam) const
{
    Bulk bulk;
    std::vector<std::vector<BulkPart>> sides;
    std::vector<double> allowance, whole; // mm, of each side
    const double hammered = careOf(seam).hammered ? kHammered : 1;
    for (const auto* side : {&seam.a, &seam.b}) {
        const EdgeUse* thickest = thickestOf(*side, seam);
        const Piece* piece = thickest ? p.piece(thickest->piece) : nullptr;
        if (!piece)
            continue;
        sides.emplace_back(), allowance.push_back(0), whole.push_back(0);
        const auto add = [&](BulkPart part) {
            part.each *= part.layer ? 1 : hammered;
            whole.back() += part.times * part.each;
            sides.back().push_back(part);
        };
        // The piece itself and its own allowance behind it.
        forEachCaught(*thickest, seam, [&](BulkPart caught) {
            allowance.back() += caught.times * caught.each * (caught.layer ? 1 : hammered);
            caught.times *= 2;
            add(caught);
        });
        for (const auto& layer : piece->layers)
            if (lies(layer, thickest->edge, kTopstitch) && !lies(layer, thickest->edge, 0))
                add({piece, &layer, 1, p.material(layer.material).underFoot()});
    }
    if (careOf(seam).graded && sides.size() == 2) { // the thicker allowance ends before the row
        const std::size_t thick = allowance[0] >= allowance[1] ? 0 : 1;
        whole[thick] -= allowance[thick];
        for (auto& part : sides[thick])
            if (part.times > 1)
                part.times /= 2;
    }
    if (opened(seam) && sides.size() == 2) {
        const std::size_t thin = whole[0] >= whole[1] ? 1 : 0;
        whole[thin] = 0, sides[thin].clear();
    }
    for (std::size_t i = 0; i < sides.size(); ++i) {
        bulk.underFoot += whole[i];
        for (const auto& part : sides[i]) {
            bulk.parts.push_back(part);
            if (part.layer && part.times * part.each > bulk.heaviest.times * bulk.heaviest.each)
                bulk.heaviest = part;
        }
    }
    bulk.atCrossing = bulk.underFoot;
    return bulk;
}

Message whyNotGraded(const Pattern& pattern, const Seam& seam)
{
    // While it is drafted its steps are not there yet.
    if (!pattern.steps.empty() && std::none_of(pattern.steps.begin(), pattern.steps.end(), [&](const Step& step) {
            return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
                return act::joins(act) && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
            });
        }))
        return say("it is made with its strip.");
    if (seam.stitch == "baste")
        return say("it is only basted.");
    if (!seam.bound.empty() || seam.enclosed)
        return say("its allowances are bound or enclosed, and must be level for that.");
    if (!seam.rawOutside.empty() || seam.stitch == "topstitch")
        return say("it is lapped or stitched on: it has no two allowances.");
    return {};
}

Message whyNotOpened(const Pattern& p, const Seam& seam)
{
    if (Message why = whyNotGraded(p, seam); !why.empty())
        return why;
    if (!seam.trapped.empty())
        return say("something is caught in it: its allowances must lie away from that.");
    if (seam.mouth)
        return say("shell and lining are turned on it.");
    if (shapeOf(p, seam.a).bends() || shapeOf(p, seam.b).bends())
        return say("it goes round curves or corners.");
    return {};
}

double thickAt(const Pattern& p, const Seam& seam, ThickSpot spot, const Instead& instead)
{
    Bulks bulks(p, instead);
    if (spot == ThickSpot::Topstitch)
        return bulks.underTopstitch(seam).underFoot;
    const Bulk bulk = bulks.at(seam);
    return spot == ThickSpot::Row ? bulk.underFoot : bulk.atCrossing;
}

namespace {

/// One of the remedies that are a seam's care.
Remedy ofCare(const Pattern& p, const Seam& seam, ThickSpot spot, Remedy::Kind kind, bool SeamCare::*flag,
    const std::vector<SeamId>& where)
{
    Remedy out{.kind = kind, .seams = where};
    Instead with, without;
    out.done = !where.empty();
    for (const auto& key : where) {
        const SeamCare care = p.seam(key)->care;
        out.done = out.done && care.*flag;
        with.care[key] = without.care[key] = care;
        with.care[key].*flag = true, without.care[key].*flag = false;
    }
    out.leaves = thickAt(p, seam, spot, with);
    out.gain = std::max(0.0, thickAt(p, seam, spot, without) - out.leaves);
    return out;
}

} // namespace

bool isTopstitched(const Pattern& p, const Seam& seam)
{
    return std::any_of(p.steps.begin(), p.steps.end(), [&](const Step& step) {
        return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
            return act.verb == Act::Verb::Topstitch
                && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
        });
    });
}

ThickSpot worstSpot(const Pattern& p, const Seam& seam)
{
    const double limit = p.workshop.machineLimit + 0.001;
    const Bulk bulk = bulkAt(p, seam);
    if (bulk.underFoot > limit)
        return ThickSpot::Row;
    if (bulk.atCrossing <= limit && isTopstitched(p, seam) && bulkUnderTopstitch(p, seam).underFoot > limit)
        return ThickSpot::Topstitch;
    return bulk.atCrossing > bulk.underFoot + 0.001 ? ThickSpot::Crossing : ThickSpot::Row;
}

std::vector<Remedy> remediesFor(const Pattern& p, const Seam& seam, ThickSpot spot)
{
    using Kind = Remedy::Kind;
    Bulks now(p);
    const Bulk bulk = spot == ThickSpot::Topstitch ? now.underTopstitch(seam) : now.at(seam);
    const double thick = spot == ThickSpot::Crossing ? bulk.atCrossing : bulk.underFoot;
    const Message useless = spot == ThickSpot::Row ? say("In the row itself both allowances lie as they are.")
                                                   : say("No other seam's allowances lie across it.");
    std::vector<Remedy> out;

    Remedy trim{.kind = Kind::Trim, .seams = {seam.key}, .layer = bulk.heaviest, .leaves = thick};
    if (!bulk.heaviest.layer || bulk.heaviest.layer->rule < 0)
        trim.whyNot = say("No interlining of its pieces' rules lies there.");
    else {
        const Layer& layer = *bulk.heaviest.layer; // and what of the other pieces with its rules lies there
        trim.leaves = thickAt(p, seam, spot, {.trimmed = {{layer.rules, layer.rule}}});
        trim.gain = thick - trim.leaves;
    }
    out.push_back(trim);

    // In a topstitched row its own allowances lie, at a crossing those of what crosses it.
    const std::vector<SeamId> folded = spot == ThickSpot::Topstitch ? std::vector{seam.key}
        : spot == ThickSpot::Crossing                               ? bulk.crossedBy
                                                                    : std::vector<SeamId>();
    const auto add = [&](Kind kind, bool SeamCare::*flag, std::vector<SeamId> where, auto why) {
        Message reason;
        std::erase_if(where, [&](const SeamId& key) {
            const Message no = why(*p.seam(key));
            if (!no.empty())
                reason = no;
            return !no.empty();
        });
        Remedy remedy = ofCare(p, seam, spot, kind, flag, where);
        if (!remedy.done && remedy.gain < 0.005)
            remedy.whyNot = !reason.empty() ? say("Not here: {}", reason) : useless;
        out.push_back(remedy);
    };
    add(Kind::Grade, &SeamCare::graded, folded, [&](const Seam& s) { return whyNotGraded(p, s); });
    add(Kind::Open, &SeamCare::open, folded, [&](const Seam& s) {
        return s.pressedOpen && !s.care.open ? say("it is pressed open already.") : whyNotOpened(p, s);
    });
    const auto any = [](const Seam&) { return Message(); };
    add(Kind::Aside, &SeamCare::aside,
        spot == ThickSpot::Crossing || seam.care.aside ? std::vector{seam.key} : std::vector<SeamId>(), any);
    add(Kind::Hammer, &SeamCare::hammered, {seam.key}, any);
    Remedy hand{.kind = Kind::Hand, .seams = {seam.key}, .leaves = thick, .done = seam.care.byHand};
    out.push_back(hand);
    return out;
}

double sewnByHand(const Pattern& p, const Seam& seam, ThickSpot spot)
{
    if (!seam.care.byHand)
        return 0;
    const double limit = p.workshop.machineLimit + 0.001;
    if (spot == ThickSpot::Topstitch)
        return bulkUnderTopstitch(p, seam).underFoot > limit ? seam.lengthA : 0;
    const Bulk bulk = bulkAt(p, seam);
    if (bulk.underFoot > limit)
        return seam.lengthA;
    return std::min(seam.lengthA,
        kAround * double(std::count_if(bulk.everyCrossing.begin(), bulk.everyCrossing.end(), [&](double mm) {
            return mm > limit;
        })));
}

} // namespace tectonis
