// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/coat.hpp"

#include "units/words.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace tectonis {
namespace {

using Kind = Working::Kind;

bool baggedOut(const Drafter& d) { return d.choice("assembly") == "bagged-out"; }

/// The tightest convex curve that one side of a seam lays against a straight mate; infinite if there is none.
double tightestAgainstStraight(const Pattern& p, const Seam& seam)
{
    const auto tightest = [&](const std::vector<EdgeUse>& side) {
        double radius = std::numeric_limits<double>::infinity();
        for (const auto& use : side)
            if (const Run* run = p.runBehind(use))
                for (const auto& s : *run)
                    if (const auto* arc = std::get_if<Arc>(&s))
                        radius = std::min(radius, arc->radius);
        return radius;
    };
    const double a = tightest(seam.a), b = tightest(seam.b);
    return std::isinf(a) != std::isinf(b) ? std::min(a, b) : std::numeric_limits<double>::infinity();
}

std::vector<PieceId> piecesOf(const Drafter& d, const std::vector<SeamId>& seams)
{
    std::vector<PieceId> out;
    for (const auto& key : seams)
        for (const auto* side : {&d.pattern.seam(key)->a, &d.pattern.seam(key)->b})
            for (const auto& use : *side)
                if (std::find(out.begin(), out.end(), use.piece) == out.end())
                    out.push_back(use.piece);
    return out;
}

} // namespace

Coat::Coat(Drafter& drafter, bool lining, double shrinkBy, double allowanceOf)
    : d(drafter), isLining(lining), shrink(shrinkBy), allowance(allowanceOf), mouth(drafter("allowance.mouth"))
{}

Coat Coat::shell(Drafter& d) { return {d, false, 0, d("allowance.body")}; }
Coat Coat::lining(Drafter& d, double shrink) { return {d, true, shrink, d("allowance.lining")}; }

Piece& Coat::add(const std::string& part, const std::string& code, const Message& name, const std::string& ofShell,
    int count, double grain)
{
    return d.add({.key = key(part),
        .code = isLining ? "L" + code : code,
        .name = isLining ? say("Lining {}", within(name)) : name,
        .group = isLining ? PieceGroup::Lining : PieceGroup::Shell,
        .role = role(ofShell),
        .material = isLining ? "lining" : "shell",
        .count = count,
        .grain = grain});
}

Seam& Coat::join(const std::string& seam, const Message& name, std::vector<EdgeUse> a, std::vector<EdgeUse> b)
{
    return d.add(Seam{.key = key(seam),
        .name = isLining ? say("Lining {}", within(name)) : name,
        .a = std::move(a),
        .b = std::move(b),
        .allowance = allowance});
}

void Coat::leaveOpen(Seam& seam) const
{
    if (isLining && baggedOut(d))
        seam.open = d("opening.length");
}

void Coat::sew(const Sewing& s)
{
    std::vector<SeamId> seams;
    std::vector<WorkId> consumes;
    for (const auto& seam : s.seams)
        seams.push_back(key(seam));
    for (const auto& part : s.consumes)
        consumes.push_back(key(part));
    const auto pieces = piecesOf(d, seams);
    double radius = std::numeric_limits<double>::infinity(), open = 0;
    for (const auto& seam : seams) {
        radius = std::min(radius, tightestAgainstStraight(d.pattern, *d.pattern.seam(seam)));
        open = std::max(open, d.pattern.seam(seam)->open);
    }
    Message text = say("Right sides together, match the notches; sew at {}.", Len(allowance));
    if (!std::isinf(radius)) {
        // Clip spacing p = o·r/s, 3 mm openings; depth s − 2 mm: common practice, no source.
        const double pitch = d.work(
            {key(s.id), key(s.id + ".clip"), say("Clip spacing on the curves"), "opening*radius/allowance",
                {{"opening", 3}, {"radius", radius}, {"allowance", allowance}}, 0, Kind::Trade, "mm",
                say("a straight allowance on a convex curve opens by allowance/radius; {} gaps are common practice",
                    Len(3))});
        text = together(say("Clip the straight allowance where it meets a curve, every {} and {} deep.",
                            Len(std::max(2.0, std::floor(pitch))), Len(std::max(1.0, allowance - 2))),
            text, say("Sew the straights before the curves."));
    }
    text = together(text, s.text);
    if (open > 0)
        text = together(
            text, say("Leave {} open in the middle for turning; back-stitch both ends of the opening.", Len(open)));
    d.add(Step{.id = key(s.id),
        .title = s.title,
        .text = text,
        .kind = StepKind::Seam,
        .phase = phase(s.phase),
        .consumes = consumes,
        .yields = isLining && s.yields == "shell" ? WorkId("lining") : WorkId(key(s.yields)),
        .pieces = pieces,
        .seams = seams,
        .allowance = allowance,
        .stitch = lockstitch(),
        .tool = std::isinf(radius) ? say("sewing machine") : say("scissors, sewing machine"),
        .check = s.check.empty() ? say("Both ends are level and the notches meet.") : s.check});
}

std::vector<DimensionSpec> coatDimensions(const std::string& openingMax, const std::string& opening)
{
    return {
        {"allowance.body", "Body allowance", "Seam allowance of the shell's seams.", "10", hold(), "5", "20"},
        {"allowance.mouth", "Mouth allowance", "Seam allowance at the mouth, shell and lining.", "10", hold(), "5",
            "25"},
        {"allowance.lining", "Lining allowance", "Seam allowance of the lining's seams.", "allowance.body", follow(),
            "5", "20"},
        {"opening.length", "Turning opening", "Length left open in the lining to turn the bag through.",
            fmt::format("min({}, 0.98*({}))", opening, openingMax), follow(), "40", openingMax},
    };
}

std::vector<ChoiceSpec> coatChoices()
{
    return {
        {"lining.fit", "Lining fit",
            "How the lining is made to hang inside without wrinkles: drafted smaller by the wall's thickness, with the "
            "mouth unchanged, or the same size.",
            {{"smaller", "Drafted smaller"}, {"same", "Same as the shell"}}},
        {"assembly", "Joining shell and lining",
            "Bagged out through a turning opening, or the lining dropped in and edge-stitched.",
            {{"bagged-out", "Bagged out"}, {"drop-in", "Drop-in"}}},
    };
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
        .group = PieceGroup::Interlining,
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
        return d.stack(piece.role, key, "shell") + d.stack("lining " + piece.role, lined(key), "lining");
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
    if (d.choice("lining.fit") == "same")
        return 0;
    const Piece& piece = d.piece(panel);
    return d.work({lined(panel), "lining.inset", say("Lining's walls further in"), "wall",
        {{"wall", d.stack(piece.role, piece.key, "shell")}}, 0, Kind::Geometry, "mm",
        say("nested boxes: each inside dimension is twice the wall's thickness less; the mouth stays as it is")});
}

void joinCoats(Drafter& d, const Joining& j)
{
    std::vector<EdgeUse> inside = j.mouth;
    for (auto& use : inside)
        use.piece = lined(use.piece);
    const double s = d("allowance.mouth");
    d.add(Seam{.key = "mouth",
        .name = say("Mouth, shell to lining"),
        .a = j.mouth,
        .b = inside,
        .allowance = s,
        .mouth = true});
    std::vector<WorkId> consumes{"shell", "lining"};
    std::vector<PieceId> pieces;
    for (const auto& use : j.mouth)
        if (std::find(pieces.begin(), pieces.end(), use.piece) == pieces.end())
            pieces.push_back(use.piece);
    std::vector<PieceId> both = pieces;
    for (const auto& piece : pieces)
        both.push_back(lined(piece));
    if (!baggedOut(d)) {
        if (!j.board.empty())
            consumes.push_back(j.board), both.push_back(j.board);
        d.add(Step{.id = "mouth",
            .title = say("Drop the lining in and edge-stitch the mouth"),
            .text = together(j.board.empty() ? Message() : say("Lay the base board on the bottom of the shell."),
                say("Fold the mouth allowance of shell and lining to the wrong side ({}). Put the lining, wrong "
                    "side out, into the shell; match seams and centres; edge-stitch {} from the fold.",
                    Len(s), Len(3))),
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = consumes,
            .yields = "bag",
            .pieces = both,
            .seams = {"mouth"},
            .allowance = s,
            .stitch = say("3.5 mm, lockstitch 301"),
            .tool = say("free-arm machine"),
            .check = say("On a flat-bed machine, choose bagged out instead.")});
        return;
    }
    d.add(Step{.id = "mouth",
        .title = say("Sew shell and lining together round the mouth"),
        .text = say("Put the shell, right side out, into the lining, wrong side out. Match side seams and centres; sew "
                    "round the mouth at {}.",
            Len(s)),
        .kind = StepKind::Seam,
        .phase = "Joining",
        .consumes = consumes,
        .yields = "bag",
        .pieces = both,
        .seams = {"mouth"},
        .allowance = s,
        .stitch = lockstitch(),
        .tool = say("sewing machine"),
        .check = say("Flaps, connectors and straps lie between the layers and are not caught.")});
    d.add(Step{.id = "turn",
        .title = say("Turn the bag through the opening"),
        .text = say("Reach through the opening in {} and pull the bag out through it.", j.openPlace),
        .kind = StepKind::Turn,
        .phase = "Joining",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = both,
        .tool = say("hands"),
        .check = say("Corners are pushed out fully."),
        .turnsThrough = true});
    if (!j.board.empty())
        d.add(Step{.id = "board",
            .title = say("Put the base board in"),
            .text = say("Slide the base board through the opening onto the bottom, between shell and lining. Fix it "
                        "with a few dots of glue."),
            .kind = StepKind::Hardware,
            .phase = "Joining",
            .consumes = {"bag", j.board},
            .yields = "bag",
            .pieces = {j.board},
            .tool = say("contact adhesive"),
            .check = say("The board lies flat and clear of the seams."),
            .cautions = {say("Contact adhesive: air the room, no flame; let it dry as its maker says.")}});
    d.add(Step{.id = "mouth.topstitch",
        .title = say("Topstitch the mouth"),
        .text = say("Roll the seam to the edge, press, topstitch {} from the edge all round.", Len(3.2)),
        .kind = StepKind::Topstitch,
        .phase = "Joining",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = pieces,
        .seams = {"mouth"},
        .stitch = say("3.5–4 mm, lockstitch 301"),
        .tool = say("sewing machine"),
        .check = say("Flap and connectors are out of the way.")});
    d.add(Step{.id = "close",
        .title = say("Close the turning opening"),
        .text = say("Fold the allowances in and stitch the opening shut close to the edge, or by hand."),
        .kind = StepKind::CloseOpening,
        .phase = "Closing",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = piecesOf(d, {j.open}),
        .seams = {j.open},
        .stitch = say("2.5 mm, lockstitch 301"),
        .tool = say("sewing machine"),
        .check = say("Nothing is left between the layers: no pins, no clips.")});
}

} // namespace tectonis
