// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheets/plan.hpp"

#include "pattern/template.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

constexpr double kGap = 6;         // mm between pieces on the plan
constexpr double kToMeasure = 600; // mm: plain strips longer than this are not printed

bool cutToMeasure(const Piece& piece)
{
    return piece.coat == Coat::Strip && piece.edges.size() == 4 && boundsOf(piece.cut).height() > kToMeasure;
}

/// A rectangle that its two sides say all about: no notch, no drill, no line but folds.
bool plainRectangle(const Piece& piece)
{
    if (!piece.notches.empty() || !piece.drills.empty() || piece.cut.size() != 4 || !piece.layers.empty())
        return false;
    const Box box = boundsOf(piece.cut);
    return std::abs(areaOf(piece.cut) - box.width() * box.height()) < 0.01
        && std::all_of(
            piece.lines.begin(), piece.lines.end(), [](const FaceLine& l) { return l.kind == FaceLine::Kind::Fold; });
}

bool sameRun(const Run& a, const Run& b)
{
    if (a.size() != b.size())
        return false;
    for (std::size_t i = 0; i < a.size(); ++i)
        if (a[i].index() != b[i].index() || distance(startOf(a[i]), startOf(b[i])) > 0.005
            || distance(endOf(a[i]), endOf(b[i])) > 0.005
            || distance(pointAlong(a[i], lengthOf(a[i]) / 2), pointAlong(b[i], lengthOf(b[i]) / 2)) > 0.005)
            return false;
    return true;
}

/// One paper template does for both: the same cut and stitch line, notches and grain. What else is drawn on either face
/// is printed with its piece's code.
bool sameTemplate(const Piece& a, const Piece& b)
{
    if (a.folds != b.folds || !sameRun(a.cut, b.cut) || !sameRun(a.stitch(), b.stitch())
        || a.notches.size() != b.notches.size() || std::abs(a.grain - b.grain) > 1e-9)
        return false;
    const auto spot = [](const Piece& piece, const Notch& n) {
        return pointAlong(piece.edge(n.edge)->stitch, n.along);
    };
    return std::all_of(a.notches.begin(), a.notches.end(), [&](const Notch& n) {
        return std::any_of(b.notches.begin(), b.notches.end(),
            [&](const Notch& m) { return n.stop == m.stop && distance(spot(a, n), spot(b, m)) < 0.005; });
    });
}

/// Puts what is drawn on @p other onto a template that stands for both, and keeps whose it is.
void addMarks(Piece& onto, const Piece& other, std::vector<SheetMark>& marks)
{
    const auto mark = [&](const std::string& code, Point at) { marks.push_back({code, at}); };
    if (marks.empty() && onto.code != other.code) { // until now all was the first piece's own
        for (const auto& l : onto.lines)
            if (l.kind != FaceLine::Kind::Bridge)
                mark(onto.code, startOf(l.run));
        for (const auto& m : onto.drills)
            mark(onto.code, m.at);
    }
    for (const auto& l : other.lines) {
        if (l.kind != FaceLine::Kind::Bridge)
            mark(other.code, startOf(l.run));
        onto.lines.push_back(l);
    }
    for (const auto& m : other.drills) {
        mark(other.code, m.at);
        onto.drills.push_back(m);
    }
    onto.layers.insert(onto.layers.end(), other.layers.begin(), other.layers.end());
}

/// A piece of all sizes as one block to place.
struct Block {
    PieceId key;
    std::vector<PieceId> also;
    std::vector<std::size_t> patterns;
    std::vector<Piece> templates;
    std::vector<std::vector<SheetMark>> marks;
    Box box;
    bool turned = false;
    double width() const { return turned ? box.height() : box.width(); }
    double height() const { return turned ? box.width() : box.height(); }
};

std::vector<Block> blocksOf(const std::vector<const Pattern*>& patterns, SheetPlan& plan, SheetOptions options)
{
    std::vector<Block> blocks;
    for (std::size_t i = 0; i < patterns.size(); ++i)
        for (const auto& piece : patterns[i]->pieces) {
            if (cutToMeasure(piece) || (options.rectanglesAsFigures && plainRectangle(piece))) {
                const Box box = boundsOf(piece.cut);
                plan.toMeasure.push_back(
                    {piece.code, piece.name, patterns[i]->size, box.width(), box.height(), piece.count});
                continue;
            }
            auto it = std::find_if(blocks.begin(), blocks.end(), [&](const Block& b) { return b.key == piece.key; });
            if (it == blocks.end())
                it = blocks.insert(blocks.end(), Block{piece.key, {}, {}, {}, {}, {}});
            it->patterns.push_back(i);
            it->templates.push_back(templateOf(piece));
            it->box.add(boundsOf(it->templates.back().cut));
        }
    // The same template in every size is printed once.
    for (std::size_t i = 0; i < blocks.size(); ++i) {
        blocks[i].marks.resize(blocks[i].templates.size());
        for (std::size_t k = i + 1; k < blocks.size(); ++k) {
            const Block& other = blocks[k];
            if (other.patterns != blocks[i].patterns
                || !std::equal(
                    other.templates.begin(), other.templates.end(), blocks[i].templates.begin(), sameTemplate))
                continue;
            for (std::size_t size = 0; size < other.templates.size(); ++size)
                addMarks(blocks[i].templates[size], other.templates[size], blocks[i].marks[size]);
            blocks[i].also.push_back(other.key);
            blocks.erase(blocks.begin() + std::ptrdiff_t(k--));
        }
    }
    return blocks;
}

int pagesFor(double length, double step, double usable)
{
    return length <= usable ? 1 : 1 + int(std::ceil((length - usable) / step));
}

void turnToSave(Block& b, const SheetPlan& plan, double usableX, double usableY)
{
    const auto cost = [&](double w, double h) {
        return pagesFor(w, plan.stepX, usableX) * pagesFor(h, plan.stepY, usableY);
    };
    b.turned = cost(b.box.height(), b.box.width()) < cost(b.box.width(), b.box.height());
}

/// Moves @p at to the next page if a block of @p size that fits a page would cross one's border.
double keptWhole(double at, double size, double step, double usable)
{
    if (size > usable)
        return at; // it crosses a border wherever it begins
    const double page = std::floor(at / step + 1e-9) * step;
    return at + size <= page + usable ? at : page + step;
}

void placeBlocks(std::vector<Block>& blocks, SheetPlan& plan, double usableX, double usableY)
{
    for (auto& b : blocks)
        turnToSave(b, plan, usableX, usableY);
    std::stable_sort(
        blocks.begin(), blocks.end(), [](const Block& a, const Block& b) { return a.height() > b.height(); });
    double widest = 3 * plan.stepX + usableX;
    for (const auto& b : blocks)
        widest = std::max(widest, b.width());
    struct Shelf {
        double y, height, used;
    };
    std::vector<Shelf> shelves;
    for (const auto& b : blocks) {
        double x = 0;
        Shelf* home = nullptr;
        for (auto& s : shelves) {
            x = keptWhole(s.used, b.width(), plan.stepX, usableX);
            const bool tallEnough = b.height() <= s.height + 1e-9;
            const bool whole = b.height() > usableY || keptWhole(s.y, b.height(), plan.stepY, usableY) == s.y;
            if (tallEnough && whole && x + b.width() <= widest + 1e-9) {
                home = &s;
                break;
            }
        }
        if (!home) {
            const double below = shelves.empty() ? 0 : shelves.back().y + shelves.back().height + kGap;
            shelves.push_back({keptWhole(below, b.height(), plan.stepY, usableY), b.height(), 0});
            home = &shelves.back();
            x = 0;
        }
        // The plan's y grows upwards; shelves are filled from the top, at y = 0, downwards.
        Placement place{0, 0, b.turned ? pi / 2 : 0};
        Box landed;
        for (const double bx : {b.box.x0, b.box.x1})
            for (const double by : {b.box.y0, b.box.y1})
                landed.add(place({bx, by}));
        place.dx = x - landed.x0;
        place.dy = -home->y - landed.y1;
        plan.spots.push_back({b.key, b.also, place, b.patterns, b.templates, b.marks,
            {x, -home->y - b.height(), x + b.width(), -home->y}});
        home->used = x + b.width() + kGap;
    }
}

bool touches(const Polyline& line, const Box& area)
{
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        // Liang-Barsky: does any part of the span lie in the box?
        double t0 = 0, t1 = 1;
        const Point a = line[i], d = line[i + 1] - line[i];
        const auto clip = [&](double p, double q) {
            if (std::abs(p) < 1e-12)
                return q >= 0;
            const double t = q / p;
            if (p < 0)
                t0 = std::max(t0, t);
            else
                t1 = std::min(t1, t);
            return t0 <= t1;
        };
        if (clip(-d.x, a.x - area.x0) && clip(d.x, area.x1 - a.x) && clip(-d.y, a.y - area.y0)
            && clip(d.y, area.y1 - a.y))
            return true;
    }
    return insideOutline(line, area.centre());
}

std::string pageName(int row, int column)
{
    std::string letters;
    for (int r = row; r >= 0; r = r / 26 - 1)
        letters.insert(letters.begin(), char('A' + r % 26));
    return letters + std::to_string(column + 1);
}

void dividePages(SheetPlan& plan, double usableX, double usableY)
{
    Box all;
    std::vector<Polyline> outlines;
    for (const auto& spot : plan.spots) {
        all.add(spot.box);
        for (const auto& piece : spot.templates)
            outlines.push_back(flattened(placed(piece.cut, spot.placement), 0.2));
    }
    if (all.empty())
        return;
    plan.columns = pagesFor(all.x1, plan.stepX, usableX);
    plan.rows = pagesFor(-all.y0, plan.stepY, usableY);
    const auto areaOfPage = [&](int r, int c) {
        return Box{c * plan.stepX, -(r * plan.stepY + usableY), c * plan.stepX + usableX, -r * plan.stepY};
    };
    constexpr double hair = 0.05; // a line just on a border is no reason for a page
    const auto touched = [&](Box area) {
        area = {area.x0 + hair, area.y0 + hair, area.x1 - hair, area.y1 - hair};
        return area.x1 > area.x0 && area.y1 > area.y0
            && std::any_of(outlines.begin(), outlines.end(), [&](const Polyline& o) { return touches(o, area); });
    };
    // A page is shared with its neighbours in strips along its sides and in its corners: three by three parts, of which
    // only the middle is its own.
    const auto partsOf = [&](int r, int c) {
        const Box page = areaOfPage(r, c);
        const double left = c > 0 ? plan.overlap : 0, right = c + 1 < plan.columns ? plan.overlap : 0,
                     above = r > 0 ? plan.overlap : 0, below = r + 1 < plan.rows ? plan.overlap : 0;
        const std::array<double, 4> xs{page.x0, page.x0 + left, page.x1 - right, page.x1},
            ys{page.y1, page.y1 - above, page.y0 + below, page.y0};
        std::vector<std::pair<std::pair<int, int>, Box>> out; // which neighbour, and the part
        for (int i = 0; i < 3; ++i)
            for (int k = 0; k < 3; ++k)
                out.push_back({{i - 1, k - 1},
                    {xs[std::size_t(k)], ys[std::size_t(i) + 1], xs[std::size_t(k) + 1], ys[std::size_t(i)]}});
        return out;
    };
    std::set<std::pair<int, int>> used;
    for (int r = 0; r < plan.rows; ++r)
        for (int c = 0; c < plan.columns; ++c)
            if (touched(partsOf(r, c)[4].second))
                used.insert({r, c});
    // What lies only in shared parts is printed by one of those that share it.
    for (int r = 0; r < plan.rows; ++r)
        for (int c = 0; c < plan.columns; ++c)
            for (const auto& [way, part] : partsOf(r, c)) {
                const auto [dr, dc] = way;
                const bool printed = used.contains({r, c}) || used.contains({r + dr, c}) || used.contains({r, c + dc})
                    || used.contains({r + dr, c + dc});
                if (!printed && touched(part))
                    used.insert({r, c});
            }
    for (const auto& [r, c] : used)
        plan.pages.push_back({r, c, pageName(r, c), areaOfPage(r, c), used.contains({r, c + 1}),
            used.contains({r + 1, c}), used.contains({r, c - 1}), used.contains({r - 1, c})});
}

} // namespace

SheetPlan planSheets(const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit, SheetOptions options)
{
    SheetPlan plan{.paper = paper, .unit = unit};
    const double usableX = paper.width - 2 * plan.margin,
                 usableY = paper.height - 2 * plan.margin - 8; // 8 mm foot line for the page's name
    plan.stepX = usableX - plan.overlap;
    plan.stepY = usableY - plan.overlap;
    auto blocks = blocksOf(patterns, plan, options);
    placeBlocks(blocks, plan, usableX, usableY);
    dividePages(plan, usableX, usableY);
    return plan;
}

std::size_t pagesOnTheFold(const std::vector<const Pattern*>& patterns, const Paper& paper, SheetOptions options)
{
    std::vector<Pattern> folded;
    std::vector<const Pattern*> pointers;
    folded.reserve(patterns.size());
    for (const Pattern* p : patterns) {
        folded.push_back(*p);
        for (auto& piece : folded.back().pieces)
            piece.folds = foldsOf(piece, 1);
        pointers.push_back(&folded.back());
    }
    return planSheets(pointers, paper, Unit::Mm, options).pages.size();
}

ScaleError scaleError(const Pattern& p, double percent)
{
    ScaleError out;
    const double off = percent / 100 - 1;
    out.on100 = 100 * off;
    for (const auto& s : p.seams)
        if (s.stitch == "construction" && s.lengthA > out.longestSeam)
            out.longestSeam = s.lengthA, out.seam = s.name;
    out.onSeam = out.longestSeam * off;
    return out;
}

} // namespace tectonis
