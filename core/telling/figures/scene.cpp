// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/scene.hpp"

namespace tectonis {

Skin otherSide(Skin skin)
{
    switch (skin) {
    case Skin::Shell: return Skin::ShellWrong;
    case Skin::ShellWrong: return Skin::Shell;
    case Skin::Lining: return Skin::LiningWrong;
    case Skin::LiningWrong: return Skin::Lining;
    case Skin::Strip: return Skin::StripWrong;
    case Skin::StripWrong: return Skin::Strip;
    default: return skin;
    }
}

Box boundsOf(const Scene& scene)
{
    Box box;
    const auto add = [&](const Polyline& line, double border = 0) {
        for (const Point p : line)
            box.add(Point{p.x - border, p.y - border}), box.add(Point{p.x + border, p.y + border});
    };
    for (const auto& item : scene.items)
        if (const auto* surface = std::get_if<Surface>(&item))
            add(surface->outline);
        else if (const auto* stroke = std::get_if<Stroke>(&item))
            add(stroke->line);
        else if (const auto* band = std::get_if<Band>(&item))
            add(band->line, band->width / 2);
        else if (const auto* arrow = std::get_if<Arrow>(&item))
            add(arrow->line);
        else
            box.add(std::get<Word>(item).at);
    return box;
}

} // namespace tectonis
