// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "formats/cost_sheet.hpp"
#include "languages.hpp"

namespace tectonis {

std::size_t writeCost(const ExportJob& job)
{
    writeWhole(job.to, costCsv(job.design, job.patterns, job.unit, readersLanguage()));
    return 1;
}

} // namespace tectonis
