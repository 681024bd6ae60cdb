// SPDX-License-Identifier: GPL-3.0-or-later
// Joins of strips meet straights of the face, and a zip that goes round a face can pass its corners.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kJoinClear =
    12; // mm between a strip's join and a corner or curve of its mate (common practice, no source)
constexpr double kZipRadius = 20; // mm: the tightest curve that a slider passes (common practice, no source)

/// A curve or corner of a run: from and to, mm along it. A corner has no length.
struct Bend {
    double from, to, radius;
    double turn; ///< radians
};

/// Bends of a run that lies on one piece; nothing if it lies on several.
std::vector<Bend> bendsOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    std::vector<Bend> out;
    double at = 0;
    Point before;
    for (std::size_t i = 0; i < side.size(); ++i) {
        const Run run = p.runOf(side[i]);
        for (std::size_t k = 0; k < run.size(); ++k) {
            const Point starts = tangentOf(run[k], 0);
            if (!(i == 0 && k == 0) && side[i].piece == side[i == 0 ? 0 : i - 1].piece)
                if (const double turn = std::abs(std::atan2(cross(before, starts), dot(before, starts)));
                    turn > radians(15))
                    out.push_back({at, at, 0, turn});
            const double n = lengthOf(run[k]);
            if (const auto* arc = std::get_if<Arc>(&run[k]))
                out.push_back({at, at + n, arc->radius, std::abs(arc->sweep)});
            before = tangentOf(run[k], 1);
            at += n;
        }
    }
    return out;
}

bool isStrip(const Pattern& p, const EdgeUse& use)
{
    const Piece* piece = p.piece(use.piece);
    return piece && piece->role.ends_with("gusset");
}

} // namespace

void checkJoins(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    for (const auto& seam : p.seams) {
        if (seam.stitch != "construction")
            continue;
        for (const bool onA : {true, false}) {
            const auto &strips = onA ? seam.a : seam.b, &mate = onA ? seam.b : seam.a;
            if (strips.empty()
                || !std::all_of(strips.begin(), strips.end(), [&](const EdgeUse& u) { return isStrip(p, u); }))
                continue;
            const auto bends = bendsOf(p, mate);
            const double scale = (onA ? seam.lengthB : seam.lengthA)
                / std::max(1e-9, onA ? seam.lengthA : seam.lengthB),
                         girth = onA ? seam.lengthB : seam.lengthA;
            const Piece* face = p.piece(mate.front().piece);
            const Message mateName = face ? face->name : say("its mate");
            double at = 0;
            for (std::size_t i = 0; i < strips.size(); ++i) {
                const Piece& strip = *p.piece(strips[i].piece);
                const double length = lengthOf(p.runOf(strips[i])) * scale;
                const bool joined = strips[i].piece != strips[i == 0 ? strips.size() - 1 : i - 1].piece
                    || strips[i].copy != strips[i == 0 ? strips.size() - 1 : i - 1].copy;
                const bool ring = strips.size() > 1 && face && p.piece(mate.back().piece) == face
                    && distance(startOf(p.runOf(mate.front())), endOf(p.runOf(mate.back()))) < 0.01;
                if (joined && strips.size() > 1 && (i > 0 || ring))
                    for (const auto& bend : bends) {
                        double off = std::max({bend.from - at, at - bend.to, 0.0});
                        if (ring)
                            off = std::min(off, std::max({bend.from - at - girth, at + girth - bend.to, 0.0}));
                        if (off >= kJoinClear - 0.01)
                            continue;
                        const Piece& before = *p.piece(strips[i == 0 ? strips.size() - 1 : i - 1].piece);
                        out.push_back({Severity::Warning, "join", "",
                            say("Join of {} {} and {} {}, seam “{}”", before.code, before.name, strip.code, strip.name,
                                seam.name),
                            seam.key, "Draft",
                            off > 0 && bend.radius > 0
                                ? say("it meets {} only {} beside a curve; {} are needed so that its allowances lie "
                                      "flat there. Move the join along the outline.",
                                    mateName, Len(off), Len(kJoinClear))
                                : off > 0
                                ? say("it meets {} only {} beside a corner; {} are needed so that its allowances lie "
                                      "flat there. Move the join along the outline.",
                                    mateName, Len(off), Len(kJoinClear))
                                : bend.radius > 0
                                ? say("it meets a curve of radius {}: its allowances cannot be clipped there. "
                                      "Move the join along the outline to a straight.",
                                    Len(bend.radius))
                                : say("it meets a corner, where the strip is clipped and turned. Move the join "
                                      "along the outline to a straight."),
                            {}});
                        break;
                    }
                // A zip along this stretch.
                const bool zipped = std::any_of(
                    p.zips.begin(), p.zips.end(), [&](const Zip& z) { return z.piece == strip.key; });
                for (const auto& bend : bends) {
                    if (!zipped || bend.to < at + 1 || bend.from > at + length - 1)
                        continue;
                    const bool square = bend.radius == 0 && bend.turn > radians(80),
                               tight = bend.radius > 0 && bend.radius < kZipRadius - 0.01;
                    if (!square && !tight)
                        continue;
                    std::optional<Repair> repair;
                    if (in.pattern.values.contains("radius"))
                        repair = Repair{say("Make the corner radius {}", Len(kZipRadius)),
                            {fmt::format("radius={}", kZipRadius)}, false};
                    out.push_back({square ? Severity::Error : Severity::Warning, "zip-corner", "",
                        say("Zip round the {}", mateName), seam.key, "Draft",
                        square ? say("it goes round a corner of {}°, which no slider passes. Round the corner "
                                     "to {} at least, or end the zip before it.",
                            std::lround(degrees(bend.turn)), Len(kZipRadius))
                               : say("it goes round a curve of radius {}; sliders pass {} and more. Make the "
                                     "corner rounder, or end the zip before it.",
                                   Len(bend.radius), Len(kZipRadius)),
                        repair});
                    break;
                }
                at += length;
            }
        }
    }
}

} // namespace tectonis
