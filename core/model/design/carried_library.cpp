// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/carried_library.hpp"

#include "library/fields.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

/// Ids of materials that a design names, each with the use it is put to.
std::map<std::string, std::string> namedBy(const Design& design)
{
    std::map<std::string, std::string> out;
    for (const auto& [role, id] : design.materials)
        out.emplace(id, role == "strap" ? "strap" : "face");
    for (const auto& rule : design.layers)
        if (!rule.material.empty())
            out.emplace(rule.material, "interlining");
    return out;
}

std::string valuesText(const std::vector<double>& values)
{
    std::string out;
    for (const double v : values)
        out += (out.empty() ? "" : ", ") + formatNumber(v);
    return out;
}

Message snapText(StockTable::Snap snap)
{
    return snap == StockTable::Snap::Down ? say("the next below")
        : snap == StockTable::Snap::Up    ? say("the next above")
                                          : say("the nearest");
}

} // namespace

Library carriedBy(const Design& design)
{
    Library::Contents out;
    for (const auto& [id, use] : namedBy(design))
        if (const Material* m = design.library->find(id); m && !m->standIn)
            out.materials.push_back(withStudios(*m, Material{}));
    const auto& shipped = Library::builtIn()->goods();
    for (const auto& each : design.library->goods())
        if (const Good good = withStudios(each, Good{});
            std::find(shipped.begin(), shipped.end(), good) == shipped.end())
            out.goods.push_back(good);
    out.stock = design.library->contents().stock;
    out.more = design.library->contents().more;
    return Library(std::move(out));
}

SharedLibrary libraryFor(const Design& design, const Library& mine)
{
    // What the studio has of it is the studio's.
    Library::Contents carried = carriedBy(design).contents();
    for (auto& m : carried.materials)
        if (const Material* own = mine.find(m.id))
            m = withStudios(std::move(m), *own);
    for (auto& good : carried.goods)
        for (const auto& own : mine.goods())
            if (own.id == good.id)
                good = withStudios(std::move(good), own);
    const Library known = mine.with(Library(std::move(carried)));
    Library::Contents standIns;
    for (const auto& [id, use] : namedBy(design))
        if (!known.find(id))
            standIns.materials.push_back(standInFor(id, use));
    return SharedLibrary(known.with(Library(std::move(standIns))));
}

std::vector<NewerValue> newerValues(const Design& design, const Library& mine)
{
    std::vector<NewerValue> out;
    const Library carried = carriedBy(design);
    const auto compare = [&](const auto& old, const auto& now) {
        using Item = std::decay_t<decltype(old)>;
        for (const auto& field : fieldsOf<Item>())
            if (const std::string was = fieldText(old, field), is = fieldText(now, field); was != is && !field.ofStudio)
                out.push_back({naming([&] {
                                   if constexpr (std::is_same_v<Item, Workshop>)
                                       return now.machine;
                                   else
                                       return now.name;
                               }()),
                    labelled(field.title), naming(was), naming(is)});
    };
    for (const auto& old : carried.materials())
        if (const Material* now = mine.find(old.id))
            compare(old, *now);
    for (const auto& old : carried.goods())
        for (const auto& now : mine.goods())
            if (now.id == old.id)
                compare(old, now);
    for (const auto& now : mine.workshops())
        if (now.machine == design.workshop.machine)
            compare(design.workshop, now);
    for (const auto& [name, old] : carried.contents().stock)
        if (const StockTable* now = mine.stock(name)) {
            if (old.snap != now->snap)
                out.push_back({say("Stock of “{}”", name), say("Taken is"), snapText(old.snap), snapText(now->snap)});
            if (old.values != now->values)
                out.push_back({say("Stock of “{}”", name), say("Sold are"), naming(valuesText(old.values)),
                    naming(valuesText(now->values))});
        }
    return out;
}

} // namespace tectonis
