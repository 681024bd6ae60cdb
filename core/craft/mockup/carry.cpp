// SPDX-License-Identifier: GPL-3.0-or-later
#include "mockup/carry.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

double cornerRise(double thing, double space, double r)
{
    const double over = thing / 2 - (space / 2 - r); // how far the thing's corner reaches into the round
    if (over <= 0 || r <= 0)
        return 0;
    if (over >= r)
        return r;
    return r - std::sqrt(r * r - over * over);
}

double depthAt(double thing, double width, double depth, double r)
{
    return depth - 2 * cornerRise(thing, width, r); // the same round corner, seen from above
}

namespace {

/// Where a pocket is on the bag: its middle, its bottom, and on which wall.
struct PocketSpot {
    double x = 0, y = 0;
    bool back = false;
};

PocketSpot spotOf(const Pattern& p, const Space& pocket)
{
    const auto place = std::find_if(p.places.begin(), p.places.end(),
        [&](const Place& each) { return each.feature.text() == pocket.place.text(); });
    const PocketSpot somewhere{0, std::max(10.0, p.height * 0.35), false};
    if (place == p.places.end()) // the bag itself and a form's own pocket reach down to its bottom
        return std::any_of(p.partLabels.begin(), p.partLabels.end(),
                   [&](const auto& part) { return pocket.place.text().starts_with(part.first.text()); })
            ? somewhere
            : PocketSpot{};
    const double below = place->area.height() < pocket.height - 1 ? pocket.height : 0; // a window's bag
    for (const auto& site : p.sites) {
        const bool front = site.name.text().ends_with("front"), back = site.name.text().ends_with("back");
        if (site.turn == 0 && (front || back)
            && std::find(site.pieces.begin(), site.pieces.end(), place->piece) != site.pieces.end())
            return {(back != site.lining ? -1 : 1) * (place->area.centre().x - site.x),
                p.height - (site.top - place->area.y0) - below, back};
    }
    return somewhere;
}

} // namespace

std::vector<PlacedThing> placeCarried(const Design& design, const Pattern& p)
{
    std::vector<PlacedThing> out;
    const auto spaceOf = [&](const std::string& place) -> const Space* {
        for (const auto& s : p.spaces)
            if (s.place == place)
                return &s;
        return nullptr;
    };
    const Space* main = spaceOf("main");
    if (!main)
        return out;
    double z = main->depth / 2; // the next thing's front face
    for (std::size_t i = 0; i < design.carried.size(); ++i) {
        const Carried& thing = design.carried[i];
        const Space* space = spaceOf(thing.place);
        if (!space)
            continue;
        PlacedThing t{i, thing.name, thing.place, 0, 0, 0, thing.width, thing.height, thing.thickness};
        if (space->pocket) {
            // In a flat pocket the thing bends the cloth round itself: its thickness takes from the width.
            t.overWidth = thing.width + thing.thickness + pocketEase - space->width;
            const double rise = cornerRise(thing.width, space->width, space->cornerRadius);
            t.overHeight = thing.height + rise - (space->height + 60); // it may stand out by 60 mm to be reached
            const PocketSpot spot = spotOf(p, *space);
            t.x = spot.x, t.y = spot.y + rise;
            t.z = (spot.back ? -1 : 1) * (main->depth / 2 - thing.thickness / 2);
        } else {
            const double rise = cornerRise(thing.width, space->width, space->cornerRadius);
            t.y = p.height - space->height + rise;
            const double room = depthAt(thing.width, space->width, space->depth, space->endRadius);
            t.z = z - thing.thickness / 2 - (space->depth - room) / 2; // round ends push it inwards
            z -= thing.thickness;
            t.overWidth = thing.width - space->width;
            t.overHeight = thing.height + rise - space->height;
            t.overDepth = space->depth / 2 - z - room;
        }
        out.push_back(t);
    }
    return out;
}

} // namespace tectonis
