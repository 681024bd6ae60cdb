// SPDX-License-Identifier: GPL-3.0-or-later
// The specification of every piece: what it is cut from, what lies behind it, what it is sewn to, what is fixed to it,
// in which steps it is handled.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"
#include "words/language.hpp"

namespace tectonis {

/// One line for each piece of each size, as comma-separated values with a heading; lengths in @p unit.
std::string specificationCsv(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit = Unit::Mm,
    const Language& language = Language::english());

} // namespace tectonis
