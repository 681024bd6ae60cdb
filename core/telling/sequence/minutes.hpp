// SPDX-License-Identifier: GPL-3.0-or-later
// How long a step takes: rows, curves, pinning, pressing and setting, from its acts.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Minutes of work, worked out when they are read and corrected by the trial log; waiting for glue and paint is not
/// work.
Working minutesOf(const Pattern& pattern, const Step& step);
/// The same as reckoned, without the trial log.
Working uncorrectedMinutesOf(const Pattern& pattern, const Step& step);

/// Of all steps.
double minutesOf(const Pattern& pattern);
double uncorrectedMinutesOf(const Pattern& pattern);

/// What the trial log says: a step that was timed takes as much longer as it did, all others as much as what was
/// measured of whole bags, less the timed steps, against what was foretold.
Pace paceOf(const Design& design, const Pattern& pattern);

/// Thread for the whole bag, mm: all rows of all steps, each by its stack and stitch length (lockstitchUse), and what
/// hangs at their ends.
Working threadOf(const Pattern& pattern);

/// Thread of one colour: of the steps that are sewn on the lining alone, as the lining; of all others, as the shell.
struct ThreadUse {
    Coat coat = Coat::Shell;
    double length = 0; ///< mm; of both together as much as threadOf()
    int tex = 40;      ///< its weight, g per 1000 m, by the needle that sews the cloth (common practice, no source)
};
std::vector<ThreadUse> threadsOf(const Pattern& pattern);

} // namespace tectonis
