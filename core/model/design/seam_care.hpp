// SPDX-License-Identifier: GPL-3.0-or-later
// What is done at a seam because it is thick, as text.
#pragma once

#include "design/design.hpp"

namespace tectonis {

/// "graded open", "none": the words graded, open, aside, hammered and hand, as far as they are set.
std::string careText(const SeamCare& care);
/// The same read again; words between spaces or commas. @throws InputError for any other word.
SeamCare parseCare(const std::string& text);

} // namespace tectonis
