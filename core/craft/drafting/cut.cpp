// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/cut.hpp"

#include "pattern/references.hpp"

#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace tectonis {
namespace {

constexpr double kTouch = 1e-7; // mm: nearer than this to the line counts as on it

/// Lengths along a run at which it passes the line dot(normal, p) = limit.
std::vector<double> crossingsOf(const Run& run, Point normal, double limit)
{
    std::vector<double> out;
    double before = 0;
    for (const auto& s : run) {
        const double length = lengthOf(s);
        const auto side = [&](double along) { return dot(normal, pointAlong(s, along)) - limit; };
        // A curve may pass the line twice: it is looked at in parts, each of which passes it once at most.
        const int parts = std::holds_alternative<Line>(s) ? 1 : 16;
        for (int i = 0; i < parts; ++i) {
            double low = length * i / parts, high = length * (i + 1) / parts;
            if (side(low) * side(high) >= 0)
                continue;
            const bool rising = side(low) < 0;
            for (int k = 0; k < 60; ++k)
                ((side((low + high) / 2) < 0) == rising ? low : high) = (low + high) / 2;
            out.push_back(before + (low + high) / 2);
        }
        before += length;
    }
    return out;
}

/// Part of an edge; an allowance that widens along it is taken at the new ends.
Edge partOf(const Edge& e, double from, double to)
{
    Edge out = e;
    const double length = e.length();
    out.stitch = part(e.stitch, from, to);
    if (e.allowanceAtEnd) {
        out.allowance = std::lerp(e.allowance, *e.allowanceAtEnd, from / length);
        out.allowanceAtEnd = std::lerp(e.allowance, *e.allowanceAtEnd, to / length);
    }
    if (to < length - kTouch)
        out.corner = Corner::Mitre;
    return out;
}

} // namespace

std::vector<Edge> clipped(const std::vector<Edge>& edges, Point normal, double limit, Edge along)
{
    struct Part {
        Edge edge;
        bool kept;
    };
    std::vector<Part> parts;
    for (const auto& e : edges) {
        std::vector<double> ends{0};
        for (const double at : crossingsOf(e.stitch, normal, limit))
            if (at > kTouch && at < e.length() - kTouch)
                ends.push_back(at);
        ends.push_back(e.length());
        for (std::size_t i = 0; i + 1 < ends.size(); ++i) {
            Edge each = ends.size() == 2 ? e : partOf(e, ends[i], ends[i + 1]);
            const double off = dot(normal, pointAlong(e.stitch, (ends[i] + ends[i + 1]) / 2)) - limit;
            parts.push_back({std::move(each), off > kTouch});
        }
    }
    const std::size_t n = parts.size();
    std::size_t turns = 0, first = 0;
    for (std::size_t i = 0; i < n; ++i)
        if (parts[i].kept != parts[(i + 1) % n].kept) {
            ++turns;
            if (!parts[i].kept)
                first = (i + 1) % n;
        }
    if (turns != 2)
        return {};
    std::vector<Edge> out;
    for (std::size_t i = 0; i < n && parts[(first + i) % n].kept; ++i)
        out.push_back(std::move(parts[(first + i) % n].edge));
    along.stitch = lineRun({endOf(out.back().stitch), startOf(out.front().stitch)});
    if (along.hem) {
        // An allowance is folded back along straight neighbours; beside a curve it is mitred.
        const auto straight = [](const Edge& e) {
            return e.stitch.size() == 1 && std::holds_alternative<Line>(e.stitch.front());
        };
        out.back().corner = straight(out.back()) ? Corner::FoldBack : Corner::Mitre;
        along.corner = straight(out.front()) ? Corner::FoldBack : Corner::Mitre;
    }
    out.push_back(std::move(along));
    return out;
}

AcrossCut acrossAt(const Piece& piece, double y, double allowance)
{
    AcrossCut cut{.piece = piece.key,
        .y = y,
        .stops = {},
        .edgeNames = {"across"},
        .upper = {},
        .lower = {},
        .allowance = allowance};
    cut.upper.key = piece.key.sub("upper"), cut.upper.code = piece.code + "1",
    cut.upper.name = say("{}, upper", piece.name);
    cut.lower.key = piece.key.sub("lower"), cut.lower.code = piece.code + "2",
    cut.lower.name = say("{}, lower", piece.name);
    return cut;
}

namespace {

/// The cutting edge of one half in its parts, in outline order.
void divide(std::vector<Edge>& edges, const AcrossCut& cut, const std::string& whole)
{
    const Edge along = edges.back();
    edges.pop_back();
    const Point from = startOf(along.stitch), to = endOf(along.stitch);
    for (const double stop : cut.stops)
        if (stop < std::min(from.x, to.x) + 1 || stop > std::max(from.x, to.x) - 1)
            throw InputError(whole,
                say("at that height the piece is only {} wide: what is to lie in the seam across is wider. Make it "
                    "narrower, or cut elsewhere",
                    Len(std::abs(to.x - from.x))));
    std::vector<double> xs{from.x};
    const bool leftToRight = to.x > from.x;
    xs.insert(xs.end(), cut.stops.begin(), cut.stops.end());
    if (!leftToRight)
        std::reverse(xs.begin() + 1, xs.end());
    xs.push_back(to.x);
    for (std::size_t i = 0; i + 1 < xs.size(); ++i) {
        Edge e = along;
        e.name = cut.edgeNames[leftToRight ? i : cut.edgeNames.size() - 1 - i];
        e.stitch = lineRun({{xs[i], from.y}, {xs[i + 1], from.y}});
        edges.push_back(std::move(e));
    }
}

/// What a cut leaves of an edge: a share in the upper half, one in the lower half, and between them one in the gap.
struct Shares {
    bool upwards = false; ///< the edge runs from the lower half towards the upper one
    bool above = false, below = false;
    EdgeId bridge; ///< the lower half's line over the gap; empty if the edge does not pass it
};

/// Uses of a cut piece become uses of its halves, in the order of the run.
void useHalves(std::vector<EdgeUse>& side, const PieceId& piece, const Piece& upper, const Piece& lower,
    const std::map<EdgeId, Shares>& shares)
{
    std::vector<EdgeUse> out;
    for (const auto& use : side) {
        if (use.piece != piece) {
            out.push_back(use);
            continue;
        }
        const auto edge = shares.find(use.edge);
        if (edge == shares.end()) { // a line on the face
            const bool above = std::any_of(
                upper.lines.begin(), upper.lines.end(), [&](const FaceLine& l) { return l.name == use.edge; });
            out.push_back({above ? upper.key : lower.key, use.edge, use.copy, use.reversed});
            continue;
        }
        std::vector<EdgeUse> parts;
        if (edge->second.below)
            parts.push_back({lower.key, use.edge, use.copy, use.reversed});
        if (!edge->second.bridge.empty())
            parts.push_back({lower.key, edge->second.bridge, use.copy, use.reversed});
        if (edge->second.above)
            parts.push_back({upper.key, use.edge, use.copy, use.reversed});
        if (edge->second.upwards == use.reversed)
            std::reverse(parts.begin(), parts.end());
        out.insert(out.end(), parts.begin(), parts.end());
    }
    side = std::move(out);
}

/// True if an edge was parted in two places: its halves could not be told apart by name.
bool partedTwice(const std::vector<Edge>& edges)
{
    for (std::size_t i = 0; i < edges.size(); ++i)
        for (std::size_t k = i + 1; k < edges.size(); ++k)
            if (edges[i].name == edges[k].name)
                return true;
    return false;
}

/// Replaces a key in a list by those of both halves.
void nameBoth(std::vector<PieceId>& list, const PieceId& whole, const Piece& upper, const Piece& lower)
{
    if (const auto named = std::find(list.begin(), list.end(), whole); named != list.end()) {
        *named = upper.key;
        list.insert(named + 1, lower.key);
    }
}

} // namespace

void cutAcross(Drafter& d, const AcrossCut& cut)
{
    const Piece whole = d.piece(cut.piece);
    const double high = cut.y + cut.gap / 2, low = cut.y - cut.gap / 2;
    Piece upper = whole, lower = whole;
    upper.edges = clipped(whole.edges, {0, 1}, high, {"", {}, cut.allowance, {}});
    lower.edges = clipped(whole.edges, {0, -1}, -low, {"", {}, cut.allowance, {}});
    if (upper.edges.empty() || lower.edges.empty() || partedTwice(upper.edges) || partedTwice(lower.edges))
        throw InputError(whole.name, say("the cut across does not fall between two sides of the piece"));
    divide(upper.edges, cut, words(whole.name));
    divide(lower.edges, cut, words(whole.name));
    for (auto [half, given] : {std::pair{&upper, &cut.upper}, {&lower, &cut.lower}}) {
        half->key = given->key, half->code = given->code, half->name = given->name;
        half->whole = whole.whole.empty() ? whole.key : whole.whole;
        half->wholeRole = whole.whole.empty() ? whole.role : whole.wholeRole;
        half->lines.clear(), half->drills.clear(), half->notches.clear(), half->areas.clear();
    }
    const auto halfAt = [&](Point p) -> Piece& { return p.y > cut.y ? upper : lower; };
    for (const auto& l : whole.lines)
        halfAt(boundsOf(l.run).centre()).lines.push_back(l);
    for (const auto& m : whole.drills)
        halfAt(m.at).drills.push_back(m);
    for (const auto& [name, run] : whole.areas) {
        if (name != "face") {
            halfAt(boundsOf(run).centre()).areas[name] = run;
            continue;
        }
        const std::vector<Edge> visible{{"", run, 0, {}}};
        for (auto [half, normal, limit] : {std::tuple{&upper, Point{0, 1}, high}, {&lower, Point{0, -1}, -low}})
            for (const auto& e : clipped(visible, normal, limit, {}))
                half->areas[name].insert(half->areas[name].end(), e.stitch.begin(), e.stitch.end());
    }
    std::map<EdgeId, Shares> shares;
    const auto shown = cut.gap > 0 ? clipped(clipped(whole.edges, {0, 1}, low, {}), {0, -1}, -high, {})
                                   : std::vector<Edge>{};
    for (const auto& e : whole.edges) {
        const Point from = startOf(e.stitch), to = endOf(e.stitch);
        Shares share{
            .upwards = to.y > from.y, .above = upper.edge(e.name) != nullptr, .below = lower.edge(e.name) != nullptr};
        for (const auto& g : shown)
            if (g.name == e.name) {
                share.bridge = EdgeId("zip end, " + e.name.text());
                lower.lines.push_back({share.bridge, FaceLine::Kind::Bridge, g.stitch});
            }
        shares[e.name] = share;
    }
    for (auto n : whole.notches) {
        const Edge& e = *whole.edge(n.edge);
        Piece& half = halfAt(pointAlong(e.stitch, n.along));
        if (const Edge* own = half.edge(n.edge)) {
            if (distance(startOf(own->stitch), startOf(e.stitch)) > kTouch)
                n.along -= e.length() - own->length();
            half.notches.push_back(n);
        }
    }

    Pattern& p = d.pattern;
    if (cut.gap > 0) {
        Piece gap = lower;
        gap.edges = shown;
        gap.areas.clear(); // they are the half's
        p.gaps.push_back(std::move(gap));
    }
    struct {
        const Piece &whole, &upper, &lower;
        const std::map<EdgeId, Shares>& shares;
        double y;
        void run(std::vector<EdgeUse>& side) const { useHalves(side, whole.key, upper, lower, shares); }
        void list(std::vector<PieceId>& pieces) const { nameBoth(pieces, whole.key, upper, lower); }
        void spot(PieceId& piece, Point at) const
        {
            if (piece == whole.key)
                piece = (at.y > y ? upper : lower).key;
        }
        void name(PieceId&) const {} // straps, bindings: never cut
    } const follow{whole, upper, lower, shares, cut.y};
    forEachReference(p, d.steps, follow);
    for (auto& piece : p.pieces) // either half of a lining lies in its face's seams
        if (piece.backing == whole.key)
            piece.backing = lower.key;
    // A part that lies on a face lies there in both halves.
    for (std::size_t i = 0; i < p.overlays.size(); ++i)
        if (p.overlays[i].piece == whole.key) {
            p.overlays[i].piece = upper.key;
            Overlay below = p.overlays[i];
            below.piece = lower.key;
            p.overlays.insert(p.overlays.begin() + std::ptrdiff_t(++i), below);
        }
    for (auto& patch : d.patches)
        if (patch.behind == whole.key)
            patch.behind = upper.areas.contains(patch.rule.area) ? upper.key : lower.key;
    const auto at = std::find_if(
        p.pieces.begin(), p.pieces.end(), [&](const Piece& each) { return each.key == whole.key; });
    *at = upper;
    p.pieces.insert(at + 1, lower);
}

namespace {

/// Where a straight line from @p from leaves an outline, and how the outline runs there; @p skipArcs: passes over round
/// corners.
std::optional<std::pair<Point, Point>> leavesAt(const std::vector<Edge>& edges, Point from, Point way, bool skipArcs)
{
    std::optional<std::pair<Point, Point>> out;
    double nearest = 1e300;
    const Point normal{-way.y, way.x};
    for (const auto& e : edges)
        for (const auto& s : e.stitch) {
            if (skipArcs && std::holds_alternative<Arc>(s))
                continue;
            for (const double along : crossingsOf({s}, normal, dot(normal, from))) {
                const Point at = pointAlong(s, along);
                if (const double away = dot(at - from, way); away > 0 && away < nearest)
                    nearest = away, out = {{at, tangentAlong({s}, along)}};
            }
        }
    return out;
}

/// A lower corner of a face as it would be without rounding, and unit vectors along the bottom and up the side.
struct FaceCorner {
    Point at, along, up;
};

std::optional<FaceCorner> faceCorner(const Piece& piece, const Site& site, bool right, double reach)
{
    const double sign = right ? 1 : -1;
    if (site.folded)
        return FaceCorner{{site.x + sign * site.width / 2, site.top - site.height}, {-sign, 0}, {0, 1}};
    const Box box = boundsOf(piece.stitch());
    const Point inside{site.x, box.y0 + std::min(reach, box.height() * 0.4)};
    const auto bottom = leavesAt(piece.edges, inside, {0, -1}, false);
    // Above a round corner the side is straight again.
    auto side = leavesAt(piece.edges, inside, {sign, 0}, true);
    for (double y = inside.y; !side && y < box.y1; y += box.height() / 20)
        side = leavesAt(piece.edges, {site.x, y}, {sign, 0}, true);
    if (!bottom || !side)
        return std::nullopt;
    FaceCorner out;
    out.along = bottom->second.x * sign > 0 ? bottom->second * -1 : bottom->second;
    out.up = side->second.y < 0 ? side->second * -1 : side->second;
    const double turn = cross(out.along, out.up);
    if (std::abs(turn) < 0.1)
        return std::nullopt;
    out.at = bottom->first + out.along * (cross(side->first - bottom->first, out.up) / turn);
    return out;
}

/// Keeps the side of the line through @p a and @p b on which @p inside lies; the edges as they are where the line does
/// not part them.
std::vector<Edge> keptBeside(const std::vector<Edge>& edges, Point a, Point b, Point inside, const Edge& along)
{
    Point normal = rightOf(unit(b - a));
    if (dot(normal, inside - a) < 0)
        normal = normal * -1;
    auto out = clipped(edges, normal, dot(normal, a), along);
    return out.empty() ? edges : out;
}

} // namespace

std::vector<Edge> cornerOf(const Piece& piece, const Site& site, bool right, double side, bool aslant)
{
    const auto corner = faceCorner(piece, site, right, side);
    if (!corner)
        return {};
    const auto& [at, along, up] = *corner;
    const Point low = at + along * side, high = at + up * side, inside = at + (along + up) * (side * 0.3);
    const auto free = [](const char* name) {
        return Edge{.name = name, .stitch = {}, .allowance = 0, .allowanceAtEnd = {}};
    };
    std::vector<Edge> out = piece.edges;
    if (site.folded) {
        out = keptBeside(out, at, at + up, inside, free("at the fold"));
        if (boundsOf(piece.stitch()).y0 < at.y - 0.1)
            out = keptBeside(out, at, at + along, inside, free("at the base"));
    }
    if (aslant) {
        out = keptBeside(out, low, high, at, free("slant"));
        return std::any_of(out.begin(), out.end(), [](const Edge& e) { return e.name == "slant"; })
            ? out
            : std::vector<Edge>{};
    }
    out = keptBeside(out, low, low + up, inside, free("up"));
    out = keptBeside(out, high, high + along, inside, free("across"));
    return out;
}

namespace {

/// The seam of the body that an edge is sewn in; empty if none is.
SeamId seamAt(const Pattern& p, const PieceId& piece, const EdgeId& edge)
{
    SeamId out;
    for (const auto& seam : p.seams)
        if (seam.stitch == "construction")
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (use.piece == piece && use.edge == edge)
                        out = seam.key;
    return out;
}

} // namespace

SideSpot sideSpot(const Drafter& d, const Site& site, int number, double along, const std::string& place)
{
    if (number < 1 || number > int(site.sides.size()))
        throw InputError(place, say("the face has {} sides", int(site.sides.size())));
    const Run& side = site.sides[std::size_t(number) - 1];
    SideSpot out;
    const double length = lengthOf(side), up = endOf(side).y < startOf(side).y - 1e-9 ? -along : along;
    out.at = pointAlong(side, std::clamp(length / 2 + up, 0.0, length));
    double nearest = 1;
    for (const auto& key : site.pieces)
        for (const auto& e : d.pattern.piece(key)->edges)
            if (const double away = distanceTo(flattened(e.stitch, 0.01), out.at); away < nearest)
                nearest = away, out.edge = e.name, out.seam = seamAt(d.pattern, key, e.name);
    return out;
}

void handleAlongSide(FeatureScope& f, const Site& site, const PieceId& face, int number, Point at, const Box& grip)
{
    const double by = f("along") > 0 ? -1 : 1; // towards the side's middle: there is some of it
    f.handleTo("along", face, at, sideSpot(f.d, site, number, f("along") + by, f.dimension("along")).at, by, grip);
}

SideSpot sideSpot(const Drafter& d, const Piece& piece, double y, bool right, const std::string& place)
{
    SideSpot out;
    double best = -std::numeric_limits<double>::max();
    for (const auto& e : piece.edges) {
        const Polyline line = flattened(e.stitch, 0.01);
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            const Point a = line[i], b = line[i + 1];
            if ((a.y - y) * (b.y - y) > 0 || a.y == b.y)
                continue;
            const Point at = a + (b - a) * ((y - a.y) / (b.y - a.y));
            if (const double out_ = right ? at.x : -at.x; out_ > best)
                best = out_, out.edge = e.name, out.at = at;
        }
    }
    if (out.edge.empty())
        throw InputError(place, say("it lies beyond the {}", within(piece.name)));
    out.seam = seamAt(d.pattern, piece.key, out.edge);
    return out;
}

} // namespace tectonis
