// SPDX-License-Identifier: GPL-3.0-or-later
// The instruction booklet as PDF: materials, notions, cut list, steps with figures.
#pragma once

#include "booklet/booklet.hpp"
#include "sheet_pdf.hpp"

namespace tectonis {

/// Empty if @p progress stopped the work.
QByteArray bookletPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper,
    Unit unit = Unit::Mm, const BookletManner& manner = {}, const Progress& progress = {});

} // namespace tectonis
