// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library_json.hpp"

#include "library/fields.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <set>

namespace tectonis {
namespace {

using nlohmann::json;

constexpr std::pair<const char*, StockTable::Snap> kSnaps[] = {
    {"down", StockTable::Snap::Down}, {"up", StockTable::Snap::Up}, {"nearest", StockTable::Snap::Nearest}};

json withMore(json out, const More& more)
{
    if (!more.empty())
        out.update(json::parse(more));
    return out;
}

/// The members of @p j that are not among those known.
More moreIn(json j, const std::vector<const char*>& known)
{
    for (const char* name : known)
        j.erase(name);
    return j.empty() ? More() : j.dump(-1, ' ', false, json::error_handler_t::replace);
}

/// A material has all its numbers; switches, what the studio has of it, and of a good whatever is left open, only where
/// they say something.
template <class Item> json itemJson(const Item& item)
{
    json out = json::object();
    const Item plain;
    for (const auto& field : fieldsOf<Item>())
        std::visit(
            [&](auto member) {
                const bool always = std::is_same_v<Item, Material> && field.quantity != FieldSpec::Quantity::YesNo
                    && !field.ofStudio;
                if (always || item.*member != plain.*member)
                    out[field.name] = item.*member;
            },
            field.member);
    return withMore(std::move(out), item.more);
}
json toJson(const Material& m) { return itemJson(m); }
json toJson(const Good& g) { return itemJson(g); }

json toJson(const StockTable& t)
{
    const char* snap = "nearest";
    for (const auto& [word, value] : kSnaps)
        if (value == t.snap)
            snap = word;
    return withMore({{"meaning", t.meaning}, {"snap", snap}, {"values", t.values}}, t.more);
}

json toJson(const Workshop& w)
{
    json out = json::object();
    for (const auto& field : fieldsOf<Workshop>())
        std::visit([&](auto member) { out[field.name] = w.*member; }, field.member);
    return out;
}

class Reader {
public:
    explicit Reader(const TellProblem& tell) : m_tell(tell) {}

    /// A material or a good. @p none: what is wrong with what is no object.
    template <class Item> Item item(const json& j, const std::string& at, const Message& none)
    {
        Item item;
        if (!j.is_object())
            return m_tell(at, none), item;
        std::vector<const char*> known;
        for (const auto& field : fieldsOf<Item>()) {
            known.push_back(field.name);
            if (!j.contains(field.name))
                continue;
            const json& value = j.at(field.name);
            const std::string text = value.is_string() ? value.get<std::string>()
                : value.is_boolean()                   ? (value.get<bool>() ? "yes" : "no")
                                                       : value.dump();
            if (value.is_structured() || value.is_null())
                m_tell(at + "/" + field.name, expected(field));
            else if (const auto problem = setField(item, field, text); !problem.empty())
                m_tell(at + "/" + field.name, problem);
        }
        if (const auto problem = completed(item); !problem.empty())
            m_tell(at, problem);
        item.more = moreIn(j, known);
        return item;
    }

    StockTable table(const std::string& name, const json& j, const std::string& at)
    {
        StockTable t{.name = name};
        if (!j.is_object() || !j.contains("values") || !j.at("values").is_array() || j.at("values").empty())
            return m_tell(at, say("a stock table needs its “values”, a list of lengths")), t;
        t.meaning = textOf(j, "meaning", at);
        const std::string snap = j.contains("snap") ? textOf(j, "snap", at) : "nearest";
        bool known = false;
        for (const auto& [word, value] : kSnaps)
            if (snap == word)
                t.snap = value, known = true;
        if (!known)
            m_tell(at + "/snap", say("“{}” was given; write down, up or nearest", snap));
        if (j.at("values").size() > 500)
            m_tell(at + "/values", say("there are more than 500"));
        for (std::size_t i = 0; i < std::min<std::size_t>(j.at("values").size(), 500); ++i) {
            const std::string here = fmt::format("{}/values/{}", at, i);
            const double v = number(j.at("values")[i], here, 0.1, 10000);
            if (std::isnan(v))
                continue;
            if (!t.values.empty() && v <= t.values.back())
                m_tell(here, say("{} does not come after {}: the values rise", Num(v), Num(t.values.back())));
            t.values.push_back(v);
        }
        t.more = moreIn(j, {"meaning", "snap", "values"});
        return t;
    }

    Paper paper(const json& j, const std::string& at)
    {
        Paper p{.name = name(j, "name", at)};
        if (j.is_object())
            p.width = side(j, "width", at), p.height = side(j, "height", at);
        return p;
    }

    Workshop workshop(const json& j, const std::string& at)
    {
        Workshop w{.machine = name(j, "machine", at)};
        for (const auto& field : fieldsOf<Workshop>()) {
            if (!j.is_object() || !j.contains(field.name) || std::string_view(field.name) == "machine")
                continue;
            const std::string here = at + "/" + field.name;
            if (const auto member = std::get_if<double Workshop::*>(&field.member))
                w.** member = number(j.at(field.name), here, field.least, field.most);
            else if (!j.at(field.name).is_string())
                m_tell(here, expected(field));
            else if (const auto problem = setField(w, field, j.at(field.name).get<std::string>()); !problem.empty())
                m_tell(here, problem);
        }
        if (const auto problem = completed(w); !w.machine.empty() && !problem.empty())
            m_tell(at, problem);
        return w;
    }

private:
    double number(const json& j, const std::string& at, double least, double most)
    {
        const double v = j.is_number() ? j.get<double>() : std::nan("");
        if (!(v >= least && v <= most)) {
            m_tell(at, say("a number from {} to {} was expected", Num(least), Num(most)));
            return std::nan("");
        }
        return v;
    }
    double side(const json& j, const char* field, const std::string& at)
    {
        if (j.contains(field))
            return number(j.at(field), at + "/" + field, 50, 20000);
        m_tell(at, say("its {} is missing", field));
        return 50;
    }
    std::string textOf(const json& j, const char* field, const std::string& at)
    {
        if (!j.contains(field))
            return "";
        if (!j.at(field).is_string() || !printable(j.at(field).get<std::string>()))
            return m_tell(at + "/" + field, say("a line of text was expected")), "";
        return j.at(field).get<std::string>();
    }
    std::string name(const json& j, const char* field, const std::string& at)
    {
        std::string out = j.is_object() ? textOf(j, field, at) : "";
        if (out.empty())
            m_tell(at, say("its “{}” is missing", field));
        return out;
    }
    const TellProblem& m_tell;
};

/// Each item of a list by @p read; two of one name are a problem.
template <class Item, class Read> void readList(const json& j, const char* list, std::string Item::*name,
    std::vector<Item>& out, const TellProblem& tell, const Read& read)
{
    if (!j.contains(list))
        return;
    if (!j.at(list).is_array() || j.at(list).size() > 20000)
        return tell(std::string("/") + list, say("a list was expected, of 20000 at most"));
    std::set<std::string> names;
    for (std::size_t i = 0; i < j.at(list).size(); ++i) {
        const std::string at = fmt::format("/{}/{}", list, i);
        Item item = read(j.at(list)[i], at);
        if (!names.insert(item.*name).second)
            tell(at, say("there is another “{}” before it", item.*name));
        out.push_back(std::move(item));
    }
}

} // namespace

json toJson(const Library::Contents& contents)
{
    json out = json::object();
    const auto list = [&](const char* name, const auto& items) {
        for (const auto& item : items)
            out[name].push_back(toJson(item));
    };
    for (const auto& m : contents.materials)
        if (!m.standIn)
            out["materials"].push_back(toJson(m));
    list("goods", contents.goods);
    for (const auto& [name, table] : contents.stock)
        out["stock"][name] = toJson(table);
    for (const auto& p : contents.papers)
        out["papers"].push_back({{"name", p.name}, {"width", p.width}, {"height", p.height}});
    list("workshops", contents.workshops);
    return withMore(std::move(out), contents.more);
}

Library::Contents libraryFromJson(const json& j, const TellProblem& tell)
{
    Library::Contents out;
    if (!j.is_object())
        return tell("", say("this is no library")), out;
    Reader reader(tell);
    readList(j, "materials", &Material::id, out.materials, tell, [&](const json& m, const std::string& at) {
        return reader.item<Material>(
            m, at, say("this is no material: an object with a name and a thickness is wanted"));
    });
    readList(j, "goods", &Good::id, out.goods, tell, [&](const json& g, const std::string& at) {
        return reader.item<Good>(g, at, say("this is nothing to buy: an object with a name and a kind is wanted"));
    });
    readList(j, "papers", &Paper::name, out.papers, tell,
        [&](const json& m, const std::string& at) { return reader.paper(m, at); });
    readList(j, "workshops", &Workshop::machine, out.workshops, tell,
        [&](const json& m, const std::string& at) { return reader.workshop(m, at); });
    if (j.contains("stock")) {
        if (!j.at("stock").is_object())
            tell("/stock", say("stock tables by their names were expected"));
        else
            for (const auto& [name, table] : j.at("stock").items())
                if (name.empty() || name.size() > 40 || !printable(name) || name.find(' ') != std::string::npos)
                    tell("/stock", say("a stock table's name is one word"));
                else
                    out.stock[name] = reader.table(name, table, "/stock/" + name);
    }
    out.more = moreIn(j, {"format", "version", "materials", "goods", "stock", "papers", "workshops"});
    return out;
}

} // namespace tectonis
