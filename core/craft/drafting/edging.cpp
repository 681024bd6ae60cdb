// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/edging.hpp"

#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kStraightJoin = 6; // mm: allowance of a join on the straight grain (common practice, no source)

/// Left turn from one direction to the next, radians.
double turnOf(Point before, Point after) { return std::atan2(cross(before, after), dot(before, after)); }

/// How much a segment turns to the left as it is drawn.
double turnOf(const Segment& s)
{
    if (const auto* arc = std::get_if<Arc>(&s))
        return arc->sweep;
    if (std::holds_alternative<Line>(s))
        return 0;
    double turn = 0;
    for (int i = 0; i < 16; ++i)
        turn += turnOf(tangentOf(s, i / 16.0), tangentOf(s, (i + 1) / 16.0));
    return turn;
}

/// The cloth beside a run's end: how far the neighbouring edge's cut line lies beyond it.
double beyond(const Piece& piece, const EdgeId& edge, bool atEnd)
{
    const auto at = std::find_if(piece.edges.begin(), piece.edges.end(), [&](const Edge& e) { return e.name == edge; });
    if (at == piece.edges.end())
        return 0;
    const std::size_t i = std::size_t(at - piece.edges.begin()), n = piece.edges.size();
    const Edge& next = piece.edges[atEnd ? (i + 1) % n : (i + n - 1) % n];
    const Point way = atEnd ? tangentOf(at->stitch.back(), 1) : tangentOf(at->stitch.front(), 0) * -1;
    const Point along = atEnd ? tangentOf(next.stitch.front(), 0) : tangentOf(next.stitch.back(), 1) * -1;
    const double sine = std::abs(cross(way, along));
    const double allowance = atEnd ? next.allowance : next.allowanceAtEnd.value_or(next.allowance);
    return sine > 0.1 ? allowance / sine : 0;
}

} // namespace

double rawEdgeLength(const Pattern& p, const std::vector<EdgeUse>& side)
{
    double sum = 0;
    const Piece* before = nullptr;
    Point way, first;
    for (const auto& use : side) {
        const Piece* piece = p.piece(use.piece);
        const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
        const Run* run = p.runBehind(use);
        if (!run || run->empty())
            continue;
        // Along the outline, whichever way the seam takes it.
        const double s = edge ? (edge->allowance + edge->allowanceAtEnd.value_or(edge->allowance)) / 2 : 0;
        sum += lengthOf(*run);
        for (std::size_t i = 0; i < run->size(); ++i) {
            sum += s * turnOf((*run)[i]);
            if (i + 1 < run->size())
                sum += 2 * s * std::tan(turnOf(tangentOf((*run)[i], 1), tangentOf((*run)[i + 1], 0)) / 2);
        }
        const double sign = use.reversed ? -1 : 1;
        const Point starts = use.reversed ? tangentOf(run->back(), 1) * -1 : tangentOf(run->front(), 0);
        if (before == piece)
            sum += 2 * s * std::tan(sign * turnOf(way, starts) / 2);
        else if (!before)
            first = starts;
        way = use.reversed ? tangentOf(run->front(), 0) * -1 : tangentOf(run->back(), 1);
        before = piece;
    }
    if (side.empty() || !before)
        return sum;
    const Run begin = p.runOf(side.front()), end = p.runOf(side.back());
    if (side.front().piece == side.back().piece && distance(startOf(begin), endOf(end)) < 0.01) {
        const Edge* edge = before->edge(side.back().edge);
        sum += 2 * (edge ? edge->allowance : 0) * std::tan((side.back().reversed ? -1 : 1) * turnOf(way, first) / 2);
    } else {
        sum += beyond(*p.piece(side.front().piece), side.front().edge, side.front().reversed);
        sum += beyond(*before, side.back().edge, !side.back().reversed);
    }
    return sum;
}

bool curves(const Pattern& p, const std::vector<EdgeUse>& side)
{
    return std::any_of(side.begin(), side.end(), [&](const EdgeUse& use) {
        const Run* run = p.runBehind(use);
        return run
            && std::any_of(run->begin(), run->end(), [](const Segment& s) { return !std::holds_alternative<Line>(s); });
    });
}

JoinedStrips workStrips(Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double whole,
    double width, bool bias, const Material& cloth)
{
    JoinedStrips out;
    out.perJoin = bias ? width : 2 * kStraightJoin;
    const double longest = std::max(bias ? 1.3 * cloth.width : cloth.width - 20, out.perJoin + 100);
    while (out.count * longest < whole + (out.count - 1) * out.perJoin)
        ++out.count;
    out.length = d.work({subject, key.sub("strip"), std::move(label), "(whole + joins*lost)/strips",
        {{"whole", whole}, {"joins", out.count - 1.0}, {"lost", out.perJoin}, {"strips", double(out.count)}}, 0,
        Working::Kind::Trade, "mm",
        bias ? say("a bias join is laid at right angles and sewn from corner to corner: it takes one strip width")
             : say("each join takes two allowances of {}", Len(6))});
    return out;
}

} // namespace tectonis
