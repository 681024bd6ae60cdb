// SPDX-License-Identifier: GPL-3.0-or-later
// Snap halves meet, and keep clear of stitch lines and pockets.
#include "checks/finding.hpp"

#include "features/spec_of.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {

namespace {

Label sideOf(const std::string& site)
{
    for (const Label& side : {label("front"), label("back"), label("left"), label("right")})
        if (side.source == site)
            return side;
    return {site};
}

} // namespace

void checkSnaps(const CheckInput& in, Findings& out)
{
    const auto& v = in.pattern.values;
    for (const auto& snap : in.design.features) {
        if (snap.kind != "snap" || !hostOf(in.design, snap.id).empty()) // a pocket's own flap comes down over it
            continue;
        const std::string& site = in.design.choices.at(snap.id + ".site");
        bool elsewhere = false, any = false;
        for (const auto& flap : in.design.features)
            if (flap.kind == "flap")
                any = true, elsewhere |= in.design.choices.at(flap.id + ".site") != site;
        if (any && !elsewhere) {
            std::optional<Repair> repair;
            const std::string opposite = site == "front" ? "back"
                : site == "back"                         ? "front"
                : site == "left"                         ? "right"
                                                         : "left";
            if (const ChoiceSpec* choice = in.spec.choice(snap.id + ".site"); choice
                && std::any_of(
                    choice->options.begin(), choice->options.end(), [&](const auto& o) { return o.first == opposite; }))
                repair = Repair{
                    say("Put it on the {}", sideOf(opposite)), {fmt::format("{}.site={}", snap.id, opposite)}, false};
            out.push_back({Severity::Error, "snap", "", say("Snap {}", snap.id), snap.id + ".site", "Fittings",
                say("it sits on the {}, from which its flap hangs: the flap comes down on the other side, so "
                    "the halves never meet. Put it there.",
                    sideOf(site)),
                repair});
        }
    }
    for (const auto& f : in.pattern.fittings) {
        if (f.kind != Fitting::Kind::Snap)
            continue;
        const Piece* piece = in.pattern.piece(f.piece);
        if (!piece)
            continue;
        const std::string& feature = f.owner().text();
        const Polyline stitch = flattened(piece->stitch(), 0.05);
        const double away = distanceTo(stitch, f.at);
        const bool inside = insideOutline(stitch, f.at);
        // Moving the drop moves both halves: the flap's towards its edge, the front's away from the mouth.
        const auto it = v.find(feature + ".drop");
        std::optional<Repair> repair;
        const double lacking = f.clearance - (inside ? away : -away);
        if (it != v.end() && lacking > 0) {
            double to = it->second - lacking;
            for (const auto& handle : in.pattern.handles)
                if (handle.dimension == feature + ".drop" && handle.piece == f.piece
                    && distanceTo(stitch, f.at + handle.direction * lacking) > away)
                    to = it->second + lacking; // away from the mouth lies more room
            if (to > 0)
                repair = Repair{say("Set the snap drop to {}", Len(std::round(to * 10) / 10)),
                    {fmt::format("{}.drop={}", feature, std::round(to * 10) / 10)}, false};
        }
        if (!inside)
            out.push_back({Severity::Error, "snap", "", f.name, feature + ".drop", "Fittings",
                say("it falls outside {} {} by {}. The halves cannot meet; lengthen the flap or set the snap "
                    "nearer to the mouth.",
                    piece->code, piece->name, Len(away)),
                repair});
        else if (away < f.clearance - 0.01)
            out.push_back({Severity::Error, "snap", "", f.name, feature + ".drop", "Fittings",
                say("its centre is {} from the stitch line of {} {}; {} are needed so that the foot passes. "
                    "Move it or lengthen the flap.",
                    Len(away, f.clearance), piece->code, piece->name, Len(f.clearance)),
                repair});
        for (const auto& line : piece->lines)
            if (line.kind == FaceLine::Kind::Placement
                && distanceTo(flattened(line.run, 0.05), f.at) < f.clearance - 0.01)
                out.push_back({Severity::Warning, "snap", "", f.name, feature + ".drop", "Fittings",
                    say("it lies on the edge of {}. The foot hits it; move one of them.",
                        edgeLabel(in.pattern, line.name)),
                    {}});
    }
}

} // namespace tectonis
