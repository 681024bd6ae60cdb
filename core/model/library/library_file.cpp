// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library_file.hpp"

#include "library/library_json.hpp"
#include "library/material_text.hpp"
#include "text/csv.hpp"
#include "text/places.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>

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
    Problems problems(text, place);
    ReadLibrary out;
    std::vector<const MaterialField*> columns;
    for (const auto& head : rows.front()) {
        const auto& fields = materialFields();
        const auto field = std::find_if(
            fields.begin(), fields.end(), [&](const MaterialField& f) { return head.text == f.name; });
        const bool twice = field != fields.end() && std::find(columns.begin(), columns.end(), &*field) != columns.end();
        if (twice)
            problems.add(head.byte, say("there is another column “{}” before it", head.text));
        columns.push_back(field == fields.end() || twice ? nullptr : &*field);
        if (field == fields.end())
            out.told.push_back(say("the column “{}” was passed over", head.text));
    }
    const auto has = [&](const char* name) {
        return std::any_of(
            columns.begin(), columns.end(), [&](const MaterialField* f) { return f && std::string(f->name) == name; });
    };
    if (!has("thickness") || (!has("name") && !has("id"))) {
        std::string known;
        for (const auto& field : materialFields())
            known += (known.empty() ? "" : ", ") + std::string(field.name);
        throw InputError(place,
            say("the first line names the columns; “thickness” and “name” or “id” are needed. Known are {}", known));
    }
    Library::Contents contents;
    for (std::size_t r = 1; r < rows.size(); ++r) {
        Material m;
        bool sound = true;
        for (std::size_t c = 0; c < rows[r].size(); ++c) {
            const CsvCell& cell = rows[r][c];
            if (c >= columns.size()) {
                problems.add(cell.byte, say("the line has more cells than the first, which has {}", columns.size()));
                sound = false;
                break;
            }
            if (!columns[c] || cell.text.empty())
                continue;
            if (const auto problem = setField(m, *columns[c], cell.text); !problem.empty()) {
                problems.add(cell.byte, say("{}: {}", columns[c]->name, problem));
                sound = false;
            }
        }
        if (!sound)
            continue;
        if (const auto problem = completed(m); !problem.empty())
            problems.add(rows[r].front().byte, problem);
        else if (std::any_of(contents.materials.begin(), contents.materials.end(),
                     [&](const Material& other) { return other.id == m.id; }))
            problems.add(rows[r].front().byte, say("there is another “{}” before it", m.id));
        contents.materials.push_back(std::move(m));
    }
    problems.refuseIfAny();
    out.library = Library(std::move(contents));
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
    std::vector<std::string> cells;
    for (const auto& field : materialFields())
        cells.push_back(field.name);
    std::string out = csvLine(cells);
    for (const auto& m : library.materials()) {
        if (m.standIn)
            continue;
        for (std::size_t i = 0; i < cells.size(); ++i)
            cells[i] = fieldText(m, materialFields()[i]);
        out += csvLine(cells);
    }
    return out;
}

} // namespace tectonis
