// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheets/plan.hpp"

#include "pattern/template.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

constexpr double kGap = 6;          // mm between pieces on the plan
constexpr double kToMeasure = 600;  // mm: plain strips longer than this are not printed

bool cutToMeasure(const Piece& piece)
{
    return piece.group == PieceGroup::Strip && piece.edges.size() == 4 && boundsOf(piece.cut).height() > kToMeasure;
}

/// A piece of all sizes as one block to place.
struct Block {
    std::string key;
    std::vector<std::size_t> patterns;
    std::vector<Piece> templates;
    Box box;
    bool turned = false;
    double width() const { return turned ? box.height() : box.width(); }
    double height() const { return turned ? box.width() : box.height(); }
};

std::vector<Block> blocksOf(const std::vector<const Pattern*>& patterns, SheetPlan& plan)
{
    std::vector<Block> blocks;
    for (std::size_t i = 0; i < patterns.size(); ++i)
        for (const auto& piece : patterns[i]->pieces) {
            if (cutToMeasure(piece)) {
                const Box box = boundsOf(piece.cut);
                plan.toMeasure.push_back({piece.code, piece.name, patterns[i]->size, box.width(), box.height(), piece.count});
                continue;
            }
            auto it = std::find_if(blocks.begin(), blocks.end(), [&](const Block& b) { return b.key == piece.key; });
            if (it == blocks.end())
                it = blocks.insert(blocks.end(), Block{piece.key, {}, {}, {}});
            it->patterns.push_back(i);
            it->templates.push_back(templateOf(piece));
            it->box.add(boundsOf(it->templates.back().cut));
        }
    return blocks;
}

int pagesFor(double length, double step, double usable) { return length <= usable ? 1 : 1 + int(std::ceil((length - usable) / step)); }

void turnToSave(Block& b, const SheetPlan& plan, double usableX, double usableY)
{
    const auto cost = [&](double w, double h) { return pagesFor(w, plan.stepX, usableX) * pagesFor(h, plan.stepY, usableY); };
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
    std::stable_sort(blocks.begin(), blocks.end(), [](const Block& a, const Block& b) { return a.height() > b.height(); });
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
        plan.spots.push_back({b.key, place, b.patterns, b.templates, {x, -home->y - b.height(), x + b.width(), -home->y}});
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
        if (clip(-d.x, a.x - area.x0) && clip(d.x, area.x1 - a.x) && clip(-d.y, a.y - area.y0) && clip(d.y, area.y1 - a.y))
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
    std::set<std::pair<int, int>> used;
    const auto areaOfPage = [&](int r, int c) { return Box{c * plan.stepX, -(r * plan.stepY + usableY), c * plan.stepX + usableX, -r * plan.stepY}; };
    for (int r = 0; r < plan.rows; ++r)
        for (int c = 0; c < plan.columns; ++c) {
            // What lies only in the strip shared with the next page is printed there; a line just on the border is no reason for a page.
            constexpr double hair = 0.05;
            Box own = areaOfPage(r, c);
            own = {own.x0 + hair, own.y0 + hair, own.x1 - hair, own.y1 - hair};
            if (c + 1 < plan.columns)
                own.x1 -= plan.overlap;
            if (r + 1 < plan.rows)
                own.y0 += plan.overlap;
            if (std::any_of(outlines.begin(), outlines.end(), [&](const Polyline& o) { return touches(o, own); }))
                used.insert({r, c});
        }
    for (const auto& [r, c] : used)
        plan.pages.push_back({r, c, pageName(r, c), areaOfPage(r, c), used.contains({r, c + 1}), used.contains({r + 1, c}), used.contains({r, c - 1}), used.contains({r - 1, c})});
}

} // namespace

const std::vector<Paper>& papers()
{
    static const std::vector<Paper> all{{"A4", 210, 297}, {"Letter", 215.9, 279.4}};
    return all;
}

const Paper& paperOf(const std::string& name)
{
    for (const auto& p : papers())
        if (p.name == name)
            return p;
    throw InputError("paper", fmt::format("“{}” is no paper here; use A4 or Letter", name));
}

SheetPlan planSheets(const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit)
{
    SheetPlan plan{.paper = paper, .unit = unit};
    const double usableX = paper.width - 2 * plan.margin, usableY = paper.height - 2 * plan.margin - 8; // 8 mm foot line for the page's name
    plan.stepX = usableX - plan.overlap;
    plan.stepY = usableY - plan.overlap;
    auto blocks = blocksOf(patterns, plan);
    placeBlocks(blocks, plan, usableX, usableY);
    dividePages(plan, usableX, usableY);
    return plan;
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
