// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "formats/measure_json.hpp"

namespace tectonis {

std::size_t writeCutList(const ExportJob& job)
{
    writeWhole(job.to, cutListText(job.design, job.patterns, job.unit));
    return 1;
}

} // namespace tectonis
