// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/order.hpp"

#include "sequence/touching.hpp"

#include "library/library.hpp"
#include "pattern/act_words.hpp"
#include "units/length.hpp"

#include <algorithm>
#include <map>
#include <set>
#include <stdexcept>

namespace tectonis {
namespace {

/// One step for each way of fixing, over all pieces that have such a layer.
std::vector<Step> interliningSteps(const Drafter& d)
{
    static const std::vector<std::pair<std::string, Message>> fixings{{"fused", say("Fuse the interlinings")},
        {"basted", say("Baste the interlinings")}, {"glued", say("Glue layers and patches")},
        {"loose", say("Lay the loose interlinings to their pieces")}};
    std::vector<Step> out;
    for (const auto& [fixing, title] : fixings) {
        std::vector<Act> acts; // one for each material
        std::vector<MaterialId> materials;
        std::vector<PieceId> pieces;
        for (const auto& piece : d.pattern.pieces)
            for (const auto& layer : piece.layers)
                if (layer.fixing == fixing) {
                    const auto known = std::find(materials.begin(), materials.end(), layer.material);
                    const auto at = std::size_t(known - materials.begin());
                    if (known == materials.end())
                        materials.push_back(layer.material), acts.push_back({.verb = Act::Verb::Interline});
                    acts[at].layers.push_back(layer.id);
                    if (pieces.empty() || pieces.back() != piece.key)
                        pieces.push_back(piece.key);
                }
        if (!pieces.empty())
            out.push_back({.id = "interline." + fixing,
                .title = title,
                .acts = std::move(acts),
                .kind = StepKind::Interline,
                .phase = "Interlinings",
                .pieces = std::move(pieces)});
    }
    return out;
}

bool isQuilted(const Piece& piece)
{
    return std::any_of(piece.layers.begin(), piece.layers.end(), [](const Layer& l) { return l.quilted > 0; });
}

/// Cloth that shrinks, where the designer wants it washed before it is cut.
std::vector<Step> washingSteps(const Drafter& d)
{
    std::vector<PieceId> pieces;
    if (d.choice("washing") == "before")
        for (const auto& piece : d.pattern.pieces)
            if (const auto cloth = d.pattern.materials.find(piece.material);
                cloth != d.pattern.materials.end() && d.pattern.material(cloth->second).shrink > 0)
                pieces.push_back(piece.key);
    if (pieces.empty())
        return {};
    return {{.id = "preshrink",
        .title = say("Wash the cloth"),
        .acts = {{.verb = Act::Verb::Preshrink, .pieces = pieces}},
        .kind = StepKind::Interline,
        .phase = "Interlinings",
        .pieces = pieces}};
}

/// Blocks that are quilted, and then cut to shape.
std::vector<Step> quiltingSteps(const Drafter& d)
{
    std::vector<PieceId> pieces;
    std::vector<LayerId> layers;
    for (const auto& piece : d.pattern.pieces)
        if (isQuilted(piece)) {
            pieces.push_back(piece.key);
            for (const auto& layer : piece.layers)
                if (layer.quilted > 0)
                    layers.push_back(layer.id);
        }
    if (pieces.empty())
        return {};
    const auto step = [&](const char* id, Message title, Act act) {
        act.pieces = pieces;
        return Step{.id = id,
            .title = std::move(title),
            .acts = {std::move(act)},
            .kind = StepKind::Interline,
            .phase = "Interlinings",
            .pieces = pieces};
    };
    return {step("quilt", say("Quilt the blocks"), {.verb = Act::Verb::Quilt, .layers = layers}),
        step("quilt.cut", say("Cut the quilted pieces to shape"), {.verb = Act::Verb::CutToShape})};
}

/// Round corners that are left square while the piece is cut.
std::vector<Step> roundingSteps(const Drafter& d)
{
    std::vector<PieceId> pieces;
    for (const auto& piece : d.pattern.pieces)
        if (!piece.rough.empty() && !isQuilted(piece))
            pieces.push_back(piece.key);
    if (pieces.empty())
        return {};
    return {{.id = "corners.round",
        .title = say("Round the corners"),
        .acts = {{.verb = Act::Verb::RoundCorners, .pieces = pieces}},
        .kind = StepKind::Interline,
        .phase = "Interlinings",
        .pieces = pieces}};
}

/// What a part of a divided step does, as the rules see it.
StepKind kindOf(const std::vector<Act>& acts, StepKind whole)
{
    using Verb = Act::Verb;
    if (whole != StepKind::Seam && whole != StepKind::Turn && whole != StepKind::Topstitch)
        return whole;
    static const std::pair<Verb, StepKind> telling[]{{Verb::CloseOpening, StepKind::CloseOpening},
        {Verb::Sew, StepKind::Seam}, {Verb::JoinCoats, StepKind::Seam}, {Verb::DropIn, StepKind::Seam},
        {Verb::StitchOn, StepKind::Seam}, {Verb::Bind, StepKind::Seam}, {Verb::Set, StepKind::Hardware},
        {Verb::TurnBag, StepKind::Turn}, {Verb::Turn, StepKind::Turn}, {Verb::Lay, StepKind::Baste},
        {Verb::Baste, StepKind::Baste}, {Verb::Topstitch, StepKind::Topstitch}, {Verb::Roll, StepKind::Topstitch},
        {Verb::Clip, StepKind::Clip}, {Verb::Notch, StepKind::Press}, {Verb::Grade, StepKind::Press},
        {Verb::Press, StepKind::Press}};
    for (const auto& [verb, kind] : telling)
        if ((kind != StepKind::Seam || whole == kind)
            && std::any_of(acts.begin(), acts.end(), [v = verb](const Act& act) { return act.verb == v; }))
            return kind;
    return whole;
}

std::vector<PieceId> piecesWithLayers(const Pattern& p, const std::vector<Act>& acts)
{
    std::vector<PieceId> out;
    for (const auto& piece : p.pieces)
        if (std::any_of(piece.layers.begin(), piece.layers.end(), [&](const Layer& layer) {
                return std::any_of(acts.begin(), acts.end(), [&](const Act& act) {
                    return std::find(act.layers.begin(), act.layers.end(), layer.id) != act.layers.end();
                });
            }))
            out.push_back(piece.key);
    return out;
}

/// The places among its acts before which a step is to be divided, each with the verb's name; from the front.
std::map<std::size_t, std::string> cutsOf(const Design& design, const Step& step)
{
    std::map<std::size_t, std::string> out;
    for (const auto& split : design.splits) {
        const auto verb = split.step == step.id.text() ? verbOf(split.verb) : std::nullopt;
        int nth = 0;
        for (std::size_t i = 0; verb && i < step.acts.size(); ++i)
            if (step.acts[i].verb == *verb && ++nth == split.nth && i > 0)
                out.emplace(i, split.nth > 1 ? split.verb + "-" + std::to_string(split.nth) : split.verb);
    }
    return out;
}

/// Of the parts of a step, from @p first on: a piece that only a later part handles is taken up there.
void takeUpWhenNeeded(const Pattern& p, std::vector<Step>& steps, std::size_t first)
{
    const auto handles = [](const Step& step, const WorkId& part) {
        return std::any_of(
            step.pieces.begin(), step.pieces.end(), [&](const PieceId& piece) { return WorkId(piece) == part; });
    };
    std::vector<WorkId>& taken = steps[first].consumes;
    for (const auto& part : std::vector<WorkId>(taken)) {
        if (taken.size() == 1 || !p.piece(part.text()) || part == steps[first].yields || handles(steps[first], part))
            continue;
        for (std::size_t i = first + 1; i < steps.size(); ++i)
            if (handles(steps[i], part)) {
                std::erase(taken, part);
                steps[i].consumes.push_back(part);
                break;
            }
    }
}

/// Steps that the designer tells in parts. Each goes on with what the one before it began; what a form says of the
/// whole is told with the first, its check with the last.
void divideSteps(Drafter& d)
{
    std::vector<Step> out;
    for (auto& whole : d.pattern.steps) {
        const auto cuts = cutsOf(d.design, whole);
        if (cuts.empty()) {
            out.push_back(std::move(whole));
            continue;
        }
        const std::size_t firstPart = out.size();
        std::size_t from = 0;
        StepId begunBy;
        for (auto cut = cuts.begin();; ++cut) {
            const bool last = cut == cuts.end();
            const std::size_t to = last ? whole.acts.size() : cut->first;
            Step part = whole;
            part.acts.assign(whole.acts.begin() + std::ptrdiff_t(from), whole.acts.begin() + std::ptrdiff_t(to));
            part.kind = kindOf(part.acts, whole.kind);
            part.pieces = part.kind == StepKind::Interline ? piecesWithLayers(d.pattern, part.acts)
                                                           : std::vector<PieceId>();
            part.seams.clear(), part.fittings.clear(), part.opensZips.clear();
            part.turnsThrough = false;
            part = gathered(d.pattern, std::move(part));
            if (from > 0) {
                part.id = OwnName{whole.id.owner().text(), whole.id.name() + "/" + std::prev(cut)->second};
                part.title = say("{}: {}", whole.title, within(titleOf(part.acts.front().verb)));
                part.cautions.clear(), part.tools.clear(), part.stitch = {};
                part.goesOnFrom = begunBy;
                if (!part.yields.empty())
                    part.consumes = {part.yields};
            }
            if (!last)
                part.check = {}, part.closesZips.clear();
            begunBy = part.id, from = to;
            out.push_back(std::move(part));
            if (last)
                break;
        }
        takeUpWhenNeeded(d.pattern, out, firstPart);
        // What the whole handles though no act names it is taken up with the first part.
        for (const auto& piece : whole.pieces)
            if (std::none_of(out.begin() + std::ptrdiff_t(firstPart), out.end(), [&](const Step& part) {
                    return std::find(part.pieces.begin(), part.pieces.end(), piece) != part.pieces.end();
                }))
                out[firstPart].pieces.push_back(piece);
    }
    d.pattern.steps = std::move(out);
}

} // namespace

const std::vector<std::string>& phases()
{
    static const std::vector<std::string> all = [] {
        std::vector<std::string> out;
        for (const Label& phase : {label("Interlinings"), label("Small parts"), label("Shell front"),
                 label("Shell back"), label("Shell gusset"), label("Shell assembly"), label("Lining"), label("Joining"),
                 label("Closing"), label("Strap")})
            out.push_back(phase.source);
        return out;
    }();
    return all;
}

void proposeOrder(Drafter& d)
{
    std::vector<Step>& ordered = d.pattern.steps;
    ordered = washingSteps(d); // their phase is the first
    for (auto& step : quiltingSteps(d))
        ordered.push_back(std::move(step));
    for (auto& step : interliningSteps(d))
        ordered.push_back(std::move(step));
    for (auto& step : roundingSteps(d))
        ordered.push_back(std::move(step));
    ordered.reserve(ordered.size() + d.steps.size() + d.design.ownSteps.size());
    std::vector<std::vector<Step*>> byPhase(phases().size());
    for (auto& step : d.steps) {
        const auto phase = std::find(phases().begin(), phases().end(), step.phase);
        if (phase == phases().end())
            throw std::logic_error("a step names a phase that is not in phases()");
        byPhase[std::size_t(phase - phases().begin())].push_back(&step);
    }
    for (const auto& steps : byPhase)
        for (Step* step : steps)
            ordered.push_back(std::move(*step));
    d.steps.clear();
}

namespace {

/// A part from the steps that made it to the last that worked on it.
struct Making {
    std::vector<std::size_t> made;       ///< the step that yielded it first, or the layers of a piece
    std::vector<std::size_t> works;      ///< steps that took it and left it, in their order
    std::vector<std::vector<bool>> past; ///< of each: which works came before it because they touch
};

/// What step @p i waits for of a part: the works that it touches, none of which another of them waits for; else those
/// that made it. Notes it as one more work if it leaves the part.
std::vector<std::size_t> awaited(const Pattern& p, Making& part, std::size_t i, const WorkId& id)
{
    std::vector<std::size_t> out;
    std::vector<bool> past(part.works.size(), false);
    for (std::size_t k = part.works.size(); k-- > 0;)
        if (!past[k] && touch(p, p.steps[part.works[k]], p.steps[i], id)) {
            out.push_back(part.works[k]);
            past[k] = true;
            for (std::size_t j = 0; j < k; ++j)
                past[j] = past[j] || part.past[k][j];
        }
    if (out.empty())
        out = part.made;
    if (p.steps[i].yields == id) {
        part.works.push_back(i);
        part.past.push_back(std::move(past));
    }
    return out;
}

} // namespace

std::vector<Link> linksOf(const Pattern& p)
{
    std::vector<Link> out;
    std::map<WorkId, Making> parts;
    for (std::size_t i = 0; i < p.steps.size(); ++i) {
        const Step& s = p.steps[i];
        if (s.kind == StepKind::Interline) {
            for (const auto& piece : s.pieces)
                parts[piece].made.push_back(i);
            continue; // layers go on in any order
        }
        bool left = false;
        for (const auto& part : s.consumes) {
            for (const auto before : awaited(p, parts[part], i, part))
                out.push_back({before, i, part});
            left |= part == s.yields;
        }
        if (!s.goesOnFrom.empty())
            for (std::size_t k = 0; k < i; ++k)
                if (p.steps[k].id == s.goesOnFrom)
                    out.push_back({k, i, s.yields});
        if (!s.yields.empty() && !left)
            parts[s.yields] = {{i}, {}, {}};
    }
    return out;
}

void addOwnSteps(Drafter& d)
{
    if (!d.design.splits.empty())
        divideSteps(d);
    for (const auto& each : d.design.joined)
        if (const Step* first = d.pattern.step(each.first), *then = d.pattern.step(each.then); first && then)
            d.pattern.joined.insert({first->id, then->id});
    std::vector<Step>& steps = d.pattern.steps;
    for (const auto& own : d.design.ownSteps) {
        auto at = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.id == own.after; });
        Step step{.id = OwnName{"", own.id},
            .title = naming(own.title),
            .acts = {act::note(naming(own.text))},
            .kind = StepKind::Flat,
            .phase = at != steps.end() ? at->phase : phases().back(),
            .ownMinutes = own.minutes};
        steps.insert(at != steps.end() ? at + 1 : at, std::move(step));
    }
    for (const auto& s : steps) {
        const std::string id = s.id.text();
        if (const auto own = d.design.ownWords.find(id); own != d.design.ownWords.end())
            d.pattern.ownWords[s.id] = {own->second.text, own->second.was};
        if (std::find(d.design.hiddenSteps.begin(), d.design.hiddenSteps.end(), id) != d.design.hiddenSteps.end())
            d.pattern.hidden.insert(s.id);
    }
}

namespace {

/// What has to come before what: what steps make for others, and wishes.
class Constraints {
public:
    Constraints(const Design& design, const Pattern& p) : m_next(p.steps.size())
    {
        if (design.wishes.empty())
            return;
        for (const auto& link : linksOf(p))
            m_next[link.before].push_back({link.after, false});
        for (const auto& wish : design.wishes) {
            const Step *first = p.step(wish.first), *then = p.step(wish.then);
            if (!first || !then)
                continue; // it waits for them
            const auto from = std::size_t(first - p.steps.data()), to = std::size_t(then - p.steps.data());
            if (VainWish vain{wish, {}, false}; leads(to, from, vain))
                m_vain.push_back(std::move(vain));
            else
                m_next[from].push_back({to, true});
        }
    }

    const std::vector<VainWish>& vain() const { return m_vain; }

    /// @p order changed as little as wishes ask for: each time the first step that nothing left has to come before.
    std::vector<std::size_t> kept(const std::vector<std::size_t>& order) const
    {
        std::vector<std::size_t> at(order.size()), waits(order.size(), 0), out;
        for (std::size_t i = 0; i < order.size(); ++i)
            at[order[i]] = i;
        // Of what is made for others only what the given order keeps binds: it may break rules, and is told so.
        const auto binds = [&](std::size_t from, const Next& next) { return next.wish || at[from] < at[next.step]; };
        for (std::size_t i = 0; i < m_next.size(); ++i)
            for (const auto& next : m_next[i])
                waits[next.step] += binds(i, next);
        std::vector<bool> done(order.size(), false);
        while (out.size() < order.size()) {
            const auto free = std::find_if(
                order.begin(), order.end(), [&](std::size_t i) { return !done[i] && waits[i] == 0; });
            if (free == order.end())
                return order;
            done[*free] = true;
            out.push_back(*free);
            for (const auto& next : m_next[*free])
                waits[next.step] -= binds(*free, next);
        }
        return out;
    }

private:
    struct Next {
        std::size_t step;
        bool wish;
    };

    bool leads(std::size_t from, std::size_t to, VainWish& vain) const
    {
        std::vector<std::pair<std::size_t, bool>> came(m_next.size(), {m_next.size(), false}); // from where, by a wish?
        std::vector<std::size_t> open{from};
        while (!open.empty()) {
            const std::size_t i = open.back();
            open.pop_back();
            for (const auto& next : m_next[i])
                if (next.step != from && came[next.step].first == m_next.size())
                    came[next.step] = {i, next.wish}, open.push_back(next.step);
        }
        if (came[to].first == m_next.size())
            return false;
        for (std::size_t i = to; i != from; i = came[i].first)
            vain.chain.push_back(i), vain.byWishes |= came[i].second;
        vain.chain.push_back(from);
        std::reverse(vain.chain.begin(), vain.chain.end());
        return true;
    }

    std::vector<std::vector<Next>> m_next;
    std::vector<VainWish> m_vain;
};

} // namespace

std::vector<VainWish> vainWishes(const Design& design, const Pattern& p) { return Constraints(design, p).vain(); }

std::vector<std::size_t> orderOf(const Design& design, const Pattern& p)
{
    std::vector<std::size_t> order;
    std::vector<bool> placed(p.steps.size(), false);
    for (const auto& id : design.stepOrder)
        for (std::size_t i = 0; i < p.steps.size(); ++i)
            if (p.steps[i].id == id && !placed[i])
                order.push_back(i), placed[i] = true;
    for (std::size_t i = 0; i < p.steps.size(); ++i) {
        if (placed[i])
            continue;
        const auto before = i == 0 ? order.end() : std::find(order.begin(), order.end(), i - 1);
        order.insert(before == order.end() ? (i == 0 ? order.begin() : order.end()) : before + 1, i);
    }
    return design.wishes.empty() ? order : Constraints(design, p).kept(order);
}

std::vector<int> numbersOf(const Pattern& p, const std::vector<std::size_t>& order)
{
    std::vector<int> out;
    int number = 0;
    const Step* before = nullptr; // the last that is told
    for (const auto i : order) {
        const Step& step = p.steps[i];
        if (p.hidden.contains(step.id)) {
            out.push_back(0);
            continue;
        }
        if (!before || !p.joined.contains({before->id, step.id}))
            ++number;
        out.push_back(number);
        before = &step;
    }
    return out;
}

} // namespace tectonis
