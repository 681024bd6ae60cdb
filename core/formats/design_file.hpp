// SPDX-License-Identifier: GPL-3.0-or-later
// The .tectonis file: a Design as JSON with sorted keys, so that two versions compare well.
#pragma once

#include "design/design.hpp"

#include <filesystem>

namespace tectonis {

/// Version written by this program; older versions are read, newer ones refused.
constexpr int designFileVersion = 1;

std::string designText(const Design& design);

/// Reads a design. Fields this version does not know are kept and written again.
/// @throws InputError with @p place and line for text that is no JSON, another format, a newer version, or values that cannot be drafted.
Design designFromText(const std::string& text, const std::string& place);

/// @throws InputError as designFromText, or if the file cannot be read.
Design loadDesign(const std::filesystem::path& file);

/// Saves whole or not at all: a new file is written beside the old one and takes its place when it is safely on the disk.
/// @throws InputError if it cannot be written; the old file is unharmed.
void saveDesign(const Design& design, const std::filesystem::path& file);

/// As saveDesign, for any bytes.
void writeWhole(const std::filesystem::path& file, const std::string& bytes);
std::string readWhole(const std::filesystem::path& file);

} // namespace tectonis
