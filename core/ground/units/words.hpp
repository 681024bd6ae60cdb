// SPDX-License-Identifier: GPL-3.0-or-later
// Words with lengths in them. The Pattern holds "sew at {10}"; each reader sees them in the unit chosen.
#pragma once

#include "units/length.hpp"

namespace tectonis {

/// "{10}": a length in mm inside words, to be written out by inUnit().
std::string lengthToken(double mm);

/// A name that somebody gave, to stand inside such words as it is.
std::string verbatim(const std::string& name);

/// @p words with every "{number}" written in @p unit with its sign. Other braces stay as they are; "{{" is one.
std::string inUnit(std::string_view words, Unit unit);

/// With a small first letter, for use within a sentence.
std::string lowered(std::string name);

} // namespace tectonis
