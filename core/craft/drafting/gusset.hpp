// SPDX-License-Identifier: GPL-3.0-or-later
// Two panels with a gusset between them that runs down one side, along the bottom and up the other.
#pragma once

#include "drafting/coat.hpp"
#include "drafting/panels.hpp"
#include "mockup/folder.hpp"

namespace tectonis {

/// A body of one coat. Its pieces are "front", "back", "gusset" and, of three strips, "gusset.bottom".
struct Gusseted {
    enum class Strips {
        One,
        Two,  ///< mirror images that meet at the centre bottom
        Three ///< two sides, mirror images, and a bottom
    };
    UPanel panel;                 ///< with what the coat lies further in, and its allowances
    double depth = 0, narrow = 0; ///< mm; how far each long edge of the gusset lies further in at the mouth
    Strips strips = Strips::One;
    double side = 0;  ///< mm that the side strips of three reach from the mouth along the shell's panel
    double extra = 0; ///< mm that the gusset is cut longer at both ends, to be trimmed level
    /// Something sits on its sides: it is drawn as seen from its face, and of several strips both sides are pieces of
    /// their own, "gusset" on the left and "gusset.right", which become the part "joined gusset".
    bool carries = false;

    double low() const { return panel.lowAllowance; } ///< mm: allowance of the seams but near the mouth
};

/// Adds panels and gusset with their seams: "front-gusset", "back-gusset", and "gusset-centre" or "gusset-left" and
/// "gusset-right". The shell's come first.
void drawGusseted(CoatDraft& coat, const Gusseted& g);

/// Does a part sit on a side of the gusset?
bool sidesCarry(const Pattern& p);

/// Registers both sides as faces, @p height mm of them below the mouth.
void addSideFaces(CoatDraft& coat, const Gusseted& g, double height);

/// Steps: the gusset's own joins, its clips, front, back, the ends trimmed. Yields "shell" or "lining".
void sewGusseted(CoatDraft& coat, const Gusseted& g);

/// The mouth of the shell, once round.
std::vector<EdgeUse> mouthOf(const Gusseted& g);

/// The panel's outline in space: upright up to the height where the sides are divided, leaning from there to the
/// mouth.
struct LeaningPanel {
    double height = 0, from = 0; ///< mm on the flat panel: its mouth, and where it begins to lean
    double low = 0, mouth = 0;   ///< mm from the middle plane
    double lift = 0;             ///< mm that the whole coat is raised
    double drop() const;         ///< mm from the mouth down to where it begins to lean
    double top() const { return lift + from + drop(); }
    Vec3 operator()(Point q) const;
};
LeaningPanel panelOf(const Pattern& p, const Gusseted& g, const LaidCoat& coat);

/// Lays panels and gusset of one coat; the mouths are level.
void foldGusseted(Folder& folder, const Pattern& p, const Gusseted& g, const LaidCoat& coat);

} // namespace tectonis
