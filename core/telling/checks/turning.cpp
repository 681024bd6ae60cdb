// SPDX-License-Identifier: GPL-3.0-or-later
// The turning opening is there, long enough for the largest rigid part, and lies in a straight seam.
#include "checks/finding.hpp"

#include "library/library.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {

void checkTurning(const CheckInput& in, Findings& out)
{
    const bool turns = std::any_of(
        in.pattern.steps.begin(), in.pattern.steps.end(), [](const Step& s) { return s.turnsThrough; });
    if (!turns)
        return;
    const Seam* open = nullptr;
    for (const auto& seam : in.pattern.seams)
        if (seam.open > 0 && std::any_of(in.pattern.steps.begin(), in.pattern.steps.end(), [&](const Step& s) {
                return s.kind == StepKind::CloseOpening
                    && std::find(s.seams.begin(), s.seams.end(), seam.key) != s.seams.end();
            }))
            open = &seam;
    if (!open)
        return;
    // The longest straight edge of the seam; a seam that is round all over opens where it likes.
    double flat = 0;
    bool curved = false;
    for (const auto& use : open->a)
        if (const Run* run = in.pattern.runBehind(use)) {
            const bool straight = run->size() == 1 && std::holds_alternative<Line>(run->front());
            curved |= !straight;
            flat = straight ? std::max(flat, lengthOf(*run)) : flat;
        }
    if (open->open > flat - 20 + 0.01 && !(curved && flat == 0))
        out.push_back({Severity::Warning, "opening-place", "", say("Turning opening"), "opening.length", "Sequence",
            say("an opening of {} runs into the round corners: the straight of the seam is {}. It will be hard "
                "to close; shorten it or make the corners smaller.",
                Len(open->open), Len(flat)),
            {}});
    // What can be offered lies inside the opening's own range.
    const DimensionSpec* spec = in.spec.dimension("opening.length");
    const double most = spec ? rangeOf(*spec, in.pattern.values).max : 0;
    const auto longer = [&](double to) -> std::optional<Repair> {
        to = std::min(to, std::floor(most));
        if (to <= open->open)
            return {};
        return Repair{say("Make the opening {}", Len(to)), {fmt::format("opening.length={}", to)}, false};
    };
    double rigid = 0;
    Message part;
    for (const auto& piece : in.pattern.pieces) {
        if (!in.pattern
                 .material(in.pattern.materials.contains(piece.material) ? in.pattern.materials.at(piece.material)
                                                                         : piece.material)
                 .rigid)
            continue;
        const Box box = boundsOf(piece.cut);
        if (const double side = std::min(box.width(), box.height()); side > rigid)
            rigid = side, part = piece.name;
    }
    for (const auto& piece : in.pattern.pieces)
        for (const auto& layer : piece.layers)
            if (in.pattern.material(layer.material).rigid) {
                const Box box = boundsOf(layer.outline);
                if (const double side = std::min(box.width(), box.height()); side > rigid)
                    rigid = side, part = naming(layer.code);
            }
    if (rigid > open->open - 5 + 0.01) {
        const double to = std::ceil(rigid + 10);
        out.push_back({Severity::Error, "opening", "", say("Turning opening"), "opening.length", "Sequence",
            say("{} is {} wide and does not pass an opening of {}. Make the opening {} or longer, or put the "
                "board in before the lining closes.",
                part, Len(rigid), Len(open->open), Len(to)),
            to <= most ? longer(to) : std::nullopt});
    } else if (open->open < 100 - 0.01)
        out.push_back({Severity::Warning, "opening", "", say("Turning opening"), "opening.length", "Sequence",
            say("at {} it is tight for turning a lined bag; {} to {} are usual.", Len(open->open), Len(100), Len(150)),
            longer(120)});
}

} // namespace tectonis
