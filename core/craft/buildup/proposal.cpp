// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/proposal.hpp"

#include "units/error.hpp"

#include <algorithm>
#include <sstream>

namespace tectonis {
namespace {

bool oneOf(const std::string& word, std::initializer_list<const char*> words)
{
    return std::any_of(words.begin(), words.end(), [&](const char* each) { return word == each; });
}

} // namespace

Proposal proposedLayers(const std::string& role, const Material& face)
{
    const bool lining = role.starts_with("lining"), base = role == "base" || role == "lining base",
               wall = oneOf(role, {"panel", "gusset", "cover", "zip band"}),
               small = oneOf(role, {"flap", "flap lining", "pocket", "facing", "band"});
    const bool hot = face.heat && face.kind != "vinyl" && face.kind != "leather" && face.kind != "coated";
    // Foam ends below the mouth's fold; edges that a piece has not are passed over.
    const LayerRule foam{"", "foam-sewin", "basted", "stitch",
        {{"top", "inset 12"}, {"left mouth", "inset 12"}, {"right mouth", "inset 12"}}},
        woven{"", "fusible-woven", "fused", "full", {}}, firm{"", "stabiliser-firm", "basted", "stitch", {}};
    Proposal out;
    if (lining) {
        if (hot)
            out.layers = {woven};
        out.why = hot ? say("a light woven fusible keeps the lining from stretching.")
                      : say("heat harms {}: nothing is fused to it.", face.name);
    } else if (base) {
        out.layers = {firm};
        out.why = say("a base is stiffened, so that it carries.");
    } else if (wall) {
        if (hot && face.kind == "cotton")
            out.layers = {woven};
        out.layers.push_back(foam);
        out.why = !hot              ? say("heat harms {}: sew-in foam gives it body, nothing is fused.", face.name)
            : face.kind == "cotton" ? say("thin cotton is fused, and foam gives it body.")
                                    : say("foam gives firm cloth its shape.");
    } else if (small || (role == "strap" && face.kind == "cotton")) {
        if (hot)
            out.layers = {woven};
        out.why = hot ? say("a woven fusible keeps it in shape.")
                      : say("heat harms {}: nothing is fused to it.", face.name);
    } else
        out.why = say("it needs nothing behind it.");
    return out;
}

std::string layersText(const std::vector<LayerRule>& layers)
{
    std::string out;
    for (const auto& l : layers) {
        out += (out.empty() ? "" : "; ") + l.material + " " + l.fixing + " " + l.trim;
        for (const auto& [edge, trim] : l.edges)
            out += ", " + edge + ": " + trim;
    }
    return out.empty() ? "none" : out;
}

std::vector<LayerRule> parseLayers(const std::string& text)
{
    std::vector<LayerRule> out;
    if (text == "none")
        return out;
    std::istringstream all(text);
    for (std::string each; std::getline(all, each, ';');) {
        std::istringstream parts(each);
        std::string first, rest;
        std::getline(parts, first, ',');
        LayerRule rule;
        std::istringstream words(first);
        words >> rule.material >> rule.fixing;
        std::getline(words >> std::ws, rule.trim);
        if (rule.material.empty() || rule.fixing.empty())
            throw InputError(say("layers"), say("“{}” is no layer; write MATERIAL FIXING TRIM, or none", each));
        for (std::string edge; std::getline(parts, edge, ',');) {
            const auto colon = edge.find(':');
            const auto from = edge.find_first_not_of(' ');
            if (colon == std::string::npos || from >= colon)
                throw InputError(say("layers"), say("“{}” is no edge; write EDGE: TRIM", edge));
            const auto trim = edge.find_first_not_of(' ', colon + 1);
            rule.edges[edge.substr(from, colon - from)] = trim == std::string::npos ? "" : edge.substr(trim);
        }
        if (rule.trim.empty())
            rule.trim = "stitch";
        out.push_back(std::move(rule));
    }
    return out;
}

} // namespace tectonis
