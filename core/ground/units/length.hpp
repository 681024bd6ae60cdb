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

/// Writes @p mm in @p unit with its unit sign, to what a maker can set: "240 mm", "24.1 cm", "9 7/16 in".
/// From 20 mm up to half a millimetre, a millimetre in cm; below that, and where it is a whole number of eighths of an
/// inch (25.4), to a tenth; below 1 mm to a hundredth. Inches to 1/16, with "≈" before them if that changed them by
/// more than 0.1 mm; below 1/16 in thousandths. The one place where shown lengths are rounded.
std::string formatLength(double mm, Unit unit);

/// As formatLength, without the unit sign.
std::string formatLengthBare(double mm, Unit unit);

/// The same to a hundredth of a millimetre, for workings, reports and fields that are being edited; inches that are no
/// sixteenths in decimals.
std::string exactLength(double mm, Unit unit);
std::string exactLengthBare(double mm, Unit unit);

/// A plain number with at most @p decimals decimals, trailing zeros removed, never "-0".
std::string formatNumber(double value, int decimals = 2);

/// "mm", "cm" or "in".
std::string_view unitSign(Unit unit);

/// The unit of that sign. @throws InputError for any other.
Unit unitOf(std::string_view sign);

} // namespace tectonis
