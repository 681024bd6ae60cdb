// SPDX-License-Identifier: GPL-3.0-or-later
// What acts are called: in files, and as the title of a step that was divided.
#pragma once

#include "pattern/act.hpp"

#include <optional>

namespace tectonis {

/// As design files write it: "topstitch".
const char* wordOf(Act::Verb verb);
/// None for a word that no act is called by.
std::optional<Act::Verb> verbOf(const std::string& word);
/// For readers: "Topstitch".
Label titleOf(Act::Verb verb);

} // namespace tectonis
