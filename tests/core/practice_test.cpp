// SPDX-License-Identifier: GPL-3.0-or-later
// Practice: tasks are made from real bags and judged by their rules.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "formats/design_file.hpp"
#include "sequence/order.hpp"
#include "sequence/practice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <numeric>
#include <set>

using namespace tectonis;

TEST_CASE("Practice: a planted mistake breaks rules about the moved step alone, and others than lately")
{
    std::set<std::string> rules;
    for (const Form* form : forms()) {
        INFO(form->id());
        const Design d = newDesign(form->id());
        const Pattern p = medium(d);
        const auto order = orderOf(d, p);
        REQUIRE(brokenRules(p, order).empty());
        const auto all = mistakesFor(p, order);
        rules.insert(all.begin(), all.end());
        std::mt19937 random(3);
        std::vector<std::string> lately;
        for (int i = 0; i < 4; ++i) {
            const auto task = plantMistake(p, order, random, lately);
            REQUIRE(task);
            CHECK(task->order != order);
            CHECK(std::is_permutation(order.begin(), order.end(), task->order.begin()));
            const auto broken = brokenRules(p, task->order);
            REQUIRE(!broken.empty());
            for (const auto& each : broken)
                CHECK((each.early == task->moved || each.late == task->moved));
            CHECK((task->broken.early == task->moved || task->broken.late == task->moved));
            CHECK(!words(task->broken.reason).empty());
            // Others than lately, as long as there are others.
            if (lately.size() < all.size())
                CHECK(std::find(lately.begin(), lately.end(), task->broken.rule) == lately.end());
            lately.push_back(task->broken.rule);
        }
    }
    // The trade's list: bags with feet, zips, snaps, rivets and paint have mistakes of their own.
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_DATA "/demos")) {
        const Design d = loadDesign(entry.path());
        const Pattern p = medium(d);
        for (const auto& rule : mistakesFor(p, orderOf(d, p)))
            rules.insert(rule);
    }
    // So have feet, a gusset that is cut long, and handles of webbing over a board that is glued in.
    Design feet = newDesign("separate-base"), longGusset = newDesign("gusseted-satchel"),
           webbing = newDesign("large-tote");
    setChoice(feet, "base.feet", "yes");
    setChoice(feet, "assembly", "drop-in");
    setChoice(longGusset, "gusset.strips", "two");
    setChoice(longGusset, "gusset.length", "long");
    setChoice(webbing, "handles.make", "webbing");
    setMaterial(webbing, "strap", "webbing-polypropylene");
    for (const Design& d : {feet, longGusset, webbing}) {
        const Pattern p = medium(d);
        for (const auto& rule : mistakesFor(p, orderOf(d, p)))
            rules.insert(rule);
    }
    INFO(fmt::format("{}", fmt::join(rules, ", ")));
    CHECK(rules.size() >= 15);
}

TEST_CASE("Practice: shuffled neighbours break something, and only they were moved")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Design d = newDesign(form->id());
        const Pattern p = medium(d);
        const auto order = orderOf(d, p);
        std::mt19937 random(5);
        const auto task = shuffle(p, order, 6, random);
        REQUIRE(task);
        CHECK(!brokenRules(p, task->order).empty());
        CHECK(std::is_permutation(order.begin(), order.end(), task->order.begin()));
        for (std::size_t i = 0; i < order.size(); ++i)
            if (i < task->from || i >= task->from + task->count)
                CHECK(task->order[i] == order[i]);
    }
}
