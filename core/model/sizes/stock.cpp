// SPDX-License-Identifier: GPL-3.0-or-later
#include "sizes/stock.hpp"

#include "embedded.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace tectonis {

const std::map<std::string, StockTable>& stockTables()
{
    static const std::map<std::string, StockTable> tables = [] {
        std::map<std::string, StockTable> out;
        const auto data = nlohmann::json::parse(embedded::stock);
        for (const auto& [name, t] : data.items()) {
            const std::string snap = t.at("snap");
            out[name] = {name, t.at("meaning"),
                snap == "down"     ? StockTable::Snap::Down
                    : snap == "up" ? StockTable::Snap::Up
                                   : StockTable::Snap::Nearest,
                t.at("values").get<std::vector<double>>()};
        }
        return out;
    }();
    return tables;
}

double snapToStock(const StockTable& table, double ideal)
{
    const auto& v = table.values;
    constexpr double slack = 1e-6; // an ideal that equals an offer up to rounding is that offer
    const auto above = std::lower_bound(v.begin(), v.end(), ideal - slack);
    if (above == v.end())
        return v.back();
    if (above == v.begin() || std::abs(*above - ideal) <= slack || table.snap == StockTable::Snap::Up)
        return *above;
    const double below = *(above - 1);
    if (table.snap == StockTable::Snap::Down)
        return below;
    return ideal - below < *above - ideal ? below : *above;
}

} // namespace tectonis
