// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/marks.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kLeastEdge = 60;   // mm: shorter edges need no centre mark (common practice, no source)
constexpr double kLongRun = 400;    // mm: longer runs get quarter marks (common practice, no source)
constexpr double kTooNear = 4;      // mm between two notches of one edge, and from its ends

struct Wanted {
    double share; ///< of the whole run, 0 to 1
    std::string label;
};

bool isCorner(const Pattern& p, const EdgeUse& use)
{
    const Run* run = p.runBehind(use);
    return run && run->size() == 1 && std::holds_alternative<Arc>(run->front());
}

/// What one side asks for: its own centres, corners and joins, as shares of its length.
void collect(const Pattern& p, const std::vector<EdgeUse>& side, double whole, std::vector<Wanted>& out)
{
    double at = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        const double n = lengthOf(*p.runBehind(side[i]));
        const bool corner = isCorner(p, side[i]);
        if (i > 0) {
            const bool join = side[i].piece != side[i - 1].piece || side[i].copy != side[i - 1].copy;
            if (join)
                out.push_back({at / whole, "join"});
            else if (corner || isCorner(p, side[i - 1]))
                out.push_back({at / whole, "corner"});
        }
        if (!corner && n >= kLeastEdge)
            out.push_back({(at + n / 2) / whole, "centre"});
        at += n;
    }
}

void placeAt(Pattern& p, const std::vector<EdgeUse>& side, double whole, const Wanted& wanted)
{
    double along = wanted.share * whole;
    for (const auto& use : side) {
        const double n = lengthOf(*p.runBehind(use));
        if (along > n + 1e-9) {
            along -= n;
            continue;
        }
        // The second of two mirrored copies is cut from the same piece: its mark is there already.
        if (use.copy > 0)
            return;
        const double at = use.reversed ? n - along : along;
        const auto it = std::find_if(p.pieces.begin(), p.pieces.end(), [&](const Piece& q) { return q.key == use.piece; });
        if (it == p.pieces.end() || !it->edge(use.edge))
            return;
        const bool atCorner = wanted.label == "corner"; // edge boundaries carry their mark at the end of the edge
        if (!atCorner && (at < kTooNear || at > n - kTooNear))
            return;
        const bool taken = std::any_of(it->notches.begin(), it->notches.end(),
                                       [&](const Notch& k) { return k.edge == use.edge && std::abs(k.along - at) < kTooNear; });
        if (!taken)
            it->notches.push_back({use.edge, at, wanted.label, false});
        return;
    }
}

} // namespace

void placeMatchMarks(Pattern& p)
{
    for (const auto& seam : p.seams) {
        if (seam.stitch != "construction" || seam.lengthA <= 0 || seam.lengthB <= 0)
            continue;
        std::vector<Wanted> wanted{{0.5, "centre"}};
        if (std::max(seam.lengthA, seam.lengthB) > kLongRun)
            wanted.insert(wanted.end(), {{0.25, "quarter"}, {0.75, "quarter"}});
        collect(p, seam.a, seam.lengthA, wanted);
        collect(p, seam.b, seam.lengthB, wanted);
        // Joins and corners first: they are worth more than a centre that falls beside them.
        std::stable_sort(wanted.begin(), wanted.end(), [](const Wanted& a, const Wanted& b) {
            const auto rank = [](const std::string& l) { return l == "join" ? 0 : l == "corner" ? 1 : l == "centre" ? 2 : 3; };
            return rank(a.label) < rank(b.label);
        });
        std::vector<Wanted> kept;
        for (const auto& w : wanted)
            if (std::none_of(kept.begin(), kept.end(), [&](const Wanted& k) { return std::abs(k.share - w.share) * seam.lengthA < kTooNear; }))
                kept.push_back(w);
        for (const auto& w : kept) {
            placeAt(p, seam.a, seam.lengthA, w);
            placeAt(p, seam.b, seam.lengthB, w);
        }
    }
}

} // namespace tectonis
