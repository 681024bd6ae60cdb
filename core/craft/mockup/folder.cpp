// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/folder.hpp"

#include "buildup/layers.hpp"
#include "mockup/slices.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

constexpr double kSagitta = 0.4; // mm: fine enough for the eye

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

/// Nothing to be seen: a line through a corner leaves such parts, and each would be parted again.
bool isThin(const Polyline& part)
{
    double twice = 0;
    for (std::size_t i = 0; i < part.size(); ++i)
        twice += cross(part[i], part[(i + 1) % part.size()]);
    return part.size() < 3 || std::abs(twice) < 1e-6; // mm²
}

} // namespace

Vec3 normalAt(const Fold& at, Point p)
{
    constexpr double h = 0.01;
    // At the end of what can be folded one of the two neighbours may lie nowhere: then the other one tells the way.
    const auto finite = [](Vec3 v) { return std::isfinite(v.x + v.y + v.z); };
    const auto along = [&](Point step) {
        const Vec3 on = at(p + step), back = at(p - step), here = at(p);
        return finite(on) && finite(back) ? on - back : finite(on) ? on - here : here - back;
    };
    return unitOf(cross(along({h, 0}), along({0, h})));
}

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

void Folder::lay(const PieceId& key, Fold at, const std::vector<double>& bendX, const std::vector<double>& bendY,
    int copy, const std::vector<Line>& aslant)
{
    if (m_lining)
        at = [at = std::move(at)](Point q) {
            const Vec3 v = at(q);
            return Vec3{-v.x, v.y, v.z};
        };
    // A mirrored copy keeps the coordinates of the piece, but its face is the other side.
    for (const auto& piece : m_pattern.pieces)
        if (piece.key == key || piece.whole == key)
            m_laid.push_back({&piece, copy, at, bendX, bendY, "cloth",
                piece.mirrored > 0 && copy >= piece.count - piece.mirrored, aslant});
    for (const auto& gap : m_pattern.gaps)
        if (gap.whole == key && copy == 0)
            m_laid.push_back({&gap, copy, at, bendX, bendY, "zip", false, aslant});
}

void Folder::layTurned(
    const PieceId& key, Fold at, const std::vector<double>& bendX, const std::vector<double>& bendY, int copy)
{
    const std::size_t before = m_laid.size();
    lay(key, std::move(at), bendX, bendY, copy);
    for (std::size_t i = before; i < m_laid.size(); ++i)
        m_laid[i].turned = !m_laid[i].turned;
}

const Folder::Laid* Folder::find(const PieceId& piece, int copy) const
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
                        if (Polyline part = beside(shape, line, side); !isThin(part))
                            parted.push_back(std::move(part));
                shapes = std::move(parted);
            }
            for (auto& shape : shapes) {
                if (laid.turned)
                    std::reverse(shape.begin(), shape.end());
                if (shape.size() < 3)
                    continue;
                Facet f{laid.piece->key, laid.kind, "", {}, {}};
                f.copy = laid.copy, f.flap = laid.flap;
                for (std::size_t i = 0; i < shape.size(); ++i) {
                    const Point a = shape[i], b = shape[(i + 1) % shape.size()];
                    f.corners.push_back(laid.at(a));
                    if (laid.opened)
                        f.opened.push_back(laid.opened(a));
                    const auto on = [](double va, double vb, double bend) {
                        return std::abs(va - bend) < 1e-6 && std::abs(vb - bend) < 1e-6;
                    };
                    const bool onLine = std::any_of(laid.aslant.begin(), laid.aslant.end(),
                        [&](const Line& l) { return std::abs(sideOf(l, a)) < 1e-6 && std::abs(sideOf(l, b)) < 1e-6; });
                    f.seamAfter.push_back(
                        !onLine && !(on(a.x, b.x, x0) || on(a.x, b.x, x1) || on(a.y, b.y, y0) || on(a.y, b.y, y1)));
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
        Vec3 n{};
        const auto corners = [&](const Fold& at) {
            const Vec3 a = at(line[i]), b = at(line[i + 1]);
            n = normalAt(at, lerp(line[i], line[i + 1], 0.5)) * sign;
            return std::vector<Vec3>{a + n * from, b + n * from, b + n * to, a + n * to};
        };
        Facet f{laid.piece->key, "edge", "", corners(laid.at), {true, false, true, false}};
        f.copy = laid.copy, f.flap = laid.flap;
        if (onSurface)
            f.facing = n;
        if (laid.opened) {
            f.opened = corners(laid.opened);
            if (onSurface)
                f.openedFacing = n;
        }
        m.facets.push_back(std::move(f));
    }
}

void Folder::addFitting(const Fitting& f, Mockup& m) const
{
    const Laid* laid = find(f.piece, 0);
    const bool inGap = f.kind == Fitting::Kind::Zip
        && std::any_of(m_pattern.gaps.begin(), m_pattern.gaps.end(), [&](const Piece& gap) {
               return gap.key == f.piece
                   || (laid && gap.whole == laid->piece->whole && boundsOf(gap.stitch()).contains(f.at));
           });
    if (laid && f.kind == Fitting::Kind::Ring)
        m.rings.push_back({f.key, laid->at(f.at), normalAt(laid->at, f.at)});
    if (!laid || inGap || f.kind == Fitting::Kind::Ring || f.kind == Fitting::Kind::Slider
        || f.kind == Fitting::Kind::Buckle)
        return;
    Polyline outline;
    if (f.kind == Fitting::Kind::Zip)
        outline = {{-f.size / 2, -4}, {f.size / 2, -4}, {f.size / 2, 4}, {-f.size / 2, 4}};
    else
        for (int i = 0; i < 12; ++i)
            outline.push_back(polar(2 * pi * i / 12) * (f.size / 2));
    bool through = false; // the side on which a thing shows that goes through a flap
    const auto lifted = [&](const Fold& at) {
        const Vec3 up = normalAt(at, f.at) * ((laid->turned != through ? -1 : 1) * kLift * 1.4);
        std::vector<Vec3> corners;
        for (const Point corner : outline)
            corners.push_back(at(f.at + corner) + up);
        if (laid->turned != through)
            std::reverse(corners.begin(), corners.end());
        return corners;
    };
    Facet facet{f.piece, "fitting", "", lifted(laid->at), {}};
    facet.flap = laid->flap, facet.fitting = f.key;
    if (f.kind == Fitting::Kind::Zip)
        facet.kind = "zip", facet.facing = normalAt(laid->at, f.at) * kLift;
    if (laid->opened)
        facet.opened = lifted(laid->opened);
    m.facets.push_back(facet);
    if (laid->flap == Facet::Flap::Inside && f.throughLining) {
        through = true;
        facet.flap = Facet::Flap::Outside;
        facet.corners = lifted(laid->at), facet.opened = lifted(laid->opened);
        m.facets.push_back(std::move(facet));
    }
}

void Folder::addHung(const Hung& hung, Mockup& m) const
{
    const Laid* laid = find(hung.on, 0);
    if (!laid)
        return;
    const Point middle = (hung.from + hung.to) * 0.5; // its ends may look to opposite sides
    const Vec3 out = hung.round ? unitOf(normalAt(laid->at, middle))
                                : unitOf(normalAt(laid->at, hung.from) + normalAt(laid->at, hung.to)),
               a = laid->at(hung.from), b = laid->at(hung.to), along = b - a;
    const double chord = std::sqrt(dot(along, along));
    if (hung.drop > 0) { // a handle: half an ellipse over its spread, standing on its edge
        const Vec3 left = laid->at({hung.from.x, hung.top}), right = laid->at({hung.to.x, hung.top}), up{0, 1, 0},
                   apart = right - left, off = out * kLift;
        std::vector<Vec3> path{a + off};
        for (int i = 0; i <= 20; ++i) {
            const double t = pi * i / 20;
            path.push_back(left + apart * ((1 - std::cos(t)) / 2) + up * (hung.drop * std::sin(t)) + off);
        }
        path.push_back(b + off);
        for (std::size_t i = 0; i + 1 < path.size(); ++i) {
            const auto across = [&](std::size_t k) {
                return unitOf(cross(path[std::min(k + 1, path.size() - 1)] - path[k == 0 ? 0 : k - 1], out))
                    * (hung.width / 2);
            };
            const Vec3 u = across(i), w = across(i + 1);
            m.facets.push_back({hung.piece, "strap", "", {path[i] + u, path[i + 1] + w, path[i + 1] - w, path[i] - u},
                {true, false, true, false}});
        }
        return;
    }
    if (hung.round) { // half an ellipse about the body, from side to side
        const double depth = bowHeight(chord, hung.length);
        std::vector<Vec3> path;
        for (int i = 0; i <= 32; ++i) {
            const double t = pi * i / 32;
            path.push_back(a + along * ((1 - std::cos(t)) / 2) + out * (kLift + depth * std::sin(t)));
        }
        return foldRibbon(m, hung.piece, path, Vec3{0, hung.width, 0});
    }
    // A flat arch over its chord: length = chord + 8 rise²/(3 chord).
    const double rise = std::sqrt(std::max(0.0, 3 * chord * (hung.length - chord) / 8));
    std::vector<Vec3> path;
    for (int i = 0; i <= 16; ++i) {
        const double t = i / 16.0;
        path.push_back(a + along * t + out * (kLift + rise * 4 * t * (1 - t)));
    }
    foldRibbon(m, hung.piece, path, unitOf(cross(along, out)) * hung.width);
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

double Folder::litresWithin(const Mockup& m, const std::vector<EdgeUse>& mouth) const
{
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
    return (m_lining ? -six : six) / 6 / 1e6;
}

void Folder::findGap(Mockup& m) const
{
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
}

void Folder::addFreeEdges(Mockup& m) const
{
    std::set<std::pair<PieceId, EdgeId>> sewn;
    for (const auto& seam : m_pattern.seams)
        if (seam.stitch == "construction" && !seam.mouth)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    sewn.insert({use.piece, use.edge});
    for (const auto& laid : m_laid)
        if (laid.kind == "cloth" && !laid.piece->areas.contains("face"))
            for (const auto& e : laid.piece->edges)
                if (!sewn.contains({laid.piece->key, e.name}))
                    addThickness(laid, e.stitch, 0, -thicknessOf(m_pattern, *laid.piece), m);
}

bool Folder::layOverlay(const Overlay& overlay, Mockup& m)
{
    const Laid* under = find(overlay.on, 0);
    const Piece* piece = m_pattern.piece(overlay.piece);
    if (!under || !piece)
        return false;
    const Laid base = *under; // laying the overlay may move what it points to
    const Placement place = overlay.placement;
    // In the overlay's own coordinates.
    const auto back = [&place](Point q) {
        const double c = std::cos(place.angle), s = std::sin(place.angle), x = q.x - place.dx, y = q.y - place.dy;
        const Point out{x * c + y * s, y * c - x * s};
        return Point{place.mirror ? -out.x : out.x, out.y};
    };
    std::vector<double> bendX, bendY;
    const auto bend = [&](Point a, Point b) { // along its own axes, if it lies straight or by quarters
        const Point p = back(a), q = back(b);
        std::abs(p.x - q.x) < std::abs(p.y - q.y) ? bendX.push_back(p.x) : bendY.push_back(p.y);
    };
    for (const double b : base.bendX)
        bend({b, 0}, {b, 1});
    for (const double b : base.bendY)
        bend({0, b}, {1, b});
    const double high = std::max(0.6, thicknessOf(m_pattern, *piece));
    std::vector<Line> aslant = base.aslant;
    for (Line& l : aslant)
        for (Point* end : {&l.a, &l.b})
            *end = back(*end);
    const auto lain = [place](const Fold& on, double above) -> Fold {
        if (!on)
            return nullptr;
        return [on, place, above](
                   Point q) { return on(place(q)) + (above > 0 ? normalAt(on, place(q)) * above : Vec3{}); };
    };
    const Laid flat{
        piece, 0, lain(base.at, 0), bendX, bendY, "overlay", place.mirror, aslant, lain(base.opened, 0), base.flap};
    const auto face = piece->areas.find("face");
    addThickness(flat, face != piece->areas.end() ? face->second : piece->stitch(), high, 0, m);
    Laid top = flat;
    top.at = lain(base.at, high), top.opened = lain(base.opened, high);
    addFacets(top, m);
    for (const auto& gap : m_pattern.gaps) // a zip across it shows between its halves
        if (gap.key == piece->key) {
            Laid zip = top;
            zip.piece = &gap, zip.kind = "zip";
            addFacets(zip, m);
        }
    m_laid.push_back(std::move(top)); // what sits on the overlay finds it there
    return true;
}

Mockup Folder::finish(const std::vector<EdgeUse>& mouth) const
{
    Mockup m;
    for (const auto& laid : m_laid)
        addFacets(laid, m);
    m.litres = litresWithin(m, mouth);
    findGap(m);
    addFreeEdges(m);
    Folder dressed = *this;
    // Flaps and overlays lie on the body or on each other.
    std::vector<const Hinged*> flaps;
    for (const auto& flap : m_pattern.hinged)
        flaps.push_back(&flap);
    const auto layFlaps = [&] {
        std::erase_if(flaps, [&](const Hinged* flap) { return dressed.layHinged(*flap, m); });
    };
    layFlaps();
    for (const auto& overlay : m_pattern.overlays)
        if (dressed.layOverlay(overlay, m))
            layFlaps();
    for (const auto& fitting : m_pattern.fittings)
        dressed.addFitting(fitting, m);
    for (const auto& hung : m_pattern.hung)
        dressed.addHung(hung, m);
    return m;
}

Mockup foldCoats(const Pattern& p, const std::function<void(Folder&, const LaidCoat&)>& lay)
{
    const Seam* mouth = p.seam("mouth");
    Folder shell(p), lining(p, true);
    lay(shell, {});
    Mockup m = shell.finish(mouth ? mouth->a : std::vector<EdgeUse>{});
    const bool isLined = std::any_of(p.pieces.begin(), p.pieces.end(), [&](const Piece& piece) {
        return (piece.coat == Coat::Lining && piece.owner().empty()) || p.piece(lined(piece.key));
    });
    if (!isLined) {
        m.liningLitres = m.litres;
        return m;
    }
    LaidCoat inside{.lining = true};
    for (const auto& w : p.workings)
        if (w.key == "lining.inset")
            inside.in = w.result;
    lay(lining, inside);
    Mockup within = lining.finish(mouth ? mouth->b : std::vector<EdgeUse>{});
    for (auto& f : within.facets) {
        f.coat = Coat::Lining;
        m.facets.push_back(std::move(f));
    }
    if (within.largestGap > m.largestGap)
        m.largestGap = within.largestGap, m.gapAt = within.gapAt;
    m.liningLitres = within.litres;
    return m;
}

} // namespace tectonis
