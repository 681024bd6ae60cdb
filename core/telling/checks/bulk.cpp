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
    Bulks bulks(in.pattern);
    for (const auto& seam : in.pattern.seams) {
        const Bulk bulk = bulks.at(seam);
        const auto remedy = [&] {
            return bulk.heaviest.empty()
                ? say("Grade the allowances, press seams open, or sew this place by hand.")
                : say("Trim {} out of the allowance first; then grade, press open, or sew by hand.", bulk.heaviest);
        };
        const auto subject = [&] { return say("Seam “{}”", seam.name); };
        if (bulk.underFoot > limit + 0.001)
            out.push_back({Severity::Error, "bulk", "", subject(), seam.key, "Build-up",
                together(say("{} lie under the foot; the machine takes {}.", Len(bulk.underFoot, limit), Len(limit)),
                    remedy()),
                {}});
        else if (bulk.atCrossing > limit + 0.001)
            out.push_back({Severity::Warning, "bulk", "", subject(), seam.key, "Build-up",
                together(say("where “{}” crosses it, {} lie under the foot; the machine takes {}.", bulk.crossing,
                             Len(bulk.atCrossing, limit), Len(limit)),
                    remedy()),
                {}});
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
