// SPDX-License-Identifier: GPL-3.0-or-later
// The data files that ship inside the program (written by core/CMakeLists.txt from data/).
#pragma once

#include <string_view>

namespace tectonis::embedded {

extern const std::string_view library;

} // namespace tectonis::embedded
