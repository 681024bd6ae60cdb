// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/strip_width.hpp"

#include "drafting/unlined.hpp"

#include <cmath>

namespace tectonis {

int cutMultiple(const Material& cloth, const std::string& way)
{
    if (cloth.kind == "webbing")
        return 1;
    if (way == "twice" || way == "meet")
        return way == "twice" ? 4 : 2;
    return cloth.kind == "cotton" || cloth.kind == "canvas" ? 4 : 2;
}

ChoiceSpec wayChoice(const std::string& when)
{
    return {"way", "Cloth folded",
        "As its cloth asks for: cotton and canvas folded twice, what does not bear that with its edges meeting behind. "
        "Or one of these by your own choice. Or two layers, face and facing, with the long edges of both turned in, "
        "and with padding between them.",
        {{"by-cloth", "As its cloth asks for"}, {"twice", "Folded twice"}, {"meet", "Edges meet behind"},
            {"faced", "Faced"}, {"padded", "Faced and padded"}},
        when};
}

DimensionSpec turnDimension()
{
    return {"turn", "Turned in", "Cloth of each long edge that is turned in between face and facing.",
        "min(10, @width/2 - 1)", follow(), "3", "@width/2 - 0.5", DimensionSpec::Quantity::Length, "@way=faced|padded"};
}

double workCutWidth(Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double finished,
    const Material& cloth, const std::string& way, double turn)
{
    if (turn > 0)
        return d.work({subject, key, std::move(label), "width + 2*turn", {{"width", finished}, {"turn", turn}}, 0,
            Working::Kind::Trade, "mm", say("faced: each long edge is turned in")});
    const int times = cutMultiple(cloth, way);
    return d.work({subject, key, std::move(label), "times*width", {{"times", double(times)}, {"width", finished}}, 0,
        Working::Kind::Trade, "mm",
        times == 4       ? say("of {}: its edges go to the middle and it is folded again", naming(cloth.name))
            : times == 2 ? say("of {}: its edges meet behind", naming(cloth.name))
                         : say("of {}: as wide as it is bought", naming(cloth.name))});
}

void addStripFolds(Piece& strip, double finished, double cut, double length, double turn)
{
    if (turn > 0) {
        strip.plies = 4; // at its edges, with the facing's
        for (const double x : {turn, cut - turn})
            strip.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{x, 0}, {x, length}})});
        return;
    }
    const int times = int(std::lround(cut / finished));
    strip.plies = std::max(1, times);
    if (times == 4)
        for (int i = 1; i < 4; ++i)
            strip.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{i * finished, 0}, {i * finished, length}})});
    if (times == 2)
        for (const double x : {finished / 2, 1.5 * finished})
            strip.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{x, 0}, {x, length}})});
}

PieceId addFacing(Drafter& d, const PieceId& of, Message name)
{
    Piece facing = d.piece(of);
    facing.key = OwnName{of.owner().text(), of.name().empty() ? std::string("facing") : of.name() + ".facing"};
    facing.code = d.freeCode(facing.code.substr(0, 1));
    facing.name = std::move(name);
    facing.role = "strap facing";
    facing.plies = 1; // what it adds at the ends is counted with its strap
    if (d.pattern.materials.contains("lining") && !unlined(d))
        facing.material = "lining";
    return d.add(std::move(facing)).key;
}

void addPadding(Drafter& d, const PieceId& strip, double turn, double clear, Message what)
{
    Piece& piece = d.piece(strip);
    const Box box = boundsOf(piece.stitch());
    const double x0 = box.x0 + turn, x1 = box.x1 - turn, y0 = box.y0 + clear, y1 = box.y1 - clear;
    if (x1 - x0 < 1 || y1 - y0 < 1)
        return; // nothing is left between its ends
    piece.areas["padding"] = rectangleRun(x0, y0, x1, y1);
    d.patches.push_back({strip, {.material = "foam-sewin", .fixing = "glued", .area = "padding"}, std::move(what)});
}

void offerStrip(Drafter& d, const SiteId& name, Message label, const PieceId& strip, double finished, double top,
    double height, const std::string& phase)
{
    const Box box = boundsOf(d.piece(strip).stitch());
    // Folded twice, the seen side is the second of four parts; else it is the middle.
    const bool twice = std::lround(box.width() / finished) == 4;
    d.pattern.sites.push_back({.name = name,
        .label = std::move(label),
        .pieces = {strip},
        .x = twice ? box.x0 + 1.5 * finished : box.centre().x,
        .top = top,
        .width = finished,
        .height = height,
        .phase = phase,
        .lining = false,
        .strip = true});
}

} // namespace tectonis
