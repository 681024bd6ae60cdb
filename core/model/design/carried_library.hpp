// SPDX-License-Identifier: GPL-3.0-or-later
// What a design carries of the library that it was made with, so that it opens anywhere with the same numbers.
#pragma once

#include "design/design.hpp"

namespace tectonis {

/// The part of its library that a design uses: the materials of its roles and layers, without stand-ins, goods that are
/// otherwise than those that ship, and all stock tables.
Library carriedBy(const Design& design);

/// @p mine with what the design carries laid over it. What the design names and neither knows gets a stand-in.
SharedLibrary libraryFor(const Design& design, const Library& mine);

/// A value of something that a design carries and that the library at hand has otherwise.
struct NewerValue {
    Message name;  ///< of the material, good or stock table
    Message field; ///< "Thickness"
    Message was, now;
};
std::vector<NewerValue> newerValues(const Design& design, const Library& mine);

} // namespace tectonis
