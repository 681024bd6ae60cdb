// SPDX-License-Identifier: GPL-3.0-or-later
// What can be bought: zip lengths, ring widths, snap diameters.
#pragma once

#include <map>
#include <string>
#include <vector>

namespace tectonis {

struct StockTable {
    enum class Snap { Down, Up, Nearest };
    std::string name, meaning;
    Snap snap = Snap::Nearest;
    std::vector<double> values; ///< mm, rising
};

/// All tables, from data/stock.json.
const std::map<std::string, StockTable>& stockTables();

/// The offered value for @p ideal: the next below, above or nearest, as the table says; the end value beyond either
/// end.
double snapToStock(const StockTable& table, double ideal);

} // namespace tectonis
