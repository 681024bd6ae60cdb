// SPDX-License-Identifier: GPL-3.0-or-later
// A run of several bags: steps in batches by where they are done, and what that saves.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// Where a step is done. Going from one place to another takes the workshop's set-up. What needs a machine is done at
/// it, also what is clipped or pressed in between; the first that any act needs counts.
enum class WorkPlace { ZipFoot, Machine, Setting, Adhesive, Iron, Hand };

Label nameOf(WorkPlace place);

WorkPlace placeOf(const Pattern& pattern, const Step& step);

/// Steps of an order that follow one another at one place.
struct Batch {
    WorkPlace place = WorkPlace::Hand;
    std::vector<std::size_t> steps; ///< indices into Pattern::steps
    double minutes = 0;             ///< of work on one bag
};
std::vector<Batch> batchesOf(const Pattern& pattern, const std::vector<std::size_t>& order);

/// An order that breaks no rule and stays at a place as long as it can. Steps of one's own keep behind what they
/// follow, steps told as one stay together where they can.
std::vector<std::size_t> batchedOrder(const Design& design, const Pattern& pattern);

/// Minutes of a run of @c bags, each step done on all of them before the next.
struct BagRun {
    int bags = 1;
    std::vector<Batch> batches;
    double setUp = 0, work = 0, waiting = 0; ///< of all bags; waiting for glue and paint that other bags do not fill
    double bagByBag = 0;                     ///< the same bags made one after the other, all told
    double whole() const { return setUp + work + waiting; }
};
BagRun runOf(const Pattern& pattern, const std::vector<std::size_t>& order, int bags);

} // namespace tectonis
