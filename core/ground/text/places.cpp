// SPDX-License-Identifier: GPL-3.0-or-later
#include "text/places.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

namespace tectonis {
namespace {

/// Goes over sound JSON without reading it.
class Walk {
public:
    explicit Walk(const std::string& text) : m_text(text) { space(); }

    std::size_t at() const { return m_at; }

    /// Onto the member or item @p name of the value here. False if there is none: it is then behind the value.
    bool into(const std::string& name)
    {
        const char open = here();
        if (open != '{' && open != '[')
            return false;
        next();
        for (std::size_t i = 0; m_at < m_text.size() && here() != '}' && here() != ']'; ++i) {
            std::string key = std::to_string(i);
            if (open == '{') {
                const std::size_t from = m_at + 1;
                string();
                key = plain(m_text.substr(from, m_at - from - 1));
                space();
                next(); // the colon
            }
            if (key == name)
                return true;
            value();
            if (here() == ',')
                next();
        }
        return false;
    }

private:
    /// Without the backslashes of escaped characters.
    static std::string plain(const std::string& key)
    {
        std::string out;
        for (std::size_t i = 0; i < key.size(); ++i)
            out += key[i] == '\\' && i + 1 < key.size() ? key[++i] : key[i];
        return out;
    }
    char here() const { return m_at < m_text.size() ? m_text[m_at] : '\0'; }
    void space() { m_at = std::min(m_text.find_first_not_of(" \t\r\n", m_at), m_text.size()); }
    void next()
    {
        ++m_at;
        space();
    }
    void string()
    {
        for (++m_at; m_at < m_text.size() && m_text[m_at] != '"'; ++m_at)
            m_at += m_text[m_at] == '\\';
        ++m_at;
    }
    /// Past the value here and the space behind it.
    void value()
    {
        int depth = 0;
        do {
            const char c = here();
            if (c == '"')
                string();
            else {
                depth += (c == '{' || c == '[') - (c == '}' || c == ']');
                ++m_at;
                if (depth == 0 && c != '}' && c != ']')
                    m_at = std::min(m_text.find_first_of(",]} \t\r\n", m_at), m_text.size());
            }
            space();
        } while (depth > 0 && m_at < m_text.size());
    }

    const std::string& m_text;
    std::size_t m_at = 0;
};

} // namespace

Message lineAndColumn(const std::string& text, std::size_t byte)
{
    const auto end = text.begin() + std::ptrdiff_t(std::min(byte, text.size()));
    const auto lines = std::count(text.begin(), end, '\n');
    auto start = end;
    while (start != text.begin() && *(start - 1) != '\n')
        --start;
    const auto column = std::count_if(start, end, [](char c) { return (c & 0xC0) != 0x80; });
    return say("line {}, column {}", lines + 1, column + 1);
}

std::size_t jsonByte(const std::string& json, const std::string& pointer)
{
    Walk walk(json);
    std::size_t from = 1, found = walk.at();
    while (from <= pointer.size() && !pointer.empty()) {
        const std::size_t slash = std::min(pointer.find('/', from), pointer.size());
        std::string name = pointer.substr(from, slash - from);
        for (const auto& [escaped, plain] : {std::pair{"~1", "/"}, {"~0", "~"}})
            for (std::size_t i = 0; (i = name.find(escaped, i)) != std::string::npos; ++i)
                name.replace(i, 2, plain);
        if (!walk.into(name))
            break;
        found = walk.at();
        from = slash + 1;
    }
    return found;
}

} // namespace tectonis
