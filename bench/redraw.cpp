// SPDX-License-Identifier: GPL-3.0-or-later
// Cost of redrawing the demo in all its sizes with all checks, as a ratio to offsetting the same outlines once with
// Clipper alone.
#include "grown.hpp"

#include "checks/finding.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"

#include <polyclipping/clipper.hpp>

#include <algorithm>
#include <cstdio>
#include <vector>

using namespace tectonis;

namespace {

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

/// Offsets every outline once with Clipper alone; returns how many polygons came out.
std::size_t offsetAll(const ClipperLib::Paths& outlines)
{
    std::size_t out = 0;
    for (const auto& path : outlines) {
        ClipperLib::ClipperOffset o(4.0, 0.02 * 1e4);
        o.AddPath(path, ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
        ClipperLib::Paths solution;
        o.Execute(solution, 10 * 1e4);
        out += solution.size();
    }
    return out;
}

void report(const char* name, const Design& design, const std::string& dragged)
{
    const auto patterns = draftAll(design);
    const auto outlines = outlinesOf(patterns);
    std::size_t findings = 0, offset = 0;
    Design moved = design;
    double mm = patterns[sizeIndex(design, design.baseSize)].values.at(dragged);
    const auto times = best(150,
        {[&] {
             const auto all = draftAll(design);
             findings = checkAll(design, all).size();
         },
            [&] { draftAll(design); }, [&] { offset += offsetAll(outlines); },
            [&] { setDimensionMm(moved, dragged, mm += 0.05, moved.baseSize); },
            [&] { mockupOf(design, patterns[patterns.size() / 2]); }});
    const double redraw = times[0], drafting = times[1], clipper = times[2], drag = times[3], folding = times[4];
    std::printf("%s\n  pieces, sizes        %zu × %zu\n  findings             %zu\n  redraw with checks   %.2f ms\n    "
                "of it drafting     %.2f ms\n  Clipper offsets      %.2f ms\n  ratio                %.2f (aim: 5 or "
                "less)\n  one drag step        %.2f of a redraw\n  mock-up in view      %.2f of a redraw more\n",
        name, patterns.front().pieces.size(), patterns.size(), findings, redraw, drafting, clipper, redraw / clipper,
        drag / redraw, folding / redraw);
}

} // namespace

int main(int argc, char** argv)
{
    const Design demo = loadDesign(argc > 1 ? argv[1] : TECTONIS_DATA "/demos/tuners-satchel.tectonis");
    report("the design in its own sizes", demo,
        demo.form == "gusseted-satchel" ? "width" : specOf(demo).dimensions.front().name);
    if (argc > 1)
        return 0;
    report("60 pieces in 8 sizes", grown(demo, 60, 8), "width");
    const auto cost = [](const Design& d) { return best(60, {[&] { checkAll(d, draftAll(d)); }}).front(); };
    const double few = cost(grown(demo, 20, 4)), more = cost(grown(demo, 40, 4)), most = cost(grown(demo, 60, 4));
    std::printf("growth in pieces: 20, 40, 60 pieces in 4 sizes cost 1 : %.2f : %.2f\n", more / few, most / few);
    const double two = cost(grown(demo, 40, 2)), four = more, eight = cost(grown(demo, 40, 8));
    std::printf("growth in sizes: 2, 4, 8 sizes of 40 pieces cost 1 : %.2f : %.2f\n", four / two, eight / two);
    return 0;
}
