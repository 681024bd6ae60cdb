// SPDX-License-Identifier: GPL-3.0-or-later
// The kinds of things in a Pattern that have an identity, and which coat of the bag they belong to.
#pragma once

#include "ids/id.hpp"

namespace tectonis {

using PieceId = Id<struct PieceKind>;
using EdgeId = Id<struct EdgeKind>; ///< of an edge or a line of a piece
using SeamId = Id<struct SeamKind>;
using SiteId = Id<struct SiteKind>;     ///< of a face of the bag
using AnchorId = Id<struct AnchorKind>; ///< of a place at the mouth that straps are caught in
using SpaceId = Id<struct SpaceKind>;   ///< of room for things: the body or a pocket
using LayerId = Id<struct LayerKind>;
using FittingId = Id<struct FittingKind>;
using ZipId = Id<struct ZipKind>;
using NotionId = Id<struct NotionKind>;
using StepId = Id<struct StepKindOf>;
/// A part of the bag as it lies on the table: a piece that nothing was done with yet, or several that are joined.
using WorkId = Id<struct WorkKind>;
template <> struct TakesAnyId<WorkKind> : std::true_type {};
using WorkingId = Id<struct WorkingKind>;
/// What a working is about: a piece, a part, a seam.
using SubjectId = Id<struct SubjectKind>;
template <> struct TakesAnyId<SubjectKind> : std::true_type {};

/// What of the bag a piece belongs to. Lining is all that is turned inwards.
enum class Coat { Shell, Lining, Interlining, Strip };

/// The lining's counterpart of a piece or seam of the shell: "front" and "lining.front".
template <class Kind> Id<Kind> lined(const Id<Kind>& ofShell)
{
    return OwnName{ofShell.owner().text(), "lining." + ofShell.name()};
}
inline OwnName lined(const char* ofShell) { return {{}, std::string("lining.") + ofShell}; }

} // namespace tectonis
