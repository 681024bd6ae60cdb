// SPDX-License-Identifier: GPL-3.0-or-later
// Each rule of the sequence on two steps of its own: kept in one order, broken in the other, with its reason; and the
// dry run by hand.
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;
using Catch::Contains;

namespace {

/// Two steps that nothing but the rule binds.
struct Case {
    const char* rule;
    Pattern pattern; ///< steps in the right order
    const char* reason;
};

Pattern two(Step first, Step second)
{
    Pattern p;
    first.id = "first", first.title = say("first"), second.id = "second", second.title = say("second");
    p.steps = {std::move(first), std::move(second)};
    return p;
}

std::vector<Case> cases()
{
    std::vector<Case> out;
    out.push_back({"interlining first",
        two({.kind = StepKind::Interline, .pieces = {"front"}}, {.kind = StepKind::Seam, .pieces = {"front", "back"}}),
        "before a piece is joined"});

    Pattern snap = two({.kind = StepKind::Hardware, .pieces = {"front"}, .fittings = {"snap.half"}},
        {.kind = StepKind::Seam, .pieces = {"front", "lining"}});
    snap.fittings.push_back({.key = "snap.half", .name = say("Snap"), .piece = "front", .kind = Fitting::Kind::Snap});
    out.push_back({"one-layer hardware first", snap, "one layer and its patch"});

    out.push_back({"flat work while flat",
        two({.kind = StepKind::Flat, .consumes = {"front"}, .pieces = {"front", "pocket"}},
            {.kind = StepKind::Seam, .pieces = {"front", "back"}}),
        "while the piece lies flat"});

    Pattern trapped = two(
        {.kind = StepKind::Baste, .pieces = {"tab", "gusset"}}, {.kind = StepKind::Seam, .seams = {"side"}});
    trapped.seams.push_back({.key = "side", .name = say("Side"), .trapped = {"tab"}});
    out.push_back({"baste what is trapped", trapped, "basted before that seam"});

    out.push_back({"clip before the curve",
        two({.acts = {act::clip({"front-gusset", "back-gusset"})}}, {.acts = {act::sew({"front-gusset"})}}),
        "clipped before it is pinned"});

    const auto doing = [](std::vector<Act> acts) { return Step{.acts = std::move(acts)}; };
    out.push_back({"everything in before closing",
        two(doing({{.verb = Act::Verb::PutIn, .pieces = {"base.board"}}}), doing({act::closeOpening("join")})),
        "before the opening is closed"});
    Step turn = doing({act::turnBag({"join"})});
    turn.turnsThrough = true;
    out.push_back({"everything in before closing", two(turn, doing({act::closeOpening("join")})), "closed last"});

    const ZipId z = "zip";
    out.push_back({"slider before the end",
        two(doing({act::ofZip(Act::Verb::SliderOn, z)}), doing({act::ofZip(Act::Verb::SealEnds, z, {"tab"})})),
        "before the zip's end is sealed"});
    Step open = doing({act::ofZip(Act::Verb::OpenZip, z)});
    open.opensZips = {z};
    out.push_back({"open before turning", two(open, doing({act::turnBag({})})), "the zip is closed"});

    Pattern feet = two(doing({act::set({"foot.1"}, Ware::Foot)}),
        {.acts = {{.verb = Act::Verb::PutIn, .pieces = {"base.board"}}}, .pieces = {"base.board"}});
    feet.steps[0].fittings = {"foot.1"};
    feet.pieces.push_back({.key = "base.board", .code = "R", .name = say("Base board"), .role = "board"});
    feet.fittings.push_back({.key = "foot.1", .name = say("Foot"), .piece = "base", .kind = Fitting::Kind::Foot});
    out.push_back({"feet before the board", feet, "before the board covers"});

    Pattern rivet = two(
        doing({act::set({"rivet"}, Ware::Rivet)}), doing({{.verb = Act::Verb::JoinCoats, .seams = {"mouth"}}}));
    rivet.steps[0].fittings = {"rivet"};
    rivet.fittings.push_back({.key = "rivet", .name = say("Rivet"), .piece = "front", .kind = Fitting::Kind::Rivet});
    out.push_back({"not through the lining", rivet, "does not go through the lining"});

    out.push_back({"trim before basting",
        two(doing({act::trim("gusset", 25)}), doing({act::lay("tab", "gusset", "mouth")})), "cut long is trimmed"});

    Pattern across = two(doing({act::press({"side"}, Act::To::Open)}), doing({act::sew({"base"})}));
    across.seams.push_back({.key = "side", .name = say("Side"), .a = {{"front", "right"}}, .b = {{"back", "left"}}});
    across.seams.push_back({.key = "base",
        .name = say("Base"),
        .a = {{"front", "bottom"}, {"back", "bottom"}},
        .b = {{"base", "rim 1"}, {"base", "rim 2"}}});
    out.push_back({"press before crossing", across, "before another one runs across"});

    Pattern row = two(
        doing({act::topstitch({"side"}, 3.2, Act::To::Open)}), doing({{.verb = Act::Verb::JoinCoats, .seams = {"m"}}}));
    for (const char* key : {"front", "back"})
        row.pieces.push_back({.key = key, .code = key, .coat = Coat::Shell});
    row.seams.push_back({.key = "side", .name = say("Side"), .a = {{"front", "right"}}, .b = {{"back", "left"}}});
    out.push_back({"rows before the lining", row, "go through both"});

    Pattern patch = two({.acts = {{.verb = Act::Verb::Interline, .layers = {"front.layer.1"}}}, .kind = StepKind::Flat},
        doing({act::set({"rivet"}, Ware::Rivet)}));
    patch.steps[1].fittings = {"rivet"};
    patch.pieces.push_back({.key = "front", .code = "A"});
    patch.pieces.back().layers.push_back(
        {.id = "front.layer.1", .outline = rectangleRun(0, 0, 40, 40), .wholePiece = false});
    patch.fittings.push_back({.key = "rivet",
        .name = say("Rivet"),
        .piece = "front",
        .kind = Fitting::Kind::Rivet,
        .at = {20, 20},
        .throughLining = true});
    out.push_back({"patch before hardware", patch, "the patch behind it"});

    Pattern bind = two(
        doing({{.verb = Act::Verb::Bind, .seams = {"loop"}, .pieces = {"tape"}}}), doing({act::turnBag({})}));
    bind.seams.push_back({.key = "loop", .name = say("Loop"), .rawInside = true});
    out.push_back({"bind before turning", bind, "raw edges lie inside"});

    Pattern flame = two(doing({act::of(Act::Verb::SealCut, "webbing")}), doing({act::of(Act::Verb::Glue, "padding")}));
    flame.pieces.push_back({.key = "webbing", .code = "W", .material = "strap"});
    flame.materials = {{"strap", "webbing-polypropylene"}};
    out.push_back({"flame before adhesive", flame, "its solvent burns"});

    out.push_back({"topstitch before the next seam",
        two({.kind = StepKind::Topstitch, .pieces = {"front"}},
            {.kind = StepKind::Seam, .pieces = {"front", "gusset"}}),
        "pressed and topstitched before another seam"});

    out.push_back({"uses what is made",
        two({.kind = StepKind::Seam, .consumes = {"front", "back"}, .yields = "shell"},
            {.kind = StepKind::Turn, .consumes = {"shell"}, .yields = "bag"}),
        "needs “shell”"});
    return out;
}

} // namespace

TEST_CASE("Each rule is kept in its order and broken in the other, with its reason")
{
    for (const Case& c : cases()) {
        INFO(c.rule);
        CHECK(brokenRules(c.pattern, {0, 1}).empty());
        const auto broken = brokenRules(c.pattern, {1, 0});
        REQUIRE(broken.size() == 1);
        CHECK(broken.front().rule == c.rule);
        CHECK(broken.front().early == 1); // what is done too early, as an index into the steps
        CHECK(broken.front().late == 0);
        CHECK_THAT(exactly(broken.front().reason), Contains(c.reason));
    }
}

TEST_CASE("A rule does not bind steps on other pieces")
{
    for (const Case& c : cases()) {
        if (!c.pattern.steps.front().acts.empty() || std::string(c.rule) == "uses what is made")
            continue; // these are about acts, or about the bag as a whole
        INFO(c.rule);
        Pattern p = c.pattern;
        p.steps[1].pieces = {"elsewhere", "far away"};
        p.steps[1].seams.clear();
        CHECK(brokenRules(p, {1, 0}).empty());
    }
}

TEST_CASE("Dry run by hand: parts come and go, the opening opens and closes, a zip stays where it was put")
{
    Pattern p;
    for (const char* key : {"front", "back", "lining"})
        p.pieces.push_back({.key = key, .code = key, .name = naming(key)});
    p.seams.push_back({.key = "shell", .name = say("Shell")});
    p.seams.push_back({.key = "join", .name = say("Join"), .open = 120});
    p.fittings.push_back({.key = "zip", .name = say("Zip"), .piece = "front", .kind = Fitting::Kind::Zip});
    p.zips.push_back({.key = "zip", .name = say("Zip"), .piece = "front", .at = {}});
    Step zip{.id = "zip",
        .title = say("Zip"),
        .kind = StepKind::Flat,
        .consumes = {"front"},
        .yields = "front",
        .pieces = {"front"},
        .fittings = {"zip"}};
    Step sew{.id = "sew",
        .title = say("Sew"),
        .kind = StepKind::Seam,
        .consumes = {"front", "back"},
        .yields = "shell",
        .pieces = {"front", "back"},
        .seams = {"shell"}};
    Step join{.id = "join",
        .title = say("Join"),
        .kind = StepKind::Seam,
        .consumes = {"shell", "lining"},
        .yields = "bag",
        .pieces = {"lining"},
        .seams = {"join"}};
    Step turn{.id = "turn",
        .title = say("Turn"),
        .acts = {act::turnBag({"join"})},
        .kind = StepKind::Turn,
        .consumes = {"bag"},
        .yields = "bag"};
    turn.turnsThrough = true;
    Step close{.id = "close",
        .title = say("Close"),
        .acts = {act::closeOpening("join")},
        .kind = StepKind::CloseOpening,
        .consumes = {"bag"},
        .yields = "bag",
        .seams = {"join"}};
    p.steps = {zip, sew, join, turn, close};

    const auto right = dryRun(p, {0, 1, 2, 3, 4});
    REQUIRE(right.size() == 5);
    const std::vector<std::vector<WorkId>> parts{
        {"back", "front", "lining"}, {"lining", "shell"}, {"bag"}, {"bag"}, {"bag"}};
    const std::vector<std::string> opening{"", "", "open", "open", "closed"};
    for (std::size_t i = 0; i < right.size(); ++i) {
        INFO("after " << p.steps[i].id);
        CHECK(right[i].parts == parts[i]);
        CHECK(right[i].opening.source == opening[i]);
        CHECK(right[i].zips.front().second == "closed");
        CHECK(right[i].problems.empty());
    }

    // Closed before it is turned: told at both steps.
    const auto wrong = dryRun(p, {0, 1, 2, 4, 3});
    REQUIRE(wrong.size() == 5);
    REQUIRE(wrong[3].problems.size() == 1);
    CHECK_THAT(exactly(wrong[3].problems.front()), Contains("before “Turn”") && Contains("closed last"));
    REQUIRE(!wrong[4].problems.empty());
    CHECK_THAT(exactly(wrong[4].problems.front()), Contains("no open seam or zip"));

    // An open zip is a way out as well.
    Step open = sew;
    open.opensZips = {"zip"};
    p.steps[1] = open;
    p.seams[1].open = 0;
    const auto throughZip = dryRun(p, {0, 1, 2, 3, 4});
    CHECK(throughZip[3].problems.empty());
    CHECK(throughZip[3].zips.front().second == "open");
}

TEST_CASE(
    "The table: what is glued stays wet while others are worked on, what is sewn lies wrong side out until turned")
{
    Pattern p;
    for (const char* key : {"card", "cover", "flap", "flap lining"})
        p.pieces.push_back({.key = key, .code = key});
    p.seams.push_back({.key = "round", .name = say("Round"), .a = {{"flap", "e"}}, .b = {{"flap lining", "e"}}});
    Step glue{.id = "glue",
        .title = say("Glue"),
        .acts = {act::of(Act::Verb::Glue, "card")},
        .kind = StepKind::Flat,
        .consumes = {"card", "cover"},
        .yields = "covered",
        .ownMinutes = 3};
    Step sew{.id = "sew",
        .title = say("Sew"),
        .acts = {act::sew({"round"})},
        .kind = StepKind::Seam,
        .consumes = {"flap", "flap lining"},
        .yields = "flap bag",
        .ownMinutes = 5};
    Step turn{.id = "turn",
        .title = say("Turn"),
        .acts = {act::turn({"round"})},
        .kind = StepKind::Turn,
        .consumes = {"flap bag"},
        .yields = "flap bag",
        .ownMinutes = 2};
    Step join{.id = "join",
        .title = say("Join"),
        .kind = StepKind::Seam,
        .consumes = {"covered", "flap bag"},
        .yields = "bag",
        .ownMinutes = 4};
    p.steps = {glue, sew, turn, join};

    const auto states = dryRun(p, {0, 1, 2, 3});
    REQUIRE(states[0].wet.size() == 1); // 15 minutes from when it is glued (common practice, no source)
    CHECK(states[0].wet.front().part == "covered");
    CHECK(states[0].wet.front().minutes == 15);
    CHECK(states[1].wet.front().minutes == 10);
    CHECK(states[1].wrongSideOut == std::vector<WorkId>{"flap bag"});
    CHECK(states[2].wrongSideOut.empty());
    CHECK(states[3].waited == 8); // five and two minutes of other work have passed
    CHECK(states[3].wet.empty());
    CHECK(states[3].minutes == 14);
    // Glued last but one, all of it is waited for.
    CHECK(dryRun(p, {1, 2, 0, 3})[3].waited == 15);
    // Joined as it is: it was never turned.
    CHECK(dryRun(p, {0, 1, 3, 2})[1].wrongSideOut.size() == 1);
}

TEST_CASE("What takes a part before it is made is told, wherever the part is made in the proposed order")
{
    Pattern p = two({.kind = StepKind::Baste, .consumes = {"shell"}, .yields = "shell"},
        {.kind = StepKind::Seam, .consumes = {"front", "back"}, .yields = "shell"});
    p.pieces.push_back({.key = "front", .code = "A"});
    p.pieces.push_back({.key = "back", .code = "B"});
    const auto broken = brokenRules(p, {0, 1});
    REQUIRE(broken.size() == 1);
    CHECK(broken.front().rule == "uses what is made");
    CHECK_THAT(exactly(broken.front().reason), Contains("“shell”"));
}

TEST_CASE("A mouth that is narrower than the machine's least round is told, on the row that runs round it")
{
    Pattern p;
    p.seams.push_back({.key = "mouth", .name = say("Mouth"), .mouth = true, .lengthA = 300, .lengthB = 300});
    p.workshop.leastRound = 320;
    const Step row{.id = "row", .title = say("Row"), .acts = {act::topstitch({"mouth"}, 3.2, Act::To::Nowhere)}};
    CHECK_THAT(exactly(outOfReach(p, row)), Contains("{300}") && Contains("{320}") && Contains("free-arm"));
    const Step sewn{.id = "sewn", .title = say("Sewn"), .acts = {act::sew({"mouth"})}};
    CHECK(outOfReach(p, sewn).empty());
    p.workshop.leastRound = 160; // a cylinder arm
    CHECK(outOfReach(p, row).empty());
}

TEST_CASE("Facts of a step: only what it has, the allowance in the unit asked for")
{
    StepWords s;
    CHECK(factsOf(s).empty());
    s.tool = say("sewing machine"), s.stitch = say("3 mm"), s.allowance = 9.525;
    CHECK(factsOf(s) == std::vector<Message>{say("sewing machine"), say("3 mm"), say("allowance {}", Len(9.525))});
    CHECK(words(factsOf(s).back(), Unit::Mm) == "allowance 9.5 mm");
    CHECK(words(factsOf(s).back(), Unit::Inch) == "allowance 3/8 in");
}
