// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/walls.hpp"

#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

/// The plan clockwise from the first wall's start, twice round, so that parts of it can be taken across the start.
Run pathOf(const Standing& s)
{
    const Run once = reversed(s.plan);
    Run twice = once;
    twice.insert(twice.end(), once.begin(), once.end());
    return part(twice, s.start, s.start + lengthOf(once));
}

std::string sideSeam(std::size_t i) { return "side " + std::to_string(i + 1); }

/// A wall's edges: the sides widen evenly from the mouth to the middle where the seam does.
std::vector<Edge> wallEdges(const CoatDraft& coat, const Standing& s, std::size_t i)
{
    const double h = s.walls[i].length / 2, m = s.halfAt(i, s.height), a = coat.allowance;
    if (s.wide <= 0)
        return {{"top", lineRun({{m, s.height}, {-m, s.height}}), coat.mouth, {}, s.topCorner},
            {"left", lineRun({{-m, s.height}, {-h, 0}}), a, {}}, {"bottom", lineRun({{-h, 0}, {h, 0}}), a, {}},
            {"right", lineRun({{h, 0}, {m, s.height}}), a, {}, s.topCorner}};
    const double middle = s.height / 2, n = s.halfAt(i, middle), y = s.raise;
    return {{"top", lineRun({{m, s.height}, {-m, s.height}}), coat.mouth, {}, s.topCorner},
        {"left ease", lineRun({{-m, s.height}, {-n, middle}}), a, a + s.wide},
        {"left", lineRun({{-n, middle}, {-h, y}}), a + s.wide, {}}, {"bottom", lineRun({{-h, y}, {h, y}}), a + y, {}},
        {"right", lineRun({{h, y}, {n, middle}}), a + s.wide, {}},
        {"right ease", lineRun({{n, middle}, {m, s.height}}), a + s.wide, a, s.topCorner}};
}

/// One side of a wall from the base up.
std::vector<EdgeUse> sideOf(const CoatDraft& coat, const Standing& s, const std::string& part, bool right)
{
    const char *low = right ? "right" : "left", *ease = right ? "right ease" : "left ease";
    if (s.wide <= 0)
        return {coat.use(part, low, !right)};
    return {coat.use(part, low, !right), coat.use(part, ease, !right)};
}

} // namespace

double Standing::halfAt(std::size_t wall, double y) const
{
    const double whole = full.empty() ? walls[wall].length : full[wall], out = whole / 2 - lean * y / height;
    // Along the base, what the seam takes square to a leaning side.
    const double taken = wide * std::hypot(1, lean / height);
    return out - taken * std::clamp((height - y) / (height / 2), 0.0, 1.0);
}

Standing liningOf(const Pattern& p, const std::function<Standing(double)>& body, double in)
{
    if (p.choices.at("lining.fit") != "wider-seam")
        return body(in);
    Standing s = body(0);
    s.wide = wideBy(p);
    if (s.wide <= 0)
        return s;
    for (const auto& w : s.walls)
        s.full.push_back(w.length);
    // The base is sewn in so much further that its rim is as long as the walls at that height.
    const auto surplus = [&](double raise) {
        double sum = lengthOf(body(raise).plan);
        for (std::size_t i = 0; i < s.walls.size(); ++i)
            sum -= 2 * s.halfAt(i, raise);
        return sum;
    };
    double low = 0, high = 4 * s.wide;
    for (int i = 0; i < 60; ++i)
        (surplus((low + high) / 2) > 0 ? low : high) = (low + high) / 2;
    s.raise = (low + high) / 2;
    const Standing inner = body(s.raise);
    s.plan = inner.plan, s.start = inner.start;
    for (std::size_t i = 0; i < s.walls.size(); ++i)
        s.walls[i].length = 2 * s.halfAt(i, s.raise);
    return s;
}

LiningOfStanding draftLining(Drafter& d, const PieceId& wall, const std::function<Standing(double)>& body)
{
    using Kind = Working::Kind;
    const double thick = d.stack(d.piece(wall).role, wall, "shell"), room = lengthOf(body(thick).plan);
    const auto slack = [&](const Standing& inner, double lower) {
        const auto hull = [](const Standing& of, double height) {
            const Box plan = boundsOf(of.plan);
            return Hull{plan.width(), plan.height(), height, lengthOf(of.plan)};
        };
        const Standing outer = body(0);
        workSlack(d, wall, hull(outer, outer.height), hull(inner, outer.height - lower), room);
    };
    if (d.choice("lining.fit") != "wider-seam") {
        CoatDraft coat = CoatDraft::lining(d, liningShrink(d, wall));
        const Standing inner = body(coat.shrink);
        slack(inner, coat.shrink);
        return {coat, inner};
    }
    Standing s = liningOf(d.pattern, body, 0);
    const double walls = double(s.walls.size()), lean = s.lean / s.height;
    workWide(d, wall);
    const double gone = d.work(
        {lined(wall), "lining.girth", say("Lining shorter round the base"), "2*walls*(wide*k + lean*raise)",
            {{"walls", walls}, {"wide", s.wide}, {"k", std::hypot(1, lean)}, {"lean", lean}, {"raise", s.raise}}, 0,
            Kind::Geometry, "mm", say("each side seam takes it from two walls; k: square to a leaning side")});
    d.pattern.workings.push_back({lined("base"), "lining.raise", say("Lining's base seam wider by"),
        "where the base is as much shorter round its seam", {{"shorter", gone}}, s.raise, Kind::Geometry, "mm",
        say("found by halving; on a box an eighth of it, on a round base it through 2π")});
    slack(s, s.raise);
    return {CoatDraft::lining(d, 0), s};
}

void drawStanding(CoatDraft& coat, const Standing& s)
{
    for (std::size_t i = 0; i < s.walls.size(); ++i)
        coat.add(s.walls[i].part, s.walls[i].code, s.walls[i].name, "panel").edges = wallEdges(coat, s, i);
    Piece& base = coat.add("base", "C", say("Base"), "base", 1, 0);
    // Rims in clockwise order, wall by wall; the outline goes the other way. A free curve is one rim, however many
    // cubics it has.
    const Run path = pathOf(s);
    std::vector<Run> rims;
    double from = 0;
    for (const auto& w : s.walls) {
        bool cubic = false;
        for (const auto& segment : part(path, from, from + w.length)) {
            if (lengthOf(segment) < 1e-9)
                continue;
            const bool also = std::holds_alternative<Cubic>(segment);
            if (!(cubic && also))
                rims.emplace_back();
            rims.back().push_back(segment);
            cubic = also;
        }
        from += w.length;
    }
    std::vector<EdgeUse> round;
    for (std::size_t i = rims.size(); i-- > 0;)
        base.edges.push_back(
            {"rim " + std::to_string(rims.size() - i), reversed(rims[i]), coat.allowance + s.raise, {}});
    for (std::size_t i = rims.size(); i-- > 0;)
        round.push_back(coat.use("base", base.edges[i].name, true));

    if (!coat.isLining)
        coat.d.pattern.bottoms.push_back({base.key, boundsOf(base.stitch())});

    const std::size_t n = s.walls.size();
    std::vector<EdgeUse> bottoms;
    for (std::size_t i = 0; i < n; ++i) {
        bottoms.push_back(coat.use(s.walls[i].part, "bottom"));
        const Wall &left = s.walls[i], &right = s.walls[(i + 1) % n];
        // Several seams between the same two pieces are told apart by their side.
        const Message name = n == 1 ? say("{} to itself", left.name)
            : n > 2                 ? say("{} to {}", left.name, within(right.name))
            : i == 0                ? say("{} to {}, right", left.name, within(right.name))
                                    : say("{} to {}, left", left.name, within(right.name));
        coat.join(sideSeam(i), name, sideOf(coat, s, left.part, true), sideOf(coat, s, right.part, false)).allowance +=
            s.wide;
    }
    Seam& rim = coat.join("base", n == 1 ? say("Wall to base") : say("Walls to base"), bottoms, round);
    rim.allowance += s.raise;
    coat.leaveOpen(rim);
}

void sewStanding(CoatDraft& coat, const Standing& s)
{
    const std::size_t n = s.walls.size();
    if (n == 1)
        coat.sew({.id = "sides",
            .title = say("Close the {}", coat.what(within(s.walls[0].name))),
            .seams = {sideSeam(0)},
            .consumes = {s.walls[0].part},
            .yields = "body",
            .phase = "Shell assembly",
            .then = {act::press({}, Act::To::Open)}});
    else {
        std::vector<std::string> seams, consumes;
        for (std::size_t i = 0; i < n; ++i)
            seams.push_back(sideSeam(i)), consumes.push_back(s.walls[i].part);
        coat.sew({.id = "sides",
            .title = say("Sew the {}", coat.what(say("side seams"))),
            .seams = seams,
            .consumes = consumes,
            .yields = "body",
            .phase = "Shell assembly",
            .then = {act::press({}, Act::To::Open)},
            .check = say("The mouth is level at every seam.")});
    }
    coat.sew({.id = "base",
        .title = say("Sew the {} in", coat.what(say("base"))),
        .seams = {"base"},
        .consumes = {"body", "base"},
        .yields = "shell",
        .phase = "Shell assembly",
        .check = say("No pleats are caught; the base lies flat.")});
}

std::vector<EdgeUse> mouthOf(const Standing& s)
{
    // Clockwise like the walls: every top edge runs from its right end to its left one.
    std::vector<EdgeUse> out;
    for (const auto& w : s.walls)
        out.push_back({w.part, "top", 0, true});
    return out;
}

void foldStanding(Folder& folder, const Standing& s, const LaidCoat& coat)
{
    const Run path = pathOf(s);
    const Guide guide(path);
    double girth = 0, from = 0;
    for (const auto& w : s.walls)
        girth += w.length;
    const double up = s.wide > 0 ? 0 : coat.in; // a template of the shell begins where the shell does
    for (std::size_t i = 0; i < s.walls.size(); ++i) {
        const Wall& w = s.walls[i];
        const double middle = from + w.length / 2, half = w.length / 2;
        const Standing body = s;
        const Fold at = [guide, middle, half, girth, body, up, i](Point q) {
            double round = 0; // at this height
            for (std::size_t k = 0; k < body.walls.size(); ++k)
                round += 2 * body.halfAt(k, q.y);
            const double wide = body.halfAt(i, q.y);
            const Point p = guide.at(middle + (wide > 0 ? q.x * half / wide : 0)) * (round / girth);
            return Vec3{p.x, q.y + up, p.y};
        };
        std::vector<double> bends;
        for (const double corner : guide.corners())
            if (corner > from && corner < from + w.length)
                bends.push_back(corner - middle);
        folder.lay(coat.key(w.part), at, bends);
        from += w.length;
    }
    const double bottom = up + s.raise;
    folder.lay(coat.key("base"), [bottom](Point q) { return Vec3{q.x, bottom, q.y}; });
}

} // namespace tectonis
