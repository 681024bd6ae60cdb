// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/dress.hpp"

#include "mockup/carry.hpp"
#include "mockup/slices.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

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

} // namespace

void foldFlaps(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "flap")
            continue;
        const Box box = boundsOf(piece.stitch());
        const double hinge = p.of(piece.owner(), "hinge");
        const double up = hinge + kLift, across = 2 * (halfDepth + kLift), top = height + kLift, z = halfDepth + kLift;
        const double y1 = box.y1 - up, y2 = y1 - across;
        const Polyline outline = openOutline(piece.stitch());
        // Open, it stands up from its hinge and leans back.
        const auto raised = [&, lean = 0.35](Point q) {
            const double up = box.y1 - q.y;
            return Vec3{q.x, height - hinge + up * std::cos(lean), -z - up * std::sin(lean)};
        };
        const struct {
            double low, high;
            std::function<Vec3(Point)> at;
        } parts[] = {{std::max(y1, box.y0), box.y1,
                         [&](Point q) {
                             return Vec3{q.x, top - (q.y - y1), -z};
                         }},
            {std::max(y2, box.y0), y1,
                [&](Point q) {
                    return Vec3{q.x, top, -z + (y1 - q.y)};
                }},
            {box.y0, y2, [&](Point q) {
                 return Vec3{q.x, top - (y2 - q.y), z};
             }}};
        for (const auto& part : parts) {
            if (part.high - part.low < 1e-6)
                continue;
            Facet f{piece.key, "flap", "", {}, {}};
            const Polyline shape = band(outline, part.low, part.high, &Point::y);
            for (std::size_t i = 0; i < shape.size(); ++i) {
                f.corners.push_back(part.at(shape[i]));
                f.opened.push_back(raised(shape[i]));
                const Point next = shape[(i + 1) % shape.size()];
                const auto onFold = [&](double y) {
                    return std::abs(shape[i].y - y) < 1e-6 && std::abs(next.y - y) < 1e-6;
                };
                f.seamAfter.push_back(!(onFold(y1) || onFold(y2)));
            }
            m.facets.push_back(std::move(f));
        }
    }
}

void foldRibbon(Mockup& m, const PieceId& piece, const std::vector<Vec3>& path, Vec3 across)
{
    const Vec3 w = across * 0.5;
    for (std::size_t i = 0; i + 1 < path.size(); ++i)
        m.facets.push_back({piece, "strap", "", {path[i] + w, path[i + 1] + w, path[i + 1] - w, path[i] - w},
            {true, false, true, false}});
}

void foldHandles(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "handle")
            continue;
        const auto v = [&](const char* name) { return p.of(piece.owner(), name); };
        for (const double side : {1.0, -1.0}) {
            const double z = side * (halfDepth + kLift), a = v("spread") / 2;
            std::vector<Vec3> path{{-a, height - v("end"), z}};
            for (int i = 0; i <= 20; ++i)
                path.push_back({-a * std::cos(pi * i / 20), height + v("drop") * std::sin(pi * i / 20), z});
            path.push_back({a, height - v("end"), z});
            // A flat handle stands on its edge at the top and lies flat on the face: shown by its width across the
            // path.
            for (std::size_t i = 0; i + 1 < path.size(); ++i) {
                const auto outwards = [&](std::size_t k) {
                    const Vec3 along = path[std::min(k + 1, path.size() - 1)] - path[k == 0 ? 0 : k - 1];
                    return unitOf(Vec3{along.y, -along.x, 0}) * (v("width") / 2);
                };
                const Vec3 u = outwards(i), w = outwards(i + 1);
                m.facets.push_back({piece.key, "strap", "",
                    {path[i] + u, path[i + 1] + w, path[i + 1] - w, path[i] - u}, {true, false, true, false}});
            }
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
    PieceId connector;
    for (const auto& piece : p.pieces)
        if (piece.role == "connector")
            connector = piece.key;
    for (const auto& strap : p.straps) {
        const double rise = [&] {
            for (const auto& f : p.fittings)
                if (f.kind == Fitting::Kind::Ring)
                    return p.of(f.owner(), "loop");
            return 20.0;
        }();
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
            m.facets.push_back({strap.piece, "strap", "", {a + w, b + w, b - w, a - w}, {true, false, true, false}});
        }
        for (const double side : {-1.0, 1.0}) {
            const double x = side * ring.x, r = strap.ringWidth / 2;
            const Vec3 w{0, 0, half};
            Facet loop{connector, "strap", "",
                {Vec3{x, ring.y, 0} + w, Vec3{x, y - 4, 0} + w, Vec3{x, y - 4, 0} - w, Vec3{x, ring.y, 0} - w}, {}};
            m.facets.push_back(loop);
            for (int i = 0; i < 12; ++i) {
                const double a = 2 * pi * i / 12, b = 2 * pi * (i + 1) / 12;
                const auto at = [&](double t, double k) {
                    return Vec3{x, y + k * r * 0.7 * std::sin(t), k * (r + 2) * std::cos(t)};
                };
                m.facets.push_back({"", "metal", "", {at(a, 1), at(b, 1), at(b, 0.8), at(a, 0.8)}, {}});
            }
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
        for (const double side : {1.0, -1.0}) {
            const double hinge = side * halfDepth, zip = side * gap;
            Facet f{piece.key, "inner", "", {{-half, y, zip}, {half, y, zip}, {half, y, hinge}, {-half, y, hinge}}, {}};
            f.opened = {{-half, y - wide, hinge}, {half, y - wide, hinge}, {half, y, hinge}, {-half, y, hinge}};
            m.facets.push_back(std::move(f));
        }
        m.facets.push_back({"", "zip", "", {{-half, y, -gap}, {half, y, -gap}, {half, y, gap}, {-half, y, gap}}, {}});
    }
}

void dressUp(Mockup& m, const Design& design, const Pattern& p, double height, double halfDepth, double ringX)
{
    foldZipBands(m, p, height, halfDepth);
    foldFlaps(m, p, height, halfDepth);
    foldHandles(m, p, height, halfDepth);
    foldStrap(m, p, {ringX, height, 0});
    placeThings(m, design, p);
}

} // namespace tectonis
