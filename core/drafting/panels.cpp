// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/panels.hpp"

#include "units/error.hpp"

#include <algorithm>


namespace tectonis {
namespace {

void addEdge(Piece& piece, const std::string& name, Run run, double allowance, std::optional<double> atEnd = {})
{
    if (lengthOf(run) > 1e-9)
        piece.edges.push_back({name, std::move(run), allowance, atEnd});
}

/// Mirror image about x = 0, sewn in outline order again.
Run mirroredRun(const Run& run) { return reversed(placed(run, Placement{0, 0, 0, true})); }

} // namespace

double cornerTurn(double taper, double height) { return pi / 2 + std::atan2(taper, height); }

double drawUPanel(Piece& piece, const UPanel& s)
{
    const Point up = unit(Point{-s.taper, s.height});
    const Point inward = Point{-up.y, up.x}; // left of the way up: into the panel
    const Point mouth{s.width / 2 - s.taper, s.height};
    const Point foot = Point{s.width / 2, 0} + inward * s.inset;
    const double radius = s.inset > 0 ? std::max(s.radius - s.inset, 3.0) : s.radius;
    const double turn = cornerTurn(s.taper, s.height);
    const double tangent = radius * std::tan(turn / 2);
    const Point corner = foot + up * ((s.inset - foot.y) / up.y); // where the bottom line meets the side
    const Point arcStart = corner - Point{tangent, 0}, arcEnd = corner + up * tangent;
    const double easeY = std::max(s.easeTo, arcEnd.y);
    const Point eased = foot + up * ((easeY - foot.y) / up.y);

    const Run bottomRight = lineRun({{0, s.inset}, arcStart});
    const Run rightCorner{Arc{arcStart + Point{0, radius}, radius, -pi / 2, turn}};
    const bool eases = s.inset > 0;
    const Run rightSide = lineRun({arcEnd, eases ? eased : mouth});
    const Run rightEase = eases ? lineRun({eased, mouth}) : Run{};
    const double low = eases ? s.lowAllowance : s.allowance;

    addEdge(piece, s.top, lineRun({mouth, {-mouth.x, mouth.y}}), s.topAllowance);
    piece.edges.back().corner = s.topCorner;
    addEdge(piece, "left ease", mirroredRun(rightEase), s.allowance, low);
    addEdge(piece, "left side", mirroredRun(rightSide), low);
    addEdge(piece, "left corner", mirroredRun(rightCorner), low);
    addEdge(piece, "bottom", lineRun({{-arcStart.x, s.inset}, arcStart}), low);
    addEdge(piece, "right corner", rightCorner, low);
    addEdge(piece, "right side", rightSide, low);
    addEdge(piece, "right ease", rightEase, low, s.allowance);
    piece.edges.back().corner = s.topCorner;
    return arcEnd.y;
}

void drawStripAlong(Piece& strip, const Piece& panel, const Strip& s)
{
    // The panel's edges between its mouth corners, half of them for a half strip.
    double ease = 0, whole = 0, inset = 0;
    for (const auto& e : panel.edges) {
        if (&e == &panel.edges.front())
            continue;
        whole += e.length();
        if (e.name == "left ease")
            ease = e.length();
    }
    if (ease > 0)
        inset = panel.edge("bottom") ? startOf(panel.edge("bottom")->stitch).y : 0;
    const double axial = ease > 0 ? std::sqrt(ease * ease - inset * inset) : 0; // the eased edge runs aslant on the strip too
    const bool part = s.half || s.upTo > 0; // ends within the run, not at the other mouth
    const double middle = (s.upTo > 0 ? s.upTo : s.half ? whole / 2 : whole - ease) - ease;
    const double x1 = axial, x2 = axial + middle, x3 = part ? x2 : x2 + axial;
    const double y0 = inset, y1 = s.depth - inset;
    const double low = ease > 0 ? s.lowAllowance : s.allowance;

    addEdge(strip, "front left ease", lineRun({{0, 0}, {x1, y0}}), s.allowance, low);
    addEdge(strip, "front", lineRun({{x1, y0}, {x2, y0}}), low);
    if (part)
        addEdge(strip, "centre", lineRun({{x2, y0}, {x2, y1}}), low);
    else {
        addEdge(strip, "front right ease", lineRun({{x2, y0}, {x3, 0}}), low, s.allowance);
        addEdge(strip, "right mouth", lineRun({{x3, 0}, {x3, s.depth}}), s.mouthAllowance);
        addEdge(strip, "back right ease", lineRun({{x3, s.depth}, {x2, y1}}), s.allowance, low);
    }
    addEdge(strip, "back", lineRun({{x2, y1}, {x1, y1}}), low);
    addEdge(strip, "back left ease", lineRun({{x1, y1}, {0, s.depth}}), low, s.allowance);
    addEdge(strip, "left mouth", lineRun({{0, s.depth}, {0, 0}}), s.mouthAllowance);
}

void drawRectangle(Piece& piece, double width, double height, double allowance)
{
    addEdge(piece, "bottom", lineRun({{0, 0}, {width, 0}}), allowance);
    addEdge(piece, "right", lineRun({{width, 0}, {width, height}}), allowance);
    addEdge(piece, "top", lineRun({{width, height}, {0, height}}), allowance);
    addEdge(piece, "left", lineRun({{0, height}, {0, 0}}), allowance);
}

namespace {

struct SplitEdge {
    Edge upper, lower;
    bool upwards = false; ///< the edge runs from the lower piece to the upper one
};

/// Splits one edge at height @p y if it crosses it.
std::optional<SplitEdge> splitAt(const Edge& e, double y)
{
    if (e.stitch.size() != 1 || !std::holds_alternative<Line>(e.stitch.front()))
        return std::nullopt;
    const Line l = std::get<Line>(e.stitch.front());
    if ((l.a.y - y) * (l.b.y - y) >= 0)
        return std::nullopt;
    const double t = (y - l.a.y) / (l.b.y - l.a.y);
    const Point at = lerp(l.a, l.b, t);
    const double middle = std::lerp(e.allowance, e.allowanceAtEnd.value_or(e.allowance), t);
    Edge first = e, second = e;
    first.stitch = {Line{l.a, at}};
    second.stitch = {Line{at, l.b}};
    if (e.allowanceAtEnd)
        first.allowanceAtEnd = middle;
    second.allowance = middle;
    first.corner = Corner::Mitre;
    const bool upwards = l.b.y > l.a.y;
    return upwards ? SplitEdge{second, first, true} : SplitEdge{first, second, false};
}

/// New edges along the cut, from left to right, or back.
std::vector<Edge> cutEdges(const AcrossCut& cut, Point left, Point right, bool leftToRight)
{
    std::vector<double> xs{left.x};
    xs.insert(xs.end(), cut.stops.begin(), cut.stops.end());
    xs.push_back(right.x);
    std::vector<Edge> out;
    for (std::size_t i = 0; i + 1 < xs.size(); ++i) {
        Run run = lineRun({{xs[i], cut.y}, {xs[i + 1], cut.y}});
        out.push_back({cut.edgeNames[i], leftToRight ? run : reversed(run), cut.allowance, {}});
    }
    if (!leftToRight)
        std::reverse(out.begin(), out.end());
    return out;
}

void useHalves(std::vector<EdgeUse>& side, const std::string& piece, const Piece& upper, const Piece& lower,
               const std::map<std::string, bool>& split)
{
    std::vector<EdgeUse> out;
    for (const auto& use : side) {
        const auto both = split.find(use.edge);
        if (use.piece != piece)
            out.push_back(use);
        else if (both == split.end())
            out.push_back({upper.edge(use.edge) ? upper.key : lower.key, use.edge, use.copy, use.reversed});
        else {
            const bool lowerFirst = both->second != use.reversed;
            out.push_back({lowerFirst ? lower.key : upper.key, use.edge, use.copy, use.reversed});
            out.push_back({lowerFirst ? upper.key : lower.key, use.edge, use.copy, use.reversed});
        }
    }
    side = std::move(out);
}

} // namespace

void cutAcross(Drafter& d, const AcrossCut& cut)
{
    const Piece whole = d.piece(cut.piece);
    Piece upper = whole, lower = whole;
    for (Piece* half : {&upper, &lower}) {
        const Piece& given = half == &upper ? cut.upper : cut.lower;
        half->key = given.key, half->code = given.code, half->name = given.name;
        half->edges.clear();
    }
    std::map<std::string, bool> split;
    Point left, right;
    for (const auto& e : whole.edges) {
        if (const auto parts = splitAt(e, cut.y)) {
            split[e.name] = parts->upwards;
            const Point at = parts->upwards ? endOf(parts->lower.stitch) : startOf(parts->lower.stitch);
            if (parts->upwards) {
                right = at;
                lower.edges.push_back(parts->lower);
                upper.edges.push_back(parts->upper);
            } else {
                left = at;
                upper.edges.push_back(parts->upper);
                lower.edges.push_back(parts->lower);
            }
        } else
            (boundsOf(e.stitch).centre().y > cut.y ? upper : lower).edges.push_back(e);
    }
    if (split.size() != 2)
        throw InputError(whole.name, "the cut across does not fall between two straight sides");
    // Outline order is kept by putting the new edges after the left side (upper) and at the end (lower).
    const auto upperNew = cutEdges(cut, left, right, true), lowerNew = cutEdges(cut, left, right, false);
    const auto afterLeft = std::find_if(upper.edges.begin(), upper.edges.end(), [&](const Edge& e) { return distance(endOf(e.stitch), left) < 1e-9; });
    upper.edges.insert(afterLeft + 1, upperNew.begin(), upperNew.end());
    const auto afterRight = std::find_if(lower.edges.begin(), lower.edges.end(), [&](const Edge& e) { return distance(endOf(e.stitch), right) < 1e-9; });
    lower.edges.insert(afterRight + 1, lowerNew.begin(), lowerNew.end());

    for (auto& seam : d.pattern.seams) {
        useHalves(seam.a, whole.key, upper, lower, split);
        useHalves(seam.b, whole.key, upper, lower, split);
    }
    for (auto& step : d.pattern.steps)
        if (const auto named = std::find(step.pieces.begin(), step.pieces.end(), whole.key); named != step.pieces.end()) {
            *named = upper.key;
            step.pieces.insert(named + 1, lower.key);
        }
    for (auto& site : d.pattern.sites)
        if (const auto named = std::find(site.pieces.begin(), site.pieces.end(), whole.key); named != site.pieces.end()) {
            *named = upper.key;
            site.pieces.insert(named + 1, lower.key);
        }
    const auto at = std::find_if(d.pattern.pieces.begin(), d.pattern.pieces.end(), [&](const Piece& p) { return p.key == whole.key; });
    *at = upper;
    d.pattern.pieces.insert(at + 1, lower);
}

} // namespace tectonis
