// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/specification.hpp"
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "languages.hpp"

namespace tectonis {

std::size_t writeSpecification(const ExportJob& job)
{
    writeWhole(job.to, specificationCsv(job.design, job.patterns, job.unit, readersLanguage()));
    return 1;
}

} // namespace tectonis
