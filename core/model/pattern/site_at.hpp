// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "pattern/pattern.hpp"

#include <optional>

namespace tectonis {

/// The face that a piece is; of a piece that is several that in which @p on lies, or the nearest. Null if it is none.
const Site* siteAt(const Pattern& pattern, const PieceId& piece, const std::optional<Point>& on = {});

} // namespace tectonis
