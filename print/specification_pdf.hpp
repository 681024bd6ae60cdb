// SPDX-License-Identifier: GPL-3.0-or-later
// The specification of every piece on pages: a drawing of it, and what lies behind it, is sewn to it and fixed to it.
#pragma once

#include "sheet_pdf.hpp"

namespace tectonis {

/// Empty if @p progress stopped the work.
QByteArray specificationPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper,
    Unit unit = Unit::Mm, const Progress& progress = {});

} // namespace tectonis
