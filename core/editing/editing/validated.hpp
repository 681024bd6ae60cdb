// SPDX-License-Identifier: GPL-3.0-or-later
// A design that holds: it can be drafted in every size. Every change of a design ends here, and is drafted here, once.
#pragma once

#include "pattern/pattern.hpp"

#include <functional>

namespace tectonis {

/// A design with its patterns in all sizes.
struct Validated {
    Design design;
    std::vector<Pattern> patterns;
};

/// One or several verbs of change::, which leave it to validation whether the whole holds.
using Change = std::function<void(Design&)>;

/// @p design changed, drafted once. @throws InputError naming what is wrong and in which size.
Validated edited(const Design& design, const Change& change);

/// A change while it is dragged: every dimension is in its range in every size, but only the size looked at is drafted.
struct Sketched {
    Design design;
    Pattern pattern;
};
/// @throws InputError as edited(); what fails in other sizes while drafting is left to draftOthers().
Sketched sketched(const Design& design, const Change& change, std::size_t size);
/// The rest of it: @p patterns of all sizes but @p size, in place. @throws InputError; they stay as they were then.
void draftOthers(const Design& design, std::size_t size, std::vector<Pattern>& patterns);

/// The same in place: @p design is changed whole, or stays as it was.
void edit(Design& design, const Change& change);

/// Patterns of a design that holds in every size. @throws InputError as edited().
std::vector<Pattern> validated(const Design& design);
void validate(const Design& design);

} // namespace tectonis
