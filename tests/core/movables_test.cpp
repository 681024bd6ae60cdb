// SPDX-License-Identifier: GPL-3.0-or-later
// What can be taken hold of on the faces: its dimensions say where it lies, and it goes where the hand goes.
#include "drawn.hpp"
#include "every_design.hpp"

#include "editing/movables.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

/// A form with one part, in each of the part's choices if @p allChoices; @p visit(design, id).
template <class Visit> void eachPart(const Visit& visit, bool allChoices = true)
{
    for (const Form* form : tectonis::forms())
        for (const FeatureKind* kind : featureKinds()) {
            Design d = newDesign(form->id());
            while (!d.features.empty() && form->id() != "zip-around" && form->id() != "polygon")
                removeFeature(d, d.features.back().id);
            std::string id;
            try {
                id = addFeature(d, kind->kind());
            } catch (const InputError&) {
                continue;
            }
            visit(d, id);
            for (const auto& choice : specOf(d).choices)
                if (allChoices && choice.name.starts_with(id + "."))
                    for (const auto& option : choice.options) {
                        Design other = d;
                        try {
                            setChoice(other, choice.name, option.first);
                        } catch (const InputError&) {
                            continue;
                        }
                        if (!(other == d))
                            visit(other, id);
                    }
        }
}

std::vector<Movable> thingsOf(const Pattern& p, const std::string& id)
{
    auto all = movablesOf(p);
    std::erase_if(all, [&](const Movable& each) { return each.part.text() != id; });
    return all;
}

std::string nameOf(const Design& d, const Movable& thing, const MovableWay& way)
{
    return d.form + ", " + way.dimension + " on " + thing.piece.text();
}

/// In some size it can be no greater, or no smaller.
bool atItsEnd(const Design& d, const std::string& dimension)
{
    const DesignSpec& spec = specOf(d);
    for (std::size_t size = 0; size < d.sizes.size(); ++size) {
        const Values values = evaluate(d, spec, size);
        const Range range = rangeOf(*spec.dimension(dimension), values);
        const double value = values.at(dimension);
        if (value < range.min + 0.01 || value > range.max - 0.01)
            return true;
    }
    return false;
}

} // namespace

TEST_CASE("Movables: what counts from somewhere on its face lies as far from there as its dimension says, everywhere")
{
    std::set<std::string> kinds;
    int counted = 0;
    eachPart([&](const Design& d, const std::string& id) {
        for (const auto& p : draftAll(d))
            for (const auto& thing : thingsOf(p, id)) {
                REQUIRE(p.piece(thing.piece));
                REQUIRE(!thing.ways.empty());
                for (const auto& way : thing.ways) {
                    INFO(nameOf(d, thing, way) << " in " << p.size);
                    REQUIRE(d.dimensions.contains(way.dimension));
                    CHECK(std::abs(std::hypot(way.direction.x, way.direction.y) - 1) < 1e-9);
                    CHECK(valueAt(p, thing, way, thing.face, thing.at)
                        == Approx(p.values.at(way.dimension)).margin(0.01));
                    counted += way.from != Handle::From::Nowhere;
                }
                kinds.insert(d.features.back().kind);
            }
    });
    CHECK(counted > 1000);
    CHECK(kinds.size() >= 15);
}

TEST_CASE("Movables: moved by a hand, a thing lies where the hand has put it")
{
    int moved = 0;
    eachPart([&](const Design& d, const std::string& id) {
        const Pattern before = medium(d);
        const auto things = thingsOf(before, id);
        for (std::size_t i = 0; i < std::min<std::size_t>(things.size(), 2); ++i) // they are alike
            for (const auto& way : things[i].ways)
                for (const double by : {3.0, -3.0}) {
                    INFO(nameOf(d, things[i], way) << " by " << by);
                    const Movable& thing = things[i];
                    // Under the hand, as the face hangs from its top.
                    const Point hung = thing.at + way.direction * by - Point{thing.face.x, thing.face.top};
                    Design next = d;
                    Pattern after = before;
                    // What still lacks, along a way that may bend: a foot's on a round base. Beside a slanting side it
                    // may give way.
                    const auto lacks = [&] {
                        const Movable now = thingsOf(after, id).at(i);
                        const auto same = std::find_if(now.ways.begin(), now.ways.end(),
                            [&](const MovableWay& each) { return each.dimension == way.dimension; });
                        REQUIRE(same != now.ways.end());
                        return std::abs(dot(now.at - Point{now.face.x, now.face.top} - hung, same->direction));
                    };
                    bool refused = false;
                    for (int step = 0; step < 8 && !refused && lacks() > 0.02; ++step)
                        try {
                            const Movable now = thingsOf(after, id).at(i);
                            const Point there = hung + Point{now.face.x, now.face.top};
                            edit(next, [&](Design& design) { change::move(design, after, now, now.face, there); });
                            after = medium(next);
                            if (atItsEnd(next, way.dimension))
                                refused = true;
                        } catch (const InputError&) {
                            refused = true;
                        }
                    if (refused)
                        continue;
                    REQUIRE(thingsOf(after, id).size() == things.size());
                    CHECK(lacks() < 0.02);
                    ++moved;
                }
    });
    CHECK(moved > 800);
}

TEST_CASE("Movables: whatever a thing is lined up with, it lies there; where a formula says so, in all sizes")
{
    std::set<std::string> held, said;
    int tried = 0;
    eachPart(
        [&](Design d, const std::string& id) {
            if (const std::string held = id + ".held"; d.choices.contains(held) && id == "connectors")
                try {
                    setChoice(d, held, "riveted");
                } catch (const InputError&) {
                    return;
                }
            // Another part to line up with.
            const Pattern alone = medium(d);
            const auto things = thingsOf(alone, id);
            if (things.empty())
                return;
            std::string label;
            try {
                label = addFeature(d, "label");
                if (d.choices.contains(label + ".site") && !things.front().face.name.empty())
                    setChoice(d, label + ".site", things.front().face.name.text());
                assign(d, label + ".across=11");
            } catch (const InputError&) {
                return;
            }
            const Pattern seen = medium(d);
            const auto all = thingsOf(seen, id);
            for (std::size_t i = 0; i < std::min<std::size_t>(all.size(), 2); ++i)
                for (const auto& guide : alignmentsFor(d, seen, all[i], all[i].face, all[i].at)) {
                    const MovableWay* way = all[i].way(guide.upright);
                    REQUIRE(way);
                    INFO(nameOf(d, all[i], *way) << ": " << words(guide.what) << " = " << guide.value);
                    const Point to = guide.upright ? Point{guide.at, all[i].at.y} : Point{all[i].at.x, guide.at};
                    Design moved = d;
                    std::vector<Pattern> patterns;
                    try {
                        edit(moved, [&](Design& next) { change::move(next, seen, all[i], all[i].face, to, {guide}); });
                        patterns = draftAll(moved);
                    } catch (const InputError&) {
                        continue;
                    }
                    ++tried;
                    const std::string& value = moved.dimensions.at(way->dimension).value;
                    if (value != guide.value)
                        continue; // the number alone, or kept inside its range
                    for (const auto& p : patterns) {
                        const Movable there = thingsOf(p, id).at(i);
                        const double lies = guide.upright ? there.at.x : there.at.y;
                        bool found = false;
                        for (const auto& each : alignmentsFor(moved, p, there, there.face, there.at))
                            found |= each.upright == guide.upright && words(each.what) == words(guide.what)
                                && std::abs(each.at - lies) < 0.01;
                        INFO(p.size);
                        CHECK(found);
                    }
                    held.insert(moved.features.front().kind == "label" ? id : d.features[d.features.size() - 2].kind);
                    said.insert(words(guide.what).substr(0, 8));
                }
        },
        false);
    CHECK(tried > 300);
    CHECK(held.size() >= 8);
    CHECK(said.size() >= 8);
}
