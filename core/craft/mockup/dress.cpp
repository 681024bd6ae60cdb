// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/dress.hpp"

#include "mockup/carry.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

void addBox(Mockup& m, int number, const std::string& label, const std::string& kind, Vec3 lo, Vec3 hi, bool clash)
{
    const auto at = [&](int i) { return Vec3{i & 1 ? hi.x : lo.x, i & 2 ? hi.y : lo.y, i & 4 ? hi.z : lo.z}; };
    static constexpr int sides[6][4] = {
        {4, 5, 7, 6}, {1, 0, 2, 3}, {5, 1, 3, 7}, {0, 4, 6, 2}, {6, 7, 3, 2}, {0, 1, 5, 4}};
    for (const auto& side : sides) {
        Facet f{"", kind, label, {}, {}};
        f.clash = clash, f.copy = number;
        for (const int corner : side)
            f.corners.push_back(at(corner));
        m.facets.push_back(std::move(f));
    }
}

/// Level, at right angles to @p across, on the side to which a face looks.
Vec3 away(Vec3 facing, Vec3 across)
{
    const Vec3 level = unitOf(cross(across, Vec3{0, 1, 0}));
    return dot(facing, level) < 0 ? level * -1 : level;
}

/// Does a fitting stand on a piece that is cut twice?
bool onTwoCopies(const Pattern& p, const FittingId& id)
{
    const auto fitting = std::find_if(
        p.fittings.begin(), p.fittings.end(), [&](const Fitting& f) { return f.key == id; });
    const Piece* piece = fitting == p.fittings.end() ? nullptr : p.piece(fitting->piece);
    return piece && piece->count > 1;
}

} // namespace

void foldRibbon(Mockup& m, const PieceId& piece, const std::vector<Vec3>& path, Vec3 across)
{
    const Vec3 w = across * 0.5;
    for (std::size_t i = 0; i + 1 < path.size(); ++i)
        m.facets.push_back({piece, "strap", "", {path[i] + w, path[i + 1] + w, path[i + 1] - w, path[i] - w},
            {true, false, true, false}});
}

/// A strap at its shortest, in a bow from one ring to the other.
void foldStrap(Mockup& m, const Strap& strap, Vec3 from, Vec3 to, double loop)
{
    const Vec3 apart = to - from, up{0, 1, 0};
    const double width = std::sqrt(dot(apart, apart)), bow = bowHeight(width, strap.shortest - 2 * loop);
    std::vector<Vec3> path;
    constexpr int n = 20;
    for (int i = 0; i <= n; ++i) {
        const double t = pi * i / n;
        path.push_back(from + apart * ((1 - std::cos(t)) / 2) + up * (bow * std::sin(t)));
    }
    foldRibbon(m, strap.piece, path, unitOf(cross(up, apart)) * strap.width);
}

/// A wrist loop that hangs from its ring and leans outwards, off the bag: three times as high as it is wide, sheared.
void foldLoop(Mockup& m, const Strap& strap, Vec3 from, Vec3 out, Vec3 across)
{
    std::vector<Vec3> path;
    constexpr int n = 24;
    for (int i = 0; i <= n; ++i) {
        const double t = 2 * pi * i / n, low = 1 - std::cos(t);
        path.push_back(Vec3{0, -3 * low, 0} + out * (std::sin(t) + low));
    }
    double girth = 0;
    for (int i = 0; i < n; ++i) {
        const Vec3 step = path[std::size_t(i) + 1] - path[std::size_t(i)];
        girth += std::sqrt(dot(step, step));
    }
    for (auto& p : path) // as long as both halves of the strap
        p = from + p * (2 * strap.longest / girth);
    foldRibbon(m, strap.piece, path, across * strap.width);
}

double bowHeight(double width, double length)
{
    const double a = width / 2;
    const auto half = [a](double b) {
        const double h = std::pow((a - b) / (a + b), 2);
        return pi / 2 * (a + b) * (1 + 3 * h / (10 + std::sqrt(4 - 3 * h)));
    };
    if (length <= width)
        return 0;
    double low = 0, high = length;
    for (int i = 0; i < 60; ++i)
        (half((low + high) / 2) < length ? low : high) = (low + high) / 2;
    return (low + high) / 2;
}

void foldConnectors(Mockup& m, const Pattern& p)
{
    for (const auto& connector : p.pieces) {
        if (connector.role != "connector")
            continue;
        std::vector<RingSpot> spots;
        for (const auto& spot : m.rings)
            if (spot.ring.owner() == connector.key.owner())
                spots.push_back(spot);
        const auto mirrored = [](RingSpot spot) {
            spot.at.x = -spot.at.x, spot.out.x = -spot.out.x;
            return spot;
        };
        const std::string& sides = p.choices.at(connector.key.owner().text() + ".sides");
        if (spots.size() == 1 && sides == "both") // on two copies of one piece
            spots.push_back(mirrored(spots.front()));
        else if (spots.size() == 1 && sides == "right" && onTwoCopies(p, spots.front().ring))
            spots.front() = mirrored(spots.front());
        if (spots.size() != (sides == "both" ? 2u : 1u))
            continue;
        const auto v = [&](const char* name) { return p.of(connector.key.owner(), name); };
        const std::string& held = p.choices.at(connector.key.owner().text() + ".held");
        const bool riveted = held == "riveted" || held == "walls";
        const double half = v("width") / 2, r = v("ring") / 2, rise = riveted ? 0 : v("loop");
        const Vec3 up{0, 1, 0};
        // Strap and tabs lie across the line between both rings.
        const Vec3 apart = spots.size() == 2 ? spots[1].at - spots[0].at : Vec3{1, 0, 0};
        const Vec3 across = unitOf(cross(up, apart));
        const Vec3 over = riveted ? unitOf(cross(up, spots[0].out)) : across; // how a loop lies in its ring
        std::vector<Vec3> tops;
        for (const auto& spot : spots) {
            const Vec3 held = spot.at + spot.out * kLift, wide = riveted ? unitOf(cross(up, spot.out)) : across;
            const Vec3 low = riveted ? held - up * (v("loop") + v("end")) : held,
                       high = held + up * std::max(0.0, rise - 4), w = wide * half, ring = held + up * rise;
            m.facets.push_back({connector.key, "strap", "", {low + w, high + w, high - w, low - w}, {}});
            for (int i = 0; i < 12; ++i) {
                const double t0 = 2 * pi * i / 12, t1 = 2 * pi * (i + 1) / 12;
                const auto at = [&](double t, double k) {
                    return ring + up * (k * r * 0.7 * std::sin(t)) + wide * (k * (r + 2) * std::cos(t));
                };
                m.facets.push_back({"", "metal", "", {at(t0, 1), at(t1, 1), at(t1, 0.8), at(t0, 0.8)}, {}});
            }
            tops.push_back(ring);
        }
        for (const auto& strap : p.straps)
            if (strap.worn == Strap::Worn::Shoulder && tops.size() == 2)
                foldStrap(m, strap, tops[0], tops[1], riveted ? 0 : rise);
            else if (strap.worn == Strap::Worn::Doubled && tops.size() == 2)
                for (const double side : {-1.0, 1.0}) { // its two strands, side by side
                    const Vec3 aside = across * (side * strap.width * 0.3);
                    Strap strand = strap;
                    strand.longest = strap.shortest;
                    foldStrap(m, strand, tops[0] + aside, tops[1] + aside, riveted ? 0 : rise);
                }
            else if (strap.worn == Strap::Worn::Wrist)
                foldLoop(m, strap, tops[0], away(spots[0].out, over), over);
    }
}

namespace {

/// The facets of a piece's first ribbon, one behind the other.
std::vector<Facet> ribbonOf(const Mockup& m, const PieceId& piece)
{
    std::vector<Facet> out;
    for (const auto& f : m.facets) {
        if (f.piece != piece || f.kind != "strap" || f.corners.size() != 4)
            continue;
        const Vec3 gap = out.empty() ? Vec3{} : f.corners[0] - out.back().corners[1];
        if (dot(gap, gap) > 1)
            break;
        out.push_back(f);
    }
    return out;
}

/// A ribbon's surface: mm along it, and from its middle to the side of its first corners.
class Ribbon {
public:
    explicit Ribbon(std::vector<Facet> facets) : m_facets(std::move(facets))
    {
        for (const auto& f : m_facets)
            m_ends.push_back((m_ends.empty() ? 0 : m_ends.back()) + longOf(f));
    }
    double length() const { return m_ends.empty() ? 0 : m_ends.back(); }
    Vec3 at(double along, double across) const
    {
        std::size_t i = 0;
        while (i + 1 < m_ends.size() && m_ends[i] < along)
            ++i;
        const auto& c = m_facets[i].corners;
        const double before = i == 0 ? 0 : m_ends[i - 1], t = (along - before) / std::max(1e-9, longOf(m_facets[i]));
        const Vec3 near = c[0] + (c[1] - c[0]) * t, far = c[3] + (c[2] - c[3]) * t, wide = near - far;
        const double width = std::sqrt(dot(wide, wide));
        return (near + far) * 0.5 + wide * (across / std::max(1e-9, width));
    }

private:
    static double longOf(const Facet& f)
    {
        const Vec3 d = (f.corners[1] + f.corners[2] - f.corners[0] - f.corners[3]) * 0.5;
        return std::sqrt(dot(d, d));
    }
    std::vector<Facet> m_facets;
    std::vector<double> m_ends; ///< of each, mm from the beginning
};

} // namespace

void sewOntoStrips(Mockup& m, const Pattern& p)
{
    for (const auto& overlay : p.overlays) {
        const auto site = std::find_if(
            p.sites.begin(), p.sites.end(), [&](const Site& s) { return s.strip && s.pieces.front() == overlay.on; });
        const Piece *on = p.piece(overlay.on), *piece = p.piece(overlay.piece);
        if (site == p.sites.end() || !on || !piece)
            continue;
        auto facets = ribbonOf(m, overlay.on);
        if (facets.empty())
            continue;
        const bool tab = facets.size() == 1;
        const Ribbon ribbon(std::move(facets));
        const Box box = boundsOf(piece->stitch());
        const Point low = overlay.placement({box.x0, box.y0}), high = overlay.placement({box.x1, box.y1});
        // A tab stands from its seam up to the ring.
        const double end = tab ? site->top : boundsOf(on->stitch()).y1;
        const auto along = [&](double y) {
            return std::clamp(tab ? ribbon.length() - (end - y) : end - y, 0.0, ribbon.length());
        };
        constexpr int parts = 6;
        for (int i = 0; i < parts; ++i) {
            const double from = along(std::lerp(high.y, low.y, i / double(parts))),
                         to = along(std::lerp(high.y, low.y, (i + 1) / double(parts)));
            const double left = low.x - site->x, right = high.x - site->x;
            Facet f{overlay.piece, "overlay", "",
                {ribbon.at(from, left), ribbon.at(to, left), ribbon.at(to, right), ribbon.at(from, right)},
                {true, i + 1 == parts, true, i == 0}};
            f.coat = piece->coat;
            Vec3 out = unitOf(cross(f.corners[1] - f.corners[0], f.corners[3] - f.corners[0]));
            if (dot(out, f.corners[0] - Vec3{0, p.height / 2, 0}) < 0) { // seen from outside
                out = out * -1;
                std::reverse(f.corners.begin(), f.corners.end());
            }
            for (auto& corner : f.corners)
                corner = corner + out * kLift;
            f.facing = out;
            m.facets.push_back(std::move(f));
        }
    }
}

void placeThings(Mockup& m, const Design& design, const Pattern& p)
{
    for (const auto& spot : placeCarried(design, p))
        addBox(m, int(spot.index), spot.name, "thing", {spot.x - spot.width / 2, spot.y, spot.z - spot.thickness / 2},
            {spot.x + spot.width / 2, spot.y + spot.height, spot.z + spot.thickness / 2},
            std::max({spot.overWidth, spot.overHeight, spot.overDepth}) > 0.01);
}

void foldZipBands(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "zip band" || piece.coat != Coat::Shell)
            continue;
        const Box box = boundsOf(piece.stitch());
        const double y = height - p.of(piece.owner(), "drop"), half = box.width() / 2, wide = box.height(),
                     gap = std::max(0.0, halfDepth - wide);
        double aside = 0; // of its middle, to the right
        for (const auto& zip : p.zips)
            if (zip.piece == piece.key)
                aside = (zip.first.stitch - zip.last.stitch) / (zip.opens == "to the left" ? -2 : 2);
        const double x0 = aside - half, x1 = aside + half;
        for (const double side : {1.0, -1.0}) {
            const double hinge = side * halfDepth, zip = side * gap;
            Facet f{piece.key, "inner", "", {{x0, y, zip}, {x1, y, zip}, {x1, y, hinge}, {x0, y, hinge}}, {}};
            f.opened = {{x0, y - wide, hinge}, {x1, y - wide, hinge}, {x1, y, hinge}, {x0, y, hinge}};
            m.facets.push_back(std::move(f));
        }
        m.facets.push_back({"", "zip", "", {{x0, y, -gap}, {x1, y, -gap}, {x1, y, gap}, {x0, y, gap}}, {}});
    }
}

void dressUp(Mockup& m, const Design& design, const Pattern& p, double height, double halfDepth)
{
    foldZipBands(m, p, height, halfDepth);
    placeThings(m, design, p);
}

} // namespace tectonis
