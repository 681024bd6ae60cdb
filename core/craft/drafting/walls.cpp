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

} // namespace

void drawStanding(CoatDraft& coat, const Standing& s)
{
    for (const auto& w : s.walls) {
        Piece& piece = coat.add(w.part, w.code, w.name, "panel");
        const double h = w.length / 2, m = h - s.lean;
        piece.edges = {{"top", lineRun({{m, s.height}, {-m, s.height}}), coat.mouth, {}, s.topCorner},
            {"left", lineRun({{-m, s.height}, {-h, 0}}), coat.allowance, {}},
            {"bottom", lineRun({{-h, 0}, {h, 0}}), coat.allowance, {}},
            {"right", lineRun({{h, 0}, {m, s.height}}), coat.allowance, {}, s.topCorner}};
    }
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
        base.edges.push_back({"rim " + std::to_string(rims.size() - i), reversed(rims[i]), coat.allowance, {}});
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
        coat.join(sideSeam(i), name, {coat.use(left.part, "right")}, {coat.use(right.part, "left", true)});
    }
    coat.leaveOpen(coat.join("base", n == 1 ? say("Wall to base") : say("Walls to base"), bottoms, round));
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
    const double gone = 2 * s.lean * double(s.walls.size()) / girth; // share of the girth lost at the mouth
    for (const auto& w : s.walls) {
        const double middle = from + w.length / 2, half = w.length / 2;
        const Standing body = s;
        const Fold at = [guide, middle, half, gone, body, coat](Point q) {
            const double up = q.y / body.height, wide = half - body.lean * up;
            const Point p = guide.at(middle + (wide > 0 ? q.x * half / wide : 0)) * (1 - gone * up);
            return Vec3{p.x, q.y + coat.in, p.y};
        };
        std::vector<double> bends;
        for (const double corner : guide.corners())
            if (corner > from && corner < from + w.length)
                bends.push_back(corner - middle);
        folder.lay(coat.key(w.part), at, bends);
        from += w.length;
    }
    folder.lay(coat.key("base"), [coat](Point q) { return Vec3{q.x, coat.in, q.y}; });
}

} // namespace tectonis
