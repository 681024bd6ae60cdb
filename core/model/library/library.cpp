// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library.hpp"

#include "embedded.hpp"
#include "library/library_file.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

/// Puts each of @p more in the place of the one of its name, or behind all.
template <class Item, class Name> void overlay(std::vector<Item>& onto, const std::vector<Item>& more, Name name)
{
    for (const Item& item : more) {
        const auto old = std::find_if(onto.begin(), onto.end(), [&](const Item& o) { return o.*name == item.*name; });
        if (old == onto.end())
            onto.push_back(item);
        else
            *old = item;
    }
}

template <class Item>
const Item& named(const std::vector<Item>& items, std::string Item::*name, const std::string& wanted, const Label& what)
{
    std::string known;
    for (const auto& item : items) {
        if (item.*name == wanted)
            return item;
        known += (known.empty() ? "" : ", ") + item.*name;
    }
    throw InputError(labelled(what), say("“{}” is no {} here; choose one of {}", wanted, what, known));
}

} // namespace

double snapToStock(const StockTable& table, double ideal)
{
    const auto& v = table.values;
    constexpr double slack = 1e-6; // an ideal that equals an offer up to rounding is that offer
    const auto above = std::lower_bound(v.begin(), v.end(), ideal - slack);
    if (above == v.end())
        return v.back();
    if (above == v.begin() || std::abs(*above - ideal) <= slack || table.snap == StockTable::Snap::Up)
        return *above;
    const double below = *(above - 1);
    if (table.snap == StockTable::Snap::Down)
        return below;
    return ideal - below < *above - ideal ? below : *above;
}

Library::Library(Contents contents) : m_contents(std::move(contents))
{
    for (std::size_t i = 0; i < m_contents.materials.size(); ++i)
        m_byId.emplace(m_contents.materials[i].id, i);
}

const std::shared_ptr<const Library>& Library::builtIn()
{
    static const auto library = std::make_shared<const Library>(
        readLibrary(std::string(embedded::library), "library").library);
    return library;
}

const Material* Library::find(const MaterialId& id) const
{
    const auto it = m_byId.find(id);
    return it == m_byId.end() ? nullptr : &m_contents.materials[it->second];
}

const Material& Library::material(const MaterialId& id) const
{
    static const Material unknown = standInFor("unknown", "face");
    const Material* found = find(id);
    return found ? *found : unknown;
}

const Good* Library::good(Ware kind, double width, double length, double gauge, const std::vector<std::string>& taken,
    const std::string& make) const
{
    const Good* best = nullptr;
    int most = -1;
    for (const auto& g : m_contents.goods) {
        if (g.kind != wordOf(kind))
            continue;
        int said = 0;
        bool fits = true;
        for (const auto& [has, wanted] : {std::pair{g.clearWidth(), width}, {g.length, length}, {g.gauge, gauge}}) {
            said += has > 0;
            fits = fits && (has <= 0 || wanted <= 0 || std::abs(has - wanted) < 0.05);
        }
        said += !make.empty() && g.make == make ? 5 : 0;
        // Those that are taken by name come first, in their order.
        const auto named = std::find(taken.begin(), taken.end(), g.id);
        if (named != taken.end())
            said += 10 + int(taken.end() - named);
        if (fits && said > most)
            best = &g, most = said;
    }
    return best;
}

const StockTable* Library::stock(const std::string& table) const
{
    const auto it = m_contents.stock.find(table);
    return it == m_contents.stock.end() ? nullptr : &it->second;
}

double Library::snapped(const std::string& table, double ideal) const
{
    const StockTable* offers = stock(table);
    return offers ? snapToStock(*offers, ideal) : ideal;
}

const Paper& Library::paper(const std::string& name) const
{
    return named(papers(), &Paper::name, name, label("paper"));
}

const Workshop& Library::workshop(const std::string& name) const
{
    return named(workshops(), &Workshop::machine, name, label("workshop"));
}

bool Library::operator==(const Library& other) const
{
    const Contents &a = m_contents, &b = other.m_contents;
    return a.materials.size() == b.materials.size() && a.stock == b.stock && a.papers == b.papers
        && a.workshops == b.workshops && a.goods == b.goods && a.more == b.more
        && std::all_of(a.materials.begin(), a.materials.end(), [&](const Material& m) {
               const Material* same = other.find(m.id);
               return same && *same == m;
           });
}

Library Library::with(const Library& more) const
{
    Contents all = m_contents;
    overlay(all.materials, more.materials(), &Material::id);
    overlay(all.goods, more.goods(), &Good::id);
    overlay(all.papers, more.papers(), &Paper::name);
    overlay(all.workshops, more.workshops(), &Workshop::machine);
    for (const auto& [name, table] : more.m_contents.stock)
        all.stock[name] = table;
    if (!more.m_contents.more.empty())
        all.more = more.m_contents.more;
    return Library(std::move(all));
}

Material standInFor(const std::string& id, const std::string& use)
{
    Material m{.id = id, .name = "Unknown: " + id, .use = use};
    m.thickness = use == "strap" ? 1.8 : 0.7;
    m.gsm = use == "interlining" ? 100 : 350;
    m.width = use == "strap" ? 0 : 1400;
    m.heat = false; // whoever does not know leaves the iron cold
    m.standIn = true;
    return m;
}

const char* wordOf(Stiffness stiffness)
{
    constexpr const char* words[] = {"soft", "medium", "firm", "rigid"};
    return words[int(stiffness)];
}

Stiffness stiffnessOf(const Material& m)
{
    for (const auto each : {Stiffness::Soft, Stiffness::Medium, Stiffness::Firm, Stiffness::Rigid})
        if (m.stiffness == wordOf(each))
            return each;
    if (m.rigid || m.kind == "board")
        return Stiffness::Rigid;
    if (m.use == "interlining")
        return m.thickness >= 4 ? Stiffness::Firm // foam stands by its thickness
            : m.thickness >= 1  ? Stiffness::Medium
                                : Stiffness::Soft;
    if (m.kind == "webbing" || (m.kind == "leather" && m.thickness >= 2))
        return Stiffness::Firm;
    return m.gsm >= 330 || m.thickness >= 0.7 ? Stiffness::Medium : Stiffness::Soft;
}

double Workshop::widthOf(PresserFoot foot) const
{
    switch (foot) {
    case PresserFoot::Standard: return footWidth;
    case PresserFoot::Zip: return zipFoot;
    case PresserFoot::Walking: return walkingFoot;
    case PresserFoot::NonStick: return nonStickFoot;
    }
    return 0;
}

PresserFoot Workshop::footFor(bool sticks) const
{
    return !sticks                             ? PresserFoot::Standard
        : nonStickFoot <= 0 && walkingFoot > 0 ? PresserFoot::Walking
                                               : PresserFoot::NonStick;
}

int needleOf(const Material& cloth)
{
    if (cloth.needle > 0)
        return int(std::lround(cloth.needle));
    if (cloth.use == "interlining")
        return 0;
    if (cloth.kind == "webbing")
        return 110;
    if (cloth.kind == "leather" || cloth.kind == "vinyl" || cloth.kind == "waxed")
        return 100;
    return cloth.thickness < 0.15 ? 70 : cloth.thickness < 0.4 ? 80 : cloth.thickness < 0.7 ? 90 : 100;
}

} // namespace tectonis
