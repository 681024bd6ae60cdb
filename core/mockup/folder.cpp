// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/folder.hpp"

#include "buildup/layers.hpp"
#include "checks/carry.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

constexpr double kSagitta = 0.4; // mm: fine enough for the eye
constexpr double kLift = 1.5;    // mm that a fitting lies above its piece

Polyline openOutline(const Run& run)
{
    Polyline line = flattened(run, kSagitta);
    if (line.size() > 1 && distance(line.front(), line.back()) < 1e-6)
        line.pop_back();
    return line;
}

/// Part of a polygon between two parallels (Sutherland-Hodgman, twice); @p axis picks the coordinate that is bounded.
Polyline band(Polyline polygon, double low, double high, double Point::* axis)
{
    for (const double sign : {1.0, -1.0}) {
        const double limit = sign > 0 ? low : -high;
        Polyline kept;
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point a = polygon[i], b = polygon[(i + 1) % polygon.size()];
            const double da = sign * a.*axis - limit, db = sign * b.*axis - limit;
            if (da >= 0)
                kept.push_back(a);
            if ((da > 0 && db < 0) || (da < 0 && db > 0))
                kept.push_back(lerp(a, b, da / (da - db)));
        }
        polygon = kept;
    }
    return polygon;
}

/// Distance of a point from a line through two points: positive to its left.
double sideOf(const Line& l, Point p) { return cross(unit(l.b - l.a), p - l.a); }

/// Part of a polygon on one side of a line (Sutherland-Hodgman).
Polyline beside(const Polyline& polygon, const Line& line, double side)
{
    Polyline kept;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point a = polygon[i], b = polygon[(i + 1) % polygon.size()];
        const double da = side * sideOf(line, a), db = side * sideOf(line, b);
        if (da >= -1e-9)
            kept.push_back(a);
        if ((da > 1e-9 && db < -1e-9) || (da < -1e-9 && db > 1e-9))
            kept.push_back(lerp(a, b, da / (da - db)));
    }
    return kept;
}

/// Bands between the bends that cross the box, with open ends.
std::vector<std::pair<double, double>> bandsOf(std::vector<double> bends, double low, double high)
{
    std::erase_if(bends, [&](double b) { return b <= low + 1e-6 || b >= high - 1e-6; });
    std::sort(bends.begin(), bends.end());
    std::vector<std::pair<double, double>> out;
    double from = low - 1;
    for (const double b : bends) {
        out.push_back({from, b});
        from = b;
    }
    out.push_back({from, high + 1});
    return out;
}

Vec3 unitOf(Vec3 v)
{
    const double n = std::sqrt(dot(v, v));
    return n > 0 ? v * (1 / n) : v;
}

/// Outward unit normal of a fold at a point, from small steps within the piece.
Vec3 normalAt(const Fold& at, Point p)
{
    constexpr double h = 0.01;
    const Vec3 dx = at(p + Point{h, 0}) - at(p - Point{h, 0}), dy = at(p + Point{0, h}) - at(p - Point{0, h});
    return unitOf(cross(dx, dy));
}

/// Points of a run with those at which it passes bends, so that each part is straight in space.
Polyline withBends(const Run& run, const std::vector<double>& bendX, const std::vector<double>& bendY)
{
    const Polyline line = flattened(run, kSagitta);
    Polyline out;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        std::vector<double> shares{0};
        const auto passes = [&](double a, double b, const std::vector<double>& bends) {
            for (const double bend : bends)
                if ((a - bend) * (b - bend) < 0)
                    shares.push_back((bend - a) / (b - a));
        };
        passes(line[i].x, line[i + 1].x, bendX);
        passes(line[i].y, line[i + 1].y, bendY);
        std::sort(shares.begin(), shares.end());
        for (const double t : shares)
            out.push_back(lerp(line[i], line[i + 1], t));
    }
    if (!line.empty())
        out.push_back(line.back());
    return out;
}

void addBox(Mockup& m, const std::string& label, const std::string& kind, Vec3 lo, Vec3 hi, bool clash)
{
    const auto at = [&](int i) { return Vec3{i & 1 ? hi.x : lo.x, i & 2 ? hi.y : lo.y, i & 4 ? hi.z : lo.z}; };
    static constexpr int sides[6][4] = {{4, 5, 7, 6}, {1, 0, 2, 3}, {5, 1, 3, 7}, {0, 4, 6, 2}, {6, 7, 3, 2}, {0, 1, 5, 4}};
    for (const auto& side : sides) {
        Facet f{"", kind, label, {}, {}};
        f.clash = clash;
        for (const int corner : side)
            f.corners.push_back(at(corner));
        m.facets.push_back(std::move(f));
    }
}


} // namespace

Guide::Guide(const Run& run, double sagitta) : m_line(flattened(run, sagitta))
{
    // Chords are shorter than the curve: lengths are taken from the curve, so that strips keep their true length.
    double chords = 0;
    m_along.push_back(0);
    for (std::size_t i = 1; i < m_line.size(); ++i) {
        chords += distance(m_line[i - 1], m_line[i]);
        m_along.push_back(chords);
    }
    const double stretch = chords > 0 ? lengthOf(run) / chords : 1;
    for (double& a : m_along)
        a *= stretch;
}

Point Guide::at(double along) const
{
    const auto next = std::upper_bound(m_along.begin(), m_along.end(), along);
    const std::size_t i = std::clamp<std::size_t>(std::size_t(next - m_along.begin()), 1, m_along.size() - 1);
    const double span = m_along[i] - m_along[i - 1];
    return lerp(m_line[i - 1], m_line[i], span > 0 ? std::clamp((along - m_along[i - 1]) / span, 0.0, 1.0) : 0);
}

void Folder::lay(const std::string& key, Fold at, std::vector<double> bendX, std::vector<double> bendY, int copy, std::vector<Line> aslant)
{
    if (m_lining)
        at = [at = std::move(at)](Point q) { const Vec3 v = at(q); return Vec3{-v.x, v.y, v.z}; };
    // A mirrored copy keeps the coordinates of the piece, but its face is the other side.
    for (const auto& piece : m_pattern.pieces)
        if (piece.key == key || piece.whole == key)
            m_laid.push_back({&piece, copy, at, bendX, bendY, "cloth", piece.mirrored > 0 && copy >= piece.count - piece.mirrored, aslant});
    for (const auto& gap : m_pattern.gaps)
        if (gap.whole == key && copy == 0)
            m_laid.push_back({&gap, copy, at, bendX, bendY, "zip", false, aslant});
}

void Folder::layTurned(const std::string& key, Fold at, std::vector<double> bendX, std::vector<double> bendY, int copy)
{
    const std::size_t before = m_laid.size();
    lay(key, std::move(at), std::move(bendX), std::move(bendY), copy);
    for (std::size_t i = before; i < m_laid.size(); ++i)
        m_laid[i].turned = !m_laid[i].turned;
}

const Folder::Laid* Folder::find(const std::string& piece, int copy) const
{
    for (const auto& l : m_laid)
        if (l.piece->key == piece && l.copy == copy && l.kind != "zip")
            return &l;
    return nullptr;
}

void Folder::addFacets(const Laid& laid, Mockup& m) const
{
    const auto face = laid.piece->areas.find("face");
    const Polyline outline = openOutline(face != laid.piece->areas.end() ? face->second : laid.piece->stitch());
    Box box;
    for (const Point q : outline)
        box.add(q);
    const auto across = bandsOf(laid.bendX, box.x0, box.x1), up = bandsOf(laid.bendY, box.y0, box.y1);
    for (const auto& [x0, x1] : across) {
        const Polyline column = band(outline, x0, x1, &Point::x);
        for (const auto& [y0, y1] : up) {
            std::vector<Polyline> shapes{up.size() == 1 ? column : band(column, y0, y1, &Point::y)};
            for (const Line& line : laid.aslant) {
                std::vector<Polyline> parted;
                for (const auto& shape : shapes)
                    for (const double side : {1.0, -1.0})
                        if (Polyline part = beside(shape, line, side); part.size() > 2)
                            parted.push_back(std::move(part));
                shapes = std::move(parted);
            }
            for (auto& shape : shapes) {
                if (laid.turned)
                    std::reverse(shape.begin(), shape.end());
                if (shape.size() < 3)
                    continue;
                Facet f{laid.piece->key, laid.kind, laid.piece->name, {}, {}};
                f.copy = laid.copy;
                for (std::size_t i = 0; i < shape.size(); ++i) {
                    const Point a = shape[i], b = shape[(i + 1) % shape.size()];
                    f.corners.push_back(laid.at(a));
                    const auto on = [](double va, double vb, double bend) { return std::abs(va - bend) < 1e-6 && std::abs(vb - bend) < 1e-6; };
                    const bool onLine = std::any_of(laid.aslant.begin(), laid.aslant.end(), [&](const Line& l) { return std::abs(sideOf(l, a)) < 1e-6 && std::abs(sideOf(l, b)) < 1e-6; });
                    f.seamAfter.push_back(!onLine && !(on(a.x, b.x, x0) || on(a.x, b.x, x1) || on(a.y, b.y, y0) || on(a.y, b.y, y1)));
                }
                m.facets.push_back(std::move(f));
            }
        }
    }
}

void Folder::addThickness(const Laid& laid, const Run& run, double from, double to, Mockup& m) const
{
    const bool onSurface = laid.kind == "overlay";
    const Polyline line = withBends(run, laid.bendX, laid.bendY);
    const double sign = laid.turned ? -1 : 1;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Vec3 a = laid.at(line[i]), b = laid.at(line[i + 1]), n = normalAt(laid.at, lerp(line[i], line[i + 1], 0.5)) * sign;
        Facet f{laid.piece->key, "edge", laid.piece->name, {a + n * from, b + n * from, b + n * to, a + n * to}, {true, false, true, false}};
        f.copy = laid.copy;
        if (onSurface)
            f.facing = n;
        m.facets.push_back(std::move(f));
    }
}

void Folder::addFitting(const Fitting& f, Mockup& m) const
{
    const Laid* laid = find(f.piece, 0);
    const bool inGap = f.kind == Fitting::Kind::Zip && std::any_of(m_pattern.gaps.begin(), m_pattern.gaps.end(), [&](const Piece& gap) { return gap.key == f.piece || (laid && gap.whole == laid->piece->whole && boundsOf(gap.stitch()).contains(f.at)); });
    if (!laid || inGap || f.kind == Fitting::Kind::Ring || f.kind == Fitting::Kind::Slider)
        return;
    const Vec3 up = normalAt(laid->at, f.at) * (kLift * 1.4);
    Facet facet{f.piece, "fitting", f.name, {}, {}};
    if (f.kind == Fitting::Kind::Zip) {
        facet.kind = "zip", facet.facing = up;
        for (const Point corner : {Point{-f.size / 2, -4}, {f.size / 2, -4}, {f.size / 2, 4}, {-f.size / 2, 4}})
            facet.corners.push_back(laid->at(f.at + corner) + up);
    } else
        for (int i = 0; i < 12; ++i)
            facet.corners.push_back(laid->at(f.at + polar(2 * pi * i / 12) * (f.size / 2)) + up);
    m.facets.push_back(std::move(facet));
}

std::vector<Vec3> Folder::sampled(const std::vector<EdgeUse>& side, int parts) const
{
    struct Part {
        const Laid* laid;
        Run run;
        double length;
    };
    std::vector<Part> runs;
    double whole = 0;
    for (const auto& use : side) {
        const Laid* laid = find(use.piece, use.copy);
        if (!laid)
            return {};
        Run run = m_pattern.runOf(use);
        const double length = lengthOf(run);
        runs.push_back({laid, std::move(run), length});
        whole += length;
    }
    std::vector<Vec3> out;
    for (int i = 0; i <= parts && !runs.empty(); ++i) {
        double along = whole * i / parts;
        for (std::size_t k = 0; k < runs.size(); ++k) {
            if (along <= runs[k].length + 1e-9 || k + 1 == runs.size()) {
                out.push_back(runs[k].laid->at(pointAlong(runs[k].run, along)));
                break;
            }
            along -= runs[k].length;
        }
    }
    return out;
}

Mockup Folder::finish(const std::vector<EdgeUse>& mouth) const
{
    Mockup m;
    for (const auto& laid : m_laid)
        addFacets(laid, m);
    // Six times the volume: each facet and the flat mouth with the origin.
    double six = 0;
    const auto fan = [&](const std::vector<Vec3>& c) {
        for (std::size_t i = 1; i + 1 < c.size(); ++i)
            six += dot(c[0], cross(c[i], c[i + 1]));
    };
    for (const auto& f : m.facets)
        if (f.kind == "cloth" || f.kind == "zip")
            fan(f.corners);
    if (auto rim = sampled(mouth, 96); !rim.empty()) {
        const double before = six;
        fan(rim);
        const double lid = six - before;
        // The rim may have been given either way round: the lid faces up.
        Vec3 normal{};
        for (std::size_t i = 1; i + 1 < rim.size(); ++i)
            normal = normal + cross(rim[i] - rim[0], rim[i + 1] - rim[0]);
        if ((normal.y < 0) != m_lining)
            six = before - lid;
    }
    m.litres = (m_lining ? -six : six) / 6 / 1e6;
    constexpr int parts = 12;
    for (const auto& seam : m_pattern.seams) {
        if (seam.stitch != "construction")
            continue;
        const auto a = sampled(seam.a, parts), b = sampled(seam.b, parts);
        for (std::size_t i = 0; i < a.size() && i < b.size(); ++i) {
            if (seam.ease != 0 && i != 0 && i + 1 != a.size())
                continue; // in between, what is eased lies where it will
            const Vec3 apart = a[i] - b[i];
            if (const double gap = std::sqrt(dot(apart, apart)); gap > m.largestGap)
                m.largestGap = gap, m.gapAt = seam.name;
        }
    }
    // Where a piece ends free or at the mouth its thickness shows.
    std::set<std::pair<std::string, std::string>> sewn;
    for (const auto& seam : m_pattern.seams)
        if (seam.stitch == "construction" && seam.key != "mouth")
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    sewn.insert({use.piece, use.edge});
    for (const auto& laid : m_laid)
        if (laid.kind == "cloth" && !laid.piece->areas.contains("face"))
            for (const auto& e : laid.piece->edges)
                if (!sewn.contains({laid.piece->key, e.name}))
                    addThickness(laid, e.stitch, 0, -thicknessOf(m_pattern, *laid.piece), m);
    Folder whole = *this;
    for (const auto& overlay : m_pattern.overlays)
        if (const Laid* under = whole.find(overlay.on, 0); under && m_pattern.piece(overlay.piece)) {
            const Laid base = *under;
            const Placement place = overlay.placement;
            const auto moved = [](std::vector<double> bends, double by, bool mirror) {
                for (double& b : bends)
                    b = mirror ? by - b : b - by;
                return bends;
            };
            const Piece& piece = *m_pattern.piece(overlay.piece);
            const double high = std::max(0.6, thicknessOf(m_pattern, piece));
            const auto bendX = moved(base.bendX, place.dx, place.mirror), bendY = moved(base.bendY, place.dy, false);
            std::vector<Line> aslant = base.aslant;
            for (Line& l : aslant)
                for (Point* end : {&l.a, &l.b})
                    *end = {place.mirror ? place.dx - end->x : end->x - place.dx, end->y - place.dy};
            const Laid flat{&piece, 0, [base, place](Point q) { return base.at(place(q)); }, bendX, bendY, "overlay", place.mirror, aslant};
            const auto face = piece.areas.find("face");
            addThickness(flat, face != piece.areas.end() ? face->second : piece.stitch(), high, 0, m);
            whole.m_lining = false; // the surface below is mirrored already
            whole.lay(overlay.piece, [base, place, high](Point q) { return base.at(place(q)) + normalAt(base.at, place(q)) * high; }, bendX, bendY, 0, aslant);
            whole.m_laid.back().kind = "overlay", whole.m_laid.back().turned = place.mirror;
            addFacets(whole.m_laid.back(), m);
        }
    for (const auto& fitting : m_pattern.fittings)
        whole.addFitting(fitting, m);
    return m;
}

Mockup foldCoats(const Pattern& p, const std::function<void(Folder&, const LaidCoat&)>& lay)
{
    const Seam* mouth = p.seam("mouth");
    Folder shell(p), lining(p, true);
    lay(shell, {});
    Mockup m = shell.finish(mouth ? mouth->a : std::vector<EdgeUse>{});
    LaidCoat inside{.of = "lining."};
    for (const auto& w : p.workings)
        if (w.key == "lining.inset")
            inside.in = w.result;
    lay(lining, inside);
    Mockup within = lining.finish(mouth ? mouth->b : std::vector<EdgeUse>{});
    for (auto& f : within.facets) {
        f.coat = Facet::Coat::Lining;
        m.facets.push_back(std::move(f));
    }
    if (within.largestGap > m.largestGap)
        m.largestGap = within.largestGap, m.gapAt = within.gapAt;
    m.liningLitres = within.litres;
    return m;
}

void foldFlaps(Mockup& m, const Pattern& p, double height, double halfDepth)
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
        // Open, it stands up from its hinge and leans back.
        const Fold raised = [&, lean = 0.35](Point q) { const double up = box.y1 - q.y; return Vec3{q.x, height - hinge + up * std::cos(lean), -z - up * std::sin(lean)}; };
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
            const Polyline shape = band(outline, part.low, part.high, &Point::y);
            for (std::size_t i = 0; i < shape.size(); ++i) {
                f.corners.push_back(part.at(shape[i]));
                f.opened.push_back(raised(shape[i]));
                const Point next = shape[(i + 1) % shape.size()];
                const auto onFold = [&](double y) { return std::abs(shape[i].y - y) < 1e-6 && std::abs(next.y - y) < 1e-6; };
                f.seamAfter.push_back(!(onFold(y1) || onFold(y2)));
            }
            m.facets.push_back(std::move(f));
        }
    }
}

void foldRibbon(Mockup& m, const std::string& piece, const std::string& label, const std::vector<Vec3>& path, Vec3 across)
{
    const Vec3 w = across * 0.5;
    for (std::size_t i = 0; i + 1 < path.size(); ++i)
        m.facets.push_back({piece, "strap", label, {path[i] + w, path[i + 1] + w, path[i + 1] - w, path[i] - w}, {true, false, true, false}});
}

void foldHandles(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "handle")
            continue;
        const auto v = [&](const char* name) { return p.values.at(piece.key + "." + name); };
        for (const double side : {1.0, -1.0}) {
            const double z = side * (halfDepth + kLift), a = v("spread") / 2;
            std::vector<Vec3> path{{-a, height - v("end"), z}};
            for (int i = 0; i <= 20; ++i)
                path.push_back({-a * std::cos(pi * i / 20), height + v("drop") * std::sin(pi * i / 20), z});
            path.push_back({a, height - v("end"), z});
            // A flat handle stands on its edge at the top and lies flat on the face: shown by its width across the path.
            for (std::size_t i = 0; i + 1 < path.size(); ++i) {
                const auto outwards = [&](std::size_t k) {
                    const Vec3 along = path[std::min(k + 1, path.size() - 1)] - path[k == 0 ? 0 : k - 1];
                    return unitOf(Vec3{along.y, -along.x, 0}) * (v("width") / 2);
                };
                const Vec3 u = outwards(i), w = outwards(i + 1);
                m.facets.push_back({piece.key, "strap", piece.name, {path[i] + u, path[i + 1] + w, path[i + 1] - w, path[i] - u}, {true, false, true, false}});
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
    std::string connector;
    for (const auto& piece : p.pieces)
        if (piece.role == "connector")
            connector = piece.key;
    for (const auto& strap : p.straps) {
        const double rise = [&] {
            for (const auto& f : p.fittings)
                if (f.kind == Fitting::Kind::Ring)
                    return p.values.at(prefixOf(f.key) + "loop");
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
            m.facets.push_back({strap.piece, "strap", strap.name, {a + w, b + w, b - w, a - w}, {true, false, true, false}});
        }
        for (const double side : {-1.0, 1.0}) {
            const double x = side * ring.x, r = strap.ringWidth / 2;
            const Vec3 w{0, 0, half};
            Facet loop{connector, "strap", "Connector", {Vec3{x, ring.y, 0} + w, Vec3{x, y - 4, 0} + w, Vec3{x, y - 4, 0} - w, Vec3{x, ring.y, 0} - w}, {}};
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
        addBox(m, spot.name, "thing", {spot.x - spot.width / 2, spot.y, spot.z - spot.thickness / 2}, {spot.x + spot.width / 2, spot.y + spot.height, spot.z + spot.thickness / 2},
               std::max({spot.overWidth, spot.overHeight, spot.overDepth}) > 0.01);
}

void foldZipBands(Mockup& m, const Pattern& p, double height, double halfDepth)
{
    for (const auto& piece : p.pieces) {
        if (piece.role != "zip band" || piece.group != PieceGroup::Shell)
            continue;
        const Box box = boundsOf(piece.stitch());
        const double y = height - p.values.at(prefixOf(piece.key) + "drop"), half = box.width() / 2, wide = box.height(), gap = std::max(0.0, halfDepth - wide);
        for (const double side : {1.0, -1.0}) {
            const double hinge = side * halfDepth, zip = side * gap;
            Facet f{piece.key, "inner", piece.name, {{-half, y, zip}, {half, y, zip}, {half, y, hinge}, {-half, y, hinge}}, {}};
            f.opened = {{-half, y - wide, hinge}, {half, y - wide, hinge}, {half, y, hinge}, {-half, y, hinge}};
            m.facets.push_back(std::move(f));
        }
        m.facets.push_back({"", "zip", "Zip at the mouth", {{-half, y, -gap}, {half, y, -gap}, {half, y, gap}, {-half, y, gap}}, {}});
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
