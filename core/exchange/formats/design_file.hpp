// SPDX-License-Identifier: GPL-3.0-or-later
// The .tectonis file: a Design as JSON with sorted keys, so that two versions compare well.
#pragma once

#include "design/design.hpp"
#include "files/files.hpp"

#include <filesystem>

namespace tectonis {

/// Version written by this program; older versions are read, newer ones refused.
constexpr int designFileVersion = 3;

std::string designText(const Design& design);

/// A design that was read, and what the reader should know of it.
struct ReadDesign {
    Design design;
    std::vector<Message> told; ///< "It lacks “base”; that was given its default, 40 mm."
};

/// Reads a design. Fields this version does not know are kept with what they describe and written again.
/// @throws InputError with @p place and line for text that is no JSON, another format, a newer version, or values that
/// cannot be drafted.
/// What the design carries of a library lies over @p mine; what neither knows gets a stand-in and is told.
ReadDesign readDesign(const std::string& text, const std::string& place, const Library& mine = *Library::builtIn());
/// The same without what there is to tell.
Design designFromText(const std::string& text, const std::string& place);

/// What designText() wrote, without asking whether it holds. Its library is not set.
Design designFromTrusted(const std::string& text);

/// @throws InputError as readDesign, or if the file cannot be read.
Design loadDesign(const std::filesystem::path& file, const Library& mine = *Library::builtIn());

/// Saves whole or not at all, as writeWhole().
/// @throws InputError if it cannot be written; the old file is unharmed.
void saveDesign(const Design& design, const std::filesystem::path& file);

} // namespace tectonis
