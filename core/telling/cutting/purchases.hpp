// SPDX-License-Identifier: GPL-3.0-or-later
// What to buy for a run of bags: cloth, notions and thread, less what is in stock, in packs as they are sold.
#pragma once

#include "cutting/cut_list.hpp"
#include "design/design.hpp"

namespace tectonis {

struct Purchase {
    enum class Unit { Metres, Pieces, Spools, Grams };
    MaterialId cloth{};         ///< empty for a notion
    Ware ware = Ware::Thread;   ///< of a notion
    std::string entry;          ///< id in the library that it is priced by; empty: the library has none
    Message what, size, finish; ///< what it is called; width of cloth, size of a notion
    Unit unit = Unit::Pieces;
    double needed = 0;                      ///< for the whole run, cloth with what washing takes
    double stock = 0;                       ///< on hand
    double pack = 1;                        ///< as it is sold
    double buy = 0;                         ///< what lacks, rounded up to whole packs; 0 if the stock suffices
    double price = 0;                       ///< money per unit
    double cost = 0;                        ///< of what is bought
    double lead = 0;                        ///< days until it is there
    std::map<std::string, double> bySize{}; ///< needed for the bags of each size
};

/// How many bags of each size are made: the design's run, or one bag of the base size where it says nothing.
std::map<std::string, int> bagsOf(const Design& design);

/// Of the sizes of @p patterns; where the run has none of them, one bag of each. Cloth: as its lays take it
/// (laysFor()); what the bags of a size need is their share of that, by the markers of single bags.
std::vector<Purchase> purchasesFor(const Design& design, const std::vector<const Pattern*>& patterns);

/// What else of the library could be taken instead of a purchase, the nearest first, and what changes.
struct Substitute {
    std::string entry; ///< its id
    Message what;
    std::vector<Message> changes; ///< "0.2 mm thicker", "no iron", "money 3.10 more"
    bool inDesign = false;        ///< it can be taken by naming it in the design: a cloth, a thing of the same measures
};
std::vector<Substitute> substitutesFor(const Pattern& pattern, const Purchase& purchase);

} // namespace tectonis
