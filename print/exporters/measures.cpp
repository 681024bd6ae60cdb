// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/finding.hpp"
#include "exporters/exporter.hpp"
#include "files/files.hpp"
#include "formats/measure_json.hpp"

namespace tectonis {

std::size_t writeMeasures(const ExportJob& job)
{
    std::vector<Pattern> patterns;
    for (const Pattern* p : job.patterns)
        patterns.push_back(*p);
    writeWhole(job.to, measureJson(job.design, patterns, checkAll(job.design, patterns)));
    return 1;
}

} // namespace tectonis
