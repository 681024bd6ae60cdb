// SPDX-License-Identifier: GPL-3.0-or-later
#include "geometry/run.hpp"

#include <array>

namespace tectonis {
namespace {

template <class... F> struct Overload : F... {
    using F::operator()...;
};
template <class... F> Overload(F...) -> Overload<F...>;

Point at(const Arc& a, double t) { return a.centre + polar(a.start + a.sweep * t) * a.radius; }

Point at(const Cubic& c, double t)
{
    const double u = 1 - t;
    return c.p0 * (u * u * u) + c.p1 * (3 * u * u * t) + c.p2 * (3 * u * t * t) + c.p3 * (t * t * t);
}

Point derivative(const Cubic& c, double t)
{
    const double u = 1 - t;
    return (c.p1 - c.p0) * (3 * u * u) + (c.p2 - c.p1) * (6 * u * t) + (c.p3 - c.p2) * (3 * t * t);
}

/// Length of a cubic between 0 and @p t: 5-point Gauss-Legendre on 8 equal spans.
double cubicLength(const Cubic& c, double t)
{
    static constexpr std::array<double, 5> x{
        0, -0.5384693101056831, 0.5384693101056831, -0.9061798459386640, 0.9061798459386640};
    static constexpr std::array<double, 5> w{
        0.5688888888888889, 0.4786286704993665, 0.4786286704993665, 0.2369268850561891, 0.2369268850561891};
    constexpr int spans = 8;
    double sum = 0;
    for (int i = 0; i < spans; ++i) {
        const double mid = t * (i + 0.5) / spans, half = t / spans / 2;
        for (std::size_t k = 0; k < x.size(); ++k)
            sum += w[k] * half * norm(derivative(c, mid + half * x[k]));
    }
    return sum;
}

double cubicParameter(const Cubic& c, double along)
{
    const double whole = cubicLength(c, 1);
    if (whole <= 0)
        return 0;
    double t = std::clamp(along / whole, 0.0, 1.0);
    for (int i = 0; i < 20; ++i) {
        const double speed = norm(derivative(c, t));
        const double error = cubicLength(c, t) - along;
        if (speed <= 0 || std::abs(error) < 1e-9)
            break;
        t = std::clamp(t - error / speed, 0.0, 1.0);
    }
    return t;
}

Cubic cubicPart(const Cubic& c, double t0, double t1)
{
    const auto blossom = [&](double a, double b, double d) {
        const auto mix = [](Point p, Point q, double t) { return lerp(p, q, t); };
        const Point q0 = mix(c.p0, c.p1, a), q1 = mix(c.p1, c.p2, a), q2 = mix(c.p2, c.p3, a);
        return mix(mix(q0, q1, b), mix(q1, q2, b), d);
    };
    return {blossom(t0, t0, t0), blossom(t0, t0, t1), blossom(t0, t1, t1), blossom(t1, t1, t1)};
}

double parameterAlong(const Segment& s, double along)
{
    if (const auto* c = std::get_if<Cubic>(&s))
        return cubicParameter(*c, along);
    const double n = lengthOf(s);
    return n > 0 ? std::clamp(along / n, 0.0, 1.0) : 0;
}

/// Index of the segment that holds @p along, and the rest of the way inside it.
std::pair<std::size_t, double> locate(const Run& r, double along)
{
    std::size_t i = 0;
    for (; i + 1 < r.size(); ++i) {
        const double n = lengthOf(r[i]);
        if (along <= n)
            break;
        along -= n;
    }
    return {i, along};
}

/// Twice the area swept about the origin by the segment.
double sweptTwice(const Segment& s)
{
    return std::visit(Overload{[](const Line& l) { return cross(l.a, l.b); },
                          [](const Arc& a) {
                              const Point p = at(a, 0), q = at(a, 1);
                              return cross(a.centre, q - p) + a.radius * a.radius * a.sweep;
                          },
                          [](const Cubic& c) {
                              // Integral of P x P' for a cubic, written in the cross products of its control points.
                              return (6 * cross(c.p0, c.p1) + 3 * cross(c.p0, c.p2) + cross(c.p0, c.p3)
                                         + 3 * cross(c.p1, c.p2) + 3 * cross(c.p1, c.p3) + 6 * cross(c.p2, c.p3))
                                  / 10;
                          }},
        s);
}

} // namespace

Point startOf(const Segment& s)
{
    return std::visit(Overload{[](const Line& l) { return l.a; }, [](const Arc& a) { return at(a, 0); },
                          [](const Cubic& c) { return c.p0; }},
        s);
}

Point endOf(const Segment& s)
{
    return std::visit(Overload{[](const Line& l) { return l.b; }, [](const Arc& a) { return at(a, 1); },
                          [](const Cubic& c) { return c.p3; }},
        s);
}

double lengthOf(const Segment& s)
{
    return std::visit(Overload{[](const Line& l) { return distance(l.a, l.b); },
                          [](const Arc& a) { return a.radius * std::abs(a.sweep); },
                          [](const Cubic& c) { return cubicLength(c, 1); }},
        s);
}

Point tangentOf(const Segment& s, double t)
{
    return std::visit(Overload{[](const Line& l) { return unit(l.b - l.a); },
                          [t](const Arc& a) {
                              const Point out = polar(a.start + a.sweep * t);
                              return a.sweep >= 0 ? Point{-out.y, out.x} : Point{out.y, -out.x};
                          },
                          [t](const Cubic& c) {
                              const Point d = derivative(c, t);
                              return norm(d) > 1e-12 ? unit(d) : unit(c.p3 - c.p0);
                          }},
        s);
}

Point pointAlong(const Segment& s, double along)
{
    const double t = parameterAlong(s, along);
    return std::visit(Overload{[t](const Line& l) { return lerp(l.a, l.b, t); }, [t](const Arc& a) { return at(a, t); },
                          [t](const Cubic& c) { return at(c, t); }},
        s);
}

Segment reversed(const Segment& s)
{
    return std::visit(Overload{[](const Line& l) -> Segment {
                                   return Line{l.b, l.a};
                               },
                          [](const Arc& a) -> Segment {
                              return Arc{a.centre, a.radius, a.start + a.sweep, -a.sweep};
                          },
                          [](const Cubic& c) -> Segment {
                              return Cubic{c.p3, c.p2, c.p1, c.p0};
                          }},
        s);
}

Segment placed(const Segment& s, const Placement& m)
{
    return std::visit(Overload{[&](const Line& l) -> Segment {
                                   return Line{m(l.a), m(l.b)};
                               },
                          [&](const Arc& a) -> Segment {
                              const double start = m.mirror ? pi - a.start : a.start;
                              return Arc{m(a.centre), a.radius, start + m.angle, m.mirror ? -a.sweep : a.sweep};
                          },
                          [&](const Cubic& c) -> Segment {
                              return Cubic{m(c.p0), m(c.p1), m(c.p2), m(c.p3)};
                          }},
        s);
}

Segment part(const Segment& s, double from, double to)
{
    const double t0 = parameterAlong(s, from), t1 = parameterAlong(s, to);
    return std::visit(Overload{[&](const Line& l) -> Segment {
                                   return Line{lerp(l.a, l.b, t0), lerp(l.a, l.b, t1)};
                               },
                          [&](const Arc& a) -> Segment {
                              return Arc{a.centre, a.radius, a.start + a.sweep * t0, a.sweep * (t1 - t0)};
                          },
                          [&](const Cubic& c) -> Segment { return cubicPart(c, t0, t1); }},
        s);
}

double lengthOf(const Run& r)
{
    double sum = 0;
    for (const auto& s : r)
        sum += lengthOf(s);
    return sum;
}

Point startOf(const Run& r) { return r.empty() ? Point{} : startOf(r.front()); }
Point endOf(const Run& r) { return r.empty() ? Point{} : endOf(r.back()); }

Point pointAlong(const Run& r, double along)
{
    if (r.empty())
        return {};
    const auto [i, rest] = locate(r, along);
    return pointAlong(r[i], rest);
}

Point tangentAlong(const Run& r, double along)
{
    if (r.empty())
        return {};
    const auto [i, rest] = locate(r, along);
    return tangentOf(r[i], parameterAlong(r[i], rest));
}

Run reversed(const Run& r)
{
    Run out;
    out.reserve(r.size());
    for (auto it = r.rbegin(); it != r.rend(); ++it)
        out.push_back(reversed(*it));
    return out;
}

Run placed(const Run& r, const Placement& m)
{
    Run out;
    out.reserve(r.size());
    for (const auto& s : r)
        out.push_back(placed(s, m));
    return out;
}

Run part(const Run& r, double from, double to)
{
    Run out;
    double at = 0;
    for (const auto& s : r) {
        const double n = lengthOf(s);
        const double a = std::max(from - at, 0.0), b = std::min(to - at, n);
        if (b - a > 1e-9)
            out.push_back(a <= 0 && b >= n ? s : part(s, a, b));
        at += n;
    }
    return out;
}

Polyline flattened(const Run& r, double sagitta)
{
    Polyline out;
    if (r.empty())
        return out;
    out.push_back(startOf(r));
    for (const auto& s : r) {
        if (const auto* a = std::get_if<Arc>(&s)) {
            const double step = a->radius > sagitta ? 2 * std::acos(1 - sagitta / a->radius) : pi / 2;
            const int n = std::max(1, static_cast<int>(std::ceil(std::abs(a->sweep) / step)));
            // Each radius is the one before it, turned; the last is exact.
            Point radius = polar(a->start);
            const Point turn = polar(a->sweep / n);
            for (int i = 1; i < n; ++i) {
                radius = {radius.x * turn.x - radius.y * turn.y, radius.x * turn.y + radius.y * turn.x};
                out.push_back(a->centre + radius * a->radius);
            }
            out.push_back(at(*a, 1));
        } else if (const auto* c = std::get_if<Cubic>(&s)) {
            // Chord error of a cubic in n spans is at most |second difference| * 6 / (8 n²) (Taylor bound).
            const double bend = std::max(norm(c->p0 - c->p1 * 2 + c->p2), norm(c->p1 - c->p2 * 2 + c->p3));
            const int n = std::max(1, static_cast<int>(std::ceil(std::sqrt(0.75 * bend / sagitta))));
            for (int i = 1; i <= n; ++i)
                out.push_back(at(*c, double(i) / n));
        } else
            out.push_back(endOf(s));
    }
    return out;
}

Box boundsOf(const Run& r)
{
    Box box;
    for (const auto& s : r) {
        box.add(startOf(s));
        box.add(endOf(s));
        if (const auto* a = std::get_if<Arc>(&s)) {
            const double lo = std::min(a->start, a->start + a->sweep), hi = std::max(a->start, a->start + a->sweep);
            for (double q = std::ceil(lo / (pi / 2)) * (pi / 2); q <= hi; q += pi / 2)
                box.add(a->centre + polar(q) * a->radius);
        } else if (const auto* c = std::get_if<Cubic>(&s)) {
            const auto extremes = [&](double p0, double p1, double p2, double p3) {
                // Roots of the derivative of one coordinate.
                const double a = p3 - 3 * p2 + 3 * p1 - p0, b = 2 * (p2 - 2 * p1 + p0), d = p1 - p0;
                const auto add = [&](double t) {
                    if (t > 0 && t < 1)
                        box.add(at(*c, t));
                };
                if (std::abs(a) < 1e-12) {
                    if (std::abs(b) > 1e-12)
                        add(-d / b);
                } else if (const double q = b * b - 4 * a * d; q >= 0) {
                    add((-b + std::sqrt(q)) / (2 * a));
                    add((-b - std::sqrt(q)) / (2 * a));
                }
            };
            extremes(c->p0.x, c->p1.x, c->p2.x, c->p3.x);
            extremes(c->p0.y, c->p1.y, c->p2.y, c->p3.y);
        }
    }
    return box;
}

double areaOf(const Run& r)
{
    double twice = 0;
    for (const auto& s : r)
        twice += sweptTwice(s);
    if (!r.empty())
        twice += cross(endOf(r), startOf(r));
    return twice / 2;
}

Run lineRun(const std::vector<Point>& points)
{
    Run out;
    for (std::size_t i = 1; i < points.size(); ++i)
        out.push_back(Line{points[i - 1], points[i]});
    return out;
}

Run circleRun(Point centre, double radius) { return {Arc{centre, radius, 0, 2 * pi}}; }

Run rectangleRun(double x0, double y0, double x1, double y1)
{
    return lineRun({{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}, {x0, y0}});
}

} // namespace tectonis
