// SPDX-License-Identifier: GPL-3.0-or-later
// The Design: what the user wants. Plain values, nothing computed. Everything else in Tectonis follows from it.
#pragma once

#include "library/library.hpp"

#include <map>
#include <string>
#include <vector>

namespace tectonis {

/// How a dimension grows from size to size.
struct SizeRule {
    enum class Kind {
        Hold,   ///< the same in every size
        Step,   ///< plus @c amount mm for each size up
        Ratio,  ///< times @c amount for each size up
        Follow, ///< its formula is worked out anew in every size
        Stock   ///< its formula (plus @c amount for each size up), snapped to what @c stock offers
    };
    Kind kind = Kind::Hold;
    double amount = 0;
    std::string stock; ///< name of a stock table
    bool operator==(const SizeRule&) const = default;
};

/// A named measure. @c value is a number (mm, or a count) or a formula over other dimensions.
struct Dimension {
    std::string value;
    SizeRule rule;
    std::map<std::string, std::string> bySize; ///< own value or formula for single sizes; goes before the rule
    More more;
    bool operator==(const Dimension&) const = default;
};

/// A part that a form can take: a flap, a pocket. Its dimensions are named "<id>.<dimension>".
struct Feature {
    std::string id;
    std::string kind;
    More more;
    bool operator==(const Feature&) const = default;
};

/// An interlining behind all pieces of a role, or behind one piece.
struct LayerRule {
    std::string pieces;   ///< role ("panel") or piece key ("back.lower")
    std::string material; ///< id in the library; empty: nothing lies behind these pieces, whatever their role says
    std::string fixing;   ///< "fused", "basted", "glued", "loose", "quilted"
    std::string trim;     ///< "full", "stitch", "inset N" or "past N" (mm inside or beyond the stitch line); of a
                          ///< quilted one "rows N" or "diamonds N" (mm apart)
    std::map<std::string, std::string> edges; ///< edge name to trim, where it differs
    std::string area{}; ///< "" for the whole piece, a named area of it ("base"), or a shape (buildup/shapes)
    More more{};
    std::string grain{}; ///< degrees in the piece; empty: as the piece
    bool operator==(const LayerRule&) const = default;
};

/// What of a seam is left unsewn at its ends, mm.
struct SeamEnds {
    double start = 0, end = 0;
    More more;
    bool operator==(const SeamEnds&) const = default;
};

/// What is done at a seam so that less of it lies under the foot, in the order of the trade.
struct SeamCare {
    bool graded = false; ///< one allowance is trimmed to 3 mm, and slanting to the stitches where another seam crosses
    bool open = false;   ///< pressed open, whatever its form would do
    bool aside = false;  ///< sewn from both sides up to the seams that cross it, their allowances turned aside
    bool hammered = false; ///< hammered flat before it is sewn
    bool byHand = false;   ///< sewn by hand where the machine does not take it
    More more{};
    bool operator==(const SeamCare&) const = default;
};

struct Carried {
    std::string name;
    double width = 0, height = 0, thickness = 0; ///< mm, as it stands in the bag
    std::string place = "main";                  ///< "main" or the id of a pocket
    double weight = 0;                           ///< g; 0: not known
    More more;
    bool operator==(const Carried&) const = default;
};

/// Minutes that were measured, and what the pattern had foretold by then, uncorrected.
struct Timed {
    double minutes = 0, predicted = 0;
    More more;
    bool operator==(const Timed&) const = default;
};

/// What was measured on a sewn trial bag. Zero means not measured.
struct Trial {
    std::string date, size, note;
    double width = 0, height = 0, depth = 0, strapLongest = 0, zipOpening = 0; ///< mm
    double minutes = 0, predicted = 0;                                         ///< of the whole bag, as in Timed
    std::map<std::string, Timed> steps;                                        ///< step id to its minutes
    More more;
    bool operator==(const Trial&) const = default;
};

struct Revision {
    std::string date, text;
    More more;
    bool operator==(const Revision&) const = default;
};

/// A step of the designer's own.
struct OwnStep {
    std::string id; ///< "own step 1"
    std::string title, text;
    std::string after; ///< id of the step that it follows; if that is gone it comes last
    double minutes = 0;
    More more;
    bool operator==(const OwnStep&) const = default;
};

/// One step always before another, whatever else changes. One whose steps are gone waits for them.
struct Wish {
    std::string first, then; ///< step ids
    More more;
    bool operator==(const Wish&) const = default;
};

/// A step told in two: from the @c nth act of a verb on, the rest is a step of its own.
struct Split {
    std::string step, verb; ///< id of the undivided step; as wordOf(Act::Verb) calls it
    int nth = 1;
    More more;
    bool operator==(const Split&) const = default;
};

/// Two steps told as one wherever the second stands right behind the first.
struct Joined {
    std::string first, then; ///< step ids
    More more;
    bool operator==(const Joined&) const = default;
};

/// The designer's words of a step in place of those that follow from its acts.
struct OwnWords {
    std::string text;
    std::string was; ///< what followed from the acts when they were written, in English and mm
    More more;
    bool operator==(const OwnWords&) const = default;
};

struct Design {
    std::string name, studio, notes;
    std::string form;
    std::vector<std::string> sizes;
    std::string baseSize;
    std::map<std::string, Dimension> dimensions;
    std::map<std::string, std::string> choices;
    std::vector<Feature> features;
    std::map<std::string, std::string> materials; ///< role ("shell") to material id
    std::vector<LayerRule> layers;
    std::map<std::string, SeamEnds>
        seamEnds; ///< seam key to what is left open; seams that are not there are passed over
    std::map<std::string, SeamCare> seamCare; ///< the same, to what is done because it is thick
    std::map<std::string, SeamCare>
        endCare; ///< piece id of a strap, handle or belt, to what is done at its ends: hammered, by hand
    std::vector<Carried> carried;
    Workshop workshop;
    std::vector<std::string>
        stepOrder; ///< step ids where the user's order differs from the proposed one; empty: as proposed
    std::vector<OwnStep> ownSteps;
    std::vector<Wish> wishes;
    std::vector<Split> splits;
    std::vector<Joined> joined;
    std::map<std::string, OwnWords> ownWords; ///< step id to the designer's words
    std::vector<std::string> hiddenSteps;     ///< ids of steps that booklets leave out
    std::map<std::string, int> run;           ///< size to how many bags of it are made at a time; others none
    /// Ids of goods in the library that are taken wherever they fit what is asked for, the first before the others;
    /// what none of them fits is taken as the library has it. Unknown ids are passed over.
    std::vector<std::string> goods;
    std::vector<Trial> trials;
    std::vector<Revision> revisions;
    /// What its ids of materials, stock tables and papers mean. A file carries what its design uses of it.
    SharedLibrary library;
    More more; ///< of the design itself, its list of sizes and its workshop
    bool operator==(const Design&) const = default;
};

/// Index of a size in the design's list.
/// @throws InputError if the design has no such size.
std::size_t sizeIndex(const Design& design, const std::string& size);

} // namespace tectonis
