// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/order.hpp"

#include "library/library.hpp"
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
        Act act{.verb = Act::Verb::Interline};
        std::vector<PieceId> pieces;
        for (const auto& piece : d.pattern.pieces)
            for (const auto& layer : piece.layers)
                if (layer.fixing == fixing) {
                    act.layers.push_back(layer.id);
                    if (pieces.empty() || pieces.back() != piece.key)
                        pieces.push_back(piece.key);
                }
        if (!pieces.empty())
            out.push_back({.id = "interline." + fixing,
                .title = title,
                .acts = {std::move(act)},
                .kind = StepKind::Interline,
                .phase = "Interlinings",
                .pieces = std::move(pieces)});
    }
    return out;
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
    ordered = interliningSteps(d); // their phase is the first
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

std::vector<Link> linksOf(const Pattern& p)
{
    std::vector<Link> out;
    std::map<WorkId, std::size_t> madeBy;             // part to the step that last yielded it
    std::map<WorkId, std::vector<std::size_t>> lined; // piece to the interlining steps
    for (std::size_t i = 0; i < p.steps.size(); ++i) {
        const Step& s = p.steps[i];
        if (s.kind == StepKind::Interline) {
            for (const auto& piece : s.pieces)
                lined[piece].push_back(i);
            continue;
        }
        for (const auto& part : s.consumes) {
            if (const auto made = madeBy.find(part); made != madeBy.end())
                out.push_back({made->second, i, part});
            else if (const auto it = lined.find(part); it != lined.end())
                for (const auto k : it->second)
                    out.push_back({k, i, part});
        }
        if (!s.yields.empty())
            madeBy[s.yields] = i;
    }
    return out;
}

void addOwnSteps(Drafter& d)
{
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

} // namespace tectonis
