// SPDX-License-Identifier: GPL-3.0-or-later
// What to buy for a run of bags, as a table.
#pragma once

#include "cutting/purchases.hpp"
#include "words/language.hpp"

namespace tectonis {

/// One line for each purchase: what, size, needed, in stock, to buy, the unit, price and money (two decimals), days
/// until it is there. A notion that the library does not price says so.
std::string purchasesCsv(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit = Unit::Mm,
    const Language& language = Language::english());

} // namespace tectonis
