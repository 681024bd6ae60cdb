// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <string>

namespace tectonis {

/// The model's UTF-8 text for Qt.
inline QString text(const std::string& s) { return QString::fromStdString(s); }

} // namespace tectonis
