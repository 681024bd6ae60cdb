// SPDX-License-Identifier: GPL-3.0-or-later
// A piece as SVG in millimetres: one user unit is one mm, curves stay curves.
#pragma once

#include "pattern/pattern.hpp"

#include <filesystem>
#include <functional>

namespace tectonis {

/// The piece with cut line, stitch line, notches, marks, grain, interlinings and its label.
std::string pieceSvg(const Pattern& pattern, const Piece& piece, const std::string& designName);

/// Writes each piece of each size to a file of its own, "CODE-SIZE.svg", under names that every system takes and that
/// are all different. Returns how many were written: fewer than there are if @p progress stopped the work by giving
/// false.
/// @throws InputError if a file or the folder cannot be written.
std::size_t writePieces(const std::vector<const Pattern*>& patterns, const std::string& designName,
    const std::filesystem::path& folder, const std::function<bool(int done, int total)>& progress = {});

/// SVG path data of a run, moved by @p m, y down.
std::string svgPath(const Run& run, const Placement& m, bool closed);

/// How far the notch reaches and where: from the cut line to just short of the stitch line. Two points.
std::pair<Point, Point> notchTick(const Piece& piece, const Notch& notch);

} // namespace tectonis
