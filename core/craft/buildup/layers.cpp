// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/layers.hpp"

#include "buildup/shapes.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <algorithm>
#include <array>
#include <limits>
#include <set>

namespace tectonis {
namespace {

Message trimInWords(const Pattern& p, const Piece& piece, const LayerRule& rule)
{
    const auto words = [](const std::string& trim) {
        return trim == "full"  ? say("to the cut line")
            : trim == "stitch" ? say("to the stitch line")
            : trim.starts_with("past ")
            ? say("{} beyond the stitch line", Len(trimReach(trim, std::numeric_limits<double>::max())))
            : say("{} inside the stitch line", Len(-trimReach(trim, 0)));
    };
    Message out;
    if (rule.fixing == "quilted") {
        const Quilting q = quiltingOf(rule.trim);
        out = q.diamonds ? say("in diamonds, {} apart", Len(q.spacing)) : say("in rows, {} apart", Len(q.spacing));
        const auto like = [&](const Edge& e) {
            const auto own = rule.edges.find(e.name.text());
            return own != rule.edges.end() && own->second == rule.edges.begin()->second;
        };
        if (std::all_of(piece.edges.begin(), piece.edges.end(), like))
            return say("{}; {} all round", out, words(rule.edges.begin()->second));
    } else
        out = words(rule.trim.empty() ? "stitch" : rule.trim);
    for (const auto& [edge, trim] : rule.edges)
        if (piece.edge(EdgeId(edge))) // a part that was cut off may not have it
            out = say("{}; {} {}", out, edgeLabel(p, EdgeId(edge)), words(trim));
    return out;
}

double grainOf(const LayerRule& rule, const Piece& piece)
{
    return rule.grain.empty() ? piece.grain : parseLength(rule.grain);
}

/// How far a shape reaches past the stitch lines that it comes to.
void findReach(Layer& layer, const Piece& piece)
{
    const Polyline outline = flattened(layer.outline, 0.05);
    for (const auto& e : piece.edges)
        if (const auto past = reachPast(outline, e.stitch, e.allowance))
            layer.reach.emplace_back(e.name, *past);
}

std::optional<Layer> layerOf(
    const Pattern& p, const Piece& piece, const LayerRule& rule, const Material& cloth, std::size_t number)
{
    const std::string nth = std::to_string(number);
    Layer layer{.id = piece.key.as<LayerKind>().sub("layer." + nth),
        .code = piece.code + "/" + nth,
        .material = rule.material,
        .kind = cloth.kind,
        .loft = cloth.compressed < 1,
        .fixing = rule.fixing,
        .trim = trimInWords(p, piece, rule),
        .grain = grainOf(rule, piece)};
    const bool quilted = rule.fixing == "quilted"; // to its cloth, before that is cut to shape
    if (quilted) {
        const Quilting q = quiltingOf(rule.trim);
        layer.quilted = q.spacing, layer.diamonds = q.diamonds;
    }
    const LayerShape shape = quilted      ? LayerShape()
        : piece.areas.contains(rule.area) ? LayerShape{.kind = LayerShape::Kind::Area, .name = rule.area}
                                          : parseShape(rule.area);
    layer.wholePiece = shape.kind == LayerShape::Kind::Whole;
    if (shape.kind == LayerShape::Kind::Area) {
        const auto area = shapeOn(shape, piece, {}, 0, p);
        if (!area)
            return std::nullopt;
        layer.outline = *area;
        layer.trim = inWords(shape, p);
        return layer;
    }
    double atStrip = 0;
    std::vector<OffsetEdge> edges;
    edges.reserve(piece.edges.size());
    layer.reach.reserve(piece.edges.size());
    bool full = true; // to the cut line all round
    for (const auto& e : piece.edges) {
        const auto own = rule.edges.empty() ? rule.edges.end() : rule.edges.find(e.name.text());
        static const std::string whole = "full";
        const std::string& trim = own != rule.edges.end() ? own->second : quilted ? whole : rule.trim;
        const double start = trimReach(trim, e.allowance),
                     end = trimReach(trim, e.allowanceAtEnd.value_or(e.allowance));
        layer.reach.emplace_back(e.name, start);
        if (e.name.text() == shape.name)
            atStrip = start;
        edges.push_back({e.stitch, start, end, e.corner, e.hem});
        full &= trim == "full" && !e.onFold;
    }
    layer.outline = full ? piece.cut : offsetOutline(edges);
    if (layer.wholePiece)
        return layer;
    auto own = shapeOn(shape, piece, layer.outline, atStrip, p);
    if (!own)
        return std::nullopt;
    layer.outline = std::move(*own);
    layer.trim = inWords(shape, p);
    layer.reach.clear();
    findReach(layer, piece);
    return layer;
}

} // namespace

std::string rulesFor(const Design& design, const Ruled& piece)
{
    for (const std::string_view name :
        {std::string_view(piece.key.text()), std::string_view(piece.whole.text()), piece.role, piece.wholeRole})
        if (!name.empty() && std::any_of(design.layers.begin(), design.layers.end(), [&](const LayerRule& r) {
                return r.pieces == name;
            }))
            return std::string(name);
    return {};
}

std::vector<const LayerRule*> layerRulesFor(const Design& design, const Ruled& piece)
{
    for (const std::string_view name :
        {std::string_view(piece.key.text()), std::string_view(piece.whole.text()), piece.role, piece.wholeRole}) {
        std::vector<const LayerRule*> out;
        bool any = false;
        for (const auto& rule : design.layers)
            if (!name.empty() && rule.pieces == name) {
                any = true;
                if (!rule.material.empty())
                    out.push_back(&rule);
            }
        if (any)
            return out;
    }
    return {};
}

namespace {

template <class Thick>
double stackOf(const Design& design, const Ruled& piece, const std::string& materialRole, Thick thick)
{
    const auto face = design.materials.find(materialRole);
    if (face == design.materials.end())
        throw InputError(say("materials"), say("no material is chosen for “{}”", materialRole));
    double sum = thick(design.library->material(face->second));
    for (const LayerRule* rule : layerRulesFor(design, piece))
        if (rule->area.empty())
            sum += thick(design.library->material(rule->material));
    return sum;
}

} // namespace

double stackThickness(const Design& design, const Ruled& piece, const std::string& materialRole)
{
    return stackOf(design, piece, materialRole, [](const Material& m) { return m.thickness; });
}

double stackUnderFoot(const Design& design, const Ruled& piece, const std::string& materialRole)
{
    return stackOf(design, piece, materialRole, [](const Material& m) { return m.underFoot(); });
}

double thicknessOf(const Pattern& pattern, const Piece& piece)
{
    double sum = pattern.material(pattern.materials.at(piece.material)).thickness;
    for (const auto& layer : piece.layers)
        sum += layer.wholePiece ? pattern.material(layer.material).thickness : 0;
    return sum;
}

double weightOf(const Pattern& pattern, const Piece& piece)
{
    const auto face = pattern.materials.find(piece.material);
    double sum = face == pattern.materials.end() ? 0 : areaOf(piece.cut) * pattern.material(face->second).gsm;
    for (const auto& layer : piece.layers)
        sum += areaOf(layer.outline) * pattern.material(layer.material).gsm;
    return piece.count * sum / 1e6;
}

Stiffness stiffnessOf(const Pattern& pattern, const Piece& piece)
{
    const auto face = pattern.materials.find(piece.material);
    if (face == pattern.materials.end())
        return Stiffness::Soft;
    Stiffness most = stiffnessOf(pattern.material(face->second));
    const double whole = areaOf(piece.cut);
    const auto behind = [&](const Layer& layer) { return areaOf(layer.outline) >= whole / 2; };
    for (const auto& layer : piece.layers)
        if (behind(layer))
            most = std::max(most, stiffnessOf(pattern.material(layer.material)));
    int alike = stiffnessOf(pattern.material(face->second)) == most ? 1 : 0;
    for (const auto& layer : piece.layers)
        if (behind(layer) && stiffnessOf(pattern.material(layer.material)) == most
            && (layer.fixing == "fused" || layer.fixing == "glued" || layer.fixing == "quilted"))
            ++alike;
    return alike >= 2 && most < Stiffness::Firm ? Stiffness(int(most) + 1) : most;
}

Stiffness stiffnessOf(const Pattern& pattern)
{
    std::array<double, 4> area{};
    for (const auto& piece : pattern.pieces)
        if (piece.coat == Coat::Shell)
            area[std::size_t(stiffnessOf(pattern, piece))] += piece.count * areaOf(piece.cut);
    double passed = 0;
    for (int i = 3; i > 0; --i)
        if ((passed += area[std::size_t(i)]) >= (area[0] + area[1] + area[2] + area[3]) / 2 && passed > 0)
            return Stiffness(i);
    return Stiffness::Soft;
}

Label nameOf(Stiffness stiffness)
{
    switch (stiffness) {
    case Stiffness::Soft: return label("soft");
    case Stiffness::Medium: return label("medium");
    case Stiffness::Firm: return label("firm");
    case Stiffness::Rigid: return label("rigid");
    }
    return {};
}

Label meaningOf(Stiffness stiffness)
{
    switch (stiffness) {
    case Stiffness::Soft: return label("falls over");
    case Stiffness::Medium: return label("holds its curve");
    case Stiffness::Firm: return label("stands by itself");
    case Stiffness::Rigid: return label("does not bend");
    }
    return {};
}

double trimReach(const std::string& trim, double allowance)
{
    if (trim.starts_with("past ")) {
        const double beyond = parseLength(trim.substr(5));
        if (beyond < 0)
            throw InputError(say("layers"), say("“{}” lies inside the stitch line; write inset", trim));
        return std::min(beyond, allowance);
    }
    if (trim == "full")
        return allowance;
    if (trim == "stitch")
        return 0;
    if (trim.starts_with("inset "))
        return -parseLength(trim.substr(6));
    throw InputError(say("layers"),
        say("“{}” is no trim; use full, stitch, inset N or past N (mm inside or beyond the stitch line)", trim));
}

void addLayers(Pattern& pattern, const Design& design, const std::vector<Patch>& patches)
{
    for (auto& piece : pattern.pieces) {
        auto rules = layerRulesFor(design, piece);
        const std::size_t own = rules.size();
        std::vector<Message> asked; // what the patches among them are
        for (const auto& patch : patches)
            if (piece.key == patch.behind)
                rules.push_back(&patch.rule), asked.push_back(patch.what);
        for (std::size_t i = 0; i < rules.size();
             ++i) // numbered by their rules, so that a layer has one code in every size
            if (auto layer = layerOf(pattern, piece, *rules[i], pattern.material(rules[i]->material), i + 1)) {
                if (i >= own)
                    layer->trim = asked[i - own];
                else
                    layer->rule = int(i), layer->rules = rulesFor(design, piece);
                piece.layers.push_back(std::move(*layer));
            }
    }
}

std::vector<const Layer*> trimmedAfter(const Pattern& pattern, const Seam& seam)
{
    std::vector<const Layer*> out;
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& use : *side)
            if (const Piece* piece = pattern.piece(use.piece))
                for (const auto& layer : piece->layers)
                    if (const double* reach = layer.reachAt(use.edge); reach && *reach > 3 && layer.fixing == "basted"
                        && std::find(out.begin(), out.end(), &layer) == out.end())
                        out.push_back(&layer);
    return out;
}

Quilting quiltingOf(const std::string& trim)
{
    Quilting out{.diamonds = trim.starts_with("diamonds")};
    if (!out.diamonds && !trim.starts_with("rows"))
        return out;
    const auto space = trim.find(' ');
    if (space != std::string::npos)
        out.spacing = parseLength(trim.substr(space + 1));
    if (!(out.spacing >= 5 && out.spacing <= 200))
        throw InputError(say("layers"), say("rows of quilting lie {} to {} apart", Len(5), Len(200)));
    return out;
}

} // namespace tectonis
