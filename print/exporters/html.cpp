// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "formats/booklet_html.hpp"
#include "languages.hpp"

namespace tectonis {

std::size_t writeHtml(const ExportJob& job)
{
    writeWhole(job.to,
        bookletHtml(bookletOf(job.design, job.patterns, job.unit, readersLanguage(), job.booklet), job.unit,
            readersLanguage()));
    return 1;
}

} // namespace tectonis
