// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/svg.hpp"

#include "formats/xml.hpp"

#include "files/files.hpp"
#include "units/error.hpp"

#include "pattern/template.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <cmath>

namespace tectonis {
namespace {

std::string number(double v) { return formatNumber(v, 5); }

std::string pointText(Point p) { return number(p.x) + " " + number(-p.y); }

std::string arcTo(const Arc& a, const Placement& m)
{
    // SVG draws no full circle in one arc: two halves, or three parts of a longer sweep.
    std::string out;
    const int parts = std::abs(a.sweep) > 1.9 * pi ? 2 : 1;
    for (int i = 1; i <= parts; ++i) {
        const Point to = m(a.centre + polar(a.start + a.sweep * i / parts) * a.radius);
        const bool large = std::abs(a.sweep) / parts > pi;
        const bool clockwiseOnScreen = (a.sweep > 0) == m.mirror; // y is turned over
        out += fmt::format("A{} {} 0 {} {} {} ", number(a.radius), number(a.radius), large ? 1 : 0,
            clockwiseOnScreen ? 1 : 0, pointText(to));
    }
    return out;
}

std::string pathTag(const std::string& cls, const std::string& data)
{
    return fmt::format("<path class=\"{}\" d=\"{}\"/>\n", cls, data);
}

} // namespace

std::string svgPath(const Run& run, const Placement& m, bool closed)
{
    if (run.empty())
        return "";
    std::string out = "M" + pointText(m(startOf(run))) + " ";
    for (const auto& s : run) {
        if (const auto* a = std::get_if<Arc>(&s))
            out += arcTo(*a, m);
        else if (const auto* c = std::get_if<Cubic>(&s))
            out += fmt::format("C{} {} {} ", pointText(m(c->p1)), pointText(m(c->p2)), pointText(m(c->p3)));
        else
            out += "L" + pointText(m(endOf(s))) + " ";
    }
    return out + (closed ? "Z" : "");
}

std::pair<Point, Point> notchTick(const Piece& piece, const Notch& notch)
{
    const Edge* e = piece.edge(notch.edge);
    if (!e)
        return {};
    const Point at = pointAlong(e->stitch, notch.along), out = rightOf(tangentAlong(e->stitch, notch.along));
    const double share = e->length() > 0 ? notch.along / e->length() : 0;
    const double allowance = std::lerp(e->allowance, e->allowanceAtEnd.value_or(e->allowance), share);
    const double depth = std::min(5.0, std::max(1.0, allowance - 2)); // stops 2 mm short of the stitch line
    return {at + out * allowance, at + out * (allowance - depth)};
}

std::string pieceSvg(const Pattern& p, const Piece& whole, const std::string& designName)
{
    const Piece piece = templateOf(whole);
    Box box = boundsOf(piece.cut);
    constexpr double margin = 5;
    const Placement m{};
    std::string out = fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" "
        "height=\"{1}mm\" viewBox=\"{2} {3} {0} {1}\">\n",
        number(box.width() + 2 * margin), number(box.height() + 2 * margin), number(box.x0 - margin),
        number(-box.y1 - margin));
    out += fmt::format("<title>{} – {} {}, size {}</title>\n", escaped(designName), escaped(piece.code),
        escaped(words(piece.name)), escaped(p.size));
    out += "<style>path{fill:none;stroke:#222;stroke-width:0.35} .stitch{stroke-dasharray:3 2;stroke:#666} "
           ".fold{stroke-dasharray:6 2 1 2} .placement{stroke-dasharray:1.5 1.5} "
           ".on-fold{stroke-width:0.7;stroke-dasharray:8 2 2 2} .slash{stroke:#a33} "
           ".interlining{stroke:#999;stroke-dasharray:0.6 1.4} "
           "text{font-family:sans-serif;font-size:6px;fill:#222;text-anchor:middle}</style>\n";
    out += pathTag("cut", svgPath(piece.cut, m, true));
    out += pathTag("stitch", svgPath(piece.stitch(), m, true));
    for (const auto& e : piece.edges)
        if (e.onFold)
            out += pathTag("on-fold", svgPath(e.stitch, m, false));
    for (const auto& line : piece.lines) {
        if (line.kind == FaceLine::Kind::Bridge)
            continue;
        const char* cls = line.kind == FaceLine::Kind::Fold || line.kind == FaceLine::Kind::Pleat ? "fold"
            : line.kind == FaceLine::Kind::Slash                                                  ? "slash"
                                                                                                  : "placement";
        out += pathTag(cls, svgPath(line.run, m, false));
    }
    for (const auto& layer : piece.layers)
        out += pathTag("interlining", svgPath(layer.outline, m, true));
    for (const auto& n : piece.notches) {
        const auto [a, b] = notchTick(piece, n);
        out += pathTag(n.stop ? "notch stop" : "notch", svgPath(lineRun({a, b}), m, false));
    }
    for (const auto& drill : piece.drills)
        out += pathTag("drill",
            svgPath(lineRun({drill.at - Point{3, 0}, drill.at + Point{3, 0}}), m, false)
                + svgPath(lineRun({drill.at - Point{0, 3}, drill.at + Point{0, 3}}), m, false));
    const Point c = box.centre(), g = polar(radians(piece.grain)) * (std::min(box.width(), box.height()) * 0.3);
    out += pathTag("grain", svgPath(lineRun({c - g, c + g}), m, false));
    out += fmt::format("<text x=\"{}\" y=\"{}\">{} {} · size {} · cut {} {}{}</text>\n", number(c.x), number(-c.y + 9),
        escaped(piece.code), escaped(words(piece.name)), escaped(p.size), piece.count, escaped(piece.material),
        piece.folds == 2       ? " on both folds"
            : piece.folds == 1 ? " on the fold"
                               : "");
    return out + "</svg>\n";
}

std::size_t writePieces(const std::vector<const Pattern*>& patterns, const std::string& designName,
    const std::filesystem::path& folder, const std::function<bool(int, int)>& progress)
{
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error)
        throw InputError(folder.string(), say("the folder cannot be made: {}", error.message()));
    std::vector<std::pair<const Pattern*, const Piece*>> pieces;
    std::vector<std::string> names;
    for (const Pattern* p : patterns)
        for (const auto& piece : p->pieces) {
            pieces.emplace_back(p, &piece);
            names.push_back(piece.code + "-" + p->size + ".svg");
        }
    names = uniqueFileNames(names);
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (progress && !progress(int(i), int(pieces.size())))
            return i;
        writeWhole(folder / names[i], pieceSvg(*pieces[i].first, *pieces[i].second, designName));
    }
    return pieces.size();
}

} // namespace tectonis
