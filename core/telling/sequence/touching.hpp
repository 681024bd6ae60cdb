// SPDX-License-Identifier: GPL-3.0-or-later
// Does the order of two steps on one flat piece matter?
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Two steps that take up @p part and leave it: false only if each lays, stitches or sets something of its own onto the
/// flat piece, and their places are known and lie apart, so that either may be done first.
bool touch(const Pattern& pattern, const Step& first, const Step& second, const WorkId& part);

} // namespace tectonis
