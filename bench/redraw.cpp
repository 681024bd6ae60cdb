// SPDX-License-Identifier: GPL-3.0-or-later
// Cost of redrawing the demo in all its sizes with all checks, as a ratio to offsetting the same outlines once with Clipper alone.
#include "checks/finding.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
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
    const auto times = best(150, {[&] {
                                      const auto all = draftAll(design);
                                      findings = checkAll(design, all).size();
                                  },
                                  [&] { draftAll(design); }, [&] { offset += offsetAll(outlines); },
                                  [&] { setDimensionMm(moved, dragged, mm += 0.05, moved.baseSize); },
                                  [&] { mockupOf(design, patterns[patterns.size() / 2]); }});
    const double redraw = times[0], drafting = times[1], clipper = times[2], drag = times[3], folding = times[4];
    std::printf("%s\n  pieces, sizes        %zu × %zu\n  findings             %zu\n  redraw with checks   %.2f ms\n    of it drafting     %.2f ms\n  Clipper offsets      %.2f ms\n  ratio                %.2f (aim: 5 or less)\n  one drag step        %.2f of a redraw\n  mock-up in view      %.2f of a redraw more\n",
                name, patterns.front().pieces.size(), patterns.size(), findings, redraw, drafting, clipper, redraw / clipper, drag / redraw, folding / redraw);
}

/// A satchel grown to about @p pieces by pockets outside and in, in @p sizes sizes.
Design grown(const Design& demo, std::size_t pieces, std::size_t sizes)
{
    Design d = demo;
    std::vector<std::string> names;
    for (std::size_t i = 0; i < sizes; ++i)
        names.push_back("N" + std::to_string(i + 1));
    for (auto& [name, dimension] : d.dimensions)
        if (dimension.rule.kind == SizeRule::Kind::Step)
            dimension.rule.amount = 4;
    setSizes(d, names, names[sizes / 2]);
    // Small bellows pockets with flaps, each four pieces, three to a face.
    const std::vector<std::string> faces{"front", "back", "lining front", "lining back"};
    for (const char* id : {"slip", "zip", "snap"})
        removeFeature(d, id);
    for (std::size_t i = 0; i < 12 && draftAll(d).front().pieces.size() < pieces; ++i) {
        const std::string id = addFeature(d, "patch-pocket");
        for (const auto& [name, value] : {std::pair{".body", std::string("bellows")}, {".lid", "yes"}, {".site", faces[i % 4]}, {".depth", "6"}, {".width", "60"}, {".height", "40"}, {".flap", "20"}, {".drop", std::to_string(50 + 62 * int(i / 4))}})
            assign(d, id + name + "=" + value);
    }
    return d;
}

} // namespace

int main(int argc, char** argv)
{
    const Design demo = loadDesign(argc > 1 ? argv[1] : TECTONIS_DATA "/demos/tuners-satchel.tectonis");
    report("the design in its own sizes", demo, demo.form == "gusseted-satchel" ? "width" : specOf(demo).dimensions.front().name);
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
