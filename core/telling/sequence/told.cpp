// SPDX-License-Identifier: GPL-3.0-or-later
// The words of steps: what their sentences are made of, and which act says what.
#include "sequence/telling.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/presser_foot.hpp"
#include "sequence/table.hpp"
#include "words/language.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

namespace tectonis {

StepWords Telling::words()
{
    for (const auto& act : m_step.acts) {
        say_(act);
        m_out.drying = std::max(m_out.drying, dryingOf(p, act));
    }
    m_out.tools = m_tools.empty() ? m_step.tools : m_tools;
    for (const auto& tool : m_out.tools)
        m_out.tool = m_out.tool.empty() ? tool : say("{}, {}", m_out.tool, tool);
    if (m_out.stitch.empty())
        m_out.stitch = m_step.stitch;
    needle();
    if (!m_step.check.empty())
        m_out.check = m_step.check;
    m_out.cautions.insert(m_out.cautions.end(), m_step.cautions.begin(), m_step.cautions.end());
    return std::move(m_out);
}

void Telling::needle()
{
    if (m_out.stitch.empty())
        return;
    bool leather = false;
    for (const auto& id : m_step.pieces)
        if (const Material* cloth = clothOf(id)) {
            m_out.needle = std::max(m_out.needle, needleOf(*cloth));
            leather |= cloth->kind == "leather";
        }
    if (m_out.needle > 0)
        m_out.stitch = leather ? say("{}; needle {}, leather point", m_out.stitch, Num(m_out.needle))
                               : say("{}; needle {}", m_out.stitch, Num(m_out.needle));
}

const Piece* Telling::standing(const PieceId& id) const
{
    if (const Piece* piece = p.piece(id))
        return piece;
    for (const auto& piece : p.pieces)
        if (halfOf(piece.name) && (piece.whole == id || piece.key.text().starts_with(id.text() + ".")))
            return &piece;
    return nullptr;
}

const Message* Telling::halfOf(const Message& name)
{
    return name.source() == "{}, upper" || name.source() == "{}, lower"
        ? std::get_if<Message>(&name.arguments().front())
        : nullptr;
}

Message Telling::nameOf(const PieceId& id) const
{
    const Piece* piece = standing(id);
    if (!piece)
        return naming(id.text());
    Message name = piece->name;
    if (piece->key != id) { // joined again by now: it is called as it was before it was cut
        const auto depth = [](const PieceId& key) { return std::ranges::count(key.text(), '.'); };
        for (auto levels = depth(piece->key) - depth(id); levels > 0 && halfOf(name); --levels)
            name = Message(*halfOf(name));
    }
    return placed(name);
}

Message Telling::placed(const Message& name)
{
    const Message* whole = halfOf(name);
    if (!whole)
        return within(name);
    const bool upper = name.source() == "{}, upper";
    if (halfOf(*whole))
        return upper ? say("upper part of the {}", placed(*whole)) : say("lower part of the {}", placed(*whole));
    return upper ? say("upper {}", within(*whole)) : say("lower {}", within(*whole));
}

bool Telling::several(const PieceId& id) const
{
    const Piece* piece = p.piece(id);
    return piece && piece->count > 1;
}

Message Telling::namesOf(const std::vector<PieceId>& ids) const
{
    Message out;
    for (std::size_t i = 0; i < ids.size(); ++i)
        out = i == 0             ? nameOf(ids[i])
            : i + 1 < ids.size() ? say("{}, {}", out, nameOf(ids[i]))
                                 : say("{} and {}", out, nameOf(ids[i]));
    return out;
}

std::vector<const Seam*> Telling::seamsOf(const Act& act) const
{
    std::vector<const Seam*> out;
    for (const auto& key : act.seams)
        if (const Seam* seam = p.seam(key))
            out.push_back(seam);
    return out;
}

const Material* Telling::clothOf(const PieceId& id) const
{
    const Piece* piece = standing(id);
    const auto it = piece ? p.materials.find(piece->material) : p.materials.end();
    return it == p.materials.end() ? nullptr : &p.material(it->second);
}

std::vector<PieceId> Telling::handled(const Act& act) const
{
    std::vector<PieceId> out = act.pieces;
    for (const Seam* seam : seamsOf(act))
        for (const auto* side : {&seam->a, &seam->b})
            for (const auto& id : piecesOf(*side))
                out.push_back(id);
    return out.empty() ? m_step.pieces : out;
}

bool Telling::noIron(const Act& act) const
{
    return anyCloth(handled(act), [](const Material& m) { return !m.heat; });
}

bool Telling::holesStay(const Act& act) const
{
    return anyCloth(handled(act), [](const Material& m) { return m.keepsHoles(); });
}

bool Telling::sticks(const Act& act) const
{
    return anyCloth(handled(act), [](const Material& m) { return m.sticks(); });
}

bool Telling::hasHandles() const
{
    return std::any_of(p.pieces.begin(), p.pieces.end(), [](const Piece& piece) { return piece.role == "handle"; });
}

bool Telling::carriesFlap(const Act& act) const
{
    const auto isFlap = [&](const EdgeUse& use) {
        const Piece* piece = p.piece(use.piece);
        return piece && piece->role == "flap";
    };
    const auto seams = seamsOf(act);
    const auto here = [&](const EdgeUse& use) {
        return std::any_of(seams.begin(), seams.end(), [&](const Seam* seam) {
            const auto same = [&](const EdgeUse& each) { return each.piece == use.piece; };
            return std::any_of(seam->a.begin(), seam->a.end(), same)
                || std::any_of(seam->b.begin(), seam->b.end(), same);
        });
    };
    const auto any = [](const std::vector<EdgeUse>& side, const auto& is) {
        return std::any_of(side.begin(), side.end(), is);
    };
    for (const Seam* seam : seams)
        if (any(seam->a, isFlap) || any(seam->b, isFlap)
            || std::any_of(seam->trapped.begin(), seam->trapped.end(), [&](const PieceId& id) {
                   return isFlap({id, {}});
               }))
            return false; // it is the flap that is sewn
    return std::any_of(p.seams.begin(), p.seams.end(), [&](const Seam& seam) {
        return (any(seam.a, isFlap) && any(seam.b, here)) || (any(seam.b, isFlap) && any(seam.a, here));
    });
}

void Telling::addEither(const Message& full, const Message& terse)
{
    m_out.text = together(m_out.text, full);
    m_out.terse = together(m_out.terse, terse);
}

void Telling::tool(const Message& tool)
{
    if (std::find(m_tools.begin(), m_tools.end(), tool) == m_tools.end())
        m_tools.push_back(tool);
}

void Telling::stitch(const Message& stitch)
{
    if (m_out.stitch.empty())
        m_out.stitch = stitch;
}

void Telling::caution(const Message& caution)
{
    if (std::find(m_out.cautions.begin(), m_out.cautions.end(), caution) == m_out.cautions.end())
        m_out.cautions.push_back(caution);
}

void Telling::say_(const Act& act)
{
    m_sewn = false, m_byHand = allByHand(act);
    sentences(act);
    byHand(act);
    if (m_sewn)
        if (const PresserFoot foot = footOf(act, sticks(act), p.workshop); foot != PresserFoot::Standard)
            tool(tectonis::nameOf(foot));
    if (m_out.seamClass.empty())
        m_out.seamClass = seamClassOf(act);
    // Of a box and of what is put in the form's own words stand for all.
    if (!act.note.empty() && act.verb != Verb::Note && act.verb != Verb::Box && act.verb != Verb::PutIn)
        add(act.note);
}

Message Telling::seamClassOf(const Act& act)
{
    switch (act.verb) {
    case Verb::Sew:
    case Verb::JoinCoats: return say("1, superimposed");
    case Verb::StitchOn:
    case Verb::DropIn: return say("2, lapped");
    case Verb::Bind: return say("3, bound");
    case Verb::Hem:
    case Verb::HemEnds: return say("6, edge finished");
    case Verb::FoldStrip: return act.distance > 0 ? say("8, one folded strip") : Message();
    default: return {};
    }
}

void Telling::sentences(const Act& act)
{
    switch (act.verb) {
    case Verb::Interline: return interline(act);
    case Verb::Preshrink: return preshrink(act);
    case Verb::Quilt: return quilt(act);
    case Verb::CutToShape: return cutToShape(act);
    case Verb::RoundCorners: return roundCorners(act);
    case Verb::LayOver: return layOver(act);
    case Verb::LayTape: return layTape(act);
    case Verb::Insert: return insert(act);
    case Verb::Hinge: return hinge(act);
    case Verb::Rows: return rows(act);
    case Verb::BarTack: return barTack(act);
    case Verb::FoldUp: return add(say("Fold the {} up, its upper edges level.", nameOf(act.pieces.front())));
    case Verb::Crease:
        return add(say("Fold the {} lengthwise at its line, wrong sides together, crease and unfold.",
            nameOf(act.pieces.front())));
    case Verb::Pleat: return pleat(act);
    case Verb::HoldAway: return add(say("Hold the {} out of the way.", namesOf(act.pieces)));
    case Verb::HemEnds:
        machine();
        return add(say("Fold both ends of the {} in by {} and stitch.", nameOf(act.pieces.front()), Len(act.distance)));
    case Verb::DrawIn: return drawIn(act);
    case Verb::WrapOver: return wrapOver(act);
    case Verb::SealCut: return sealCut(act);
    case Verb::Buttonhole: return buttonhole(act);
    case Verb::Sew: return sew(act);
    case Verb::StitchOn: return stitchOn(act);
    case Verb::Lay: return lay(act);
    case Verb::Line: return line(act);
    case Verb::Baste: return baste(act);
    case Verb::Topstitch: return topstitch(act);
    case Verb::Roll: return roll(act);
    case Verb::Press: return press(act);
    case Verb::FoldStrip: return foldStrip(act);
    case Verb::FoldInHalf: return foldInHalf(act);
    case Verb::Clip: return clip(act);
    case Verb::Notch: return notch(act);
    case Verb::Grade: return grade(act);
    case Verb::Stagger: return stagger(act);
    case Verb::Hammer: return hammer(act);
    case Verb::Turn: return turn(act);
    case Verb::TurnBag: return turnBag(act);
    case Verb::Set: return set(act);
    case Verb::Window: return window(act);
    case Verb::InsertZip: return insertZip(act);
    case Verb::OpenZip:
        tool(say("hands"));
        check(say("A hand passes through."));
        return add(say("Open the zip at least half way."));
    case Verb::SewTape: return sewTape(act);
    case Verb::SliderOn: return sliderOn(act);
    case Verb::CutDown: return cutDown(act);
    case Verb::SealEnds: return sealEnds(act);
    case Verb::FoldEnds: return foldEnds(act);
    case Verb::CapEnds: return capEnds(act);
    case Verb::Hem: return hem(act);
    case Verb::FoldIn: return foldIn(act);
    case Verb::JoinStrips: return joinStrips(act);
    case Verb::Overcast: return overcast();
    case Verb::Fell: return fell(act);
    case Verb::BagSeam: return bagSeam(act);
    case Verb::Bind: return bind(act);
    case Verb::WrapCord: return wrapCord(act);
    case Verb::Box:
        m_folded = true, m_onLine = act.taken > 0;
        return add(act.note.empty() ? say("Pull each corner apart until its two seams lie on each other.") : act.note);
    case Verb::Glue: return glue(act);
    case Verb::Paint: return paint();
    case Verb::ThreadStrap: return threadStrap(act);
    case Verb::ThreadTails: return threadTails(act);
    case Verb::ThreadCord: return threadCord(act);
    case Verb::Trim: return trim(act);
    case Verb::BoxOn: return boxOn(act);
    case Verb::Ring: return ring(act);
    case Verb::JoinCoats: return joinCoats(act);
    case Verb::DropIn: return dropIn(act);
    case Verb::PutIn: return putIn(act);
    case Verb::CloseOpening: return closeOpening(act);
    case Verb::Note: return add(act.note);
    }
}

StepWords told(const Pattern& pattern, const Step& step)
{
    StepWords out = Telling(pattern, step).words();
    if (const auto own = pattern.ownWords.find(step.id); own != pattern.ownWords.end()) {
        out.own = true;
        out.derived = std::exchange(out.text, naming(own->second.text));
        out.outdated = tectonis::words(out.derived) != own->second.was;
    }
    return out;
}

std::vector<Message> factsOf(const StepWords& words)
{
    std::vector<Message> facts;
    for (const Message* each : {&words.tool, &words.stitch})
        if (!each->empty())
            facts.push_back(*each);
    if (words.allowance > 0)
        facts.push_back(say("allowance {}", Len(words.allowance)));
    if (words.drying > 0)
        facts.push_back(say("{} min to dry", Num(words.drying, 0)));
    return facts;
}

} // namespace tectonis
