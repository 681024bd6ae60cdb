// SPDX-License-Identifier: GPL-3.0-or-later
// How much one design may hold: far above what any bag needs, and low enough that a hostile file costs a message.
#pragma once

#include "design/design.hpp"
#include "words/message.hpp"

namespace tectonis::limits {

constexpr std::size_t sizes = 24, parts = 80, dimensions = 2000, things = 100, layers = 500, trials = 500,
                      revisions = 2000, steps = 5000, ownSteps = 500, wishes = 1000, entries = 2000;
constexpr std::size_t name = 200, text = 20000; ///< bytes
constexpr int formulaChain = 100;               ///< formulas that ask one another
constexpr int nesting = 60;                     ///< of JSON
constexpr double length = 10000;                ///< mm: things carried, trials, seam ends
constexpr double minutes = 100000;
constexpr double grams = 100000;   ///< of a thing carried
constexpr std::size_t goods = 200; ///< that are taken by name
constexpr int bags = 10000;        ///< of one size in a run

} // namespace tectonis::limits

namespace tectonis {

/// A plain value from typed text: between @p least and @p most.
/// @throws InputError with @p place and the range otherwise.
double within(const Message& place, double value, double least, double most, const char* unit = "mm");

/// Everything in a design that drafting does not look at is sound: texts are UTF-8 of bounded length, numbers finite
/// and in their ranges, lists not endless, names of parts and own dimensions usable in formulas. What passes can be
/// saved and read again.
/// @throws InputError with the place and the range.
void requireSound(const Design& design);

} // namespace tectonis
