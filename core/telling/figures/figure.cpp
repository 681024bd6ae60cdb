// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/figure.hpp"

namespace tectonis {

StepFigure figureOf(
    const Pattern& pattern, const Step& step, const Mockup* mockup, const std::vector<std::size_t>& order)
{
    StepFigure out{planOf(pattern, step), sectionOf(pattern, step), {}};
    if (mockup && step.kind != StepKind::Interline)
        out.soFar = soFar(pattern, *mockup, joinedBy(pattern, order, step.id));
    // What is only pressed, rolled or topstitched is shown where it is in the bag.
    if (const Act* act = leadingAct(step); act && !out.soFar.empty() && !movesPieces(*act))
        std::swap(out.plan, out.soFar), out.soFar = {};
    return out;
}

} // namespace tectonis
