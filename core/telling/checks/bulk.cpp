// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at each seam and crossing, against the workshop's machine.
#include "checks/finding.hpp"

#include "buildup/layers.hpp"
#include "buildup/proposal.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {

namespace {

/// The layer ends at the stitch line; the others of its rules stay as they are. What is quilted is cut back there once
/// its piece is cut to shape.
std::optional<Repair> trimmed(const Design& design, const BulkPart& heaviest)
{
    if (!heaviest.layer || heaviest.layer->rule < 0)
        return std::nullopt;
    std::vector<LayerRule> layers;
    for (const LayerRule* rule : layerRulesFor(design, *heaviest.piece))
        layers.push_back(*rule);
    LayerRule& rule = layers[std::size_t(heaviest.layer->rule)];
    const auto reaches = [](const std::string& trim) { return trim == "full" || trim.starts_with("past"); };
    if (reaches(rule.trim))
        rule.trim = "stitch";
    std::erase_if(rule.edges, [&](const auto& edge) { return reaches(edge.second); });
    if (heaviest.layer->quilted > 0)
        for (const auto& edge : heaviest.piece->edges)
            rule.edges.try_emplace(edge.name.text(), "stitch");
    return Repair{say("Trim {} to the stitch line", heaviest.layer->code),
        {"layers." + rulesFor(design, *heaviest.piece) + "=" + layersText(layers)}};
}

} // namespace

void checkBulk(const CheckInput& in, Findings& out)
{
    const double limit = in.design.workshop.machineLimit;
    const auto topstitched = [&](const Seam& seam) {
        return std::any_of(in.pattern.steps.begin(), in.pattern.steps.end(), [&](const Step& s) {
            return s.kind == StepKind::Topstitch && !s.seams.empty() && s.seams.front() == seam.key
                && seam.bound.empty();
        });
    };
    Bulks bulks(in.pattern);
    for (const auto& seam : in.pattern.seams) {
        const Bulk bulk = bulks.at(seam);
        const auto remedy = [&] {
            return !bulk.heaviest.layer
                ? say("Grade the allowances, press seams open, or sew this place by hand.")
                : say("Trim {} out of the allowance first: {} less; then grade, press open, or sew by hand.",
                    bulk.heaviest.layer->code, Len(bulk.heaviest.times * bulk.heaviest.each));
        };
        const auto subject = [&] { return say("Seam “{}”", seam.name); };
        if (bulk.underFoot > limit + 0.001)
            out.push_back({Severity::Error, "bulk", "", subject(), seam.key, "Build-up",
                together(say("{} lie under the foot; the machine takes {}.", Len(bulk.underFoot, limit), Len(limit)),
                    remedy()),
                trimmed(in.design, bulk.heaviest)});
        else if (bulk.atCrossing > limit + 0.001)
            out.push_back({Severity::Warning, "bulk", "", subject(), seam.key, "Build-up",
                together(say("where “{}” crosses it, {} lie under the foot; the machine takes {}.", bulk.crossing,
                             Len(bulk.atCrossing, limit), Len(limit)),
                    remedy()),
                trimmed(in.design, bulk.heaviest)});
        else if (topstitched(seam))
            if (const Bulk row = bulkUnderTopstitch(in.pattern, seam); row.underFoot > limit)
                out.push_back({Severity::Warning, "bulk", "", subject(), seam.key, "Build-up",
                    say("topstitched, {} lie under the foot; the machine takes {}. Let the interlining end "
                        "further in, or leave the row out.",
                        Len(row.underFoot), Len(limit)),
                    {}});
    }
}

} // namespace tectonis
