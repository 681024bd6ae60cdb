// SPDX-License-Identifier: GPL-3.0-or-later
// How wide a strap or tab is cut: it follows from what it is made of.
#pragma once

#include "drafting/drafter.hpp"
#include "library/library.hpp"

namespace tectonis {

/// Finished widths in one cut width: 4 where edges go to the middle and it is folded again (cotton, canvas),
/// 2 where edges meet behind (vinyl, leather, waxed and coated cloth), 1 for webbing. Common practice, no source.
/// @p way may say otherwise: "twice", "meet".
int cutMultiple(const Material& cloth, const std::string& way = "by-cloth");

/// The choice "way" of a part's strap of cloth: as its cloth asks for ("by-cloth"), folded twice ("twice"), its edges
/// meeting behind ("meet"), or with a second strip, the long edges of both turned in ("faced"), and padding between
/// them
/// ("padded"). @p when: the choice with which it counts.
ChoiceSpec wayChoice(const std::string& when);
/// How much of each long edge is turned in where it is faced: the dimension "turn".
DimensionSpec turnDimension();
/// Has it a facing? @p way: a value of wayChoice().
inline bool isFaced(const std::string& way) { return way == "faced" || way == "padded"; }

/// Cut width in mm, with its working kept under @p key; @p turn: what a faced one turns in at each long edge.
double workCutWidth(Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double finished,
    const Material& cloth, const std::string& way = "by-cloth", double turn = 0);

/// Fold lines lengthwise on a strip drawn with its length along y; @p turn: as above, 0 if it is not faced.
void addStripFolds(Piece& strip, double finished, double cut, double length, double turn = 0);

/// A second strip like @p of, of the lining's cloth where the bag has a lining, else of the same. Returns its id.
PieceId addFacing(Drafter& d, const PieceId& of, Message name);

/// Asks for foam between a faced strip's folds, @p clear mm short of both ends, where it is sewn down or held.
void addPadding(Drafter& d, const PieceId& strip, double turn, double clear, Message what);

/// The side of a folded strip that is seen, as a face for small things that are stitched onto it. @p finished its
/// width,
/// @p top where it begins on the piece, y, and how far it goes down from there.
void offerStrip(Drafter& d, const SiteId& name, Message label, const PieceId& strip, double finished, double top,
    double height, const std::string& phase);

} // namespace tectonis
