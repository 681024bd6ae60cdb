// SPDX-License-Identifier: GPL-3.0-or-later
// How a step is drawn from above: for plan*.cpp alone, which hold a figure for each act.
#pragma once

#include "figures/laid.hpp"
#include "figures/plan.hpp"
#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <optional>
#include <set>

namespace tectonis {

/// Draws one act.
class Plan {
    using Verb = Act::Verb;
    using Kind = Stroke::Kind;

    static constexpr double kStep = 0.2;     // mm between a curve and its chords
    static constexpr std::size_t kAside = 4; // pieces beside each other; more would be too small to read
    static constexpr double kRoom = 25;      // mm between pieces beside each other
    static constexpr double kAlike = 3;      // mm that two edges may part and still lie on each other

    static Polyline outlineOf(const Piece& piece) { return flattened(piece.cut, kStep); }

    static Polyline placedAll(const Polyline& line, const Placement& m)
    {
        Polyline out;
        for (const Point p : line)
            out.push_back(m(p));
        return out;
    }

public:
    Plan(const Pattern& pattern, const Step& step, const Act& act) : p(pattern), m_step(step), m_act(act) {}
    Scene scene();

private:
    template <class Item> void add(Item item) { m_scene.items.emplace_back(std::move(item)); }
    void stroke(Polyline line, Kind kind);
    void run(const Run& r, Kind kind) { stroke(flattened(r, kStep), kind); }
    void codeAt(const Piece& piece, Point at) { add(Word{at, naming(piece.code)}); }
    const Seam* seam() const;
    /// The whole that a piece is a part of: parts of one whole lie in its coordinates.
    PieceId frameOf(const Piece& piece) const { return piece.whole.empty() || m_parts ? piece.key : piece.whole; }
    /// The frame of one side of a seam; empty if its pieces lie in several.
    PieceId frame(const std::vector<EdgeUse>& side) const;
    std::vector<const Piece*> piecesIn(const PieceId& wanted) const;
    Run runOf(const std::vector<EdgeUse>& side) const { return tectonis::runOf(p, side); }
    bool insideLeft(const std::vector<EdgeUse>& side) const { return tectonis::insideLeft(p, side); }
    /// Pieces lying with their right side up, zips and what is fixed to them drawn on them.
    void lower(const std::vector<const Piece*>& pieces, bool wrong = false);
    /// What a piece covers when it is stitched on: what its rows enclose, if they enclose anything.
    Polyline finished(const Piece& over, const Placement& at) const;
    /// Was the thing put on before this step?
    bool done(const PieceId& thing) const;
    void joined();
    /// A raw edge laid on a zip's tape, right side up, a pocket bag's edge below.
    void lapped(const Seam& s);
    /// A zip's tape along an edge, its chain outside.
    void tape(const Run& edge, bool left);
    /// Of a seam all round, where both sides go over several pieces: as far as the first piece reaches.
    void stretch(const Seam& s);
    /// What is sewn along @p edge, with its opening.
    void sewn(const Run& edge, const Seam& s, Kind kind = Kind::Sew);
    /// The other seams of the act on the same piece.
    void alsoSewn(const Seam& first, const PieceId& on);
    /// Notches of the lower piece along the seam.
    void marks(const std::vector<EdgeUse>& side);
    /// The pieces on top, wrong side up: laid flat with a corner turned back, or stood round the edge.
    void above_(const Seam& s, const std::vector<EdgeUse>& side, const Run& edge, bool left, const Box& box);
    /// How far a piece reaches from its run.
    static double depthOf(const Piece& piece, const Run& r);
    /// The corner farthest from the seam is turned back, so that the right sides show.
    void turnedBack(const Polyline& outline, const Run& edge, bool left, Skin wrong, const Piece& piece);
    /// What is caught between, on the lower piece, pointing away from the seam.
    void between(const Seam& s, const Run& edge, bool left);
    /// The other layer of a thing that was sewn and turned before, a flap's lining; null if it has none.
    const Piece* sewnTo(const Piece& thing) const;
    /// @returns false where its place along the edge is not known.
    void hold(const Piece& thing, const Run& edge, bool left);
    /// A loop or a strip: a short tab at its anchors, or in the middle of the edge; with its ring.
    void tab(const Piece& thing, const Run& edge, bool left);
    bool hasRing(const Piece& thing) const;
    /// Of each seam that catches the thing: its edges on the piece that the thing is laid on.
    std::vector<std::vector<EdgeUse>> edgesThatCatch(const Piece& thing, const Piece& holder) const;
    /// Where it is laid, if its act says so.
    std::optional<Point> laidAt(const Piece& thing) const;
    double widthOf(const Piece& strip) const; ///< finished
    void ringAt(Point c, double r);
    static double nearest(const Run& edge, Point q);
    /// A piece folded onto itself, right sides together.
    void folded(const Seam& s);
    /// A metre of each cloth, and how much of it is lost.
    void washed();
    /// The rows of a quilted block.
    void quiltRows(const Piece& piece, const Placement& at);
    /// All pieces wrong side up with what lies on them, in rows.
    void interlined();
    void laidFlat();
    void putOn(const std::vector<EdgeUse>& side, const Run& line, bool window);
    void slash(const Piece& face);
    /// Something basted at the edge that will catch it.
    void caught();
    /// A covered cord along an edge, its flange level with the raw edge.
    void corded(const Piece& piping, const Run& edge, bool left);
    /// What of a seam runs along a piece.
    static std::vector<EdgeUse> usesOf(const Seam& s, const PieceId& piece);
    void lined();
    void turned();
    void arrowOut(const Run& edge, double along, bool left);
    void throughOpening(bool turns);
    /// Shell and lining: one goes into the other.
    void coats(bool liningIn);
    static const Piece* largest(const Piece* a, const Piece* b);
    /// A corner pulled apart until its two seams lie on each other, sewn across.
    void boxed();
    /// A strap's ends on their lines, the strap itself leaving upwards, each end boxed and crossed.
    void boxedOn();
    /// A piece in its place on another one, right side up; both copies where it is mirrored.
    void laidOnFace();
    /// A flap's or lid's edge on its line, the thing pointing away from where it will hang, and how it is folded over.
    void hinged();
    /// A zip face down along the mouth of each face.
    void taped();
    /// A strap's open end with what is pushed into it.
    void inserted();
    /// A piece folded across its middle, its lower half brought up.
    void foldedUp(bool up);
    void boardIn();
    void aside();
    /// A zip whose ends are made, lying by itself.
    void zipEnds();
    /// Lines that this part put on the piece: where things are laid, stitched or slashed.
    void linesOn(const Piece& piece, const Placement& at);
    /// Short cuts at the drill marks that this part made.
    void marksOn(const Piece& piece, const Placement& at);
    void seamsOn(const Piece& piece, const Placement& at);
    /// Clips and notches along the piece's edges.
    void cutsOn(const Piece& piece, const Placement& at);
    /// Where this side or its mate goes round a curve or a corner.
    void cutsAlong(
        const std::vector<EdgeUse>& side, const std::vector<EdgeUse>& mate, const Piece& piece, const Placement& at);
    void fittingsOn(const Piece& piece, const Placement& at);
    const Pattern& p;
    const Step& m_step;
    const Act& m_act;
    Scene m_scene;
    bool m_parts = false; ///< parts of a whole are told apart
};

} // namespace tectonis
