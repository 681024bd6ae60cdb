// SPDX-License-Identifier: GPL-3.0-or-later
// Both runs of every seam agree on the stitch line, but for the stated ease; their allowances are the same.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {
namespace {

constexpr double kTolerance = 0.01; // mm

double allowanceOf(const Pattern& p, const EdgeUse& use)
{
    const Piece* piece = p.piece(use.piece);
    const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
    return edge ? edge->allowance : -1;
}

} // namespace

void checkSeams(const CheckInput& in, Findings& out)
{
    for (const auto& seam : in.pattern.seams) {
        const std::string subject = fmt::format("Seam “{}”", seam.name);
        if (std::abs(seam.difference()) > kTolerance) {
            const bool bLonger = seam.difference() > 0;
            const Piece* a = in.pattern.piece(seam.a.front().piece);
            const Piece* b = in.pattern.piece(seam.b.front().piece);
            out.push_back({Severity::Error, "seam-length", "", subject, seam.key, "Draft",
                fmt::format("{} is {} {} than {} on the stitch line ({} against {}). The seam will pucker. Make both "
                            "runs the same length, or state the ease.",
                    b ? b->name : "one side", in.len(std::abs(seam.difference())), bLonger ? "longer" : "shorter",
                    a ? a->name : "the other", in.len(seam.lengthB), in.len(seam.lengthA)),
                {}});
        }
        if (seam.stitch != "construction" || seam.a.size() != seam.b.size())
            continue;
        for (std::size_t i = 0; i < seam.a.size(); ++i) {
            const double a = allowanceOf(in.pattern, seam.a[i]), b = allowanceOf(in.pattern, seam.b[i]);
            if (a >= 0 && b >= 0 && std::abs(a - b) > kTolerance)
                out.push_back({Severity::Warning, "seam-allowance", "", subject, seam.key, "Draft",
                    fmt::format("the allowances differ: {} on {}, {} on {}. Cut edges will not be level; use the same "
                                "on both or say so in the step.",
                        in.len(a), seam.a[i].piece, in.len(b), seam.b[i].piece),
                    {}});
        }
    }
}

} // namespace tectonis
