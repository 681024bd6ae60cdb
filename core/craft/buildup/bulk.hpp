// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at seams, crossings and topstitched rows, and what can be done to have less of it there.
#pragma once

#include "pattern/pattern.hpp"

#include <map>
#include <set>

namespace tectonis {

/// One line of the bulk sum at a seam: cloth or interlining caught in it.
struct BulkPart {
    const Piece* piece = nullptr; ///< of the pattern, which must outlive this
    const Layer* layer = nullptr; ///< the interlining of it; null: its cloth
    int times = 1;
    double each = 0; ///< mm under the foot
    Message label(const Pattern& pattern) const;
};

struct Bulk {
    std::vector<BulkPart> parts;
    double underFoot = 0;  ///< mm at the plain seam
    double atCrossing = 0; ///< mm where another seam's folded allowances cross it; equal to underFoot if none does
    Message crossing;      ///< name of that seam, or of both
    std::vector<SeamId> crossedBy;     ///< all that cross it where it is too thick for the machine, or else thickest
    std::vector<double> everyCrossing; ///< mm at each place where others cross it
    BulkPart heaviest{}; ///< interlining that reaches into the allowance and adds most; without layer if none does
};

/// What is done at seams in place of what the pattern says of them, and which layers are trimmed out of allowances.
struct Instead {
    std::map<SeamId, SeamCare> care{};
    std::set<std::pair<std::string, int>> trimmed{}; ///< by their rules, as Layer has them
};

/// What lies under the foot when @p seam is sewn: both sides' cloth (three times at a pleat), interlinings that reach
/// past the stitch line (compressed), overlays caught with their piece, its binding, and trapped pieces as often as
/// they are folded. At a crossing: the allowances of both seams that end there, of both runs; of one that is pressed
/// open the thicker, of one that is graded the thinner. Hammered cloth lies to 85 % (common practice, no source).
Bulk bulkAt(const Pattern& pattern, const Seam& seam);

/// The same for many seams of one pattern: what several of them ask for is worked out once.
class Bulks {
public:
    explicit Bulks(const Pattern& pattern, Instead instead = {}) : p(pattern), m_instead(std::move(instead)) {}
    Bulk at(const Seam& seam);
    /// What lies under the foot when @p seam is turned and topstitched 3.2 mm from its edge: both pieces with their
    /// allowances behind them, and interlinings that end less than that inside. Pressed open it is topstitched on both
    /// sides, and each row meets one of them; a graded allowance ends before the row.
    Bulk underTopstitch(const Seam& seam) const;

private:
    bool trimmed(const Layer& layer) const;
    bool lies(const Layer& layer, const EdgeId& edge, double within) const;
    template <class Visit> void forEachCaught(const EdgeUse& use, const Seam& seam, Visit visit) const;
    double sumAlong(const EdgeUse& use, const Seam& seam) const;
    const EdgeUse* thickestOf(const std::vector<EdgeUse>& side, const Seam& seam) const;
    /// mm of one side's allowance.
    struct Thick {
        double cloth = 0, layers = 0;
        double with(double hammered) const { return cloth * hammered + layers; }
    };
    const SeamCare& careOf(const Seam& seam) const;
    bool opened(const Seam& seam) const;
    const std::pair<Thick, Thick>& allowances(const Seam& seam);
    double allowanceThickness(const Seam& crossing, double hammered);
    void findCrossings(const Seam& seam, double plain, Bulk& bulk);

    const Pattern& p;
    Instead m_instead;
    std::map<const Seam*, std::pair<Thick, Thick>> m_allowances;
};

Bulk bulkUnderTopstitch(const Pattern& pattern, const Seam& seam);

/// Where along its making a seam is thick.
enum class ThickSpot { Row, Crossing, Topstitch };

/// Does a step topstitch it?
bool isTopstitched(const Pattern& pattern, const Seam& seam);

/// Where it is too thick for the workshop's machine, or else where it is thickest when it is sewn.
ThickSpot worstSpot(const Pattern& pattern, const Seam& seam);

/// What lies under the foot there.
double thickAt(const Pattern& pattern, const Seam& seam, ThickSpot spot, const Instead& instead = {});

/// Something that makes less of a seam lie under the foot.
struct Remedy {
    enum class Kind { Trim, Grade, Open, Aside, Hammer, Hand };
    Kind kind = Kind::Trim;
    std::vector<SeamId> seams{}; ///< at which it is done: the seam, or what crosses it
    BulkPart layer{};            ///< that is trimmed, of Trim
    double gain = 0, leaves = 0; ///< mm less at the spot, and what lies there with it
    bool done = false;           ///< it is done already
    Message whyNot{};            ///< why it cannot be done, or is no use; empty where it can
    bool useful() const { return !done && whyNot.empty(); }
};
/// All of them in the order of the trade: trim interlining out of the allowance, grade, press open, change the order,
/// hammer flat, sew by hand.
std::vector<Remedy> remediesFor(const Pattern& pattern, const Seam& seam, ThickSpot spot);

/// Of a seam that is sewn by hand where the machine does not take it: mm of its row that are. @p spot Row or Topstitch.
double sewnByHand(const Pattern& pattern, const Seam& seam, ThickSpot spot);

/// Why one of its allowances cannot be graded, or it cannot be pressed open; empty where it can.
Message whyNotGraded(const Pattern& pattern, const Seam& seam);
Message whyNotOpened(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
