// SPDX-License-Identifier: GPL-3.0-or-later
// Masses as people write them. Inside the model a mass is always a double in grams.
#pragma once

#include <string_view>

namespace tectonis {

constexpr double gramsPerPound = 453.59237; // exact (NIST SP 811, appendix B)

/// Reads "450", "450 g", "1.2 kg", "3 oz", "2.5 lb", a comma for the point as well; a number without a unit is grams.
/// Nothing is 0. @throws InputError for what is no mass, less than nothing, or not finite.
double parseGrams(std::string_view text);

} // namespace tectonis
