// SPDX-License-Identifier: GPL-3.0-or-later
// The part that a step leaves, folded as it will be in the bag.
#pragma once

#include "figures/scene.hpp"
#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

#include <map>
#include <set>

namespace tectonis {

/// What lies on the table when the first @p steps of the order are done: each part that is still to be used, or left in
/// the end, with its pieces.
std::map<WorkId, std::set<PieceId>> tableAfter(
    const Pattern& pattern, const std::vector<std::size_t>& order, std::size_t steps);

/// A part as it is: folded if it is more than one piece and the mock-up has it, else its pieces beside each other.
Scene pictureOf(const Pattern& pattern, const Mockup& mockup, const std::set<PieceId>& pieces);

/// Pieces that have become one part when @p step is done, in the order given. @param order indices into Pattern::steps.
std::set<PieceId> joinedBy(const Pattern& pattern, const std::vector<std::size_t>& order, const StepId& step);

/// Those pieces seen in space; empty where the mock-up has none of them or they are a single one.
Scene soFar(const Pattern& pattern, const Mockup& mockup, const std::set<PieceId>& pieces);

} // namespace tectonis
