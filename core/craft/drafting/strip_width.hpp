// SPDX-License-Identifier: GPL-3.0-or-later
// How wide a strap or tab is cut: it follows from what it is made of.
#pragma once

#include "drafting/drafter.hpp"
#include "library/library.hpp"

namespace tectonis {

/// Finished widths in one cut width: 4 where edges go to the middle and it is folded again (cotton, canvas),
/// 2 where edges meet behind (vinyl, leather, waxed and coated cloth), 1 for webbing. Common practice, no source.
int cutMultiple(const Material& cloth);

/// Cut width in mm, with its working kept under @p key.
double workCutWidth(
    Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double finished, const Material& cloth);

/// Fold lines lengthwise on a strip drawn with its length along y.
void addStripFolds(Piece& strip, double finished, double cut, double length);

} // namespace tectonis
