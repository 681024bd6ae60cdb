// SPDX-License-Identifier: GPL-3.0-or-later
// Changes to a Design. Each one either succeeds whole, or throws InputError and leaves the design as it was.
// After any of them the design can be drafted in every size.
#pragma once

#include "design/evaluate.hpp"
#include "editing/draft.hpp"
#include "pattern/pattern.hpp"
#include "units/length.hpp"

#include <optional>

namespace tectonis {

class FeatureKind;

/// Sets a dimension from typed text: a length ("240", "9 1/2in") or a formula ("depth/2 + 10"). With @p size, for that size alone.
/// A number typed while looking at size @p seenIn (and no @p size) is meant for that size: the base value is moved so that the
/// rule gives it there.
void setDimension(Design& design, const std::string& name, const std::string& text, const std::optional<std::string>& size = {},
                  Unit bare = Unit::Mm, const std::optional<std::string>& seenIn = {});

/// As setDimension with a number in mm, for drags.
void setDimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn);

/// Takes a size's own value away again.
void clearOwnValue(Design& design, const std::string& name, const std::string& size);

void setRule(Design& design, const std::string& name, const SizeRule& rule);
void setChoice(Design& design, const std::string& name, const std::string& value);
void setMaterial(Design& design, const std::string& role, const std::string& materialId);

/// Leaves a seam open at its ends, mm; zero sews it all. @throws InputError if there is no such seam or too little of it would be sewn.
void setSeamEnds(Design& design, const std::string& seam, const SeamEnds& ends);

/// "NAME=VALUE": a dimension, a choice, "seam.KEY.start", "seam.KEY.end", "material.ROLE", "sizes", "base", "name", "studio" or "notes".
void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size = {});

/// Replaces the size list. A size that got another name keeps its own values and trials; own values of sizes that are gone go with them.
/// Without @p base the base size stays what it was, by its new name.
void setSizes(Design& design, const std::vector<std::string>& sizes, const std::string& base);

/// Size names as they are typed: divided by commas if there is one, else by spaces.
std::vector<std::string> sizeNames(const std::string& typed);
/// Such that sizeNames() gives @p sizes back.
std::string sizesText(const std::vector<std::string>& sizes);

/// A design in another form, and what could not come along, in words.
struct Reformed {
    Design design;
    std::vector<std::string> lost;
};

/// The design made anew in @p form. What does not belong to a form stays as it is: name, studio, notes, sizes, things carried, trials, revisions, workshop.
/// Of the rest what the form takes: dimensions of the same name, parts with their values, materials of the same role.
/// @throws InputError if the form is unknown.
Reformed reformed(const Design& design, const std::string& form);

/// Adds a feature with its defaults and a free id; what it needs (connectors for a strap) is added before it. Returns its id.
/// @throws InputError if the kind is unknown or the form cannot carry it.
std::string addFeature(Design& design, const std::string& kind);

/// Leaves a new part on the first face where it can be drafted and nothing new is to mend or doubtful: a second pocket does not lie on the first.
/// Where every face has its faults, on the one that has fewest; on none of them, it stays on the first, for validation to say why not.
/// @p before: what is to mend or doubtful without it; anyFace: the first face where it can be drafted will do.
constexpr std::size_t anyFace = std::size_t(-1);
void sitWhereItFits(Design& design, const FeatureKind& kind, const std::string& id, std::size_t before);

/// Why a part of that kind cannot be added just now; empty if it can.
std::string whyNotAdd(const Design& design, const std::string& kind);

/// Takes a feature out with its dimensions and choices, and those that need it.
/// @throws InputError if there is none of that id.
void removeFeature(Design& design, const std::string& id);

/// Moves a feature so that the middle of its upper edge comes to @p at on a face, in that face's coordinates in the size of @p seenIn: its choice of face,
/// its drop, and its sideways shift if it has one, each kept inside its range.
/// @throws InputError if there is no such feature or face, or the feature has no drop.
void moveFeature(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at);

/// "hold", "follow", "step 20", "ratio 1.08", "stock zip", "stock zip 20".
SizeRule parseRule(const std::string& text);
std::string ruleText(const SizeRule& rule);

/// @throws InputError unless every dimension of every size is inside its range and every choice and material is known.
void validate(const Design& design);
/// The same, and the patterns that drafting it gave.
std::vector<Pattern> validated(const Design& design);

} // namespace tectonis
