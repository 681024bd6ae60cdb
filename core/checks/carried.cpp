// SPDX-License-Identifier: GPL-3.0-or-later
// The things to carry fit after lining and foam are counted.
#include "checks/carry.hpp"
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {

void checkCarried(const CheckInput& in, Findings& out)
{
    const auto placed = placeCarried(in.design, in.pattern);
    for (std::size_t i = 0; i < in.design.carried.size(); ++i) {
        const Carried& thing = in.design.carried[i];
        const bool hasPlace = std::any_of(in.pattern.spaces.begin(), in.pattern.spaces.end(), [&](const Space& s) { return s.place == thing.place; });
        if (!hasPlace)
            out.push_back({Severity::Error, "carried", "", thing.name, thing.place, "Brief", fmt::format("its place “{}” is not part of this bag. Choose another place for it.", thing.place), {}, std::to_string(i)});
    }
    for (const auto& t : placed) {
        const bool pocket = t.place != "main";
        const auto grow = [&](const std::string& dimension, double by) -> std::optional<Repair> {
            const auto it = in.pattern.values.find(dimension);
            if (it == in.pattern.values.end())
                return {};
            const double to = std::ceil(it->second + by);
            return Repair{fmt::format("Make {} {}", dimension, in.len(to)), {fmt::format("{}={}", dimension, to)}, false};
        };
        const std::string where = pocket ? "the pocket" : "the bag";
        const auto report = [&](double over, const char* direction, const std::string& dimension, const std::string& hint) {
            if (over > 0.01)
                out.push_back({Severity::Error, "carried", "", t.name, dimension, "Brief",
                               fmt::format("it is {} too {} for {}{}. It will not go in; enlarge {} or leave it out.", in.len(over), direction, where, hint, dimension), grow(dimension, over), std::to_string(t.index)});
        };
        report(t.overWidth, "wide", pocket ? t.place + ".width" : "width", pocket ? fmt::format(" (a pocket needs the thing's width, its thickness and {})", in.len(pocketEase)) : ", lining and interlinings counted");
        report(t.overHeight, "tall", pocket ? t.place + ".height" : "height", pocket ? fmt::format(" (it may stand out by {})", in.len(60)) : " where it stands between the round corners");
        report(t.overDepth, "thick", "depth", " behind the things in front of it");
    }
}

} // namespace tectonis
