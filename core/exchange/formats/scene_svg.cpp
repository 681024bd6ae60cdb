// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/scene_svg.hpp"

#include "editing/draft.hpp"
#include "figures/figure.hpp"
#include "files/files.hpp"
#include "formats/xml.hpp"
#include "sequence/order.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

struct SkinRow {
    Skin skin;
    const char* name;
    bool textured;
};
constexpr SkinRow kSkins[] = {{Skin::Shell, "shell", false}, {Skin::ShellWrong, "shell-wrong", true},
    {Skin::Lining, "lining", false}, {Skin::LiningWrong, "lining-wrong", true}, {Skin::Strip, "strip", false},
    {Skin::StripWrong, "strip-wrong", true}, {Skin::Padding, "padding", true}, {Skin::Metal, "metal", false},
    {Skin::Tape, "tape", false}};

const SkinRow& rowOf(Skin skin)
{
    return *std::find_if(std::begin(kSkins), std::end(kSkins), [&](const SkinRow& r) { return r.skin == skin; });
}

const char* nameOf(Stroke::Kind kind)
{
    switch (kind) {
    case Stroke::Kind::Edge: return "edge";
    case Stroke::Kind::Sew: return "sew";
    case Stroke::Kind::Sewn: return "sewn";
    case Stroke::Kind::Topstitch: return "topstitch";
    case Stroke::Kind::Baste: return "baste";
    case Stroke::Kind::Fold: return "fold";
    case Stroke::Kind::Cut: return "cut";
    case Stroke::Kind::Mark: return "mark";
    }
    return "";
}

class SvgPen {
public:
    SvgPen(const Box& box, double scale, double border, Unit unit, const Language& language)
        : m_box(box), m_scale(scale), m_border(border), m_unit(unit), m_language(language)
    {}

    void operator()(const Surface& s)
    {
        const std::string d = path(s.outline, true);
        m_out += fmt::format("<path class=\"{}{}\" d=\"{}\"/>\n", rowOf(s.skin).name, s.outlined ? " outlined" : "", d);
        if (rowOf(s.skin).textured)
            m_out += fmt::format("<path class=\"texture\" d=\"{}\"/>\n", d);
        if (s.light < 0.995)
            m_out += fmt::format("<path class=\"shade\" fill-opacity=\"{:.2f}\" d=\"{}\"/>\n", 1 - s.light, d);
    }
    void operator()(const Stroke& s)
    {
        m_out += fmt::format("<path class=\"line {}\" d=\"{}\"/>\n", nameOf(s.kind), path(s.line, false));
    }
    void operator()(const Band& b)
    {
        const std::string d = path(b.line, false);
        const double w = b.width * m_scale;
        m_out += fmt::format("<path class=\"band-edge\" stroke-width=\"{:.2f}\" d=\"{}\"/>\n", w, d);
        m_out += fmt::format("<path class=\"band {}-band\" stroke-width=\"{:.2f}\" d=\"{}\"/>\n", rowOf(b.skin).name,
            std::max(0.6, w - 2), d);
    }
    void operator()(const Arrow& a)
    {
        if (a.line.size() < 2)
            return;
        m_out += fmt::format("<path class=\"line arrow\" d=\"{}\"/>\n", path(a.line, false));
        const Point tip = at(a.line.back()), t = unitOf(tip - at(a.line[a.line.size() - 2])), side{-t.y, t.x};
        const Point left = tip - t * 6 + side * 5, right = tip - t * 6 - side * 5, head = tip + t * 4;
        m_out += fmt::format("<path class=\"head\" d=\"M{:.2f} {:.2f}L{:.2f} {:.2f}L{:.2f} {:.2f}Z\"/>\n", head.x,
            head.y, left.x, left.y, right.x, right.y);
    }
    void operator()(const Word& w)
    {
        const Point p = at(w.at);
        m_out += fmt::format(
            "<text x=\"{:.2f}\" y=\"{:.2f}\">{}</text>\n", p.x, p.y + 4, escaped(words(w.text, m_unit, m_language)));
    }

    const std::string& text() const { return m_out; }

private:
    static Point unitOf(Point v) { return unit(v); }
    Point at(Point p) const { return {(p.x - m_box.x0) * m_scale + m_border, (m_box.y1 - p.y) * m_scale + m_border}; }
    std::string path(const Polyline& line, bool closed) const
    {
        std::string out;
        for (const Point q : line) {
            const Point p = at(q);
            out += fmt::format("{}{:.2f} {:.2f}", out.empty() ? "M" : "L", p.x, p.y);
        }
        return out + (closed ? "Z" : "");
    }

    Box m_box;
    double m_scale, m_border;
    Unit m_unit;
    const Language& m_language;
    std::string m_out;
};

} // namespace

std::string sceneStyle()
{
    return R"(svg.scene{--shell:#f3e9d6;--shell-wrong:#f9f4eb;--lining:#dce6ea;--lining-wrong:#eef3f5;--strip:#e3d8c2;
--strip-wrong:#f1ece1;--padding:#e4e4de;--metal:#9aa0a6;--tape:#6b6660;--ink:#332c25;--accent:#b53b1e}
svg.scene path{fill:none;stroke:none;stroke-linecap:round;stroke-linejoin:round}
svg.scene .shell{fill:var(--shell)}svg.scene .shell-wrong{fill:var(--shell-wrong)}
svg.scene .lining{fill:var(--lining)}svg.scene .lining-wrong{fill:var(--lining-wrong)}
svg.scene .strip{fill:var(--strip)}svg.scene .strip-wrong{fill:var(--strip-wrong)}
svg.scene .padding{fill:var(--padding)}svg.scene .metal{fill:var(--metal)}svg.scene .tape{fill:var(--tape)}
svg.scene .outlined{stroke:var(--ink);stroke-width:1.1}
svg.scene .texture{fill:url(#wrong-side)}svg.scene .shade{fill:#000}
svg.scene .line{stroke:var(--ink);stroke-width:1}
svg.scene .sew{stroke:var(--accent);stroke-width:2.8}
svg.scene .sewn{stroke-dasharray:4 3;stroke-linecap:butt}
svg.scene .topstitch{stroke:var(--accent);stroke-width:1.8;stroke-dasharray:5 3;stroke-linecap:butt}
svg.scene .baste{stroke:var(--accent);stroke-width:1.6;stroke-dasharray:9 6;stroke-linecap:butt}
svg.scene .fold{stroke-dasharray:8 3 2 3;stroke-linecap:butt}
svg.scene .cut,svg.scene .arrow{stroke:var(--accent);stroke-width:1.8;stroke-linecap:butt}
svg.scene .head{fill:var(--accent)}
svg.scene .band,svg.scene .band-edge{stroke-linecap:butt}svg.scene .band-edge{stroke:var(--ink)}
svg.scene .shell-band,svg.scene .shell-wrong-band{stroke:var(--shell)}
svg.scene .lining-band,svg.scene .lining-wrong-band{stroke:var(--lining)}
svg.scene .strip-band,svg.scene .strip-wrong-band{stroke:var(--strip)}
svg.scene .padding-band{stroke:var(--padding)}svg.scene .metal-band{stroke:var(--metal)}svg.scene .tape-band{stroke:var(--tape)}
svg.scene text{font:600 12px Inter,sans-serif;text-anchor:middle;fill:var(--ink);paint-order:stroke;stroke:#fff;stroke-width:3px;stroke-opacity:.75}
)";
}

std::string sceneTextures()
{
    return "<defs><pattern id=\"wrong-side\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\" "
           "patternTransform=\"rotate(45)\"><path d=\"M0 0V6\" "
           "style=\"stroke:#8a7d6b;stroke-width:.7;stroke-opacity:.6\"/>"
           "</pattern></defs>\n";
}

std::string sceneSvg(const Scene& scene, double width, double height, Unit unit, const Language& language, bool alone)
{
    const Box box = boundsOf(scene);
    if (box.empty())
        return "";
    constexpr double border = 14;
    double scale = std::min(
        (width - 2 * border) / std::max(1.0, box.width()), (height - 2 * border) / std::max(1.0, box.height()));
    if (scene.kind == Scene::Kind::Section)
        scale = std::min(scale, 3.6); // a few layers need not fill the room
    SvgPen pen(box, scale, border, unit, language);
    for (const auto& item : scene.items)
        std::visit(pen, item);
    const double w = box.width() * scale + 2 * border, h = box.height() * scale + 2 * border;
    return fmt::format(
        "<svg class=\"scene\" {}width=\"{:.0f}\" height=\"{:.0f}\" viewBox=\"0 0 {:.0f} {:.0f}\">\n{}{}</svg>\n",
        alone ? "xmlns=\"http://www.w3.org/2000/svg\" " : "role=\"img\" ", w, h, w, h,
        alone ? "<style>" + sceneStyle() + "</style>\n" + sceneTextures() : "", pen.text());
}

std::size_t writeFigures(const Design& design, const std::vector<const Pattern*>& patterns,
    const std::filesystem::path& folder, Unit unit, const Language& language,
    const std::function<bool(int done, int total)>& progress)
{
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error)
        throw InputError(folder.string(), say("the folder cannot be made: {}", error.message()));
    std::vector<std::string> names, texts;
    for (const Pattern* p : patterns) {
        const Mockup mockup = mockupOf(design, *p);
        const auto order = orderOf(design, *p);
        for (std::size_t i = 0; i < order.size(); ++i) {
            const StepFigure figure = figureOf(*p, p->steps[order[i]], &mockup, order);
            for (const auto& [scene, part] :
                {std::pair{&figure.plan, ""}, {&figure.section, "-section"}, {&figure.soFar, "-so-far"}})
                if (!scene->empty()) {
                    names.push_back(fmt::format("{:02}-{}{}.svg", i + 1, p->size, part));
                    texts.push_back(sceneSvg(*scene, 640, 480, unit, language, true));
                }
        }
    }
    names = uniqueFileNames(names);
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (progress && !progress(int(i), int(names.size())))
            return i;
        writeWhole(folder / names[i], texts[i]);
    }
    return names.size();
}

} // namespace tectonis
