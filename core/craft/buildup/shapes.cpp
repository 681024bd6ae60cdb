// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/shapes.hpp"

#include "pattern/labels.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <sstream>

namespace tectonis {
namespace {

InputError noShape(const std::string& text)
{
    return InputError(say("layers"),
        say("“{}” is no shape; write strip 40 along EDGE, patch 60 x 40 at RIGHT DOWN, corner 60 x 60 lower left, "
            "drawn "
            "X,Y X,Y X,Y, as PIECE less 3, or the name of an area",
            text));
}

Measure measureOf(const std::string& text)
{
    if (!text.ends_with('%'))
        return {parseLength(text), false};
    const double share = parseLength(text.substr(0, text.size() - 1));
    return {share / 100, true};
}

Measure wide(const std::string& text)
{
    const Measure out = measureOf(text);
    if (!(out.value > 0))
        throw InputError(say("layers"), say("a layer of no width: {}", text));
    return out;
}

std::vector<std::string> wordsOf(const std::string& text)
{
    std::istringstream in(text);
    std::vector<std::string> out;
    for (std::string word; in >> word;)
        out.push_back(word);
    return out;
}

std::string joined(const std::vector<std::string>& all, std::size_t from, std::size_t to)
{
    std::string out;
    for (std::size_t i = from; i < to; ++i)
        out += (i > from ? " " : "") + all[i];
    return out;
}

Polyline closedFrom(Polyline line)
{
    if (!line.empty() && distance(line.front(), line.back()) > 1e-9)
        line.push_back(line.front());
    if (areaOf(lineRun(line)) < 0)
        std::reverse(line.begin(), line.end());
    return line;
}

constexpr double kStep = 0.005; // mm between a curve and its chords

/// A strip beside an edge: straight ones by cutting the layer parallel to the edge, bent ones point by point.
std::optional<Run> strip(const Edge& edge, double width, const Run& trimmed, double reach)
{
    const Polyline along = flattened(edge.stitch, kStep);
    if (along.size() < 2)
        return std::nullopt;
    const auto outward = [&](std::size_t i) { // right of the run, at its points
        const Point d = i == 0      ? tangentAlong(edge.stitch, 0)
            : i + 1 == along.size() ? tangentAlong(edge.stitch, edge.length())
                                    : unit(unit(along[i] - along[i - 1]) + unit(along[i + 1] - along[i]));
        return Point{d.y, -d.x};
    };
    if (edge.stitch.size() == 1 && std::holds_alternative<Line>(edge.stitch.front())) {
        const Point d = unit(along.back() - along.front()), out{d.y, -d.x};
        const double far = 1e5;
        const Point a = along.front() + out * (reach - width) - d * far, b = a + d * (2 * far);
        // Right of the line a to b, which runs as the edge does.
        const Polyline cut = clippedTo(flattened(trimmed, kStep), {b, a, a + out * far, b + out * far});
        return cut.size() > 3 ? std::optional(lineRun(cut)) : std::nullopt;
    }
    Polyline line;
    for (std::size_t i = 0; i < along.size(); ++i)
        line.push_back(along[i] + outward(i) * reach);
    for (std::size_t i = along.size(); i-- > 0;)
        line.push_back(along[i] + outward(i) * (reach - width));
    line = closedFrom(line);
    if (selfCrossing(line))
        throw InputError(say("layers"),
            say("a strip {} wide folds over itself at the curve of “{}”", Len(width), sideLabel(edge.name.text())));
    return lineRun(line);
}

} // namespace

LayerShape parseShape(const std::string& text)
{
    using K = LayerShape::Kind;
    const auto words = wordsOf(text);
    LayerShape out;
    if (words.empty())
        return out;
    const std::string& first = words.front();
    const std::size_t n = words.size();
    try {
        if (first == "strip" && n >= 4 && words[2] == "along") {
            out.kind = K::Strip, out.width = wide(words[1]), out.name = joined(words, 3, n);
            if (out.width.share)
                throw noShape(text);
        } else if (first == "patch" && n == 7 && words[2] == "x" && words[4] == "at") {
            out.kind = K::Patch, out.width = wide(words[1]), out.height = wide(words[3]);
            out.x = measureOf(words[5]), out.y = measureOf(words[6]);
        } else if (first == "corner" && n == 6 && words[2] == "x" && (words[4] == "lower" || words[4] == "upper")
            && (words[5] == "left" || words[5] == "right")) {
            out.kind = K::Corner, out.width = wide(words[1]), out.height = wide(words[3]);
            out.name = words[4] + " " + words[5];
        } else if (first == "drawn" && n >= 4) {
            out.kind = K::Drawn;
            for (std::size_t i = 1; i < n; ++i) {
                const auto comma = words[i].find(',');
                if (comma == std::string::npos)
                    throw noShape(text);
                out.points.emplace_back(measureOf(words[i].substr(0, comma)), measureOf(words[i].substr(comma + 1)));
            }
        } else if (first == "as" && (n == 2 || (n == 4 && words[2] == "less"))) {
            out.kind = K::Copied, out.name = words[1], out.less = n == 4 ? parseLength(words[3]) : 0;
        } else if ((first == "strip" || first == "patch" || first == "corner" || first == "drawn")
            && (n == 1 || std::string("+-.0123456789").find(words[1].front()) != std::string::npos))
            throw noShape(text); // areas may be called "patch for the snap"
        else
            out.kind = K::Area, out.name = text;
    } catch (const InputError& e) {
        if (e.place().empty())
            throw noShape(text); // a length within it that is none
        throw;
    }
    return out;
}

Polyline clippedTo(const Polyline& outline, const Polyline& convex)
{
    Polyline out = outline;
    if (out.size() > 1 && distance(out.front(), out.back()) < 1e-9)
        out.pop_back();
    for (std::size_t i = 0; i < convex.size() && !out.empty(); ++i) {
        const Point a = convex[i], d = convex[(i + 1) % convex.size()] - a;
        const auto left = [&](Point p) { return cross(d, p - a); };
        Polyline kept;
        for (std::size_t k = 0; k < out.size(); ++k) {
            const Point p = out[k], q = out[(k + 1) % out.size()];
            const double at = left(p), then = left(q);
            if (at >= 0)
                kept.push_back(p);
            if ((at > 0 && then < 0) || (at < 0 && then > 0))
                kept.push_back(p + (q - p) * (at / (at - then)));
        }
        out = std::move(kept);
    }
    if (!out.empty())
        out.push_back(out.front());
    return out;
}

namespace {

constexpr double kLeast = 4; // mm that is left of what is pulled smaller

std::string textOfMeasure(const Measure& m)
{
    return m.share ? fmt::format("{:.6g}%", m.value * 100) : fmt::format("{:.6g}", m.value);
}

Measure changed(Measure m, double by, double whole, double step, double least)
{
    if (m.share && whole > 0)
        m.value = std::round(std::max(least, m.value * whole + by) / whole * 200) / 200;
    else
        m.value = std::max(least, std::round((m.value + by) / step) * step);
    return m;
}

constexpr double kAnywhere = -1e9;

} // namespace

std::string textOf(const LayerShape& shape)
{
    using K = LayerShape::Kind;
    const auto say2 = [&] { return textOfMeasure(shape.width) + " x " + textOfMeasure(shape.height); };
    switch (shape.kind) {
    case K::Whole: return "";
    case K::Area: return shape.name;
    case K::Strip: return "strip " + textOfMeasure(shape.width) + " along " + shape.name;
    case K::Patch: return "patch " + say2() + " at " + textOfMeasure(shape.x) + " " + textOfMeasure(shape.y);
    case K::Corner: return "corner " + say2() + " " + shape.name;
    case K::Drawn: {
        std::string out = "drawn";
        for (const auto& [x, y] : shape.points)
            out += " " + textOfMeasure(x) + "," + textOfMeasure(y);
        return out;
    }
    case K::Copied: return fmt::format("as {} less {:.6g}", shape.name, shape.less);
    }
    return "";
}

std::optional<ShapeHold> holdAt(const LayerShape& shape, const Piece& piece, const Run& outline, Point at, double reach)
{
    using K = LayerShape::Kind;
    if (shape.kind == K::Whole || shape.kind == K::Area)
        return std::nullopt;
    const Box own = boundsOf(piece.stitch());
    if (shape.kind == K::Drawn) {
        ShapeHold nearest;
        double least = reach;
        for (std::size_t i = 0; i < shape.points.size(); ++i)
            if (const Point p{own.centre().x + shape.points[i].first.of(own.width()),
                    own.y1 - shape.points[i].second.of(own.height())};
                distance(p, at) < least)
                nearest.point = int(i), least = distance(p, at);
        if (nearest.point >= 0)
            return nearest;
    } else {
        const Box box = boundsOf(outline);
        if (!box.contains(at, reach))
            return std::nullopt;
        const auto side = [&](double low, double high, double where) {
            const double least = std::min(reach, (high - low) / 3);
            return where < low + least ? -1 : where > high - least ? 1 : 0;
        };
        const ShapeHold hold{side(box.x0, box.x1, at.x), side(box.y0, box.y1, at.y)};
        if (hold.across != 0 || hold.up != 0)
            return hold;
    }
    return insideOutline(flattened(outline, kStep), at) ? std::optional(ShapeHold{}) : std::nullopt;
}

LayerShape pulled(const LayerShape& shape, const ShapeHold& hold, const Piece& piece, Point at, Point by, double step)
{
    using K = LayerShape::Kind;
    const Box own = boundsOf(piece.stitch());
    LayerShape out = shape;
    const auto wider = [&](double more) { out.width = changed(shape.width, more, own.width(), step, kLeast); };
    const auto taller = [&](double more) { out.height = changed(shape.height, more, own.height(), step, kLeast); };
    const auto moved = [&](const Measure& m, double more, double whole) {
        return changed(m, more, whole, step, kAnywhere);
    };
    switch (shape.kind) {
    case K::Whole:
    case K::Area: break;
    case K::Strip:
        if (const Edge* edge = piece.edge(EdgeId(shape.name))) { // inwards from the edge
            double along = 0;
            for (double i = 0; i <= 200; ++i)
                if (const double here = edge->length() * i / 200;
                    distance(pointAlong(edge->stitch, here), at) < distance(pointAlong(edge->stitch, along), at))
                    along = here;
            const Point d = tangentAlong(edge->stitch, along);
            wider(dot(by, Point{-d.y, d.x}));
        }
        break;
    case K::Patch:
        if (hold.across == 0 && hold.up == 0)
            out.x = moved(shape.x, by.x, own.width()), out.y = moved(shape.y, -by.y, own.height());
        // The edge across from the one that is held stays.
        if (hold.across != 0) {
            wider(hold.across * by.x);
            const double more = out.width.of(own.width()) - shape.width.of(own.width());
            out.x = changed(shape.x, hold.across * more / 2, own.width(), step / 2, kAnywhere);
        }
        if (hold.up != 0) {
            taller(hold.up * by.y);
            const double more = out.height.of(own.height()) - shape.height.of(own.height());
            out.y = changed(shape.y, -hold.up * more / 2, own.height(), step / 2, kAnywhere);
        }
        break;
    case K::Corner: {
        const bool whole = hold.across == 0 && hold.up == 0;
        if (hold.across != 0 || whole)
            wider(shape.name.ends_with("left") ? by.x : -by.x);
        if (hold.up != 0 || whole)
            taller(shape.name.starts_with("lower") ? by.y : -by.y);
        break;
    }
    case K::Drawn:
        for (std::size_t i = 0; i < out.points.size(); ++i)
            if (hold.point < 0 || hold.point == int(i))
                out.points[i] = {moved(shape.points[i].first, by.x, own.width()),
                    moved(shape.points[i].second, -by.y, own.height())};
        break;
    case K::Copied:
        out.less = std::max(0.0, std::round((shape.less - hold.across * by.x - hold.up * by.y) / step) * step);
        break;
    }
    return out;
}

std::optional<Run> shapeOn(
    const LayerShape& shape, const Piece& piece, const Run& trimmed, double reach, const Pattern& pattern)
{
    using K = LayerShape::Kind;
    const Box box = boundsOf(piece.stitch());
    const Point middle{box.centre().x, box.y1};
    const auto within = [&](double x0, double y0, double x1, double y1) -> std::optional<Run> {
        const Polyline cut = clippedTo(flattened(trimmed, kStep), {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}});
        return cut.size() > 3 && areaOf(lineRun(cut)) > 1 ? std::optional(lineRun(cut)) : std::nullopt;
    };
    const double w = shape.width.of(box.width()), h = shape.height.of(box.height());
    switch (shape.kind) {
    case K::Whole: return trimmed;
    case K::Area: {
        const auto area = piece.areas.find(shape.name);
        return area == piece.areas.end() ? std::nullopt : std::optional(area->second);
    }
    case K::Strip: {
        const Edge* edge = piece.edge(EdgeId(shape.name));
        return edge ? strip(*edge, w, trimmed, reach) : std::nullopt;
    }
    case K::Patch: {
        const Point at = middle + Point{shape.x.of(box.width()), -shape.y.of(box.height())};
        return within(at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2);
    }
    case K::Corner: {
        const Box all = boundsOf(trimmed);
        const bool left = shape.name.ends_with("left"), low = shape.name.starts_with("lower");
        const double x = left ? all.x0 : all.x1 - w, y = low ? all.y0 : all.y1 - h;
        return within(x, y, x + w, y + h);
    }
    case K::Drawn: {
        Polyline line;
        for (const auto& [x, y] : shape.points)
            line.push_back(middle + Point{x.of(box.width()), -y.of(box.height())});
        line = closedFrom(line);
        if (selfCrossing(line))
            throw InputError(say("layers"), say("the drawn outline crosses itself in size {}", pattern.size));
        return lineRun(line);
    }
    case K::Copied: {
        const Piece* other = pattern.piece(shape.name);
        if (!other)
            return std::nullopt;
        std::vector<OffsetEdge> edges;
        for (const auto& e : other->edges)
            edges.push_back({e.stitch, -shape.less, -shape.less});
        const Run outline = offsetOutline(edges);
        const Box own = boundsOf(outline);
        if (outline.empty() || areaOf(outline) <= 1)
            return std::nullopt;
        return placed(outline, Placement{middle.x - own.centre().x, middle.y - shape.less - own.y1, 0});
    }
    }
    return std::nullopt;
}

std::optional<double> reachPast(const Polyline& outline, const Run& stitch, double allowance)
{
    std::optional<double> out;
    const Polyline along = flattened(stitch, kStep);
    const double length = lengthOf(stitch);
    const int n = std::max(2, int(length / 3));
    for (int i = 1; i < n; ++i) {
        const Point p = pointAlong(stitch, length * i / n), d = tangentAlong(stitch, length * i / n);
        const Point away{d.y, -d.x};
        if (!insideOutline(outline, p - away * 0.01))
            continue;
        double in = -0.01, beyond = allowance;
        if (insideOutline(outline, p + away * (allowance - 0.001)))
            in = allowance;
        else
            for (int k = 0; k < 24; ++k) {
                const double half = (in + beyond) / 2;
                (insideOutline(outline, p + away * half) ? in : beyond) = half;
            }
        out = std::max(out.value_or(0), std::max(0.0, in));
    }
    return out;
}

Message inWords(const LayerShape& shape, const Pattern& pattern)
{
    using K = LayerShape::Kind;
    const auto told = [](const Measure& m) {
        return m.share ? say("{} %", Num(m.value * 100, 1)) : say("{}", Len(m.value));
    };
    switch (shape.kind) {
    case K::Whole: return {};
    case K::Area: return labelled(sideLabel(shape.name));
    case K::Strip: return say("a strip {} wide, {}", told(shape.width), sideLabel(shape.name));
    case K::Patch:
        return say("a patch of {} × {}, {} right of the middle and {} below the top", told(shape.width),
            told(shape.height), told(shape.x), told(shape.y));
    case K::Corner: return say("a corner of {} × {}, {}", told(shape.width), told(shape.height), sideLabel(shape.name));
    case K::Drawn: return say("an outline of its own, {} points", long(shape.points.size()));
    case K::Copied: {
        const Piece* other = pattern.piece(shape.name);
        return say("as {}, {} smaller all round", other ? other->name : naming(shape.name), Len(shape.less));
    }
    }
    return {};
}

} // namespace tectonis
