// SPDX-License-Identifier: GPL-3.0-or-later
// What a maker does, as facts: which seams, which pieces, how far from what. Words, tools and cautions follow from
// these and from the finished pattern (telling/sequence/told).
#pragma once

#include "geometry/point.hpp"
#include "library/ware.hpp"
#include "pattern/ids.hpp"
#include "words/message.hpp"

#include <optional>
#include <utility>
#include <vector>

namespace tectonis {

struct Act {
    enum class Verb {
        Interline,    ///< layers, each on the wrong side of its piece and held as its fixing says
        Preshrink,    ///< the cloth of pieces, washed before it is cut
        Quilt,        ///< layers, each with the block of pieces that it lies behind
        CutToShape,   ///< pieces, by their templates, from their quilted blocks
        RoundCorners, ///< of pieces, by their templates, through all layers that lie on them
        Sew,       ///< seams, right sides together; a seam with an opening is left open there. The tape of @c zips lies
                   ///< between, its edge @c distance past the stitch line
        StitchOn,  ///< seams: a piece on lines of another one, wrong side on right side; a row @c distance from the
                   ///< edge (0: as near as can be) and one more at @c taken
        Lay,       ///< pieces.front() on pieces.back(), right sides together, pointing away from the edge in which it
                   ///< is caught later, in @c seams; @c taken mm past the edge
        LayOver,   ///< pieces.front() on the right side of pieces.back(), both right side up, in its place
        LayTape,   ///< zips, face down, on the right side of pieces, the stitch line @c taken from the tape's edge,
                   ///< their ends @c distance from the side seams
        Insert,    ///< pieces.front() into the open end of pieces.back(), @c distance deep; a row across
        Hinge,     ///< seams: an edge on its line, right sides together; folded over the row and sewn again @c distance
                   ///< below
        Line,      ///< pieces.front() behind pieces.back(), wrong sides together
        Baste,     ///< what was laid or folded, @c distance from the edge
        Topstitch, ///< beside seams, @c distance from them, one more at @c taken; @c to: on which side, Open: on both
        Rows,      ///< the rows that are marked on pieces.front(), through all that lies there
        BarTack,   ///< zips, across the chain at both ends, or at one as with FoldEnds
        Roll,      ///< what was turned: seams rolled to the edge, a row @c distance from it, one more at @c taken
        Press,     ///< the allowances of seams @c to one side or open; without seams, what lies there
        FoldStrip, ///< pieces.front() lengthwise, @c distance wide in the end; both long edges stitched. With a facing
                   ///< besides: the long edges of both turned in by @c taken, wrong sides together
        FoldInHalf, ///< pieces.front(), right sides together
        FoldUp,     ///< pieces.front() on itself, edges level
        Crease,     ///< pieces.front() along its fold line, wrong sides together, and opened again
        Pleat,      ///< pieces, along their folds, and basted; each pleat takes @c distance of the edge
        HoldAway,   ///< pieces, from the row that follows
        Clip,       ///< the straight side of seams that goes round the other's curves and corners
        Notch,      ///< the allowances of seams along convex curves
        Grade,      ///< the same before turning, graded as well, and cut across at corners
        Stagger,    ///< allowances of seams: one trimmed to @c distance, slanting to the stitches at its ends
        Hammer,     ///< what lies in seams, or the ends of pieces, flat
        Turn,       ///< right side out, through the opening of seams, or where they leave an edge open
        TurnBag,    ///< the whole bag, through the opening of seams or the zips
        Set,        ///< fittings, through what they go through: snaps, rivets, eyelets, feet
        Window, ///< seams: a bag onto a face round a window, slashed from @c distance inside its ends, pushed through
        InsertZip, ///< zips behind a window, @c distance from its fold
        OpenZip,   ///< zips
        SewTape, ///< one tape of zips, @c distance from its edge, between pieces.front() and pieces.back(), then turned
                 ///< away and topstitched; with @c taken: pieces.front() is lapped over it, its edge raw, a row so far
                 ///< from that
        SliderOn,   ///< zips
        CutDown,    ///< zips that were bought @c taken long, to @c distance between their stops
        SealEnds,   ///< ends of zips with pieces.front(), a tab
        FoldEnds,   ///< the tape at ends of zips, folded away: both, or @c to First or Second, as Zip has them
        CapEnds,    ///< metal ends onto the same
        Hem,        ///< the mouth edge of pieces.front(): @c taken of cloth, @c distance of it showing
        HemEnds,    ///< both short ends of pieces.front() folded in by @c distance and stitched
        DrawIn,     ///< what it uses, @c distance long, into the hem or channel of pieces.front(); both ends sewn over
        FoldIn,     ///< allowances of pieces.front() to the wrong side, @c distance wide; of the edge that is stitched
                    ///< on by seams, if there are any
        JoinStrips, ///< the cut copies of each of pieces, strips, to one length; with @c taken: lapped flat by so much
        Overcast,   ///< the raw edges of seams, each allowance by itself
        Fell,     ///< seams: side a's allowance trimmed to @c distance, side b's folded over it and sewn down, its row
                  ///< @c taken from the seam
        BagSeam,  ///< seams are first sewn wrong sides together, @c distance from the edge, trimmed to @c taken and
                  ///< turned: the row that follows encloses the raw edges
        Bind,     ///< raw edges of seams with pieces.front()
        WrapCord, ///< pieces.front() round its cord, sewn close to it; @c distance at both ends without
        WrapOver, ///< pieces.front() over the rim of pieces.back(), or of what is bought; @c distance glued inside
        SealCut,  ///< the cut ends of pieces, webbing: by heat if it melts, else sewn over
        Buttonhole, ///< at the marks of pieces, @c distance long, cut open; without fittings through one layer
        Box,   ///< corners: each is pulled apart until its seams lie on each other, to be sewn across its raw edges;
               ///< @c taken more than 0: on its line
        Glue,  ///< pieces.front() to pieces.back(), within @c distance of the edges; 0: all over
        Paint, ///< raw edges of pieces.front()
        ThreadStrap, ///< pieces.front() through its hardware
        ThreadTails, ///< pieces.front(), webbing, through its sliders; ends sewn so that they cannot slip out. With
                     ///< fittings: a belt, through its loops, pieces.back(), and its buckle; @c distance folded twice
        ThreadCord,  ///< @c distance of cord; @c taken: how many, from opposite holes
        Trim,        ///< ends of pieces.front(), which were cut @c distance longer, level with its neighbours; or
                     ///< pieces with each other
        BoxOn, ///< ends of pieces.front(), a strap, on their lines on pieces.back(), @c taken folded under; box-X up to
               ///< @c distance below the mouth's stitch line (0: rivets hold them)
        Ring,  ///< pieces.front() through its fittings and folded in half over them, or its end by @c distance
        JoinCoats,    ///< seams: shell and lining round the mouth, one put into the other right sides together
        DropIn,       ///< seams: the lining into the shell, both folded in, a row @c distance from the edge
        PutIn,        ///< pieces.front(), a board, onto the bottom between shell and lining
        CloseOpening, ///< of seams
        Note          ///< in a form's own words, for what no other act says
    };
    /// Where allowances are pressed, or on which side of a seam a row runs.
    enum class To { Nowhere, Open, First, Second }; ///< First, Second: the seam's side a or b

    Verb verb = Verb::Sew;
    std::vector<SeamId> seams{};
    std::vector<PieceId> pieces{};
    std::vector<FittingId> fittings{};
    std::vector<ZipId> zips{};
    std::vector<LayerId> layers{};
    double distance = 0, taken = 0; ///< mm
    To to = To::Nowhere;
    std::optional<Point> at{}; ///< of what is laid: where its middle lies on the edge of pieces.back()
    Message note{};            ///< in a form's own words: all that is said of a note, one more sentence of other acts
    std::vector<Ware> uses{};  ///< bought things that it puts in their place
};

/// Short names for what forms and parts say most.
namespace act {

using Seams = std::vector<SeamId>;
using Pieces = std::vector<PieceId>;
inline Act sew(Seams s) { return {.verb = Act::Verb::Sew, .seams = std::move(s)}; }
inline Act stitchOn(Seams s) { return {.verb = Act::Verb::StitchOn, .seams = std::move(s)}; }
/// @p thing is caught later in the seam @p by, on @p holder.
inline Act lay(PieceId thing, PieceId holder, SeamId by, double past = 0)
{
    return {.verb = Act::Verb::Lay, .seams = {by}, .pieces = {thing, holder}, .taken = past};
}
inline Act line(PieceId lining, PieceId face) { return {.verb = Act::Verb::Line, .pieces = {lining, face}}; }
inline Act baste(double distance) { return {.verb = Act::Verb::Baste, .distance = distance}; }
inline Act topstitch(Seams s, double distance, Act::To to)
{
    return {.verb = Act::Verb::Topstitch, .seams = std::move(s), .distance = distance, .to = to};
}
inline Act roll(Seams s, double distance)
{
    return {.verb = Act::Verb::Roll, .seams = std::move(s), .distance = distance};
}
inline Act press(Seams s, Act::To to) { return {.verb = Act::Verb::Press, .seams = std::move(s), .to = to}; }
inline Act press(PieceId piece) { return {.verb = Act::Verb::Press, .pieces = {piece}}; }
inline Act foldStrip(PieceId piece, double width)
{
    return {.verb = Act::Verb::FoldStrip, .pieces = {piece}, .distance = width};
}
inline Act foldInHalf(PieceId piece) { return {.verb = Act::Verb::FoldInHalf, .pieces = {piece}}; }
inline Act clip(Seams s) { return {.verb = Act::Verb::Clip, .seams = std::move(s)}; }
inline Act notch(Seams s) { return {.verb = Act::Verb::Notch, .seams = std::move(s)}; }
inline Act grade(Seams s) { return {.verb = Act::Verb::Grade, .seams = std::move(s)}; }
inline Act turn(Seams s) { return {.verb = Act::Verb::Turn, .seams = std::move(s)}; }
inline Act turnBag(Seams s) { return {.verb = Act::Verb::TurnBag, .seams = std::move(s)}; }
inline Act set(std::vector<FittingId> fittings, Ware bought)
{
    return {.verb = Act::Verb::Set, .fittings = std::move(fittings), .uses = {bought}};
}
/// Of one piece, with one length.
inline Act of(Act::Verb verb, PieceId piece, double distance = 0, double taken = 0)
{
    return {.verb = verb, .pieces = {piece}, .distance = distance, .taken = taken};
}
/// With what it puts in its place.
inline Act with(Act act, std::vector<Ware> uses)
{
    act.uses = std::move(uses);
    return act;
}
inline Act ofZip(Act::Verb verb, ZipId zip, Pieces pieces = {}, double distance = 0)
{
    return {.verb = verb, .pieces = std::move(pieces), .zips = {zip}, .distance = distance};
}
/// @p thing in its place on @p holder, both right side up.
inline Act layOver(PieceId thing, PieceId holder, Message more = {})
{
    return {.verb = Act::Verb::LayOver, .pieces = {thing, holder}, .note = std::move(more)};
}
/// With one more sentence.
inline Act saying(Act act, Message more)
{
    act.note = std::move(more);
    return act;
}
inline Act trim(PieceId piece, double extra) { return {.verb = Act::Verb::Trim, .pieces = {piece}, .distance = extra}; }
inline Act note(Message words, std::vector<Ware> uses = {})
{
    return {.verb = Act::Verb::Note, .note = std::move(words), .uses = std::move(uses)};
}
/// Does it sew its seams?
inline bool joins(const Act& act)
{
    using enum Act::Verb;
    return act.verb == Sew || act.verb == JoinCoats || act.verb == DropIn || act.verb == StitchOn || act.verb == Hinge
        || act.verb == SewTape;
}
inline Act closeOpening(SeamId seam) { return {.verb = Act::Verb::CloseOpening, .seams = {seam}}; }

} // namespace act
} // namespace tectonis
