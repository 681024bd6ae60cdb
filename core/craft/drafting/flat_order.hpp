// SPDX-License-Identifier: GPL-3.0-or-later
// The order of a bag whose mouth is sewn and understitched while all lies flat, before its sides.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// Of the choice how shell and lining are joined: the mouth first, for machines without a free arm.
std::pair<std::string, std::string> flatOrderOption();

/// Does the design want its mouth sewn flat?
bool mouthFirst(const Drafter& d);

/// Orders a body of two walls anew that was drafted to be bagged out: each wall is sewn to its lining along the seam
/// "mouth", then the sides and bottoms of both coats; what was the shell's and the lining's becomes one thing,
/// "halves", then "shell", then "bag". Called when the form has drafted its body and before any part sits on it.
void sewMouthFlat(Drafter& d);

/// A step that joins both walls before their linings lie on them (a zip between them) puts its result in their place.
void bridgeWalls(Drafter& d, Step step);

} // namespace tectonis
