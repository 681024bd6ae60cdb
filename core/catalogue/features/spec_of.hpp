// SPDX-License-Identifier: GPL-3.0-or-later
// What a design has to say by its form and parts, and new designs.
#pragma once

#include "design/spec.hpp"
#include "features/feature.hpp"

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

/// The part on whose face another part sits; empty if it sits on a face of the form, or on none.
std::string hostOf(const Design& design, const std::string& id);

/// Does a part sit on a face of another one, or on a part that does? It sits on itself.
bool sitsOn(const Design& design, std::string id, const std::string& host);

/// The form with the faces of all parts but @p without and what sits on it.
Carrier carrierFor(const Design& design, const std::string& without = {});

/// The parts, those that others sit on before these, and first those that cut a face across. @throws InputError if they
/// go round in a circle.
std::vector<const Feature*> hostsFirst(const Design& design);

} // namespace tectonis
