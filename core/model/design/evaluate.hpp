// SPDX-License-Identifier: GPL-3.0-or-later
// The numbers behind a design's dimensions in one size.
#pragma once

#include "design/spec.hpp"
#include "ids/glance.hpp"
#include "words/message.hpp"

#include <unordered_map>

namespace tectonis {

using Values = std::unordered_map<std::string, double, GlanceHash, std::equal_to<>>; ///< by the name of the dimension

/// Every dimension of @p design in size @p size (index), in mm or as a count, each inside its range.
/// @throws InputError naming dimension and size when a formula names nothing or itself, or a value is out of range.
Values evaluate(const Design& design, const DesignSpec& spec, std::size_t size);

/// The same whatever the ranges are. @throws InputError when a formula names nothing or itself.
Values evaluateUnchecked(const Design& design, const DesignSpec& spec, std::size_t size);

/// What a size rule makes of the base size's value, @p steps sizes up (negative: down).
/// @throws InputError if the rule names no stock table.
double grown(const SizeRule& rule, double base, double steps, const Library& library);

/// Allowed range of one dimension, given the other values.
struct Range {
    double min = 0, max = 0;
};
Range rangeOf(const DimensionSpec& spec, const Values& values);

/// Prefix of a dimension's name up to and with the last dot: "flap." for "flap.length", "" for "width".
std::string prefixOf(const std::string& dimension);

/// Letters to change, add or leave out to make one word the other (Levenshtein).
std::size_t lettersApart(const std::string& a, const std::string& b);

/// True if the dimension's text is a formula, not a number.
bool isFormula(const std::string& text);

/// How a dimension came to its value, in words: "240 + 1 step of 20".
struct Derivation {
    Message formula;
    std::vector<std::pair<std::string, double>> inputs;
    double result = 0;
    bool own = true; ///< a value of the user, not a formula
};
Derivation derivationOf(
    const Design& design, const DesignSpec& spec, const Values& values, const std::string& name, std::size_t size);

} // namespace tectonis
