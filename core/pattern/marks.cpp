// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/marks.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kLeastEdge = 60;   // mm: shorter edges need no centre mark (common practice, no source)
constexpr double kLongRun = 400;    // mm: longer runs get quarter marks (common practice, no source)
constexpr double kTooNear = 4;      // mm between two notches of one edge, and from its ends

/// Worth more first: a centre that falls beside a join gives way to it.
enum class Mark { Stop, Join, Corner, Centre, Quarter };

const char* nameOf(Mark m)
{
    static constexpr const char* names[] = {"seam ends", "join", "corner", "centre", "quarter"};
    return names[int(m)];
}

struct Wanted {
    double share; ///< of the whole run, 0 to 1
    Mark mark;
};

/// One edge of a side, looked up once.
struct Place {
    const EdgeUse* use;
    Piece* piece;
    bool isEdge = false; ///< false: a placement line, which carries no notches
    bool corner = false;
    double length = 0;
};

std::vector<Place> placesOf(Pattern& p, const std::vector<EdgeUse>& side)
{
    std::vector<Place> out;
    out.reserve(side.size());
    for (const auto& use : side) {
        auto* piece = const_cast<Piece*>(p.piece(use.piece)); // of this pattern, which is ours to change
        const Run* run = p.runBehind(use);
        if (piece && run)
            out.push_back({&use, piece, piece->edge(use.edge) != nullptr, run->size() == 1 && std::holds_alternative<Arc>(run->front()), lengthOf(*run)});
    }
    return out;
}

/// What one side asks for: its own centres, corners and joins, as shares of its length.
void collect(const std::vector<Place>& side, double whole, std::vector<Wanted>& out)
{
    double at = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        if (i > 0) {
            const bool join = side[i].piece != side[i - 1].piece || side[i].use->copy != side[i - 1].use->copy;
            if (join)
                out.push_back({at / whole, Mark::Join});
            else if (side[i].corner || side[i - 1].corner)
                out.push_back({at / whole, Mark::Corner});
        }
        if (!side[i].corner && side[i].length >= kLeastEdge)
            out.push_back({(at + side[i].length / 2) / whole, Mark::Centre});
        at += side[i].length;
    }
}

void placeAt(const std::vector<Place>& side, double whole, const Wanted& wanted)
{
    double along = wanted.share * whole;
    for (const auto& place : side) {
        if (along > place.length + 1e-9) {
            along -= place.length;
            continue;
        }
        // The second of two mirrored copies is cut from the same piece: its mark is there already.
        if (place.use->copy > 0 || !place.isEdge)
            return;
        const double at = place.use->reversed ? place.length - along : along;
        const bool atCorner = wanted.mark == Mark::Corner; // edge boundaries carry their mark at the end of the edge
        if (!atCorner && (at < kTooNear || at > place.length - kTooNear))
            return;
        auto& notches = place.piece->notches;
        const bool taken = std::any_of(notches.begin(), notches.end(), [&](const Notch& k) { return std::abs(k.along - at) < kTooNear && k.edge == place.use->edge; });
        if (!taken)
            notches.push_back({place.use->edge, at, nameOf(wanted.mark), wanted.mark == Mark::Stop});
        return;
    }
}

} // namespace

void placeMatchMarks(Pattern& p)
{
    for (const auto& seam : p.seams) {
        if (seam.stitch != "construction" || seam.lengthA <= 0 || seam.lengthB <= 0)
            continue;
        const auto a = placesOf(p, seam.a), b = placesOf(p, seam.b);
        std::vector<Wanted> wanted{{0.5, Mark::Centre}};
        if (std::max(seam.lengthA, seam.lengthB) > kLongRun)
            wanted.insert(wanted.end(), {{0.25, Mark::Quarter}, {0.75, Mark::Quarter}});
        if (seam.openStart > 0)
            wanted.push_back({seam.openStart / seam.lengthA, Mark::Stop});
        if (seam.openEnd > 0)
            wanted.push_back({1 - seam.openEnd / seam.lengthA, Mark::Stop});
        collect(a, seam.lengthA, wanted);
        collect(b, seam.lengthB, wanted);
        std::stable_sort(wanted.begin(), wanted.end(), [](const Wanted& x, const Wanted& y) { return x.mark < y.mark; });
        std::vector<Wanted> kept;
        for (const auto& w : wanted)
            if (std::none_of(kept.begin(), kept.end(), [&](const Wanted& k) { return std::abs(k.share - w.share) * seam.lengthA < kTooNear; }))
                kept.push_back(w);
        for (const auto& w : kept) {
            placeAt(a, seam.lengthA, w);
            placeAt(b, seam.lengthB, w);
        }
    }
}

} // namespace tectonis
