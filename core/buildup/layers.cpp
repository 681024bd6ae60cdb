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

std::string trimInWords(const LayerRule& rule)
{
    const auto words = [](const std::string& trim) {
        return trim == "full" ? std::string("to the cut line") : trim == "stitch" ? std::string("to the stitch line") : "{" + trim.substr(6) + "} inside the stitch line";
    };
    std::string out = words(rule.trim.empty() ? "stitch" : rule.trim);
    for (const auto& [edge, trim] : rule.edges)
        out += fmt::format("; {} {}", edge, words(trim));
    return out;
}

std::optional<Layer> layerOf(const Piece& piece, const LayerRule& rule, std::size_t number)
{
    Layer layer{.code = fmt::format("{}/{}", piece.code, number), .material = rule.material, .fixing = rule.fixing, .trim = trimInWords(rule)};
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

/// Goes over what one edge brings into the allowance: its cloth, and interlinings that reach past the stitch line.
template <class Visit> void forEachInAllowance(const Pattern& p, const Piece& piece, const std::string& edge, Visit visit)
{
    visit(material(p.materials.at(piece.material)).underFoot(), nullptr);
    for (const auto& layer : piece.layers)
        if (const auto reach = layer.reach.find(edge); reach != layer.reach.end() && reach->second > 0)
            visit(material(layer.material).underFoot(), &layer);
}

/// Of a run over several pieces the edge that brings most, and how much; null for a run on a placement line alone.
std::pair<const EdgeUse*, double> thickestOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    std::pair<const EdgeUse*, double> best{nullptr, -1};
    for (const auto& use : side)
        if (const Piece* piece = p.piece(use.piece)) {
            double sum = 0;
            forEachInAllowance(p, *piece, use.edge, [&](double each, const Layer*) { sum += each; });
            if (sum > best.second)
                best = {&use, sum};
        }
    return best;
}

/// Adds one side of a seam to the bulk, part by part.
void addSide(const Pattern& p, const std::vector<EdgeUse>& side, Bulk& bulk)
{
    const EdgeUse* use = thickestOf(p, side).first;
    if (!use)
        return;
    const Piece& piece = *p.piece(use->piece);
    double most = 0;
    forEachInAllowance(p, piece, use->edge, [&](double each, const Layer* layer) {
        bulk.parts.push_back({layer ? layer->code + " " + material(layer->material).name : piece.name, 1, each});
        if (layer && each > most)
            most = each, bulk.heaviest = layer->code;
    });
}

double allowanceThickness(const Pattern& p, const Seam& seam)
{
    return std::max(0.0, thickestOf(p, seam.a).second) + std::max(0.0, thickestOf(p, seam.b).second);
}

} // namespace

std::vector<LayerRule> layerRulesFor(const Design& design, const std::string& role, const std::string& key)
{
    std::vector<LayerRule> own, ofRole;
    for (const auto& rule : design.layers) {
        if (rule.pieces == key)
            own.push_back(rule);
        if (rule.pieces == role)
            ofRole.push_back(rule);
    }
    return own.empty() ? ofRole : own;
}

double stackThickness(const Design& design, const std::string& role, const std::string& key, const std::string& materialRole)
{
    const auto face = design.materials.find(materialRole);
    if (face == design.materials.end())
        throw InputError("materials", fmt::format("no material is chosen for “{}”", materialRole));
    double sum = material(face->second).thickness;
    for (const auto& rule : layerRulesFor(design, role, key))
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
        auto rules = layerRulesFor(d.design, piece.role, piece.key);
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
    addSide(p, seam.a, bulk);
    addSide(p, seam.b, bulk);
    double plain = 0; // without what is trapped: that lies away from where other seams cross
    for (const auto& part : bulk.parts)
        plain += part.times * part.each;
    for (const auto& key : seam.trapped) {
        const Piece* piece = p.piece(key);
        if (!piece)
            continue;
        const Material& m = material(p.materials.at(piece->material));
        // A tab folded to a quarter and looped lies eight times in the seam; a turned flap twice.
        const int times = piece->role == "connector" ? 2 * (piece->lines.empty() ? 1 : 4) : 1;
        bulk.parts.push_back({piece->name, times, m.underFoot()});
        for (const auto& layer : piece->layers)
            if (layer.wholePiece && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) { return r.second > 0; }))
                bulk.parts.push_back({fmt::format("{} {}", layer.code, material(layer.material).name), 1, material(layer.material).underFoot()});
    }
    for (const auto& part : bulk.parts)
        bulk.underFoot += part.times * part.each;
    bulk.atCrossing = bulk.underFoot;
    // Seams that join pieces of this run end on it: their folded allowances lie across it.
    if (seam.a.size() + seam.b.size() <= 2)
        return bulk; // one piece to one piece: none is joined
    std::set<std::string> onRun;
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& use : *side)
            onRun.insert(use.piece);
    for (const auto& other : p.seams) {
        if (other.key == seam.key || other.a.empty() || other.b.empty() || other.stitch != "construction")
            continue;
        if (!onRun.contains(other.a.front().piece) || !onRun.contains(other.b.front().piece))
            continue;
        const double crossing = plain + allowanceThickness(p, other);
        if (crossing > bulk.atCrossing)
            bulk.atCrossing = crossing, bulk.crossing = other.name;
    }
    return bulk;
}

} // namespace tectonis
