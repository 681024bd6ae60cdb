// SPDX-License-Identifier: GPL-3.0-or-later
// Rules that an order of work must keep, each with its reason.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Two steps in the wrong order: @c early is done before @c late and must not be. Indices into Pattern::steps.
struct BrokenRule {
    std::string rule; ///< "interlining first", for tests and headings
    std::size_t early = 0, late = 0;
    Message reason; ///< goes on after "but "
};

/// @param order indices into Pattern::steps, every step once.
std::vector<BrokenRule> brokenRules(const Pattern& pattern, const std::vector<std::size_t>& order);

} // namespace tectonis
