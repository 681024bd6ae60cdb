// SPDX-License-Identifier: GPL-3.0-or-later
// Both runs of every seam agree on the stitch line, but for the stated ease; their allowances are the same.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {
namespace {

constexpr double kTolerance = 0.01; // mm

/// Where the use begins and where it ends; less than nothing for a line on a face.
std::pair<double, double> allowanceOf(const Pattern& p, const EdgeUse& use)
{
    const Piece* piece = p.piece(use.piece);
    const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
    if (!edge)
        return {-1, -1};
    const double first = edge->allowance, last = edge->allowanceAtEnd.value_or(edge->allowance);
    return use.reversed ? std::pair{last, first} : std::pair{first, last};
}

} // namespace

void checkSeams(const CheckInput& in, Findings& out)
{
    for (const auto& seam : in.pattern.seams) {
        const Message subject = say("Seam “{}”", seam.name);
        if (std::abs(seam.difference()) > kTolerance) {
            const bool bLonger = seam.difference() > 0;
            const auto nameOf = [](const Piece* piece) { return piece ? piece->name : say("one side"); };
            const Piece* a = in.pattern.piece(seam.a.front().piece);
            const Piece* b = in.pattern.piece(seam.b.front().piece);
            out.push_back({Severity::Error, "seam-length", "", subject, seam.key, "Draft",
                bLonger ? say("{} is {} longer than {} on the stitch line ({} against {}). The seam will pucker. Make "
                              "both runs the same length, or state the ease.",
                    nameOf(b), Len(seam.difference()), nameOf(a), Len(seam.lengthB), Len(seam.lengthA))
                        : say("{} is {} shorter than {} on the stitch line ({} against {}). The seam will pucker. Make "
                              "both runs the same length, or state the ease.",
                            nameOf(b), Len(-seam.difference()), nameOf(a), Len(seam.lengthB), Len(seam.lengthA)),
                {}});
        }
        if (seam.stitch != "construction" || seam.a.size() != seam.b.size())
            continue;
        for (std::size_t i = 0; i < seam.a.size(); ++i) {
            const auto one = allowanceOf(in.pattern, seam.a[i]), other = allowanceOf(in.pattern, seam.b[i]);
            const bool atBegin = std::abs(one.first - other.first) > kTolerance;
            const double a = atBegin ? one.first : one.second, b = atBegin ? other.first : other.second;
            if (a >= 0 && b >= 0 && std::abs(a - b) > kTolerance)
                out.push_back({Severity::Warning, "seam-allowance", "", subject, seam.key, "Draft",
                    say("the allowances differ: {} on {}, {} on {}. Cut edges will not be level; use the same "
                        "on both or say so in the step.",
                        Len(a), seam.a[i].piece, Len(b), seam.b[i].piece),
                    {}});
        }
    }
}

} // namespace tectonis
