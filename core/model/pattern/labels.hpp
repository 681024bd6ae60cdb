// SPDX-License-Identifier: GPL-3.0-or-later
// What sides, edges, roles and parts on the table are called when they are told of. Ids are for files and for the
// program; readers see these. A word that is not known stands for itself.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// The word for "left", "front", "front half".
Label sideLabel(const std::string& side);
/// For what pieces are in a bag, what they are cut from, and how layers are fixed: "gusset", "shell", "fused".
Label roleLabel(const std::string& role);
/// For an edge of a piece or a line on it: "left side", "rim 3", "left of {Top zip}", "slip pocket (slip2)".
Message edgeLabel(const Pattern& pattern, const EdgeId& edge);
/// For a sub-assembly or a piece on the table: "shell", "lining of the shell", "Flap, ready".
Message workLabel(const Pattern& pattern, const WorkId& work);
/// What a part is called: "Top zip". @p part as an id's text.
Message partLabel(const Pattern& pattern, const PartId& part);

} // namespace tectonis
