// SPDX-License-Identifier: GPL-3.0-or-later
// Changes of what lies behind pieces, of what is carried, of the order of work.
#include "editing/edits.hpp"

#include "buildup/layers.hpp"
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
    LayerRule whole = rule;
    if (whole.fixing.empty())
        whole.fixing = whole.trim.starts_with("rows") || whole.trim.starts_with("diamonds") ? "quilted"
                                                                                            : usualFixing(*material);
    static const std::set<std::string> known{"fused", "basted", "glued", "loose", "quilted"};
    if (!known.contains(whole.fixing))
        throw InputError(
            say("layers"), say("“{}” is no fixing; use fused, basted, glued, loose or quilted", whole.fixing));
    if (whole.fixing == "quilted") {
        if (const Quilting q = quiltingOf(whole.trim); !whole.trim.starts_with("rows") && !q.diamonds)
            whole.trim = fmt::format("rows {}", q.spacing);
    } else if (whole.trim.empty())
        whole.trim = "stitch";
    design.layers.push_back(std::move(whole));
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
