// SPDX-License-Identifier: GPL-3.0-or-later
// Walls that stand on a base: pieces that go once round its stitch line, and the base itself.
#pragma once

#include "drafting/coat.hpp"
#include "mockup/folder.hpp"

#include <functional>

namespace tectonis {

struct Wall {
    std::string part, code;
    Message name;
    double length = 0; ///< mm along the base
};

/// A body of walls on a base. Walls are drawn about x = 0 with the base seam at y = 0; their edges are
/// "top", "left", "bottom" and "right". The base's edges are "rim 1", "rim 2", … counter-clockwise from the plan's
/// start.
struct Standing {
    Run plan;         ///< the base's stitch line, counter-clockwise seen from below, its outside; front at positive y
    double start = 0; ///< mm along the plan, clockwise from its beginning: where the first wall begins
    std::vector<Wall>
        walls; ///< clockwise: from the left end by the front to the right; their lengths sum up to the plan's
    double height = 0;
    double lean = 0; ///< mm that each side of each wall leans in at the mouth; negative: out
    Corner topCorner = Corner::Mitre;
    /// A lining cut by the shell's template and sewn with a wider seam: by @c wide mm more at the sides from the middle
    /// down, by @c raise at the base, so that they still agree. Walls are then @c full mm long on the template.
    double wide = 0, raise = 0;
    std::vector<double> full{};

    /// Half of a wall's width, stitch line to stitch line, at a height above the base's edge of the template.
    double halfAt(std::size_t wall, double y) const;
};

/// The lining's body by the choice "lining.fit": @p body drafted @p in mm further in, or on the shell's template with a
/// wider seam.
Standing liningOf(const Pattern& p, const std::function<Standing(double in)>& body, double in);

/// The same with its workings; what it draws with.
struct LiningOfStanding {
    CoatDraft coat;
    Standing body;
};
LiningOfStanding draftLining(Drafter& d, const PieceId& wall, const std::function<Standing(double in)>& body);

/// Adds walls and base to a coat with their seams: "side 1", … and "base".
void drawStanding(CoatDraft& coat, const Standing& s);

/// Steps: the walls' side seams, then the base. Yields "shell" or "lining".
void sewStanding(CoatDraft& coat, const Standing& s);

/// The mouth of the shell, once round.
std::vector<EdgeUse> mouthOf(const Standing& s);

/// Lays walls and base of one coat; a lining stands higher by what its walls lie further in.
void foldStanding(Folder& folder, const Standing& s, const LaidCoat& coat);

} // namespace tectonis
