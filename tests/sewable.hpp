// SPDX-License-Identifier: GPL-3.0-or-later
// What every bag must stand, and what is counted of it.
#pragma once

#include "cutting/cut_list.hpp"
#include "editing/draft.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <catch2/catch.hpp>

/// In every size the proposed order breaks no rule, and the dry run ends with one bag.
inline void requireSewable(const tectonis::Design& d)
{
    for (const auto& p : tectonis::draftAll(d)) {
        INFO(d.form << ", size " << p.size);
        const auto order = tectonis::orderOf(d, p);
        CHECK(tectonis::brokenRules(p, order).empty());
        CHECK(tectonis::dryRun(p, order).back().parts == std::vector<tectonis::WorkId>{"bag"});
    }
}

inline int boughtOf(const tectonis::Pattern& p, tectonis::Ware ware)
{
    int out = 0;
    for (const auto& h : tectonis::notionsOf(p))
        out += h.kind == ware ? h.count : 0;
    return out;
}
