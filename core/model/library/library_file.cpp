// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library_file.hpp"

#include "library/fields.hpp"
#include "library/library_json.hpp"
#include "text/csv.hpp"
#include "text/places.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <iterator>

namespace tectonis {
namespace {

using nlohmann::json;
constexpr const char* kFormat = "tectonis-library";

/// Problems of one text, each with its line and column.
class Problems {
public:
    Problems(const std::string& text, std::string place) : m_text(text), m_place(std::move(place)) {}
    void add(std::size_t byte, const Message& problem)
    {
        if (++m_count > 20)
            return;
        const Message told = say("{}: {}", lineAndColumn(m_text, byte), problem);
        m_told = m_told.empty() ? told : say("{}\n{}", m_told, told);
    }
    void refuseIfAny() const
    {
        if (m_count > 20)
            throw InputError(m_place, say("{}\n… and {} more", m_told, m_count - 20));
        if (m_count > 0)
            throw InputError(m_place, m_told);
    }

private:
    const std::string& m_text;
    std::string m_place;
    Message m_told;
    std::size_t m_count = 0;
};

ReadLibrary fromJsonText(const std::string& text, const std::string& place)
{
    json j;
    try {
        j = json::parse(text, [&](int depth, json::parse_event_t, json&) {
            if (depth > 20)
                throw InputError(place, say("it is nested deeper than any library"));
            return true;
        });
    } catch (const json::parse_error& e) {
        throw InputError(say("{}, {}", place, lineAndColumn(text, e.byte == 0 ? 0 : e.byte - 1)),
            say("this is not a whole Tectonis library; the file may be cut short or of another kind"));
    } catch (const json::exception&) { // a number beyond all bounds
        throw InputError(place, say("it holds a number that is too large"));
    }
    if (!j.is_object() || j.value("format", json()) != kFormat)
        throw InputError(place, say("this is not a Tectonis library"));
    if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] < 1)
        throw InputError(place, say("the file names no version"));
    if (j["version"] > libraryFileVersion)
        throw InputError(place,
            say("the file is of version {}, this Tectonis reads up to version {}; open it with a newer Tectonis",
                j["version"].get<long long>(), libraryFileVersion));
    Problems problems(text, place);
    ReadLibrary out{Library(libraryFromJson(j,
                        [&](const std::string& pointer, const Message& problem) {
                            problems.add(jsonByte(text, pointer), problem);
                        })),
        {}};
    problems.refuseIfAny();
    return out;
}

/// A table of one kind of things, read by its columns.
template <class Item> class TableReader {
public:
    TableReader(const std::vector<CsvRow>& rows, const std::string& text, const std::string& place)
        : m_rows(rows), m_problems(text, place)
    {
        for (const auto& head : rows.front())
            column(head);
    }

    std::vector<Message> passedOver;

    std::vector<Item> items()
    {
        std::vector<Item> out;
        for (std::size_t r = 1; r < m_rows.size(); ++r) {
            Item item;
            if (!fill(item, m_rows[r]))
                continue;
            if (const auto problem = completed(item); !problem.empty())
                m_problems.add(m_rows[r].front().byte, problem);
            else if (std::any_of(out.begin(), out.end(), [&](const Item& other) { return other.id == item.id; }))
                m_problems.add(m_rows[r].front().byte, say("there is another “{}” before it", item.id));
            out.push_back(std::move(item));
        }
        m_problems.refuseIfAny();
        return out;
    }

private:
    void column(const CsvCell& head)
    {
        const auto& fields = fieldsOf<Item>();
        const auto field = std::find_if(
            fields.begin(), fields.end(), [&](const Field<Item>& f) { return head.text == f.name; });
        const bool twice = field != fields.end()
            && std::find(m_columns.begin(), m_columns.end(), &*field) != m_columns.end();
        if (twice)
            m_problems.add(head.byte, say("there is another column “{}” before it", head.text));
        m_columns.push_back(field == fields.end() || twice ? nullptr : &*field);
        if (field == fields.end())
            passedOver.push_back(say("the column “{}” was passed over", head.text));
    }

    bool fill(Item& item, const CsvRow& row)
    {
        bool sound = true;
        for (std::size_t c = 0; c < row.size(); ++c) {
            const CsvCell& cell = row[c];
            if (c >= m_columns.size()) {
                m_problems.add(
                    cell.byte, say("the line has more cells than the first, which has {}", m_columns.size()));
                return false;
            }
            if (!m_columns[c] || cell.text.empty())
                continue;
            if (const auto problem = setField(item, *m_columns[c], cell.text); !problem.empty()) {
                m_problems.add(cell.byte, say("{}: {}", m_columns[c]->name, problem));
                sound = false;
            }
        }
        return sound;
    }

    const std::vector<CsvRow>& m_rows;
    Problems m_problems;
    std::vector<const Field<Item>*> m_columns;
};

template <class Item> std::string columnsOf()
{
    std::string known;
    for (const auto& field : fieldsOf<Item>())
        known += (known.empty() ? "" : ", ") + std::string(field.name);
    return known;
}

/// Cloths have a thickness, what is bought by the piece a kind.
ReadLibrary fromCsv(const std::string& text, const std::string& place)
{
    std::vector<CsvRow> rows;
    try {
        rows = csvRows(text);
    } catch (const InputError& e) {
        throw e.at(say("{}, {}", place, e.place()));
    }
    if (rows.empty())
        throw InputError(place, say("there is nothing in it"));
    const auto has = [&](const char* name) {
        return std::any_of(
            rows.front().begin(), rows.front().end(), [&](const CsvCell& head) { return head.text == name; });
    };
    const bool cloths = has("thickness"), goods = has("kind");
    if (cloths == goods || (!has("name") && !has("id")))
        throw InputError(place,
            say("the first line names the columns. Of cloths “thickness” and “name” or “id” are needed; known are {}. "
                "Of what is bought otherwise “kind” and “name” or “id” are needed; known are {}",
                columnsOf<Material>(), columnsOf<Good>()));
    Library::Contents contents;
    ReadLibrary out;
    const auto read = [&](auto reader, auto& list) {
        list = reader.items();
        out.told = std::move(reader.passedOver);
    };
    if (cloths)
        read(TableReader<Material>(rows, text, place), contents.materials);
    else
        read(TableReader<Good>(rows, text, place), contents.goods);
    out.library = Library(std::move(contents));
    return out;
}

template <class Item> std::string csvOf(const std::vector<Item>& items)
{
    std::vector<std::string> cells;
    for (const auto& field : fieldsOf<Item>())
        cells.push_back(field.name);
    std::string out = csvLine(cells);
    for (const auto& item : items) {
        for (std::size_t i = 0; i < cells.size(); ++i)
            cells[i] = fieldText(item, fieldsOf<Item>()[i]);
        out += csvLine(cells);
    }
    return out;
}

} // namespace

ReadLibrary readLibrary(const std::string& text, const std::string& place)
{
    const std::size_t from = text.starts_with("\xEF\xBB\xBF") ? 3 : 0;
    const std::size_t first = text.find_first_not_of(" \t\r\n", from);
    if (first != std::string::npos && (text[first] == '{' || text[first] == '['))
        return fromJsonText(text.substr(from), place);
    if (text.find('\0') != std::string::npos)
        throw InputError(place, say("this is neither a table nor a Tectonis library"));
    return fromCsv(text, place);
}

std::string libraryText(const Library& library)
{
    json j = toJson(library.contents());
    j["format"] = kFormat;
    j["version"] = libraryFileVersion;
    return j.dump(2, ' ', false, json::error_handler_t::replace) + "\n";
}

std::string libraryCsv(const Library& library)
{
    std::vector<Material> known;
    std::copy_if(library.materials().begin(), library.materials().end(), std::back_inserter(known),
        [](const Material& m) { return !m.standIn; });
    return csvOf(known);
}

std::string goodsCsv(const Library& library) { return csvOf(library.goods()); }

} // namespace tectonis
