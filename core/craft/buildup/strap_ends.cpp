// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/strap_ends.hpp"

#include "library/library.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// Adds a piece with what lies behind the whole of it, @p times.
void addStack(const Pattern& p, const Piece& piece, int times, Bulk& bulk)
{
    bulk.parts.push_back({&piece, nullptr, times, p.material(p.materials.at(piece.material)).underFoot()});
    for (const auto& layer : piece.layers)
        if (layer.wholePiece)
            bulk.parts.push_back({&piece, &layer, times, p.material(layer.material).underFoot()});
}

double sumOf(const Bulk& bulk)
{
    double sum = 0;
    for (const auto& part : bulk.parts)
        sum += part.times * part.each;
    return sum;
}

/// @p on: the piece that it is sewn to; empty where it is sewn to itself.
void addEnd(const Pattern& p, const PieceId& strap, int times, const std::vector<PieceId>& on,
    std::vector<StrapEnd>& out, const Message& name = {})
{
    const Piece* piece = p.piece(strap);
    if (!piece || std::any_of(out.begin(), out.end(), [&](const StrapEnd& end) { return end.piece == strap; }))
        return;
    StrapEnd end{
        .piece = strap, .name = say("End of the {}", within(name.empty() ? piece->name : name)), .times = times};
    addStack(p, *piece, times * std::max(1, piece->plies), end.bulk);
    const std::size_t own = end.bulk.parts.size();
    for (const auto& key : on)
        if (const Piece* face = p.piece(key))
            addStack(p, *face, 1, end.bulk);
    if (piece->endsHammered)
        for (auto& part : end.bulk.parts)
            part.each *= part.layer ? 1 : kHammered;
    end.bulk.underFoot = end.bulk.atCrossing = sumOf(end.bulk);
    for (std::size_t i = own; i < end.bulk.parts.size(); ++i)
        end.others += end.bulk.parts[i].times * end.bulk.parts[i].each;
    out.push_back(std::move(end));
}

} // namespace

int layersAtEnd(Strap::Worn worn, bool turned)
{
    switch (worn) {
    case Strap::Worn::Wrist: return turned ? 5 : 4;
    case Strap::Worn::Waist: return 3;
    default: return turned ? 3 : 2;
    }
}

bool sewsEnds(const Act& act)
{
    using enum Act::Verb;
    return !act.pieces.empty()
        && (act.verb == BoxOn || act.verb == ThreadStrap || act.verb == ThreadTails
            || (act.verb == FoldIn && !act.seams.empty()));
}

bool endsByHand(const Pattern& p, const Act& act)
{
    const Piece* piece = sewsEnds(act) ? p.piece(act.pieces.front()) : nullptr;
    if (!piece || !piece->endsByHand)
        return false;
    const auto ends = strapEnds(p);
    return std::any_of(ends.begin(), ends.end(), [&](const StrapEnd& end) {
        return end.piece == piece->key && end.bulk.underFoot > p.workshop.machineLimit + 0.001;
    });
}

std::vector<StrapEnd> strapEnds(const Pattern& p)
{
    std::vector<StrapEnd> out;
    for (const auto& strap : p.straps)
        addEnd(p, strap.piece, layersAtEnd(strap.worn, strap.turned), {}, out, strap.name);
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == Act::Verb::BoxOn && act.pieces.size() > 1)
                addEnd(p, act.pieces.front(), act.taken > 0 ? 2 : 1, {act.pieces.back()}, out);
            else if (act.verb == Act::Verb::ThreadTails && act.fittings.empty() && !act.pieces.empty())
                addEnd(p, act.pieces.front(), 3, {}, out);
            else if (act.verb == Act::Verb::FoldIn && !act.seams.empty() && !act.pieces.empty())
                // A padded strap: its edge is folded in, its underside's with it, and stitched onto a face.
                if (const Piece* upper = p.piece(act.pieces.front()); upper && upper->role == "shoulder strap") {
                    std::vector<PieceId> on;
                    for (const auto& seam : p.seams)
                        if (std::any_of(seam.a.begin(), seam.a.end(),
                                [&](const EdgeUse& use) { return use.piece == upper->key; })
                            && !seam.b.empty())
                            on = {seam.b.front().piece, seam.b.front().piece};
                    if (const Seam* sewn = p.seam(act.seams.front()))
                        on.push_back(sewn->a.front().piece);
                    addEnd(p, upper->key, 2, on, out);
                }
    return out;
}

} // namespace tectonis
