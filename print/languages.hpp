// SPDX-License-Identifier: GPL-3.0-or-later
// The language that the program speaks.
#pragma once

#include "words/language.hpp"

namespace tectonis {

/// English, or what TECTONIS_LANGUAGE names: a language that ships ("de", one catalogue of data/languages), or a
/// compiled catalogue (a .mo file). Read once. English, with a word on standard error, if that cannot be read.
const Language& readersLanguage();

} // namespace tectonis
