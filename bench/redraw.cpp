// SPDX-License-Identifier: GPL-3.0-or-later
// Cost of redrawing the demo in all its sizes with all checks, as a ratio to offsetting the same outlines once with Clipper alone.
#include "checks/finding.hpp"
#include "drafting/drafter.hpp"
#include "design/edits.hpp"
#include "formats/design_file.hpp"

#include <polyclipping/clipper.hpp>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <functional>
#include <vector>

using namespace tectonis;

namespace {

double milliseconds(const std::function<void()>& work)
{
    const auto start = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

/// The least disturbed of @p rounds of each work. They take turns, so that a slow spell of the machine meets all of them.
std::vector<double> best(int rounds, const std::vector<std::function<void()>>& works)
{
    std::vector<double> least(works.size(), 1e300);
    for (int i = 0; i < rounds; ++i)
        for (std::size_t k = 0; k < works.size(); ++k)
            least[k] = std::min(least[k], milliseconds(works[k]));
    return least;
}

ClipperLib::Paths outlinesOf(const std::vector<Pattern>& patterns)
{
    ClipperLib::Paths out;
    for (const auto& p : patterns)
        for (const auto& piece : p.pieces) {
            ClipperLib::Path path;
            for (const Point q : flattened(piece.stitch(), 0.02)) // the sagitta of a cut line on paper
                path << ClipperLib::IntPoint(ClipperLib::cInt(q.x * 1e4), ClipperLib::cInt(q.y * 1e4));
            out.push_back(path);
        }
    return out;
}

} // namespace

int main(int argc, char** argv)
{
    const Design design = loadDesign(argc > 1 ? argv[1] : TECTONIS_DATA "/demos/tuners-satchel.tectonis");
    const auto patterns = draftAll(design);
    const auto outlines = outlinesOf(patterns);
    std::size_t findings = 0, offset = 0;
    Design moved = design;
    double mm = patterns[1].values.at("width");
    const auto times = best(300, {[&] { findings = checkAll(design, draftAll(design)).size(); },
                                  [&] { draftAll(design); },
                                  [&] {
                                      for (const auto& path : outlines) {
                                          ClipperLib::ClipperOffset o(4.0, 0.02 * 1e4);
                                          o.AddPath(path, ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
                                          ClipperLib::Paths solution;
                                          o.Execute(solution, 10 * 1e4);
                                          offset += solution.size();
                                      }
                                  },
                                  [&] { setDimensionMm(moved, "width", mm += 0.1, moved.baseSize); }});
    const double redraw = times[0], drafting = times[1], clipper = times[2], drag = times[3];
    std::printf("pieces in all sizes  %zu\nfindings             %zu\nredraw with checks   %.2f ms\n  of it drafting     %.2f ms\nClipper offsets      %.2f ms\nratio                %.2f (aim: 5 or less)\none drag step        %.2f of a redraw\n",
                outlines.size(), findings, redraw, drafting, clipper, redraw / clipper, drag / redraw);
    return offset > 0 ? 0 : 1;
}
