// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/gathered.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

Gathered::Gathered(double radius, double neck, double thickness) : floor(floorShare * neck), m_neck(neck)
{
    const double shut = std::sqrt(2 * neck * thickness), rise = (neck - floor) / 2;
    // The wall leans out, then in, is upright in the channel and opens above it; how far it leans in brings it from the
    // floor's radius to the channel's.
    double low = 0, high = 2;
    for (int i = 0; i < 60; ++i) {
        const double in = (low + high) / 2;
        m_arcs = {Bow{floor, neck - rise, 0.35, -in}, {neck - rise, neck, -in, 0}, {neck, radius, 0, 0.8}};
        (profile(neck).out > shut ? low : high) = in;
    }
}

Gathered::Spot Gathered::profile(double away) const
{
    Spot spot{std::min(away, floor)};
    for (const Bow& bow : m_arcs) {
        if (away <= bow.from)
            break;
        const double length = bow.to - bow.from, turn = bow.leanTo - bow.leanFrom;
        spot.lean = bow.leanFrom + turn * std::min(1.0, (away - bow.from) / length);
        spot.out += length * (std::cos(bow.leanFrom) - std::cos(spot.lean)) / turn;
        spot.up += length * (std::sin(spot.lean) - std::sin(bow.leanFrom)) / turn;
    }
    return spot;
}

Vec3 Gathered::at(double away, double turn, double inwards) const
{
    const auto [out, up, lean] = profile(away);
    // Folds: alternate radii lie to the outside and to the inside of the arc, square to it, so that their distance is
    // the flat cloth's chord.
    const double c = std::cos(lean), s = std::sin(lean), half = pi / panels;
    const double depth = std::sqrt(std::max(0.0, away * away - out * out) / (std::pow(c * std::cos(half), 2) + s * s))
        * std::sin(half);
    const double outwards = (std::lround(turn / (2 * pi) * panels) % 2 == 0 ? depth : -depth) - inwards;
    const double across = out + outwards * c;
    return {std::cos(turn) * across, up - outwards * s, -std::sin(turn) * across};
}

Vec3 Gathered::at(Point flat, double inwards) const
{
    const double away = std::hypot(flat.x, flat.y), turn = std::atan2(-flat.y, flat.x), whole = 2 * pi / panels;
    const double from = std::floor(turn / whole) * whole, past = turn - from - whole / 2;
    // On the chord between two folds that passes through the point.
    const double ring = away * std::cos(past) / std::cos(whole / 2);
    const double share = ring > 0 ? 0.5 + away * std::sin(past) / (2 * ring * std::sin(whole / 2)) : 0.5;
    const Vec3 a = at(ring, from, inwards), b = at(ring, from + whole, inwards);
    return a + (b - a) * share;
}

std::vector<Line> Gathered::folds()
{
    std::vector<Line> out;
    for (int i = 0; i < panels / 2; ++i)
        out.push_back({{0, 0}, polar(2 * pi * i / panels)});
    return out;
}

Gathered::Room Gathered::room() const
{
    Room best;
    constexpr int parts = 400;
    for (int i = 1; i <= parts; ++i) {
        const Spot s = profile(std::lerp(floor, m_neck, double(i) / parts));
        const double radius = std::min(s.out, floor);
        if (s.lean < 0
            && radius * radius * s.up
                > best.radius * best.radius * best.height) // where the wall leans in it bounds the top
            best = {radius, s.up};
    }
    return best;
}

std::vector<double> Gathered::ringsTo(double radius) const
{
    std::vector<double> out{0};
    for (const auto& [to, parts] : {std::pair{floor, 1}, {m_neck, 12}, {radius, 4}})
        for (double from = out.back(), i = 1; i <= parts && out.back() < radius; ++i)
            out.push_back(std::min(radius, std::lerp(from, to, i / parts)));
    return out;
}

std::vector<Facet> Gathered::facets(const Piece& piece, double inwards, double radius) const
{
    const std::vector<double> rings = ringsTo(radius);
    std::vector<Facet> out;
    for (std::size_t k = 0; k + 1 < rings.size(); ++k)
        for (int i = 0; i < panels; ++i) {
            const double a = 2 * pi * i / panels, b = 2 * pi * (i + 1) / panels;
            out.push_back({piece.key, "cloth", "",
                {at(rings[k], b, inwards), at(rings[k + 1], b, inwards), at(rings[k + 1], a, inwards),
                    at(rings[k], a, inwards)},
                {false, k + 2 == rings.size(), false, false}});
        }
    return out;
}

double Gathered::litres(double inwards) const
{
    // Six times the cones from the channel's centre to all flat parts.
    const Vec3 top{0, at(m_neck, 0, inwards).y, 0};
    double six = 0;
    for (const auto& f : facets({}, inwards, m_neck))
        for (std::size_t i = 1; i + 1 < f.corners.size(); ++i)
            six += dot(f.corners[0] - top, cross(f.corners[i] - top, f.corners[i + 1] - top));
    return six / 6 / 1e6;
}

} // namespace tectonis
