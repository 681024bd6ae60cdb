// SPDX-License-Identifier: GPL-3.0-or-later
// How a workshop makes its bags, against what a design chose.
#pragma once

#include "design/design.hpp"

#include <string>
#include <utility>
#include <vector>

namespace tectonis {

/// "assembly=bound, connectors.held=sides": names and values, in order; what is no NAME=VALUE is left out.
std::vector<std::pair<std::string, std::string>> parsedWays(const std::string& text);

/// Choices of the design that its workshop makes otherwise, each with the workshop's way: by the choice's name, or for
/// every part of a kind by "KIND.CHOICE". What the design does not choose is left out.
std::vector<std::pair<std::string, std::string>> otherWays(const Design& design);

} // namespace tectonis
