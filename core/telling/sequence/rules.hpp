// SPDX-License-Identifier: GPL-3.0-or-later
// Rules that an order of work must keep, each with its reason.
#pragma once

#include "pattern/pattern.hpp"

#include <optional>

namespace tectonis {

/// Two steps in the wrong order: @c early is done before @c late and must not be. Indices into Pattern::steps.
struct BrokenRule {
    std::string rule; ///< "interlining first", for tests and headings
    std::size_t early = 0, late = 0;
    Message reason; ///< goes on after "but "
};

/// @param order indices into Pattern::steps, every step once.
std::vector<BrokenRule> brokenRules(const Pattern& pattern, const std::vector<std::size_t>& order);

/// What would be broken that is not broken now if the step that stands at @p from were put before each place of an
/// order, and behind the last: of several the nearest. Nothing where it may go.
std::vector<std::optional<BrokenRule>> movesOf(
    const Pattern& pattern, const std::vector<std::size_t>& order, std::size_t from);

/// All pairs of steps of which some rule wants the first before the second, whatever the order. Indices into
/// Pattern::steps.
std::vector<std::pair<std::size_t, std::size_t>> orderedPairs(const Pattern& pattern);

/// A rule that holds a step before or after another one.
struct Binding {
    std::size_t other = 0; ///< index into Pattern::steps
    bool before = true;    ///< the step comes before the other one; else after it
    Message reason;
};

/// What binds a step where it stands in @p order: of each rule the nearest step that it is about. Indices into
/// Pattern::steps.
std::vector<Binding> bindingsOf(const Pattern& pattern, const std::vector<std::size_t>& order, std::size_t step);

} // namespace tectonis
