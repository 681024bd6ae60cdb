// SPDX-License-Identifier: GPL-3.0-or-later
// The booklet as one HTML file for a tablet at the machine: the same words and figures, steps to be ticked off.
#pragma once

#include "booklet/booklet.hpp"

namespace tectonis {

/// One file, nothing from elsewhere. Ticks are kept by the reader's browser.
std::string bookletHtml(const Booklet& booklet, Unit unit, const Language& language);

} // namespace tectonis
