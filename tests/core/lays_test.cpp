// SPDX-License-Identifier: GPL-3.0-or-later
// A run of bags cut together: nothing is missing, nothing lies on anything else, no cloth is wasted against single
// bags.
#include "drawn.hpp"
#include "geos.hpp"

#include "cutting/lays.hpp"
#include "cutting/purchases.hpp"
#include "forms/form.hpp"

#include <numeric>
#include <random>

using namespace tectonis;

namespace {

double areaIn(const Marker& m)
{
    return std::accumulate(m.items.begin(), m.items.end(), 0.0,
        [](double sum, const CutItem& item) { return sum + item.count * areaOf(item.outline); });
}

/// Its length where each bag is cut by itself.
double apart(const std::vector<Bags>& bags, const MaterialId& material)
{
    double out = 0;
    for (const auto& each : bags)
        for (const auto& m : makeMarkers(*each.pattern))
            out += m.material == material ? each.count * m.length : 0;
    return out;
}

} // namespace

TEST_CASE("Lays: on every form each piece of each bag lies on the cloth once, beside all others, in no more cloth")
{
    const Geos geos;
    int shorter = 0;
    for (const Form* form : forms()) {
        const auto patterns = draftAll(newDesign(form->id()));
        const std::vector<Bags> bags{{&patterns[0], 2}, {&patterns[1], 3}, {&patterns[2], 1}};
        for (const auto& m : makeMarkers(bags)) {
            INFO(form->id() << ", " << m.material);
            // As many of each as its bags have.
            for (const auto& [pattern, count] : bags)
                for (const auto& item : cutItems(*pattern)) {
                    if (item.material != m.material)
                        continue;
                    const auto in = std::find_if(m.items.begin(), m.items.end(),
                        [&](const CutItem& each) { return each.id == item.id && each.size == item.size; });
                    REQUIRE(in != m.items.end());
                    CHECK(in->count == item.count * count);
                    CHECK(in->mirrored == item.mirrored * count);
                    if (m.clothWidth > 0)
                        CHECK(std::count_if(m.spots.begin(), m.spots.end(), [&](const MarkerSpot& s) {
                            return &m.items[s.item] == &*in;
                        }) == in->count);
                }
            const double single = apart(bags, m.material);
            CHECK(m.length <= single + 5 * 5 + 1e-6); // 5 mm between six bags
            shorter += m.length < 0.97 * single;
            if (m.clothWidth <= 0)
                continue;
            CHECK(m.length * m.clothWidth >= areaIn(m));
            std::vector<Polyline> laid;
            std::vector<Box> boxes;
            for (const auto& s : m.spots)
                if (s.placed) {
                    laid.push_back(flattened(placed(alongCloth(m.items[s.item]), s.placement), 0.05));
                    boxes.push_back(boundsOf(placed(alongCloth(m.items[s.item]), s.placement)));
                    CHECK(boxes.back().y0 > -1e-6);
                    CHECK(boxes.back().y1 < m.clothWidth + 1e-6);
                    CHECK(boxes.back().x1 < m.length + 1e-6);
                }
            for (std::size_t i = 0; i < laid.size(); ++i)
                for (std::size_t k = i + 1; k < laid.size(); ++k)
                    if (boxes[i].x0 < boxes[k].x1 && boxes[k].x0 < boxes[i].x1 && boxes[i].y0 < boxes[k].y1
                        && boxes[k].y0 < boxes[i].y1)
                        CHECK(geos.sharedArea(laid[i], laid[k]) < 0.01);
        }
    }
    CHECK(shorter > 10);
}

TEST_CASE("Lays: a run of any number is divided into lays that a table takes, as even as can be, none forgotten")
{
    const auto patterns = draftAll(newDesign("circle-pouch"));
    std::mt19937 random(5);
    for (int round = 0; round < 60; ++round) {
        const int most = 6 + int(random() % 20);
        std::vector<Bags> run;
        int all = 0;
        for (const auto& p : patterns)
            run.push_back({&p, int(random() % 70)}), all += run.back().count;
        const auto lays = laysFor(run, most);
        std::map<const Pattern*, int> cut;
        int times = 0, largest = 0, least = 1 << 20;
        for (const auto& lay : lays) {
            int bags = 0;
            for (const auto& each : lay.bags)
                cut[each.pattern] += lay.times * each.count, bags += each.count;
            CHECK(bags <= most);
            largest = std::max(largest, bags), least = std::min(least, bags), times += lay.times;
        }
        for (const auto& each : run)
            CHECK(cut[each.pattern] == each.count);
        CHECK(times == (all + most - 1) / most);
        CHECK(largest - least <= (all > 0 ? 1 : 1 << 20));
    }
    CHECK(laysFor({}).empty());
}

TEST_CASE("Lays: what is bought of a cloth is what the lays take, and each size has its share")
{
    Design d = newDesign("large-tote");
    d.run = {{"S", 10}, {"M", 25}, {"L", 5}};
    const auto patterns = draftAll(d);
    std::vector<const Pattern*> all;
    for (const auto& p : patterns)
        all.push_back(&p);
    const std::vector<Bags> run{{&patterns[0], 10}, {&patterns[1], 25}, {&patterns[2], 5}};
    const auto lays = laysFor(run);
    CHECK(lays.size() <= 2); // forty bags: twice twenty
    for (const auto& purchase : purchasesFor(d, all)) {
        if (purchase.cloth.empty())
            continue;
        INFO(purchase.cloth);
        double metres = 0;
        for (const auto& lay : lays)
            for (const auto& m : lay.markers)
                metres += m.material == purchase.cloth ? lay.times * m.length / 1000 : 0;
        CHECK(purchase.needed == Approx(metres));
        CHECK(metres < apart(run, purchase.cloth) / 1000 + 0.2);
        CHECK(purchase.bySize.at("M") > purchase.bySize.at("L") * 3);
    }
}
