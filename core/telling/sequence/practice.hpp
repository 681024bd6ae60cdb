// SPDX-License-Identifier: GPL-3.0-or-later
// Tasks to practise the order of work on, made from the bag in hand and judged by its own rules.
#pragma once

#include "sequence/rules.hpp"

#include <optional>
#include <random>

namespace tectonis {

/// An order in which one step stands where it must not.
struct PlantedMistake {
    std::vector<std::size_t> order; ///< indices into Pattern::steps
    BrokenRule broken;              ///< what is wrong; either of its steps answers the task
    std::size_t moved = 0;          ///< the step that stands wrong; whatever else is broken is about it
};

/// Moves one step of a sound order so that it breaks a rule. The rules that can be broken have equal chances,
/// but for those in @p lately, which come only where there is no other. None where no move breaks any.
std::optional<PlantedMistake> plantMistake(const Pattern& pattern, const std::vector<std::size_t>& order,
    std::mt19937& random, const std::vector<std::string>& lately = {});

/// Names of all rules that one move can break in this order.
std::vector<std::string> mistakesFor(const Pattern& pattern, const std::vector<std::size_t>& order);

/// @p count neighbours of an order in another order, in which at least one rule is broken; none if there is no such.
struct Shuffled {
    std::vector<std::size_t> order; ///< of all steps
    std::size_t from = 0, count = 0;
};
std::optional<Shuffled> shuffle(
    const Pattern& pattern, const std::vector<std::size_t>& order, std::size_t count, std::mt19937& random);

} // namespace tectonis
