// SPDX-License-Identifier: GPL-3.0-or-later
// Design files of earlier versions, brought up to today's: what they meant stays what they mean.
#pragma once

#include "design/design.hpp"
#include "library/library.hpp"

namespace tectonis {

/// @p design as a file of version @p version holds it becomes a design of today. @p mine: the reader's own library.
void bringUpToDate(Design& design, int version, const Library& mine);

} // namespace tectonis
