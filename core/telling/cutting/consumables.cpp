// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/consumables.hpp"

#include "buildup/layers.hpp"
#include "sequence/minutes.hpp"
#include "sequence/told.hpp"

#include <map>

namespace tectonis {
namespace {

constexpr double kNeedle = 8 * 60;       // minutes of sewing
constexpr double kAdhesive = 2 * 150e-6; // g/mm², on both sides
constexpr double kPaint = 2 * 0.3 * 1.1; // g for each metre of an edge and each mm of its thickness

/// mm² that are glued: layers as their fixing says, pieces by their acts, what is wrapped over a rim by its turn-in.
double gluedArea(const Pattern& p)
{
    double area = 0;
    for (const auto& piece : p.pieces)
        for (const auto& layer : piece.layers)
            area += layer.fixing == "glued" ? piece.count * areaOf(layer.outline) : 0;
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (const Piece* piece = act.pieces.empty() ? nullptr : p.piece(act.pieces.front()))
                area += act.verb == Act::Verb::Glue   ? piece->count * areaOf(piece->stitch())
                    : act.verb == Act::Verb::WrapOver ? piece->count * (areaOf(piece->cut) - areaOf(piece->stitch()))
                                                      : 0;
    return area;
}

/// Metres of painted edges by their thickness in mm: raw edges are cut where they end.
double paintedEdge(const Pattern& p)
{
    double sum = 0;
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == Act::Verb::Paint)
                if (const Piece* piece = p.piece(act.pieces.front()))
                    for (const auto& edge : piece->edges)
                        if (edge.allowance < 0.01) // two layers, as its lining is cut by the same outline
                            sum += edge.length() / 1000 * 2 * thicknessOf(p, *piece);
    return sum;
}

} // namespace

std::vector<Consumable> consumablesOf(const Pattern& p)
{
    std::vector<Consumable> out;
    std::map<int, double> needles; // minutes by number
    for (const auto& step : p.steps)
        if (const int number = told(p, step).needle; number > 0)
            needles[number] += minutesOf(p, step).result;
    for (const auto& [number, minutes] : needles)
        out.push_back({Ware::Needle, number / 100.0, say("number {}", number), minutes / kNeedle});
    if (const double glued = gluedArea(p); glued > 0)
        out.push_back({Ware::Adhesive, 0, {}, glued * kAdhesive});
    if (const double painted = paintedEdge(p); painted > 0)
        out.push_back({Ware::EdgePaint, 0, {}, painted * kPaint});
    return out;
}

} // namespace tectonis
