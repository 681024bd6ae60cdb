// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet_pdf.hpp"
#include "exporters/exporter.hpp"
#include "files/files.hpp"

namespace tectonis {

std::size_t writeBooklet(const ExportJob& job)
{
    const QByteArray pdf = bookletPdf(job.design, job.patterns, job.paper, job.unit, job.booklet, job.progress);
    if (!pdf.isEmpty())
        writeWhole(job.to, pdf.toStdString());
    return pdf.isEmpty() ? 0 : 1;
}

} // namespace tectonis
