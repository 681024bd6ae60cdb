// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces turned on the drafting table with all that lies on them.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// Turns a piece by quarters, counter-clockwise about the origin, with its lines, marks and areas, and with whatever
/// the pattern keeps at points of it.
void turnPiece(Pattern& p, const PieceId& key, int quarters);

/// The piece as seen from its other side: up and down change places about y = @p about. Edges keep their names; seams
/// that are there already use them the other way. For strips that were drawn with their face towards the inside.
void mirrorPiece(Pattern& p, const PieceId& key, double about);

/// Stands the piece of a side wall upright while a part is drawn on it; puts it back in the end.
class StoodUp {
public:
    /// @p site: a choice's value; nothing is turned where there is no such face or where it stands already.
    StoodUp(Pattern& p, const std::string& site);
    ~StoodUp();
    StoodUp(const StoodUp&) = delete;
    StoodUp& operator=(const StoodUp&) = delete;

private:
    Pattern& m_pattern;
    std::vector<PieceId> m_pieces;
    int m_turn = 0;
};

} // namespace tectonis
