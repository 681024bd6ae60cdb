// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutting/purchases.hpp"

#include "cutting/consumables.hpp"
#include "cutting/lays.hpp"

#include "cutting/cost.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kOneTenth = 0.1; // metres: what is cut from a roll is sold by

void addBags(Purchase& to, const std::string& size, double each, int bags)
{
    to.needed += each * bags;
    to.bySize[size] += each * bags;
}

/// Things alike in kind, size and finish are one purchase; what is sold by length is one whatever its lengths.
bool alike(const Purchase& p, const Hardware& h, const std::string& entry, Purchase::Unit unit)
{
    return p.cloth.empty() && p.ware == h.kind && p.entry == entry && p.finish == h.finish
        && (unit != Purchase::Unit::Pieces || p.size == h.sizeText);
}

void settle(Purchase& p)
{
    const double lacks = p.needed - p.stock;
    p.buy = lacks > 1e-9 ? std::ceil(lacks / p.pack - 1e-9) * p.pack : 0;
    p.cost = p.buy * p.price;
}

} // namespace

std::map<std::string, int> bagsOf(const Design& design)
{
    std::map<std::string, int> out;
    for (const auto& size : design.sizes)
        if (const auto bags = design.run.find(size); bags != design.run.end() && bags->second > 0)
            out[size] = bags->second;
    if (out.empty())
        out[design.baseSize] = 1;
    return out;
}

std::vector<Purchase> purchasesFor(const Design& design, const std::vector<const Pattern*>& patterns)
{
    std::vector<Purchase> cloths, notions;
    auto run = bagsOf(design);
    if (std::none_of(patterns.begin(), patterns.end(), [&](const Pattern* p) { return run.contains(p->size); }))
        for (const Pattern* p : patterns)
            run[p->size] = 1;
    std::vector<Bags> made;
    for (const Pattern* each : patterns) {
        const Pattern& pattern = *each;
        const auto found = run.find(pattern.size);
        if (found == run.end())
            continue;
        const int bags = found->second;
        made.push_back({each, bags});
        for (const auto& marker : makeMarkers(pattern)) {
            auto it = std::find_if(
                cloths.begin(), cloths.end(), [&](const Purchase& p) { return p.cloth == marker.material; });
            if (it == cloths.end()) {
                const Material& m = pattern.material(marker.material);
                it = cloths.insert(cloths.end(),
                    Purchase{.cloth = marker.material,
                        .entry = m.id,
                        .what = naming(m.name),
                        .size = m.width > 0 ? say("{} wide", Len(m.width)) : Message(),
                        .unit = Purchase::Unit::Metres,
                        .stock = m.stock,
                        .pack = m.sold / 1000,
                        .price = m.price,
                        .lead = m.lead});
            }
            addBags(*it, pattern.size, marker.length / (1 - marker.shrinks / 100) / 1000, bags);
        }
        for (const auto& h : notionsOf(pattern)) {
            const Good* good = goodFor(*pattern.library, h, design.goods);
            const bool byLength = byTheMetre(h.kind), spools = h.kind == Ware::Thread && good && good->length > 0;
            const auto unit = spools                 ? Purchase::Unit::Spools
                : byLength || h.kind == Ware::Thread ? Purchase::Unit::Metres
                                                     : Purchase::Unit::Pieces;
            const std::string entry = good ? good->id : "";
            auto it = std::find_if(
                notions.begin(), notions.end(), [&](const Purchase& p) { return alike(p, h, entry, unit); });
            if (it == notions.end()) {
                const double least = unit == Purchase::Unit::Metres ? kOneTenth : 1;
                it = notions.insert(notions.end(),
                    Purchase{.ware = h.kind,
                        .entry = entry,
                        .what = good ? naming(good->name) : within(labelled(called(h.kind))),
                        .size = unit == Purchase::Unit::Pieces ? h.sizeText
                            : h.kind == Ware::Thread           ? h.finish
                                                               : Message(),
                        .finish = h.finish,
                        .unit = unit,
                        .stock = good ? good->stock : 0,
                        .pack = good && good->pack > 0 ? good->pack : least,
                        .price = good ? good->price : 0,
                        .lead = good ? good->lead : 0});
            }
            addBags(*it, pattern.size,
                spools                               ? h.count * h.size / good->length
                    : byLength                       ? h.count * h.size / 1000
                    : unit == Purchase::Unit::Metres ? h.size / 1000
                                                     : h.count,
                bags);
        }
    }
    for (const auto& [pattern, bags] : made)
        for (const auto& used : consumablesOf(*pattern)) {
            const Good* good = pattern->library->good(used.kind, used.size, 0, 0, design.goods);
            auto it = std::find_if(notions.begin(), notions.end(),
                [&](const Purchase& p) { return p.ware == used.kind && p.size == used.sizeText && p.cloth.empty(); });
            if (it == notions.end())
                it = notions.insert(notions.end(),
                    Purchase{.ware = used.kind,
                        .entry = good ? good->id : "",
                        .what = good ? naming(good->name) : within(labelled(called(used.kind))),
                        .size = used.sizeText,
                        .unit = byTheGram(used.kind) ? Purchase::Unit::Grams : Purchase::Unit::Pieces,
                        .stock = good ? good->stock : 0,
                        .pack = good && good->pack > 0 ? good->pack : 1,
                        .price = good ? good->price : 0,
                        .lead = good ? good->lead : 0});
            addBags(*it, pattern->size, used.amount, bags);
        }
    const auto lays = laysFor(made);
    for (auto& cloth : cloths) {
        const double together = lengthFor(lays, cloth.cloth) / 1000, apart = cloth.needed;
        cloth.needed = together;
        for (auto& [size, needed] : cloth.bySize)
            needed *= apart > 0 ? together / apart : 0;
    }
    cloths.insert(cloths.end(), notions.begin(), notions.end());
    for (auto& p : cloths)
        settle(p);
    return cloths;
}

namespace {

void compare(std::vector<Message>& out, const char* more, const char* less, double difference, double least)
{
    if (difference > least)
        out.push_back(say(more, Len(difference)));
    else if (difference < -least)
        out.push_back(say(less, Len(-difference)));
}

void comparePrice(std::vector<Message>& out, double now, double then)
{
    if (then > now + 0.004)
        out.push_back(say("{} a unit dearer", Num(then - now, 2)));
    else if (then < now - 0.004)
        out.push_back(say("{} a unit cheaper", Num(now - then, 2)));
}

} // namespace

std::vector<Substitute> substitutesFor(const Pattern& pattern, const Purchase& purchase)
{
    std::vector<std::pair<double, Substitute>> found;
    if (!purchase.cloth.empty()) {
        const Material& now = pattern.material(purchase.cloth);
        for (const auto& m : pattern.library->materials()) {
            if (m.id == now.id || m.use != now.use || m.rigid != now.rigid || m.standIn
                || (m.width > 0) != (now.width > 0) || m.thickness > 2 * now.thickness
                || m.thickness < now.thickness / 2)
                continue;
            Substitute s{m.id, naming(m.name), {}, true};
            compare(s.changes, "{} thicker", "{} thinner", m.thickness - now.thickness, 0.005);
            compare(s.changes, "{} wider", "{} narrower", m.width - now.width, 0.5);
            if (m.heat != now.heat)
                s.changes.push_back(m.heat
                        ? say("bears the iron: layers can be fused")
                        : say("does not bear the iron: nothing is fused, other layers are proposed"));
            if ((m.kind == "fusible") != (now.kind == "fusible"))
                s.changes.push_back(m.kind == "fusible" ? say("is fused") : say("is sewn in, not fused"));
            if (m.use == "face" && m.frays() != now.frays())
                s.changes.push_back(m.frays() ? say("frays at a cut edge") : say("does not fray"));
            if (m.oneWay != now.oneWay)
                s.changes.push_back(m.oneWay ? say("one way: all pieces upright") : say("pieces may lie head to foot"));
            if (needleOf(m) != needleOf(now) && needleOf(m) > 0)
                s.changes.push_back(say("needle {} instead of {}", Num(needleOf(m)), Num(needleOf(now))));
            comparePrice(s.changes, now.price, m.price);
            if (m.stock > 0)
                s.changes.push_back(say("{} m in stock", Num(m.stock, 1)));
            found.emplace_back(
                std::abs(std::log(m.thickness / now.thickness)) + (m.kind == now.kind ? 0 : 0.5), std::move(s));
        }
    } else if (!purchase.entry.empty()) {
        const auto& goods = pattern.library->goods();
        const auto own = std::find_if(
            goods.begin(), goods.end(), [&](const Good& g) { return g.id == purchase.entry; });
        for (const auto& g : goods) {
            if (own == goods.end() || g.id == own->id || g.kind != own->kind
                || (g.clearWidth() > 0 && own->clearWidth() > 0 && std::abs(g.clearWidth() - own->clearWidth()) > 0.05))
                continue;
            // What has other measures is another thing to draft for; what has the same can be taken as it is.
            const auto like = [](double a, double b) { return a <= 0 || b <= 0 || std::abs(a - b) < 0.05; };
            Substitute s{g.id, naming(g.name), {}, like(g.length, own->length) && like(g.gauge, own->gauge)};
            if (g.make != own->make && !g.make.empty())
                s.changes.push_back(own->make.empty() ? naming(g.make) : say("{} instead of {}", g.make, own->make));
            if (g.gauge > 0 && own->gauge > 0 && g.gauge != own->gauge)
                s.changes.push_back(say("gauge {} instead of {}", Num(g.gauge), Num(own->gauge)));
            comparePrice(s.changes, own->price, g.price);
            if (g.stock > 0)
                s.changes.push_back(say("{} in stock", Num(g.stock, 1)));
            found.emplace_back(std::abs(g.price - own->price), std::move(s));
        }
    }
    std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Substitute> out;
    for (auto& [unused, s] : found)
        if (out.size() < 6)
            out.push_back(std::move(s));
    return out;
}

} // namespace tectonis
