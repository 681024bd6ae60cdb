// SPDX-License-Identifier: GPL-3.0-or-later
// How a run of bags is cut: dozens at a time, all sizes from one length of cloth.
#pragma once

#include "cutting/cut_list.hpp"

namespace tectonis {

/// Lengths of cloth that are cut alike.
struct Lay {
    std::vector<Bags> bags;
    int times = 1;
    std::vector<Marker> markers; ///< one for each material, for the bags of one such lay
};

/// The run divided as evenly as it goes into lays of at most @p most bags (what a cutting table takes; common practice,
/// no source). Sizes without bags are left out. No marker is longer than those of single bags one after the other.
std::vector<Lay> laysFor(const std::vector<Bags>& run, int most = 24);

/// Of one material: mm of cloth that all lays take, as it is before washing.
double lengthFor(const std::vector<Lay>& lays, const MaterialId& material);

} // namespace tectonis
