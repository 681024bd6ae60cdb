// SPDX-License-Identifier: GPL-3.0-or-later
// The sheets: pieces of one or more sizes laid out and divided into pages of paper. Nothing is drawn here.
#pragma once

#include "pattern/pattern.hpp"
#include "units/length.hpp"

namespace tectonis {

/// A mark or line on a template that stands for several pieces: whose it is.
struct SheetMark {
    std::string code;
    Point at; ///< piece coordinates
};

/// A piece in its nested sizes at one place of the plan.
struct SheetSpot {
    PieceId pieceKey;
    std::vector<PieceId> also; ///< further pieces with the very same template: printed once, with all their names
    Placement placement;       ///< piece coordinates to plan coordinates (mm, x right, y up)
    std::vector<std::size_t> patterns; ///< which of the given patterns have the piece
    std::vector<Piece> templates;      ///< what is printed of it, for each of these patterns
    std::vector<std::vector<SheetMark>>
        marks; ///< for each of these patterns: whose lines and drill marks are whose, where pieces share a template
    Box box;   ///< of all sizes, on the plan
};

struct Page {
    int row = 0, column = 0;
    std::string name; ///< "A1": row letter, column number
    Box area;         ///< on the plan, overlap included
    bool joinsRight = false, joinsBelow = false, joinsLeft = false, joinsAbove = false; ///< is there a page to join?
};

/// A strip or rectangle that is cut to measure and not printed.
struct ToMeasure {
    std::string code;
    Message name;
    std::string size;
    double width = 0, length = 0;
    int count = 1;
};

struct SheetPlan {
    Paper paper;
    Unit unit = Unit::Mm;             ///< in which lengths are written on the sheets
    double margin = 10, overlap = 10; ///< mm: unprinted border; printed strip that two pages share
    double stepX = 0, stepY = 0;      ///< from page to page
    std::vector<SheetSpot> spots;
    std::vector<Page> pages; ///< only pages with something on them, row by row from the top
    std::vector<ToMeasure> toMeasure;
    int columns = 0, rows = 0;
};

/// What is left off the sheets because figures do as well.
struct SheetOptions {
    bool rectanglesAsFigures =
        false; ///< plain rectangles, without marks or lines but folds, are listed to be cut to measure
};

/// Lays out every piece; sizes nest on the piece's own origin. A piece that fits one page stays on one page. Pieces
/// whose templates are the same are laid once. Straps longer than 600 mm are listed to be cut to measure. Pages that
/// hold only what their neighbours print too are left out.
SheetPlan planSheets(
    const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit = Unit::Mm, SheetOptions options = {});

/// How many pages the same plan takes with symmetric pieces printed as halves on the fold.
std::size_t pagesOnTheFold(const std::vector<const Pattern*>& patterns, const Paper& paper, SheetOptions options = {});

/// What a printer scale of @p percent does: the error on a length of 100 mm, and on the longest seam of the pattern.
struct ScaleError {
    double on100 = 0, longestSeam = 0, onSeam = 0;
    Message seam;
};
ScaleError scaleError(const Pattern& pattern, double percent);

} // namespace tectonis
