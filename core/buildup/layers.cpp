// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/layers.hpp"

#include "buildup/material.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

std::string trimInWords(const Piece& piece, const LayerRule& rule)
{
    const auto words = [](const std::string& trim) {
        return trim == "full" ? std::string("to the cut line") : trim == "stitch" ? std::string("to the stitch line") : "{" + trim.substr(6) + "} inside the stitch line";
    };
    std::string out = words(rule.trim.empty() ? "stitch" : rule.trim);
    for (const auto& [edge, trim] : rule.edges)
        if (piece.edge(edge)) // a part that was cut off may not have it
            out += fmt::format("; {} {}", edge, words(trim));
    return out;
}

std::optional<Layer> layerOf(const Piece& piece, const LayerRule& rule, std::size_t number)
{
    Layer layer{.code = fmt::format("{}/{}", piece.code, number), .material = rule.material, .fixing = rule.fixing, .trim = trimInWords(piece, rule)};
    if (!rule.area.empty()) {
        const auto area = piece.areas.find(rule.area);
        if (area == piece.areas.end())
            return std::nullopt;
        layer.outline = area->second;
        layer.trim = rule.area;
        layer.wholePiece = false;
        return layer;
    }
    std::vector<OffsetEdge> edges;
    edges.reserve(piece.edges.size());
    bool full = true; // to the cut line all round
    for (const auto& e : piece.edges) {
        const auto own = rule.edges.find(e.name);
        const std::string& trim = own != rule.edges.end() ? own->second : rule.trim;
        const double start = trimReach(trim, e.allowance), end = trimReach(trim, e.allowanceAtEnd.value_or(e.allowance));
        layer.reach[e.name] = start;
        edges.push_back({e.stitch, start, end, e.corner, e.hem});
        full &= trim == "full" && !e.onFold;
    }
    layer.outline = full ? piece.cut : offsetOutline(edges);
    return layer;
}

/// What is laid on a piece and caught along one of its edges: an overlay of which an edge lies there.
template <class Visit> void forEachCaught(const Pattern& p, const Piece& piece, const std::string& edge, const Seam& seam, Visit visit)
{
    for (const auto& o : p.overlays) {
        const Piece* on = o.on == piece.key ? p.piece(o.piece) : nullptr;
        const Edge* own = piece.edge(edge);
        if (!on || !own || std::find(seam.trapped.begin(), seam.trapped.end(), o.piece) != seam.trapped.end())
            continue;
        // Two patches of one piece lie at both ends of an edge, not on each other.
        if (&o != &*std::find_if(p.overlays.begin(), p.overlays.end(), [&](const Overlay& first) { return first.piece == o.piece && first.on == o.on; }))
            continue;
        const Polyline line = flattened(own->stitch, 0.1);
        for (const auto& e : on->edges)
            if (e.allowance > 0 && distanceTo(line, o.placement(pointAlong(e.stitch, e.length() / 2))) < 0.5) {
                visit(*on, e.name);
                break;
            }
    }
}

struct Caught {
    std::string label, layer; ///< layer: code of an interlining; empty for cloth
    int times = 1;
    double each = 0;
};

/// Pleats that begin at an edge.
bool pleated(const Piece& piece, const Edge& edge)
{
    const Polyline line = flattened(edge.stitch, 0.1);
    return std::any_of(piece.lines.begin(), piece.lines.end(), [&](const FaceLine& l) { return l.kind == FaceLine::Kind::Pleat && distanceTo(line, startOf(l.run)) < 0.1; });
}

/// Everything that one edge brings into the allowance: its cloth, interlinings that reach past the stitch line, what is laid on it, pleats.
std::vector<Caught> caughtAlong(const Pattern& p, const EdgeUse& use, const Seam& seam)
{
    std::vector<Caught> out;
    const Piece* piece = p.piece(use.piece);
    if (!piece)
        return out;
    const auto add = [&](const Piece& each, const std::string& edge, int times) {
        out.push_back({each.name, "", times, material(p.materials.at(each.material)).underFoot()});
        for (const auto& layer : each.layers)
            if (const auto reach = layer.reach.find(edge); reach != layer.reach.end() && reach->second > 0)
                out.push_back({layer.code + " " + material(layer.material).name, layer.code, times, material(layer.material).underFoot()});
    };
    const Edge* edge = piece->edge(use.edge);
    add(*piece, use.edge, edge && pleated(*piece, *edge) ? 3 : 1); // the folded cloth lies three times at a pleat
    forEachCaught(p, *piece, use.edge, seam, [&](const Piece& on, const std::string& edgeOf) { add(on, edgeOf, 1); });
    return out;
}

double sumOf(const std::vector<Caught>& caught)
{
    double sum = 0;
    for (const auto& c : caught)
        sum += c.times * c.each;
    return sum;
}

/// Of a run over several pieces what the thickest edge brings.
std::vector<Caught> thickestOf(const Pattern& p, const std::vector<EdgeUse>& side, const Seam& seam)
{
    std::vector<Caught> best;
    double most = -1;
    for (const auto& use : side) {
        auto caught = caughtAlong(p, use, seam);
        if (const double sum = sumOf(caught); !caught.empty() && sum > most)
            most = sum, best = std::move(caught);
    }
    return best;
}

double allowanceThickness(const Pattern& p, const Seam& seam) { return sumOf(thickestOf(p, seam.a, seam)) + sumOf(thickestOf(p, seam.b, seam)); }

/// The seam that joins two neighbours of a run where they meet; null where they are only laid side by side.
const Seam* seamBetween(const Pattern& p, const EdgeUse& before, const EdgeUse& after, const Seam& own)
{
    const Point leaves = endOf(p.runOf(before)), arrives = startOf(p.runOf(after)); // the place where they meet, on each piece
    const auto ends = [&](const std::vector<EdgeUse>& side, const EdgeUse& use, bool first) {
        const EdgeUse& end = first ? side.front() : side.back();
        if (end.piece != use.piece || end.copy != use.copy)
            return false;
        const Run run = p.runOf(end);
        return distance(first ? startOf(run) : endOf(run), &use == &before ? leaves : arrives) < 0.01;
    };
    for (const auto& other : p.seams) {
        if (&other == &own || other.stitch != "construction" || other.a.empty() || other.b.empty())
            continue;
        for (const bool first : {true, false}) // it begins or ends on the run
            if ((ends(other.a, before, first) && ends(other.b, after, first)) || (ends(other.a, after, first) && ends(other.b, before, first)))
                return &other;
    }
    return nullptr;
}

} // namespace

std::vector<LayerRule> layerRulesFor(const Design& design, const Ruled& piece)
{
    for (const std::string* name : {&piece.key, &piece.whole, &piece.role, &piece.wholeRole}) {
        std::vector<LayerRule> out;
        for (const auto& rule : design.layers)
            if (!name->empty() && rule.pieces == *name)
                out.push_back(rule);
        if (!out.empty())
            return out;
    }
    return {};
}

double stackThickness(const Design& design, const Ruled& piece, const std::string& materialRole)
{
    const auto face = design.materials.find(materialRole);
    if (face == design.materials.end())
        throw InputError("materials", fmt::format("no material is chosen for “{}”", materialRole));
    double sum = material(face->second).thickness;
    for (const auto& rule : layerRulesFor(design, piece))
        if (rule.area.empty())
            sum += material(rule.material).thickness;
    return sum;
}

double thicknessOf(const Pattern& pattern, const Piece& piece)
{
    double sum = material(pattern.materials.at(piece.material)).thickness;
    for (const auto& layer : piece.layers)
        sum += layer.wholePiece ? material(layer.material).thickness : 0;
    return sum;
}

double trimReach(const std::string& trim, double allowance)
{
    if (trim == "full")
        return allowance;
    if (trim == "stitch")
        return 0;
    if (trim.starts_with("inset "))
        return -parseLength(trim.substr(6));
    throw InputError("layers", fmt::format("“{}” is no trim; use full, stitch or inset N (mm inside the stitch line)", trim));
}

void addLayers(Drafter& d)
{
    for (auto& piece : d.pattern.pieces) {
        auto rules = layerRulesFor(d.design, piece);
        for (const auto& patch : d.patches)
            if (patch.pieces == piece.key)
                rules.push_back(patch);
        for (std::size_t i = 0; i < rules.size(); ++i) // numbered by their rules, so that a layer has one code in every size
            if (auto layer = layerOf(piece, rules[i], i + 1))
                piece.layers.push_back(std::move(*layer));
    }
}

Bulk bulkAt(const Pattern& p, const Seam& seam)
{
    Bulk bulk;
    double most = 0;
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& caught : thickestOf(p, *side, seam)) {
            bulk.parts.push_back({caught.label, caught.times, caught.each});
            if (!caught.layer.empty() && caught.each > most)
                most = caught.each, bulk.heaviest = caught.layer;
        }
    if (const Piece* binding = p.piece(seam.bound))
        bulk.parts.push_back({binding->name, 4, material(p.materials.at(binding->material)).underFoot()}); // folded in on both sides of the edge
    double plain = 0; // without what is trapped: that lies away from where other seams cross
    for (const auto& part : bulk.parts)
        plain += part.times * part.each;
    for (const auto& key : seam.trapped) {
        const Piece* piece = p.piece(key);
        if (!piece)
            continue;
        bulk.parts.push_back({piece->name, piece->plies, material(p.materials.at(piece->material)).underFoot()});
        for (const auto& layer : piece->layers)
            if (layer.wholePiece && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) { return r.second > 0; }))
                bulk.parts.push_back({fmt::format("{} {}", layer.code, material(layer.material).name), 1, material(layer.material).underFoot()});
    }
    for (const auto& part : bulk.parts)
        bulk.underFoot += part.times * part.each;
    bulk.atCrossing = bulk.underFoot;
    // Seams that join neighbours of either run end on it, and their folded allowances lie across it: where both runs are joined at one place, both do.
    std::vector<std::pair<double, const Seam*>> crossings;
    for (const auto* side : {&seam.a, &seam.b}) {
        double at = 0;
        const double whole = side == &seam.a ? seam.lengthA : seam.lengthB;
        for (std::size_t i = 0; i < side->size(); ++i) {
            const EdgeUse &here = (*side)[i], &before = (*side)[i == 0 ? side->size() - 1 : i - 1];
            if (side->size() > 1 && (here.piece != before.piece || here.copy != before.copy))
                if (const Seam* other = seamBetween(p, before, here, seam))
                    crossings.push_back({whole > 0 ? at / whole : 0, other});
            if (const Run* run = p.runBehind(here))
                at += lengthOf(*run);
        }
    }
    for (const auto& [at, first] : crossings) {
        double crossing = plain;
        std::vector<const Seam*> here;
        for (const auto& [place, other] : crossings)
            if (std::abs(place - at) * seam.lengthA < 1 && std::find(here.begin(), here.end(), other) == here.end()) {
                crossing += allowanceThickness(p, *other);
                here.push_back(other);
            }
        if (crossing <= bulk.atCrossing)
            continue;
        bulk.atCrossing = crossing, bulk.crossing.clear();
        for (const Seam* other : here)
            bulk.crossing += (bulk.crossing.empty() ? "" : " and ") + other->name;
    }
    return bulk;
}

Bulk bulkUnderTopstitch(const Pattern& p, const Seam& seam)
{
    constexpr double row = 3.2; // mm from the seam (common practice, no source)
    Bulk bulk;
    for (const auto* side : {&seam.a, &seam.b}) {
        const EdgeUse* thickest = nullptr;
        double most = -1;
        for (const auto& use : *side)
            if (const double sum = sumOf(caughtAlong(p, use, seam)); sum > most)
                most = sum, thickest = &use;
        const Piece* piece = thickest ? p.piece(thickest->piece) : nullptr;
        if (!piece)
            continue;
        // The piece itself and its own allowance behind it.
        for (const auto& caught : caughtAlong(p, *thickest, seam))
            bulk.parts.push_back({caught.label, 2 * caught.times, caught.each});
        for (const auto& layer : piece->layers)
            if (const auto reach = layer.reach.find(thickest->edge); reach != layer.reach.end() && reach->second <= 0 && reach->second > -row)
                bulk.parts.push_back({layer.code + " " + material(layer.material).name, 1, material(layer.material).underFoot()});
    }
    for (const auto& part : bulk.parts)
        bulk.underFoot += part.times * part.each;
    bulk.atCrossing = bulk.underFoot;
    return bulk;
}

} // namespace tectonis
