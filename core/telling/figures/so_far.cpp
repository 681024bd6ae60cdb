// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/so_far.hpp"

#include "figures/plan.hpp"

#include <algorithm>

namespace tectonis {

std::map<WorkId, std::set<PieceId>> tableAfter(
    const Pattern& pattern, const std::vector<std::size_t>& order, std::size_t steps)
{
    std::map<WorkId, std::set<PieceId>> table;
    for (const auto& piece : pattern.pieces)
        table[piece.key] = {piece.key};
    for (std::size_t i = 0; i < std::min(steps, order.size()); ++i) {
        const Step& s = pattern.steps[order[i]];
        if (s.yields.empty())
            continue;
        std::set<PieceId> all;
        for (const auto& part : s.consumes)
            if (const auto at = table.find(part); at != table.end()) {
                all.insert(at->second.begin(), at->second.end());
                table.erase(at);
            }
        table[s.yields].insert(all.begin(), all.end());
    }
    return table;
}

Scene pictureOf(const Pattern& pattern, const Mockup& mockup, const std::set<PieceId>& pieces)
{
    Scene folded = soFar(pattern, mockup, pieces);
    if (!folded.empty())
        return folded;
    Scene out;
    double x = 0;
    for (const auto& id : pieces)
        if (const Piece* piece = pattern.piece(id)) {
            const Box box = boundsOf(piece->cut);
            Polyline outline;
            for (const Point q : flattened(piece->cut, 0.5))
                outline.push_back({q.x - box.x0 + x, q.y - box.y0});
            out.items.emplace_back(Surface{outline, skinOf(*piece)});
            x += box.width() + 20;
        }
    return out;
}

std::set<PieceId> joinedBy(const Pattern& pattern, const std::vector<std::size_t>& order, const StepId& step)
{
    std::map<WorkId, std::set<PieceId>> parts;
    for (const auto i : order) {
        const Step& s = pattern.steps[i];
        std::set<PieceId> all;
        for (const auto& part : s.consumes)
            if (const auto made = parts.find(part); made != parts.end())
                all.insert(made->second.begin(), made->second.end());
            else
                all.insert(part.as<PieceKind>());
        if (s.id == step)
            return all;
        if (!s.yields.empty())
            parts[s.yields].insert(all.begin(), all.end());
    }
    return {};
}

Scene soFar(const Pattern& pattern, const Mockup& mockup, const std::set<PieceId>& pieces)
{
    Scene scene;
    scene.kind = Scene::Kind::SoFar;
    // From the front right, a little from above.
    const Vec3 back = unitOf({0.5, 0.42, 1}), right = unitOf(cross({0, 1, 0}, back)), up = cross(back, right),
               light = unitOf({-0.4, 0.8, 0.6});
    struct Seen {
        const Facet* facet;
        double depth;
        bool outside; ///< its outside looks at the viewer
        double light, pass = 0;
        double ahead = 0; ///< how far before the bag's middle, seen level: what hangs above it is not nearer for that
    };
    std::vector<Seen> seen;
    std::set<PieceId> shown;
    const auto has = [&](const PieceId& id) {
        if (pieces.contains(id))
            return true;
        const Piece* piece = pattern.piece(id);
        return piece && !piece->whole.empty() && pieces.contains(piece->whole);
    };
    for (const auto& f : mockup.facets) {
        if (f.corners.size() < 3 || f.piece.empty() || f.kind == "thing" || f.kind == "edge" || !has(f.piece))
            continue;
        Vec3 n{}, middle{};
        for (std::size_t i = 0; i < f.corners.size(); ++i) {
            middle = middle + f.corners[i] * (1 / double(f.corners.size()));
            if (i >= 1 && i + 1 < f.corners.size())
                n = n + cross(f.corners[i] - f.corners[0], f.corners[i + 1] - f.corners[0]);
        }
        const Vec3 normal = unitOf(n);
        seen.push_back(
            {&f, dot(middle, back), dot(normal, back) > 0, std::min(1.0, 0.78 + 0.25 * std::abs(dot(normal, light)))});
        shown.insert(f.piece);
    }
    if (shown.size() < 2)
        return {};
    double middle = 0;
    for (auto& s : seen) {
        for (const Vec3 v : s.facet->corners)
            s.ahead += (v.x * back.x + v.z * back.z) / double(s.facet->corners.size());
        middle += s.ahead / double(seen.size());
    }
    // A strap as a whole hangs before the bag or behind it.
    std::map<std::pair<PieceId, int>, std::pair<double, int>> straps;
    for (const auto& s : seen)
        if (s.facet->kind == "strap" || s.facet->kind == "metal") {
            auto& [sum, count] = straps[{s.facet->piece, s.facet->copy}];
            sum += s.ahead, ++count;
        }
    for (auto& s : seen)
        if (const auto at = straps.find({s.facet->piece, s.facet->copy});
            at != straps.end() && (s.facet->kind == "strap" || s.facet->kind == "metal"))
            s.ahead = at->second.first / at->second.second;
    const bool inShell = std::any_of(seen.begin(), seen.end(),
        [](const Seen& s) { return s.facet->coat != Coat::Lining && s.facet->kind == "cloth"; });
    // The body is convex: walls seen from inside lie behind everything in it, walls seen from outside before it.
    for (auto& s : seen) {
        const std::string& kind = s.facet->kind;
        const bool on = kind == "overlay" || kind == "fitting" || (kind == "flap" && s.facet->coat == Coat::Lining);
        if (s.facet->coat == Coat::Lining)
            s.pass = s.outside ? 2 + 0.1 * on : inShell ? -1 : 2.5; // a lining looks inwards
        else if (kind == "strap" || kind == "metal")
            s.pass = s.ahead < middle ? 0 : 6;
        else if (kind == "flap")
            s.pass = s.outside ? 6 : 0;
        else if (s.facet->flap != Facet::Flap::No)
            s.pass = !s.outside || s.facet->flap == Facet::Flap::Inside ? -1 : on ? 6.2 : 6.1;
        else if (kind == "inner")
            s.pass = 2;
        else
            s.pass = !s.outside ? (on ? -1 : 1) : kind == "fitting" ? 5 : on ? 4 : 3;
    }
    std::erase_if(seen, [](const Seen& s) { return s.pass < 0; });
    std::stable_sort(seen.begin(), seen.end(),
        [](const Seen& a, const Seen& b) { return a.pass != b.pass ? a.pass < b.pass : a.depth < b.depth; });
    for (const auto& s : seen) {
        Surface surface;
        surface.outlined = false;
        const Piece* piece = pattern.piece(s.facet->piece);
        const Skin skin = s.facet->coat == Coat::Lining ? Skin::Lining : piece ? skinOf(*piece) : Skin::Shell;
        surface.skin = s.outside || s.facet->kind == "inner" ? skin : otherSide(skin);
        surface.light = s.light;
        for (const Vec3 v : s.facet->corners)
            surface.outline.push_back({dot(v, right), dot(v, up)});
        scene.items.emplace_back(surface);
        for (std::size_t i = 0; i < surface.outline.size(); ++i)
            if (s.facet->seamAfter.empty() || s.facet->seamAfter[i])
                scene.items.emplace_back(Stroke{
                    {surface.outline[i], surface.outline[(i + 1) % surface.outline.size()]}, Stroke::Kind::Edge});
    }
    return scene;
}

} // namespace tectonis
