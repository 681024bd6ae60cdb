// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "formats/purchase_sheet.hpp"
#include "languages.hpp"

namespace tectonis {

std::size_t writePurchases(const ExportJob& job)
{
    writeWhole(job.to, purchasesCsv(job.design, job.patterns, job.unit, readersLanguage()));
    return 1;
}

} // namespace tectonis
