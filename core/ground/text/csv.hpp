// SPDX-License-Identifier: GPL-3.0-or-later
// Tables as comma-separated values (RFC 4180), also as spreadsheets of other countries write them.
#pragma once

#include <string>
#include <vector>

namespace tectonis {

struct CsvCell {
    std::string text;
    std::size_t byte = 0; ///< where it begins in the text
};
using CsvRow = std::vector<CsvCell>;

/// Rows that hold anything. Cells are divided by commas or semicolons (or tabs), whichever the first row has more of
/// outside quotes; in quotes a cell may hold them, line ends, and quotes written twice. A byte-order mark is passed
/// over; lines may end as on any system. Space round a cell's text goes.
/// @throws InputError with line and column for a quote that is not closed or that text follows.
std::vector<CsvRow> csvRows(const std::string& text);

/// One line, quoted where it needs to be, ended by CR LF.
std::string csvLine(const std::vector<std::string>& cells);

} // namespace tectonis
