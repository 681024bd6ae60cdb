// SPDX-License-Identifier: GPL-3.0-or-later
// The figure of a step: what lies on what, cut through, and the part that it leaves.
#pragma once

#include "figures/plan.hpp"
#include "figures/section.hpp"
#include "figures/so_far.hpp"

namespace tectonis {

struct StepFigure {
    Scene plan, section, soFar; ///< empty where a step has none
};

/// @param mockup of that pattern; null: nothing is folded. @param order indices into Pattern::steps.
StepFigure figureOf(
    const Pattern& pattern, const Step& step, const Mockup* mockup, const std::vector<std::size_t>& order);

} // namespace tectonis
