// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "languages.hpp"

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

} // namespace tectonis
