// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/folding.hpp"

#include "checks/carry.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kSagitta = 0.4; // mm: fine enough for the eye

Polyline openOutline(const Run& run)
{
    Polyline line = flattened(run, kSagitta);
    if (line.size() > 1 && distance(line.front(), line.back()) < 1e-6)
        line.pop_back();
    return line;
}

/// Part of a polygon with y between @p low and @p high (Sutherland-Hodgman, twice).
Polyline band(Polyline polygon, double low, double high)
{
    for (const double sign : {1.0, -1.0}) {
        const double limit = sign > 0 ? low : -high;
        Polyline kept;
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point a = polygon[i], b = polygon[(i + 1) % polygon.size()];
            const double ya = sign * a.y - limit, yb = sign * b.y - limit;
            if (ya >= 0)
                kept.push_back(a);
            if ((ya > 0 && yb < 0) || (ya < 0 && yb > 0))
                kept.push_back(lerp(a, b, ya / (ya - yb)));
        }
        polygon = kept;
    }
    return polygon;
}

void addBox(Mockup& m, const std::string& label, const std::string& kind, Vec3 lo, Vec3 hi)
{
    const auto at = [&](int i) { return Vec3{i & 1 ? hi.x : lo.x, i & 2 ? hi.y : lo.y, i & 4 ? hi.z : lo.z}; };
    static constexpr int sides[6][4] = {{4, 5, 7, 6}, {1, 0, 2, 3}, {5, 1, 3, 7}, {0, 4, 6, 2}, {6, 7, 3, 2}, {0, 1, 5, 4}};
    for (const auto& side : sides) {
        Facet f{"", kind, label, {}, {}};
        for (const int corner : side)
            f.corners.push_back(at(corner));
        m.facets.push_back(std::move(f));
    }
}

} // namespace

void foldFlat(Mockup& m, const Pattern& p, const std::string& key, const Fold& at, const std::string& kind)
{
    const Piece* piece = p.piece(key);
    if (!piece)
        return;
    Facet f{key, kind, piece->name, {}, {}};
    for (const Point q : openOutline(piece->stitch()))
        f.corners.push_back(at(q));
    m.facets.push_back(std::move(f));
}

void foldStripRound(Mockup& m, const Pattern& p, const std::vector<EdgeUse>& run, const std::string& strip, double depth)
{
    Run path;
    for (const auto& use : run)
        for (const auto& s : p.runOf(use))
            path.push_back(s);
    const Polyline line = flattened(path, kSagitta);
    const double z = depth / 2;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Point a = line[i], b = line[i + 1];
        const bool first = i == 0, last = i + 2 == line.size();
        m.facets.push_back({strip, "cloth", p.piece(strip)->name, {{b.x, b.y, z}, {a.x, a.y, z}, {a.x, a.y, -z}, {b.x, b.y, -z}}, {true, first, true, last}});
    }
}

void foldFlapOver(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "flap")
            continue;
        const Box box = boundsOf(piece.stitch());
        const double hinge = p.values.at(prefixOf(piece.key) + "hinge");
        constexpr double lift = 1.5; // mm clear of the cloth below
        const double up = hinge + lift, across = 2 * (halfDepth + lift), top = height + lift, z = halfDepth + lift;
        const double y1 = box.y1 - up, y2 = y1 - across;
        const Polyline outline = openOutline(piece.stitch());
        const struct {
            double low, high;
            Fold at;
        } parts[] = {{std::max(y1, box.y0), box.y1, [&](Point q) { return Vec3{q.x, top - (q.y - y1), -z}; }},
                     {std::max(y2, box.y0), y1, [&](Point q) { return Vec3{q.x, top, -z + (y1 - q.y)}; }},
                     {box.y0, y2, [&](Point q) { return Vec3{q.x, top - (y2 - q.y), z}; }}};
        for (const auto& part : parts) {
            if (part.high - part.low < 1e-6)
                continue;
            Facet f{piece.key, "flap", piece.name, {}, {}};
            const Polyline shape = band(outline, part.low, part.high);
            for (std::size_t i = 0; i < shape.size(); ++i) {
                f.corners.push_back(part.at(shape[i]));
                const Point next = shape[(i + 1) % shape.size()];
                const auto onFold = [&](double y) { return std::abs(shape[i].y - y) < 1e-6 && std::abs(next.y - y) < 1e-6; };
                f.seamAfter.push_back(!(onFold(y1) || onFold(y2)));
            }
            m.facets.push_back(std::move(f));
        }
    }
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

void foldStrap(Mockup& m, const Pattern& p, Vec3 ring)
{
    for (const auto& strap : p.straps) {
        const double rise = p.values.contains("connectors.loop") ? p.values.at("connectors.loop") : 20;
        const double half = strap.width / 2, y = ring.y + rise;
        const double bow = bowHeight(2 * ring.x, strap.shortest - 2 * rise);
        constexpr int n = 20;
        std::vector<Vec3> path;
        for (int i = 0; i <= n; ++i) {
            const double t = pi * i / n;
            path.push_back({ring.x * std::cos(t), y + bow * std::sin(t), 0});
        }
        for (int i = 0; i < n; ++i) {
            const Vec3 a = path[std::size_t(i)], b = path[std::size_t(i) + 1], w{0, 0, half};
            m.facets.push_back({strap.piece, "strap", strap.name, {a + w, b + w, b - w, a - w}, {true, false, true, false}});
        }
        for (const double side : {-1.0, 1.0}) {
            const double x = side * ring.x, r = strap.ringWidth / 2;
            const Vec3 w{0, 0, half};
            Facet loop{"connectors", "strap", "Connector", {Vec3{x, ring.y, 0} + w, Vec3{x, y - 4, 0} + w, Vec3{x, y - 4, 0} - w, Vec3{x, ring.y, 0} - w}, {}};
            m.facets.push_back(loop);
            for (int i = 0; i < 12; ++i) {
                const double a = 2 * pi * i / 12, b = 2 * pi * (i + 1) / 12;
                const auto at = [&](double t, double k) { return Vec3{x, y + k * r * 0.7 * std::sin(t), k * (r + 2) * std::cos(t)}; };
                m.facets.push_back({"", "metal", "Ring", {at(a, 1), at(b, 1), at(b, 0.8), at(a, 0.8)}, {}});
            }
        }
    }
}

void placeThings(Mockup& m, const Design& design, const Pattern& p)
{
    for (const auto& spot : placeCarried(design, p))
        addBox(m, spot.name, "thing", {spot.x - spot.width / 2, spot.y, spot.z - spot.thickness / 2},
               {spot.x + spot.width / 2, spot.y + spot.height, spot.z + spot.thickness / 2});
}

} // namespace tectonis
