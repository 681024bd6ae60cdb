// SPDX-License-Identifier: GPL-3.0-or-later
// The turning opening is there, long enough for the largest rigid part, and lies in a straight seam.
#include "checks/finding.hpp"

#include "library/library.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kEnds = 10;          // mm of a straight seam that are sewn beside an opening
constexpr double kLeastOpening = 100; // mm: what is usual for turning a lined bag (common practice, no source)

} // namespace

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
    if (open->open > flat - 2 * kEnds + 0.01 && !(curved && flat == 0)) {
        std::optional<Repair> repair;
        if (const double most = std::floor(flat - 2 * kEnds); most >= kLeastOpening)
            repair = Repair{say("Make the opening {}", Len(most)), {fmt::format("opening.length={}", most)}, false};
        else if (const auto radius = in.pattern.values.find("radius"); radius != in.pattern.values.end())
            if (const double r = std::floor(radius->second - (kLeastOpening + 2 * kEnds - flat) / 2); r > 0) {
                const DimensionSpec* own = in.spec.dimension("radius"); // each mm less is two of straight seam
                repair = Repair{say("Make “{}” {}", Label{own ? own->label : "radius"}, Len(r)),
                    {fmt::format("radius={}", r), fmt::format("opening.length={}", kLeastOpening)}, false};
            }
        out.push_back({Severity::Warning, "opening-place", "", say("Turning opening"), "opening.length", "Sequence",
            say("an opening of {} runs into the round corners: the straight of the seam is {}, of which {} are sewn "
                "at each end. It will be hard to close; shorten it or make the corners smaller.",
                Len(open->open), Len(flat), Len(kEnds)),
            repair});
    }
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
    } else if (open->open < kLeastOpening - 0.01)
        out.push_back({Severity::Warning, "opening", "", say("Turning opening"), "opening.length", "Sequence",
            say("at {} it is tight for turning a lined bag; {} to {} are usual.", Len(open->open), Len(kLeastOpening),
                Len(150)),
            longer(120)});
}

} // namespace tectonis
