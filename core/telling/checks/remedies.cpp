// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/remedies.hpp"

#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"
#include "design/seam_care.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

using Way = Remedy::Kind;

constexpr double kInset = 4; // mm inside the stitch line, clear of a row of topstitching (common practice, no source)

bool SeamCare::*flagOf(Way kind)
{
    switch (kind) {
    case Way::Grade: return &SeamCare::graded;
    case Way::Open: return &SeamCare::open;
    case Way::Aside: return &SeamCare::aside;
    case Way::Hammer: return &SeamCare::hammered;
    default: return &SeamCare::byHand;
    }
}

/// The layer ends at the stitch line, or clear of a topstitched row; the others of its rules stay as they are. What is
/// quilted is cut back there once its piece is cut to shape.
std::vector<LayerRule> trimmed(const Design& design, const BulkPart& heaviest, ThickSpot spot)
{
    const bool row = isRow(spot);
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

namespace {

/// By the choices of its part or of the form: one for both ends, or one for each.
std::optional<Repair> zipEndRepair(const Design& design, const Remedy& remedy, const Message& label)
{
    const std::string owner = remedy.zip.owner().text(),
                      to = remedy.end == ZipEnd::Kind::Seam ? "seam"
        : remedy.end == ZipEnd::Kind::Tab                   ? "tab"
                                                            : "folded";
    Repair out{label, {}};
    for (const std::string& name : owner.empty()
            ? std::vector<std::string>{"zip.ends"}
            : std::vector<std::string>{owner + ".ends", owner + ".first", owner + ".tail"})
        if (design.choices.contains(name))
            out.assignments.push_back(name + "=" + to);
    return out.assignments.empty() ? std::nullopt : std::optional(out);
}

} // namespace

std::string careAssignment(const std::string& seam, const SeamCare& care)
{
    return "seam." + seam + ".care=" + careText(care);
}

Message nameOf(const Remedy& remedy, ThickSpot spot)
{
    const bool crossing = spot == ThickSpot::Crossing, both = spot == ThickSpot::TopstitchCrossing;
    switch (remedy.kind) {
    case Way::Trim:
        return remedy.layer.layer ? say("Trim {} out of the allowance", remedy.layer.layer->code)
                                  : say("Trim interlining out of the allowance");
    case Way::Grade:
        return both    ? say("Grade its allowances and what crosses it")
            : crossing ? say("Grade what crosses it")
                       : say("Grade its allowances");
    case Way::Open:
        return both    ? say("Press open the seam and what crosses it")
            : crossing ? say("Press open what crosses it")
                       : say("Press it open");
    case Way::ZipEnd:
        return remedy.end == ZipEnd::Kind::Seam ? say("Run the zip itself into the seam")
            : remedy.end == ZipEnd::Kind::Tab   ? say("Put the zip’s ends under tabs")
                                                : say("Fold the zip’s tape away");
    case Way::Aside: return say("Sew up to the crossing from both sides");
    case Way::Hammer: return say("Hammer it flat");
    case Way::Hand: return say("Sew it by hand where it is too thick");
    }
    return {};
}

Message inWords(const Remedy& remedy, ThickSpot spot)
{
    if (remedy.kind == Way::Hand)
        return nameOf(remedy, spot);
    return say("{}: {} less, {} left", nameOf(remedy, spot), Len(remedy.gain), Len(remedy.leaves));
}

std::optional<Repair> repairOf(const Design& design, const Remedy& remedy, ThickSpot spot)
{
    if (!remedy.whyNot.empty())
        return std::nullopt;
    const Message label = remedy.kind == Way::Hand ? nameOf(remedy, spot)
                                                   : say("{}: {} less", nameOf(remedy, spot), Len(remedy.gain));
    if (remedy.kind == Way::Trim) {
        if (!remedy.layer.layer || remedy.layer.layer->rule < 0)
            return std::nullopt;
        return Repair{label,
            {"layers." + rulesFor(design, *remedy.layer.piece) + "="
                + layersText(trimmed(design, remedy.layer, spot))}};
    }
    if (remedy.kind == Way::ZipEnd)
        return zipEndRepair(design, remedy, label);
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
        const auto repair = remedy.useful() && remedy.kind != Way::Hand ? repairOf(design, remedy, spot) : std::nullopt;
        if (!repair)
            continue;
        if (remedy.kind == Way::Trim) {
            instead.trimmed.insert({remedy.layer.layer->rules, remedy.layer.layer->rule});
            out.assignments = repair->assignments;
        } else if (remedy.kind == Way::ZipEnd) {
            if (!instead.zipEnds.try_emplace(remedy.zip, remedy.end).second)
                continue;
            out.assignments.insert(out.assignments.end(), repair->assignments.begin(), repair->assignments.end());
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

std::vector<EndRemedy> remediesForEnd(
    const Design& design, const DesignSpec& spec, const Pattern& p, const StrapEnd& end)
{
    const Piece& piece = *p.piece(end.piece);
    const std::string part = piece.owner().text() + ".";
    const double thick = end.bulk.underFoot, own = thick - end.others;
    const auto has = [&](const char* choice, const char* value) {
        const ChoiceSpec* known = spec.choice(part + choice);
        return known && counts(*known, design.choices)
            && std::any_of(
                known->options.begin(), known->options.end(), [&](const auto& o) { return o.first == value; })
            && design.choices.at(part + choice) != value;
    };
    std::vector<EndRemedy> out;
    const auto fold = [&](Message label, const std::string& edit, double leaves) {
        if (thick - leaves >= 0.005)
            out.push_back({std::move(label), part + edit, thick - leaves, leaves});
    };
    const auto strap = std::find_if(
        p.straps.begin(), p.straps.end(), [&](const Strap& each) { return each.piece == end.piece; });
    // How often it lies there if so many mm lie there once: raw ends are turned under where the machine takes that.
    const auto times = [&](double once) {
        const auto chosen = design.choices.find(part + "under"); // a belt has none
        if (strap == p.straps.end() || chosen == design.choices.end())
            return end.times;
        const std::string& under = chosen->second;
        return layersAtEnd(strap->worn,
            under == "turned"
                || (under == "fits" && layersAtEnd(strap->worn, true) * once <= p.workshop.machineLimit + 0.001));
    };
    const double hammer = piece.endsHammered ? kHammered : 1, once = own / end.times;
    if (strap != p.straps.end() && strap->turned && has("under", "flat"))
        fold(say("Lay its raw ends flat"), "under=flat", once * (end.times - 1) + end.others);
    if (design.dimensions.contains(part + "fold") && p.values.contains(part + "fold") && p.of(piece.owner(), "fold") > 0
        && spec.choice(part + "fixed") && end.times == 2)
        fold(say("Leave its ends raw"), "fold=0", own / 2 + end.others);
    if (piece.plies == 4 && has("way", "meet"))
        fold(say("Let its edges meet behind"), "way=meet", times(once / hammer / 2) * once / 2 + end.others);
    if (const auto webbing = p.materials.find("strap"); webbing != p.materials.end() && has("make", "webbing")) {
        const double one = p.material(webbing->second).underFoot();
        fold(say("Make it of webbing"), "make=webbing", times(one) * one * hammer + end.others);
    }
    const auto assignment = [&](bool SeamCare::*flag) {
        SeamCare care{.hammered = piece.endsHammered, .byHand = piece.endsByHand};
        care.*flag = !(care.*flag);
        return "end." + piece.key.text() + ".care=" + careText(care);
    };
    double flat = 0; // hammered, or if it is, before that
    for (const auto& under : end.bulk.parts)
        flat += under.times * under.each * (under.layer ? 1 : piece.endsHammered ? 1 / kHammered : kHammered);
    const bool hammered = piece.endsHammered;
    out.push_back({say("Hammer it flat"), assignment(&SeamCare::hammered), std::abs(thick - flat),
        hammered ? thick : flat, hammered});
    out.push_back(
        {say("Sew it by hand where it is too thick"), assignment(&SeamCare::byHand), 0, thick, piece.endsByHand, true});
    return out;
}

Message inWords(const EndRemedy& remedy)
{
    return remedy.byHand ? remedy.label
                         : say("{}: {} less, {} left", remedy.label, Len(remedy.gain), Len(remedy.leaves));
}

} // namespace tectonis
