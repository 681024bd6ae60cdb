// SPDX-License-Identifier: GPL-3.0-or-later
// The pattern sheets as PDF at true scale.
#pragma once

#include "sheets/plan.hpp"

#include <QByteArray>
#include <QPainter>
#include <functional>

namespace tectonis {

/// Told how far the work is; returns false to stop it.
using Progress = std::function<bool(int done, int total)>;

/// Cover page (test squares, page map, how to join), then the plan's pages; each size is a layer of its own; lengths
/// are written in @p unit. Empty if @p progress stopped the work. @throws InputError for an unknown paper.
QByteArray sheetPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper,
    Unit unit = Unit::Mm, const Progress& progress = {}, SheetOptions options = {});

/// The map of pages with the pieces on it, into @p target. Used by the cover page and the Sheets stage.
void drawPageMap(QPainter& painter, const QRectF& target, const SheetPlan& plan,
    const std::vector<const Pattern*>& patterns, bool dark, int picked = -1);
/// Rectangle of page @p index on such a map.
QRectF pageOnMap(const QRectF& target, const SheetPlan& plan, std::size_t index);

/// One page as it is printed, in millimetre units scaled by @p scale, its upper left corner at the painter's origin.
void drawPage(QPainter& painter, double scale, const SheetPlan& plan, const Page& page,
    const std::vector<const Pattern*>& patterns, const Design& design);
void drawCover(QPainter& painter, double scale, const SheetPlan& plan, const std::vector<const Pattern*>& patterns,
    const Design& design);

} // namespace tectonis
