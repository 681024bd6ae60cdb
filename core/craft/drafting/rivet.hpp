// SPDX-License-Identifier: GPL-3.0-or-later
// How long the posts of rivets have to be: it follows from what they go through.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// One piece that a rivet goes through, by what layer rules address and what it is cut from.
struct Pierced {
    std::string role;
    PieceId key;
    std::string material; ///< @c material: a material role
};

/// Puts @p count rivets with heads of @p head mm on the notions list. Their posts are as long as the layers,
/// compressed, and 2.5 mm; the next length that is sold. Common practice, no source. Keeps the workings under @p key +
/// ".post" and ".stock". Returns the length sold, in mm.
double addRivets(Drafter& d, const SubjectId& subject, const WorkingId& key, int count, double head,
    const std::vector<Pierced>& through);

} // namespace tectonis
