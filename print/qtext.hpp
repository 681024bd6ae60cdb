// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "languages.hpp"
#include "units/error.hpp"

#include <QString>
#include <string>

namespace tectonis {

/// The model's UTF-8 text for Qt.
inline QString text(const std::string& s) { return QString::fromStdString(s); }
/// An id as it is called.
template <class Kind> QString text(const Id<Kind>& id) { return text(id.text()); }
/// A message in the reader's language.
inline QString text(const Message& m, Unit unit = Unit::Mm)
{
    return QString::fromStdString(words(m, unit, readersLanguage()));
}
inline QString text(const Label& l) { return text(labelled(l)); }

/// A word that the model keeps as text: the label of a dimension, the name of a form.
inline QString spokenName(const std::string& source) { return text(Label{source}); }
/// What went wrong, as far as it can be put into words.
inline QString spokenReason(const std::exception& e, Unit unit = Unit::Mm)
{
    const auto* refusal = dynamic_cast<const InputError*>(&e);
    return refusal ? text(refusal->said(), unit) : QString::fromUtf8(e.what());
}

/// Numbers with the reader's decimal sign: at most so many decimals, or exactly so many.
inline QString number(double value, int most = 2) { return text(readersLanguage().number(value, most)); }
inline QString fixed(double value, int decimals) { return text(readersLanguage().fixed(value, decimals)); }

namespace detail {
inline std::string spokenArgument(const QString& words) { return words.toStdString(); }
template <class Argument> const Argument& spokenArgument(const Argument& argument) { return argument; }
} // namespace detail

/// The window's own words in the reader's language: spoken("Size {}", name). The source is a literal, collected like
/// that of say(); lengths are handed over in words.
template <class... Args> QString spoken(const char* source, const Args&... arguments)
{
    return text(say(source, detail::spokenArgument(arguments)...));
}
/// The same of a number of things.
template <class... Args> QString spokenSome(const char* one, const char* many, long count, const Args&... arguments)
{
    return text(saySome(one, many, count, detail::spokenArgument(arguments)...));
}

} // namespace tectonis
