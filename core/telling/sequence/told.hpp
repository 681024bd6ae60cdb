// SPDX-License-Identifier: GPL-3.0-or-later
// The words of a step: put together from its acts and the finished pattern, in whole sentences, when somebody reads
// them.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

struct StepWords {
    Message text, stitch, tool, check;
    std::vector<Message> cautions;
    double allowance = 0; ///< mm; 0 where nothing is sewn at an allowance
};

/// What a maker reads at one step.
StepWords told(const Pattern& pattern, const Step& step);

/// Tool, stitch and allowance of a step, as far as it has them.
std::vector<Message> factsOf(const StepWords& words);

} // namespace tectonis
