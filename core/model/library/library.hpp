// SPDX-License-Identifier: GPL-3.0-or-later
// What a studio can buy and work with: cloths and interlinings, zips, hardware and threads,
// stock sizes, papers, workshops. A value: built in, the
// user's own and what a design carries are merged, and nothing changes afterwards. Trade values: common practice, no
// source.
#pragma once

#include "ids/id.hpp"
#include "library/ware.hpp"

#include <map>
#include <memory>
#include <string>
#include <unordered_map>
#include <vector>

namespace tectonis {

/// JSON members that a later version wrote to something and this one does not know: kept with it, written again, gone
/// when it goes. Empty: none.
using More = std::string;

using MaterialId = Id<struct MaterialKind>;

struct Material {
    std::string id, name;
    std::string use = "face"; ///< "face", "interlining", "strap"
    /// "cotton", "canvas", "waxed", "vinyl", "leather", "coated", "felt", "fusible", "sewin", "board", "webbing"
    std::string kind = "canvas";
    double thickness = 0;          ///< mm, as it lies
    double compressed = 1;         ///< share of the thickness left under the foot
    double gsm = 0;                ///< g/m²
    double width = 1400;           ///< usable cloth width, mm; 0 for goods by the metre
    bool heat = true;              ///< bears the iron
    bool oneWay = false;           ///< pattern or nap has a direction
    bool rigid = false;            ///< cannot be folded when turning
    double needle = 0;             ///< number of the needle that sews it; 0: by its class and thickness
    double shrink = 0;             ///< % of its length that it loses when it is first washed
    std::string fray = "by-class"; ///< does it fray at a cut edge: "yes", "no", or as its class does
    double stretch = 0;            ///< % by which it gives across the grain when pulled by hand
    double stitch = 0;             ///< mm: shortest stitch that it is joined with; 0: by its class
    /// How far it bends by itself: "soft", "medium", "firm", "rigid", or by class, weight and thickness.
    std::string stiffness = "by-class";
    double price = 0;     ///< money per metre
    double sold = 100;    ///< mm: in what lengths it is sold
    double stock = 0;     ///< metres on hand; of the studio, not of a design
    double lead = 0;      ///< days from order to arrival; of the studio
    bool standIn = false; ///< its id was found nowhere: the numbers are guessed, and never written to a file
    More more;
    double underFoot() const { return thickness * compressed; }
    /// Woven cloth frays at a cut edge; what is coated or grown does not (common practice, no source).
    bool frays() const
    {
        return fray == "yes"
            || (fray != "no" && kind != "vinyl" && kind != "leather" && kind != "coated" && kind != "felt");
    }
    /// Needle holes stay in vinyl, leather and coated cloth (common practice, no source).
    bool keepsHoles() const { return kind == "vinyl" || kind == "leather" || kind == "coated"; }
    /// Its face drags under a foot of bare metal (common practice, no source).
    bool sticks() const { return keepsHoles(); }
    bool operator==(const Material&) const = default;
};

/// Something bought by the piece, the metre or the spool.
struct Good {
    std::string id, name;
    std::string kind;                ///< a word of the table of wares (library/ware.hpp)
    std::string make;                ///< "coil", "metal", "polyester": for people
    double width = 0;                ///< mm: of a ring, across a snap, of a zip's tapes with closed chain; 0: any
    double length = 0;               ///< mm: of a ready-made zip, on a spool; 0: any
    double gauge = 0;                ///< of a zip: its closed chain is about as many mm wide; 0: any
    std::string measured = "inside"; ///< how the width of a ring or slider is told: "inside" or "outside" its wire
    double wire = 0;                 ///< mm: thickness of that wire
    double tape = 0;                 ///< mm: thickness of a zip's tapes; 0: not known
    double weight = 0;               ///< g a piece, or a metre of zips and of what goes by the metre; 0: not known
    double price = 0;                ///< money, a piece, a metre, a spool or a gram
    double pack = 0; ///< pieces in a pack, metres in a length or grams in a tin; 0: a piece, a tenth of a metre, a gram
    double stock = 0; ///< pieces, metres, spools or grams on hand; of the studio, not of a design
    double lead = 0;  ///< days from order to arrival; of the studio
    /// mm that a strap finds between its sides; 0: any.
    double clearWidth() const { return measured == "outside" && width > 0 ? width - 2 * wire : width; }
    More more;
    bool operator==(const Good&) const = default;
};

struct StockTable {
    enum class Snap { Down, Up, Nearest };
    std::string name, meaning;
    Snap snap = Snap::Nearest;
    std::vector<double> values; ///< mm, rising, at least one
    More more;
    bool operator==(const StockTable&) const = default;
};

/// The offered value for @p ideal: the next below, above or nearest, as the table says; the end value beyond either
/// end.
double snapToStock(const StockTable& table, double ideal);

struct Paper {
    std::string name;
    double width = 0, height = 0; ///< mm, upright
    bool operator==(const Paper&) const = default;
};

/// What holds the cloth down beside the needle.
enum class PresserFoot { Standard, Zip, Walking, NonStick };

struct Workshop {
    std::string machine = "Flat-bed, high foot lift";
    double machineLimit = 8;  ///< mm of compressed cloth under the foot
    double footWidth = 6;     ///< mm from needle to the outside of the foot that is on the machine
    double zipFoot = 3;       ///< the same of its zip foot, on the side of the zip; 0: it has none
    double walkingFoot = 8;   ///< the same of a foot that takes the upper cloth along; 0: it has none
    double nonStickFoot = 6;  ///< the same of a foot for vinyl and leather; 0: it has none
    double leastRound = 320;  ///< mm round the smallest tube, such as a mouth, whose edge it can sew all round
    double stitchSpeed = 1.2; ///< metres sewn in a minute, all handling counted
    double setUp = 3;         ///< minutes to make a work place ready: thread, foot, iron hot, glue out
    double labourRate = 24;   ///< money per hour
    double overhead = 15;     ///< percent on material and labour
    std::string lacks;        ///< hand tools that are not at hand, with commas between: "rivet setter, hot knife"
    std::string printer;      ///< the paper that its printer takes; empty: any
    double bedWidth = 0;      ///< mm that a digital cutter reaches across; 0: cut by hand
    double bedLength = 0;     ///< mm that it reaches along; 0: a roll, as long as you like
    std::string unit = "any"; ///< in which lengths are read here: "mm", "cm", "in", or as the reader likes
    std::string schools;      ///< how bags are made here: "assembly=bound, connectors.held=sides"
    /// mm from the needle to the foot's outside; 0 if the workshop has no such foot.
    double widthOf(PresserFoot foot) const;
    /// The foot for cloth that sticks under metal or does not: a walking foot stands in for one that does not stick
    /// (common practice, no source).
    PresserFoot footFor(bool sticks) const;
    bool operator==(const Workshop&) const = default;
};

/// Immutable once it is made, so that threads share it without locks.
class Library {
public:
    struct Contents {
        std::vector<Material> materials;
        std::vector<Good> goods;
        std::map<std::string, StockTable> stock;
        std::vector<Paper> papers;
        std::vector<Workshop> workshops;
        More more;
    };
    Library() = default;
    /// Of two of one name the first is found.
    explicit Library(Contents contents);

    /// What ships with the program (data/library.json).
    static const std::shared_ptr<const Library>& builtIn();

    const Contents& contents() const { return m_contents; }
    const std::vector<Material>& materials() const { return m_contents.materials; }
    const std::vector<Good>& goods() const { return m_contents.goods; }
    /// The one that says most of what is asked for, of those that fit: another kind, width, length or gauge does not,
    /// but one that leaves them open does. Of those that fit, one of that make. Null if there is none.
    const Good* good(Ware kind, double width, double length, double gauge, const std::vector<std::string>& taken = {},
        const std::string& make = {}) const;
    const std::vector<Paper>& papers() const { return m_contents.papers; }
    const std::vector<Workshop>& workshops() const { return m_contents.workshops; }
    /// Null if there is none.
    const Material* find(const MaterialId& id) const;
    /// The material of that id, or a cloth with guessed numbers that says so.
    const Material& material(const MaterialId& id) const;
    const StockTable* stock(const std::string& table) const;
    /// The offered value; @p ideal itself if there is no such table.
    double snapped(const std::string& table, double ideal) const;
    /// @throws InputError if there is none.
    const Paper& paper(const std::string& name) const;
    const Workshop& workshop(const std::string& name) const;

    /// All of both; where both have one of the same name, @p more's, in the old one's place.
    Library with(const Library& more) const;

    /// The same entries; the order of the materials does not count.
    bool operator==(const Library& other) const;

private:
    Contents m_contents;
    std::unordered_map<MaterialId, std::size_t> m_byId;
};

/// A library that designs and patterns share; never null, compared by what it holds.
class SharedLibrary {
public:
    SharedLibrary() : m_library(Library::builtIn()) {}
    SharedLibrary(Library library) : m_library(std::make_shared<const Library>(std::move(library))) {}
    const Library& operator*() const { return *m_library; }
    const Library* operator->() const { return m_library.get(); }
    /// Is it the very same one?
    bool same(const SharedLibrary& other) const { return m_library == other.m_library; }
    bool operator==(const SharedLibrary& other) const
    {
        return m_library == other.m_library || *m_library == *other.m_library;
    }

private:
    std::shared_ptr<const Library> m_library;
};

/// A cloth with guessed numbers in place of one that is found nowhere.
/// @param use as Material::use.
Material standInFor(const std::string& id, const std::string& use);

/// Number of the needle that sews a cloth, its blade in 1/100 mm: its own, or by class and thickness (common practice,
/// no source). 0 for what is not sewn through by itself: interlinings, board.
int needleOf(const Material& cloth);

/// How far cloth and layers bend by themselves, from one that falls over to one that does not bend.
enum class Stiffness { Soft, Medium, Firm, Rigid };
/// In files: "soft".
const char* wordOf(Stiffness stiffness);
/// A material's own, or by class, weight and thickness (common practice, no source).
Stiffness stiffnessOf(const Material& material);

/// g/m² of a cloth given in oz/yd²: 33.906 each (28.3495 g over 0.83613 m²).
constexpr double gsmOfOunces(double ozPerSquareYard) { return ozPerSquareYard * 28.349523125 / 0.83612736; }
/// mm of leather given in ounces: 1/64 in each.
constexpr double mmOfLeatherOunces(double oz) { return oz * 25.4 / 64; }

} // namespace tectonis
