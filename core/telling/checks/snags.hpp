// SPDX-License-Identifier: GPL-3.0-or-later
// Findings as the user counts them: the same fault in several sizes is one snag. Every count that is shown comes from
// here.
#pragma once

#include "checks/finding.hpp"

namespace tectonis {

struct Snag {
    std::size_t first = 0;          ///< index of its first finding
    std::vector<std::string> sizes; ///< in which it was found
};

/// One snag for each fault, worst first.
std::vector<Snag> snagsOf(const Findings& findings);

struct SnagCount {
    int toMend = 0, doubtful = 0;
    int all() const { return toMend + doubtful; }
};

/// Snags of a stage and of a size; empty: of any.
SnagCount countSnags(const Findings& findings, const std::string& stage = {}, const std::string& size = {});

} // namespace tectonis
