// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/pocket_bags.hpp"

#include "pattern/act.hpp"
#include "pattern/site_at.hpp"

#include <algorithm>
#include <array>
#include <set>
#include <unordered_map>

namespace tectonis {
namespace {

constexpr double kClear = 0.05; // mm: nearer to the stitch line nothing is caught
constexpr double kBagStep = 2;  // mm along a stitch line

/// The pieces of the faces that a bag hangs behind.
std::set<PieceId> behind(const Pattern& p, const PieceId& face)
{
    std::set<PieceId> out{face};
    for (const auto& site : p.sites)
        if (std::find(site.pieces.begin(), site.pieces.end(), face) != site.pieces.end())
            out.insert(site.pieces.begin(), site.pieces.end());
    return out;
}

/// How far a bag reaches past stitch lines with each of its sides, by CaughtBag::Way.
using Past = std::array<double, 4>;

/// Past an edge with that side which has to go back least, so that none of the edge lies on the bag.
void look(const Run& stitch, const Box& area, int turn, Past& out)
{
    const double length = lengthOf(stitch);
    Past back{};
    for (double along = 0; along <= length + kBagStep; along += kBagStep) {
        const Point at = quarterTurned(pointAlong(stitch, std::min(along, length)), turn);
        if (!area.contains(at))
            continue;
        const Past here{at.x - area.x0, area.x1 - at.x, at.y - area.y0, area.y1 - at.y};
        for (std::size_t way = 0; way < back.size(); ++way)
            back[way] = std::max(back[way], here[way]);
    }
    const auto least = std::size_t(std::min_element(back.begin(), back.end()) - back.begin());
    out[least] = std::max(out[least], back[least]);
}

/// Is it a seam across a face, between the halves that it was cut into: do both sides lie beside each other? Those of a
/// wall that is folded onto itself lie apart.
bool crossesFace(const Pattern& p, const Seam& seam)
{
    constexpr double gap = 60; // mm: more than any zip shows
    const auto middle = [&](const EdgeUse& use) {
        const Run run = p.runOf(use);
        return pointAlong(run, lengthOf(run) / 2);
    };
    return std::any_of(seam.b.begin(), seam.b.end(),
        [&](const EdgeUse& use) { return distance(middle(use), middle(seam.a.front())) < gap; });
}

} // namespace

std::vector<CaughtBag> caughtBags(const Pattern& p)
{
    std::vector<CaughtBag> out;
    if (p.bags.empty())
        return out;
    std::unordered_map<SeamId, int> sewn; // the how many-eth seam it is, from 1
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act::joins(act))
                for (const auto& key : act.seams)
                    sewn.try_emplace(key, int(sewn.size()) + 1);
    const auto whenSewn = [&](const Seam& seam) {
        const auto at = sewn.find(seam.key);
        return at == sewn.end() ? 0 : at->second;
    };
    for (const auto& bag : p.bags) {
        const auto ofBag = [&](const EdgeUse& use) {
            return std::find(bag.layers.begin(), bag.layers.end(), use.piece) != bag.layers.end();
        };
        const auto holds = [](const std::vector<EdgeUse>& side, const auto& what) {
            return std::any_of(side.begin(), side.end(), what);
        };
        int hangs = 0; // since then
        for (const auto& seam : p.seams)
            if (holds(seam.a, ofBag) || holds(seam.b, ofBag))
                if (const int when = whenSewn(seam); when > 0 && (hangs == 0 || when < hangs))
                    hangs = when;
        const std::set<PieceId> faces = behind(p, bag.face);
        const Site* face = siteAt(p, bag.face, bag.area.centre());
        const int turn = face ? face->turn : 0; // a front may hang head down
        const Box area = face ? face->upright(bag.area) : bag.area;
        const auto ofFace = [&](const EdgeUse& use) { return faces.contains(use.piece); };
        for (const auto& seam : p.seams) {
            const bool a = holds(seam.a, ofFace), b = holds(seam.b, ofFace);
            if ((!a && !b) || (a && b && crossesFace(p, seam)) || seam.stitch == "baste" || holds(seam.a, ofBag)
                || holds(seam.b, ofBag) || whenSewn(seam) <= hangs)
                continue;
            Past past{};
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (const Piece* piece = ofFace(use) ? p.piece(use.piece) : nullptr)
                        if (const Edge* edge = piece->edge(use.edge))
                            look(edge->stitch, area, turn, past);
            for (std::size_t way = 0; way < past.size(); ++way)
                if (past[way] > kClear)
                    out.push_back({&bag, &seam, CaughtBag::Way(way), past[way]});
        }
    }
    return out;
}

} // namespace tectonis
