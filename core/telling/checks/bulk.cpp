// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at each seam, crossing and topstitched row, against the workshop's machine.
#include "checks/finding.hpp"

#include "buildup/strap_ends.hpp"
#include "checks/remedies.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// What is said of all remedies that help, in order.
Message allOf(const std::vector<Remedy>& remedies, ThickSpot spot)
{
    Message out;
    for (const auto& remedy : remedies)
        if (remedy.useful())
            out = out.empty() ? inWords(remedy, spot) : say("{}; {}", out, within(inWords(remedy, spot)));
    return out.empty() ? out : say("{}.", out);
}

/// The first that is enough by itself is offered at once, or those that are together, or the first to begin with; the
/// others besides.
void tell(const CheckInput& in, const Seam& seam, Severity severity, const Message& what, ThickSpot spot, Findings& out)
{
    const auto remedies = remediesFor(in.pattern, seam, spot);
    Finding found{severity, "bulk", "", say("Seam “{}”", seam.name), seam.key, "Build-up",
        together(what, allOf(remedies, spot)), {}};
    std::optional<Repair> enough;
    std::vector<Repair> ways;
    for (const auto& remedy : remedies)
        if (auto repair = remedy.useful() ? repairOf(in.design, remedy, spot) : std::nullopt) {
            const bool fits = remedy.kind != Remedy::Kind::Hand // the last resort
                && remedy.leaves <= in.design.workshop.machineLimit + 0.001;
            if (fits && !enough)
                enough = std::move(repair);
            else
                ways.push_back(std::move(*repair));
        }
    if (!enough)
        enough = repairTogether(in.design, in.pattern, seam, remedies, spot);
    if (!enough && !ways.empty()) // a beginning
        enough = ways.front(), ways.erase(ways.begin());
    found.repair = std::move(enough), found.others = std::move(ways);
    out.push_back(std::move(found));
}

/// What the design wants done at a seam, and is not.
void tellUndone(const CheckInput& in, Findings& out)
{
    for (const auto& [key, care] : in.design.seamCare)
        if (const Seam* seam = in.pattern.seam(key)) {
            const Message why = care.graded && !seam->care.graded ? whyNotGraded(in.pattern, *seam)
                : care.open && !seam->care.open                   ? whyNotOpened(in.pattern, *seam)
                                                                  : Message();
            if (!why.empty())
                out.push_back({Severity::Note, "seam-care", "", say("Seam “{}”", seam->name), seam->key, "Build-up",
                    care.graded && !seam->care.graded ? say("an allowance was to be graded, and is not: {}", why)
                                                      : say("it was to be pressed open, and is not: {}", why),
                    Repair{say("Leave it so"), {careAssignment(key, seam->care)}}});
        }
}

/// Where an end of a strap, belt or handle is sewn down.
void lookAtEnd(const CheckInput& in, const StrapEnd& end, Findings& out)
{
    const double limit = in.design.workshop.machineLimit + 0.001, thick = end.bulk.underFoot;
    const Piece& piece = *in.pattern.piece(end.piece);
    if (thick <= limit || piece.endsByHand)
        return;
    Finding found{Severity::Error, "bulk", "", end.name, piece.key, "Build-up", {}, {}};
    Message all;
    for (const auto& way : remediesForEnd(in.design, in.spec, in.pattern, end)) {
        if (way.done)
            continue;
        all = all.empty() ? inWords(way) : say("{}; {}", all, within(inWords(way)));
        Repair repair{inWords(way), {way.assignment}};
        if (!found.repair && way.leaves <= limit && !way.byHand)
            found.repair = std::move(repair);
        else
            found.others.push_back(std::move(repair));
    }
    if (!found.repair && !found.others.empty())
        found.repair = found.others.front(), found.others.erase(found.others.begin());
    found.text = together(say("{} lie under the foot where it is sewn down; the machine takes {}.", Len(thick, limit),
                              Len(limit - 0.001)),
        all.empty() ? all : say("{}.", all));
    out.push_back(std::move(found));
}

} // namespace

void checkBulk(const CheckInput& in, Findings& out)
{
    const double limit = in.design.workshop.machineLimit + 0.001;
    Bulks bulks(in.pattern);
    for (const auto& seam : in.pattern.seams) {
        if (seam.care.byHand)
            continue; // where it is too thick it is sewn by hand
        const Bulk bulk = bulks.at(seam);
        if (bulk.underFoot > limit)
            tell(in, seam, Severity::Error,
                say("{} lie under the foot; the machine takes {}.", Len(bulk.underFoot, limit), Len(limit - 0.001)),
                ThickSpot::Row, out);
        else if (bulk.atCrossing > limit)
            tell(in, seam, Severity::Warning,
                say("where “{}” crosses it, {} lie under the foot; the machine takes {}.", bulk.crossing,
                    Len(bulk.atCrossing, limit), Len(limit - 0.001)),
                ThickSpot::Crossing, out);
        else if (bulks.topstitched(seam)) {
            const Bulk row = bulks.underTopstitch(seam);
            if (row.underFoot > limit)
                tell(in, seam, Severity::Warning,
                    say("topstitched, {} lie under the foot; the machine takes {}.", Len(row.underFoot, limit),
                        Len(limit - 0.001)),
                    ThickSpot::Topstitch, out);
            else if (row.atCrossing > limit)
                tell(in, seam, Severity::Warning,
                    say("topstitched where “{}” crosses it, {} lie under the foot; the machine takes {}.", row.crossing,
                        Len(row.atCrossing, limit), Len(limit - 0.001)),
                    ThickSpot::TopstitchCrossing, out);
        }
    }
    for (const auto& end : strapEnds(in.pattern))
        lookAtEnd(in, end, out);
    tellUndone(in, out);
}

} // namespace tectonis
