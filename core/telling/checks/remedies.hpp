// SPDX-License-Identifier: GPL-3.0-or-later
// What makes a thick seam thinner, in words and as an edit in one stroke.
#pragma once

#include "buildup/bulk.hpp"
#include "checks/finding.hpp"

namespace tectonis {

/// "Press it open", of a seam that is thick at @p spot.
Message nameOf(const Remedy& remedy, ThickSpot spot);
/// "Press it open: 1.2 mm less, 5.4 mm left".
Message inWords(const Remedy& remedy, ThickSpot spot);

/// The edit; of one that is done, the edit that takes it back. Nothing for what cannot be done.
std::optional<Repair> repairOf(const Design& design, const Remedy& remedy, ThickSpot spot);

/// Those before sewing by hand that are enough for the machine only together, in order, as one edit; nothing where one
/// is enough or all are not.
std::optional<Repair> repairTogether(const Design& design, const Pattern& pattern, const Seam& seam,
    const std::vector<Remedy>& remedies, ThickSpot spot);

/// "seam.KEY.care=…".
std::string careAssignment(const std::string& seam, const SeamCare& care);

} // namespace tectonis
