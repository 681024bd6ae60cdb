// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"
#include "formats/svg.hpp"

namespace tectonis {

std::size_t writePiecesAsSvg(const ExportJob& job)
{
    return writePieces(job.patterns, job.design.name, job.to, job.progress);
}

} // namespace tectonis
