// SPDX-License-Identifier: GPL-3.0-or-later
// The words of a step: put together from its acts and the finished pattern, in whole sentences, when somebody reads
// them.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

struct StepWords {
    Message text, stitch, tool, check;
    Message seamClass; ///< "1, superimposed": class of ISO 4916 of the seam that is sewn; empty if none is
    Message terse;     ///< the text for the practised: what is done, without how
    std::vector<Message> cautions;
    std::vector<Message> tools; ///< what @c tool names, one by one
    double allowance = 0;       ///< mm; 0 where nothing is sewn at an allowance
    int needle = 0;             ///< number of the needle; 0 where nothing is sewn
    double drying = 0;          ///< minutes until what it leaves may be handled
    bool own = false;           ///< the text is the designer's; what follows from the acts is @c derived
    bool outdated = false;      ///< and follows otherwise by now than when it was written
    Message derived{};
};

/// What a maker reads at one step.
StepWords told(const Pattern& pattern, const Step& step);

/// Tool, stitch, allowance and drying of a step, as far as it has them.
std::vector<Message> factsOf(const StepWords& words);

} // namespace tectonis
