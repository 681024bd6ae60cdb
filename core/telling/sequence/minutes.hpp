// SPDX-License-Identifier: GPL-3.0-or-later
// How long a step takes: rows, curves, pinning, pressing and setting, from its acts.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Minutes of work, worked out when they are read; waiting for glue and paint is not work.
Working minutesOf(const Pattern& pattern, const Step& step);

} // namespace tectonis
