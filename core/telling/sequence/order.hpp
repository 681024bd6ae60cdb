// SPDX-License-Identifier: GPL-3.0-or-later
// The order of work: the proposed one, the user's, and the graph behind both.
#pragma once

#include "drafting/drafter.hpp"
#include "units/length.hpp"

namespace tectonis {

/// The phases of the work, in order.
const std::vector<std::string>& phases();

/// Sorts the drafted steps by phase, adds the interlining steps in front.
void proposeOrder(Drafter& d);

/// A step that has to come after another because it uses what that one made.
struct Link {
    std::size_t before = 0, after = 0; ///< indices into Pattern::steps
    WorkId part;
};
std::vector<Link> linksOf(const Pattern& pattern);

/// Divides the steps that the designer tells in parts, adds those of the designer's own behind those that they follow,
/// and notes own words, what is hidden and what is told as one.
void addOwnSteps(Drafter& d);

/// Indices of Pattern::steps in the user's order: steps the user's order does not know keep their place after their
/// proposed predecessor; unknown ids are skipped. Wishes that can be kept are kept.
std::vector<std::size_t> orderOf(const Design& design, const Pattern& pattern);

/// The numbers by which the steps of an order are told: steps told as one share theirs; what booklets leave out has
/// none (0).
std::vector<int> numbersOf(const Pattern& pattern, const std::vector<std::size_t>& order);

/// A wish that cannot be kept: from its second step to its first others lead already, each before the next.
struct VainWish {
    Wish wish;
    std::vector<std::size_t> chain; ///< indices into Pattern::steps: the second step first, the first last
    bool byWishes = false;          ///< some of what leads there are wishes too: they go round in a circle
};
std::vector<VainWish> vainWishes(const Design& design, const Pattern& pattern);

} // namespace tectonis
