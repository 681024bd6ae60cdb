// SPDX-License-Identifier: GPL-3.0-or-later
// The instruction booklet as a value, in the reader's words: what PDF and HTML both print.
#pragma once

#include "edition/edition.hpp"
#include "figures/figure.hpp"

#include <optional>

namespace tectonis {

struct BookletTable {
    std::string heading, note;
    std::vector<double> columns;                ///< share of the width of each
    std::vector<std::vector<std::string>> rows; ///< the first is the head
};

struct BookletStep {
    StepId id;
    std::string phase, title, text;
    std::string facts; ///< tools, stitch, allowance, minutes
    std::string why;   ///< why it stands where it does; empty for the practised
    std::string check;
    std::vector<std::string> cautions;
    std::vector<StepFigure> figures; ///< of the first size that has the step; one for each of those told as one
};

struct BookletList {
    std::string heading;
    std::vector<std::string> lines;
};

struct Booklet {
    std::string title, studio, notes;
    std::vector<std::string> facts;   ///< finished measures, time, tools
    Scene bag;                        ///< folded, of the first size
    std::vector<BookletTable> before; ///< materials, notions, cut list, layers
    std::string aboutFigures;         ///< which size they show; empty where there is one size
    std::vector<BookletStep> steps;
    std::vector<BookletTable> after;  ///< seams, words
    std::vector<BookletList> closing; ///< care, what goes first
};

/// How a booklet is written.
struct BookletManner {
    bool terse = false;         ///< for the practised: what is done, without how and why
    std::optional<Unit> beside; ///< lengths in this unit as well, in brackets
};

/// Nothing empty is in it. @param patterns of the sizes that it is for, at least one.
Booklet bookletOf(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit,
    const Language& language = Language::english(), const BookletManner& manner = {});

} // namespace tectonis
