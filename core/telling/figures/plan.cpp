// SPDX-License-Identifier: GPL-3.0-or-later
// Steps from above: which act is drawn how, and what all figures share.
#include "drafting/turned.hpp"
#include "figures/planning.hpp"

#include <algorithm>

namespace tectonis {

Scene Plan::scene()
{
    switch (m_act.verb) {
    case Verb::Preshrink: washed(); break;
    case Verb::Interline:
    case Verb::Quilt:
    case Verb::CutToShape:
    case Verb::RoundCorners: interlined(); break;
    case Verb::Sew:
    case Verb::SewTape: joined(); break;
    case Verb::Hinge: hinged(); break;
    case Verb::LayOver: laidOnFace(); break;
    case Verb::LayTape: taped(); break;
    case Verb::Insert: inserted(); break;
    case Verb::FoldUp:
    case Verb::Crease: foldedUp(m_act.verb == Verb::FoldUp); break;
    case Verb::StitchOn:
    case Verb::Window:
    case Verb::Glue: laidFlat(); break;
    case Verb::Lay: caught(); break;
    case Verb::Line: lined(); break;
    case Verb::Turn: turned(); break;
    case Verb::TurnBag:
    case Verb::CloseOpening: throughOpening(m_act.verb == Verb::TurnBag); break;
    case Verb::JoinCoats:
        if (const Seam* mouth = seam(); mouth && mouth->flat) {
            joined();
            break;
        }
        [[fallthrough]];
    case Verb::DropIn: coats(m_act.verb == Verb::DropIn); break;
    case Verb::PutIn: boardIn(); break;
    case Verb::Box: boxed(); break;
    case Verb::BoxOn: boxedOn(); break;
    default:
        if (std::any_of(m_step.acts.begin(), m_step.acts.end(), [](const Act& act) {
                return act.verb == Verb::SealEnds || act.verb == Verb::FoldEnds || act.verb == Verb::CapEnds;
            }))
            zipEnds();
        break;
    }
    if (m_scene.items.empty())
        aside();
    return std::move(m_scene);
}

void Plan::stroke(Polyline line, Kind kind)
{
    if (line.size() > 1)
        add(Stroke{std::move(line), kind});
}

const Seam* Plan::seam() const
{
    for (const auto& key : m_act.seams)
        if (const Seam* s = p.seam(key); s && !s->a.empty() && !s->b.empty())
            return s;
    return nullptr;
}

PieceId Plan::frame(const std::vector<EdgeUse>& side) const
{
    PieceId out;
    for (const auto& use : side) {
        const Piece* piece = p.piece(use.piece);
        if (!piece || use.copy != side.front().copy || (!out.empty() && frameOf(*piece) != out))
            return {};
        out = frameOf(*piece);
    }
    return out;
}

std::vector<const Piece*> Plan::piecesIn(const PieceId& wanted) const
{
    std::vector<const Piece*> out;
    const auto handled = [&](const Piece& piece) {
        return std::find(m_step.pieces.begin(), m_step.pieces.end(), piece.key) != m_step.pieces.end();
    };
    for (const auto& piece : p.pieces)
        if (frameOf(piece) == wanted && (piece.key == wanted || handled(piece)))
            out.push_back(&piece);
    return out;
}

void Plan::lower(const std::vector<const Piece*>& pieces, bool wrong)
{
    if (pieces.size() > 1 && !wrong) // of a face that was cut across; a zip lies between the parts
        for (const auto& gap : p.gaps)
            if (gap.whole == frameOf(*pieces.front()))
                add(Surface{flattened(gap.stitch(), kStep), Skin::Tape});
    for (const Piece* piece : pieces) {
        add(Surface{outlineOf(*piece), wrong ? otherSide(skinOf(*piece)) : skinOf(*piece)});
        if (wrong)
            continue;
        for (const auto& o : p.overlays)
            if (const Piece* over = p.piece(o.piece); over && o.on == piece->key && done(o.piece))
                add(Surface{finished(*over, o.placement), skinOf(*over)});
    }
}

Polyline Plan::finished(const Piece& over, const Placement& at) const
{
    for (const auto& s : p.seams)
        if (s.stitch == "topstitch")
            for (const auto* side : {&s.a, &s.b})
                for (const auto* mate : {&s.a, &s.b})
                    if (side != mate && side->front().piece == over.key && p.piece(mate->front().piece)
                        && !p.piece(mate->front().piece)->edge(mate->front().edge))
                        if (Polyline rows = flattened(runOf(*mate), kStep);
                            rows.size() > 2 && std::abs(areaOf(lineRun(rows))) > 400)
                            return rows;
    return placedAll(outlineOf(over), at);
}

bool Plan::done(const PieceId& thing) const
{
    for (const auto& step : p.steps) {
        if (step.id == m_step.id)
            return false;
        for (const auto& act : step.acts)
            if (act.verb == Verb::StitchOn)
                for (const auto& key : act.seams)
                    if (const Seam* s = p.seam(key))
                        for (const auto* side : {&s->a, &s->b})
                            if (side->front().piece == thing)
                                return true;
    }
    return false;
}

namespace {

using Verb = Act::Verb;

int weight(Verb verb)
{
    switch (verb) {
    case Verb::JoinCoats:
    case Verb::DropIn: return 9;
    case Verb::Box:
    case Verb::Window:
    case Verb::SewTape:
    case Verb::InsertZip: return 8;
    case Verb::Sew: return 7;
    case Verb::BoxOn:
    case Verb::Hinge:
    case Verb::Interline:
    case Verb::RoundCorners:
    case Verb::Quilt:
    case Verb::CutToShape:
    case Verb::StitchOn: return 6;
    case Verb::Lay:
    case Verb::LayOver:
    case Verb::LayTape:
    case Verb::Line: return 5;
    case Verb::TurnBag:
    case Verb::CloseOpening:
    case Verb::PutIn:
    case Verb::Insert:
    case Verb::WrapOver:
    case Verb::Turn: return 4;
    case Verb::Set:
    case Verb::Bind:
    case Verb::Pleat:
    case Verb::Rows:
    case Verb::Buttonhole:
    case Verb::Glue: return 3;
    case Verb::FoldUp:
    case Verb::Crease: return 2;
    default: return 1;
    }
}

} // namespace

bool insideLeft(const Pattern& p, const std::vector<EdgeUse>& side)
{
    const Piece* piece = p.piece(side.front().piece);
    const bool outline = piece && piece->edge(side.front().edge);
    return !outline || !side.front().reversed;
}

Run runOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    Run out;
    for (const auto& use : side)
        for (const auto& segment : p.runOf(use))
            out.push_back(segment);
    return out;
}

std::optional<Placement> laidOver(
    const Pattern& p, const std::vector<EdgeUse>& upper, const Run& edge, bool left, double slack)
{
    const Run own = runOf(p, upper);
    const Piece* piece = p.piece(upper.front().piece);
    // A copy that is cut mirrored shows its wrong side as it is drawn.
    const bool mirroredCopy = piece && piece->mirrored > 0 && upper.front().copy >= piece->count - piece->mirrored;
    return laidOn((insideLeft(p, upper) == mirroredCopy) == left ? own : reversed(own), edge, !mirroredCopy, slack);
}

Skin skinOf(const Piece& piece)
{
    switch (piece.coat) {
    case Coat::Lining: return Skin::Lining;
    case Coat::Strip: return Skin::Strip;
    case Coat::Interlining: return Skin::Padding;
    default: return Skin::Shell;
    }
}

const Act* leadingAct(const Step& step)
{
    const Act* out = nullptr;
    for (const auto& act : step.acts)
        if (!out || weight(act.verb) > weight(out->verb))
            out = &act;
    return out;
}

bool movesPieces(const Act& act) { return weight(act.verb) > 1 && !(act.verb == Verb::TurnBag && act.seams.empty()); }

namespace {

/// The face that a step puts its part onto, where the piece of it does not lie as it stands in the bag. Null if there
/// is none.
const Site* toStandUp(const Pattern& p, const Step& step)
{
    const PartId part = step.id.owner();
    const auto held = [&](const PartId& each) { // connectors on both side walls have their choice in name only
        const auto how = p.choices.find(each.text() + ".held");
        return how != p.choices.end() && how->second == "walls";
    };
    const auto within = [&](const Site& site, Point onPiece) {
        const Point q = site.upright(onPiece);
        return std::abs(q.x - site.x) < site.width && q.y < site.top + 60 && q.y > site.top - site.height - 60;
    };
    const auto chosen = p.choices.find(part.text() + ".site");
    for (const auto& site : p.sites)
        for (const auto& piece : site.pieces) {
            // A piece may be several faces: what sits on one by its choice sits on no other.
            if (part.empty() || site.turn == 0
                || (chosen != p.choices.end() && !held(part) && site.name.text() != chosen->second)
                || std::find(step.pieces.begin(), step.pieces.end(), piece) == step.pieces.end())
                continue;
            for (const auto& place : p.places)
                if (place.feature == part && place.piece == piece && within(site, place.area.centre()))
                    return &site;
            for (const auto& fitting : p.fittings)
                if (fitting.owner() == part && fitting.piece == piece && within(site, fitting.at)
                    && std::find(step.fittings.begin(), step.fittings.end(), fitting.key) != step.fittings.end())
                    return &site;
        }
    return nullptr;
}

} // namespace

Scene planOf(const Pattern& pattern, const Step& step)
{
    static const Act none{.verb = Verb::Note};
    const Act* act = leadingAct(step);
    if (const Site* site = toStandUp(pattern, step)) {
        Pattern upright = pattern;
        for (const auto& piece : site->pieces)
            turnPiece(upright, piece, site->turn);
        return Plan(upright, step, act ? *act : none).scene();
    }
    return Plan(pattern, step, act ? *act : none).scene();
}

} // namespace tectonis
