// SPDX-License-Identifier: GPL-3.0-or-later
#include "exporters/exporter.hpp"

#include "units/error.hpp"

namespace tectonis {

// Id, what it is called, ending and kind of its file, and what writes it. In the order in which they are offered.
#define TECTONIS_EXPORTERS(EXPORTER)                                                                                   \
    EXPORTER("sheets", label("Sheets, PDF"), ".pdf", label("PDF"), writeSheets)                                        \
    EXPORTER("booklet", label("Booklet, PDF"), ".pdf", label("PDF"), writeBooklet)                                     \
    EXPORTER("html", label("Booklet for a tablet, HTML"), ".html", label("HTML"), writeHtml)                           \
    EXPORTER("pieces", label("Pieces, SVG"), "", {}, writePiecesAsSvg)                                                 \
    EXPORTER("figures", label("Figures of the steps, SVG"), "", {}, writeFigures)                                      \
    EXPORTER("cutlist", label("Cut list, text"), ".txt", label("Text"), writeCutList)                                  \
    EXPORTER("specification-pages", label("Specification, PDF"), ".pdf", label("PDF"), writeSpecificationPages)        \
    EXPORTER("specification", label("Specification, CSV"), ".csv", label("CSV"), writeSpecification)                   \
    EXPORTER("cost", label("Cost, CSV"), ".csv", label("CSV"), writeCost)                                              \
    EXPORTER("purchases", label("What to buy, CSV"), ".csv", label("CSV"), writePurchases)                             \
    EXPORTER("measures", label("Measures, JSON"), ".json", label("JSON"), writeMeasures)

#define DECLARED(id, label, ending, kind, write) std::size_t write(const ExportJob& job);
TECTONIS_EXPORTERS(DECLARED)
#undef DECLARED

const std::vector<Exporter>& exporters()
{
#define LISTED(id, label, ending, kind, write) {id, label, ending, kind, write},
    static const std::vector<Exporter> all{TECTONIS_EXPORTERS(LISTED)};
#undef LISTED
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
