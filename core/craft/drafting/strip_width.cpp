// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/strip_width.hpp"

#include <cmath>

namespace tectonis {

int cutMultiple(const Material& cloth)
{
    if (cloth.kind == "webbing")
        return 1;
    return cloth.kind == "cotton" || cloth.kind == "canvas" ? 4 : 2;
}

double workCutWidth(
    Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double finished, const Material& cloth)
{
    const int times = cutMultiple(cloth);
    return d.work({subject, key, std::move(label), "times*width", {{"times", double(times)}, {"width", finished}}, 0,
        Working::Kind::Trade, "mm",
        times == 4       ? say("of {}: its edges go to the middle and it is folded again", naming(cloth.name))
            : times == 2 ? say("of {}: its edges meet behind", naming(cloth.name))
                         : say("of {}: as wide as it is bought", naming(cloth.name))});
}

void addStripFolds(Piece& strip, double finished, double cut, double length)
{
    const int times = int(std::lround(cut / finished));
    strip.plies = std::max(1, times);
    if (times == 4)
        for (int i = 1; i < 4; ++i)
            strip.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{i * finished, 0}, {i * finished, length}})});
    if (times == 2)
        for (const double x : {finished / 2, 1.5 * finished})
            strip.lines.push_back({"fold", FaceLine::Kind::Fold, lineRun({{x, 0}, {x, length}})});
}

} // namespace tectonis
