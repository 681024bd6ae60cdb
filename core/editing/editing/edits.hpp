// SPDX-License-Identifier: GPL-3.0-or-later
// What can be changed of a Design.
#pragma once

#include <functional>

#include "design/evaluate.hpp"
#include "editing/alignments.hpp"
#include "editing/draft.hpp"
#include "editing/validated.hpp"
#include "pattern/pattern.hpp"
#include "units/length.hpp"

#include <optional>

namespace tectonis {

class FeatureKind;

/// Changes of a Design, one verb each. A verb refuses what cannot be meant (a name that there is not, a text that is no
/// number); whether the design holds with it is found by edited(), once, however many verbs were used. @throws
/// InputError.
namespace change {

/// Sets a dimension from typed text: a length ("240", "9 1/2in") or a formula ("depth/2 + 10"). With @p size, for that
/// size alone. A number typed while looking at size @p seenIn (and no @p size) is meant for that size: the base value
/// is moved so that the rule gives it there.
void dimension(Design& design, const std::string& name, const std::string& text,
    const std::optional<std::string>& size = {}, Unit bare = Unit::Mm, const std::optional<std::string>& seenIn = {});

/// The same with a number in mm, for drags.
void dimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn);

/// Takes a size's own value away again.
void noOwnValue(Design& design, const std::string& name, const std::string& size);

void rule(Design& design, const std::string& name, const SizeRule& rule);
void choice(Design& design, const std::string& name, const std::string& value);
void material(Design& design, const std::string& role, const std::string& materialId);

/// A step of one's own behind another one. Returns its id.
/// @throws InputError if there is no such step, or no title.
std::string addStep(Design& design, const Pattern& seenIn, const std::string& after, const std::string& title,
    const std::string& text, double minutes);
/// Takes a step of one's own out. @throws InputError if there is none of that id.
void removeStep(Design& design, const std::string& id);
/// Own words in place of those that follow from a step's acts; empty: those again. @throws InputError for no such step.
void stepWords(Design& design, const Pattern& seenIn, const std::string& id, const std::string& text);
/// Leaves a step out of booklets, or takes it in again. @throws InputError for no such step.
void hideStep(Design& design, const Pattern& seenIn, const std::string& id, bool hidden);
/// Tells a step in two: from its @p act-th act on (counted from 0) the rest is a step of its own, which can be moved by
/// itself. @throws InputError for no such step, or if nothing would be left of one half.
void splitStep(Design& design, const Pattern& seenIn, const std::string& id, std::size_t act);
/// Tells a divided step as one again; @p id may be any of its parts. @throws InputError if it is not divided.
void mendStep(Design& design, const Pattern& seenIn, const std::string& id);
/// Tells a step as one with the one right before it in the order. @throws InputError for no such step, or the first.
void joinStep(Design& design, const Pattern& seenIn, const std::string& id);
/// Tells it by itself again. @throws InputError if it is not joined to another.
void partStep(Design& design, const std::string& id);
/// Minutes that a trial bag of the size of @p seenIn took, with what is reckoned for it now; 0: not measured. With
/// @p step, of that step alone. @throws InputError for no such trial or step.
void timed(Design& design, const Pattern& seenIn, std::size_t trial, double minutes, const std::string& step = "");
/// @p first always before @p then. @throws InputError for no such steps, or if that is wished already.
void wish(Design& design, const Pattern& seenIn, const std::string& first, const std::string& then);
/// Forgets all wishes about a step. @throws InputError if there is none.
void forgetWishes(Design& design, const std::string& id);

/// Takes another material wherever the design has @p now. @throws InputError if it has it nowhere.
void exchangeMaterial(Design& design, const std::string& now, const std::string& then);

/// Takes one of the library's goods wherever it fits, before those that were taken earlier. @throws InputError for an
/// id that the library does not know.
void takeGood(Design& design, const std::string& id);
/// As the library has it again. @throws InputError if it was not taken.
void leaveGood(Design& design, const std::string& id);

/// How many bags of a size are made at a time. @throws InputError for no such size or an absurd number.
void run(Design& design, const std::string& size, int bags);

/// Machine, foot, speed and rates of one of the library's workshops.
void workshop(Design& design, const std::string& name);

/// Chooses what the design's workshop makes otherwise (otherWays() in design/ways.hpp), as far as form and parts take
/// it.
void ways(Design& design);

/// Takes the values that @p mine has of what the design carries (newerValues() in design/carried_library.hpp lists
/// them).
void newerValues(Design& design, const Library& mine);

/// Leaves a seam open at its ends, mm; zero sews it all.
void seamEnds(Design& design, const std::string& seam, const SeamEnds& ends);

/// What is done at a seam because it is thick; nothing set: nothing.
/// @throws InputError if there is no such seam, or it cannot be done there.
void seamCare(Design& design, const std::string& seam, const SeamCare& care);

/// What is done at the thick ends of a strap, handle or belt: hammered, sewn by hand; nothing set: nothing.
/// @throws InputError if the piece has no such ends, or it cannot be done there.
void endCare(Design& design, const std::string& piece, const SeamCare& care);

/// "NAME=VALUE": a dimension, a choice, "seam.KEY.start", "seam.KEY.end", "seam.KEY.care", "end.PIECE.care",
/// "material.ROLE", "run.SIZE", "good.ID" (yes or no), "workshop", "sizes", "base", "name", "studio" or "notes".
void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size = {});

/// Replaces the size list. A size that got another name keeps its own values and trials; own values of sizes that are
/// gone go with them. Without @p base the base size stays what it was, by its new name.
void sizes(Design& design, const std::vector<std::string>& sizes, const std::string& base);

/// How a material is usually held behind its piece: "fused", "loose", "basted".
std::string usualFixing(const Material& material);

/// Puts an interlining behind all pieces of a role or behind one piece, which then has rules of its own, begun as a
/// copy of its role's. An empty fixing is the usual one, or quilted where the trim says rows; an empty trim goes to the
/// stitch line.
void putBehind(Design& design, const Pattern& seenIn, const LayerRule& rule);

/// Changes the layer that comes @p nth, from 0, among the rules that hold for a role or a piece; a piece then has rules
/// of its own. @throws InputError if there is no such layer, or for a fixing that there is not.
void layer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth,
    const std::function<void(LayerRule&)>& change);
/// Lays it one further from the face, or nearer to it. @throws InputError if it is the last, or the first.
void moveLayer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth, bool inwards);
/// Takes it away. A piece that has no layer left has none, whatever its role says.
void takeLayer(Design& design, const Pattern& seenIn, const std::string& pieces, std::size_t nth);
/// A piece gets the layers of its role again; a role those that suit it and its cloth (proposedLayers).
void restoreLayers(Design& design, const Pattern& seenIn, const std::string& pieces);
/// All layers of a role or a piece at once.
void layers(Design& design, const std::string& pieces, const std::vector<LayerRule>& layers);

/// Takes the last one away again.
void takeFromBehind(Design& design, const Pattern& seenIn, const std::string& pieces);

/// The order of work by ids of steps; steps that are not named keep their places. Empty: as proposed.
void order(Design& design, const Pattern& seenIn, const std::vector<std::string>& stepIds);

/// Adds a part with its defaults and a free id, on the face where it is in nobody's way; what it needs (connectors for
/// a strap) is added before it. Returns its id.
std::string addPart(Design& design, const std::string& kind);

/// Takes a part out with its dimensions and choices, and those that need it.
void removePart(Design& design, const std::string& id);

/// Parts that sat on a face of another part which is gone sit where that part sits, those on a wall that the body has
/// no longer on the other one; or on the first face that can carry them. @p but: a choice that was just made, which
/// stays for others to judge.
void rehouse(Design& design, const std::string& but = {});

/// Where values of a part do not fit the face that it came to sit on, they become as large, or as small, as that face
/// allows in each size: "min(25, face.height - 30)". What it has no room for at all stays for others to judge.
void fitOnFace(Design& design, const std::string& id);

/// Moves a part so that the middle of its upper edge comes to @p at on a face, in that face's coordinates in the size
/// of @p seenIn: its choice of face, its drop, and its sideways shift if it has one, each kept inside its range.
/// @param with guides that it was lined up with (editing/alignments.hpp): their formulas are taken where every size
/// takes them.
void movePart(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at,
    const std::vector<Alignment>& with = {});

/// Moves what can be taken hold of on a face (editing/movables.hpp) so that it lies at @p to there, as the face stands
/// upright in the size of @p seenIn. Its dimensions are kept inside their ranges; a part that can be put on another
/// face is.
void move(Design& design, const Pattern& seenIn, const Movable& moved, const Site& face, Point to,
    const std::vector<Alignment>& with = {});

/// Adds a part like @p id on the same face, mirrored about its middle, and following it in all sizes.
/// @returns its id. @throws InputError if it has no way sideways or lies in the middle.
std::string mirrorPart(Design& design, const std::string& id);

} // namespace change

/// The verbs as edits of their own: each succeeds whole, or throws InputError and leaves the design as it was.
void setDimension(Design& design, const std::string& name, const std::string& text,
    const std::optional<std::string>& size = {}, Unit bare = Unit::Mm, const std::optional<std::string>& seenIn = {});
void setDimensionMm(Design& design, const std::string& name, double mm, const std::string& seenIn);
void setRule(Design& design, const std::string& name, const SizeRule& rule);
void setChoice(Design& design, const std::string& name, const std::string& value);
void setMaterial(Design& design, const std::string& role, const std::string& materialId);
void setSeamEnds(Design& design, const std::string& seam, const SeamEnds& ends);
void assign(Design& design, const std::string& assignment, const std::optional<std::string>& size = {});
void setSizes(Design& design, const std::vector<std::string>& sizes, const std::string& base);
std::string addFeature(Design& design, const std::string& kind);
void removeFeature(Design& design, const std::string& id);
void moveFeature(Design& design, const Pattern& seenIn, const std::string& id, const std::string& site, Point at);

/// Size names as they are typed: divided by commas if there is one, else by spaces.
std::vector<std::string> sizeNames(const std::string& typed);
/// Such that sizeNames() gives @p sizes back.
std::string sizesText(const std::vector<std::string>& sizes);

/// What an edit changed besides what was asked: values of parts that were made to fit another face (fitOnFace()).
std::vector<Message> fittedBesides(const Design& before, const Design& after);

/// A design in another form, and what could not come along, in words.
struct Reformed {
    Design design;
    std::vector<Message> lost;
};

/// The design made anew in @p form. What does not belong to a form stays as it is: name, studio, notes, sizes, things
/// carried, trials, revisions, workshop. Of the rest what the form takes: dimensions of the same name, parts with their
/// values, materials of the same role.
/// @throws InputError if the form is unknown.
Reformed reformed(const Design& design, const std::string& form);

/// Leaves a new part on the first face where it can be drafted and nothing new is to mend or doubtful: a second pocket
/// does not lie on the first. Where every face has its faults, on the one that has fewest; on none of them, it stays on
/// the first, for validation to say why not.
/// @p before: what is to mend or doubtful without it; anyFace: the first face where it can be drafted will do.
constexpr std::size_t anyFace = std::size_t(-1);
void sitWhereItFits(Design& design, const FeatureKind& kind, const std::string& id, std::size_t before);

/// Why a part of that kind cannot be added just now; empty if it can.
Message whyNotAdd(const Design& design, const std::string& kind);

} // namespace tectonis
