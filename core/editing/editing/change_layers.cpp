// SPDX-License-Identifier: GPL-3.0-or-later
// Changes of what lies behind pieces, of what is carried, of the order of work.
#include "editing/edits.hpp"

#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis::change {
namespace {

/// A piece that has no rules of its own gets its role's as a copy.
void giveOwnRules(Design& design, const Piece& piece)
{
    if (std::any_of(
            design.layers.begin(), design.layers.end(), [&](const LayerRule& r) { return piece.key == r.pieces; }))
        return;
    std::vector<LayerRule> own;
    for (const LayerRule* rule : layerRulesFor(design, piece))
        own.push_back(*rule);
    for (auto& rule : own) {
        rule.pieces = piece.key.text();
        design.layers.push_back(std::move(rule));
    }
}

/// @p pieces is a role of the pattern or the key of a piece. @throws InputError if it is neither.
void requirePieces(Design& design, const Pattern& seenIn, const std::string& pieces)
{
    if (const Piece* piece = seenIn.piece(pieces))
        return giveOwnRules(design, *piece);
    std::string roles;
    for (const auto& p : seenIn.pieces) {
        if (p.role == pieces)
            return;
        if (roles.find("“" + p.role + "”") == std::string::npos)
            roles += (roles.empty() ? "“" : ", “") + p.role + "”";
    }
    throw InputError(pieces, say("no piece has this role or key; roles are {}", roles));
}

/// @throws InputError for a fixing that there is not. Completes the trim.
void settle(LayerRule& rule)
{
    static const std::set<std::string> known{"fused", "basted", "glued", "loose", "quilted"};
    if (!known.contains(rule.fixing))
        throw InputError(
            say("layers"), say("“{}” is no fixing; use fused, basted, glued, loose or quilted", rule.fixing));
    if (rule.fixing == "quilted") {
        if (const Quilting q = quiltingOf(rule.trim); !rule.trim.starts_with("rows") && !q.diamonds)
            rule.trim = fmt::format("rows {}", q.spacing);
    } else if (rule.trim.empty())
        rule.trim = "stitch";
}

/// Where in the design the nth layer of a role or piece is written.
std::size_t placeOf(const Design& design, const std::string& pieces, std::size_t nth)
{
    for (std::size_t i = 0; i < design.layers.size(); ++i)
        if (design.layers[i].pieces == pieces && !design.layers[i].material.empty() && nth-- == 0)
            return i;
    throw InputError(pieces, say("it has no such layer"));
}

} // namespace

std::string usualFixing(const Material& material)
{
    return material.kind == "fusible" ? "fused" : material.kind == "board" ? "loose" : "basted";
}

void putBehind(Design& design, const Pattern& seenIn, const LayerRule& rule)
{
    requirePieces(design, seenIn, rule.pieces);
    const Material* material = design.library->find(rule.material);
    if (!material)
        throw InputError(say("layers"), say("there is no material “{}”", rule.material));
    std::erase_if(design.layers, [&](const LayerRule& r) { return r.pieces == rule.pieces && r.material.empty(); });
    LayerRule whole = rule;
    if (whole.fixing.empty())
        whole.fixing = whole.trim.starts_with("rows") || whole.trim.starts_with("diamonds") ? "quilted"
                                                                                            : usualFixing(*material);
    settle(whole);
    design.layers.push_back(std::move(whole));
}

void layer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth,
    const std::function<void(LayerRule&)>& change)
{
    requirePieces(design, seenIn, pieces);
    LayerRule& rule = design.layers[placeOf(design, pieces, nth)];
    change(rule);
    if (!design.library->find(rule.material))
        throw InputError(say("layers"), say("there is no material “{}”", rule.material));
    settle(rule);
}

void moveLayer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth, bool inwards)
{
    requirePieces(design, seenIn, pieces);
    if (!inwards && nth == 0)
        throw InputError(pieces, say("it lies next to the face already"));
    const std::size_t from = placeOf(design, pieces, nth), to = placeOf(design, pieces, inwards ? nth + 1 : nth - 1);
    std::swap(design.layers[from], design.layers[to]);
}

void takeLayer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth)
{
    requirePieces(design, seenIn, pieces);
    design.layers.erase(design.layers.begin() + std::ptrdiff_t(placeOf(design, pieces, nth)));
    const bool left = std::any_of(
        design.layers.begin(), design.layers.end(), [&](const LayerRule& r) { return r.pieces == pieces; });
    if (!left && seenIn.piece(pieces))
        design.layers.push_back({.pieces = pieces}); // nothing, whatever its role says
}

void restoreLayers(Design& design, const Pattern& seenIn, const std::string& pieces)
{
    if (const Piece* piece = seenIn.piece(pieces); piece && piece->role != pieces) {
        if (std::erase_if(design.layers, [&](const LayerRule& r) { return r.pieces == pieces; }) == 0)
            throw InputError(pieces, say("it has no layers of its own"));
        return;
    }
    for (const auto& piece : seenIn.pieces)
        if (const auto face = design.materials.find(piece.material);
            piece.role == pieces && face != design.materials.end())
            return layers(design, pieces, proposedLayers(pieces, design.library->material(face->second)).layers);
    throw InputError(pieces, say("no piece of this bag is called so"));
}

void layers(Design& design, const std::string& pieces, const std::vector<LayerRule>& all)
{
    std::erase_if(design.layers, [&](const LayerRule& r) { return r.pieces == pieces; });
    for (LayerRule rule : all) {
        rule.pieces = pieces;
        settle(rule);
        design.layers.push_back(std::move(rule));
    }
    if (all.empty())
        design.layers.push_back({.pieces = pieces});
}

void takeFromBehind(Design& design, const Pattern& seenIn, const std::string& pieces)
{
    requirePieces(design, seenIn, pieces);
    for (auto it = design.layers.rbegin(); it != design.layers.rend(); ++it)
        if (it->pieces == pieces) {
            design.layers.erase(std::next(it).base());
            return;
        }
    throw InputError(pieces, say("nothing lies behind it"));
}

void order(Design& design, const Pattern& seenIn, const std::vector<std::string>& stepIds)
{
    for (const auto& id : stepIds)
        if (!seenIn.step(id))
            throw InputError(id, say("there is no such step"));
    design.stepOrder = stepIds;
}

} // namespace tectonis::change
