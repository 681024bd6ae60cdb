// SPDX-License-Identifier: GPL-3.0-or-later
// Fittings, marks and rows of all parts, on every layer that they pass through: nothing sits on another thing, off its
// cloth, or where the foot must pass later.
#include "checks/finding.hpp"
#include "checks/stack.hpp"
#include "features/spec_of.hpp"
#include "pattern/labels.hpp"

#include "sequence/order.hpp"
#include "sequence/presser_foot.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

constexpr double kSetter =
    4; // mm beside a head for the tool that sets it, or the foot beside a part's edge (common practice, no source)
constexpr double kBeside = 1; // mm between the heads of one part

/// A fitting where it lies on a wall.
struct Spot {
    const Fitting* fitting;
    PieceId wall;
    Point at;
};

bool isHole(const Fitting& f)
{
    return f.kind == Fitting::Kind::Snap || f.kind == Fitting::Kind::Rivet || f.kind == Fitting::Kind::Eyelet
        || f.kind == Fitting::Kind::Foot;
}

std::vector<Spot> spotsOf(const Pattern& p)
{
    std::vector<Spot> out;
    for (const auto& f : p.fittings) {
        const Piece* piece = p.piece(f.piece);
        if (!piece || !isHole(f))
            continue;
        for (const auto& on : wallsOf(p, *piece)) {
            out.push_back({&f, on.wall, on.to(f.at)});
            if (f.throughLining)
                if (const auto inside = behind(p, on.wall))
                    out.push_back({&f, inside->wall, inside->to(out.back().at)});
        }
    }
    return out;
}

Message nameOfWall(const Pattern& p, const PieceId& wall)
{
    for (const auto& piece : p.pieces)
        if (piece.key == wall || piece.whole == wall)
            return say("{} {}", piece.code, piece.name);
    return naming(wall.text());
}

/// Several faults of one kind between the same two things are one finding: the worst, and how many.
class Worst {
public:
    Worst(const CheckInput& in, Findings& out) : m_in(in), m_out(out) {}
    /// @p lacking: how many mm it falls short.
    void add(Finding finding, double lacking)
    {
        for (auto& f : m_found)
            if (f.finding.subject == finding.subject && f.finding.check == finding.check) {
                ++f.times;
                if (lacking > f.lacking)
                    f.finding = std::move(finding), f.lacking = lacking;
                return;
            }
        m_found.push_back({std::move(finding), lacking, 1});
    }
    ~Worst()
    {
        for (auto& f : m_found) {
            if (f.times > 1)
                f.finding.text = together(f.finding.text, say("(In {} places; this is the worst.)", f.times));
            m_out.push_back(std::move(f.finding));
        }
    }

private:
    struct Found {
        Finding finding;
        double lacking;
        int times;
    };
    const CheckInput& m_in;
    Findings& m_out;
    std::vector<Found> m_found;
};

/// Of one part one name, whichever of its heads.
Message groupOf(const Fitting& f)
{
    const auto parts = f.name.arguments();
    const bool numbered = parts.size() == 2 && std::holds_alternative<Num>(parts[1]);
    const auto* name = numbered ? std::get_if<Message>(&parts[0]) : nullptr;
    return name ? *name : f.name;
}

void checkOnEachOther(const CheckInput& in, const std::vector<Spot>& spots, Worst& worst)
{
    for (std::size_t i = 0; i < spots.size(); ++i)
        for (std::size_t k = i + 1; k < spots.size(); ++k) {
            const Fitting &a = *spots[i].fitting, &b = *spots[k].fitting;
            if (spots[i].wall != spots[k].wall || &a == &b)
                continue;
            const bool one = a.owner() == b.owner() && a.kind == b.kind;
            const double apart = distance(spots[i].at, spots[k].at), heads = (a.size + b.size) / 2,
                         needed = heads + (one ? kBeside : kSetter);
            if (apart >= needed - 0.01)
                continue;
            const Message subject = say("{} and {}, {}", groupOf(a), groupOf(b), nameOfWall(in.pattern, spots[i].wall));
            worst.add({apart < heads - 0.01 ? Severity::Error : Severity::Warning, "too-near", "", subject, a.piece,
                          "Fittings",
                          apart < 0.5 ? say("they are set on the same spot. Only one of them can sit there; move one.")
                                      : say("their centres are {} apart; {} are needed so that both can be set. Move "
                                            "one of them, or take fewer.",
                                          Len(apart, needed), Len(needed)),
                          {}},
                needed - apart);
        }
}

void checkUnderParts(const CheckInput& in, const std::vector<Spot>& spots, Worst& worst)
{
    const Pattern& p = in.pattern;
    for (const auto& piece : p.pieces)
        for (const auto& line : piece.lines) {
            if (line.kind != FaceLine::Kind::Placement)
                continue;
            for (const auto& on : wallsOf(p, piece))
                for (const auto& spot : spots) {
                    const Fitting& f = *spot.fitting;
                    if (spot.wall != on.wall || (f.owner() == line.owner && !line.owner.empty()))
                        continue;
                    const Piece* holder = p.piece(f.piece); // it may sit on the part itself
                    if (!line.owner.empty() && holder && sitsOn(in.design, holder->owner().text(), line.owner.text()))
                        continue;
                    Box a;
                    for (const Point q : flattened(line.run, 0.2))
                        a.add(on.to(q));
                    const double outside = std::hypot(std::max({a.x0 - spot.at.x, 0.0, spot.at.x - a.x1}),
                        std::max({a.y0 - spot.at.y, 0.0, spot.at.y - a.y1}));
                    const double needed = f.size / 2 + kSetter;
                    if (outside >= needed - 0.01)
                        continue;
                    const double deep = std::min(
                        {spot.at.x - a.x0, a.x1 - spot.at.x, spot.at.y - a.y0, a.y1 - spot.at.y});
                    worst.add({Severity::Warning, "collision", "",
                                  say("{} and {} on {} {}", groupOf(f), edgeLabel(in.pattern, line.name), piece.code,
                                      piece.name),
                                  piece.key, "Fittings",
                                  outside > 0 ? say("only {} lie between its centre and the part's edge; {} "
                                                    "are needed to set it. Move one of them.",
                                      Len(outside, needed), Len(needed))
                                              : say("it lies under the part, {} inside its edge. It would be "
                                                    "covered, or go through the part; move one of them.",
                                                  Len(deep)),
                                  {}},
                        needed - outside + (outside > 0 ? 0 : deep));
                }
        }
}

/// Heads that reach over their piece's stitch line.
void checkOffCloth(const CheckInput& in, Worst& worst)
{
    for (const auto& f : in.pattern.fittings) {
        const Piece* piece = in.pattern.piece(f.piece);
        if (!piece || !isHole(f) || f.kind == Fitting::Kind::Snap) // snaps have a check of their own
            continue;
        const Polyline stitch = flattened(piece->stitch(), 0.05);
        const double away = distanceTo(stitch, f.at);
        const bool inside = insideOutline(stitch, f.at);
        if (inside && away >= f.size / 2 - 0.01)
            continue;
        const double over = inside ? f.size / 2 - away : f.size / 2 + away;
        worst.add(
            {Severity::Error, "off-cloth", "", say("{} on {} {}", groupOf(f), piece->code, piece->name), piece->key,
                "Fittings",
                say("it reaches {} over the stitch line: there is no cloth for it. Move it inwards.", Len(over)), {}},
            over);
    }
}

/// Where each seam and fitting comes in the order of work, and with which foot the seam is sewn.
struct Ranks {
    Ranks(const CheckInput& in)
    {
        std::size_t rank = 0;
        for (const auto i : orderOf(in.design, in.pattern)) {
            const Step& step = in.pattern.steps[i];
            ++rank;
            for (const auto& f : step.fittings)
                fittings.try_emplace(f, rank);
            if (step.kind != StepKind::Baste && step.kind != StepKind::Topstitch && step.kind != StepKind::CloseOpening)
                for (const auto& s : step.seams)
                    seams.try_emplace(s, Sewn{rank, footOf(in, step, s)});
        }
    }

    struct Sewn {
        std::size_t rank;
        PresserFoot foot;
    };
    std::map<FittingId, std::size_t> fittings;
    std::map<SeamId, Sewn> seams;

private:
    static PresserFoot footOf(const CheckInput& in, const Step& step, const SeamId& id)
    {
        const Pattern& p = in.pattern;
        bool sticks = false;
        if (const Seam* seam = p.seam(id))
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& use : *side)
                    if (const Piece* piece = p.piece(use.piece))
                        if (const auto cloth = p.materials.find(piece->material); cloth != p.materials.end())
                            sticks |= p.material(cloth->second).sticks();
        for (const auto& act : step.acts)
            if (std::find(act.seams.begin(), act.seams.end(), id) != act.seams.end())
                return tectonis::footOf(act, sticks, in.design.workshop);
        return in.design.workshop.footFor(sticks);
    }
};

/// A foot that the workshop lacks is as wide as the one on the machine.
double widthOf(const Workshop& workshop, PresserFoot foot)
{
    const double width = workshop.widthOf(foot);
    return width > 0 ? width : workshop.footWidth;
}

/// A head that is in the way of a foot; a seam that the zip foot can sew beside it is only to be known.
Finding underFoot(const Workshop& workshop, const Fitting& f, const Seam& seam, double away, PresserFoot foot)
{
    const double needed = f.size / 2 + widthOf(workshop, foot), narrow = f.size / 2 + workshop.zipFoot;
    const bool passes = foot != PresserFoot::Zip && workshop.zipFoot > 0 && away >= narrow - 0.01;
    return {passes ? Severity::Note : Severity::Warning, "under-foot", "",
        say("{} beside the seam “{}”", groupOf(f), seam.name), f.piece, "Fittings",
        passes ? say("its centre is {} from the seam, which is sewn after it is set; the {} needs {}. Sew past it with "
                     "the zip foot, which needs {}, or move it inwards.",
            Len(away, needed), nameOf(foot), Len(needed), Len(narrow))
               : say("its centre is {} from the seam, which is sewn after it is set; the {} needs {}. Move it inwards, "
                     "or set it after the seam.",
                   Len(away, needed), nameOf(foot), Len(needed)),
        {}};
}

void checkUnderFoot(const CheckInput& in, Worst& worst)
{
    const Pattern& p = in.pattern;
    if (std::none_of(p.fittings.begin(), p.fittings.end(),
            [](const Fitting& f) { return isHole(f) && f.kind != Fitting::Kind::Snap; }))
        return;
    const Ranks ranks(in);
    for (const auto& seam : p.seams) {
        const auto sewn = ranks.seams.find(seam.key);
        if (seam.stitch != "construction" || sewn == ranks.seams.end())
            continue;
        for (const auto* side : {&seam.a, &seam.b})
            for (const auto& use : *side) {
                const Piece* piece = p.piece(use.piece);
                const Edge* edge = piece ? piece->edge(use.edge) : nullptr;
                if (!edge)
                    continue;
                std::optional<Polyline> line;
                for (const auto& f : p.fittings) {
                    const auto set = ranks.fittings.find(f.key);
                    if (f.piece != use.piece || !isHole(f) || f.kind == Fitting::Kind::Snap
                        || set == ranks.fittings.end())
                        continue;
                    if (!line)
                        line = flattened(edge->stitch, 0.05);
                    const bool later = sewn->second.rank > set->second;
                    const PresserFoot foot = sewn->second.foot;
                    const double away = distanceTo(*line, f.at),
                                 needed = f.size / 2 + (later ? widthOf(in.design.workshop, foot) : edge->allowance);
                    if (away >= needed - 0.01)
                        continue;
                    worst.add(later ? underFoot(in.design.workshop, f, seam, away, foot)
                                    : Finding{Severity::Warning, "under-foot", "",
                                        say("{} beside the seam “{}”", groupOf(f), seam.name), piece->key, "Fittings",
                                        say("its centre is {} from the seam: it goes through the seam's allowances of "
                                            "{}. Move it inwards by {}.",
                                            Len(away), Len(edge->allowance), Len(needed - away)),
                                        {}},
                        needed - away);
                }
            }
    }
}

/// Rows sewn through all layers of the finished bag do not sew a pocket, handle or strap shut.
void checkRows(const CheckInput& in, Worst& worst)
{
    const Pattern& p = in.pattern;
    for (const auto& piece : p.pieces)
        for (const auto& row : piece.lines) {
            if (!row.through)
                continue;
            const OnWall own = wallsOf(p, piece).front();
            std::vector<OnWall> walls{{own.wall, {}}};
            if (const auto inside = behind(p, own.wall))
                walls.push_back(*inside);
            for (const auto& wall : walls) {
                Box at;
                for (const Point q : flattened(row.run, 0.2))
                    at.add(wall.to(own.to(q)));
                for (const auto& other : p.pieces)
                    for (const auto& line : other.lines) {
                        if (line.kind != FaceLine::Kind::Placement || line.owner == row.owner)
                            continue;
                        for (const auto& on : wallsOf(p, other)) {
                            if (on.wall != wall.wall)
                                continue;
                            Box place;
                            for (const Point q : flattened(line.run, 0.2))
                                place.add(on.to(q));
                            const double across = std::min(at.x1, place.x1) - std::max(at.x0, place.x0),
                                         up = std::min(at.y1, place.y1) - std::max(at.y0, place.y0);
                            if (across > 0.01 && up > -0.01)
                                worst.add({Severity::Warning, "collision", "",
                                              say("{} and {} on {} {}", row.name, edgeLabel(in.pattern, line.name),
                                                  other.code, other.name),
                                              piece.key, "Fittings",
                                              say("a row that is sewn through all layers runs over it for {}. It "
                                                  "would be sewn down; move one of them up or down.",
                                                  Len(across)),
                                              {}},
                                    across);
                        }
                    }
            }
        }
}

/// Patches and interlinings end at the cut line.
void checkPastCut(const CheckInput& in, Findings& out)
{
    for (const auto& piece : in.pattern.pieces) {
        std::optional<Polyline> cut;
        for (const auto& layer : piece.layers) {
            double over = 0;
            if (layer.wholePiece) {
                for (const auto& e : piece.edges)
                    if (const double* reach = layer.reachAt(e.name); reach && !e.onFold)
                        over = std::max(over, *reach - std::max(e.allowance, e.allowanceAtEnd.value_or(0)));
            } else {
                if (!cut)
                    cut = flattened(piece.cut, 0.1);
                for (const Point q : flattened(layer.outline, 0.5))
                    if (!insideOutline(*cut, q))
                        over = std::max(over, distanceTo(*cut, q));
            }
            if (over <= 0.2)
                continue;
            std::optional<Repair> repair;
            for (const auto& f : in.pattern.fittings)
                if (const auto side = in.pattern.values.find(f.owner().text() + ".patch"); f.piece == piece.key
                    && side != in.pattern.values.end() && !layer.wholePiece && boundsOf(layer.outline).contains(f.at))
                    if (const double to = std::floor(side->second - 2 * over); to >= 25)
                        repair = Repair{
                            say("Make the patch {}", Len(to)), {fmt::format("{}.patch={}", f.owner(), to)}, false};
            out.push_back({Severity::Warning, "past-cut", "",
                say("{} behind {} {}", layer.code, piece.code, piece.name), piece.key, "Build-up",
                say("it reaches {} past the piece's cut line and would be caught in the seam. Make it smaller, "
                    "or trim it level.",
                    Len(over)),
                repair});
        }
    }
}

} // namespace

void checkFittings(const CheckInput& in, Findings& out)
{
    {
        Worst worst(in, out);
        const auto spots = spotsOf(in.pattern);
        checkOnEachOther(in, spots, worst);
        checkUnderParts(in, spots, worst);
        checkOffCloth(in, worst);
        checkUnderFoot(in, worst);
        checkRows(in, worst);
    }
    checkPastCut(in, out);
}

} // namespace tectonis
