// SPDX-License-Identifier: GPL-3.0-or-later
// What a bag costs in each size, as a table.
#pragma once

#include "cutting/cost.hpp"
#include "words/language.hpp"

namespace tectonis {

/// One line for each cloth, notion and kind of work, and their sum, size by size: what, how many, of what measure, by
/// which entry of the library it is priced, and the money (two decimals). A notion that the library does not price says
/// so.
std::string costCsv(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit = Unit::Mm,
    const Language& language = Language::english());

} // namespace tectonis
