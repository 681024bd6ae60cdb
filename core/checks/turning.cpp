// SPDX-License-Identifier: GPL-3.0-or-later
// The turning opening is there, long enough for the largest rigid part, and lies in a straight seam.
#include "checks/finding.hpp"

#include "buildup/material.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {

void checkTurning(const CheckInput& in, Findings& out)
{
    const bool turns = std::any_of(in.pattern.steps.begin(), in.pattern.steps.end(), [](const Step& s) { return s.turnsThrough; });
    if (!turns)
        return;
    const Seam* open = nullptr;
    for (const auto& seam : in.pattern.seams)
        if (seam.open > 0 && seam.key.starts_with("lining."))
            open = &seam;
    if (!open)
        return;
    const Edge* bottom = in.pattern.piece("lining.front")->edge("bottom");
    const double flat = bottom ? bottom->length() : 0;
    if (open->open > flat - 20)
        out.push_back({Severity::Warning, "opening-place", "", "Turning opening", "opening.length", "Sequence",
                       fmt::format("an opening of {} runs into the round corners: the straight bottom is {}. It will be hard to close; shorten it or make the corners smaller.", in.len(open->open), in.len(flat)),
                       {}});
    double rigid = 0;
    std::string part;
    for (const auto& piece : in.pattern.pieces) {
        if (!material(in.pattern.materials.contains(piece.material) ? in.pattern.materials.at(piece.material) : piece.material).rigid)
            continue;
        const Box box = boundsOf(piece.cut);
        if (const double side = std::min(box.width(), box.height()); side > rigid)
            rigid = side, part = piece.name;
    }
    for (const auto& piece : in.pattern.pieces)
        for (const auto& layer : piece.layers)
            if (material(layer.material).rigid) {
                const Box box = boundsOf(layer.outline);
                if (const double side = std::min(box.width(), box.height()); side > rigid)
                    rigid = side, part = layer.code;
            }
    if (rigid > open->open - 5) {
        const double to = std::ceil(rigid + 10);
        out.push_back({Severity::Error, "opening", "", "Turning opening", "opening.length", "Sequence",
                       fmt::format("{} is {} wide and does not pass an opening of {}. Make the opening {} or longer, or put the board in before the lining closes.", part, in.len(rigid), in.len(open->open), in.len(to)),
                       Repair{fmt::format("Make the opening {}", in.len(to)), {fmt::format("opening.length={}", to)}, false}});
    } else if (open->open < 100)
        out.push_back({Severity::Warning, "opening", "", "Turning opening", "opening.length", "Sequence",
                       fmt::format("at {} it is tight for turning a lined bag; 100 to 150 mm are usual.", in.len(open->open)), Repair{"Make the opening 120 mm", {"opening.length=120"}, false}});
}

} // namespace tectonis
