// SPDX-License-Identifier: GPL-3.0-or-later
// Words of the trade that a booklet uses, and how a bag is cared for. Common practice, no source.
#pragma once

#include "library/library.hpp"
#include "pattern/act.hpp"

#include <set>

namespace tectonis {

struct Term {
    Label word;
    Message meaning;
};

/// Words that stand in the sentences of those acts.
std::vector<Term> glossaryOf(const std::set<Act::Verb>& verbs);

/// What a bag of these materials bears, by its most delicate one; in the words of care labels (ISO 3758 names the
/// treatments: washing, bleaching, drying, ironing, professional care). Which material asks for what is common
/// practice, no source.
std::vector<Message> careOf(const std::vector<const Material*>& materials);

} // namespace tectonis
