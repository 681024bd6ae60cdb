// SPDX-License-Identifier: GPL-3.0-or-later
// The dry run: the state of the table after each step of an order.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// A part whose glue or paint is not dry yet.
struct Wet {
    WorkId part;
    double minutes = 0; ///< until it may be handled
};

/// The table after a step of the dry run.
struct DryState {
    std::vector<WorkId> parts;                 ///< sub-assemblies and raw pieces still to be used
    Label opening;                             ///< "open", "closed" or "" before it exists
    std::vector<std::pair<ZipId, Label>> zips; ///< of the pattern: "closed" or "open" once it is in; "" before
    std::vector<ZipId> sliders;                ///< zips whose slider is on
    std::vector<PieceId> layers;               ///< pieces whose interlinings are on
    std::vector<WorkId> wrongSideOut;          ///< parts that are sewn and still have to be turned
    std::vector<Wet> wet;
    double minutes = 0; ///< of work since the beginning, waiting not counted
    double waited = 0;  ///< minutes that this step has to wait for what it handles to dry
    Message reach;      ///< what the machine cannot get at; empty where it can
    std::vector<Message> problems;
};
/// @param order indices into Pattern::steps, every step once.
std::vector<DryState> dryRun(const Pattern& pattern, const std::vector<std::size_t>& order);

/// Minutes until what an act leaves may be handled: contact adhesive 15, edge paint 45, washed cloth 240 (common
/// practice, no source).
double dryingOf(const Pattern& pattern, const Act& act);

/// What a step leaves wet, each with the minutes until it may be handled.
std::vector<std::pair<WorkId, double>> wetAfter(const Pattern& pattern, const Step& step);

/// What the workshop's machine cannot get at in a step: a row all round the edge of a tube that is too narrow for its
/// bed. Empty where it can.
Message outOfReach(const Pattern& pattern, const Step& step);

} // namespace tectonis
