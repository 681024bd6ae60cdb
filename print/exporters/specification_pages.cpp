// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "specification_pdf.hpp"

namespace tectonis {

std::size_t writeSpecificationPages(const ExportJob& job)
{
    const QByteArray pdf = specificationPdf(job.design, job.patterns, job.paper, job.unit, job.progress);
    if (!pdf.isEmpty())
        writeWhole(job.to, pdf.toStdString());
    return pdf.isEmpty() ? 0 : 1;
}

} // namespace tectonis
