// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"

#include "units/error.hpp"

namespace tectonis {

std::size_t writeSheets(const ExportJob& job);
std::size_t writeBooklet(const ExportJob& job);
std::size_t writePiecesAsSvg(const ExportJob& job);
std::size_t writeCutList(const ExportJob& job);
std::size_t writeMeasures(const ExportJob& job);

const std::vector<Exporter>& exporters()
{
    static const std::vector<Exporter> all{
        {"sheets", label("Sheets, PDF"), ".pdf", label("PDF"), writeSheets},
        {"booklet", label("Booklet, PDF"), ".pdf", label("PDF"), writeBooklet},
        {"pieces", label("Pieces, SVG"), "", {}, writePiecesAsSvg},
        {"cutlist", label("Cut list, text"), ".txt", label("Text"), writeCutList},
        {"measures", label("Measures, JSON"), ".json", label("JSON"), writeMeasures},
    };
    return all;
}

const Exporter& exporterOf(const std::string& id)
{
    std::string known;
    for (const auto& e : exporters()) {
        if (id == e.id)
            return e;
        known += (known.empty() ? "" : ", ") + std::string(e.id);
    }
    throw InputError(id, say("there is no such export; use one of {}", known));
}

} // namespace tectonis
