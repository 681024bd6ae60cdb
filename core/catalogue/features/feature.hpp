// SPDX-License-Identifier: GPL-3.0-or-later
// A part that forms can take: one file each, with its own dimensions, pieces, seams, marks, fittings and steps.
#pragma once

#include "design/spec.hpp"
#include "drafting/drafter.hpp"
#include "forms/form.hpp"

#include <functional>

namespace tectonis {

/// What a part can sit on: the faces of a form, and those of parts that are there already.
struct Carrier {
    Carrier(const Form& form_) : form(form_), sites(form_.sites()) {}
    const Form& form;
    std::vector<SiteSpec> sites;
    std::vector<SiteSpec> parts{};
};

/// A face of a part that others can sit on.
struct PartFace {
    std::string name, label;   ///< "front" of "patch"; what it is called
    std::string width, height; ///< formulas, "@width" for its own dimension
    std::string when{};        ///< empty, or its choice with which the face is there: "@lid=yes"
    bool covered = false;      ///< a flap of the part comes down over it: a place for a closure
    bool strip = false;        ///< a strap, handle or tab: only for what is stitched onto such strips
};

class FeatureKind {
public:
    virtual ~FeatureKind() = default;
    virtual std::string kind() const = 0;
    virtual std::string name() const = 0;
    /// What a first feature of this kind is called in names of dimensions: "slip".
    virtual std::string shortName() const { return kind().substr(0, kind().find('-')); }
    /// Drawn outlines for choosing it, in a box of about 100 × 100, y up.
    virtual std::vector<Run> silhouette() const = 0;
    virtual std::vector<DimensionSpec> dimensions() const = 0;
    virtual std::vector<ChoiceSpec> choices(const Carrier&) const { return {}; }
    /// Its own faces, which it registers as sites when it is drafted.
    virtual std::vector<PartFace> faces() const { return {}; }
    /// Material roles that it brings along, and what they are made of at first.
    virtual std::map<std::string, std::string> materials() const { return {}; }
    /// Kinds of feature that must come before this one on a form.
    virtual std::vector<std::string> needs(const Form&) const { return {}; }
    /// Cuts faces across: drafted before the features that sit on them.
    virtual bool cutsAcross() const { return false; }
    /// Finds its places between what is there already: drafted after all others.
    virtual bool goesByOthers() const { return false; }
    /// Can the form carry it? A reason in words if not.
    virtual Message unfit(const Form&) const { return {}; }
    /// Makes a part that was just added to @p design suit the parts that are there already.
    virtual void settle(Design&, const std::string& /*id*/) const {}
    virtual void draft(FeatureScope& f) const = 0;
};

/// @throws InputError from featureKind if there is none of that kind.
const std::vector<const FeatureKind*>& featureKinds();
const FeatureKind& featureKind(const std::string& kind);

/// The choice "site": where on the form's faces the feature sits; the first that fits is the default.
/// @p onParts: it may sit on other parts as well, or only where a flap of theirs comes down over it.
enum class OnParts { No, Yes, Covered };
/// @p onSmall: it is one of the small parts that side walls and flaps of the form take, or that straps and tabs take
/// too.
enum class OnSmall { No, Yes, Strips };
ChoiceSpec siteChoice(const Carrier& on, const std::string& meaning, const std::function<bool(const SiteSpec&)>& fits,
    const std::string& preferred = {}, OnParts onParts = OnParts::No, OnSmall onSmall = OnSmall::No);

} // namespace tectonis
