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

/// An edit of the part, if it has that choice or dimension and has it otherwise.
struct OtherWay {
    Message label;
    std::string name, value;
    double leaves;
};

/// Where an end of a strap, belt or handle is sewn down.
void lookAtEnd(const CheckInput& in, const StrapEnd& end, Findings& out)
{
    const Pattern& p = in.pattern;
    const double limit = in.design.workshop.machineLimit + 0.001, thick = end.bulk.underFoot, own = thick - end.others;
    if (thick <= limit)
        return;
    const Piece& piece = *p.piece(end.piece);
    const std::string part = piece.owner().text() + ".";
    const auto has = [&](const char* choice, const char* value) {
        const ChoiceSpec* spec = in.spec.choice(part + choice);
        return spec && counts(*spec, in.design.choices)
            && std::any_of(spec->options.begin(), spec->options.end(), [&](const auto& o) { return o.first == value; })
            && in.design.choices.at(part + choice) != value;
    };
    std::vector<OtherWay> ways;
    const bool strap = std::any_of(
        p.straps.begin(), p.straps.end(), [&](const Strap& s) { return s.piece == end.piece && s.turned; });
    if (strap && has("under", "flat"))
        ways.push_back({say("Lay its raw ends flat"), "under", "flat", own * (end.times - 1) / end.times + end.others});
    if (in.design.dimensions.contains(part + "fold") && p.values.contains(part + "fold")
        && p.of(piece.owner(), "fold") > 0 && in.spec.choice(part + "fixed") && end.times == 2)
        ways.push_back({say("Leave its ends raw"), "fold", "0", own / 2 + end.others});
    if (piece.plies == 4 && has("way", "meet"))
        ways.push_back({say("Let its edges meet behind"), "way", "meet", own / 2 + end.others});
    if (const auto webbing = p.materials.find("strap"); webbing != p.materials.end() && has("make", "webbing"))
        ways.push_back({say("Make it of webbing"), "make", "webbing",
            end.times * p.material(webbing->second).underFoot() + end.others});
    std::erase_if(ways, [&](const OtherWay& way) { return way.leaves > thick - 0.005; });
    Finding found{Severity::Error, "bulk", "", end.name, piece.key, "Build-up",
        together(say("{} lie under the foot where it is sewn down; the machine takes {}.", Len(thick, limit),
                     Len(limit - 0.001)),
            say("Hammer it flat, sew it by hand, or fold it less.")),
        {}};
    for (const auto& way : ways) {
        Repair repair{say("{}: {} less", way.label, Len(thick - way.leaves)), {part + way.name + "=" + way.value}};
        if (!found.repair && way.leaves <= limit)
            found.repair = std::move(repair);
        else
            found.others.push_back(std::move(repair));
    }
    if (!found.repair && !found.others.empty())
        found.repair = found.others.front(), found.others.erase(found.others.begin());
    out.push_back(std::move(found));
}

} // namespace

void checkBulk(const CheckInput& in, Findings& out)
{
    const double limit = in.design.workshop.machineLimit + 0.001;
    const auto topstitched = [&](const Seam& seam) {
        return seam.bound.empty() && std::any_of(in.pattern.steps.begin(), in.pattern.steps.end(), [&](const Step& s) {
            return s.kind == StepKind::Topstitch && !s.seams.empty() && s.seams.front() == seam.key;
        });
    };
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
        else if (topstitched(seam))
            if (const Bulk row = bulks.underTopstitch(seam); row.underFoot > limit)
                tell(in, seam, Severity::Warning,
                    say("topstitched, {} lie under the foot; the machine takes {}.", Len(row.underFoot, limit),
                        Len(limit - 0.001)),
                    ThickSpot::Topstitch, out);
    }
    for (const auto& end : strapEnds(in.pattern))
        lookAtEnd(in, end, out);
    tellUndone(in, out);
}

} // namespace tectonis
