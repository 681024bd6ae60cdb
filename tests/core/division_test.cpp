// SPDX-License-Identifier: GPL-3.0-or-later
// Steps told in two or as one, batches for a run of bags, minutes by the trial log, where a step may be moved.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "booklet/booklet.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "formats/design_file.hpp"
#include "formats/specification.hpp"
#include "pattern/act_words.hpp"
#include "sequence/batches.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"

#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

std::size_t placeIn(const Pattern& p, const std::vector<std::size_t>& order, const std::string& step)
{
    return std::size_t(
        std::find_if(order.begin(), order.end(), [&](std::size_t i) { return p.steps[i].id == step; }) - order.begin());
}

std::string notesOf(const Design& d)
{
    std::string out;
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == "own-order" && f.size == "M")
            out += words(f.subject) + ": " + words(f.text) + "\n";
    return out;
}

std::size_t actAt(const Pattern& p, const char* step, Act::Verb verb)
{
    const Step& s = *p.step(step);
    return std::size_t(
        std::find_if(s.acts.begin(), s.acts.end(), [&](const Act& a) { return a.verb == verb; }) - s.acts.begin());
}

} // namespace

TEST_CASE("Every kind of act has a word of its own that is read back, and a title")
{
    std::set<std::string> seen;
    for (int i = 0; i <= int(Act::Verb::Note); ++i) {
        const auto verb = Act::Verb(i);
        INFO(i << " " << wordOf(verb));
        CHECK(verbOf(wordOf(verb)) == verb);
        CHECK(seen.insert(wordOf(verb)).second);
        CHECK(!titleOf(verb).empty());
    }
    CHECK(!verbOf("knit"));
}

TEST_CASE("A step told in two: the halves do what the whole did, the second can be moved, but not before the first")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern whole = medium(d);
    const Step step = *whole.step("flap.turn");
    const std::size_t at = actAt(whole, "flap.turn", Act::Verb::Roll);
    REQUIRE(at > 0);
    REQUIRE(at < step.acts.size());
    edit(d, [&](Design& next) { change::splitStep(next, whole, "flap.turn", at); });
    const Pattern p = medium(d);
    REQUIRE(p.step("flap.turn/roll"));
    const Step &first = *p.step("flap.turn"), &second = *p.step("flap.turn/roll");
    CHECK(first.acts.size() == at);
    CHECK(second.acts.size() == step.acts.size() - at);
    CHECK(first.kind == StepKind::Turn);
    CHECK(second.kind == StepKind::Topstitch);
    CHECK(words(second.title) == "Turn and topstitch the flap: roll the edge");
    CHECK(words(told(p, first).text) + " " + words(told(p, second).text) == words(told(whole, step).text));
    CHECK(brokenRules(p, orderOf(d, p)).empty());
    // Not before the first, and not behind what takes the flap.
    edit(d, [&](Design& next) { change::order(next, p, {"flap.turn/roll", "flap.turn"}); });
    CHECK(!brokenRules(p, orderOf(d, p)).empty());
    d.stepOrder.clear();
    // The file keeps it; a booklet tells both.
    CHECK(designFromText(designText(d), "bag") == d);
    const Booklet booklet = bookletOf(d, {&p}, Unit::Mm);
    CHECK(std::any_of(booklet.steps.begin(), booklet.steps.end(),
        [](const BookletStep& s) { return s.title == "Turn and topstitch the flap: roll the edge"; }));
    // A half is divided again from the whole's acts, or made one with the other again, with all that was said of it.
    edit(d, [&](Design& next) { change::hideStep(next, p, "flap.turn/roll", true); });
    edit(d, [&](Design& next) { change::wish(next, p, "snap.front", "flap.turn/roll"); });
    edit(d, [&](Design& next) { change::mendStep(next, p, "flap.turn/roll"); });
    CHECK(d.splits.empty());
    CHECK(d.hiddenSteps.empty());
    CHECK(d.wishes.empty());
    CHECK(medium(d).steps.size() == whole.steps.size());
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::mendStep(n, whole, "flap.turn"); }), Contains("not divided"));
    CHECK_THROWS_WITH(
        edit(d, [&](Design& n) { change::splitStep(n, whole, "flap.turn", 0); }), Contains("between two things"));
    CHECK_THROWS_WITH(
        edit(d, [&](Design& n) { change::splitStep(n, whole, "flap.turn", 99); }), Contains("between two things"));
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::splitStep(n, whole, "zip.zip", 1); }), Contains("one thing"));
}

TEST_CASE("Layers are told in two by material; where a division has nothing left to divide it waits and says so")
{
    Design d = newDesign("roll-top");
    edit(d, [&](Design& next) {
        change::putBehind(next, medium(d), {"lining.front", "fusible-woven", "fused", "full", {}, {}, {}});
    });
    edit(d, [&](Design& next) {
        change::putBehind(next, medium(d), {"lining.back", "fleece-fusible", "fused", "stitch", {}, {}, {}});
    });
    const Pattern whole = medium(d);
    REQUIRE(whole.step("interline.fused"));
    REQUIRE(whole.step("interline.fused")->acts.size() >= 2);
    edit(d, [&](Design& next) { change::splitStep(next, whole, "interline.fused", 1); });
    const Pattern p = medium(d);
    REQUIRE(p.step("interline.fused/interline-2"));
    for (const auto& id : {"interline.fused", "interline.fused/interline-2"})
        for (const auto& piece : p.step(id)->pieces)
            CHECK(std::any_of(p.piece(piece)->layers.begin(), p.piece(piece)->layers.end(), [&](const Layer& layer) {
                return std::ranges::any_of(p.step(id)->acts,
                    [&](const Act& a) { return std::ranges::find(a.layers, layer.id) != a.layers.end(); });
            }));
    CHECK(notesOf(d).empty());
    edit(d, [&](Design& next) {
        for (auto& rule : next.layers)
            if (rule.fixing == "fused")
                rule.material = "fusible-woven";
    });
    CHECK_THAT(notesOf(d), Contains("divided where something is done that it does not hold now"));
    CHECK(designFromText(designText(d), "bag") == d);
}

TEST_CASE("Any step of any design can be divided anywhere: nothing is lost, the order breaks no rule, the bag is made",
    "[.long]")
{
    int divided = 0;
    forEveryDesign([&](const std::string& name, const Design& plain) {
        const Pattern whole = medium(plain);
        for (const auto& step : whole.steps) {
            if (step.acts.size() < 2 || divided % 7 == 6) { // every seventh is enough of the same
                divided += step.acts.size() > 1;
                continue;
            }
            Design d = plain;
            const std::size_t at = 1 + std::size_t(divided) % (step.acts.size() - 1);
            change::splitStep(d, whole, step.id.text(), at);
            const Pattern p = medium(d);
            ++divided;
            INFO(name << ", " << step.id << " before act " << at);
            REQUIRE(p.steps.size() == whole.steps.size() + 1);
            std::size_t acts = 0, allActs = 0;
            for (const auto& s : p.steps)
                acts += s.acts.size();
            for (const auto& s : whole.steps)
                allActs += s.acts.size();
            CHECK(acts == allActs);
            const auto order = orderOf(d, p);
            for (const auto& broken : brokenRules(p, order))
                CHECK(words(broken.reason) == ""); // says which
            const auto states = dryRun(p, order), before = dryRun(whole, orderOf(plain, whole));
            CHECK(states.back().parts == before.back().parts);
            CHECK(states.back().opening == before.back().opening);
            CHECK(states.back().wrongSideOut == before.back().wrongSideOut);
            CHECK(minutesOf(p) >= minutesOf(whole) - 1e-9); // what is taken up twice takes longer
        }
    });
    CHECK(divided > 1500);
}

TEST_CASE("Steps told as one share a number wherever they stand side by side; booklet and specification tell so too")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern before = medium(d);
    edit(d, [&](Design& next) { change::joinStep(next, before, "snap.flap"); });
    CHECK(d.joined.front().first == "snap.front");
    const Pattern p = medium(d);
    const auto order = orderOf(d, p);
    const auto numbers = numbersOf(p, order);
    const std::size_t second = placeIn(p, order, "snap.flap");
    CHECK(numbers[second] == numbers[second - 1]);
    CHECK(numbers.back() == int(order.size()) - 1);
    const auto patterns = draftAll(d);
    std::vector<const Pattern*> sizes;
    for (const auto& each : patterns)
        sizes.push_back(&each);
    const Booklet booklet = bookletOf(d, sizes, Unit::Mm),
                  apart = bookletOf(newDesign("gusseted-satchel"), {&before}, Unit::Mm);
    CHECK(booklet.steps.size() == apart.steps.size() - 1);
    const auto one = std::find_if(booklet.steps.begin(), booklet.steps.end(),
        [](const BookletStep& s) { return s.title == "Set the snap's front half, then set the snap's flap half"; });
    REQUIRE(one != booklet.steps.end());
    CHECK(one->figures.size() == 2);
    const Pattern& small = patterns.front();
    CHECK_THAT(one->facts,
        Contains(words(say("{} min",
            Num(minutesOf(small, *small.step("snap.front")).result + minutesOf(small, *small.step("snap.flap")).result,
                1)))));
    CHECK(one->facts.find("pliers") == one->facts.rfind("pliers"));
    CHECK(int(one - booklet.steps.begin()) + 1 == numbers[second]);
    for (const auto& piece : specificationOf(d, p, Unit::Mm, Language::english()))
        if (piece.code == "D")
            CHECK(std::any_of(piece.steps.begin(), piece.steps.end(), [&](const std::string& line) {
                return line == std::to_string(numbers[second - 1] + 1) + " Sew the flap to its lining";
            }));
    CHECK(designFromText(designText(d), "bag") == d);
    // What comes between parts them, and says so.
    edit(d, [&](Design& next) { change::order(next, p, {"snap.front", "slip.make", "snap.flap"}); });
    CHECK(numbersOf(p, orderOf(d, p)).back() == int(order.size()));
    CHECK_THAT(notesOf(d), Contains("to be told as one with “Set the snap's front half”"));
    edit(d, [&](Design& next) { change::partStep(next, "snap.flap"); });
    CHECK(notesOf(d).empty());
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::partStep(n, "snap.flap"); }), Contains("by itself already"));
    const Pattern now = medium(d);
    const std::string firstStep = now.steps[orderOf(d, now).front()].id.text();
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::joinStep(n, now, firstStep); }), Contains("no step before it"));
    // What is left out of booklets has no number and parts nobody.
    edit(d, [&](Design& next) { change::hideStep(next, now, firstStep, true); });
    const Pattern hidden = medium(d);
    CHECK(numbersOf(hidden, orderOf(d, hidden)).front() == 0);
    CHECK(numbersOf(hidden, orderOf(d, hidden)).at(1) == 1);
}

TEST_CASE("Of every design: an order by tool breaks no rule, holds every step once and changes place no more often",
    "[.long]")
{
    int designs = 0, fewer = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        const auto proposed = orderOf(d, p), byTool = batchedOrder(d, p);
        INFO(name);
        CHECK(std::set<std::size_t>(byTool.begin(), byTool.end()).size() == p.steps.size());
        CHECK(byTool.size() == p.steps.size());
        CHECK(brokenRules(p, byTool).empty());
        CHECK(batchesOf(p, byTool).size() <= batchesOf(p, proposed).size());
        fewer += batchesOf(p, byTool).size() < batchesOf(p, proposed).size();
        // And it makes the same bag.
        CHECK(dryRun(p, byTool).back().parts == dryRun(p, proposed).back().parts);
        ++designs;
    });
    CHECK(designs > 200);
    CHECK(fewer > designs / 3);
}

TEST_CASE("A run of bags: set-up once for each batch, waiting only where the other bags do not fill it; by hand")
{
    // Two steps: glue a board to a cover (15 min to dry, common practice), then sew the cover; no other work.
    Pattern p;
    p.workshop.setUp = 3;
    p.steps.push_back({.id = "glue",
        .acts = {{.verb = Act::Verb::Glue, .pieces = {"cover", "card"}}},
        .consumes = {"cover", "card"},
        .yields = "half",
        .ownMinutes = 2});
    p.steps.push_back(
        {.id = "sew", .acts = {act::sew({"seam"})}, .consumes = {"half"}, .yields = "bag", .ownMinutes = 4});
    const std::vector<std::size_t> order{0, 1};
    const BagRun one = runOf(p, order, 1), five = runOf(p, order, 5), ten = runOf(p, order, 10);
    CHECK(one.batches.size() == 2);
    CHECK(one.batches[0].place == WorkPlace::Adhesive);
    CHECK(one.batches[1].place == WorkPlace::Machine);
    CHECK(one.whole() == Approx(2 * 3 + 2 + 4 + 15));
    CHECK(one.bagByBag == Approx(one.whole()));
    // Five: the first bag was glued 8 minutes before the last one was: 7 are left. The others dry meanwhile, each 4
    // minutes of sewing against 2 of gluing.
    CHECK(five.waiting == Approx(7));
    CHECK(five.whole() == Approx(6 + 5 * 6 + 7));
    CHECK(five.bagByBag == Approx(5 * 27));
    CHECK(ten.waiting == Approx(0));
    CHECK(ten.whole() == Approx(66));
}

TEST_CASE("The trial log corrects minutes: by the bag, step by step, and by nothing that was not measured; by hand")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern p = medium(d);
    const double foretold = minutesOf(p);
    CHECK(uncorrectedMinutesOf(p) == Approx(foretold));
    edit(d, [&](Design& next) {
        next.trials.push_back({.date = "2026-11-20", .size = "M"});
        change::timed(next, p, 0, 1.5 * foretold);
    });
    CHECK(d.trials[0].predicted == Approx(foretold));
    const Pattern slower = medium(d);
    CHECK(minutesOf(slower) == Approx(1.5 * foretold));
    CHECK(uncorrectedMinutesOf(slower) == Approx(foretold));
    const double mouth = minutesOf(p, *p.step("mouth")).result;
    CHECK(minutesOf(slower, *slower.step("mouth")).result == Approx(1.5 * mouth));
    CHECK_THAT(minutesOf(slower, *slower.step("mouth")).formula, Contains("pace*("));
    // One step was timed at twice its minutes: of the rest (1.5 f − 2 m) to (f − m).
    edit(d, [&](Design& next) { change::timed(next, slower, 0, 2 * mouth, "mouth"); });
    const Pattern timed = medium(d);
    CHECK(minutesOf(timed, *timed.step("mouth")).result == Approx(2 * mouth));
    CHECK(timed.pace.rest == Approx((1.5 * foretold - 2 * mouth) / (foretold - mouth)));
    CHECK(minutesOf(timed) == Approx(1.5 * foretold));
    // A second bag as quick as foretold: the mean of both by what was foretold.
    edit(d, [&](Design& next) {
        next.trials.push_back({.date = "2026-11-21", .size = "M"});
        change::timed(next, timed, 1, foretold);
    });
    CHECK(medium(d).pace.rest == Approx((1.5 * foretold - 2 * mouth + foretold) / (foretold - mouth + foretold)));
    CHECK(designFromText(designText(d), "bag") == d);
    // A step that is gone, a trial without what was foretold, zero: nothing.
    edit(d, [&](Design& next) {
        change::timed(next, timed, 1, 0);
        change::timed(next, timed, 0, 0, "mouth");
        change::timed(next, timed, 0, 0);
        next.trials[0].steps["gone.step"] = {5, 1, {}};
        next.trials[0].minutes = 300;
    });
    CHECK(medium(d).pace.rest == 1);
    CHECK(medium(d).pace.steps.empty());
    CHECK(minutesOf(medium(d)) == Approx(foretold));
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::timed(n, p, 7, 5); }), Contains("no such trial"));
    CHECK_THROWS_WITH(edit(d, [&](Design& n) { change::timed(n, p, 0, 5, "nowhere"); }), Contains("no such step"));
}

TEST_CASE("Where a step may be moved agrees with what the order would break, for every step and place")
{
    for (const char* form : {"gusseted-satchel", "zip-around", "roll-top", "frame-clutch"}) {
        const Design d = newDesign(form);
        const Pattern p = medium(d);
        const auto order = orderOf(d, p);
        REQUIRE(brokenRules(p, order).empty());
        int allowed = 0, refused = 0;
        for (std::size_t from = 0; from < order.size(); ++from) {
            const auto moves = movesOf(p, order, from);
            REQUIRE(moves.size() == order.size() + 1);
            for (std::size_t to = 0; to <= order.size(); ++to) {
                auto next = order;
                next.erase(next.begin() + std::ptrdiff_t(from));
                next.insert(next.begin() + std::ptrdiff_t(to > from ? to - 1 : to), order[from]);
                INFO(form << ": " << p.steps[order[from]].id << " to " << to);
                CHECK(moves[to].has_value() == !brokenRules(p, next).empty());
                (moves[to] ? refused : allowed)++;
            }
        }
        CHECK(allowed > int(order.size()));
        CHECK(refused > int(order.size()));
    }
}

TEST_CASE("Topstitched twice: a second row 3.2 mm further in wherever there is room, in words, minutes and thread")
{
    Design d = newDesign("gusseted-satchel");
    const Pattern once = medium(d);
    setChoice(d, "topstitching", "two");
    const Pattern twice = medium(d);
    int rows = 0;
    for (const auto& step : twice.steps)
        for (const auto& act : step.acts)
            if (act.verb == Act::Verb::Topstitch && act.taken > 0) {
                CHECK(act.taken == Approx(act.distance + 3.2));
                CHECK_THAT(words(told(twice, step).text),
                    Contains("and 6.4 mm from the seam") || Contains("A second row runs 6.4 mm from the seam")
                        || Contains("A second row runs 9.6 mm from the edge"));
                ++rows;
            }
    CHECK(rows >= 2);
    CHECK(minutesOf(twice) > minutesOf(once));
    CHECK(threadOf(twice).result > threadOf(once).result);
    CHECK(brokenRules(twice, orderOf(d, twice)).empty());
}

TEST_CASE("Foam that reaches into the seams is trimmed at each seam that catches it; cut to the line it is not")
{
    Design d = newDesign("gusseted-satchel");
    const auto told_ = [&](const char* step) {
        const Pattern p = medium(d);
        return words(told(p, *p.step(step)).text);
    };
    edit(d, [&](Design& next) {
        change::putBehind(next, medium(d), {"front", "foam-sewin", "basted", "full", {}, {}, {}});
    });
    const Pattern p = medium(d);
    std::string code;
    for (const auto& layer : p.piece("front")->layers)
        if (layer.fixing == "basted" && layer.wholePiece && *layer.reachAt(p.piece("front")->edges.front().name) > 3)
            code = layer.code;
    REQUIRE(!code.empty());
    CHECK(trimmedAfter(p, *p.seam("front-gusset")).size() == 1);
    CHECK(trimmedAfter(p, *p.seam("back-gusset")).empty());
    CHECK_THAT(told_("front-gusset"), Contains("Trim " + code + " close to the stitching."));
    CHECK_THAT(told_("mouth"), Contains("Trim " + code + " close to the stitching."));
    CHECK_THAT(told_("back-gusset"), !Contains("close to the stitching"));
    const double full = minutesOf(p, *p.step("front-gusset")).result;
    edit(d, [&](Design& next) {
        for (auto& rule : next.layers)
            if (rule.pieces == "front" && rule.material == "foam-sewin")
                rule.trim = "stitch";
    });
    CHECK_THAT(told_("front-gusset"), !Contains("close to the stitching"));
    const Pattern line = medium(d);
    CHECK(full - minutesOf(line, *line.step("front-gusset")).result
        == Approx(2 * line.seam("front-gusset")->lengthA / 1000));
}

TEST_CASE("Seam classes are those of ISO 4916 (from memory: 1 superimposed, 2 lapped, 3 bound, 6 edge, 8 one strip)")
{
    const Pattern satchel = medium(newDesign("gusseted-satchel")), loop = medium(newDesign("zip-around"));
    CHECK(words(told(satchel, *satchel.step("front-gusset")).seamClass) == "1, superimposed");
    CHECK(words(told(satchel, *satchel.step("slip.on")).seamClass) == "2, lapped");
    CHECK(words(told(satchel, *satchel.step("strap.make")).seamClass) == "8, one folded strip");
    CHECK(words(told(satchel, *satchel.step("snap.front")).seamClass).empty());
    CHECK(std::any_of(loop.steps.begin(), loop.steps.end(), [&](const Step& s) {
        return std::ranges::any_of(s.acts, [](const Act& a) { return a.verb == Act::Verb::Bind; })
            && words(told(loop, s).seamClass).find("3") != std::string::npos;
    }));
}

TEST_CASE("What only the second half of a divided step handles is taken up with it")
{
    int later = 0;
    for (const Form* form : forms()) {
        const Design d = newDesign(form->id());
        const Pattern whole = medium(d);
        for (const auto& step : whole.steps)
            for (std::size_t at = 1; at < step.acts.size(); ++at) {
                Design divided = d;
                change::splitStep(divided, whole, step.id.text(), at);
                const Pattern p = medium(divided);
                const Step* first = p.step(step.id.text());
                const auto second = std::ranges::find(p.steps, step.id, &Step::goesOnFrom);
                REQUIRE(first);
                REQUIRE(second != p.steps.end());
                INFO(d.form << ": " << step.id.text() << " before act " << at);
                CHECK((!first->consumes.empty() || step.consumes.empty()));
                for (const auto& part : step.consumes) {
                    if (part == step.yields)
                        continue;
                    const bool inFirst = std::ranges::count(first->consumes, part) > 0,
                               inSecond = std::ranges::count(second->consumes, part) > 0;
                    CHECK(inFirst != inSecond);
                    later += inSecond;
                }
            }
    }
    CHECK(later > 0);
}
