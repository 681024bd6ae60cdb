// SPDX-License-Identifier: GPL-3.0-or-later
// The layers behind each piece, and how thick they stack.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// What layer rules address of a piece.
struct Ruled {
    std::string_view role;
    PieceId key, whole{};         ///< whole: the piece that it was cut from, or its pair, as in Piece
    std::string_view wholeRole{}; ///< of the piece that it was cut from, as in Piece
    Ruled(std::string_view itsRole, const PieceId& itsKey) : role(itsRole), key(itsKey) {}
    Ruled(const Piece& piece)
        : role(piece.role),
          key(piece.key),
          whole(piece.wholeRole.empty() ? piece.pair : piece.whole),
          wholeRole(piece.wholeRole)
    {}
};

/// Under which name the layer rules stand that hold for a piece: its key, a role, …; empty if there are none.
std::string rulesFor(const Design& design, const Ruled& piece);

/// The layer rules that hold for a piece: its own if there are any, else those of the piece that it was cut from, of
/// its role, or of that piece's role. They are the design's.
std::vector<const LayerRule*> layerRulesFor(const Design& design, const Ruled& piece);

/// Thickness in mm, as it lies, of a face material with the interlinings that cover the whole piece.
double stackThickness(const Design& design, const Ruled& piece, const std::string& materialRole);

/// The same compressed under the foot.
double stackUnderFoot(const Design& design, const Ruled& piece, const std::string& materialRole);

/// As it lies, of a drafted piece.
double thicknessOf(const Pattern& pattern, const Piece& piece);

/// Grams of all copies of a piece with its layers, by their outlines; what is sold by the metre weighs nothing here.
double weightOf(const Pattern& pattern, const Piece& piece);

/// How far a piece bends by itself: as its stiffest cloth or layer that lies behind at least half of it; two of that
/// class that are fused, glued or quilted together make one of the next, up to firm (common practice, no source).
Stiffness stiffnessOf(const Pattern& pattern, const Piece& piece);
/// Of the bag: the class that at least half of its shell, by area, has or passes.
Stiffness stiffnessOf(const Pattern& pattern);
/// "firm", "stands by itself"
Label nameOf(Stiffness stiffness);
Label meaningOf(Stiffness stiffness);

/// How far a layer reaches beyond the stitch line at an edge of @p allowance: "full", "stitch", "inset N" or "past N",
/// which ends at the cut line at the latest.
/// @throws InputError for any other trim.
double trimReach(const std::string& trim, double allowance);

/// How a quilted layer is quilted: "rows 30" or "diamonds 40", mm apart; any other trim is straight rows 30 mm apart
/// (common practice, no source).
struct Quilting {
    double spacing = 30;
    bool diamonds = false;
};
/// @throws InputError if they are nearer than 5 mm or further apart than 200 mm.
Quilting quiltingOf(const std::string& trim);

/// A layer that a part of the bag asks for: a patch behind a snap.
struct Patch {
    PieceId behind;
    LayerRule rule;
    Message what; ///< "patch for the snap"
};

/// Computes the layers of every piece with their cut outlines, from the design's rules and the @p patches that parts
/// ask for.
void addLayers(Pattern& pattern, const Design& design, const std::vector<Patch>& patches);

/// Basted layers that reach into a seam's allowances: trimmed close to its stitching when it is sewn.
std::vector<const Layer*> trimmedAfter(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
