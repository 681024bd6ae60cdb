// SPDX-License-Identifier: GPL-3.0-or-later
// From a design to its patterns.
#pragma once

#include "features/spec_of.hpp"
#include "mockup/mockup.hpp"
#include "pattern/pattern.hpp"

namespace tectonis {

/// Computes the pattern of @p design in one size: drafts form and features, then cut lines, marks, layers, order of
/// steps. Not folded.
/// @throws InputError as evaluate() does, or if features lack what they need.
Pattern draft(const Design& design, const DesignSpec& spec, std::size_t size);

/// All sizes.
/// @throws InputError as draft().
std::vector<Pattern> draftAll(const Design& design);

/// The bag folded up from a drafted pattern, with what it carries.
Mockup mockupOf(const Design& design, const Pattern& pattern);

} // namespace tectonis
