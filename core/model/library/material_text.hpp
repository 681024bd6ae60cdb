// SPDX-License-Identifier: GPL-3.0-or-later
// A material's fields as they are typed.
#pragma once

#include "library/library.hpp"
#include "words/message.hpp"

namespace tectonis {

/// Sets a field from typed text. Returns what is wrong with it; empty if nothing, and then only it is changed.
Message setField(Material& material, const MaterialField& field, const std::string& text);

/// The field as text that setField() reads back to the same; yes and no in words.
std::string fieldText(const Material& material, const MaterialField& field);

/// "a length was expected": what is wrong with what a field cannot take at all.
Message expected(const MaterialField& field);

/// Gives a material its id, made from the name, if it has none. Returns what it still lacks; empty if nothing.
Message completed(Material& material);

/// UTF-8 of at most 200 bytes without control characters?
bool printable(const std::string& text);

} // namespace tectonis
