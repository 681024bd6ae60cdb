// SPDX-License-Identifier: GPL-3.0-or-later
// What a design has to say by its form and parts, and new designs.
#pragma once

#include "design/spec.hpp"

namespace tectonis {

/// Kept per thread for every combination of form and features met: asking again is cheap, and the reference stays good.
/// @throws InputError if the form or a feature is unknown.
const DesignSpec& specOf(const Design& design);

/// A design of @p form with every default, in sizes S, M and L.
/// @throws InputError if the form is unknown.
Design newDesign(const std::string& form);

/// Gives every dimension, choice and material role that the design lacks its default: after adding a feature, or from a
/// file of an earlier version. Returns the names of the dimensions and choices that were given one.
/// @throws InputError if a dimension is lacking while another of nearly that name asks for nothing: a misspelt name.
std::vector<std::string> fillIn(Design& design);

} // namespace tectonis
