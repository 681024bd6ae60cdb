// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "formats/scene_svg.hpp"
#include "languages.hpp"

namespace tectonis {

std::size_t writeFigures(const ExportJob& job)
{
    return writeFigures(job.design, job.patterns, job.to, job.unit, readersLanguage(), job.progress);
}

} // namespace tectonis
