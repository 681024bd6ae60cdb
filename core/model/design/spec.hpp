// SPDX-License-Identifier: GPL-3.0-or-later
// What a form or a feature says about its own dimensions and choices.
#pragma once

#include "design/design.hpp"

#include <functional>

namespace tectonis {

struct DimensionSpec {
    enum class Quantity { Length, Count, Angle }; ///< mm, a whole number, degrees
    std::string name;                             ///< "width", or "length" inside a feature
    std::string label;                            ///< "Width"
    std::string meaning;                          ///< one sentence: from where to where it is measured
    std::string value; ///< default: a number or a formula; in a feature "@hinge" means its own dimension "hinge"
    SizeRule rule;
    std::string min, max; ///< numbers or formulas over other dimensions
    Quantity quantity = Quantity::Length;
    std::string when; ///< empty, or when it means anything: a formula that is not zero ("sides > 6"), or a choice and
                      ///< its values ("@body=pleated|full")
};

/// A value that follows and cannot be edited.
struct DerivedSpec {
    std::string name, formula;
    std::string
        when{}; ///< empty, or the choice with which it counts ("base.shape=round"): the first that does is taken
};

/// A flat face of a form's bag, before it is drafted: where features may sit.
struct SiteSpec {
    std::string name, label; ///< "lining front", "Lining front"
    bool lining = false;
    bool seam = false;    ///< a seam may run across it, between two straight sides
    bool covered = false; ///< of a part: a flap of its own comes down over it
    std::string when{};   ///< empty, or the form's choice with which the face is there: "wall.pieces=two"
    bool small = false;   ///< only for small parts that lie on it: a strip between two faces, a flap
    bool glued = false;   ///< its piece is glued over something rigid: nothing goes through it, nothing is cut into it
    bool strip = false;   ///< of a strap, a handle or a tab: only for what is stitched onto such strips
    std::string own{}; ///< before "face.width" and "face.height" of this face, where they are not the form's: "side."
};

/// Front, back and their linings; @p seam: a seam may run across front and back.
std::vector<SiteSpec> frontAndBack(bool seam);

/// Strips that are the bag's sides, and their linings: places for small parts, as wide as the bag is deep.
std::vector<SiteSpec> sideWalls();

struct ChoiceSpec {
    std::string name, label, meaning;
    std::vector<std::pair<std::string, std::string>> options; ///< value and its label; the first is the default
    std::string when{}; ///< empty, or another choice and its values with which it means anything ("assembly=drop-in")
};

inline SizeRule hold() { return {}; }
inline SizeRule step(double mm) { return {SizeRule::Kind::Step, mm, ""}; }
inline SizeRule ratio(double factor) { return {SizeRule::Kind::Ratio, factor, ""}; }
inline SizeRule follow() { return {SizeRule::Kind::Follow, 0, ""}; }
inline SizeRule stock(std::string table) { return {SizeRule::Kind::Stock, 0, std::move(table)}; }

/// "hold", "follow", "step 20", "ratio 1.08", "stock zip", "stock zip 20".
SizeRule parseRule(const std::string& text);
std::string ruleText(const SizeRule& rule);

/// All dimensions and choices of a design's form and features, features' names prefixed with their id.
struct DesignSpec {
    std::vector<DimensionSpec> dimensions;
    std::vector<DerivedSpec> derived;
    std::vector<ChoiceSpec> choices;
    /// Parts that sit on a face of another part, "label2.", or on a side wall, and what that face's own names begin
    /// with: in their formulas "face.width" is the width of that face, "patch.front.face.width", "side.face.width".
    std::map<std::string, std::string> onParts;
    /// What a name means in the formula of a dimension.
    std::string meant(const std::string& name, const std::string& dimension) const;
    const DimensionSpec* dimension(const std::string& name) const;
    const ChoiceSpec* choice(const std::string& name) const;
};

/// Does a dimension mean anything with these values and choices? One that does not is not shown, and changing it
/// changes nothing.
bool counts(const DerivedSpec& spec, const std::map<std::string, std::string>& choices);
bool counts(const ChoiceSpec& spec, const std::map<std::string, std::string>& choices);
bool counts(const DimensionSpec& spec, const std::function<double(const std::string&)>& valueOf,
    const std::map<std::string, std::string>& choices);

} // namespace tectonis
