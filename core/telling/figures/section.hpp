// SPDX-License-Identifier: GPL-3.0-or-later
// What a step leaves, cut through: how allowances lie, where a row runs, how a strap is folded, what a rivet holds.
#pragma once

#include "figures/scene.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// Empty where no act of the step has anything to cut through.
Scene sectionOf(const Pattern& pattern, const Step& step);

} // namespace tectonis
