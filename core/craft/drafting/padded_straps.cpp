// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/padded_straps.hpp"

#include "drafting/panels.hpp"
#include "drafting/strip_width.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

std::vector<EdgeUse> withCopy(std::vector<EdgeUse> run, int copy)
{
    for (auto& use : run)
        use.copy = copy;
    return run;
}

SeamId named(const SeamId& begin, const std::string& rest)
{
    return OwnName{begin.owner().text(), begin.name() + rest};
}

void drawPieces(Drafter& d, const PaddedStraps& s)
{
    const double w = s.width;
    for (const bool under : {false, true}) {
        Piece& strap = d.add({.key = under ? s.under : s.upper,
            .code = (under ? "L" : "") + s.code,
            .name = under ? say("Strap underside") : say("Shoulder strap"),
            .coat = under ? Coat::Lining : Coat::Shell,
            .role = under ? "strap underside" : "shoulder strap",
            .material = under ? "lining" : "shell",
            .count = 2,
            .mirrored = 1});
        // Round at the lower end, where the webbing leaves it.
        strap.edges = {{"top", lineRun({{w / 2, s.length}, {-w / 2, s.length}}), s.allowance, {}},
            {"left", lineRun({{-w / 2, s.length}, {-w / 2, w / 2}}), s.allowance, {}},
            {"end", {Arc{{0, w / 2}, w / 2, pi, pi}}, s.allowance, {}},
            {"right", lineRun({{w / 2, w / 2}, {w / 2, s.length}}), s.allowance, {}}};
    }
    // Folded in half, 25 mm of it in the strap (common practice, no source).
    drawRectangle(d.add({.key = s.loop,
                      .code = s.loopCode,
                      .name = say("Webbing loop"),
                      .coat = Coat::Strip,
                      .role = "webbing",
                      .material = "strap",
                      .count = 2,
                      .plies = 2}),
        s.webbing, 100, 0);
}

void drawSeams(Drafter& d, const PaddedStraps& s)
{
    for (int copy = 0; copy < 2; ++copy)
        d.add(Seam{.key = named(s.sewn, " " + std::to_string(copy + 1)),
            .name = say("Shoulder strap to its underside, {}", (copy ? say("right") : say("left"))),
            .a = withCopy(d.runWithout(s.upper, "top"), copy),
            .b = withCopy(d.runWithout(s.under, "top"), copy),
            .allowance = s.allowance});
    Piece& face = d.piece(s.face);
    for (const double side : {-1.0, 1.0}) {
        const std::string name = s.line + (side < 0 ? ", left" : ", right");
        const double x = s.at.x + side * s.spread / 2, w = s.width;
        face.lines.push_back({name, FaceLine::Kind::Placement, lineRun({{x - w / 2, s.at.y}, {x + w / 2, s.at.y}})});
        d.add(Seam{.key = named(s.onFace, side < 0 ? " left" : " right"),
            .name = say("Shoulder strap on the {}, {}", within(face.name), (side < 0 ? say("left") : say("right"))),
            .a = {{s.face, name}},
            .b = {{s.upper, "top", side < 0 ? 0 : 1, true}},
            .stitch = "topstitch"});
        d.pattern.hung.push_back({s.upper, s.face, {x, s.at.y}, {s.at.x + side * (s.foot.x - s.at.x), s.foot.y},
            1.35 * distance(s.at, s.foot), s.width});
    }
}

} // namespace

void drawPaddedStraps(Drafter& d, const PaddedStraps& s)
{
    drawPieces(d, s);
    drawSeams(d, s);
    offerStrip(d, s.site, say("Shoulder strap"), s.upper, s.width, s.length, s.length - s.width, "Small parts");
    const act::Seams both{named(s.sewn, " 1"), named(s.sewn, " 2")};
    const act::Seams onFace{named(s.onFace, " left"), named(s.onFace, " right")};
    d.addOnTop(
        Step{.id = s.make,
            .title = say("Make the shoulder straps"),
            .acts = {act::saying(act::sew(both), say("The webbing's width stays open in the middle of the round end.")),
                act::grade(both), act::turn(both), act::roll(both, 6.4)},
            .kind = StepKind::Seam,
            .phase = "Small parts",
            .consumes = {s.upper, s.under},
            .yields = s.ready,
            .check = say("Both straps mirror each other.")},
        s.face);
    std::vector<Act> loops{act::of(Act::Verb::SealCut, s.loop)};
    loops.front().pieces.insert(loops.front().pieces.end(), s.alsoSealed.begin(), s.alsoSealed.end());
    loops.push_back(
        act::with({.verb = Act::Verb::Insert, .pieces = {s.loop, s.upper}, .distance = 25}, {Ware::WebbingSlider}));
    d.addOnTop(Step{.id = s.loops,
                   .title = say("Put the sliders' loops into the straps"),
                   .acts = std::move(loops),
                   .kind = StepKind::Seam,
                   .phase = "Small parts",
                   .consumes = {s.ready, s.loop},
                   .yields = s.ready,
                   .pieces = {s.upper, s.loop},
                   .check = say("The sliders lie with their bars up.")},
        s.face);
    // Laid as they hang in the end: turned over the row they would show their underside.
    d.addOnTop(
        Step{.id = s.on,
            .title = say("Sew the straps to the {}", within(d.piece(s.face).name)),
            .acts =
                {{.verb = Act::Verb::FoldIn, .seams = {onFace.front()}, .pieces = {s.upper}, .distance = s.allowance},
                    act::saying(act::stitchOn(onFace), say("The straps point down. Box-X stitch over {}.", Len(25)))},
            .kind = StepKind::Flat,
            .phase = s.phase,
            .consumes = {s.face, s.ready},
            .yields = s.face,
            .pieces = {s.upper, s.face},
            .check = say("Both straps are level.")},
        s.face);
}

} // namespace tectonis
