// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at each seam and crossing, against the workshop's machine.
#include "checks/finding.hpp"

#include "buildup/layers.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {

void checkBulk(const CheckInput& in, Findings& out)
{
    const double limit = in.design.workshop.machineLimit;
    const auto topstitched = [&](const Seam& seam) {
        return std::any_of(in.pattern.steps.begin(), in.pattern.steps.end(), [&](const Step& s) {
            return s.kind == StepKind::Topstitch && !s.seams.empty() && s.seams.front() == seam.key
                && seam.bound.empty();
        });
    };
    for (const auto& seam : in.pattern.seams) {
        const Bulk bulk = bulkAt(in.pattern, seam);
        const std::string remedy = bulk.heaviest.empty()
            ? "Grade the allowances, press seams open, or sew this place by hand."
            : fmt::format("Trim {} out of the allowance first; then grade, press open, or sew by hand.", bulk.heaviest);
        const std::string subject = fmt::format("Seam “{}”", seam.name);
        if (bulk.underFoot > limit + 0.001)
            out.push_back({Severity::Error, "bulk", "", subject, seam.key, "Build-up",
                fmt::format("{} lie under the foot; the machine takes {}. {}", in.len(bulk.underFoot, limit),
                    in.len(limit), remedy),
                {}});
        else if (bulk.atCrossing > limit + 0.001)
            out.push_back({Severity::Warning, "bulk", "", subject, seam.key, "Build-up",
                fmt::format("where “{}” crosses it, {} lie under the foot; the machine takes {}. {}", bulk.crossing,
                    in.len(bulk.atCrossing, limit), in.len(limit), remedy),
                {}});
        else if (topstitched(seam))
            if (const Bulk row = bulkUnderTopstitch(in.pattern, seam); row.underFoot > limit)
                out.push_back({Severity::Warning, "bulk", "", subject, seam.key, "Build-up",
                    fmt::format("topstitched, {} lie under the foot; the machine takes {}. Let the interlining end "
                                "further in, or leave the row out.",
                        in.len(row.underFoot), in.len(limit)),
                    {}});
    }
}

} // namespace tectonis
