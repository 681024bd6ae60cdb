// SPDX-License-Identifier: GPL-3.0-or-later
// Lengths as people write them. Inside the model a length is always a double in millimetres.
#pragma once

#include <string>
#include <string_view>

namespace tectonis {

constexpr double mmPerInch = 25.4; // exact by definition (international inch, 1959)

enum class Unit { Mm, Cm, Inch };

/// Reads a length and returns millimetres. Accepts "240", "24 cm", "9 1/2in", "3/8\"", "9½ in", "1-1/2 in", "12,5 mm".
/// A number without a unit is taken in @p bare.
/// @throws InputError when the text is no length, not finite, or has an unknown unit.
double parseLength(std::string_view text, Unit bare = Unit::Mm);

/// Writes @p mm in @p unit with its unit sign: "240 mm", "24 cm", "9 7/16 in".
/// mm and cm keep up to two and three decimals without trailing zeros; inches are rounded to the nearest 1/16.
std::string formatLength(double mm, Unit unit);

/// As formatLength, without the unit sign.
std::string formatLengthBare(double mm, Unit unit);

/// A plain number with at most @p decimals decimals, trailing zeros removed, never "-0".
std::string formatNumber(double value, int decimals = 2);

/// "mm", "cm" or "in".
std::string_view unitSign(Unit unit);

/// The unit of that sign. @throws InputError for any other.
Unit unitOf(std::string_view sign);

} // namespace tectonis
