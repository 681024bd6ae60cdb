// SPDX-License-Identifier: GPL-3.0-or-later
// The cut list as text: what to buy and what to cut, for a hand or a table program.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"
#include "words/language.hpp"

namespace tectonis {

/// Materials with the lengths to buy, pieces and notions of each size as tab-separated text, lengths in @p unit.
std::string cutListText(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit = Unit::Mm,
    const Language& language = Language::english());

} // namespace tectonis
