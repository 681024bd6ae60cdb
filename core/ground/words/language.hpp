// SPDX-License-Identifier: GPL-3.0-or-later
// A language to read messages in: what the sources mean in it, its decimal sign, how it counts. English is the source.
#pragma once

#include "units/length.hpp"
#include "words/message.hpp"

#include <optional>
#include <unordered_map>

namespace tectonis {

class Language {
public:
    /// English as it is written in the program.
    static const Language& english();

    /// From a compiled catalogue of GNU gettext (a .mo file). Its header may say "X-Decimal: ,"; of plural forms
    /// "nplurals=1", "n != 1" and "n > 1" are known.
    /// @throws InputError if it is none, or a translation asks for an argument that its source has not.
    static Language fromCatalogue(std::string id, const std::string& bytes);

    const std::string& id() const { return m_id; }
    /// What @p source means; itself if it is not translated.
    const std::string& of(const std::string& source) const;
    std::string_view of(const Message& message) const;
    /// Is a name that stands within a sentence begun with a small letter? A catalogue may say "X-Names-Within: as they
    /// are".
    bool writesNamesSmall() const { return m_namesSmall; }

    /// The same language with each length in another unit as well: "10 mm (3/8 in)".
    Language beside(Unit other) const;
    /// The sign of a unit, and of the one beside it.
    std::string sign(Unit unit) const;

    std::string number(double value, int decimals) const; ///< at most so many
    std::string fixed(double value, int decimals) const;  ///< exactly so many
    std::string length(double mm, Unit unit) const;
    std::string exactLength(double mm, Unit unit) const;
    std::string lengthBare(double mm, Unit unit) const; ///< without the unit sign
    std::string exactLengthBare(double mm, Unit unit) const;

private:
    enum class Plural { None, NotOne, MoreThanOne };
    std::string inDecimals(std::string number) const;
    /// With what it is in the unit beside, in brackets.
    std::string withBeside(double mm, Unit unit, std::string (*formatted)(double, Unit)) const;

    std::string m_id = "en";
    char m_decimal = '.';
    bool m_namesSmall = true;
    std::optional<Unit> m_beside;
    Plural m_plural = Plural::NotOne;
    std::unordered_map<std::string, std::vector<std::string>> m_entries; ///< source to its forms
};

/// A message in words.
std::string words(const Message& message, Unit unit = Unit::Mm, const Language& language = Language::english());

/// With a capital first letter, for a sentence that stands alone.
std::string capitalised(std::string words);

} // namespace tectonis
