// SPDX-License-Identifier: GPL-3.0-or-later
// The specification of every piece: what it is cut from, what lies behind it, what it is sewn to, what is fixed to it,
// in which steps it is handled.
#pragma once

#include "design/design.hpp"
#include "pattern/pattern.hpp"
#include "words/language.hpp"

namespace tectonis {

/// One piece in the reader's words; bare numbers are in his unit.
struct PieceSpecification {
    PieceId key;
    std::string size, code, name, cloth, count, mirrored, grain, width, height, thickness, weight, stiffness;
    std::vector<std::string> layers, seams, marks, fittings, steps;
    std::string note;
};
std::vector<PieceSpecification> specificationOf(
    const Design& design, const Pattern& pattern, Unit unit = Unit::Mm, const Language& language = Language::english());

/// One line for each piece of each size, as comma-separated values with a heading; lengths in @p unit.
std::string specificationCsv(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit = Unit::Mm,
    const Language& language = Language::english());

} // namespace tectonis
