// SPDX-License-Identifier: GPL-3.0-or-later
// An allowance must hold its row: wide enough for what frays away, for holes that stay, for cloth that is thick.
#include "buildup/allowance.hpp"
#include "checks/finding.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kLeeway = 0.25; // mm: what a hand cuts and sews off its line

/// Of a body's own seams: the dimension of their coat, if that is what lacks.
std::optional<Repair> widened(const CheckInput& in, const Seam& seam, double least)
{
    const Piece* piece = in.pattern.piece(seam.a.front().piece);
    if (!seam.key.owner().empty() || !piece)
        return {};
    const std::string name = piece->coat == Coat::Lining ? "allowance.lining" : "allowance.body";
    const auto value = in.pattern.values.find(name);
    if (value == in.pattern.values.end() || std::abs(value->second - seam.allowance) > 0.01)
        return {};
    const double wide = std::ceil(least * 2) / 2;
    return Repair{say("Allowance {}", Len(wide)), {fmt::format("{}={}", name, wide)}};
}

} // namespace

void checkAllowances(const CheckInput& in, Findings& out)
{
    for (const auto& seam : in.pattern.seams) {
        if (seam.stitch != "construction" || seam.a.empty() || seam.allowance <= 0)
            continue; // a window is slashed, not cut with an allowance
        // Quickly: what lies open wants most, and whether it does is asked only where that is not there.
        double most = 0;
        for (const auto* side : {&seam.a, &seam.b})
            for (const auto& use : *side)
                if (const Piece* piece = in.pattern.piece(use.piece))
                    most = std::max(most, leastAllowance(in.pattern, *piece, use.edge).least);
        if (seam.allowance > most - kLeeway)
            continue;
        const LeastAllowance least = leastAllowance(in.pattern, seam);
        if (seam.allowance > least.least - kLeeway)
            continue;
        out.push_back({Severity::Warning, "allowance", "", say("Seam “{}”", seam.name), seam.key, "Draft",
            say("its allowance of {} is narrow for this cloth: it {}. At least {} holds.", Len(seam.allowance),
                least.why(), Len(least.least)),
            widened(in, seam, least.least)});
    }
}

} // namespace tectonis
