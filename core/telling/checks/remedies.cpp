// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/remedies.hpp"

#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"
#include "design/seam_care.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

using Kind = Remedy::Kind;

constexpr double kInset = 4; // mm inside the stitch line, clear of a row of topstitching (common practice, no source)

bool SeamCare::*flagOf(Kind kind)
{
    switch (kind) {
    case Kind::Grade: return &SeamCare::graded;
    case Kind::Open: return &SeamCare::open;
    case Kind::Aside: return &SeamCare::aside;
    case Kind::Hammer: return &SeamCare::hammered;
    default: return &SeamCare::byHand;
    }
}

/// The layer ends at the stitch line, or clear of a topstitched row; the others of its rules stay as they are. What is
/// quilted is cut back there once its piece is cut to shape.
std::vector<LayerRule> trimmed(const Design& design, const BulkPart& heaviest, ThickSpot spot)
{
    const bool row = spot == ThickSpot::Topstitch;
    const std::string to = row ? "inset " + std::to_string(int(kInset)) : "stitch";
    std::vector<LayerRule> layers;
    for (const LayerRule* rule : layerRulesFor(design, *heaviest.piece))
        layers.push_back(*rule);
    LayerRule& rule = layers[std::size_t(heaviest.layer->rule)];
    const auto reaches = [&](const std::string& trim) {
        return trim == "full" || trim.starts_with("past") || (row && trim == "stitch");
    };
    if (reaches(rule.trim))
        rule.trim = to;
    std::erase_if(rule.edges, [&](const auto& edge) { return reaches(edge.second); });
    if (heaviest.layer->quilted > 0)
        for (const auto& edge : heaviest.piece->edges)
            rule.edges.try_emplace(edge.name.text(), to);
    return layers;
}

} // namespace

std::string careAssignment(const std::string& seam, const SeamCare& care)
{
    return "seam." + seam + ".care=" + careText(care);
}

Message nameOf(const Remedy& remedy, ThickSpot spot)
{
    const bool crossing = spot == ThickSpot::Crossing;
    switch (remedy.kind) {
    case Kind::Trim:
        return remedy.layer.layer ? say("Trim {} out of the allowance", remedy.layer.layer->code)
                                  : say("Trim interlining out of the allowance");
    case Kind::Grade: return crossing ? say("Grade what crosses it") : say("Grade its allowances");
    case Kind::Open: return crossing ? say("Press open what crosses it") : say("Press it open");
    case Kind::Aside: return say("Sew up to the crossing from both sides");
    case Kind::Hammer: return say("Hammer it flat");
    case Kind::Hand: return say("Sew it by hand where it is too thick");
    }
    return {};
}

Message inWords(const Remedy& remedy, ThickSpot spot)
{
    if (remedy.kind == Kind::Hand)
        return nameOf(remedy, spot);
    return say("{}: {} less, {} left", nameOf(remedy, spot), Len(remedy.gain), Len(remedy.leaves));
}

std::optional<Repair> repairOf(const Design& design, const Remedy& remedy, ThickSpot spot)
{
    if (!remedy.whyNot.empty())
        return std::nullopt;
    const Message label = remedy.kind == Kind::Hand ? nameOf(remedy, spot)
                                                    : say("{}: {} less", nameOf(remedy, spot), Len(remedy.gain));
    if (remedy.kind == Kind::Trim) {
        if (!remedy.layer.layer || remedy.layer.layer->rule < 0)
            return std::nullopt;
        return Repair{label,
            {"layers." + rulesFor(design, *remedy.layer.piece) + "="
                + layersText(trimmed(design, remedy.layer, spot))}};
    }
    Repair out{label, {}};
    for (const auto& key : remedy.seams) {
        const auto own = design.seamCare.find(key.text());
        SeamCare care = own == design.seamCare.end() ? SeamCare{} : own->second;
        care.*flagOf(remedy.kind) = !remedy.done;
        out.assignments.push_back(careAssignment(key.text(), care));
    }
    return out;
}

std::optional<Repair> repairTogether(
    const Design& design, const Pattern& p, const Seam& seam, const std::vector<Remedy>& remedies, ThickSpot spot)
{
    const double now = thickAt(p, seam, spot), limit = p.workshop.machineLimit + 0.001;
    Instead instead;
    std::map<SeamId, SeamCare> care;
    Repair out;
    int taken = 0;
    for (const auto& remedy : remedies) {
        const auto repair = remedy.useful() && remedy.kind != Kind::Hand ? repairOf(design, remedy, spot)
                                                                         : std::nullopt;
        if (!repair)
            continue;
        if (remedy.kind == Kind::Trim) {
            instead.trimmed.insert({remedy.layer.layer->rules, remedy.layer.layer->rule});
            out.assignments = repair->assignments;
        } else
            for (const auto& key : remedy.seams) {
                instead.care.try_emplace(key, p.seam(key)->care).first->second.*flagOf(remedy.kind) = true;
                const auto own = design.seamCare.find(key.text());
                care.try_emplace(key, own == design.seamCare.end() ? SeamCare{} : own->second).first->second
                    .*flagOf(remedy.kind) = true;
            }
        const Message name = nameOf(remedy, spot);
        out.label = ++taken == 1 ? name : say("{}, {}", out.label, within(name));
        const double left = thickAt(p, seam, spot, instead);
        if (left > limit)
            continue;
        if (taken < 2)
            return std::nullopt;
        for (const auto& [key, what] : care)
            out.assignments.push_back(careAssignment(key.text(), what));
        out.label = say("{}: {} less", out.label, Len(now - left));
        return out;
    }
    return std::nullopt;
}

} // namespace tectonis
