// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/language.hpp"

#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>
#include <set>

namespace tectonis {
namespace {

/// A piece of a source: plain text, or an argument by its place.
struct Piece {
    std::string text;
    int argument = -1;
};

std::vector<Piece> parted(std::string_view source)
{
    std::vector<Piece> out{{"", -1}};
    int next = 0;
    for (std::size_t i = 0; i < source.size(); ++i) {
        const auto close = source[i] == '{' ? source.find('}', i) : std::string_view::npos;
        const std::string inside = close == std::string_view::npos ? "x"
                                                                   : std::string(source.substr(i + 1, close - i - 1));
        if (inside.size() > 2
            || !std::all_of(inside.begin(), inside.end(), [](char c) { return c >= '0' && c <= '9'; })) {
            out.back().text += source[i];
            continue;
        }
        out.push_back({"", inside.empty() ? next++ : std::stoi(inside)});
        out.push_back({"", -1});
        i = close;
    }
    return out;
}

std::set<int> argumentsOf(const std::string& source)
{
    std::set<int> out;
    for (const auto& piece : parted(source))
        if (piece.argument >= 0)
            out.insert(piece.argument);
    return out;
}

/// The strings of a catalogue (GNU gettext manual, "The Format of GNU MO Files").
class Catalogue {
public:
    Catalogue(const std::string& id, const std::string& bytes) : m_id(id), m_bytes(bytes)
    {
        if (number(0) != 0x950412de)
            fail();
    }
    std::size_t size() const { return number(8); }
    std::string source(std::size_t i) const { return text(number(12) + 8 * i); }
    std::string meaning(std::size_t i) const { return text(number(16) + 8 * i); }

private:
    [[noreturn]] void fail() const
    {
        throw InputError(say("language {}", m_id), say("this is no whole catalogue of messages"));
    }
    std::size_t number(std::size_t at) const
    {
        if (at + 4 > m_bytes.size())
            fail();
        std::uint32_t out = 0;
        for (int i = 3; i >= 0; --i)
            out = out << 8 | std::uint8_t(m_bytes[at + std::size_t(i)]);
        return out;
    }
    std::string text(std::size_t at) const
    {
        const std::size_t length = number(at), from = number(at + 4);
        if (from > m_bytes.size() || length > m_bytes.size() - from)
            fail();
        return m_bytes.substr(from, length);
    }
    const std::string& m_id;
    const std::string& m_bytes;
};

std::vector<std::string> forms(const std::string& text)
{
    std::vector<std::string> out{""};
    for (const char c : text)
        if (c == '\0')
            out.emplace_back();
        else
            out.back() += c;
    return out;
}

} // namespace

const Language& Language::english()
{
    static const Language english;
    return english;
}

Language Language::fromCatalogue(std::string id, const std::string& bytes)
{
    Language out;
    out.m_id = std::move(id);
    const Catalogue catalogue(out.m_id, bytes);
    for (std::size_t i = 0; i < catalogue.size(); ++i) {
        const auto sources = forms(catalogue.source(i));
        auto meanings = forms(catalogue.meaning(i));
        if (sources.front().empty()) { // the header
            const std::string& head = meanings.front();
            if (const auto at = head.find("X-Decimal:"); at != std::string::npos)
                out.m_decimal = head[std::min(head.find_first_not_of(' ', at + 10), head.size() - 1)];
            out.m_namesSmall = head.find("X-Names-Within: as they are") == std::string::npos;
            out.m_plural = head.find("nplurals=1") != std::string::npos ? Plural::None
                : head.find("n > 1") != std::string::npos               ? Plural::MoreThanOne
                                                                        : Plural::NotOne;
            continue;
        }
        std::set<int> known;
        for (const auto& source : sources)
            known.merge(argumentsOf(source));
        for (const auto& meaning : meanings)
            for (const int asked : argumentsOf(meaning))
                if (!known.contains(asked))
                    throw InputError(say("language {}", out.m_id),
                        say("“{}” asks for an argument {{{}}} that “{}” has not", meaning, asked, sources.front()));
        out.m_entries.emplace(sources.front(), std::move(meanings));
    }
    return out;
}

const std::string& Language::of(const std::string& source) const
{
    const auto it = m_entries.find(source);
    return it == m_entries.end() || it->second.front().empty() ? source : it->second.front();
}

std::string_view Language::of(const Message& message) const
{
    const bool several = m_plural == Plural::None ? false
        : m_plural == Plural::NotOne              ? message.count() != 1
                                                  : message.count() > 1;
    const auto it = m_entries.find(std::string(message.source()));
    if (it != m_entries.end() && !it->second.front().empty())
        return it->second[several && it->second.size() > 1 ? 1 : 0];
    return message.count() != 1 && !message.ofMany().empty() ? message.ofMany() : message.source();
}

std::string Language::inDecimals(std::string number) const
{
    if (m_decimal != '.')
        std::replace(number.begin(), number.end(), '.', m_decimal);
    return number;
}

std::string Language::number(double value, int decimals) const { return inDecimals(formatNumber(value, decimals)); }
std::string Language::fixed(double value, int decimals) const
{
    return inDecimals(fmt::format("{:.{}f}", value, decimals));
}
Language Language::beside(Unit other) const
{
    Language out = *this;
    out.m_beside = other;
    return out;
}

std::string Language::sign(Unit unit) const
{
    std::string out(unitSign(unit));
    return m_beside && *m_beside != unit ? out + " (" + std::string(unitSign(*m_beside)) + ")" : out;
}

std::string Language::withBeside(double mm, Unit unit, std::string (*formatted)(double, Unit)) const
{
    const std::string own = inDecimals(formatted(mm, unit));
    return m_beside && *m_beside != unit ? own + " (" + inDecimals(formatted(mm, *m_beside)) + ")" : own;
}

std::string Language::length(double mm, Unit unit) const { return withBeside(mm, unit, formatLength); }
std::string Language::exactLength(double mm, Unit unit) const { return withBeside(mm, unit, tectonis::exactLength); }
std::string Language::lengthBare(double mm, Unit unit) const { return withBeside(mm, unit, formatLengthBare); }
std::string Language::exactLengthBare(double mm, Unit unit) const
{
    return withBeside(mm, unit, tectonis::exactLengthBare);
}

std::string words(const Message& message, Unit unit, const Language& language)
{
    struct Worded {
        Unit unit;
        const Language& language;
        std::string operator()(const Len& l) const
        {
            const bool alike = l.than && formatLength(l.mm, unit) == formatLength(*l.than, unit);
            return alike ? language.exactLength(l.mm, unit) : language.length(l.mm, unit);
        }
        std::string operator()(const Num& n) const { return language.number(n.value, n.decimals); }
        std::string operator()(const Label& label) const { return language.of(label.source); }
        std::string operator()(const std::string& name) const { return name; }
        std::string operator()(const Message& inner) const
        {
            std::string out = words(inner, unit, language);
            return inner.isWithin() && language.writesNamesSmall() ? lowered(std::move(out)) : out;
        }
    };
    std::string out;
    for (const auto& piece : parted(language.of(message))) {
        out += piece.text;
        if (piece.argument >= 0 && std::size_t(piece.argument) < message.arguments().size())
            out += std::visit(Worded{unit, language}, message.arguments()[std::size_t(piece.argument)]);
    }
    return out;
}

std::string capitalised(std::string s)
{
    if (!s.empty() && s[0] >= 'a' && s[0] <= 'z')
        s[0] = char(s[0] - 32);
    return s;
}

} // namespace tectonis
