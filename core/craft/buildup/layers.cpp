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

Message nameOf(const Pattern& p, const Layer& layer)
{
    return say("{} {}", layer.code, p.material(layer.material).name);
}

/// Does a point lie on a run? Chords are made for free curves only.
bool liesOn(const Run& run, Point p)
{
    constexpr double near = 0.5;
    for (const auto& s : run) {
        if (const auto* line = std::get_if<Line>(&s)) {
            const Point d = line->b - line->a, to = p - line->a;
            const double n = dot(d, d), t = n > 0 ? std::clamp(dot(to, d) / n, 0.0, 1.0) : 0;
            if (distance(to, d * t) < near)
                return true;
        } else if (const auto* arc = std::get_if<Arc>(&s)) {
            const Point out = p - arc->centre;
            if (std::abs(norm(out) - arc->radius) >= near)
                continue;
            const double turn = std::remainder(std::atan2(out.y, out.x) - arc->start - arc->sweep / 2, 2 * pi);
            if (std::abs(turn) <= std::abs(arc->sweep) / 2 + near / arc->radius)
                return true;
        } else if (distanceTo(flattened({s}, 0.1), p) < near)
            return true;
    }
    return false;
}

/// Pleats that begin at an edge.
bool pleated(const Piece& piece, const Edge& edge)
{
    return std::any_of(piece.lines.begin(), piece.lines.end(),
        [&](const FaceLine& l) { return l.kind == FaceLine::Kind::Pleat && liesOn(edge.stitch, startOf(l.run)); });
}

/// Visits everything that one edge brings into the allowance: its cloth, interlinings that reach past the stitch line,
/// overlays of which an edge lies there, pleats.
template <class Visit> void forEachCaught(const Pattern& p, const EdgeUse& use, const Seam& seam, Visit visit)
{
    const Piece* piece = p.piece(use.piece);
    if (!piece)
        return;
    const auto add = [&](const Piece& each, const EdgeId& edge, int times) {
        visit(BulkPart{&each, nullptr, times, p.material(p.materials.at(each.material)).underFoot()});
        for (const auto& layer : each.layers)
            if (const double* reach = layer.reachAt(edge); reach && *reach > 0)
                visit(BulkPart{&each, &layer, times, p.material(layer.material).underFoot()});
    };
    const Edge* own = piece->edge(use.edge);
    add(*piece, use.edge, own && pleated(*piece, *own) ? 3 : 1); // the folded cloth lies three times at a pleat
    const Piece* before = nullptr; // two patches of one piece lie at both ends of an edge, not on each other
    for (const auto& o : p.overlays) {
        if (!own || o.on != piece->key
            || std::find(seam.trapped.begin(), seam.trapped.end(), o.piece) != seam.trapped.end())
            continue;
        const Piece* on = p.piece(o.piece);
        if (!on || on == before)
            continue;
        for (const auto& e : on->edges)
            if (e.allowance > 0 && liesOn(own->stitch, o.placement(pointAlong(e.stitch, e.length() / 2)))) {
                add(*on, e.name, 1);
                before = on;
                break;
            }
    }
}

double sumAlong(const Pattern& p, const EdgeUse& use, const Seam& seam)
{
    double sum = 0;
    forEachCaught(p, use, seam, [&](const BulkPart& c) { sum += c.times * c.each; });
    return sum;
}

/// Of a run over several pieces the use that brings most; null for none.
const EdgeUse* thickestOf(const Pattern& p, const std::vector<EdgeUse>& side, const Seam& seam)
{
    if (side.size() < 2)
        return side.empty() ? nullptr : &side.front();
    const EdgeUse* best = nullptr;
    double most = 0;
    for (const auto& use : side)
        if (const double sum = sumAlong(p, use, seam); sum > most || !best)
            most = sum, best = &use;
    return best;
}

/// The seam that joins two neighbours of a run where they meet; null where they are only laid side by side.
const Seam* seamBetween(const Pattern& p, const EdgeUse& before, const EdgeUse& after, const Seam& own)
{
    const auto begins = [&](const EdgeUse& use) {
        const Run* run = p.runBehind(use);
        return !run || run->empty() ? Point{} : use.reversed ? endOf(run->back()) : startOf(run->front());
    };
    const auto stops = [&](const EdgeUse& use) {
        const Run* run = p.runBehind(use);
        return !run || run->empty() ? Point{} : use.reversed ? startOf(run->front()) : endOf(run->back());
    };
    const Point leaves = stops(before), arrives = begins(after); // the place where they meet, on each piece
    const auto ends = [&](const std::vector<EdgeUse>& side, const EdgeUse& use, bool first) {
        const EdgeUse& end = first ? side.front() : side.back();
        if (end.piece != use.piece || end.copy != use.copy)
            return false;
        return distance(first ? begins(end) : stops(end), &use == &before ? leaves : arrives) < 0.01;
    };
    for (const auto& other : p.seams) {
        if (&other == &own || other.stitch != "construction" || other.a.empty() || other.b.empty())
            continue;
        for (const bool first : {true, false}) // it begins or ends on the run
            if ((ends(other.a, before, first) && ends(other.b, after, first))
                || (ends(other.a, after, first) && ends(other.b, before, first)))
                return &other;
    }
    return nullptr;
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

double stackThickness(const Design& design, const Ruled& piece, const std::string& materialRole)
{
    const auto face = design.materials.find(materialRole);
    if (face == design.materials.end())
        throw InputError(say("materials"), say("no material is chosen for “{}”", materialRole));
    double sum = design.library->material(face->second).thickness;
    for (const LayerRule* rule : layerRulesFor(design, piece))
        if (rule->area.empty())
            sum += design.library->material(rule->material).thickness;
    return sum;
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
                    layer->rule = int(i);
                piece.layers.push_back(std::move(*layer));
            }
    }
}

namespace {

/// What is caught in a seam at its thickest place: what runs along it, and of the things that are laid at places of
/// their own, a belt's two ends, those that lie on each other.
std::vector<PieceId> trappedAtOnce(const Pattern& p, const Seam& seam)
{
    if (seam.trapped.size() < 2)
        return seam.trapped;
    constexpr double apart = 40; // mm: nearer than that they lie under one foot
    struct Spot {
        PieceId thing, holder;
        Point at;
        double thick;
    };
    std::vector<Spot> spots;
    std::vector<PieceId> out;
    for (const auto& key : seam.trapped) {
        const Act* laid = nullptr;
        for (const auto& step : p.steps)
            for (const auto& act : step.acts)
                if (act.verb == Act::Verb::Lay && act.at && act.pieces.front() == key)
                    laid = &act;
        const Piece* piece = p.piece(key);
        if (laid && piece)
            spots.push_back({key, laid->pieces.back(), *laid->at,
                piece->plies * p.material(p.materials.at(piece->material)).underFoot()});
        else
            out.push_back(key);
    }
    std::vector<PieceId> most;
    double thickest = -1;
    for (const auto& here : spots) {
        std::vector<PieceId> together;
        double thick = 0;
        for (const auto& other : spots)
            if (other.holder == here.holder && distance(other.at, here.at) < apart)
                together.push_back(other.thing), thick += other.thick;
        if (thick > thickest)
            thickest = thick, most = std::move(together);
    }
    out.insert(out.end(), most.begin(), most.end());
    return out;
}

} // namespace

Message BulkPart::label(const Pattern& p) const { return layer ? nameOf(p, *layer) : piece->name; }

Bulk bulkAt(const Pattern& p, const Seam& seam) { return Bulks(p).at(seam); }

double Bulks::allowanceThickness(const Seam& seam)
{
    const auto [known, fresh] = m_allowances.try_emplace(&seam, 0);
    if (fresh)
        for (const auto* side : {&seam.a, &seam.b}) {
            double most = 0;
            for (const auto& use : *side)
                most = std::max(most, sumAlong(p, use, seam));
            known->second += most;
        }
    return known->second;
}

Bulk Bulks::at(const Seam& seam)
{
    Bulk bulk;
    double most = 0;
    for (const auto* side : {&seam.a, &seam.b})
        if (const EdgeUse* use = thickestOf(p, *side, seam))
            forEachCaught(p, *use, seam, [&](const BulkPart& caught) {
                bulk.parts.push_back(caught);
                if (caught.layer && caught.each > most)
                    most = caught.each, bulk.heaviest = caught;
            });
    if (const Piece* binding = p.piece(seam.bound))
        bulk.parts.push_back({binding, nullptr, 4,
            p.material(p.materials.at(binding->material)).underFoot()}); // folded in on both sides of the edge
    if (seam.enclosed)                                                   // the allowances once more
        for (auto& part : bulk.parts)
            part.times *= 2;
    double plain = 0; // without what is trapped: that lies away from where other seams cross
    for (const auto& part : bulk.parts)
        plain += part.times * part.each;
    for (const auto& key : trappedAtOnce(p, seam)) {
        const Piece* piece = p.piece(key);
        if (!piece)
            continue;
        bulk.parts.push_back({piece, nullptr, piece->plies, p.material(p.materials.at(piece->material)).underFoot()});
        for (const auto& layer : piece->layers)
            if (layer.wholePiece
                && std::any_of(layer.reach.begin(), layer.reach.end(), [](const auto& r) { return r.second > 0; }))
                bulk.parts.push_back({piece, &layer, 1, p.material(layer.material).underFoot()});
    }
    for (const auto& part : bulk.parts)
        bulk.underFoot += part.times * part.each;
    bulk.atCrossing = bulk.underFoot;
    // Seams that join neighbours of either run end on it, and their folded allowances lie across it: where both runs
    // are joined at one place, both do.
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
    std::vector<const Seam*> worst, here;
    for (const auto& [at, first] : crossings) {
        double crossing = plain;
        here.clear();
        for (const auto& [place, other] : crossings)
            if (std::abs(place - at) * seam.lengthA < 1 && std::find(here.begin(), here.end(), other) == here.end()) {
                crossing += allowanceThickness(*other);
                here.push_back(other);
            }
        if (crossing <= bulk.atCrossing)
            continue;
        bulk.atCrossing = crossing;
        std::swap(worst, here);
    }
    for (const Seam* other : worst)
        bulk.crossing = bulk.crossing.empty() ? other->name : say("{} and {}", bulk.crossing, other->name);
    return bulk;
}

Bulk bulkUnderTopstitch(const Pattern& p, const Seam& seam)
{
    constexpr double row = 3.2; // mm from the seam (common practice, no source)
    Bulk bulk;
    for (const auto* side : {&seam.a, &seam.b}) {
        const EdgeUse* thickest = thickestOf(p, *side, seam);
        const Piece* piece = thickest ? p.piece(thickest->piece) : nullptr;
        if (!piece)
            continue;
        // The piece itself and its own allowance behind it.
        forEachCaught(p, *thickest, seam, [&](BulkPart caught) {
            caught.times *= 2;
            bulk.parts.push_back(caught);
        });
        for (const auto& layer : piece->layers)
            if (const double* reach = layer.reachAt(thickest->edge); reach && *reach <= 0 && *reach > -row)
                bulk.parts.push_back({piece, &layer, 1, p.material(layer.material).underFoot()});
    }
    for (const auto& part : bulk.parts)
        bulk.underFoot += part.times * part.each;
    bulk.atCrossing = bulk.underFoot;
    return bulk;
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
