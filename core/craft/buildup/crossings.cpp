// SPDX-License-Identifier: GPL-3.0-or-later
// What lies across a seam: allowances of seams that end on it, ends of zips, a mouth that was sewn before.
#include "buildup/bulk.hpp"

#include "library/library.hpp"

#include <algorithm>

namespace tectonis {
namespace {

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
} // namespace

bool Bulks::sewnLater(const Seam& other, const Seam& seam)
{
    const std::size_t first = worked(seam.key).nth, then = worked(other.key).nth;
    return first > 0 && then > first;
}

ZipEnd Bulks::endAs(const Zip& zip, const ZipEnd& end) const
{
    ZipEnd out = end;
    if (const auto instead = m_instead.zipEnds.find(zip.key); instead != m_instead.zipEnds.end())
        out.kind = instead->second;
    return out;
}

/// mm that the turned edge of a piece adds where a run leaves it: its allowance, if it has one, folded back behind it.
double Bulks::foldBeside(const EdgeUse& use, Point leaves, double hammered) const
{
    const Piece* piece = p.piece(use.piece);
    if (!piece)
        return 0;
    for (const auto& edge : piece->edges) {
        if (edge.name == use.edge || edge.allowance <= 0 || edge.stitch.empty()
            || std::min(distance(startOf(edge.stitch), leaves), distance(endOf(edge.stitch), leaves)) > 0.01)
            continue;
        const Piece* behind = p.piece(piece->backing); // a lining strip is turned with it, a lining face is whole
        double fold = 0;
        for (const Piece* turned : {piece, behind && behind->edge(edge.name) ? behind : nullptr}) {
            if (!turned)
                continue;
            fold += p.material(p.materials.at(turned->material)).underFoot() * hammered;
            for (const auto& layer : turned->layers)
                if (lies(layer, edge.name, 0))
                    fold += p.material(layer.material).underFoot();
        }
        return fold;
    }
    return 0;
}

/// A zip's end where the run passes over its chain: beside it the panel's edge is turned over tape or tab; or else the
/// chain is thicker than the panel with that.
void Bulks::addZipEnd(const Seam& seam, const std::vector<EdgeUse>& side, std::size_t bridge, Across across,
    std::vector<Across>& out) const
{
    const ZipEnd end = endAs(*across.zip, across.zip->first); // both are alike where seams pass over them
    const double hammered = careOf(seam).hammered ? kHammered : 1;
    double fold = 0, own = 0;
    for (const bool before : {true, false}) {
        if (before ? bridge == 0 : bridge + 1 == side.size())
            continue;
        const EdgeUse& beside = side[before ? bridge - 1 : bridge + 1];
        const Run* run = p.runBehind(beside);
        if (!run || run->empty())
            continue;
        const bool last = before != beside.reversed;
        fold = std::max(fold, foldBeside(beside, last ? endOf(*run) : startOf(*run), hammered));
        own = std::max(own, sumAlong(beside, seam));
    }
    const CaughtEnd caught = caughtOf(p, *across.zip, end);
    (&side == &seam.a ? across.onA : across.onB) = std::max(
        fold + caught.beside(hammered), caught.middle(hammered) - own);
    out.push_back(across);
}

/// Seams that join neighbours of a run end on it, and their folded allowances lie across it: where both runs are joined
/// at one place, both do. So do ends of zips.
void Bulks::addAlong(const Seam& seam, bool first, double hammered, std::vector<Across>& out)
{
    const std::vector<EdgeUse>& side = first ? seam.a : seam.b;
    const double whole = first ? seam.lengthA : seam.lengthB, share = whole > 0 ? seam.lengthA / whole : 0;
    const auto on = [&](Across across, double thick) {
        (first ? across.onA : across.onB) = thick;
        return across;
    };
    double at = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        const EdgeUse &here = side[i], &before = side[i == 0 ? side.size() - 1 : i - 1];
        const Piece* piece = p.piece(here.piece);
        const Edge* edge = piece ? piece->edge(here.edge) : nullptr;
        const Run* run = edge ? &edge->stitch : p.runBehind(here);
        const double length = run ? lengthOf(*run) : 0;
        if (const Zip* zip = edge ? nullptr : zipUnder(p, here))
            addZipEnd(seam, side, i, {.at = (at + length / 2) * share, .zip = zip}, out);
        else if (side.size() > 1 && (here.piece != before.piece || here.copy != before.copy)) {
            if (const Seam* other = seamBetween(p, before, here, seam); other && !sewnLater(*other, seam))
                out.push_back(on({.at = at * share, .seam = other}, allowanceThickness(*other, hammered)));
            if (seam.mouth)
                for (const EdgeUse* wall : {&before, &here})
                    if (const auto [zip, caught] = caughtAtMouth(*wall, wall == &here); caught.beside(1) > 0)
                        out.push_back({.at = at * share, .zip = zip, .once = caught.beside(hammered)});
        }
        at += length;
    }
}

/// A zip that lies in the mouth's seam: mm of its tab or tape, where that reaches the side of the wall that it is drawn
/// on.
std::pair<const Zip*, CaughtEnd> Bulks::caughtAtMouth(const EdgeUse& wall, bool begins) const
{
    const Zip* zip = zipOn(p, wall.piece);
    const Run* run = p.runBehind(wall);
    if (!zip || zip->piece != wall.piece || !run || run->empty())
        return {};
    const Point side = begins != wall.reversed ? startOf(*run) : endOf(*run);
    return {zip, caughtOf(p, *zip, endAs(*zip, endAt(*zip, side.x > zip->at.x)))};
}

/// A mouth that is sewn flat lies across the sides that are sewn later, of both walls; with what of its zip is caught
/// there.
void Bulks::addFlatMouth(const Seam& seam, double hammered, std::vector<Across>& out)
{
    const auto mouth = std::find_if(p.seams.begin(), p.seams.end(), [](const Seam& s) { return s.flat; });
    if (mouth == p.seams.end() || &*mouth == &seam || !sewnLater(seam, *mouth))
        return;
    const auto corner = [&](const EdgeUse& use, bool begins) {
        const Run* run = p.runBehind(use);
        return !run || run->empty() ? Point{} : begins != use.reversed ? startOf(run->front()) : endOf(run->back());
    };
    for (const bool begins : {true, false}) {
        const EdgeUse& use = begins ? seam.a.front() : seam.a.back();
        const Point end = corner(use, begins);
        for (const auto* coat : {&mouth->a, &mouth->b}) {
            double along = 0; // mm of the mouth
            for (const auto& edge : *coat) {
                const Run* run = p.runBehind(edge);
                const double length = run ? lengthOf(*run) : 0;
                for (const bool first : {true, false})
                    if (edge.piece == use.piece && edge.copy == use.copy && distance(corner(edge, first), end) < 0.01) {
                        const double at = begins ? 0 : seam.lengthA;
                        const double thick = allowanceThickness(*mouth, hammered);
                        out.push_back({.at = at, .seam = &*mouth, .onA = thick, .onB = thick});
                        addFlatZip(*mouth, first ? along : along + length, at, hammered, out);
                    }
                along += length;
            }
        }
    }
}

/// The zip's end in a flat mouth so many mm along it, in both walls.
void Bulks::addFlatZip(const Seam& mouth, double along, double at, double hammered, std::vector<Across>& out) const
{
    double begin = 0;
    for (const auto& wall : mouth.a) {
        const Run* run = p.runBehind(wall);
        const double length = run ? lengthOf(*run) : 0;
        const Zip* zip = zipOn(p, wall.piece);
        if (zip && zip->piece == wall.piece && length > 0) {
            const auto here = [&](double place) { return std::abs(std::remainder(along - place, mouth.lengthA)) < 1; };
            if (here(begin) || here(begin + length)) {
                const bool start = here(begin) != wall.reversed;
                const double side = start ? startOf(run->front()).x : endOf(run->back()).x;
                const ZipEnd end = endAs(*zip, endAt(*zip, side > zip->at.x));
                const CaughtEnd both = caughtOf(p, *zip, end);
                if (const double caught = std::max(both.beside(hammered), both.middle(hammered) / 2); caught > 0)
                    out.push_back({.at = at, .zip = zip, .onA = caught, .onB = caught});
                return;
            }
        }
        begin += length;
    }
}

const std::vector<Bulks::Across>& Bulks::acrossOf(const Seam& seam)
{
    const auto [known, fresh] = m_across.try_emplace(&seam);
    if (!fresh)
        return known->second;
    const double hammered = careOf(seam).hammered ? kHammered : 1;
    std::vector<Across> out;
    for (const bool first : {true, false})
        addAlong(seam, first, hammered, out);
    if (!seam.a.empty())
        addFlatMouth(seam, hammered, out);
    return m_across[&seam] = std::move(out);
}

} // namespace tectonis
