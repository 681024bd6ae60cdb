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
            out.push_back({Severity::Error, "carried", "", naming(thing.name), thing.place, "Brief",
                say("its place “{}” is not part of this bag. Choose another place for it.", thing.place), {},
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
            return Repair{say("Make “{}” {}", Label{dimension->label}, Len(to)),
                {fmt::format("{}={}", dimension->name, to)}, false};
        };
        // What goes into the bag goes through its mouth: the lining's girth there against the thing's.
        if (const Seam* mouth = in.pattern.seam("mouth");
            mouth && !pocket && t.overWidth <= 0.01 && t.overDepth <= 0.01) { // else that is told
            const double girth = 2 * (t.width + t.thickness), open = mouth->lengthB;
            if (girth > open + 0.01)
                out.push_back({Severity::Error, "carried", "", naming(t.name), "mouth", "Brief",
                    say("it measures {} round and does not pass the mouth, which is {} round inside. Widen the "
                        "mouth or leave it out.",
                        Len(girth, open), Len(open)),
                    {}, std::to_string(t.index) + " mouth"});
        }
        const auto report = [&](double over, const Message& what, const DimensionSpec* dimension) {
            if (over > 0.01)
                out.push_back(
                    {Severity::Error, "carried", "", naming(t.name), dimension ? dimension->name : t.place, "Brief",
                        together(what,
                            dimension ? say("It will not go in; enlarge “{}” or leave it out.", Label{dimension->label})
                                      : say("It will not go in; make room for it or leave it out.")),
                        grow(dimension, over), std::to_string(t.index)});
        };
        const Len wide(t.overWidth), tall(t.overHeight), thick(t.overDepth);
        if (pocket) {
            report(t.overWidth,
                say("it is {} too wide for the pocket: a pocket needs the thing's width, its thickness and {}.", wide,
                    Len(pocketEase)),
                own({"width", "length"}));
            report(t.overHeight, say("it is {} too tall for the pocket: it may stand out by {}.", tall, Len(60)),
                own({"height", "depth"}));
            report(t.overDepth, say("it is {} too thick for the pocket behind the things in front of it.", thick),
                own({"depth"}));
        } else {
            report(t.overWidth, say("it is {} too wide for the bag, lining and interlinings counted.", wide),
                own({"width", "frame.width", "thing.width", "side", "radius"}));
            report(t.overHeight,
                say("it is {} too tall for the bag where it stands: round corners, and a zip that lies below the "
                    "mouth, take their room.",
                    tall),
                own({"height", "frame.height", "thing.height", "side", "radius"}));
            report(t.overDepth, say("it is {} too thick for the bag behind the things in front of it.", thick),
                own({"depth", "frame.depth", "thing.thickness", "radius"}));
        }
    }
}

} // namespace tectonis
