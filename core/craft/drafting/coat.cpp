// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/coat.hpp"

#include "drafting/flat_order.hpp"
#include "drafting/unlined.hpp"
#include "pattern/seam_shape.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

using Kind = Working::Kind;

constexpr auto kLined = "assembly=bagged-out|drop-in|flat", kTurned = "assembly=bagged-out|flat";

bool baggedOut(const Drafter& d) { return d.choice("assembly") == "bagged-out" || mouthFirst(d); }

/// The tightest curve that goes round against a straight mate, mm; and whether a straight side goes round anything.
std::pair<double, bool> roundStraight(const Pattern& p, const Seam& seam)
{
    const SideShape a = shapeOf(p, seam.a), b = shapeOf(p, seam.b);
    if (a.bends() == b.bends())
        return {SideShape::none, false};
    return {a.bends() ? a.convex : b.convex, true};
}

} // namespace

CoatDraft::CoatDraft(Drafter& drafter, bool lining, double shrinkBy)
    : d(drafter),
      isLining(lining),
      shrink(shrinkBy),
      allowance(drafter(lining ? "allowance.lining" : "allowance.body")),
      wide(lining ? wideBy(drafter.pattern) : 0),
      mouth(drafter("allowance.mouth"))
{}

CoatDraft CoatDraft::shell(Drafter& d) { return {d, false, 0}; }
CoatDraft CoatDraft::lining(Drafter& d, double shrink) { return {d, true, shrink}; }

Piece& CoatDraft::add(const std::string& part, const std::string& code, const Message& name, const std::string& ofShell,
    int count, double grain)
{
    return d.add({.key = key(part),
        .code = isLining ? "L" + code : code,
        .name = isLining ? say("Lining {}", within(name)) : name,
        .coat = isLining ? Coat::Lining : Coat::Shell,
        .role = role(ofShell),
        .material = isLining ? "lining" : "shell",
        .count = count,
        .grain = grain});
}

Seam& CoatDraft::join(const std::string& seam, const Message& name, std::vector<EdgeUse> a, std::vector<EdgeUse> b)
{
    return d.add(Seam{.key = key(seam),
        .name = isLining ? say("Lining {}", within(name)) : name,
        .a = std::move(a),
        .b = std::move(b),
        .allowance = allowance});
}

void CoatDraft::leaveOpen(Seam& seam) const
{
    if (isLining && baggedOut(d))
        seam.open = d("opening.length");
}

void CoatDraft::sew(const Sewing& s)
{
    std::vector<SeamId> seams;
    std::vector<WorkId> consumes;
    for (const auto& seam : s.seams)
        seams.push_back(key(seam));
    for (const auto& part : s.consumes)
        consumes.push_back(key(part));
    double radius = SideShape::none;
    bool round = false;
    for (const auto& seam : seams) {
        const auto [tightest, straight] = roundStraight(d.pattern, *d.pattern.seam(seam));
        radius = std::min(radius, tightest), round |= straight;
    }
    if (radius < SideShape::none)
        d.work({key(s.id), key(s.id + ".clip"), say("Clip spacing on the curves"), "opening*radius/allowance",
            {{"opening", 3}, {"radius", radius}, {"allowance", allowance}}, 0, Kind::Trade, "mm",
            say("a straight allowance on a convex curve opens by allowance/radius; {} gaps are common practice",
                Len(3))});
    std::vector<Act> acts = s.before;
    if (round)
        acts.push_back(act::clip(seams));
    acts.push_back(act::sew(seams));
    for (Act then : s.then) {
        if (then.seams.empty() && then.verb != Act::Verb::Note)
            then.seams = seams;
        acts.push_back(std::move(then));
    }
    d.add(Step{.id = key(s.id),
        .title = s.title,
        .acts = std::move(acts),
        .kind = StepKind::Seam,
        .phase = phase(s.phase),
        .consumes = consumes,
        .yields = isLining && s.yields == "shell" ? WorkId("lining") : WorkId(key(s.yields)),
        .check = s.check});
}

std::vector<DimensionSpec> coatDimensions(
    const std::string& openingMax, const std::string& opening, const std::string& wideMax)
{
    return {
        {"allowance.body", "Body allowance", "Seam allowance of the shell's seams.", "10", hold(), "5", "20"},
        {"allowance.mouth", "Mouth allowance",
            "Seam allowance at the mouth, shell and lining; without a lining the depth of its hem.", "10", hold(), "5",
            "25"},
        {"allowance.lining", "Lining allowance", "Seam allowance of the lining's seams.", "allowance.body", follow(),
            "5", "20", DimensionSpec::Quantity::Length, kLined},
        {"opening.length", "Turning opening", "Length left open in the lining to turn the bag through.",
            fmt::format("min({}, 0.98*({}))", opening, openingMax), follow(), "40", openingMax,
            DimensionSpec::Quantity::Length, kTurned},
        {"allowance.wide", "Wide lining allowance",
            "Allowance of the lining's side seams from the middle down, where the lining is sewn with a wider seam.",
            wideMax.empty() ? "allowance.lining + 3.2" : fmt::format("allowance.lining + min(3.2, {})", wideMax),
            follow(), "allowance.lining",
            wideMax.empty() ? "allowance.lining + 15" : fmt::format("allowance.lining + min(15, {})", wideMax),
            DimensionSpec::Quantity::Length, "lining.fit=wider-seam"},
    };
}

std::vector<ChoiceSpec> coatChoices(bool allWays)
{
    std::vector<ChoiceSpec> out{
        {"lining.fit", "Lining fit",
            "How the lining is made to hang inside without wrinkles: drafted smaller by the wall's thickness, with the "
            "mouth unchanged; the same size; or cut by the shell's template and sewn with a wider seam from the middle "
            "down.",
            {{"smaller", "Drafted smaller"}, {"same", "Same as the shell"}, {"wider-seam", "Wider seam below"}},
            kLined},
        {"assembly", "Joining shell and lining",
            "Bagged out through a turning opening; the lining dropped in and edge-stitched; the mouth sewn first, "
            "while all lies flat; or no lining, the mouth hemmed.",
            {{"bagged-out", "Bagged out"}, {"drop-in", "Drop-in"}}},
    };
    if (!allWays)
        return out;
    out.back().options.push_back(flatOrderOption());
    for (const auto& option : unlinedOptions())
        out.back().options.push_back(option);
    return out;
}

void furnishCoats(Design& design)
{
    design.materials = {
        {"shell", "canvas-12"}, {"lining", "lining-cotton"}, {"strap", "webbing-cotton"}, {"board", "board"}};
    design.layers = {
        {"panel", "foam-sewin", "basted", "stitch", {{"top", "inset 12"}}, ""},
        {"base", "stabiliser-firm", "basted", "stitch", {}, ""},
        {"flap", "fusible-woven", "fused", "full", {}, ""},
        {"flap lining", "fusible-woven", "fused", "full", {}, ""},
        {"lining panel", "fusible-woven", "fused", "full", {}, ""},
        {"pocket", "fusible-woven", "fused", "full", {}, ""},
    };
}

void addFaces(Drafter& d, const std::vector<SiteSpec>& specs, double top)
{
    for (const auto& spec : specs) {
        const std::string face = spec.lining ? spec.name.substr(7) : spec.name; // "lining back" is the lining's "back"
        const PieceId piece = spec.lining ? lined(PieceId(face)) : PieceId(face);
        // The lining may be drafted smaller: its mouth lies where its own piece ends.
        const double lower = spec.lining && d.pattern.piece(face)
            ? boundsOf(d.piece(PieceId(face)).stitch()).y1 - boundsOf(d.piece(piece).stitch()).y1
            : 0;
        const bool side = face == "left" || face == "right"; // as wide as the bag is deep
        d.pattern.sites.push_back({SiteId(spec.name), labelled(Label{spec.label}), {piece}, 0, top - lower,
            d(side ? "mouth.depth" : "face.width"), d("face.height"),
            spec.lining           ? "Lining"
                : face == "front" ? "Shell front"
                                  : "Shell back",
            spec.lining});
        // Walls that are wider than their face go round the bag's corners.
        Site& made = d.pattern.sites.back();
        made.folded = boundsOf(d.piece(piece).stitch()).width() - made.width > std::max(12.0, 0.4 * d.pattern.depth);
    }
}

bool addBoard(Drafter& d, const PieceId& base, double inset)
{
    std::vector<OffsetEdge> edges;
    for (const auto& e : d.piece(base).edges)
        edges.push_back({e.stitch, -inset, -inset});
    const Run outline = offsetOutline(edges);
    const Box box = boundsOf(outline);
    if (box.width() < 20 || box.height() < 10 || areaOf(outline) <= 0)
        return false;
    Piece& board = d.add({.key = "base.board",
        .code = "R",
        .name = say("Base board"),
        .coat = Coat::Interlining,
        .role = "board",
        .material = "board",
        .grain = 0});
    int i = 0;
    for (const auto& s : outline)
        board.edges.push_back({EdgeId("side " + std::to_string(++i)), {s}, 0, {}});
    board.note = say("Round the corners so that they do not wear through.");
    return true;
}

void addMainSpace(Drafter& d, const PieceId& wallKey, const PieceId& baseKey, double width, double height, double depth,
    double endRadius)
{
    const auto thick = [&](const PieceId& key) {
        const Piece& piece = d.piece(key);
        return d.stack(piece.role, key, "shell")
            + (unlined(d) ? 0 : d.stack("lining " + piece.role, lined(key), "lining"));
    };
    const double wall = thick(wallKey), base = thick(baseKey);
    const double board = d.pattern.piece("base.board") ? d.stack("board", "base.board", "board") : 0;
    const double w = d.work(
        {"body", "inside.width", say("Inside width"), "width - 2*wall", {{"width", width}, {"wall", wall}}, 0,
            Kind::Geometry, "mm", say("each inside dimension is twice the wall's thickness less")});
    const double dd = d.work({"body", "inside.depth", say("Inside depth"), "depth - 2*wall",
        {{"depth", depth}, {"wall", wall}}, 0, Kind::Geometry, "mm", say("wall: panel, foam and lining")});
    const double h = d.work({"body", "inside.height", say("Inside height"), "height - base - board",
        {{"height", height}, {"base", base}, {"board", board}}, 0, Kind::Geometry, "mm",
        say("the mouth is open, so only the bottom takes from the height")});
    Space space{"main", say("Main space"), w, h, dd, 0, false};
    space.endRadius = std::max(0.0, std::min({endRadius - wall, w / 2, dd / 2}));
    d.pattern.spaces.push_back(space);
}

double liningShrink(Drafter& d, const PieceId& panel)
{
    if (d.choice("lining.fit") != "smaller")
        return 0;
    const Piece& piece = d.piece(panel);
    return d.work({lined(panel), "lining.inset", say("Lining's walls further in"), "wall",
        {{"wall", d.stack(piece.role, piece.key, "shell")}}, 0, Kind::Geometry, "mm",
        say("nested boxes: each inside dimension is twice the wall's thickness less; the mouth stays as it is")});
}

double wideBy(const Pattern& p)
{
    const auto fit = p.choices.find("lining.fit");
    return fit != p.choices.end() && fit->second == "wider-seam"
        ? p.values.at("allowance.wide") - p.values.at("allowance.lining")
        : 0;
}

void workWide(Drafter& d, const PieceId& wall)
{
    if (wideBy(d.pattern) > 0)
        d.work({lined(wall), "lining.wide", say("Lining's side seams wider, from the middle down"), "wide - allowance",
            {{"wide", d("allowance.wide")}, {"allowance", d("allowance.lining")}}, 0, Kind::Trade, "mm",
            say("same cut as the shell, sewn with a wider seam; the mouth is unchanged")});
}

void workSlack(Drafter& d, const PieceId& wall, const Hull& shell, const Hull& lining, double room)
{
    const double thick = d.stack(d.piece(wall).role, wall, "shell");
    const Message less = say("less than nothing: the lining is larger than its room, and wrinkles by so much");
    const auto tell = [&](const char* key, const Message& label, const char* formula, double outside, double inside) {
        if (outside > 0 && inside > 0)
            d.work({lined(wall), key, label, formula, {{"shell", outside}, {"wall", thick}, {"lining", inside}}, 0,
                Kind::Geometry, "mm", less});
    };
    tell(
        "lining.slack.width", say("Lining's slack in the width"), "shell - 2*wall - lining", shell.width, lining.width);
    tell(
        "lining.slack.depth", say("Lining's slack in the depth"), "shell - 2*wall - lining", shell.depth, lining.depth);
    tell("lining.slack.height", say("Lining's slack in the height"), "shell - wall - lining", shell.height,
        lining.height);
    d.work({lined(wall), "lining.slack", say("Lining's slack once round"), "room - lining",
        {{"room", room}, {"lining", lining.girth}}, 0, Kind::Geometry, "mm", less});
}

void turnThrough(Drafter& d, const SeamId& open, std::vector<PieceId> pieces)
{
    d.add(Step{.id = "turn",
        .title = say("Turn the bag through the opening"),
        .acts = {act::turnBag({open})},
        .kind = StepKind::Turn,
        .phase = "Joining",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = std::move(pieces)});
}

void putBoardIn(Drafter& d, const PieceId& board)
{
    d.add(Step{.id = "board",
        .title = say("Put the base board in"),
        .acts = {{.verb = Act::Verb::PutIn, .pieces = {board}}},
        .kind = StepKind::Hardware,
        .phase = "Joining",
        .consumes = {"bag", board},
        .yields = "bag"});
}

void closeOpening(Drafter& d, const SeamId& open)
{
    d.add(Step{.id = "close",
        .title = say("Close the turning opening"),
        .acts = {act::closeOpening(open)},
        .kind = StepKind::CloseOpening,
        .phase = "Closing",
        .consumes = {"bag"},
        .yields = "bag"});
}

namespace {

void dropIn(Drafter& d, const Joining& j)
{
    Step step{.id = "mouth",
        .title = say("Drop the lining in and sew the mouth"),
        .kind = StepKind::Seam,
        .phase = "Joining",
        .consumes = {"shell", "lining"},
        .yields = "bag"};
    if (!j.board.empty()) {
        step.consumes.push_back(j.board);
        step.acts.push_back({.verb = Act::Verb::PutIn, .pieces = {j.board}});
    }
    step.acts.push_back({.verb = Act::Verb::DropIn, .seams = {"mouth"}, .distance = 3});
    d.add(std::move(step));
}

/// @p outside: the shell's pieces at the mouth; @p both: with the lining's.
void bagOut(Drafter& d, const Joining& j, const std::vector<PieceId>& outside, const std::vector<PieceId>& both)
{
    d.add(Step{.id = "mouth",
        .title = say("Sew shell and lining together round the mouth"),
        .acts = {act::saying({.verb = Act::Verb::JoinCoats, .seams = {"mouth"}}, j.more), act::grade({"mouth"})},
        .kind = StepKind::Seam,
        .phase = "Joining",
        .consumes = {"shell", "lining"},
        .yields = "bag",
        .pieces = both});
    turnThrough(d, j.open, both);
    if (!j.board.empty())
        putBoardIn(d, j.board);
    d.add(Step{.id = "mouth.topstitch",
        .title = say("Topstitch the mouth"),
        .acts = {act::roll({"mouth"}, 3.2)},
        .kind = StepKind::Topstitch,
        .phase = "Joining",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = outside});
    closeOpening(d, j.open);
}

} // namespace

void joinCoats(Drafter& d, const Joining& j)
{
    std::vector<EdgeUse> inside = j.mouth;
    for (auto& use : inside)
        use.piece = lined(use.piece);
    d.add(Seam{.key = "mouth",
        .name = say("Mouth, shell to lining"),
        .a = j.mouth,
        .b = inside,
        .allowance = d("allowance.mouth"),
        .mouth = true});
    const std::vector<PieceId> outside = piecesOf(j.mouth);
    std::vector<PieceId> both = outside;
    for (const auto& piece : outside)
        both.push_back(lined(piece));
    baggedOut(d) ? bagOut(d, j, outside, both) : dropIn(d, j);
    if (mouthFirst(d))
        sewMouthFlat(d);
}

} // namespace tectonis
