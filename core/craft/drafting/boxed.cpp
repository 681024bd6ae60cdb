// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/boxed.hpp"

#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

double pleatHalf(const Values& values)
{
    const auto count = values.find("pleats"), depth = values.find("pleat");
    return count == values.end() || depth == values.end() ? 0 : std::round(count->second) * depth->second;
}

namespace {

/// Both folds of every pleat, evenly spread over the base of a panel whose half width there is @p half.
void markPleats(Piece& panel, const Values& values, double half, double height)
{
    const int n = int(std::lround(values.contains("pleats") ? values.at("pleats") : 0));
    const double p = n > 0 ? values.at("pleat") : 0;
    for (int i = 0; i < n; ++i) {
        // Finished, they divide the base evenly; every pleat before this one has taken 2p.
        const double middle = (2 * half - 2 * n * p) * (i + 1) / (n + 1) + 2 * p * i + p - half;
        for (const double x : {middle - p, middle + p})
            panel.lines.push_back({"pleat " + std::to_string(i + 1), FaceLine::Kind::Pleat,
                lineRun({{x, 0}, {x, std::min(height / 3, 60.0)}})});
    }
}

} // namespace

void drawBoxed(CoatDraft& c)
{
    Drafter& d = c.d;
    const double pleats = c.isLining ? 0 : pleatHalf(d.pattern.values); // the lining lies flat
    const double q = d("depth") / 2 - c.shrink, w = (d("width") + d("depth")) / 2 - 2 * c.shrink + pleats,
                 top = d("height") - c.shrink + q;
    const double mouth = (d("width") + d("depth")) / 2 - d("taper"), inner = w - q, s = c.allowance;
    const bool cut = d.choice("boxing") == "pre-cut";
    const Run leftLedge = lineRun({{-w, q}, {-inner, q}}), leftWall = lineRun({{-inner, q}, {-inner, 0}}),
              rightWall = lineRun({{inner, 0}, {inner, q}}), rightLedge = lineRun({{inner, q}, {w, q}});
    for (const auto& [part, code, name] : {std::tuple{"front", "A", say("Front")}, {"back", "B", say("Back")}}) {
        Piece& panel = c.add(part, code, name, "panel");
        panel.edges.push_back({"top", lineRun({{mouth, top}, {-mouth, top}}), c.mouth, {}});
        panel.edges.push_back({"left side", lineRun({{-mouth, top}, {-w, q}}), s, {}});
        if (cut) {
            panel.edges.insert(panel.edges.end(),
                {{"left ledge", leftLedge, s, {}}, {"left wall", leftWall, s, {}},
                    {"bottom", lineRun({{-inner, 0}, {inner, 0}}), s, {}}, {"right wall", rightWall, s, {}},
                    {"right ledge", rightLedge, s, {}}});
        } else {
            panel.edges.insert(panel.edges.end(),
                {{"left corner side", lineRun({{-w, q}, {-w, 0}}), s, {}},
                    {"left corner bottom", lineRun({{-w, 0}, {-inner, 0}}), s, {}},
                    {"bottom", lineRun({{-inner, 0}, {inner, 0}}), s, {}},
                    {"right corner bottom", lineRun({{inner, 0}, {w, 0}}), s, {}},
                    {"right corner side", lineRun({{w, 0}, {w, q}}), s, {}}});
            for (const auto& [lineName, run] : {std::pair{"left ledge", leftLedge}, {"left wall", leftWall},
                     {"right wall", rightWall}, {"right ledge", rightLedge}})
                panel.lines.push_back({lineName, FaceLine::Kind::Topstitch, run});
            if (const double square = q - s; d.choice("boxing") == "from-seams" && square > 0)
                for (const double side : {-1.0, 1.0})
                    panel.lines.push_back({side < 0 ? "left square" : "right square", FaceLine::Kind::Slash,
                        lineRun({{side * w, square}, {side * (w - square), square}, {side * (w - square), 0}})});
            panel.areas["face"] = lineRun({{mouth, top}, {-mouth, top}, {-w, q}, {-inner, q}, {-inner, 0}, {inner, 0},
                {inner, q}, {w, q}, {mouth, top}});
        }
        panel.edges.push_back({"right side", lineRun({{w, q}, {mouth, top}}), s, {}});
        if (pleats > 0)
            markPleats(panel, d.pattern.values, inner, top);
        if (!c.isLining)
            d.pattern.bottoms.push_back({c.key(part), {-inner, 0, inner, q}, false});
    }
    const auto sides = [&](const std::string& seam, const Message& name, const std::string& of,
                           const std::string& mate) {
        std::vector<EdgeUse> a{c.use("front", of + " side")}, b{c.use("back", mate + " side", true)};
        if (!cut)
            a.insert(of == "right" ? a.begin() : a.end(), c.use("front", of + " corner side")),
                b.insert(of == "right" ? b.begin() : b.end(), c.use("back", mate + " corner side", true));
        c.join(seam, name, a, b);
    };
    sides("side right", say("Right side"), "right", "left");
    sides("side left", say("Left side"), "left", "right");
    std::vector<EdgeUse> a{c.use("front", "bottom")}, b{c.use("back", "bottom", true)};
    if (!cut) {
        a = {c.use("front", "left corner bottom"), c.use("front", "bottom"), c.use("front", "right corner bottom")};
        b = {c.use("back", "right corner bottom", true), c.use("back", "bottom", true),
            c.use("back", "left corner bottom", true)};
    }
    c.leaveOpen(c.join("bottom", say("Bottom"), a, b));
    // The side seam is laid on the bottom seam: what lies beside the one is sewn to what lies beside the other.
    c.join("box right", say("Right boxed corner"), {c.use("front", "right ledge"), c.use("back", "left ledge")},
        {c.use("front", "right wall", true), c.use("back", "left wall", true)});
    c.join("box left", say("Left boxed corner"), {c.use("back", "right ledge"), c.use("front", "left ledge")},
        {c.use("back", "right wall", true), c.use("front", "left wall", true)});
}

void sewBoxed(CoatDraft& c)
{
    const double pleats = c.isLining ? 0 : pleatHalf(c.d.pattern.values);
    c.sew({.id = "sides",
        .title = say("Sew the {}", c.what(say("side and bottom seams"))),
        .seams = {"side right", "side left", "bottom"},
        .consumes = {"front", "back"},
        .yields = "body",
        .phase = "Shell assembly",
        .before = pleats > 0
            ? std::vector<Act>{{.verb = Act::Verb::Pleat, .pieces = {"front", "back"}, .distance = 2 * c.d("pleat")}}
            : std::vector<Act>{},
        .then = {act::press({}, Act::To::Open)},
        .check = pleats > 0 ? say("Pleated, the bottom seam is {} between the boxes.", Len(c.d("width"))) : Message()});
    const std::string& school = c.d.choice("boxing");
    const Message how = school == "pre-cut"
        ? say("Pull each cut corner apart until its side seam lies on the bottom seam; sew across the raw edges.")
        : school == "from-seams" ? say("Cut the squares away along their lines. Pull each corner apart until its side "
                                       "seam lies on the bottom seam; sew across the raw edges.")
                                 : say("Pull each corner apart until its side seam lies on the bottom seam; sew across "
                                       "on the line, square to the seam. Trim the tip to the allowance.");
    c.sew({.id = "boxes",
        .title = say("Box the {}", c.what(say("corners"))),
        .seams = {"box right", "box left"},
        .consumes = {"body"},
        .yields = "shell",
        .phase = "Shell assembly",
        .before = {{.verb = Act::Verb::Box, .taken = school == "across" ? 1.0 : 0.0, .note = how}},
        .check = say("Both corners are {} wide.", Len(2 * (c.d("depth") / 2 - c.shrink)))});
}

void foldBoxed(Folder& folder, const Pattern& p, const LaidCoat& coat)
{
    const double in = coat.in, q = p.depth / 2 - in, h = p.height - in, pleats = !coat.lining ? pleatHalf(p.values) : 0,
                 w = (p.width + p.depth) / 2 - 2 * in + pleats, lean = p.values.at("taper") - 2 * in + pleats;
    // The fold at the sides leans with the side seam, so that the seam stays in the middle of the side.
    const auto side = [=](double sign) {
        return [=](Point at) {
            const double up = std::max(at.y - q, 0.0), edge = w - lean * up / h, fold = edge - q;
            const double over = std::max(std::abs(at.x) - fold, 0.0);
            const double folded = fold > 0 ? (fold - pleats * (1 - up / h)) / fold
                                           : 1; // what the pleats take, most at the base
            return Vec3{sign * std::copysign(std::min(std::abs(at.x), fold) * folded, at.x), up + in,
                sign * std::max(q - over - std::max(q - at.y, 0.0), 0.0)}; // the tip beyond the box lies flat
        };
    };
    const std::vector<double> bendX{-(w - q), w - q}, bendY{q};
    // Above the boxes the folds lean with the side seams.
    std::vector<Line> aslant;
    for (const double s : {-1.0, 1.0})
        if (lean != 0)
            aslant.push_back({{s * (w - q), q}, {s * (w - q - lean), q + h}});
    folder.lay(coat.key("front"), side(1), bendX, bendY, 0, aslant);
    folder.lay(coat.key("back"), side(-1), bendX, bendY, 0, aslant);
}

} // namespace tectonis
