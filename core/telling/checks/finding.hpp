// SPDX-License-Identifier: GPL-3.0-or-later
// What a check found: how bad, what, where, by how much, why, and what would mend it.
#pragma once

#include "pattern/pattern.hpp"
#include "words/language.hpp"

namespace tectonis {

enum class Severity { Error, Warning, Note };

inline Label nameOf(Severity s)
{
    return s == Severity::Error ? label("error") : s == Severity::Warning ? label("warning") : label("note");
}

/// Edits that mend a finding, as "NAME=VALUE" for assign().
struct Repair {
    Message label;
    std::vector<std::string> assignments;
    bool proposedOrder = false; ///< goes back to the proposed order of steps
};

struct Finding {
    Severity severity = Severity::Error;
    std::string check; ///< which check: "seam-length"
    std::string size;  ///< size name
    Message subject;   ///< "Seam “Front to gusset”"
    SubjectId key;     ///< a piece, dimension, seam or step to jump to
    std::string stage; ///< the stage it is mended in: "Draft"
    Message text;      ///< what, by how much, why, what to do
    std::optional<Repair> repair;
    std::string about{}; ///< tells findings apart whose subjects have one name: "2" for the third thing carried
    std::vector<Repair> others{}; ///< other ways to mend it, in the order of the trade
};

/// What a check may read.
struct CheckInput {
    const Design& design;
    const DesignSpec& spec;
    const Pattern& pattern;
};

using Findings = std::vector<Finding>;

/// All checks over one pattern, and over all sizes (worst first).
Findings check(const CheckInput& input);
Findings checkAll(const Design& design, const std::vector<Pattern>& patterns);

} // namespace tectonis
