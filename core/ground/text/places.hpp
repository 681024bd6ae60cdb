// SPDX-License-Identifier: GPL-3.0-or-later
// Where something stands in a text: lines and columns for messages.
#pragma once

#include "words/message.hpp"

namespace tectonis {

/// "line 3, column 7", both from 1, columns in characters. @p byte beyond the text means its end.
Message lineAndColumn(const std::string& text, std::size_t byte);

/// First byte of the value that a JSON pointer ("/materials/3/thickness") names, in a text that is sound JSON; the
/// nearest value round it if there is none of that name.
std::size_t jsonByte(const std::string& json, const std::string& pointer);

} // namespace tectonis
