// SPDX-License-Identifier: GPL-3.0-or-later
// What can be written of a design, for the window and the command line alike. A new one: one file with its function,
// one line in exporters.cpp.
#pragma once

#include "booklet/booklet.hpp"
#include "sheet_pdf.hpp"

#include <filesystem>

namespace tectonis {

struct ExportJob {
    const Design& design;
    const std::vector<const Pattern*>& patterns; ///< of the sizes wanted
    Paper paper;
    Unit unit = Unit::Mm;
    SheetOptions options;
    BookletManner booklet;
    Progress progress;
    std::filesystem::path to; ///< a file, or a folder
};

struct Exporter {
    const char* id;     ///< "sheets", on the command line and in file names
    Label label;        ///< "Sheets, PDF"
    const char* ending; ///< ".pdf"; empty: it writes a folder
    Label kind;         ///< of the file, for dialogs: "PDF"
    /// Returns how many files were written: none if the job's progress stopped it before.
    /// @throws InputError if they cannot be.
    std::size_t (*write)(const ExportJob& job);
};

const std::vector<Exporter>& exporters();

/// @throws InputError that names all for an id that there is not.
const Exporter& exporterOf(const std::string& id);

} // namespace tectonis
