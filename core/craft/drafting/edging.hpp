// SPDX-License-Identifier: GPL-3.0-or-later
// Strips that go along edges, piping and binding: how long the raw edge is, and what joining strips costs.
#pragma once

#include "drafting/drafter.hpp"
#include "library/library.hpp"

namespace tectonis {

/// Length in mm of the raw edge beside one side of a seam, as it lies in the allowance: on a convex curve of angle θ it
/// is s·θ longer than the stitch line, at a sharp convex corner 2·s·tan(θ/2) (shorter by as much on concave ones), and
/// an open run reaches to the cut line of its neighbours at both ends. Plane geometry.
double rawEdgeLength(const Pattern& pattern, const std::vector<EdgeUse>& side);

/// Does the side lie on a curve anywhere? What goes along it is cut on the bias.
bool curves(const Pattern& pattern, const std::vector<EdgeUse>& side);

/// Equal strips that are joined to one length.
struct JoinedStrips {
    int count = 1;
    double length = 0;  ///< cut length of each, mm
    double perJoin = 0; ///< mm lost at each join
};

/// As few strips of @p cloth as make @p whole mm when joined. On the bias two strips are laid at right angles and sewn
/// from corner to corner, which takes one strip width; on the straight grain a join takes two allowances of 6 mm.
/// Straight strips are as long as the cloth is wide less 20 mm, bias ones 1.3 times its width (common practice, no
/// source). Keeps the working as @p key + ".strip".
JoinedStrips workStrips(Drafter& d, const SubjectId& subject, const WorkingId& key, Message label, double whole,
    double width, bool bias, const Material& cloth);

} // namespace tectonis
