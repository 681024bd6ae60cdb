// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"

namespace tectonis {

std::size_t writeSheets(const ExportJob& job)
{
    const QByteArray pdf = sheetPdf(job.design, job.patterns, job.paper, job.unit, job.progress, job.options);
    if (!pdf.isEmpty())
        writeWhole(job.to, pdf.toStdString());
    return pdf.isEmpty() ? 0 : 1;
}

} // namespace tectonis
