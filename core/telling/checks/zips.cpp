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

/// An end that is made otherwise than it was chosen, for there is no seam for it, or nothing to see of it.
void lookAtEnds(const CheckInput& in, const Zip& zip, Findings& out)
{
    using Kind = ZipEnd::Kind;
    const std::string part = zip.key.owner().text();
    for (const auto& [choice, end] : {std::pair{".first", &zip.first}, {".tail", &zip.last}}) {
        const auto chosen = in.design.choices.find(part + choice);
        if (chosen == in.design.choices.end() || zipEndOf(chosen->second) == end->kind)
            continue;
        const bool seam = zipEndOf(chosen->second) == Kind::Seam;
        Finding found{Severity::Warning, "zip-ends", "", zip.name, zip.piece, "Fittings",
            seam
                ? say("no side seam can take its end: the zip is put in between bands, or after the sides are sewn, or "
                      "its tail hangs out. The tape is folded away instead.")
                : say(
                    "its end lies between shell and lining, where neither a metal end nor a bar tack can lie. The tape "
                    "is folded away instead; a tail that hangs out can have them."),
            Repair{say("Fold the tape away"), {part + choice + "=folded"}}};
        if (!seam && std::string(choice) == ".tail")
            found.others.push_back({say("Let its tail hang out"), {part + ".past=50"}});
        if (seam && in.design.choices.contains("assembly") && !in.design.choices.at(part + ".held").starts_with("b"))
            found.others.push_back({say("Sew the mouth first, flat"), {"assembly=flat"}});
        out.push_back(std::move(found));
    }
}

/// As it is bought a ready-made zip has so much tape beyond its stops (the same inch as in the tape that replaces it).
void lookAtReach(const Zip& zip, Findings& out)
{
    constexpr double beyond = 25.4;
    const double wants = (zip.tape - zip.nominal) / 2;
    if (zip.byTheMetre || zip.first.kind != ZipEnd::Kind::Seam || zip.chain > zip.nominal + 0.01
        || wants <= beyond + 0.01)
        return;
    out.push_back({Severity::Warning, "zip-ends", "", zip.name, zip.piece, "Fittings",
        say("its tape should reach {} past its stops into the seam; a ready-made zip has {} there. Take it by the "
            "metre, or make the margin smaller.",
            Len(wants, beyond), Len(beyond)),
        Repair{say("Take it by the metre"), {zip.key.owner().text() + ".sold=metre"}}});
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
        lookAtEnds(in, zip, out);
        lookAtReach(zip, out);
        if (!zip.byTheMetre && zip.sliders > 1)
            out.push_back({Severity::Warning, "zip-stock", "", zip.name, zip.piece, "Fittings",
                say("ready-made zips come with one slider. By the metre two can be put on."),
                Repair{say("Take it by the metre"), {zip.key.owner().text() + ".sold=metre"}}});
        if (!zip.byTheMetre)
            lookAtStock(in.pattern, zip, out);
    }
}

} // namespace tectonis
