// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/turned.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

/// A run with each of its points moved by @p point, without rounding; an arc that began at @p begin turns by @p sense.
template <class OfPoint, class OfAngle> Run moved(Run run, const OfPoint& point, const OfAngle& begin, double sense)
{
    for (auto& segment : run) {
        if (auto* line = std::get_if<Line>(&segment))
            line->a = point(line->a), line->b = point(line->b);
        else if (auto* arc = std::get_if<Arc>(&segment))
            arc->centre = point(arc->centre), arc->start = begin(arc->start), arc->sweep *= sense;
        else if (auto* cubic = std::get_if<Cubic>(&segment))
            for (Point* at : {&cubic->p0, &cubic->p1, &cubic->p2, &cubic->p3})
                *at = point(*at);
    }
    return run;
}

/// Its own geometry, each run and point by @p run and @p point.
template <class OfRun, class OfPoint> void moveOwn(Piece& piece, const OfRun& run, const OfPoint& point)
{
    for (auto& edge : piece.edges)
        edge.stitch = run(edge.stitch);
    for (auto& line : piece.lines)
        line.run = run(line.run);
    for (auto& [name, area] : piece.areas)
        area = run(area);
    for (auto& drill : piece.drills)
        drill.at = point(drill.at);
    // What is drawn already, where a finished pattern is turned to be looked at.
    piece.cut = run(piece.cut), piece.rough = run(piece.rough);
    for (auto& layer : piece.layers)
        layer.outline = run(layer.outline);
}

/// What the pattern keeps at points of it.
template <class OfPoint> void moveWithIt(Pattern& p, const PieceId& key, const OfPoint& point)
{
    const auto box = [&](const Box& area) {
        Box out;
        out.add(point({area.x0, area.y0}));
        out.add(point({area.x1, area.y1}));
        return out;
    };
    const auto spot = [&](const PieceId& on, Point& at) {
        if (on == key)
            at = point(at);
    };
    for (auto& fitting : p.fittings)
        spot(fitting.piece, fitting.at);
    for (auto& zip : p.zips)
        spot(zip.piece, zip.at);
    for (auto& anchor : p.anchors)
        spot(anchor.piece, anchor.at);
    for (auto& ribbon : p.hung)
        spot(ribbon.on, ribbon.from), spot(ribbon.on, ribbon.to);
    for (auto& flap : p.hinged)
        spot(flap.on, flap.at);
    for (auto& handle : p.handles)
        if (handle.piece == key) {
            const Point zero = point({0, 0});
            handle.at = point(handle.at), handle.direction = point(handle.direction) - zero;
            if (!handle.grip.empty())
                handle.grip = box(handle.grip);
        }
    for (auto& place : p.places)
        if (place.piece == key)
            place.area = box(place.area), place.at = point(place.at);
    for (auto& bag : p.bags)
        if (bag.face == key)
            bag.area = box(bag.area);
    for (auto& bottom : p.bottoms)
        if (bottom.piece == key)
            bottom.area = box(bottom.area);
}

} // namespace

void turnPiece(Pattern& p, const PieceId& key, int quarters)
{
    const double angle = quarters * pi / 2;
    const auto piece = std::find_if(
        p.pieces.begin(), p.pieces.end(), [&](const Piece& each) { return each.key == key; });
    if (piece == p.pieces.end())
        return;
    const auto point = [&](Point at) { return quarterTurned(at, quarters); };
    moveOwn(
        *piece,
        [&](const Run& run) {
            return placed(run, {0, 0, angle});
        },
        point);
    piece->grain = std::fmod(piece->grain + 90.0 * quarters + 720, 180);
    for (auto& layer : piece->layers)
        layer.grain = std::fmod(layer.grain + 90.0 * quarters + 720, 180);
    moveWithIt(p, key, point);
    for (auto& overlay : p.overlays)
        if (overlay.on == key) {
            const Point by = point({overlay.placement.dx, overlay.placement.dy});
            overlay.placement.dx = by.x, overlay.placement.dy = by.y;
            overlay.placement.angle += angle;
        }
}

void mirrorPiece(Pattern& p, const PieceId& key, double about)
{
    const auto piece = std::find_if(
        p.pieces.begin(), p.pieces.end(), [&](const Piece& each) { return each.key == key; });
    if (piece == p.pieces.end())
        return;
    const auto point = [&](Point at) { return Point{at.x, 2 * about - at.y}; };
    moveOwn(
        *piece,
        [&](const Run& run) {
            return reversed(moved(
                run, point, [](double start) { return -start; }, -1));
        },
        point);
    // Outlines stay counter-clockwise: the last edge comes first, and what was at an edge's end is at its start.
    std::vector<Corner> corners;
    for (const auto& edge : piece->edges)
        corners.push_back(edge.corner);
    for (std::size_t i = 0; i < piece->edges.size(); ++i) {
        Edge& edge = piece->edges[i];
        edge.corner = corners[(i + corners.size() - 1) % corners.size()];
        if (edge.allowanceAtEnd)
            std::swap(edge.allowance, *edge.allowanceAtEnd);
    }
    std::reverse(piece->edges.begin(), piece->edges.end());
    moveWithIt(p, key, point);
    for (auto& seam : p.seams)
        for (auto* side : {&seam.a, &seam.b})
            for (auto& use : *side)
                if (use.piece == key)
                    use.reversed = !use.reversed;
}

StoodUp::StoodUp(Pattern& p, const std::string& site) : m_pattern(p)
{
    if (const Site* face = p.site(SiteId(site)); face && face->turn != 0) {
        m_pieces = face->pieces, m_turn = face->turn;
        for (const auto& piece : m_pieces)
            turnPiece(m_pattern, piece, m_turn);
    }
}

StoodUp::~StoodUp()
{
    for (const auto& piece : m_pieces)
        turnPiece(m_pattern, piece, -m_turn);
}

} // namespace tectonis
