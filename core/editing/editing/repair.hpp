// SPDX-License-Identifier: GPL-3.0-or-later
// Mending what a check found.
#pragma once

#include "checks/finding.hpp"

namespace tectonis {

/// Mends a finding as its repair says. A repair found in one size moves the base value so that this size comes right;
/// where another size could not take that, the others keep the values that they have.
/// @throws InputError if the design cannot take it; it stays as it was.
void applyRepair(Design& design, const Finding& finding);

namespace change {
void repair(Design& design, const Finding& finding); ///< the same, not yet validated
}

/// Why a finding's repair would be refused; empty if it would be taken.
Message whyNotMend(const Design& design, const Finding& finding);

} // namespace tectonis
