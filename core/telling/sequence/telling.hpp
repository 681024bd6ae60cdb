// SPDX-License-Identifier: GPL-3.0-or-later
// How the words of a step are put together: for told*.cpp alone, which hold a sentence or some for each act.
#pragma once

#include "sequence/stitch_length.hpp"
#include "sequence/told.hpp"

#include <algorithm>

namespace tectonis {

/// Puts the words of one step together.
class Telling {
    using Verb = Act::Verb;
    using To = Act::To;

public:
    Telling(const Pattern& pattern, const Step& step) : p(pattern), m_step(step) {}
    StepWords words();

private:
    /// The piece; where it is cut across, one of its parts.
    const Piece* standing(const PieceId& id) const;
    /// What a half is a half of: "back" of "back, lower"; null for a piece that is called otherwise.
    static const Message* halfOf(const Message& name);
    Message nameOf(const PieceId& id) const;
    /// A half is called by its place: "lower back", "upper part of the lower back".
    static Message placed(const Message& name);
    bool several(const PieceId& id) const;
    /// "front and gusset"
    Message namesOf(const std::vector<PieceId>& ids) const;
    std::vector<const Seam*> seamsOf(const Act& act) const;
    const Material* clothOf(const PieceId& id) const;
    template <class Is> bool anyCloth(const std::vector<PieceId>& pieces, Is is) const
    {
        return std::any_of(pieces.begin(), pieces.end(), [&](const PieceId& id) {
            const Material* cloth = clothOf(id);
            return cloth && is(*cloth);
        });
    }
    std::vector<PieceId> handled(const Act& act) const;
    /// Waxed, coated, vinyl, leather: no iron.
    bool noIron(const Act& act) const;
    /// Holes stay in it: longer stitches, no pins.
    bool holesStay(const Act& act) const;
    /// It drags under a foot of bare metal.
    bool sticks(const Act& act) const;
    /// Handles that stand on a face of the shell and reach over its upper edge.
    bool hasHandles() const;
    /// Does a flap hang already from what is sewn here?
    bool carriesFlap(const Act& act) const;
    /// For every reader.
    void add(const Message& sentence) { addEither(sentence, sentence); }
    /// How it is done: for learners only.
    void how(const Message& sentence) { m_out.text = together(m_out.text, sentence); }
    void addEither(const Message& full, const Message& terse);
    void tool(const Message& tool);
    void stitch(const Message& stitch);
    void check(const Message& check) { m_out.check = check; }
    void caution(const Message& caution);
    /// Sewn by machine, or by hand where that does not take it.
    void machine();
    void say_(const Act& act);
    /// As ISO 4916 divides seams, by the first digit of their designation (from memory; its figures are not ours).
    static Message seamClassOf(const Act& act);
    void sentences(const Act& act);
    /// What is fused, basted, glued or laid behind, by its material; how it is held is said once, after the last.
    void interline(const Act& act);
    void held(const std::string& fixing, bool inSeams, bool within);
    Message codesOf(const std::vector<PieceId>& pieces) const;
    /// By material and rows: what is quilted alike is told together.
    /// The thickest needle that a material of the step asks for.
    void needle();
    void preshrink(const Act& act);
    void quilt(const Act& act);
    void cutToShape(const Act& act);
    /// A quilted layer that ends short of the cut line.
    void cutBack(const Piece& piece, const Layer& layer);
    void roundCorners(const Act& act);
    void layOver(const Act& act);
    void layTape(const Act& act);
    void insert(const Act& act);
    void hinge(const Act& act);
    void rows(const Act& act);
    void barTack(const Act& act);
    void pleat(const Act& act);
    void drawIn(const Act& act);
    /// A cover over a card or a shell of the frame.
    void wrapOver(const Act& act);
    void sealCut(const Act& act);
    void buttonhole(const Act& act);
    void sliderOn(const Act& act);
    void cutDown(const Act& act);
    /// Two copies that are sewn to the two tapes of a zip.
    bool twoTapes(const Act& act) const;
    void sew(const Act& act);
    /// Foam and the like that was basted in the allowances.
    void trimLayers(const std::vector<const Seam*>& seams);
    static std::vector<PieceId> piecesAcross(const std::vector<const Seam*>& seams);
    /// Pieces of a cloth with a direction meet here.
    bool upright(const std::vector<const Seam*>& seams) const;
    /// "Sew at 10 mm", each allowance once.
    void row(const std::vector<const Seam*>& seams);
    /// A partial seam.
    void ends(const Seam& seam);
    PieceId wholeOf(const std::vector<EdgeUse>& side) const;
    void stitchOn(const Act& act);
    /// Was the piece turned through an opening that no other act closes?
    bool closesOpeningOf(const PieceId& id) const;
    void foldInHalf(const Act& act);
    /// Does a row on a face end there, and not at the face's own edge?
    bool endsInside(const std::vector<EdgeUse>& line) const;
    void lay(const Act& act);
    void line(const Act& act);
    void baste(const Act& act);
    void topstitch(const Act& act);
    void roll(const Act& act);
    std::vector<PieceId> sidesOf(const Act& act) const;
    bool pressEach(const Act& act);
    void press(const Act& act);
    void foldStrip(const Act& act);
    /// The side that goes straight where the other bends outwards is clipped there; a side that bends outwards is
    /// notched by grade().
    void clip(const Act& act);
    void notch(const Act& act);
    void grade(const Act& act);
    void stagger(const Act& act);
    void hammer(const Act& act);
    /// Where other seams cross a thick one.
    void upToCrossings(const Seam& seam);
    /// Before its sentences: is all that the act sews too thick for the machine, and sewn by hand?
    bool allByHand(const Act& act) const;
    /// After them: what of its rows is.
    void byHand(const Act& act);
    void turn(const Act& act);
    void turnBag(const Act& act);
    void set(const Act& act);
    /// One of a kind stands for all of it.
    void closure(const Act& act, const Fitting& f);
    /// Where several closures are marked on one piece.
    void whichMark(const Fitting& f);
    void setAll(const Fitting& f, const std::vector<PieceId>& on);
    void sewTape(const Act& act);
    void sealEnds(const Act& act);
    void foldEnds(const Act& act);
    void capEnds(const Act& act);
    const Zip* zipOf(const Act& act) const;
    void hem(const Act& act);
    void foldIn(const Act& act);
    void joinStrips(const Act& act);
    void overcast();
    void fell(const Act& act);
    void bagSeam(const Act& act);
    void bind(const Act& act);
    void wrapCord(const Act& act);
    void glue(const Act& act);
    void paint();
    void threadStrap(const Act& act);
    void threadTails(const Act& act);
    void threadCord(const Act& act);
    void window(const Act& act);
    void insertZip(const Act& act);
    void trim(const Act& act);
    void boxOn(const Act& act);
    void ring(const Act& act);
    void joinCoats(const Act& act);
    /// How long the stitches of an act are, and their type.
    Message lengthOfStitches(const Act& act, RowKind kind) const;
    void joinWallsFlat(const Act& act, const Seam& mouth);
    void dropIn(const Act& act);
    void putIn(const Act& act);
    void closeOpening(const Act& act);
    const Pattern& p;
    const Step& m_step;
    StepWords m_out;
    std::vector<Message> m_tools;
    bool m_folded = false; ///< what is sewn next was folded onto itself
    bool m_sewn = false;   ///< the act that is told is sewn by machine
    bool m_byHand = false; ///< and would be, but for the seam's thickness
    bool m_onLine = false; ///< and is sewn on a line, as was said
};

} // namespace tectonis
