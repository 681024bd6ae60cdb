// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/panels.hpp"

#include <algorithm>

namespace tectonis {
namespace {

void addEdge(Piece& piece, const EdgeId& name, Run run, double allowance, std::optional<double> atEnd = {})
{
    if (lengthOf(run) > 1e-9)
        piece.edges.push_back({name, std::move(run), allowance, atEnd});
}

/// Mirror image about x = 0, sewn in outline order again.
Run mirroredRun(const Run& run) { return reversed(placed(run, Placement{0, 0, 0, true})); }

} // namespace

namespace {

/// Direction in which a side leaves its corner: towards the mouth, turned outwards as far as it bows (radians).
double bowAngle(double taper, double height, double bow) { return std::atan2(4 * bow, std::hypot(taper, height)); }

Point turned(Point v, double angle)
{
    return {v.x * std::cos(angle) - v.y * std::sin(angle), v.x * std::sin(angle) + v.y * std::cos(angle)};
}

/// A side from @p from, leaving in direction @p way, to @p to; its middle lies @p bow outside the chord. A line if it
/// does not bow.
Segment side(Point from, Point way, Point to, double bow)
{
    if (std::abs(bow) < 1e-9 || distance(from, to) < 1e-9)
        return Line{from, to};
    const Point chord = unit(to - from);
    const double angle = std::atan2(cross(way, chord), dot(way, chord)); // from the way to the chord
    const double reach = bow
        / (0.75 * std::sin(angle)); // a cubic with equal ends: its middle lies 3/4 of the handles' height off the chord
    return Cubic{from, from + way * reach, to - turned(chord, angle) * reach, to};
}

/// Length along a segment that rises, at which it passes a height.
double lengthAt(const Segment& s, double y)
{
    double low = 0, high = lengthOf(s);
    for (int i = 0; i < 60; ++i)
        (pointAlong(s, (low + high) / 2).y < y ? low : high) = (low + high) / 2;
    return (low + high) / 2;
}

} // namespace

double cornerTurn(double taper, double height, double bow)
{
    return pi / 2 + std::atan2(taper, height) - bowAngle(taper, height, bow);
}

double drawUPanel(Piece& piece, const UPanel& s)
{
    const Point mouth{s.width / 2 - s.taper, s.height};
    const Point way = turned(unit(Point{-s.taper, s.height}), -bowAngle(s.taper, s.height, s.bow));
    const double turn = cornerTurn(s.taper, s.height, s.bow);
    // The corner at an inset: where the arc begins on the bottom line and ends on the side.
    const auto cornerAt = [&](double inset, double radius) {
        const Point foot = Point{s.width / 2, 0} + Point{-way.y, way.x} * inset; // left of the way up: into the panel
        const double tangent = radius * std::tan(turn / 2);
        const Point corner = foot + way * ((inset - foot.y) / way.y);
        return std::pair{corner - Point{tangent, 0}, corner + way * tangent};
    };
    const double radius = s.inset > 0 ? std::max(s.radius - s.inset, 3.0) : s.radius;
    const auto [arcStart, arcEnd] = cornerAt(s.inset, radius);
    const Segment whole = side(cornerAt(0, s.radius).second, way, mouth, s.bow);
    const bool eases = s.inset > 0 || s.divided;
    const double easeY = std::max({s.easeTo, arcEnd.y, startOf(whole).y});
    Run rightSide{whole}, rightEase;
    if (eases) {
        const double at = lengthAt(whole, easeY), length = lengthOf(whole);
        const Point upwards = tangentOf(part(whole, at, length), 0);
        const Point eased = pointAlong(whole, at) + Point{-upwards.y, upwards.x} * s.inset
            - upwards * (upwards.x * s.inset / upwards.y); // at the same height
        rightEase = s.inset > 0 ? lineRun({eased, mouth}) : Run{part(whole, at, length)};
        rightSide = s.inset > 0
            ? Run{side(arcEnd, way, eased, std::abs(s.bow) < 1e-9 ? 0 : s.bow * std::pow(at / length, 2))}
            : Run{part(whole, 0, at)};
    }
    const Run rightCorner{Arc{arcStart + Point{0, radius}, radius, -pi / 2, turn}};
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
    const double narrow = ease > 0 ? s.narrow : 0;
    const double axial = ease > 0 ? std::sqrt(ease * ease - (inset - narrow) * (inset - narrow))
                                  : 0;      // the eased edge runs aslant on the strip too
    const bool part = s.half || s.upTo > 0; // ends within the run, not at the other mouth
    const double middle = (s.upTo > 0 ? s.upTo : s.half ? whole / 2 : whole - ease) - ease;
    const double x1 = axial, x2 = axial + middle, x3 = part ? x2 : x2 + axial;
    const double y0 = inset, y1 = s.depth - inset;
    const double low = ease > 0 ? s.lowAllowance : s.allowance;

    const double m0 = narrow, m1 = s.depth - narrow; // at the mouth
    addEdge(strip, "front left ease", lineRun({{0, m0}, {x1, y0}}), s.allowance, low);
    addEdge(strip, "front", lineRun({{x1, y0}, {x2, y0}}), low);
    if (part)
        addEdge(strip, "centre", lineRun({{x2, y0}, {x2, y1}}), low);
    else {
        addEdge(strip, "front right ease", lineRun({{x2, y0}, {x3, m0}}), low, s.allowance);
        addEdge(strip, "right mouth", lineRun({{x3, m0}, {x3, m1}}), s.mouthAllowance);
        addEdge(strip, "back right ease", lineRun({{x3, m1}, {x2, y1}}), s.allowance, low);
    }
    addEdge(strip, "back", lineRun({{x2, y1}, {x1, y1}}), low);
    addEdge(strip, "back left ease", lineRun({{x1, y1}, {0, m1}}), low, s.allowance);
    addEdge(strip, "left mouth", lineRun({{0, m1}, {0, m0}}), s.mouthAllowance);
}

void drawRectangle(Piece& piece, double width, double height, double allowance)
{
    addEdge(piece, "bottom", lineRun({{0, 0}, {width, 0}}), allowance);
    addEdge(piece, "right", lineRun({{width, 0}, {width, height}}), allowance);
    addEdge(piece, "top", lineRun({{width, height}, {0, height}}), allowance);
    addEdge(piece, "left", lineRun({{0, height}, {0, 0}}), allowance);
}

} // namespace tectonis
