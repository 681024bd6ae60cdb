// SPDX-License-Identifier: GPL-3.0-or-later
// What makes a thick seam thinner, in words and as an edit in one stroke.
#pragma once

#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
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

/// Something that makes less of a strap's, handle's or belt's end lie under the foot, as an edit.
struct EndRemedy {
    Message label;
    std::string assignment;
    double gain = 0, leaves = 0;       ///< mm less, and what lies there with it
    bool done = false, byHand = false; ///< it is done already, and its edit takes it back; the last resort
};
/// In the order of the trade: raw ends that are not turned under, edges that meet behind, webbing, as far as the part
/// has such a choice and it helps; then hammering, then sewing by hand.
std::vector<EndRemedy> remediesForEnd(
    const Design& design, const DesignSpec& spec, const Pattern& pattern, const StrapEnd& end);
/// "Lay its raw ends flat: 2.2 mm less, 6.6 mm left".
Message inWords(const EndRemedy& remedy);

/// "seam.KEY.care=…".
std::string careAssignment(const std::string& seam, const SeamCare& care);

} // namespace tectonis
