// SPDX-License-Identifier: GPL-3.0-or-later
// A bag without its lining.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// Of the choice how shell and lining are joined: ways to do without.
std::vector<std::pair<std::string, std::string>> unlinedOptions();

/// Does the design want its body without a lining?
bool unlined(const Drafter& d);

/// Takes the lining out of a body that was drafted with one: its pieces, seams, faces and steps. The mouth is hemmed in
/// their place, folded twice, as deep as its allowance is, or left raw; the shell's raw edges lie open inside. Called
/// when the form has drafted its body and before any part sits on it.
void takeLiningOut(Drafter& d);

} // namespace tectonis
