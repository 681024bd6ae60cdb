// SPDX-License-Identifier: GPL-3.0-or-later
// Bags of pockets hang free: no seam that is sewn later catches their raw edges.
#include "buildup/pocket_bags.hpp"
#include "checks/finding.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <cmath>
#include <map>

namespace tectonis {
namespace {

using BagWay = CaughtBag::Way;

/// Makes it narrower, shorter, or moves it aside, so far that it ends 1 mm inside the stitch lines.
std::optional<Repair> freed(const CheckInput& in, const PartId& part, const std::map<BagWay, const CaughtBag*>& worst)
{
    const auto by = [&](BagWay way) {
        const auto at = worst.find(way);
        return at == worst.end() ? 0 : std::ceil((at->second->by + 1) * 10) / 10;
    };
    const double left = by(BagWay::Left), right = by(BagWay::Right), below = by(BagWay::Below),
                 above = by(BagWay::Above);
    std::vector<std::string> set;
    Message label;
    const auto value = [&](const char* name) -> const double* {
        const auto at = in.pattern.values.find(part.text() + "." + name);
        return at == in.pattern.values.end() ? nullptr : &at->second;
    };
    const auto change = [&](const char* name, double to, const Message& says) {
        set.push_back(fmt::format("{}.{}={:.1f}", part.text(), name, to));
        label = label.empty() ? says : together(label, says);
    };
    if (const double sides = std::max(left, right); sides > 0) {
        constexpr double least = 8; // mm of a window's bag beyond its ends (its margin's range)
        const double *width = value("width"), *margin = value("margin"), *across = value("across");
        if (width && !margin)
            change("width", *width - 2 * sides, say("Make the bag {} wide", Len(*width - 2 * sides)));
        else if (margin && *margin - sides >= least)
            change("margin", *margin - sides, say("Let the bag reach {} past the window", Len(*margin - sides)));
        else if (across && (left == 0 || right == 0))
            change("across", *across + left - right, say("Move it {} towards the middle", Len(sides)));
        else
            return {};
    }
    const double* depth = value("depth");
    if (below > 0 && depth)
        change("depth", *depth - below, say("Make it {} deep", Len(*depth - below)));
    const double* drop = value("drop");
    if (above > 0 && drop)
        change("drop", *drop + above, say("Set it {} lower", Len(above)));
    return set.empty() ? std::nullopt : std::optional(Repair{std::move(label), std::move(set)});
}

} // namespace

void checkPocketBags(const CheckInput& in, Findings& out)
{
    const auto all = caughtBags(in.pattern);
    std::map<const PocketBag*, std::map<BagWay, const CaughtBag*>> worst; // of each bag, where
    for (const auto& caught : all)
        if (auto& at = worst[caught.bag][caught.way]; !at || caught.by > at->by)
            at = &caught;
    int number = 0;
    for (const auto& bag : in.pattern.bags) {
        ++number;
        const auto ways = worst.find(&bag);
        if (ways == worst.end())
            continue;
        const CaughtBag* most = nullptr;
        for (const auto& [way, caught] : ways->second)
            if (!most || caught->by > most->by)
                most = caught;
        Finding found{Severity::Warning, "pocket-bag", "", partLabel(in.pattern, bag.part), SubjectId(bag.face),
            "Fittings",
            say("its bag reaches {} past the stitch line of the seam “{}”: sewn in there it no longer hangs free, the "
                "pocket pulls at the face and the seam gets thicker. It should end inside that line.",
                Len(most->by), most->seam->name),
            freed(in, bag.part, ways->second)};
        found.about = std::to_string(number);
        out.push_back(std::move(found));
    }
}

} // namespace tectonis
