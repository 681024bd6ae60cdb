// SPDX-License-Identifier: GPL-3.0-or-later
// Libraries as files: JSON whole, or the materials alone, or the goods alone, as a table (CSV).
#pragma once

#include "library/library.hpp"
#include "words/message.hpp"

namespace tectonis {

constexpr int libraryFileVersion = 1;

struct ReadLibrary {
    Library library;
    std::vector<Message> told; ///< columns that were passed over
};

/// Reads either kind, told apart by what it begins with. Lengths may have a unit ("1/32 in"), weights too ("10 oz" is
/// oz/yd², else g/m²), decimals a comma; what a thing lacks has the defaults of Material and Good, a missing id is made
/// from the name.
/// @throws InputError that lists every problem with line and column; nothing is taken then.
ReadLibrary readLibrary(const std::string& text, const std::string& place);

std::string libraryText(const Library& library);
/// The materials, one a line.
std::string libraryCsv(const Library& library);
/// Zips, hardware and threads, one a line.
std::string goodsCsv(const Library& library);

} // namespace tectonis
