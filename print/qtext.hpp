// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "units/words.hpp"

#include <QString>
#include <string>

namespace tectonis {

/// The model's UTF-8 text for Qt.
inline QString text(const std::string& s) { return QString::fromStdString(s); }
/// The same with its lengths written in @p unit.
/// An id as it is called.
template <class Kind> QString text(const Id<Kind>& id) { return text(id.text()); }
inline QString text(const std::string& s, Unit unit) { return QString::fromStdString(inUnit(s, unit)); }

} // namespace tectonis
