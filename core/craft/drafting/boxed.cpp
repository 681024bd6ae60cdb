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

/// One coat's panel on its template: y from the shell's bottom seam up, half widths on the stitch line.
struct BoxedBody {
    double ledge, top, middle; ///< heights: of the boxes, of the mouth, where a wider seam is reached
    double inner;              ///< half of the bottom between the boxes
    double lean;               ///< mm that a side leans in, per mm upwards
    double raise = 0;          ///< mm that the bottom seam is sewn further in

    BoxedBody(const Pattern& p, bool lining, double shrink)
    {
        const auto v = [&](const char* name) { return p.values.at(name); };
        const double q = v("depth") / 2 - shrink, height = v("height") - shrink;
        m_wide = lining ? wideBy(p) : 0;
        m_low = (v("width") + v("depth")) / 2 - 2 * shrink + (lining ? 0 : pleatHalf(p.values)), m_base = q;
        top = height + q, ledge = q + m_wide, middle = q + height / 2;
        lean = (m_low - (v("width") + v("depth")) / 2 + v("taper")) / height;
        // Ledge and wall of a box are sewn to each other: what a leaning side loses at the ledge, the wall loses below.
        raise = m_wide * (std::hypot(1, lean) + lean);
        inner = m_low - q - m_wide;
    }

    double halfAt(double y) const { return m_low - lean * (y - m_base) - m_wide * std::hypot(1, lean) * eased(y); }
    double low() const { return halfAt(ledge); }
    /// Half of the depth: between the fold and the side seam.
    double depthAt(double y) const { return m_base - (raise - m_wide) * eased(y); }

private:
    double m_low = 0, m_base = 0, m_wide = 0;
    double eased(double y) const { return std::clamp((top - y) / (top - middle), 0.0, 1.0); }
};

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
    const BoxedBody o(d.pattern, c.isLining, c.shrink);
    const double top = o.top, w = o.low(), q = o.ledge, inner = o.inner, base = o.raise, s = c.allowance,
                 mouth = o.halfAt(top), low = s + c.wide, bottom = s + base;
    const bool cut = d.choice("boxing") == "pre-cut", eases = c.wide > 0;
    const Run leftLedge = lineRun({{-w, q}, {-inner, q}}), leftWall = lineRun({{-inner, q}, {-inner, base}}),
              rightWall = lineRun({{inner, base}, {inner, q}}), rightLedge = lineRun({{inner, q}, {w, q}});
    const Point middle{o.halfAt(o.middle), o.middle};
    for (const auto& [part, code, name] : {std::tuple{"front", "A", say("Front")}, {"back", "B", say("Back")}}) {
        Piece& panel = c.add(part, code, name, "panel");
        panel.edges.push_back({"top", lineRun({{mouth, top}, {-mouth, top}}), c.mouth, {}});
        if (eases)
            panel.edges.push_back({"left ease", lineRun({{-mouth, top}, {-middle.x, middle.y}}), s, low});
        panel.edges.push_back({"left side",
            eases ? lineRun({{-middle.x, middle.y}, {-w, q}}) : lineRun({{-mouth, top}, {-w, q}}), low, {}});
        if (cut) {
            panel.edges.insert(panel.edges.end(),
                {{"left ledge", leftLedge, low, {}}, {"left wall", leftWall, low, {}},
                    {"bottom", lineRun({{-inner, base}, {inner, base}}), bottom, {}},
                    {"right wall", rightWall, low, {}}, {"right ledge", rightLedge, low, {}}});
        } else {
            panel.edges.insert(panel.edges.end(),
                {{"left corner side", lineRun({{-w, q}, {-w, base}}), bottom, {}},
                    {"left corner bottom", lineRun({{-w, base}, {-inner, base}}), bottom, {}},
                    {"bottom", lineRun({{-inner, base}, {inner, base}}), bottom, {}},
                    {"right corner bottom", lineRun({{inner, base}, {w, base}}), bottom, {}},
                    {"right corner side", lineRun({{w, base}, {w, q}}), bottom, {}}});
            for (const auto& [lineName, run] : {std::pair{"left ledge", leftLedge}, {"left wall", leftWall},
                     {"right wall", rightWall}, {"right ledge", rightLedge}})
                panel.lines.push_back({lineName, FaceLine::Kind::Topstitch, run});
            if (const double square = q - base - low; d.choice("boxing") == "from-seams" && square > 0)
                for (const double side : {-1.0, 1.0})
                    panel.lines.push_back({side < 0 ? "left square" : "right square", FaceLine::Kind::Slash,
                        lineRun({{side * w, base + square}, {side * (w - square), base + square},
                            {side * (w - square), base}})});
            std::vector<Point> face{{mouth, top}, {-mouth, top}};
            if (eases)
                face.push_back({-middle.x, middle.y});
            for (const Point p : {Point{-w, q}, {-inner, q}, {-inner, base}, {inner, base}, {inner, q}, {w, q}})
                face.push_back(p);
            if (eases)
                face.push_back(middle);
            face.push_back({mouth, top});
            panel.areas["face"] = lineRun(face);
        }
        panel.edges.push_back(
            {"right side", eases ? lineRun({{w, q}, middle}) : lineRun({{w, q}, {mouth, top}}), low, {}});
        if (eases)
            panel.edges.push_back({"right ease", lineRun({middle, {mouth, top}}), low, s});
        if (pleats > 0)
            markPleats(panel, d.pattern.values, inner, top);
        if (!c.isLining)
            d.pattern.bottoms.push_back({c.key(part), {-inner, 0, inner, q}, false});
    }
    const auto sides = [&](const std::string& seam, const Message& name, const std::string& of,
                           const std::string& mate) {
        // From the bottom up at the right, from the mouth down at the left.
        std::vector<std::string> parts{" side"};
        if (!cut)
            parts.insert(parts.begin(), " corner side");
        if (eases)
            parts.push_back(" ease");
        if (of == "left")
            std::reverse(parts.begin(), parts.end());
        std::vector<EdgeUse> a, b;
        for (const auto& part : parts)
            a.push_back(c.use("front", of + part)), b.push_back(c.use("back", mate + part, true));
        c.join(seam, name, a, b).allowance += c.wide;
    };
    sides("side right", say("Right side"), "right", "left");
    sides("side left", say("Left side"), "left", "right");
    std::vector<EdgeUse> a{c.use("front", "bottom")}, b{c.use("back", "bottom", true)};
    if (!cut) {
        a = {c.use("front", "left corner bottom"), c.use("front", "bottom"), c.use("front", "right corner bottom")};
        b = {c.use("back", "right corner bottom", true), c.use("back", "bottom", true),
            c.use("back", "left corner bottom", true)};
    }
    Seam& along = c.join("bottom", say("Bottom"), a, b);
    along.allowance += base;
    c.leaveOpen(along);
    // The side seam is laid on the bottom seam: what lies beside the one is sewn to what lies beside the other.
    c.join("box right", say("Right boxed corner"), {c.use("front", "right ledge"), c.use("back", "left ledge")},
         {c.use("front", "right wall", true), c.use("back", "left wall", true)})
        .allowance += c.wide;
    c.join("box left", say("Left boxed corner"), {c.use("back", "right ledge"), c.use("front", "left ledge")},
         {c.use("back", "right wall", true), c.use("front", "left wall", true)})
        .allowance += c.wide;
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
        .check = say("Both corners are {} wide.", Len(2 * BoxedBody(c.d.pattern, c.isLining, c.shrink).depthAt(0)))});
}

void workBoxedSlack(Drafter& d, double shrink)
{
    const BoxedBody shell(d.pattern, false, 0), lining(d.pattern, true, shrink);
    const auto hull = [&](const BoxedBody& body, double pleats) {
        const double width = 2 * (body.inner - pleats), depth = 2 * body.depthAt(0);
        return Hull{width, depth, body.top - body.ledge, 2 * (width + depth)};
    };
    const Hull outer = hull(shell, pleatHalf(d.pattern.values));
    const double wall = d.stack(d.piece("front").role, "front", "shell");
    workSlack(d, "front", outer, hull(lining, 0), outer.girth - 8 * wall);
    if (lining.raise <= 0)
        return;
    workWide(d, "front");
    const double lean = shell.lean, wide = wideBy(d.pattern);
    d.work({lined("front"), "lining.raise", say("Lining's bottom seam wider by"), "wide*(k + lean)",
        {{"wide", wide}, {"k", std::hypot(1, lean)}, {"lean", lean}}, 0, Working::Kind::Geometry, "mm",
        say("so that both sides of the boxed corners agree; k: square to a leaning side")});
}

void foldBoxed(Folder& folder, const Pattern& p, const LaidCoat& coat)
{
    const BoxedBody o(p, coat.lining, coat.in);
    const double pleats = !coat.lining ? pleatHalf(p.values) : 0, start = p.height - (o.top - o.ledge);
    // The fold at the sides leans with the side seam, so that the seam stays in the middle of the side.
    const auto side = [=](double sign) {
        return [=](Point at) {
            const double y = std::max(at.y, o.ledge), deep = o.depthAt(y), fold = o.halfAt(y) - deep;
            const double over = std::max(std::abs(at.x) - fold, 0.0);
            const double folded = fold > 0 ? (fold - pleats * (1 - (y - o.ledge) / (o.top - o.ledge))) / fold
                                           : 1; // what the pleats take, most at the base
            return Vec3{sign * std::copysign(std::min(std::abs(at.x), fold) * folded, at.x), y - o.ledge + start,
                sign * std::max(deep - over - (y - at.y), 0.0)}; // the tip beyond the box lies flat
        };
    };
    const std::vector<double> bendX{-o.inner, o.inner}, bendY{o.ledge};
    // Above the boxes the folds lean with the side seams.
    std::vector<Line> aslant;
    const auto foldAt = [&](double y) { return o.halfAt(y) - o.depthAt(y); };
    std::vector<double> heights{o.ledge, o.top};
    if (o.raise > 0)
        heights.insert(heights.begin() + 1, o.middle);
    for (const double s : {-1.0, 1.0})
        for (std::size_t i = 0; i + 1 < heights.size(); ++i)
            if (const Line line{{s * foldAt(heights[i]), heights[i]}, {s * foldAt(heights[i + 1]), heights[i + 1]}};
                std::abs(line.a.x - line.b.x) > 1e-9)
                aslant.push_back(line);
    folder.lay(coat.key("front"), side(1), bendX, bendY, 0, aslant);
    folder.lay(coat.key("back"), side(-1), bendX, bendY, 0, aslant);
}

} // namespace tectonis
