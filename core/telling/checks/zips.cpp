// SPDX-License-Identifier: GPL-3.0-or-later
// Zips can be bought in their length, and their tapes reach behind the window's edges.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {

namespace {

/// A ready-made zip that is cut down, or that nobody sells.
void lookAtStock(const Pattern& p, const Zip& zip, Findings& out)
{
    const StockTable* offers = p.library->stock("zip");
    if (!offers)
        return;
    const Repair metre{say("Take it by the metre"), {zip.key.owner().text() + ".sold=metre"}};
    if (zip.chain > offers->values.back() + 0.01)
        out.push_back({Severity::Warning, "zip-stock", "", zip.name, zip.piece, "Fittings",
            say("no ready-made zip is {} long; the longest is {}. Take it by the metre.",
                Len(zip.chain, offers->values.back()), Len(offers->values.back())),
            metre});
    else if (zip.bought > zip.chain + 0.01)
        out.push_back({Severity::Note, "zip-stock", "", zip.name, zip.piece, "Fittings",
            zip.kind == "metal"
                ? say(
                    "a zip of {} is not in stock: one of {} is cut down, its teeth pulled beyond. By the metre nothing "
                    "is cut down.",
                    Len(zip.chain), Len(zip.bought))
                : say("a zip of {} is not in stock: one of {} is cut down and sewn across. By the metre nothing is cut "
                      "down.",
                    Len(zip.chain), Len(zip.bought)),
            metre});
}

} // namespace

void checkZips(const CheckInput& in, Findings& out)
{
    constexpr double least = 4; // mm of tape to sew through beyond the window's edge (common practice, no source)
    for (const auto& zip : in.pattern.zips) {
        const double lap = (zip.tapeWidth - zip.visibleGap) / 2;
        if (lap < least - 0.01)
            out.push_back({Severity::Error, "zip-tape", "", zip.name, zip.piece, "Fittings",
                say("its tape of {} reaches only {} behind each edge of the {} window; {} are needed to be "
                    "caught. Use a wider tape or a lower window.",
                    Len(zip.tapeWidth), Len(lap, least), Len(zip.visibleGap), Len(least)),
                {}});
        if (zip.visibleGap < zip.gauge + 2 - 0.01)
            out.push_back({Severity::Warning, "zip-gap", "", zip.name, zip.piece, "Fittings",
                say("a gap of {} leaves no room for a slider of gauge {}: the cloth will catch in it. Make the "
                    "window at least {} high.",
                    Len(zip.visibleGap), zip.gauge, Len(zip.gauge + 2.0)),
                {}});
        // What hangs behind the zip must be as wide as it opens.
        for (const auto& seam : in.pattern.seams) {
            const auto bag = [&](const std::vector<EdgeUse>& side) {
                const Piece* piece = side.size() == 1 ? in.pattern.piece(side.front().piece) : nullptr;
                return piece && piece->role == "pocket";
            };
            const bool here = seam.stitch == "construction"
                && ((seam.a.size() == 1 && seam.a.front().piece == zip.piece && bag(seam.b)));
            if (here && seam.lengthB < zip.nominal - 0.01)
                out.push_back({Severity::Error, "zip-bag", "", zip.name, zip.piece, "Fittings",
                    say("it opens over {}, but its pocket bag is {} wide: it would gape into the lining. Widen "
                        "the bag or shorten the zip.",
                        Len(zip.nominal, seam.lengthB), Len(seam.lengthB)),
                    {}});
        }
        if (!zip.byTheMetre)
            lookAtStock(in.pattern, zip, out);
    }
}

} // namespace tectonis
