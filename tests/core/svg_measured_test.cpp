// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces measured again from the outside: the SVG that is exported is read by a small reader of its own (SVG 1.1,
// section 8 and appendix F.6 for arcs) and measured by GEOS: lengths, areas, marks, interlinings, over random designs.
#include "drawn.hpp"
#include "geos.hpp"
#include "random_design.hpp"

#include "formats/svg.hpp"

#include <random>
#include <regex>
#include <sstream>

using namespace tectonis;

namespace {

/// The half circle form of SVG arcs: rx = ry, no rotation. Written from the standard's conversion, apart from the
/// program's own arcs.
void arcTo(Polyline& line, double r, bool large, bool sweep, Point to)
{
    const Point from = line.back(), half = (from - to) * 0.5, middle = (from + to) * 0.5;
    const double d2 = dot(half, half), root = std::sqrt(std::max(0.0, r * r / d2 - 1)) * (large == sweep ? -1 : 1);
    const Point centre = middle + Point{half.y, -half.x} * root;
    const double a = std::atan2(from.y - centre.y, from.x - centre.x), b = std::atan2(to.y - centre.y, to.x - centre.x);
    double turn = b - a;
    if (sweep && turn < 0)
        turn += 2 * pi;
    if (!sweep && turn > 0)
        turn -= 2 * pi;
    const int n = std::max(8, int(std::abs(turn) * std::sqrt(r / (8 * 0.00002))) + 1); // chords within 0.00002 mm
    for (int i = 1; i <= n; ++i)
        line.push_back(i == n ? to : centre + polar(a + turn * i / n) * r);
}

Polyline readPath(std::string d)
{
    for (const char c : std::string("MLACZ"))
        d = std::regex_replace(d, std::regex(std::string(1, c)), std::string(" ") + c + " ");
    std::replace(d.begin(), d.end(), ',', ' ');
    std::istringstream in(d);
    Polyline line;
    std::string op, word;
    double v[7];
    char last = 'M';
    while (in >> word) {
        const bool letter = std::isalpha(static_cast<unsigned char>(word[0]));
        if (letter)
            last = word[0];
        if (last == 'Z')
            break;
        const int wanted = last == 'A' ? 7 : last == 'C' ? 6 : 2;
        int have = 0;
        if (!letter)
            v[have++] = std::stod(word);
        while (have < wanted && in >> v[have])
            ++have;
        const auto at = [&](int i) { return Point{v[i], -v[i + 1]}; }; // SVG's y grows downwards
        if (last == 'M' || last == 'L')
            line.push_back(at(0));
        else if (last == 'A')
            arcTo(line, v[0], v[3] != 0, v[4] == 0, at(5)); // the sweep turns with the axis
        else {
            const Point p0 = line.back(), p1 = at(0), p2 = at(2), p3 = at(4);
            for (int i = 1; i <= 400; ++i) {
                const double t = i / 400.0, u = 1 - t;
                line.push_back(p0 * (u * u * u) + p1 * (3 * u * u * t) + p2 * (3 * u * t * t) + p3 * (t * t * t));
            }
        }
    }
    return line;
}

std::vector<Polyline> pathsOf(const std::string& svg, const std::string& cls)
{
    std::vector<Polyline> out;
    const std::regex tag("<path class=\"" + cls + "\" d=\"([^\"]*)\"");
    for (auto it = std::sregex_iterator(svg.begin(), svg.end(), tag); it != std::sregex_iterator(); ++it)
        out.push_back(readPath((*it)[1]));
    return out;
}

Polyline closed(Polyline line)
{
    if (distance(line.front(), line.back()) > 1e-9)
        line.push_back(line.front());
    return line;
}

} // namespace

TEST_CASE("Exported pieces measured by GEOS: stitch lengths, areas, interlinings and marks of random designs are the "
          "pattern's")
{
    const Geos geos;
    std::mt19937 random(1848);
    int refused = 0, pieces = 0, marks = 0, layers = 0;
    for (int i = 0; i < 120; ++i) {
        Design d = randomDesign(random, refused);
        Pattern p;
        try {
            p = draftAll(d)[std::size_t(i) % d.sizes.size()];
        } catch (const InputError&) {
            continue;
        }
        for (const auto& piece : p.pieces) {
            if (piece.folds > 0)
                continue; // half templates have a test of their own
            ++pieces;
            INFO("design " << i << ", " << d.form << ", size " << p.size << ", piece " << piece.key);
            const std::string svg = pieceSvg(p, piece, d.name);
            const auto cut = pathsOf(svg, "cut"), stitch = pathsOf(svg, "stitch"), lining = pathsOf(svg, "interlining");
            REQUIRE(cut.size() == 1);
            REQUIRE(stitch.size() == 1);
            const Polyline line = closed(stitch.front());
            double whole = 0;
            for (const auto& e : piece.edges)
                whole += e.length();
            CHECK(geos.length(line) == Approx(whole).margin(0.01));
            CHECK(geos.area(line) == Approx(areaOf(piece.stitch())).epsilon(1e-5).margin(0.05));
            CHECK(geos.area(cut.front()) == Approx(areaOf(piece.cut)).epsilon(1e-5).margin(0.05));
            REQUIRE(lining.size() == piece.layers.size());
            for (std::size_t k = 0; k < lining.size(); ++k) {
                ++layers;
                CHECK(geos.area(lining[k]) == Approx(areaOf(piece.layers[k].outline)).epsilon(1e-5).margin(0.05));
            }
            // A notch stands square on the stitch line where its length along the outline says.
            std::vector<Polyline> ticks;
            for (const char* cls : {"notch", "notch stop"})
                for (auto& tick : pathsOf(svg, cls))
                    ticks.push_back(tick);
            REQUIRE(ticks.size() == piece.notches.size());
            for (const auto& n : piece.notches) {
                double before = 0;
                for (const auto& e : piece.edges) {
                    if (e.name == n.edge)
                        break;
                    before += e.length();
                }
                const double wanted = before + n.along;
                const Edge& e = *piece.edge(n.edge);
                const double allowance = std::lerp(
                    e.allowance, e.allowanceAtEnd.value_or(e.allowance), e.length() > 0 ? n.along / e.length() : 0);
                ++marks;
                const bool there = std::any_of(ticks.begin(), ticks.end(), [&](const Polyline& tick) {
                    // From the raw edge inwards by the allowance.
                    const Point foot = tick.front() + unit(tick.back() - tick.front()) * allowance;
                    const double at = geos.project(line, foot);
                    return std::abs(std::remainder(at - wanted, whole)) < 0.02;
                });
                INFO("notch " << n.label << " on " << n.edge << " at " << n.along);
                CHECK(there);
            }
        }
    }
    CHECK(pieces > 500);
    CHECK(marks > 4000);
    CHECK(layers > 300);
}
