// SPDX-License-Identifier: GPL-3.0-or-later
// "tectonis-measure": every number of the pattern as one JSON object. The shape is a promise; see docs/measure.md.
#pragma once

#include "checks/finding.hpp"
#include "units/words.hpp"

namespace tectonis {

constexpr int measureVersion = 1;

/// @param patterns the sizes to report.
std::string measureJson(const Design& design, const std::vector<Pattern>& patterns, const Findings& findings);
std::string findingsJson(const Findings& findings);
/// Forms with their dimensions, ranges, defaults and choices.
std::string formsJson();

} // namespace tectonis
