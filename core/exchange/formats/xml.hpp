// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

namespace tectonis {

/// Text that can stand in XML and HTML: no markup, no control characters.
std::string escaped(const std::string& text);

} // namespace tectonis
