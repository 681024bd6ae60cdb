// SPDX-License-Identifier: GPL-3.0-or-later
#include "text/csv.hpp"

#include "text/places.hpp"
#include "units/error.hpp"

#include <algorithm>

namespace tectonis {
namespace {

char dividerOf(const std::string& text, std::size_t from)
{
    from = std::min(text.find_first_not_of("\r\n", from), text.size());
    std::size_t commas = 0, semicolons = 0, tabs = 0;
    bool quoted = false;
    for (std::size_t i = from; i < text.size() && (quoted || (text[i] != '\n' && text[i] != '\r')); ++i) {
        quoted ^= text[i] == '"';
        if (!quoted)
            commas += text[i] == ',', semicolons += text[i] == ';', tabs += text[i] == '\t';
    }
    return semicolons >= std::max<std::size_t>(commas, 1) ? ';' : tabs > commas ? '\t' : ',';
}

std::string withoutSpace(const std::string& s)
{
    const auto from = s.find_first_not_of(" \t");
    return from == std::string::npos ? "" : s.substr(from, s.find_last_not_of(" \t") - from + 1);
}

} // namespace

std::vector<CsvRow> csvRows(const std::string& text)
{
    std::size_t at = text.starts_with("\xEF\xBB\xBF") ? 3 : 0;
    const char divider = dividerOf(text, at);
    std::vector<CsvRow> rows(1);
    const auto ended = [&](std::size_t i) { return i >= text.size() || text[i] == '\n' || text[i] == '\r'; };
    while (at < text.size()) {
        CsvCell cell{"", at};
        while (at < text.size() && text[at] == ' ')
            ++at;
        if (at < text.size() && text[at] == '"') {
            cell.byte = at;
            for (++at;; ++at) {
                if (at >= text.size())
                    throw InputError(
                        lineAndColumn(text, cell.byte), say("a quotation mark opens here and none closes it"));
                if (text[at] == '"' && (at + 1 >= text.size() || text[at + 1] != '"'))
                    break;
                at += text[at] == '"';
                cell.text += text[at];
            }
            for (++at; !ended(at) && text[at] != divider; ++at)
                if (text[at] != ' ')
                    throw InputError(
                        lineAndColumn(text, at), say("something follows the quotation mark that closes a cell"));
        } else {
            const std::size_t from = at;
            while (!ended(at) && text[at] != divider)
                ++at;
            cell.text = withoutSpace(text.substr(from, at - from));
        }
        rows.back().push_back(std::move(cell));
        if (at < text.size() && text[at] == divider) {
            if (ended(++at))
                rows.back().push_back({"", at});
        }
        if (at < text.size() && ended(at)) {
            at += text[at] == '\r' && at + 1 < text.size() && text[at + 1] == '\n' ? 2 : 1;
            rows.emplace_back();
        }
    }
    std::erase_if(rows, [](const CsvRow& row) {
        return std::all_of(row.begin(), row.end(), [](const CsvCell& c) { return c.text.empty(); });
    });
    return rows;
}

std::string csvLine(const std::vector<std::string>& cells)
{
    std::string out;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        std::string cell = cells[i];
        if (cell.find_first_of(",;\t\"\r\n") != std::string::npos || cell != withoutSpace(cell)) {
            for (std::size_t k = 0; (k = cell.find('"', k)) != std::string::npos; k += 2)
                cell.insert(k, 1, '"');
            cell = '"' + cell + '"';
        }
        out += (i ? "," : "") + cell;
    }
    return out + "\r\n";
}

} // namespace tectonis
