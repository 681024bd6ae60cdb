// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/cut_list.hpp"

#include "sequence/minutes.hpp"

#include "library/library.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace tectonis {
namespace {

/// A lane of a row: pieces lie behind one another along the cloth.
struct Slot {
    double y = 0, width = 0, used = 0; ///< across, across, along
};

struct Row {
    double x = 0, depth = 0, used = 0; ///< along the cloth, along the cloth, across
    std::vector<Slot> slots;
};

struct Loose {
    std::size_t item;
    Box box;
    bool turned = false, flipped = false;
    double along() const { return turned ? box.height() : box.width(); }
    double across() const { return turned ? box.width() : box.height(); }
};

Placement placementFor(const Loose& l, double x, double y)
{
    Placement p{0, 0, l.turned ? pi / 2 : 0, l.flipped};
    // Find where the box lands after turning and mirroring, then move its corner to x, y.
    Box landed;
    for (const double bx : {l.box.x0, l.box.x1})
        for (const double by : {l.box.y0, l.box.y1})
            landed.add(p({bx, by}));
    p.dx = x - landed.x0;
    p.dy = y - landed.y0;
    return p;
}

/// The first place that takes the piece: behind another in a slot, a new slot in a row, or a new row.
std::pair<Row*, Slot*> spotFor(std::vector<Row>& rows, const Loose& l, double clothWidth, double gap)
{
    constexpr double slack = 1e-9;
    for (auto& row : rows) {
        for (auto& slot : row.slots)
            if (l.across() <= slot.width + slack && slot.used + l.along() <= row.depth + slack)
                return {&row, &slot};
        if (row.used + l.across() <= clothWidth + slack && l.along() <= row.depth + slack) {
            row.slots.push_back({row.used, l.across(), 0});
            row.used += l.across() + gap;
            return {&row, &row.slots.back()};
        }
    }
    const double x = rows.empty() ? 0 : rows.back().x + rows.back().depth + gap;
    rows.push_back({x, l.along(), l.across() + gap, {{0, l.across(), 0}}});
    return {&rows.back(), &rows.back().slots.back()};
}

void layRows(Marker& m, const Material& cloth, double gap)
{
    std::vector<Loose> loose;
    for (std::size_t i = 0; i < m.items.size(); ++i) {
        const Box box = boundsOf(alongCloth(m.items[i]));
        const bool mayTurn = cloth.use == "interlining";
        for (int copy = 0; copy < m.items[i].count; ++copy) {
            Loose l{i, box, false, copy >= m.items[i].count - m.items[i].mirrored};
            l.turned = mayTurn
                && (box.height() > cloth.width || (box.width() > box.height() && box.width() <= cloth.width));
            loose.push_back(l);
        }
    }
    std::stable_sort(loose.begin(), loose.end(), [](const Loose& a, const Loose& b) { return a.along() > b.along(); });
    std::vector<Row> rows;
    for (const auto& l : loose) {
        if (l.across() > cloth.width) {
            m.spots.push_back({l.item, {}, false});
            continue;
        }
        const auto [row, slot] = spotFor(rows, l, cloth.width, gap);
        m.spots.push_back({l.item, placementFor(l, row->x + slot->used, slot->y), true});
        slot->used += l.along() + gap;
    }
    m.length = rows.empty() ? 0 : rows.back().x + rows.back().depth;
}

} // namespace

std::vector<CutItem> cutItems(const Pattern& p)
{
    std::vector<CutItem> out;
    const auto idOf = [&](const std::string& role) {
        const auto it = p.materials.find(role);
        return it == p.materials.end() ? MaterialId(role) : it->second;
    };
    for (const auto& piece : p.pieces)
        out.push_back(
            {piece.key, piece.code, piece.name, idOf(piece.material), piece.rough.empty() ? piece.cut : piece.rough,
                piece.count, piece.mirrored, piece.grain, false, piece.key, p.size});
    for (const auto& piece : p.pieces)
        for (const auto& layer : piece.layers)
            out.push_back(
                {piece.key, layer.code, piece.name, layer.material, layer.quilted > 0 ? piece.rough : layer.outline,
                    piece.count, piece.mirrored, layer.grain, true, layer.id, p.size});
    return out;
}

std::vector<Hardware> notionsOf(const Pattern& pattern)
{
    std::vector<Hardware> out;
    for (const Hardware& h : pattern.hardware) {
        const auto alike = std::find_if(out.begin(), out.end(), [&](const Hardware& o) {
            return o.kind == h.kind && std::abs(o.size - h.size) < 1e-9 && o.sizeText == h.sizeText
                && o.finish == h.finish;
        });
        if (alike == out.end())
            out.push_back(h);
        else
            alike->count += h.count;
    }
    for (const ThreadUse& use : threadsOf(pattern)) {
        const bool inside = use.coat == Coat::Lining;
        out.push_back({.kind = Ware::Thread,
            .size = use.length,
            .sizeText = say("about {} m, Tex {}", Num(std::ceil(use.length / 1000)), Num(use.tex)),
            .finish = inside ? say("as the lining") : say("as the shell"),
            .id = OwnName{"", inside ? "thread.lining" : "thread.shell"}});
    }
    return out;
}

Run alongCloth(const CutItem& item) { return placed(item.outline, Placement{0, 0, -radians(item.grain)}); }

namespace {

/// Bags one after the other, each by its own marker, in place of what @p m has.
void layOneByOne(Marker& m, const std::vector<Bags>& bags, double gap)
{
    Marker row{.material = m.material, .clothWidth = m.clothWidth, .items = m.items};
    for (const auto& [pattern, count] : bags)
        for (const auto& single : makeMarkers(*pattern, gap))
            for (int i = 0; single.material == m.material && i < count; ++i) {
                const double x = row.length > 0 ? row.length + gap : 0;
                for (MarkerSpot spot : single.spots) {
                    const CutItem& item = single.items[spot.item];
                    spot.item = std::size_t(std::find_if(m.items.begin(), m.items.end(), [&](const CutItem& each) {
                        return each.id == item.id && each.size == item.size;
                    }) - m.items.begin());
                    spot.placement.dx += x;
                    row.spots.push_back(spot);
                }
                row.length = x + single.length;
            }
    if (row.length < m.length - 1e-9)
        m.spots = std::move(row.spots), m.length = row.length;
}

} // namespace

std::vector<Marker> makeMarkers(const Pattern& p, double gap) { return makeMarkers({{&p, 1}}, gap); }

std::vector<Marker> makeMarkers(const std::vector<Bags>& bags, double gap)
{
    std::vector<Marker> out;
    const bool several = bags.size() > 1 || (!bags.empty() && bags.front().count > 1);
    for (const auto& [pattern, count] : bags)
        for (auto& item : cutItems(*pattern)) {
            auto it = std::find_if(
                out.begin(), out.end(), [&](const Marker& m) { return m.material == item.material; });
            if (it == out.end())
                it = out.insert(
                    out.end(), Marker{.material = item.material, .clothWidth = pattern->material(item.material).width});
            item.count *= count, item.mirrored *= count;
            it->items.push_back(std::move(item));
        }
    for (auto& m : out) {
        const Pattern& p = *bags.front().pattern;
        const Material& cloth = p.material(m.material);
        double area = 0;
        for (const auto& item : m.items)
            area += item.count * areaOf(item.outline);
        if (cloth.width <= 0) {
            for (const auto& item : m.items)
                m.length += item.count * boundsOf(alongCloth(item)).width();
            m.yield = 1;
        } else {
            layRows(m, cloth, gap);
            if (several)
                layOneByOne(m, bags, gap);
            m.yield = m.length > 0 ? area / (m.length * cloth.width) : 0;
        }
        const auto washed = p.choices.find("washing");
        m.shrinks = washed != p.choices.end() && washed->second == "before" ? cloth.shrink : 0;
        m.soldLength = std::ceil(m.length / (1 - m.shrinks / 100) / cloth.sold - 1e-9) * cloth.sold;
        m.cost = m.soldLength / 1000 * cloth.price;
    }
    return out;
}

} // namespace tectonis
