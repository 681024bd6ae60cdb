// SPDX-License-Identifier: GPL-3.0-or-later
// The user's own library: a file in the user's data folder, over what ships with the program.
#pragma once

#include "library/library_file.hpp"

#include <filesystem>

namespace tectonis {

/// "tectonis/library.json" in $XDG_DATA_HOME, or in ~/.local/share.
std::filesystem::path ownLibraryFile();

/// What that file holds; empty if there is none. @throws InputError if it cannot be read.
Library ownLibrary();

/// Built in, with the user's own over it. @throws InputError as ownLibrary().
Library myLibrary();

/// Adds what @p file holds (JSON or CSV) to the user's own; of the same name the new one stays. Returns what was added.
/// @throws InputError for a file with any problem; the user's own library is unharmed.
ReadLibrary addToOwnLibrary(const std::filesystem::path& file);

/// Keeps the materials and goods of @p library that @c myLibrary() does not know; returns how many.
std::size_t keepInOwnLibrary(const Library& library);

/// Writes the user's own library anew. @throws InputError if it cannot be written.
void writeOwnLibrary(const Library& own);

/// Takes a material or good out of the user's own. @throws InputError if it is not there.
void removeFromOwnLibrary(const std::string& id);

/// Writes a library, by the file's ending: ".csv" the materials, or the goods, as a table, else all as JSON.
void saveLibrary(const Library& library, const std::filesystem::path& file, bool goods = false);

} // namespace tectonis
