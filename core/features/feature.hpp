// SPDX-License-Identifier: GPL-3.0-or-later
// A part that forms can take: one file each, with its own dimensions, pieces, seams, marks, fittings and steps.
#pragma once

#include "design/spec.hpp"
#include "drafting/drafter.hpp"

namespace tectonis {

class FeatureKind {
public:
    virtual ~FeatureKind() = default;
    virtual std::string kind() const = 0;
    virtual std::string name() const = 0;
    virtual std::vector<DimensionSpec> dimensions() const = 0;
    virtual std::vector<ChoiceSpec> choices() const { return {}; }
    virtual void draft(FeatureScope& f) const = 0;
};

/// @throws InputError from featureKind if there is none of that kind.
const std::vector<const FeatureKind*>& featureKinds();
const FeatureKind& featureKind(const std::string& kind);

} // namespace tectonis
