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

std::vector<std::string> divided(const std::string& text, const std::string& by)
{
    std::vector<std::string> out;
    std::size_t from = 0;
    for (std::size_t at; (at = text.find(by, from)) != std::string::npos; from = at + by.size())
        out.push_back(text.substr(from, at - from));
    out.push_back(text.substr(from));
    return out;
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
        if (!l.area.empty())
            out += ", area: " + l.area;
        if (!l.grain.empty())
            out += ", grain: " + l.grain;
    }
    return out.empty() ? "none" : out;
}

std::vector<LayerRule> parseLayers(const std::string& text)
{
    std::vector<LayerRule> out;
    if (text == "none")
        return out;
    for (const auto& each : divided(text, ";")) {
        const auto parts = divided(each, ", "); // a drawn shape has commas of its own
        LayerRule rule;
        std::istringstream words(parts.front());
        words >> rule.material >> rule.fixing;
        std::getline(words >> std::ws, rule.trim);
        if (rule.material.empty() || rule.fixing.empty())
            throw InputError(say("layers"), say("“{}” is no layer; write MATERIAL FIXING TRIM, or none", each));
        for (std::size_t i = 1; i < parts.size(); ++i) {
            const auto colon = parts[i].find(": ");
            if (colon == std::string::npos || colon == 0)
                throw InputError(say("layers"), say("“{}” is no edge; write EDGE: TRIM", parts[i]));
            const std::string name = parts[i].substr(0, colon), value = parts[i].substr(colon + 2);
            (name == "area" ? rule.area : name == "grain" ? rule.grain : rule.edges[name]) = value;
        }
        if (rule.trim.empty())
            rule.trim = "stitch";
        out.push_back(std::move(rule));
    }
    return out;
}

} // namespace tectonis
