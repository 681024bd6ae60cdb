// SPDX-License-Identifier: GPL-3.0-or-later
// Which presser foot an act is sewn with: one-sided beside a chain, a cord or a magnet, one that takes both layers
// along for quilting, one that does not stick on vinyl and leather (common practice, no source).
#pragma once

#include "library/library.hpp"
#include "pattern/act.hpp"

namespace tectonis {

/// @param sticks Does cloth that is sewn drag under bare metal? See Material::sticks.
PresserFoot footOf(const Act& act, bool sticks, const Workshop& workshop);

/// As a tool is told: "zip foot".
Message nameOf(PresserFoot foot);

} // namespace tectonis
