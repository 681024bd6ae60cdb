// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/template.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kOnFold = 0.01; // mm
constexpr double kOnAxis = 1e-7;

double axisOf(const Piece& piece) { return boundsOf(piece.stitch()).centre().x; }

Point mirrored(Point p, double axis) { return {2 * axis - p.x, p.y}; }

/// Most chords of a fine line are far from the point: a look at their box spares the distance.
bool liesOn(const Polyline& line, Point p)
{
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Point a = line[i], b = line[i + 1];
        if (p.x < std::min(a.x, b.x) - kOnFold || p.x > std::max(a.x, b.x) + kOnFold
            || p.y < std::min(a.y, b.y) - kOnFold || p.y > std::max(a.y, b.y) + kOnFold)
            continue;
        const Point d = b - a, off = p - a;
        const double n = dot(d, d), t = n > 0 ? std::clamp(dot(off, d) / n, 0.0, 1.0) : 0;
        if (norm(off - d * t) <= kOnFold)
            return true;
    }
    return false;
}

bool near(Point a, Point b)
{
    return std::abs(a.x - b.x) <= kOnFold && std::abs(a.y - b.y) <= kOnFold && distance(a, b) <= kOnFold;
}

/// The same line on the paper, whichever way it runs.
bool sameShape(const Segment& a, const Segment& b)
{
    if (a.index() != b.index())
        return false;
    if (const auto* c = std::get_if<Cubic>(&a)) {
        const auto& d = std::get<Cubic>(b);
        return (near(c->p0, d.p0) && near(c->p1, d.p1) && near(c->p2, d.p2) && near(c->p3, d.p3))
            || (near(c->p0, d.p3) && near(c->p1, d.p2) && near(c->p2, d.p1) && near(c->p3, d.p0));
    }
    if (const auto* c = std::get_if<Arc>(&a); c && std::abs(c->sweep) > 2 * pi - 1e-9) {
        const auto& d = std::get<Arc>(b);
        return near(c->centre, d.centre) && std::abs(c->radius - d.radius) <= kOnFold
            && std::abs(d.sweep) > 2 * pi - 1e-9;
    }
    const bool ends = (near(startOf(a), startOf(b)) && near(endOf(a), endOf(b)))
        || (near(startOf(a), endOf(b)) && near(endOf(a), startOf(b)));
    return ends && near(pointAlong(a, lengthOf(a) / 2), pointAlong(b, lengthOf(b) / 2));
}

/// Each segment's mirror image is one of the segments.
bool mirrorsBySegments(const std::vector<Run>& runs, double axis)
{
    const auto there = [&](const Segment& wanted) {
        return std::any_of(runs.begin(), runs.end(), [&](const Run& run) {
            return std::any_of(run.begin(), run.end(), [&](const Segment& s) { return sameShape(s, wanted); });
        });
    };
    return std::all_of(runs.begin(), runs.end(), [&](const Run& run) {
        return std::all_of(run.begin(), run.end(), [&](const Segment& s) {
            return there(placed(s, Placement{2 * axis, 0, 0, true}));
        });
    });
}

/// Every corner of each line's mirror image lies on one of the lines.
bool mirrorsItself(const std::vector<Run>& runs, double axis)
{
    if (mirrorsBySegments(runs, axis))
        return true;
    // The halves may be broken into segments differently.
    std::vector<Polyline> lines;
    for (const auto& run : runs)
        lines.push_back(
            flattened(run, 0.002)); // finer than the tolerance: chords of a circle are no mirror image of each other
    return std::all_of(lines.begin(), lines.end(), [&](const Polyline& line) {
        return std::all_of(line.begin(), line.end(), [&](Point p) {
            return std::any_of(
                lines.begin(), lines.end(), [&](const Polyline& other) { return liesOn(other, mirrored(p, axis)); });
        });
    });
}

/// The parts of a segment right of the axis, in order. A segment is cut at its crossings, found by bisection on its
/// length.
void keepRight(const Segment& whole, double axis, Run& kept)
{
    // An arc or cubic may leave the axis and come back: quarters of it cross at most once.
    const double length = lengthOf(whole);
    const int parts = std::holds_alternative<Line>(whole) ? 1 : 4;
    for (int i = 0; i < parts; ++i) {
        const Segment s = parts == 1 ? whole : part(whole, length * i / parts, length * (i + 1) / parts);
        const double a = startOf(s).x - axis, b = endOf(s).x - axis;
        if (a >= -kOnAxis && b >= -kOnAxis) {
            if (std::max(a, b) > kOnAxis)
                kept.push_back(s);
            continue;
        }
        if (a <= kOnAxis && b <= kOnAxis)
            continue;
        double low = 0, high = lengthOf(s);
        const double all = high;
        for (int k = 0; k < 60; ++k) {
            const double middle = (low + high) / 2;
            ((pointAlong(s, middle).x - axis > 0) == (a > 0) ? low : high) = middle;
        }
        kept.push_back(a > 0 ? part(s, 0, low) : part(s, high, all));
    }
}

Run rightOfAxis(const Run& run, double axis)
{
    Run kept;
    for (const auto& s : run)
        keepRight(s, axis, kept);
    return kept;
}

/// The right half of a closed run, closed along the axis.
Run rightHalf(const Run& closed, double axis)
{
    Run kept = rightOfAxis(closed, axis);
    const auto jump = [&](std::size_t i) {
        return distance(endOf(kept[(i + kept.size() - 1) % kept.size()]), startOf(kept[i])) > 1e-6;
    };
    for (std::size_t i = 0; i < kept.size(); ++i)
        if (jump(i)) {
            std::rotate(kept.begin(), kept.begin() + std::ptrdiff_t(i), kept.end());
            kept.push_back(Line{endOf(kept.back()), startOf(kept.front())});
            break;
        }
    return kept;
}

} // namespace

Run cutLineOf(const Piece& piece)
{
    std::vector<OffsetEdge> edges;
    edges.reserve(piece.edges.size());
    for (const auto& e : piece.edges)
        edges.push_back({e.stitch, e.onFold ? 0 : e.allowance, e.onFold ? 0 : e.allowanceAtEnd.value_or(e.allowance),
            e.corner, e.hem});
    return offsetOutline(edges);
}

bool isSymmetric(const Piece& piece)
{
    const double axis = axisOf(piece);
    std::vector<Run> lines, outlines;
    for (const auto& line : piece.lines)
        lines.push_back(line.run);
    for (const auto& layer : piece.layers)
        outlines.push_back(layer.outline);
    // Marks too: what is marked on one side only would be cut on both.
    std::vector<Point> marks;
    for (const auto& n : piece.notches)
        if (const Edge* e = piece.edge(n.edge))
            marks.push_back(pointAlong(e->stitch, n.along));
    const auto markThere = [&](Point p) {
        return std::any_of(marks.begin(), marks.end(), [&](Point m) { return near(m, p); });
    };
    if (!std::all_of(marks.begin(), marks.end(), [&](Point m) { return markThere(mirrored(m, axis)); }))
        return false;
    const auto drillThere = [&](Point p) {
        return std::any_of(
            piece.drills.begin(), piece.drills.end(), [&](const DrillMark& d) { return distance(d.at, p) <= kOnFold; });
    };
    return mirrorsItself({piece.cut}, axis) && mirrorsItself({piece.stitch()}, axis) && mirrorsItself(lines, axis)
        && mirrorsItself(outlines, axis)
        && std::all_of(piece.drills.begin(), piece.drills.end(),
            [&](const DrillMark& d) { return drillThere(mirrored(d.at, axis)); });
}

namespace {

Piece turned(Piece piece, double angle)
{
    const Placement turn{0, 0, angle};
    for (auto& e : piece.edges)
        e.stitch = placed(e.stitch, turn);
    for (auto& line : piece.lines)
        line.run = placed(line.run, turn);
    for (auto& drill : piece.drills)
        drill.at = turn(drill.at);
    for (auto& layer : piece.layers)
        layer.outline = placed(layer.outline, turn);
    for (auto& [name, area] : piece.areas)
        area = placed(area, turn);
    piece.cut = placed(piece.cut, turn);
    return piece;
}

/// The right half about x = @p axis, closed by an edge on the fold.
Piece halved(const Piece& piece, double axis, const std::string& fold)
{
    Piece half = piece;
    half.edges.clear();
    half.notches.clear();
    std::size_t first = 0;
    std::vector<std::pair<Notch, Point>>
        onFold; // marks at the end of an edge that is gone belong to the one that is kept
    for (const auto& e : piece.edges) {
        Edge kept = e;
        kept.stitch = rightOfAxis(e.stitch, axis);
        for (const auto& n : piece.notches)
            if (n.edge == e.name && kept.stitch.empty())
                if (const Point at = pointAlong(e.stitch, n.along); std::abs(at.x - axis) <= kOnFold)
                    onFold.emplace_back(n, at);
        if (kept.stitch.empty())
            continue;
        const bool cutAtStart = startOf(e.stitch).x < axis - kOnAxis, cutAtEnd = endOf(e.stitch).x < axis - kOnAxis;
        const double gone = cutAtStart ? e.length() - kept.length() : 0;
        if (e.allowanceAtEnd && e.length() > 0) {
            kept.allowance = std::lerp(e.allowance, *e.allowanceAtEnd, gone / e.length());
            kept.allowanceAtEnd = std::lerp(e.allowance, *e.allowanceAtEnd, (gone + kept.length()) / e.length());
        }
        if (cutAtEnd)
            kept.corner = Corner::Mitre;
        if (cutAtStart || std::abs(startOf(kept.stitch).x - axis) <= kOnAxis)
            first = half.edges.size();
        for (auto n : piece.notches)
            if (n.edge == e.name && n.along >= gone - 1e-6 && n.along <= gone + kept.length() + 1e-6) {
                n.along -= gone;
                half.notches.push_back(n);
            }
        half.edges.push_back(std::move(kept));
    }
    for (auto& [notch, at] : onFold)
        for (const auto& e : half.edges) {
            const bool begins = near(startOf(e.stitch), at), ends = near(endOf(e.stitch), at);
            if (!begins && !ends)
                continue;
            notch.edge = e.name, notch.along = begins ? 0 : e.length();
            half.notches.push_back(notch);
            break;
        }
    std::rotate(half.edges.begin(), half.edges.begin() + std::ptrdiff_t(first), half.edges.end());
    half.edges.push_back({.name = fold,
        .stitch = lineRun({endOf(half.edges.back().stitch), startOf(half.edges.front().stitch)}),
        .onFold = true});
    half.cut = cutLineOf(half);
    std::erase_if(half.drills, [&](const DrillMark& d) { return d.at.x < axis - kOnFold; });
    half.lines.clear();
    for (const auto& line : piece.lines) {
        Run kept = rightOfAxis(line.run, axis);
        // What was one run may be several now.
        for (std::size_t from = 0, i = 1; i <= kept.size(); ++i)
            if (i == kept.size() || distance(endOf(kept[i - 1]), startOf(kept[i])) > 1e-6) {
                half.lines.push_back(
                    {line.name, line.kind, Run(kept.begin() + std::ptrdiff_t(from), kept.begin() + std::ptrdiff_t(i))});
                from = i;
            }
    }
    for (auto& layer : half.layers)
        layer.outline = rightHalf(layer.outline, axis);
    return half;
}

} // namespace

int foldsOf(const Piece& piece, int most)
{
    if (most < 1 || !isSymmetric(piece))
        return 0;
    return most > 1 && isSymmetric(turned(piece, -pi / 2)) ? 2 : 1;
}

Piece templateOf(const Piece& piece)
{
    if (piece.folds == 0)
        return piece;
    Piece half = halved(piece, axisOf(piece), "fold");
    if (piece.folds == 1)
        return half;
    // A quarter turn to the right brings the upper half to the right.
    const Piece upright = turned(piece, -pi / 2);
    return turned(halved(turned(half, -pi / 2), axisOf(upright), "second fold"), pi / 2);
}

} // namespace tectonis
