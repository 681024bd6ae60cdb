// SPDX-License-Identifier: GPL-3.0-or-later
// The things to carry fit after lining and foam are counted.
#include "checks/finding.hpp"
#include "mockup/carry.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {

void checkCarried(const CheckInput& in, Findings& out)
{
    const auto placed = placeCarried(in.design, in.pattern);
    for (std::size_t i = 0; i < in.design.carried.size(); ++i) {
        const Carried& thing = in.design.carried[i];
        const bool hasPlace = std::any_of(
            in.pattern.spaces.begin(), in.pattern.spaces.end(), [&](const Space& s) { return s.place == thing.place; });
        if (!hasPlace)
            out.push_back({Severity::Error, "carried", "", thing.name, thing.place, "Brief",
                fmt::format("its place “{}” is not part of this bag. Choose another place for it.", thing.place), {},
                std::to_string(i)});
    }
    for (const auto& t : placed) {
        const bool pocket = t.place != "main";
        // Of the names that such a measure has in one form or part or another, the one that this design has.
        const auto own = [&](std::initializer_list<const char*> names) -> const DimensionSpec* {
            for (const char* name : names)
                if (const DimensionSpec* spec = in.spec.dimension((pocket ? t.place + "." : std::string()) + name))
                    return spec;
            return nullptr;
        };
        const auto grow = [&](const DimensionSpec* dimension, double by) -> std::optional<Repair> {
            if (!dimension)
                return {};
            const double to = std::ceil(in.pattern.values.at(dimension->name) + by);
            return Repair{fmt::format("Make “{}” {}", dimension->label, in.len(to)),
                {fmt::format("{}={}", dimension->name, to)}, false};
        };
        // What goes into the bag goes through its mouth: the lining's girth there against the thing's.
        if (const Seam* mouth = in.pattern.seam("mouth");
            mouth && !pocket && t.overWidth <= 0.01 && t.overDepth <= 0.01) { // else that is told
            const double girth = 2 * (t.width + t.thickness), open = mouth->lengthB;
            if (girth > open + 0.01)
                out.push_back({Severity::Error, "carried", "", t.name, "mouth", "Brief",
                    fmt::format("it measures {} round and does not pass the mouth, which is {} round inside. Widen the "
                                "mouth or leave it out.",
                        in.len(girth, open), in.len(open)),
                    {}, std::to_string(t.index) + " mouth"});
        }
        const std::string where = pocket ? "the pocket" : "the bag";
        const auto report = [&](double over, const char* direction, const DimensionSpec* dimension,
                                const std::string& hint) {
            if (over > 0.01)
                out.push_back({Severity::Error, "carried", "", t.name, dimension ? dimension->name : t.place, "Brief",
                    fmt::format("it is {} too {} for {}{}. It will not go in; enlarge {} or leave it out.",
                        in.len(over), direction, where, hint, dimension ? "“" + dimension->label + "”" : where),
                    grow(dimension, over), std::to_string(t.index)});
        };
        report(t.overWidth, "wide",
            pocket ? own({"width", "length"}) : own({"width", "frame.width", "thing.width", "side", "radius"}),
            pocket ? fmt::format(" (a pocket needs the thing's width, its thickness and {})", in.len(pocketEase))
                   : ", lining and interlinings counted");
        report(t.overHeight, "tall",
            pocket ? own({"height", "depth"}) : own({"height", "frame.height", "thing.height", "side", "radius"}),
            pocket ? fmt::format(" (it may stand out by {})", in.len(60))
                   : " where it stands between the round corners");
        report(t.overDepth, "thick", own({"depth", "frame.depth", "thing.thickness", "radius"}),
            " behind the things in front of it");
    }
}

} // namespace tectonis
