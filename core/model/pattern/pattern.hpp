// SPDX-License-Identifier: GPL-3.0-or-later
// The Pattern: a Design worked out for one size. A value; every stage, check, sheet and export reads it.
// Pieces are drawn face up in their own plane: millimetres, x right, y up, outline counter-clockwise on the stitch
// line.
#pragma once

#include "design/evaluate.hpp"
#include "geometry/outline.hpp"
#include "pattern/act.hpp"
#include "pattern/ids.hpp"
#include "pattern/working.hpp"
#include "words/message.hpp"

#include <deque>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace tectonis {

/// One named edge of a piece.
struct Edge {
    EdgeId name;
    Run stitch;
    double allowance = 0;
    std::optional<double> allowanceAtEnd; ///< where the allowance widens evenly along the edge
    Corner corner = Corner::Mitre;        ///< at the edge's end
    bool hem = false;                     ///< turned under along this stitch line
    bool onFold = false;                  ///< the cloth is folded here; nothing is cut
    double length() const { return lengthOf(stitch); }
};

/// A mark at the raw edge, placed by length along the stitch line.
struct Notch {
    EdgeId edge;
    double along = 0; ///< mm from the edge's start
    Message label;
    bool stop = false; ///< stop square: a seam starts or ends here
};

struct DrillMark {
    Point at;
    Message label;
    PartId owner{};     ///< the part that it belongs to; empty: of the form
    bool owned = false; ///< the owner is set
};

/// A line drawn on the face of a piece.
struct FaceLine {
    enum class Kind {
        Placement,
        Fold,
        Slash,
        Topstitch,
        Pleat, ///< a fold of a pleat: the cloth between two of them lies three times
        Bridge ///< not on the cloth: where a seam runs on over the visible chain of a zip. Not drawn
    };
    EdgeId name;
    Kind kind = Kind::Placement;
    Run run;
    bool through = false; ///< sewn through all layers of the finished bag: what lies there is sewn shut
    PartId owner{};       ///< the part that it belongs to; empty: of the form
    bool owned = false;   ///< the owner is set
};

/// One interlining behind a piece, with its own cut outline in the piece's coordinates.
struct Layer {
    LayerId id;
    std::string code; ///< "A/1"
    MaterialId material;
    std::string kind;      ///< of the material: "board"
    bool loft = false;     ///< gives way under the foot
    std::string fixing;    ///< "fused", "basted", "glued", "loose", "quilted"
    double quilted = 0;    ///< mm between the rows that quilt it to its cloth; 0: they are not quilted
    bool diamonds = false; ///< they run both ways
    Message trim;
    Run outline;
    std::vector<std::pair<EdgeId, double>> reach; ///< per edge: mm beyond the stitch line (negative: inside)
    bool wholePiece = true;                       ///< false for a patch or board that covers an area
    double grain = 90;                            ///< degrees from x
    int rule = -1;       ///< which of the rules that hold for its piece, from 0; -1: a part asked for it
    std::string rules{}; ///< under which name these stand: a piece or a role
    /// mm beyond the stitch line at an edge; null where it does not come to that edge.
    const double* reachAt(const EdgeId& edge) const;
};

struct Piece {
    PieceId key;      ///< stable: "back.lower"
    std::string code; ///< stable: "B2"
    Message name;     ///< "Back, lower"
    Coat coat = Coat::Shell;
    std::string role;     ///< "panel", "gusset", … : what layer rules address
    std::string material; ///< material role: "shell", "lining", "strap"
    int count = 1;
    int mirrored = 0; ///< how many of count are cut mirrored
    std::vector<Edge> edges;
    Run cut;           ///< computed from the edges
    Run rough;         ///< cut from the cloth instead where its corners are rounded later; empty where they are not
    double grain = 90; ///< degrees from x: the lengthwise grain
    std::vector<Notch> notches;
    std::vector<DrillMark> drills;
    std::vector<FaceLine> lines;
    std::map<std::string, Run> areas; ///< named parts that layers can cover
    std::vector<Layer> layers;
    Message note;          ///< "trim the corners after turning"
    PieceId whole;         ///< the piece that this one was cut from; empty for a whole one
    PieceId pair{};        ///< the other one of a pair that was cut alike before something sat on one of them: layer
                           ///< rules for that hold for both; empty for all others
    std::string wholeRole; ///< what that piece was: rules for it hold for its parts; empty where a part is another
                           ///< thing (a facing)
    int plies = 1; ///< how often its cloth lies in a seam that catches it: 8 for a tab folded to a quarter and looped
    int folds = 0; ///< printed whole, as the half (1) or the quarter (2) that is laid on the folded cloth
    PieceId backing{}; ///< basted behind it, wrong sides together, and sewn with it in its seams; empty for none
    bool endsHammered = false; ///< a strap's, handle's or belt's, before they are sewn down
    bool endsByHand = false;   ///< sewn by hand where the machine does not take them

    /// The part that it belongs to; empty: the form.
    PartId owner() const { return key.owner(); }
    const Edge* edge(const EdgeId& edgeName) const;
    Edge* edge(const EdgeId& edgeName);
    Run stitch() const; ///< the whole closed stitch line
};

/// One edge as a seam uses it.
struct EdgeUse {
    PieceId piece;
    EdgeId edge;           ///< of an edge, or of a placement line
    int copy = 0;          ///< which of the cut copies
    bool reversed = false; ///< sewn from the edge's end to its start
};

/// Two runs sewn together; both are listed from the same physical start.
struct Seam {
    SeamId key;
    Message name;
    std::vector<EdgeUse> a, b;
    double ease = 0;  ///< how much longer b is meant to be, mm
    Message easeNote; ///< where it is taken up
    double allowance = 0;
    std::string stitch = "construction"; ///< "construction", "topstitch", "baste"
    double open = 0;                     ///< length left open for turning, mm
    double openStart = 0, openEnd = 0;   ///< mm that a partial seam leaves unsewn at its ends
    std::vector<PieceId> trapped;        ///< pieces caught between
    PieceId bound{};                     ///< the binding over its raw edges; empty where they are not bound
    bool overcast = false;               ///< each of its raw edges is overcast by itself
    bool enclosed = false;               ///< felled or bagged: its allowances lie under its last row once more
    PieceId rawOutside{};                ///< whose edge lies raw and shows
    bool rawInside = false;              ///< its raw edges lie open inside the finished bag unless they are bound
    bool mouth = false;                  ///< joins shell and lining, or hems the shell, round the bag's mouth
    bool flat = false;                   ///< a mouth that is sewn while its walls lie flat, before the sides
    SeamCare care{};                     ///< what is done because it is thick
    bool pressedOpen = false;            ///< by one of the steps
    bool graded = false;                 ///< by one of the steps
    double lengthA = 0, lengthB = 0;     ///< computed, on the stitch line
    std::string phase;
    double difference() const { return lengthB - lengthA - ease; }
};

struct Fitting {
    enum class Kind { Snap, Ring, Slider, Buckle, Zip, Rivet, Foot, Eyelet };
    FittingId key;
    Message name;
    PieceId piece;
    Kind kind = Kind::Snap;
    Point at;                   ///< on the piece
    double size = 0;            ///< diameter or width, mm
    double clearance = 0;       ///< least distance of the centre from any stitch line, mm; 0: none needed
    Message through;            ///< which layers it goes through
    bool throughLining = false; ///< what lies behind, in the lining, is pierced too
    PartId owner() const { return key.owner(); }
};

/// How an end of a zip is made, and where its stitching begins or stops.
struct ZipEnd {
    enum class Kind {
        Stop,   ///< bar-tacked across the chain
        Tab,    ///< under a tab of cloth
        Folded, ///< the tape's end folded away
        Metal,  ///< in a bought metal end
        Seam    ///< runs on into a seam
    };
    Kind kind = Kind::Stop;
    double stitch = 0;  ///< mm from the side of the panel, or of the mouth, to the first or last stitch
    PieceId tab{};      ///< that covers it; empty for none
    bool hangs = false; ///< out of the mouth, past the bag's side
};
/// "tab", "folded", …: as the choices of parts call it, and for people.
ZipEnd::Kind zipEndOf(const std::string& chosen);
Label nameOf(ZipEnd::Kind end);

struct Zip {
    ZipId key;
    Message name;
    PieceId piece;
    Point at; ///< on the piece: the middle of its chain, or of the edge that holds it
    int gauge = 3;
    double nominal = 0, tape = 0, tapeWidth = 0, visibleGap = 0; ///< mm
    Label kind = label("coil"), opens = label("to the right");
    int sliders = 1;
    bool byTheMetre = false; ///< cut from continuous zip, so any length will do
    double chain = 0;        ///< mm that a ready-made one has between its stops once it is cut down
    double bought = 0;       ///< mm: nominal length of the ready-made one that is taken
    ZipEnd first{}, last{};  ///< where its closed slider rests, and where that goes when it is opened
    double thickness = 0;    ///< mm of one tape
};

/// A bought part. @c sizeText goes on the notions list.
struct Hardware {
    Ware kind = Ware::Ring;
    int count = 1;
    double size = 0; ///< mm: the length of what is sold by length, else the width or diameter
    Message sizeText, finish;
    double gauge = 0;   ///< of a zip
    std::string make{}; ///< of a zip: what its teeth are, as Good::make
    NotionId id{};      ///< the same in every size: owner, kind and which of the owner's
    PartId owner() const { return id.owner(); }
};

struct Strap {
    Message name;
    PieceId piece;
    double width = 0, cutWidth = 0, cutLength = 0, longest = 0, shortest = 0; ///< mm
    double fold = 0, end = 0; ///< taken up at the end with slider or buckle, and at the other
    bool turned = true;       ///< the raw ends are turned under where they are sewn down; else overcast, and lie flat
    int strips = 1;
    double ringWidth = 0;
    /// longest and shortest: mouth to mouth, all round, or from the ring down to the end of the loop; of a closed loop
    /// through both rings (Doubled) mouth to mouth with one strand drawn out, and of both strands alike
    enum class Worn { Shoulder, Waist, Wrist, Doubled } worn = Worn::Shoulder;
    double hook = 0; ///< mm that each of its swivel hooks adds; 0: sewn to the rings
};

/// What a step does, as the sequence rules see it.
enum class StepKind { Interline, Cut, Press, Flat, Hardware, Baste, Seam, Clip, Topstitch, Turn, CloseOpening, Strap };

/// One construction step: acts done in one go, which consume parts and yield one. Its words follow from the acts
/// (told()); so do, where they are not given, the pieces, seams and fittings that it handles.
struct Step {
    StepId id;
    Message title;
    std::vector<Act> acts;
    StepKind kind = StepKind::Seam;
    std::string phase; ///< "Interlinings", "Shell front", …
    std::vector<WorkId> consumes;
    WorkId yields;
    StepId goesOnFrom{};         ///< of a step told in parts: the part before it
    std::vector<PieceId> pieces; ///< handled
    std::vector<SeamId> seams;   ///< sewn
    std::vector<FittingId> fittings;
    Message stitch;             ///< in own words, where no act says it
    std::vector<Message> tools; ///< the same
    Message check;              ///< what to measure or look at before going on
    std::vector<Message> cautions;
    std::vector<ZipId> opensZips, closesZips;
    bool turnsThrough = false; ///< the bag is turned through an opening in this step
    double ownMinutes = -1;    ///< of a step of the designer's own; else they follow from the acts
};

/// How long work takes against what is reckoned, by the trial log.
struct Pace {
    double rest = 1; ///< of steps that were not timed by themselves
    std::map<StepId, double> steps;
};

/// The designer's words of a step.
struct OwnStepWords {
    std::string text, was;
};

/// A place to drag a dimension on a piece.
struct Handle {
    /// What on its face the dimension counts from: it is @c gain times the way from there along @c direction. The side
    /// is the one that it grows away from.
    enum class From { Nowhere, Middle, Side, Top, Base };
    std::string dimension;
    PieceId piece;
    Point at, direction; ///< unit vector of growth
    double gain = 1;     ///< mm of the dimension per mm of drag
    PartId part{};       ///< whose dimension it is; none: the body's
    From from = From::Nowhere;
    Box grip{}; ///< of the thing on the piece that it moves, which can be taken hold of; empty: the handle alone
};

/// Where a pocket or a space offers room for things.
struct Space {
    SpaceId place;
    Message name;
    double width = 0, height = 0, depth = 0; ///< mm inside, lining and interlinings counted
    double cornerRadius = 0;                 ///< of the bottom corners, seen from the front
    bool pocket = false;                     ///< a flat pocket: width must hold the thing and its thickness
    double endRadius = 0;                    ///< of the round corners or ends, seen from above
};

/// A flat face of the bag on which features sit, in its pieces' coordinates.
struct Site {
    SiteId name;
    Message label;
    std::vector<PieceId> pieces;  ///< several where a seam cuts the face across
    double x = 0, top = 0;        ///< mm: its middle, and the stitch line of its mouth
    double width = 0, height = 0; ///< mm of the plain face
    std::string phase;            ///< of the construction sequence, for work on the flat piece
    bool lining = false;
    bool folded = false; ///< its piece goes on round the corners of the bag: left and right of @c width, and below @c
                         ///< height, it is bent away
    bool strip = false;  ///< the side of a strap, handle or tab that is seen
    std::vector<Run> sides{}; ///< of a polygon: its sides by number, each from its first corner as seen from the front
    /// How many quarters of a turn, counter-clockwise about the origin, stand its piece upright: a strip's side wall
    /// lies on its side. @c x and @c top are those of the piece stood up.
    int turn = 0;
    Point upright(Point onPiece) const { return quarterTurned(onPiece, turn); }
    Point onPiece(Point upright) const { return quarterTurned(upright, -turn); }
    Box upright(const Box& onPiece) const;
};

/// Where a feature lies on a face: what can be taken and moved.
struct Place {
    PartId feature;
    PieceId piece; ///< of the face
    Box area;      ///< on that piece
    Point at;      ///< what its drop and its way sideways lead to: the middle of its upper edge, or of a zip
};

/// A pocket's bag that hangs behind a face, held by its zip alone.
struct PocketBag {
    PartId part;
    PieceId face;                ///< the piece it hangs from
    std::vector<PieceId> layers; ///< that lie on each other in it; one that is folded, twice
    Box area;                    ///< its raw edges, on that face
};

/// Where a strap, tab or handle is caught at the mouth.
struct Anchor {
    AnchorId name;
    PieceId piece;
    Point at;          ///< on the mouth's stitch line
    double room = 0;   ///< mm between the seams beside it
    WorkId part;       ///< what it is basted to
    std::string phase; ///< and when
};

/// What the bag stands on.
struct Bottom {
    PieceId piece;
    Box area;          ///< on the piece
    bool whole = true; ///< false: its lower long side is not an edge of the bag, another piece goes on from there
};

/// A ribbon that leaves a face and comes back to it: a shoulder strap, a handle. Only the mock-up reads it.
struct Hung {
    PieceId piece, on;
    Point from, to;               ///< on the face
    double length = 0, width = 0; ///< mm; length from one to the other, as it arches out
    double drop = 0, top = 0;     ///< of a handle: how high it stands above the face's top, and where that is, y
    bool round = false;           ///< goes round the body that wears the bag, from one point to the other
};

/// A flap: held at a face by its edge, it comes down over what it closes. Only the mock-up reads it.
struct Hinged {
    PieceId piece, lining, on;
    Point at;          ///< on the face: the middle of its hinge
    double hinge = 0;  ///< y of the hinge on the flap
    bool over = false; ///< it goes up the face and over the mouth; else it hangs down from its hinge
    double ease = 6;   ///< mm of its length that go round thickness, or into lying loosely
};

/// A piece that lies flat on another one.
struct Overlay {
    PieceId piece, on;
    Placement placement; ///< coordinates of the piece to those of the one it lies on
};

struct Pattern {
    std::string size;
    std::size_t sizeAt = 0;
    Values values;
    std::map<std::string, MaterialId> materials; ///< by role
    SharedLibrary library;                       ///< the design's
    Workshop workshop;                           ///< in which it is made
    std::map<std::string, std::string> choices;
    std::map<PartId, Message> partLabels;    ///< what the parts are called
    double width = 0, height = 0, depth = 0; ///< finished, mm
    std::deque<Piece> pieces;                ///< std::deque: stable addresses while drafting
    std::deque<Seam> seams;
    std::vector<Fitting> fittings;
    std::vector<Zip> zips;
    std::vector<Hardware> hardware;
    std::vector<Strap> straps;
    std::vector<Step> steps; ///< in the proposed order
    std::map<StepId, OwnStepWords> ownWords;
    std::set<StepId> hidden;                    ///< steps that booklets leave out
    std::set<std::pair<StepId, StepId>> joined; ///< told as one where the second stands right behind the first
    Pace pace;
    std::vector<Handle> handles;
    std::deque<Site> sites; ///< std::deque: parts add faces of their own while they sit on others
    std::vector<Place> places;
    std::vector<PocketBag> bags;
    std::vector<Anchor> anchors;
    std::vector<Overlay> overlays;
    std::vector<Hung> hung;
    std::vector<Hinged> hinged;
    std::vector<Bottom> bottoms;
    std::vector<Piece>
        gaps; ///< what zips show between two halves of a piece: key of the lower half, @c whole and outline
    std::vector<Space> spaces;
    std::vector<Working> workings;

    /// A dimension of a part: "ring" of "connectors".
    double of(const PartId& part, const char* dimension) const { return values.at(part.text() + "." + dimension); }
    /// The first strap that is worn so; null if there is none.
    const Strap* strapWorn(Strap::Worn worn) const;
    const Material& material(const MaterialId& id) const { return library->material(id); }
    /// mm from the needle to the outside of the foot that sews a role's cloth.
    double footWidth(const std::string& role) const;
    const Piece* piece(const PieceId& key) const;
    const Seam* seam(const SeamId& key) const;
    const Step* step(const StepId& id) const;
    const Site* site(const SiteId& name) const;
    /// By what a file or a hand calls them. Of two owners' that read alike it is the first.
    const Piece* piece(const std::string& text) const;
    const Piece* piece(const char* text) const { return piece(std::string(text)); }
    const Seam* seam(const std::string& text) const;
    const Seam* seam(const char* text) const { return seam(std::string(text)); }
    const Step* step(const std::string& text) const;
    const Step* step(const char* text) const { return step(std::string(text)); }
    const Piece* pieceByCode(const std::string& code) const;
    /// The run behind an edge use: an edge's stitch line or a placement line. Empty if there is none.
    Run runOf(const EdgeUse& use) const;
    /// The same without a copy and without regard to the direction; null if there is none.
    const Run* runBehind(const EdgeUse& use) const;
    double lengthOfSide(const std::vector<EdgeUse>& side) const;
};

} // namespace tectonis
