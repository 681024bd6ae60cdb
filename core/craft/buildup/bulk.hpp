// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at seams, crossings and topstitched rows.
#pragma once

#include "buildup/pocket_bags.hpp"
#include "buildup/zip_ends.hpp"
#include "pattern/pattern.hpp"

#include <map>
#include <optional>
#include <set>
#include <unordered_map>

namespace tectonis {

inline constexpr double kHammered = 0.85; ///< of a cloth's thickness is left (common practice, no source; from memory)

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
    std::vector<ZipId> crossedByZips;  ///< whose ends lie in it there
    std::vector<double> everyCrossing; ///< mm at each place where others cross it
    BulkPart heaviest{}; ///< interlining that reaches into the allowance and adds most; without layer if none does
};

/// What is done at seams in place of what the pattern says of them, which layers are trimmed out of allowances, and how
/// ends of zips are made.
struct Instead {
    std::map<SeamId, SeamCare> care{};
    std::set<std::pair<std::string, int>> trimmed{}; ///< by their rules, as Layer has them
    std::map<ZipId, ZipEnd::Kind> zipEnds{};
};

/// What lies under the foot when @p seam is sewn: both sides' cloth (three times at a pleat), interlinings that reach
/// past the stitch line (compressed), overlays caught with their piece, its binding, trapped pieces as often as they
/// are folded, and bags of pockets that reach past its line. What is stitched onto another piece lies with its edge
/// folded in, or as it was turned. A hem lies three times, its raw edge turned in; what is folded in and dropped in,
/// twice. At a crossing: the allowances of both seams that end there, of both runs; of one that is pressed open the
/// thicker, of one that is graded the thinner. Hammered cloth lies to 85 % (common practice, no source).
Bulk bulkAt(const Pattern& pattern, const Seam& seam);

/// The same for many seams of one pattern: what several of them ask for is worked out once.
class Bulks {
public:
    explicit Bulks(const Pattern& pattern, Instead instead = {}) : p(pattern), m_instead(std::move(instead)) {}
    Bulk at(const Seam& seam);
    /// What lies under the foot when @p seam is topstitched 3.2 mm from it: where it is turned and rolled to the edge,
    /// both pieces with their allowances behind them; pressed to one side, that piece and both allowances; pressed open
    /// it is topstitched on both sides, and each row meets one of them. Interlinings that end less than that inside
    /// count, and what is caught in it; a graded allowance, of its care or its steps, ends before the row. At a
    /// crossing what crosses lies in each of these layers.
    Bulk underTopstitch(const Seam& seam);
    /// Does a step topstitch it?
    bool topstitched(const Seam& seam) { return worked(seam.key).row; }

private:
    bool trimmed(const Layer& layer) const;
    bool lies(const Layer& layer, const EdgeId& edge, double within) const;
    template <class Visit> void forEachCaught(const EdgeUse& use, const Seam& seam, Visit visit) const;
    double sumAlong(const EdgeUse& use, const Seam& seam) const;
    int timesFolded(const Seam& seam);
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
    /// What lies across a seam at one place of it: another seam's allowances, or a zip's end.
    struct Across {
        double at = 0; ///< mm along side a
        const Seam* seam = nullptr;
        const Zip* zip = nullptr;
        double onA = 0, onB = 0; ///< mm on each side, besides what lies in the row: in piece and allowance alike
        double once = 0;         ///< mm that are caught between
    };
    void readActs();
    const Seam* turnedAlong(const EdgeUse& use, const Seam& own);
    bool sewnLater(const Seam& other, const Seam& seam);
    void addTrapped(const Seam& seam, std::vector<BulkPart>& parts);
    ZipEnd endAs(const Zip& zip, const ZipEnd& end) const;
    double foldBeside(const EdgeUse& use, Point leaves, double hammered) const;
    void addZipEnd(const Seam& seam, const std::vector<EdgeUse>& side, std::size_t bridge, Across across,
        std::vector<Across>& out) const;
    void addAlong(const Seam& seam, bool first, double hammered, std::vector<Across>& out);
    std::pair<const Zip*, CaughtEnd> caughtAtMouth(const EdgeUse& wall, bool begins) const;
    void addFlatMouth(const Seam& seam, double hammered, std::vector<Across>& out);
    void addFlatZip(const Seam& mouth, double along, double at, double hammered, std::vector<Across>& out) const;
    const std::vector<Across>& acrossOf(const Seam& seam);
    template <class ThickOf> void findCrossings(const std::vector<Across>& all, ThickOf thickOf, Bulk& bulk);

    const Pattern& p;
    Instead m_instead;
    std::map<const Seam*, std::pair<Thick, Thick>> m_allowances;
    /// What the steps do with a seam.
    struct Worked {
        std::size_t nth = 0; ///< of all that are sewn, from 1; 0: it is not
        bool turned = false, dropped = false, row = false;
        Act::To side = Act::To::Nowhere; ///< of a topstitched row; nowhere: on the edge of what was turned
    };
    const Worked& worked(const SeamId& seam);
    std::unordered_map<SeamId, Worked> m_worked;
    std::unordered_map<PieceId, std::vector<const Seam*>> m_turned; ///< seams by which pieces were turned
    bool m_read = false;
    std::map<const Seam*, std::vector<Across>> m_across;
    std::optional<std::vector<CaughtBag>> m_bags;
};

/// Is it an edge that is folded onto itself, a hem, or left raw?
bool foldedOver(const Seam& seam);

Bulk bulkUnderTopstitch(const Pattern& pattern, const Seam& seam);

} // namespace tectonis
