// SPDX-License-Identifier: GPL-3.0-or-later
// The nine stages. A new stage: one file, one line here, one in stage_signs.cpp, one in main_window.cpp.
#pragma once

#include "document.hpp"

#include <QWidget>

namespace tectonis {

QWidget* makeBriefStage(Document& document);
QWidget* makeDraftStage(Document& document);
QWidget* makeBuildupStage(Document& document);
QWidget* makeFittingsStage(Document& document);
QWidget* makeSizesStage(Document& document);
QWidget* makeSequenceStage(Document& document);
QWidget* makeCutStage(Document& document);
QWidget* makeSheetsStage(Document& document);
QWidget* makeTrialStage(Document& document);

} // namespace tectonis
