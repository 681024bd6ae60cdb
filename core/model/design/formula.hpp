// SPDX-License-Identifier: GPL-3.0-or-later
// Formulas over named dimensions, read by muParser.
#pragma once

#include <functional>
#include <set>
#include <string>

namespace tectonis {

/// Works out @p formula; every name in it is asked of @p valueOf. Numbers may carry mm, cm or in. Knows pi, sqrt, min,
/// max, sin… Compiled formulas are kept per thread, so asking again is cheap.
/// @throws InputError for bad syntax or a result that is no finite number; what @p valueOf throws passes through.
double evaluateFormula(const std::string& formula, const std::function<double(const std::string&)>& valueOf);

/// The names a formula uses. @throws InputError for bad syntax.
std::set<std::string> namesIn(const std::string& formula);

} // namespace tectonis
