// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/marks.hpp"

#include <algorithm>
#include <optional>

namespace tectonis {
namespace {

constexpr double kLeastEdge = 60; // mm: shorter edges need no centre mark (common practice, no source)
constexpr double kLongRun = 400;  // mm: longer runs get quarter marks (common practice, no source)
constexpr double kTooNear = 4;    // mm: a centre or quarter this near to a join or stop gives way to it
constexpr double kSame = 0.005;   // mm: two marks are one
constexpr double kSharp = 0.26;   // radians (15°): a stitch line that turns more has a corner

/// Worth more first. Joins, stops and seam ends are always marked; the others give way to what lies beside them.
enum class Mark { SeamEnd, Stop, Join, Corner, Centre, Quarter };

Message nameOf(Mark m)
{
    switch (m) {
    case Mark::SeamEnd: return say("seam ends");
    case Mark::Stop: return say("stop");
    case Mark::Join: return say("join");
    case Mark::Corner: return say("corner");
    case Mark::Centre: return say("centre");
    case Mark::Quarter: return say("quarter");
    }
    return {};
}

bool isStop(Mark m) { return m == Mark::SeamEnd || m == Mark::Stop; }

struct Wanted {
    double at; ///< as a share of the whole run, 0 to 1
    Mark mark;
};

/// One edge of a side, looked up once.
struct Stretch {
    const EdgeUse* use;
    Piece* piece;
    const Run* run;
    bool onCloth = false; ///< false: a line on a face, or what a zip shows, where no notch can be
    double length = 0;
    bool curved() const { return !std::holds_alternative<Line>(run->front()); }
    Point tangentAtStart() const { return use->reversed ? tangentOf(run->back(), 1) * -1 : tangentOf(run->front(), 0); }
    Point tangentAtEnd() const { return use->reversed ? tangentOf(run->front(), 0) * -1 : tangentOf(run->back(), 1); }
    Point start() const { return use->reversed ? endOf(run->back()) : startOf(run->front()); }
    Point end() const { return use->reversed ? startOf(run->front()) : endOf(run->back()); }
};

/// One side of a seam with what a hand finds on it without a mark: its own joins and sharp corners.
struct Side {
    std::vector<Stretch> stretches;
    double whole = 0;
    bool closed = false;           ///< the outline of one piece, once round
    std::vector<double> landmarks; ///< mm
};

bool sharp(Point before, Point after)
{
    static const double least = std::cos(kSharp);
    return dot(before, after) < least;
}

bool sameArc(const Stretch& a, const Stretch& b)
{
    const auto *p = std::get_if<Arc>(&a.run->front()), *q = std::get_if<Arc>(&b.run->front());
    return p && q && std::abs(p->radius - q->radius) < kSame && distance(p->centre, q->centre) < kSame;
}

Side sideOf(Pattern& p, const std::vector<EdgeUse>& uses, double whole)
{
    Side side;
    side.whole = whole;
    side.stretches.reserve(uses.size());
    for (const auto& use : uses) {
        auto* piece = const_cast<Piece*>(p.piece(use.piece)); // of this pattern, which is ours to change
        if (!piece)
            continue;
        const Edge* edge = piece->edge(use.edge);
        const Run* run = edge ? &edge->stitch : p.runBehind(use);
        if (run && !run->empty())
            side.stretches.push_back({&use, piece, run, edge != nullptr, lengthOf(*run)});
    }
    if (side.stretches.empty())
        return side;
    const Stretch &first = side.stretches.front(), &last = side.stretches.back();
    side.closed = first.piece == last.piece && first.use->copy == last.use->copy
        && distance(first.start(), last.end()) < kSame;
    return side;
}

/// What one side asks its mate for, and what it has itself: joins, corners, centres.
void collect(Side& side, std::vector<Wanted>& out)
{
    double at = 0;
    const auto ask = [&](double along, Mark mark) { out.push_back({along / side.whole, mark}); };
    double from = 0; // where the piece that the run lies on began
    const auto askQuarters = [&] {
        const double length = at - from;
        if (length < kLeastEdge)
            return;
        ask(from + length / 2, Mark::Centre);
        if (side.closed || length > kLongRun)
            for (const double share : {0.25, 0.75})
                ask(from + length * share, Mark::Quarter);
    };
    for (std::size_t i = 0; i < side.stretches.size(); ++i) {
        const Stretch& s = side.stretches[i];
        if (i > 0) {
            const Stretch& before = side.stretches[i - 1];
            if (s.piece != before.piece || s.use->copy != before.use->copy || s.onCloth != before.onCloth) {
                ask(at, Mark::Join);
                side.landmarks.push_back(at);
                askQuarters();
                from = at;
            } else if (sharp(before.tangentAtEnd(), s.tangentAtStart())) {
                ask(at, Mark::Stop);
                side.landmarks.push_back(at);
            } else if ((s.curved() || before.curved()) && !sameArc(before, s))
                ask(at, Mark::Corner);
        }
        // Corners within an edge.
        double within = 0;
        for (std::size_t k = 0; k + 1 < s.run->size(); ++k) {
            within += lengthOf((*s.run)[k]);
            if (sharp(tangentOf((*s.run)[k], 1), tangentOf((*s.run)[k + 1], 0))) {
                ask(at + (s.use->reversed ? s.length - within : within), Mark::Stop);
                side.landmarks.push_back(out.back().at * side.whole);
            }
        }
        if (s.onCloth && !s.curved() && s.length >= kLeastEdge)
            ask(at + s.length / 2, Mark::Centre);
        at += s.length;
    }
    askQuarters();
    if (side.closed && sharp(side.stretches.back().tangentAtEnd(), side.stretches.front().tangentAtStart()))
        side.landmarks.push_back(0);
}

/// Puts a notch where a side passes @p wanted, on whichever copy of a piece lies there. All copies of a piece carry the
/// marks of each.
void placeAt(const Side& side, const Wanted& wanted)
{
    double along = wanted.at * side.whole;
    for (const double own : side.landmarks)
        if (std::abs(own - along) < kSame)
            return;
    if (!side.closed && (along < kSame || along > side.whole - kSame))
        return; // the ends of a run need no mark
    for (const auto& s : side.stretches) {
        if (along > s.length + 1e-9) {
            along -= s.length;
            continue;
        }
        if (!s.onCloth)
            return;
        const double at = std::clamp(s.use->reversed ? s.length - along : along, 0.0, s.length);
        const bool atEnd = at < kSame || at > s.length - kSame;
        std::optional<Point> spot; // looked up where it is asked for
        const bool taken = std::any_of(s.piece->notches.begin(), s.piece->notches.end(), [&](const Notch& n) {
            if (n.edge == s.use->edge)
                return std::abs(n.along - at) < kSame;
            if (!atEnd)
                return false;
            const Edge* other = s.piece->edge(n.edge); // the same corner may be marked on the edge beside it
            if (!other || (n.along >= kSame && n.along <= other->length() - kSame))
                return false;
            if (!spot)
                spot = pointAlong(*s.run, at);
            return distance(pointAlong(other->stitch, n.along), *spot) < kSame;
        });
        if (!taken)
            s.piece->notches.push_back({s.use->edge, at, nameOf(wanted.mark), isStop(wanted.mark)});
        return;
    }
}

} // namespace

void placeMatchMarks(Pattern& p)
{
    for (const auto& seam : p.seams) {
        if (seam.stitch != "construction" || seam.lengthA <= 0 || seam.lengthB <= 0)
            continue;
        Side a = sideOf(p, seam.a, seam.lengthA), b = sideOf(p, seam.b, seam.lengthB);
        if (a.stretches.empty() || b.stretches.empty())
            continue;
        std::vector<Wanted> wanted;
        if (a.closed || b.closed) // where the one closes, the other is marked
            wanted.push_back({0, a.closed && b.closed ? Mark::Quarter : Mark::Join});
        if (seam.openStart > 0)
            wanted.push_back({seam.openStart / seam.lengthA, Mark::SeamEnd});
        if (seam.openEnd > 0)
            wanted.push_back({1 - seam.openEnd / seam.lengthA, Mark::SeamEnd});
        collect(a, wanted);
        collect(b, wanted);
        std::stable_sort(
            wanted.begin(), wanted.end(), [](const Wanted& x, const Wanted& y) { return x.mark < y.mark; });
        std::vector<Wanted> kept;
        for (const auto& w : wanted) {
            const double near = w.mark <= Mark::Join ? kSame : kTooNear;
            if (std::none_of(kept.begin(), kept.end(),
                    [&](const Wanted& k) { return std::abs(k.at - w.at) * seam.lengthA < near; }))
                kept.push_back(w);
        }
        for (const auto& w : kept) {
            placeAt(a, w);
            placeAt(b, w);
        }
    }
}

} // namespace tectonis
