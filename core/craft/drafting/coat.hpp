// SPDX-License-Identifier: GPL-3.0-or-later
// Shell and lining are two coats of one body: a form draws its body once and is asked for both.
#pragma once

#include "design/spec.hpp"
#include "drafting/drafter.hpp"

namespace tectonis {

/// What a step that sews needs said; its allowance, pieces and match marks follow from its seams.
struct Sewing {
    std::string id;
    Message title;
    std::vector<std::string> seams;    ///< keys within the coat
    std::vector<std::string> consumes; ///< parts within the coat
    std::string yields;                ///< part within the coat
    std::string phase;                 ///< of the shell; all of the lining's work is in "Lining"
    std::vector<Act> before{}, then{}; ///< what is done besides; acts without seams are of all these seams
    Message check{};                   ///< beyond what every seam needs
};

/// One coat while it is drafted. Keys, names and codes are those of the shell; the lining's are prefixed.
class CoatDraft {
public:
    /// The outside, or the lining with its walls @p shrink mm further in than the shell's.
    static CoatDraft shell(Drafter& d);
    static CoatDraft lining(Drafter& d, double shrink);

    Drafter& d;
    const bool isLining;
    const double shrink;    ///< mm that each wall lies further in
    const double allowance; ///< mm of the body's seams
    const double wide;      ///< mm that they are sewn wider from the middle down, on the shell's template (@see wideBy)
    const double mouth;     ///< mm of the mouth's seam

    OwnName key(const std::string& part) const { return {{}, isLining ? "lining." + part : part}; }
    /// Adds a piece of this coat; @p role "panel" becomes "lining panel".
    Piece& add(const std::string& part, const std::string& code, const Message& name, const std::string& role,
        int count = 1, double grain = 90);
    Piece& piece(const std::string& part) const { return d.piece(key(part)); }
    EdgeUse use(const std::string& part, const EdgeId& edge, bool reversed = false, int copy = 0) const
    {
        return {key(part), edge, copy, reversed};
    }
    std::vector<EdgeUse> run(const std::string& part, const EdgeId& first, const EdgeId& last) const
    {
        return d.runFromTo(key(part), first, last);
    }
    /// Joins two runs. Edges of both runs take the coat's allowance as they were drawn.
    Seam& join(const std::string& seam, const Message& name, std::vector<EdgeUse> a, std::vector<EdgeUse> b);
    /// Leaves the turning opening in a seam of the lining, if the bag is turned through one. Before the seam is sewn.
    void leaveOpen(Seam& seam) const;
    /// Adds the step that sews seams; where a straight run meets a curve, a step that clips it comes first.
    void sew(const Sewing& s);
    std::string phase(const std::string& ofShell) const { return isLining ? "Lining" : ofShell; }
    /// A name of the shell for this coat: "base" and "lining base".
    Message what(const Message& name) const { return isLining ? say("lining {}", within(name)) : name; }
    std::string role(const std::string& ofShell) const { return isLining ? "lining " + ofShell : ofShell; }

private:
    CoatDraft(Drafter& drafter, bool lining, double shrinkBy);
};

/// Allowances, turning opening: dimensions that every lined form has. @p openingMax bounds the opening.
/// @p opening is the formula of its default, @p wideMax of how much wider the lining's lower seams may be
/// beyond what every form allows.
std::vector<DimensionSpec> coatDimensions(
    const std::string& openingMax, const std::string& opening = "130", const std::string& wideMax = "");
/// How the lining is made to fit (smaller, the same, by the shell's template with a wider seam below), and how it is
/// joined; @p allWays: also with the mouth first, and without a lining.
std::vector<ChoiceSpec> coatChoices(bool allWays = true);
/// Canvas shell with sew-in foam, cotton lining with woven fusible, a firm base: where a new lined design begins.
void furnishCoats(Design& design);
/// Registers faces about x = 0; their pieces are called as they are, or for "lining back" as the shell's in the lining.
/// Sides are as wide as the mouth is deep.
void addFaces(Drafter& d, const std::vector<SiteSpec>& specs, double top);
/// A loose board: an outline @p inset mm inside a base's stitch line. Returns false, and adds none, where no board of
/// 20 × 10 mm is left.
bool addBoard(Drafter& d, const PieceId& base, double inset);
/// The room inside the body: outside measures less walls, base and board, with the workings. @p endRadius: of round
/// ends seen from above.
void addMainSpace(
    Drafter& d, const PieceId& wall, const PieceId& base, double width, double height, double depth, double endRadius);
/// How much further in the lining's walls lie: the wall's thickness or nothing. @p panel is a piece of the shell that
/// stands for the wall.
double liningShrink(Drafter& d, const PieceId& panel);

/// How much wider than at the mouth the lining's seams are sewn from the middle down, mm: by "allowance.wide", where
/// the choice "lining.fit" says so.
double wideBy(const Pattern& pattern);

/// Its working, if there is one; @p wall: a piece of the shell that stands for the wall.
void workWide(Drafter& d, const PieceId& wall);

/// Outside measures of a coat near its base, mm.
struct Hull {
    double width = 0, depth = 0, height = 0;
    double girth = 0; ///< once round
};
/// Workings of how much room the lining has in the shell, in each direction and round: "lining.slack" and
/// "lining.slack.width", "….depth", "….height". Less than nothing: the lining is larger than its room. @p room is the
/// shell's girth inside its wall, whose piece is @p wall. What measures nothing is not told.
void workSlack(Drafter& d, const PieceId& wall, const Hull& shell, const Hull& lining, double room);

/// Joins shell and lining round the mouth, turns and closes: the seam "mouth" and its steps. Parts "shell" and "lining"
/// become "bag".
struct Joining {
    std::vector<EdgeUse> mouth; ///< of the shell; the lining's is the same with its keys
    SeamId open;                ///< the lining's seam that holds the turning opening
    PieceId board;              ///< a loose board; empty if there is none
    Message more{};             ///< said of the seam where they are bagged out
};
void joinCoats(Drafter& d, const Joining& joining);

/// Its steps by themselves, for bags that are joined in another way: turning through the opening in the seam @p open,
/// the board, closing the opening.
void turnThrough(Drafter& d, const SeamId& open, std::vector<PieceId> pieces);
void putBoardIn(Drafter& d, const PieceId& board);
void closeOpening(Drafter& d, const SeamId& open);

} // namespace tectonis
