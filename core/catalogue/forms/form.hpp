// SPDX-License-Identifier: GPL-3.0-or-later
// A body form: one file each. It reads like a page of a pattern book: dimensions, pieces, seams, marks, steps, folding.
#pragma once

#include "design/spec.hpp"
#include "drafting/drafter.hpp"
#include "mockup/mockup.hpp"

namespace tectonis {

class Form {
public:
    virtual ~Form() = default;
    virtual std::string id() const = 0;
    virtual std::string name() const = 0;
    virtual std::string meaning() const = 0;
    /// Drawn outlines for choosing the form, in a box of about 100 × 100, y up.
    virtual std::vector<Run> silhouette() const = 0;
    virtual std::vector<DimensionSpec> dimensions() const = 0;
    virtual std::vector<ChoiceSpec> choices() const = 0;
    /// Values that every form gives its features: "face.width" and "face.height" of the plain front, "mouth.depth" from
    /// front to back, "mouth.way" of a flap over it if that is longer, and what else the form's own formulas need.
    virtual std::vector<DerivedSpec> derived() const = 0;
    /// Where features may sit; draft() registers each with Drafter::addSite.
    virtual std::vector<SiteSpec> sites() const = 0;
    /// Faces that a flap of the body's own comes down over; draft() says where it meets them (Drafter::ownFlap).
    virtual std::vector<SiteSpec> underOwnFlap() const { return {}; }
    /// Does draft() register places "left" and "right" at its mouth, where tabs and straps are caught?
    virtual bool anchored() const { return false; }
    /// Has its face sides that are called by their numbers? draft() registers them with its sites (Site::sides).
    virtual bool numbersSides() const { return false; }
    /// Does it stand on something that feet can be set into?
    virtual bool stands() const { return false; }
    /// Sets materials, layers and features of a new design.
    virtual void furnish(Design& design) const = 0;
    virtual void draft(Drafter& d) const = 0;
    /// Folds the drafted pieces into space. Called last.
    virtual Mockup fold(const Design& design, const Pattern& pattern) const = 0;
};

/// All forms; the list is in registry.cpp. @throws InputError from formOf if there is none of that id.
const std::vector<const Form*>& forms();
const Form& formOf(const std::string& id);

} // namespace tectonis
