// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of seams: sewn, stitched on, pressed, clipped, bound, and of joining, turning and closing.
#include "sequence/telling.hpp"

#include "buildup/layers.hpp"
#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
#include "pattern/seam_shape.hpp"
#include "words/language.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>
#include <utility>

namespace tectonis {

namespace {

constexpr double kClipOpens = 3; // mm that a clipped straight allowance opens at each clip (common practice, no source)
constexpr double kClipShort = 2; // mm from the end of a clip to the stitch line (common practice, no source)

} // namespace

void Telling::hinge(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        return;
    const EdgeUse& upper = p.piece(seams.front()->a.front().piece)
            && p.piece(seams.front()->a.front().piece)->edge(seams.front()->a.front().edge)
        ? seams.front()->a.front()
        : seams.front()->b.front();
    add(say("Lay the hinge edge of the {} on its line, right sides together, pointing away from where it will hang; "
            "sew. Fold it over the row and sew again {} below.",
        nameOf(upper.piece), Len(act.distance)));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
}

void Telling::sew(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        return;
    std::vector<PieceId> caught;
    bool marks = false, both = false, corners = false;
    double open = 0;
    for (const Seam* seam : seams) {
        for (const auto& id : seam->trapped)
            if (std::find(caught.begin(), caught.end(), id) == caught.end())
                caught.push_back(id);
        marks |= hasMarks(p, *seam);
        open = std::max(open, seam->open);
        for (const auto* side : {&seam->a, &seam->b}) {
            const SideShape shape = shapeOf(p, *side);
            both |= shape.straights && std::min(shape.convex, shape.concave) < SideShape::none;
            corners |= shape.convexCorners + shape.concaveCorners > 0;
        }
    }
    if (m_folded)
        m_folded = false; // what is sewn lies there already
    else if (!act.zips.empty())
        add(say("Lay the {} right sides together with the zip's tape between, its edge {} past the stitch line.",
            namesOf(piecesAcross(seams)), Len(act.distance)));
    else if (caught.empty())
        add(marks ? say("Right sides together, match the marks.") : say("Right sides together, edges level."));
    else
        add(marks ? say("Right sides together with the {} between, match the marks.", namesOf(caught))
                  : say("Right sides together with the {} between, edges level.", namesOf(caught)));
    if (m_step.kind == StepKind::Seam && carriesFlap(act))
        add(say("The flap is folded out of the way."));
    if (holesStay(act))
        add(say("Hold with clips: pins leave holes."));
    if (!std::exchange(m_onLine, false))
        row(seams);
    for (const Seam* seam : seams)
        if (seam->care.aside)
            upToCrossings(*seam);
    if (twoTapes(act))
        add(say("Sew the other pair to the other tape alike."));
    if (both)
        how(say("Sew the straights before the curves."));
    if (corners)
        how(say("At each corner stop with the needle down and turn."));
    for (const Seam* seam : seams) {
        if (std::abs(seam->ease) > 0.05 && !seam->easeNote.empty())
            add(say("Take up {}: {}.", Len(std::abs(seam->ease)), within(seam->easeNote)));
        ends(*seam);
    }
    if (open > 0)
        add(say("Leave {} open in the middle for turning; back-stitch both ends of the opening.", Len(open)));
    trimLayers(seams);
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    if (!act.zips.empty())
        caution(say("Needle strike: turn the handwheel by hand over the chain."));
    check(upright(seams) ? say("Both ends are level, the marks meet and the cloth runs upwards in all pieces.")
                         : say("Both ends are level and the marks meet."));
}

void Telling::trimLayers(const std::vector<const Seam*>& seams)
{
    Message codes;
    std::vector<const Layer*> all;
    for (const Seam* seam : seams)
        for (const Layer* layer : trimmedAfter(p, *seam))
            if (std::find(all.begin(), all.end(), layer) == all.end()) {
                all.push_back(layer);
                codes = codes.empty() ? naming(layer->code) : say("{}, {}", codes, layer->code);
            }
    if (all.empty())
        return;
    add(say("Trim {} close to the stitching.", codes));
    tool(say("scissors"));
}

std::vector<PieceId> Telling::piecesAcross(const std::vector<const Seam*>& seams)
{
    std::vector<PieceId> out;
    for (const Seam* seam : seams)
        for (const auto* side : {&seam->a, &seam->b})
            for (const auto& id : piecesOf(*side))
                if (std::find(out.begin(), out.end(), id) == out.end())
                    out.push_back(id);
    return out;
}

bool Telling::upright(const std::vector<const Seam*>& seams) const
{
    const auto pieces = piecesAcross(seams);
    return pieces.size() > 1 && std::ranges::all_of(pieces, [&](const PieceId& id) {
        const Material* cloth = clothOf(id);
        return cloth && cloth->oneWay;
    });
}

void Telling::row(const std::vector<const Seam*>& seams)
{
    std::set<std::pair<long, long>> told;
    for (const Seam* seam : seams) {
        auto [least, most] = allowancesOf(p, *seam);
        // Where it is sewn, not how far a hem's or another edge's cloth reaches.
        if (std::abs(most - seam->allowance) > 0.005 || most - least < 0.005)
            least = most = seam->allowance;
        m_out.allowance = std::max(m_out.allowance, most);
        if (!told.insert({std::lround(least * 100), std::lround(most * 100)}).second)
            continue;
        const auto bagged = std::find_if(m_step.acts.begin(), m_step.acts.end(), [&](const Act& act) {
            return act.verb == Verb::BagSeam
                && std::find(act.seams.begin(), act.seams.end(), seam->key) != act.seams.end();
        });
        if (bagged != m_step.acts.end()) {
            add(say("Sew again, {} from the fold: the raw edges lie inside.", Len(most - bagged->distance)));
            continue;
        }
        add(most - least < 0.005 ? say("Sew at {}.", Len(most))
                                 : say("Sew at {} at the mouth, widening to {}.", Len(least), Len(most)));
    }
}

void Telling::ends(const Seam& seam)
{
    if (seam.openStart > 0 || seam.openEnd > 0)
        add(say("“{}” begins {} in and stops {} before its end, at the stop squares; back-stitch both.", seam.name,
            Len(seam.openStart), Len(seam.openEnd)));
}

/// The piece of a side, or, where it is of several parts of one that was cut across, that one.
PieceId Telling::wholeOf(const std::vector<EdgeUse>& side) const
{
    const Piece* first = p.piece(side.front().piece);
    if (!first || first->whole.empty())
        return side.front().piece;
    const bool parts = std::any_of(side.begin(), side.end(), [&](const EdgeUse& use) {
        const Piece* piece = p.piece(use.piece);
        return piece && piece->key != first->key && piece->whole == first->whole;
    });
    return parts ? first->whole : first->key;
}

void Telling::stitchOn(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        return;
    // The line lies on the piece below; the edge is the upper one's.
    const auto onLine = [&](const std::vector<EdgeUse>& side) {
        const Piece* piece = p.piece(side.front().piece);
        return piece && !piece->edge(side.front().edge);
    };
    const auto& upper = onLine(seams.front()->a) ? seams.front()->b : seams.front()->a;
    const auto& lower = onLine(seams.front()->a) ? seams.front()->a : seams.front()->b;
    std::set<int> copies; // of the upper piece that lie on this face
    for (const Seam* seam : seams)
        for (const auto* side : {&seam->a, &seam->b})
            for (const auto& use : *side)
                if (use.piece == upper.front().piece)
                    copies.insert(use.copy);
    const Piece* on = p.piece(upper.front().piece);
    if (on && on->role == "flap")
        add(say("Lay the hinge edge of the {} on its line on the {}, wrong side on right side, the flap pointing up "
                "over the mouth; edge-stitch.",
            nameOf(wholeOf(upper)), nameOf(lower.front().piece)));
    else
        add(copies.size() > 1 ? say("Lay each {} on its line on the {}, wrong side on right side; edge-stitch.",
                nameOf(wholeOf(upper)), nameOf(lower.front().piece))
                              : say("Lay the {} on its line on the {}, wrong side on right side; edge-stitch.",
                                  nameOf(wholeOf(upper)), nameOf(lower.front().piece)));
    if (act.distance > 0 && act.taken > 0)
        add(say("Two rows: {} and {} from the edge.", Len(act.distance), Len(act.taken)));
    else if (act.distance > 0)
        add(say("The row runs {} from the edge.", Len(act.distance)));
    if (closesOpeningOf(upper.front().piece))
        add(say("The row closes the opening that it was turned through."));
    if (endsInside(lower))
        add(say("Bar-tack both ends of the row."));
    for (const Seam* seam : seams)
        if (std::abs(seam->ease) > 0.05 && !seam->easeNote.empty())
            add(say("Take up {}: {}.", Len(std::abs(seam->ease)), within(seam->easeNote)));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    check(say("It lies flat and square on its line."));
}

bool Telling::closesOpeningOf(const PieceId& id) const
{
    return std::any_of(p.seams.begin(), p.seams.end(), [&](const Seam& seam) {
        const auto own = [&](const EdgeUse& use) { return use.piece == id; };
        return seam.open > 0 && std::all_of(seam.a.begin(), seam.a.end(), own)
            && std::none_of(p.steps.begin(), p.steps.end(), [&](const Step& step) {
                   return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& each) {
                       return each.verb == Verb::CloseOpening
                           && std::find(each.seams.begin(), each.seams.end(), seam.key) != each.seams.end();
                   });
               });
    });
}

bool Telling::endsInside(const std::vector<EdgeUse>& line) const
{
    const Piece* face = p.piece(line.front().piece);
    const Run* run = p.runBehind(line.front());
    if (!face || !run || distance(startOf(*run), endOf(*run)) < 0.5)
        return false;
    const Polyline stitch = flattened(face->stitch(), 0.1);
    const auto inside = [&](Point at) { return insideOutline(stitch, at) && distanceTo(stitch, at) > 3; };
    return inside(startOf(*run)) && inside(endOf(*run));
}

void Telling::lay(const Act& act)
{
    const auto seams = seamsOf(act);
    if (const Piece* thing = p.piece(act.pieces.front()); thing && thing->role == "piping") {
        add(say("Lay the {} on the right side of the {}, raw edges level, the cord towards its middle.",
            nameOf(thing->key), nameOf(act.pieces.back())));
        if (std::any_of(seams.begin(), seams.end(),
                [&](const Seam* seam) { return shapeOf(p, seam->a).bends() || shapeOf(p, seam->b).bends(); }))
            add(say("Clip its allowance at curves and corners."));
        return;
    }
    const bool named = std::any_of(seams.begin(), seams.end(), [&](const Seam* seam) {
        const auto uses = [&](const EdgeUse& use) { return use.piece == act.pieces.front(); };
        return std::any_of(seam->a.begin(), seam->a.end(), uses) || std::any_of(seam->b.begin(), seam->b.end(), uses);
    });
    if (several(act.pieces.front()) && !named)
        add(say("Lay each {} on the {}, right sides together, pointing away from the edge in which it will be "
                "caught.",
            nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    else
        add(say("Lay the {} on the {}, right sides together, pointing away from the edge in which it will be caught.",
            nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    add(act.taken > 0 ? say("Let the raw ends stand {} past that edge.", Len(act.taken)) : say("Raw edges are level."));
}

void Telling::topstitch(const Act& act)
{
    const auto seams = seamsOf(act);
    if (act.to == To::Open && act.taken > 0)
        add(say("Topstitch {} and {} from the seam on both sides.", Len(act.distance), Len(act.taken)));
    else if (act.to == To::Open)
        add(say("Topstitch {} from the seam on both sides.", Len(act.distance)));
    else if (act.to == To::Nowhere || seams.empty())
        add(say("Topstitch {} from the edge.", Len(act.distance)));
    else
        add(say("Topstitch {} from the seam, on the {}.", Len(act.distance), namesOf(sidesOf(act))));
    if (act.taken > 0 && act.to != To::Open)
        add(act.to == To::Nowhere || seams.empty() ? say("A second row runs {} from the edge.", Len(act.taken))
                                                   : say("A second row runs {} from the seam.", Len(act.taken)));
    machine();
    stitch(lengthOfStitches(act, RowKind::Topstitch));
}

void Telling::roll(const Act& act)
{
    add(noIron(act)
            ? say("Roll the seam to the edge and hold it with clips; topstitch {} from the edge.", Len(act.distance))
            : say("Roll the seam to the edge, press; topstitch {} from the edge.", Len(act.distance)));
    if (act.taken > 0)
        add(say("A second row runs {} from the edge.", Len(act.taken)));
    if (const auto seams = seamsOf(act); !seams.empty() && seams.front()->mouth)
        if (const bool flap = carriesFlap(act), handles = hasHandles(); flap || handles)
            add(flap && handles ? say("Keep the flap and the handles out of the way.")
                    : flap      ? say("Keep the flap out of the way.")
                                : say("Keep the handles out of the way."));
    if (!noIron(act))
        tool(say("iron"));
    machine();
    stitch(lengthOfStitches(act, RowKind::Topstitch));
    check(say("The seam lies on the edge and shows on neither side."));
}

/// The pieces on the side of its seams that an act speaks of.
std::vector<PieceId> Telling::sidesOf(const Act& act) const
{
    std::vector<PieceId> out;
    for (const Seam* seam : seamsOf(act))
        for (const auto& piece : piecesOf(act.to == To::First ? seam->a : seam->b))
            if (std::find(out.begin(), out.end(), piece) == out.end())
                out.push_back(piece);
    return out;
}

/// Of a step that presses some seams this way and some that: which, each by its name. False where all go one way.
bool Telling::pressEach(const Act& act)
{
    const auto seams = seamsOf(act);
    std::map<std::vector<PieceId>, Message> which; // by where they go
    for (const Seam* seam : seams) {
        const auto side = act.to == To::First ? piecesOf(seam->a)
            : act.to == To::Second            ? piecesOf(seam->b)
                                              : std::vector<PieceId>();
        Message& names = which[side];
        names = names.empty() ? say("“{}”", seam->name) : say("{}, “{}”", names, seam->name);
    }
    const auto presses = [](const Act& each) { return each.verb == Act::Verb::Press && !each.seams.empty(); };
    if (seams.empty() || act.to == To::Nowhere
        || (which.size() < 2 && std::count_if(m_step.acts.begin(), m_step.acts.end(), presses) < 2))
        return false;
    const bool cold = noIron(act);
    tool(cold ? say("seam roller") : say("iron"));
    for (const auto& [side, names] : which)
        if (act.to == To::Open)
            add(cold ? say("Open the allowances of {} with your fingers and roll them flat: no iron.", names)
                     : say("Press the allowances of {} open.", names));
        else
            add(cold ? say("Lay the allowances of {} towards the {} and roll them flat: no iron.", names, namesOf(side))
                     : say("Press the allowances of {} towards the {}.", names, namesOf(side)));
    return true;
}

void Telling::press(const Act& act)
{
    if (pressEach(act))
        return;
    const auto seams = seamsOf(act);
    if (noIron(act)) {
        tool(say("seam roller"));
        if (act.to == To::Open)
            add(say("Open the allowances with your fingers and roll them flat: no iron."));
        else if (act.to == To::Nowhere || seams.empty())
            add(say("Crease with your fingers and roll it flat: no iron."));
        else
            add(say("Lay the allowances towards the {} and roll them flat: no iron.", namesOf(sidesOf(act))));
        return;
    }
    tool(say("iron"));
    if (act.to == To::Open)
        add(say("Press the allowances open."));
    else if (act.to == To::Nowhere || seams.empty())
        add(say("Press."));
    else
        add(say("Press the allowances towards the {}.", namesOf(sidesOf(act))));
}

void Telling::clip(const Act& act)
{
    double radius = SideShape::none, allowance = 0;
    bool corners = false;
    std::vector<PieceId> straight;
    for (const Seam* seam : seamsOf(act)) {
        const SideShape a = shapeOf(p, seam->a), b = shapeOf(p, seam->b);
        const bool clipA = !a.bends() && b.bends(), clipB = !b.bends() && a.bends();
        if (!clipA && !clipB)
            continue;
        const SideShape& bent = clipA ? b : a;
        radius = std::min(radius, bent.convex);
        corners |= bent.convexCorners > 0;
        allowance = std::max(allowance, seam->allowance);
        for (const auto& id : piecesOf(clipA ? seam->a : seam->b))
            if (std::find(straight.begin(), straight.end(), id) == straight.end())
                straight.push_back(id);
    }
    if (straight.empty())
        return;
    // Clip spacing p = o·r/s, depth s − 2 mm (common practice, no source).
    if (radius < SideShape::none) {
        const Len every(std::max(2.0, std::floor(kClipOpens * radius / allowance))),
            deep(std::max(1.0, allowance - kClipShort));
        add(straight.size() < 3
                ? say("Clip the allowance of the {} where it goes round the curve, every {}, {} deep.",
                    namesOf(straight), every, deep)
                : say("Clip the straight edge's allowance where it goes round the curve, every {}, {} deep.", every,
                    deep));
    }
    if (corners)
        add(straight.size() < 3 ? say("At each corner clip the {} to the stitch line.", namesOf(straight))
                                : say("At each corner clip the straight edge to the stitch line."));
    tool(say("scissors"));
    check(say("No clip reaches the stitch line."));
}

void Telling::notch(const Act& act)
{
    double radius = SideShape::none, allowance = 1;
    std::vector<PieceId> round;
    for (const Seam* seam : seamsOf(act))
        for (const auto* side : {&seam->a, &seam->b})
            if (const SideShape shape = shapeOf(p, *side); shape.convex < SideShape::none) {
                radius = std::min(radius, shape.convex);
                allowance = std::max(allowance, seam->allowance);
                for (const auto& id : piecesOf(*side))
                    if (std::find(round.begin(), round.end(), id) == round.end())
                        round.push_back(id);
            }
    if (round.empty())
        return;
    const Len every(std::max(2.0, std::floor(kClipOpens * radius / allowance)));
    add(round.size() < 3 ? say("Notch out the allowance of the {} along the curve, every {}.", namesOf(round), every)
                         : say("Notch out the allowance that bulges round the curve, every {}.", every));
    tool(say("scissors"));
}

void Telling::grade(const Act& act)
{
    bool corners = false;
    for (const Seam* seam : seamsOf(act))
        corners |= shapeOf(p, seam->a).convexCorners > 0;
    add(say("Grade the allowances."));
    notch(act);
    if (corners)
        add(say("Cut them across at the corners, {} from the stitching.", Len(kClipShort)));
    tool(say("scissors"));
}

void Telling::stagger(const Act& act)
{
    for (const Seam* seam : seamsOf(act))
        add(say(
            "Grade “{}”: trim the thicker of its allowances to {}, at its ends slanting to the stitches, where other "
            "seams cross.",
            seam->name, Len(act.distance)));
    tool(say("scissors"));
}

void Telling::hammer(const Act& act)
{
    for (const Seam* seam : seamsOf(act)) {
        const Bulk bulk = bulkAt(p, *seam);
        add(bulk.crossing.empty()
                ? say("Hammer what lies in “{}” flat, on a firm base with a scrap of cloth between.", seam->name)
                : say("Hammer what lies in “{}” flat where “{}” crosses it, on a firm base with a scrap of cloth "
                      "between.",
                    seam->name, bulk.crossing));
    }
    for (const auto& piece : act.pieces)
        add(say("Hammer the ends of the {} flat, folded as they will be sewn, on a firm base with a scrap of cloth "
                "between.",
            nameOf(piece)));
    tool(say("hammer"));
    caution(say("Hammer: protect your eyes."));
}

void Telling::upToCrossings(const Seam& seam)
{
    SeamCare through = seam.care;
    through.aside = false;
    const Bulk bulk = Bulks(p, {.care = {{seam.key, through}}}).at(seam);
    Message crossing;
    for (const auto& key : bulk.crossedBy)
        crossing = crossing.empty() ? p.seam(key)->name : say("{} and {}", crossing, p.seam(key)->name);
    if (!crossing.empty())
        add(say(
            "Where “{}” crosses, stop at its stitches, turn its allowances to the other side and go on beyond them: "
            "they are not sewn over.",
            crossing));
}

namespace {

/// Where it is thick for an act's rows; nothing for what is not sewn.
std::optional<ThickSpot> spotOf(const Act& act)
{
    switch (act.verb) {
    case Act::Verb::Sew:
    case Act::Verb::JoinCoats:
    case Act::Verb::DropIn:
    case Act::Verb::StitchOn:
    case Act::Verb::Hem:
    case Act::Verb::Hinge: return ThickSpot::Row;
    case Act::Verb::Topstitch:
    case Act::Verb::Roll: return ThickSpot::Topstitch;
    default: return std::nullopt;
    }
}

} // namespace

bool Telling::allByHand(const Act& act) const
{
    if (endsByHand(p, act))
        return true;
    const auto spot = spotOf(act);
    const auto seams = seamsOf(act);
    return spot && !seams.empty() && std::ranges::all_of(seams, [&](const Seam* seam) {
        return seam->care.byHand && sewnByHand(p, *seam, *spot) >= seam->lengthA - 0.01;
    });
}

void Telling::byHand(const Act& act)
{
    if (endsByHand(p, act)) {
        add(say("Its ends are too thick for the machine: sew them by hand, with two needles through holes made with "
                "an awl."));
        tool(say("awl"));
        tool(say("needle and thread"));
    }
    const auto spot = spotOf(act);
    for (const Seam* seam : seamsOf(act)) {
        const double length = spot ? sewnByHand(p, *seam, *spot) : 0;
        if (length <= 0)
            continue;
        if (length >= seam->lengthA - 0.01)
            add(say("“{}” is too thick for the machine: sew it by hand, with two needles through holes made with an "
                    "awl.",
                seam->name));
        else
            add(say(
                "Where “{}” crosses it is too thick for the machine: sew these {} of “{}” by hand, with two needles "
                "through holes made with an awl.",
                (isRow(*spot) ? bulkUnderTopstitch(p, *seam) : bulkAt(p, *seam)).crossing, Len(length), seam->name));
        tool(say("awl"));
        tool(say("needle and thread"));
    }
}

void Telling::machine()
{
    if (m_byHand)
        return;
    tool(say("sewing machine"));
    m_sewn = true;
}

void Telling::turn(const Act& act)
{
    const auto seams = seamsOf(act);
    const bool opening = std::any_of(seams.begin(), seams.end(), [](const Seam* s) { return s->open > 0; });
    add(opening ? say("Turn right side out through the opening.")
                : say("Turn right side out through the edge that is left open."));
    how(say("Push the corners out."));
    tool(say("point turner"));
}

void Telling::turnBag(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        addEither(say("Turn the bag right side out through the open zip; push the corners out."),
            say("Turn the bag through the open zip."));
    else
        addEither(say("Reach through the opening in “{}” and pull the bag out through it; push the corners out.",
                      seams.front()->name),
            say("Turn the bag through the opening in “{}”.", seams.front()->name));
    tool(say("hands"));
    check(say("Corners are pushed out fully; nothing is caught."));
}

void Telling::overcast()
{
    // ISO 4915: 304 is the zigzag lockstitch, 504 a three-thread overedge stitch (from memory).
    add(say("Overcast the raw edge of each allowance: zigzag 304, or overedge 504."));
    machine();
}

void Telling::fell(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        return;
    std::set<std::string> told; // both sides of a bag alike are told once
    for (const Seam* seam : seams) {
        const Message upper = namesOf(piecesOf(seam->a)), under = namesOf(piecesOf(seam->b));
        if (!told.insert(tectonis::words(upper) + "\n" + tectonis::words(under)).second)
            continue;
        addEither(say("Trim the allowance of the {} to {}. Fold the allowance of the {} in half over it, edge to the "
                      "row, lay both flat towards the {} and stitch the fold down, {} from the seam.",
                      upper, Len(act.distance), under, upper, Len(act.taken)),
            say("Fell the seam towards the {}: trim its allowance to {}, fold the other over, stitch {} from the seam.",
                upper, Len(act.distance), Len(act.taken)));
    }
    machine();
    tool(say("scissors"));
    stitch(lengthOfStitches(act, RowKind::Topstitch));
    check(say("No raw edge shows on either side; the row has caught the fold everywhere."));
}

void Telling::bagSeam(const Act& act)
{
    add(say(
        "First wrong sides together: sew {} from the edge. Trim both allowances to {}, open the pieces and fold them "
        "back, right sides together, along the row.",
        Len(act.distance), Len(act.taken)));
    if (!noIron(act))
        tool(say("iron"));
    machine();
    tool(say("scissors"));
}

void Telling::bind(const Act& act)
{
    addEither(say("Trim the allowances level. Open the {}, sew it on along its first fold, fold it over the edge and "
                  "stitch the other side through all layers. Fold the end in over the beginning.",
                  nameOf(act.pieces.front())),
        say("Bind the edge with the {}.", nameOf(act.pieces.front())));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    check(say("The row catches the binding on both sides."));
}

void Telling::joinCoats(const Act& act)
{
    const auto seams = seamsOf(act);
    std::vector<PieceId> caught;
    for (const Seam* seam : seams)
        caught.insert(caught.end(), seam->trapped.begin(), seam->trapped.end());
    if (!seams.empty() && seams.front()->flat)
        return joinWallsFlat(act, *seams.front());
    addEither(say("Put the shell, right side out, into the lining, wrong side out: right sides together. Match side "
                  "seams and centres."),
        say("Shell into lining, right sides together, seams and centres matched."));
    if (const Piece* one = caught.size() == 1 ? p.piece(caught.front()) : nullptr; one && one->count > 1)
        add(say("Each {} hangs down between the layers.", nameOf(one->key)));
    else if (!caught.empty())
        add(say("The {} hangs down between the layers.", namesOf(caught))
                .counted("The {} hang down between the layers.", long(caught.size())));
    if (carriesFlap(act))
        add(say("The flap is folded down between the layers."));
    if (hasHandles())
        add(say("The handles are laid down between the layers."));
    if (std::any_of(p.pieces.begin(), p.pieces.end(), [](const Piece& each) { return each.role == "shoulder strap"; }))
        add(say("The shoulder straps hang down between the layers, clear of the seam."));
    for (const Seam* seam : seams) {
        m_out.allowance = seam->allowance;
        add(say("Sew round the mouth at {}.", Len(seam->allowance)));
        ends(*seam);
    }
    trimLayers(seams);
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    check(say("What hangs between the layers is not caught below the seam."));
}

void Telling::joinWallsFlat(const Act& act, const Seam& mouth)
{
    add(say("Each wall goes on its own lining, right sides together, the mouth edges level."));
    const auto walls = piecesOf(mouth.a), linings = piecesOf(mouth.b);
    for (std::size_t i = 0; i < walls.size() && walls.size() == linings.size(); ++i)
        add(say("The {} lies on the {}.", nameOf(walls[i]), nameOf(linings[i])));
    if (!mouth.trapped.empty())
        add(say("The {} lies between the layers.", namesOf(mouth.trapped))
                .counted("The {} lie between the layers.", long(mouth.trapped.size())));
    if (carriesFlap(act))
        add(say("The flap is folded down between the layers."));
    if (hasHandles())
        add(say("The handles are laid down between the layers."));
    if (std::any_of(p.pieces.begin(), p.pieces.end(), [](const Piece& each) { return each.role == "shoulder strap"; }))
        add(say("The shoulder straps hang down between the layers, clear of the seam."));
    m_out.allowance = mouth.allowance;
    add(say("Sew each mouth edge from end to end at {}.", Len(mouth.allowance)));
    ends(mouth);
    trimLayers(seamsOf(act));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
}

Message Telling::lengthOfStitches(const Act& act, RowKind kind) const
{
    const StitchLength length = stitchLength(p, handled(act), kind);
    const Num least(length.least, 1), most(length.most, 1);
    return kind == RowKind::Baste ? say("{}–{} mm, basting", least, most)
                                  : say("{}–{} mm, lockstitch 301", least, most);
}

void Telling::dropIn(const Act& act)
{
    const auto seams = seamsOf(act);
    if (seams.empty())
        return;
    const Seam& seam = *seams.front();
    if (!seam.bound.empty()) {
        add(say("Put the lining, wrong side out, into the shell, raw edges level; match seams and centres. Baste "
                "{} from the edge all round.",
            Len(4)));
        m_out.allowance = 4;
        stitch(lengthOfStitches(act, RowKind::Baste));
        check(say("No pleats in either layer."));
    } else {
        add(say("Fold the mouth allowance of shell and lining to the wrong side ({}). Put the lining, wrong side "
                "out, into the shell; match seams and centres; edge-stitch {} from the fold.",
            Len(seam.allowance), Len(act.distance)));
        m_out.allowance = seam.allowance;
        stitch(lengthOfStitches(act, RowKind::Topstitch));
        check(say("The fold is level all round."));
    }
    machine();
}

void Telling::putIn(const Act& act)
{
    if (!act.note.empty()) {
        add(act.note);
        return;
    }
    const auto assembly = p.choices.find("assembly");
    add(assembly != p.choices.end() && assembly->second.starts_with("unlined")
            ? say("Lay the {} onto the bottom. Fix it with a few dots of glue.", nameOf(act.pieces.front()))
            : say("Slide the {} onto the bottom, between shell and lining. Fix it with a few dots of glue.",
                nameOf(act.pieces.front())));
    tool(say("contact adhesive"));
    check(say("It lies flat and clear of the seams."));
    caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
}

void Telling::closeOpening(const Act& act)
{
    for (const Seam* seam : seamsOf(act))
        addEither(say("In “{}”, fold the allowances of the opening in and stitch it shut close to the edge, or by "
                      "hand: {}.",
                      seam->name, Len(seam->open)),
            say("Close the opening of {} in “{}”.", Len(seam->open), seam->name));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    check(say("Nothing is left between the layers: no pins, no clips."));
}

} // namespace tectonis
