// SPDX-License-Identifier: GPL-3.0-or-later
// The drafting table: what a form or a feature draws with. Pieces, seams, marks and steps go into one Pattern.
#pragma once

#include "buildup/layers.hpp"
#include "pattern/labels.hpp"
#include "pattern/pattern.hpp"
#include "words/language.hpp"

#include <initializer_list>
#include <list>
#include <map>
#include <memory>
#include <optional>

namespace tectonis {

/// The same with its result worked out by its formula. @throws std::logic_error if an input is missing.
Working worked(Working w);

/// A flap that the body itself has, where the halves of a closure can meet: on the face that it comes down over, and on
/// its own underside.
struct OwnFlap {
    PieceId face;      ///< the piece below
    Point mouth;       ///< on it: the middle of the mouth
    Point down, right; ///< on it: away from the mouth, and to the right of who looks at the closed bag; unit vectors
    std::string phase; ///< of work on it
    PieceId under;     ///< the flap's underside
    Point fold;        ///< on it: the middle of the fold that it turns at
    Point out, across; ///< on it: from the fold to the free edge, and to the right; unit vectors
    std::string underPhase;
    double way = 0;       ///< mm from the fold to the mouth below, but for what the flap goes round
    double allowance = 0; ///< mm of the seam round the flap
};

class Drafter {
public:
    Drafter(const Design& design, Values values, std::size_t size);

    Pattern pattern;
    const Design& design;
    std::list<Step> steps; ///< goes into the pattern in the proposed order. std::list: steps are put in between others
    std::vector<Patch> patches;
    std::optional<OwnFlap> ownFlap;

    /// A dimension's value. @throws InputError if there is none.
    double operator()(std::string_view dimension) const;
    const std::string& choice(const std::string& name) const;
    /// Id of the design's first feature of a kind; empty if there is none.
    std::string firstOf(const std::string& kind) const;
    /// A code that no piece has yet: the letter and the next number.
    std::string freeCode(const std::string& letter);

    /// Works a number out by its formula and keeps the working for the docket.
    double work(Working w);

    /// @throws InputError if there is one of that key: two owners use one name.
    Piece& add(Piece piece);
    /// @throws std::logic_error if the piece was never drafted.
    Piece& piece(const PieceId& key);
    /// The piece, or, where seams cut it across, the part of it at that height.
    Piece& partOf(const PieceId& whole, Point at);
    Seam& add(Seam seam);
    Step& add(Step step);
    /// Adds work on a flat piece before the first seam of the step's phase.
    void addFlatWork(Step step);
    /// Adds a step on a part of the shell: before the first seam that uses up that part.
    void addBeforeJoining(Step step);
    /// Adds a step before the first one that consumes @p part, or any of @p parts.
    void addBeforeUse(Step step, const WorkId& part) { addBeforeUse(std::move(step), std::vector{part}); }
    void addBeforeUse(Step step, const std::vector<WorkId>& parts);
    /// Adds a step on a flat part: after what was put on it so far, before it is used up or lined.
    void addOnTop(Step step, const WorkId& part);

    /// @throws InputError if the form has no such face.
    Site& site(const SiteId& name);
    /// The piece of a site at a height.
    Piece& pieceAt(const Site& site, double y);

    /// Thickness in mm, as it lies, of a face material with the interlinings that cover the whole piece.
    double stack(const std::string& role, const PieceId& key, const std::string& materialRole) const;
    double stack(const Piece& piece) const;

    /// All edges of a piece but @p without, in outline order from the edge after it.
    std::vector<EdgeUse> runWithout(const PieceId& piece, const EdgeId& without);
    /// Edges from the one called @p first to the one called @p last, in outline order.
    std::vector<EdgeUse> runFromTo(const PieceId& piece, const EdgeId& first, const EdgeId& last);

private:
    std::map<std::string, int> m_lastCode; // by letter: codes are never given back, so all below are taken
};

/// A seam of the shell's body in which a face's outline lies, and on which side.
struct SeamRound {
    SeamId seam;
    bool onA = true; ///< the face is side a
};

/// Seams round a face: neither its mouth, nor seams within it, nor seams with the lining, nor basted ones.
std::vector<SeamRound> seamsRound(const Pattern& pattern, const Site& site);

/// A step with what its acts handle, sew, set, open and turn added to what it names.
Step gathered(const Pattern& pattern, Step step);

/// The same run sewn the other way.
std::vector<EdgeUse> reversedRun(std::vector<EdgeUse> run);

/// One feature at work: its dimensions come before the body's.
class FeatureScope {
public:
    FeatureScope(Drafter& drafter, const PartId& part);
    Drafter& d;
    const PartId id;
    double operator()(std::string_view dimension) const;
    const std::string& choice(std::string_view name) const { return d.choice(key(name).text()); }
    /// What it calls something of its own: a piece, a seam, a step, a dimension.
    OwnName key(std::string_view part) const { return {id.text(), part}; }
    /// The name of one of its dimensions among all of the design's.
    const std::string& dimension(std::string_view name) const { return key(name).text(); }
    /// The site the feature was put on.
    /// A strip that lies on its side, a front that hangs head down, is stood up for the part once it is asked for.
    Site& site() const;
    /// Marks where it lies on a face: a placement line called @p mark, which may be open at the top.
    void placeOn(Piece& face, const EdgeId& mark, const Run& outline);
    /// One of its dimensions changes when a hand moves what lies at @p at, or has taken hold of @p grip.
    void handle(std::string_view dimension, const PieceId& piece, Point at, Point direction, double gain = 1,
        Handle::From from = Handle::From::Nowhere, const Box& grip = {});
    /// The same of a thing that would lie at @p there if its dimension were greater @p by.
    void handleTo(
        std::string_view dimension, const PieceId& piece, Point at, Point there, double by, const Box& grip = {});
    /// A face of its own, on which other parts may sit: @p at is the middle of its upper edge, as it hangs in the end.
    /// It is worked on in @p phase; else when the face is that the part sits on.
    void offer(std::string_view face, Message label, const PieceId& piece, Point at, double width, double height,
        const std::string& phase = {});
    /// A name for its marks and pieces: @p name for the first feature of its kind, with its id for others.
    Message named(Message name) const;
    /// A line or a mark of that name.
    EdgeId line(const std::string& name) const;

private:
    mutable std::shared_ptr<class StoodUp> m_stood;
    int m_nth = 0; ///< of its kind among the design's parts
};

} // namespace tectonis
