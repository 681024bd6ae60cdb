// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/batches.hpp"

#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/presser_foot.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <algorithm>
#include <map>
#include <set>

namespace tectonis {
namespace {

using Verb = Act::Verb;

WorkPlace placeOfLayers(const Pattern& p, const Act& act)
{
    for (const auto& piece : p.pieces)
        for (const auto& layer : piece.layers)
            if (std::find(act.layers.begin(), act.layers.end(), layer.id) != act.layers.end())
                return layer.fixing == "fused" ? WorkPlace::Iron
                    : layer.fixing == "basted" ? WorkPlace::Machine
                    : layer.fixing == "glued"  ? WorkPlace::Adhesive
                                               : WorkPlace::Hand;
    return WorkPlace::Hand;
}

/// What is only another foot for other cloth changes nothing between two steps.
WorkPlace atMachine(const Act& act)
{
    return footOf(act, false, {}) == PresserFoot::Zip ? WorkPlace::ZipFoot : WorkPlace::Machine;
}

WorkPlace placeOfAct(const Pattern& p, const Act& act)
{
    switch (act.verb) {
    case Verb::Interline: return placeOfLayers(p, act);
    case Verb::Press:
    case Verb::Crease:
    case Verb::FoldIn: return WorkPlace::Iron;
    case Verb::Sew:
    case Verb::LayTape:
    case Verb::SewTape:
    case Verb::InsertZip:
    case Verb::Quilt:
    case Verb::StitchOn:
    case Verb::Insert:
    case Verb::Hinge:
    case Verb::Baste:
    case Verb::Topstitch:
    case Verb::Rows:
    case Verb::BarTack:
    case Verb::Roll:
    case Verb::FoldStrip:
    case Verb::Window:
    case Verb::Hem:
    case Verb::HemEnds:
    case Verb::DrawIn:
    case Verb::JoinStrips:
    case Verb::Overcast:
    case Verb::Fell:
    case Verb::BagSeam:
    case Verb::Bind:
    case Verb::WrapCord:
    case Verb::Buttonhole:
    case Verb::Box:
    case Verb::JoinCoats:
    case Verb::DropIn:
    case Verb::Pleat:
    case Verb::SealEnds:
    case Verb::FoldEnds:
    case Verb::CloseOpening: return atMachine(act);
    case Verb::BoxOn: return act.distance > 0 ? atMachine(act) : WorkPlace::Setting;
    case Verb::Set:
        return !act.uses.empty() && (act.uses.front() == Ware::HookAndLoop || act.uses.front() == Ware::SewnMagnet)
            ? atMachine(act)
            : WorkPlace::Setting;
    case Verb::Hammer:
    case Verb::CapEnds: return WorkPlace::Setting;
    case Verb::Glue:
    case Verb::Paint:
    case Verb::WrapOver: return WorkPlace::Adhesive;
    default: return WorkPlace::Hand;
    }
}

/// What must come before what, whatever the order: what steps make for others, every rule about two steps, wishes, and
/// own steps behind what they follow.
std::vector<std::vector<std::size_t>> followersOf(const Design& design, const Pattern& p)
{
    std::vector<std::vector<std::size_t>> next(p.steps.size());
    const auto add = [&](const std::string& before, const std::string& after) {
        if (const Step* a = p.step(before), *b = p.step(after); a && b)
            next[std::size_t(a - p.steps.data())].push_back(std::size_t(b - p.steps.data()));
    };
    for (const auto& link : linksOf(p))
        next[link.before].push_back(link.after);
    for (const auto& [first, second] : orderedPairs(p))
        next[first].push_back(second);
    for (const auto& own : design.ownSteps)
        add(own.after, own.id);
    const auto vain = vainWishes(design, p);
    for (const auto& wish : design.wishes)
        if (std::ranges::none_of(vain, [&](const VainWish& v) { return v.wish == wish; }))
            add(wish.first, wish.then);
    return next;
}

/// Puts steps into batches. To do all that can be done at a place before leaving it is never worse, so it only has to
/// be found in which order places are visited: breadth first, keeping at each depth those who have done most.
class Batching {
public:
    Batching(const Design& design, const Pattern& pattern)
        : p(pattern), m_order(orderOf(design, pattern)), m_next(followersOf(design, pattern))
    {
        for (const auto& step : p.steps)
            m_places.push_back(placeOf(p, step));
    }

    std::vector<std::size_t> order() const
    {
        constexpr std::size_t kept = 120;
        State start{{}, std::vector<int>(p.steps.size(), 0)};
        for (const auto& followers : m_next)
            for (const auto step : followers)
                ++start.waits[step];
        std::vector<State> states{std::move(start)};
        for (std::size_t depth = 0; depth <= p.steps.size(); ++depth) {
            for (const auto& state : states)
                if (state.out.size() == m_order.size())
                    return state.out;
            std::vector<State> further;
            std::set<std::vector<int>> seen;
            for (const auto& state : states)
                for (int place = 0; place <= int(WorkPlace::Hand); ++place)
                    if (State next = workedAt(state, WorkPlace(place));
                        next.out.size() > state.out.size() && seen.insert(next.waits).second)
                        further.push_back(std::move(next));
            std::ranges::stable_sort(
                further, [](const State& a, const State& b) { return a.out.size() > b.out.size(); });
            further.resize(std::min(further.size(), kept));
            states = std::move(further);
        }
        return m_order; // nothing was free: wishes or rules go round
    }

private:
    struct State {
        std::vector<std::size_t> out;
        std::vector<int> waits; ///< of each step: how many have to come before it; less than 0: it is done
    };

    /// All done that can be done at a place.
    State workedAt(State state, WorkPlace place) const
    {
        for (bool any = true; any;) {
            any = false;
            for (const auto i : m_order)
                if (state.waits[i] == 0 && m_places[i] == place) {
                    take(state, i), any = true;
                    break; // what that made free may come before what follows
                }
        }
        return state;
    }

    /// With those that are told as one with it.
    void take(State& state, std::size_t step) const
    {
        state.waits[step] = -1;
        state.out.push_back(step);
        for (const auto next : m_next[step])
            --state.waits[next];
        if (!p.joined.empty())
            for (const auto i : m_order)
                if (state.waits[i] == 0 && p.joined.contains({p.steps[step].id, p.steps[i].id}))
                    return take(state, i);
    }

    const Pattern& p;
    std::vector<std::size_t> m_order;
    std::vector<std::vector<std::size_t>> m_next;
    std::vector<WorkPlace> m_places;
};

/// Minutes for which a run has to stand still: each step is done on every bag, in turn, as soon as that bag is dry.
double waitingOf(const Pattern& p, const std::vector<std::size_t>& order, int bags)
{
    std::vector<std::map<WorkId, double>> wet(std::size_t(std::max(1, bags))); // until when, by bag
    double clock = 0, waited = 0;
    for (const auto i : order) {
        const Step& step = p.steps[i];
        const double minutes = minutesOf(p, step).result;
        for (auto& bag : wet) {
            double until = clock;
            for (const auto& part : step.consumes)
                if (const auto at = bag.find(part); at != bag.end())
                    until = std::max(until, at->second);
            waited += until - clock;
            clock = until + minutes;
            for (const auto& [part, drying] : wetAfter(p, step))
                bag[part] = clock + drying;
        }
    }
    return waited;
}

} // namespace

Label nameOf(WorkPlace place)
{
    switch (place) {
    case WorkPlace::Iron: return label("Iron");
    case WorkPlace::Machine: return label("Machine");
    case WorkPlace::ZipFoot: return label("Machine, zip foot");
    case WorkPlace::Setting: return label("Setting tools");
    case WorkPlace::Adhesive: return label("Adhesive and paint");
    case WorkPlace::Hand: return label("By hand");
    }
    return {};
}

WorkPlace placeOf(const Pattern& p, const Step& step)
{
    WorkPlace out = WorkPlace::Hand;
    for (const auto& act : step.acts)
        out = std::min(out, placeOfAct(p, act));
    return out;
}

std::vector<Batch> batchesOf(const Pattern& p, const std::vector<std::size_t>& order)
{
    std::vector<Batch> out;
    for (const auto i : order) {
        const WorkPlace place = placeOf(p, p.steps[i]);
        if (out.empty() || out.back().place != place)
            out.push_back({place, {}, 0});
        out.back().steps.push_back(i);
        out.back().minutes += minutesOf(p, p.steps[i]).result;
    }
    return out;
}

std::vector<std::size_t> batchedOrder(const Design& design, const Pattern& p) { return Batching(design, p).order(); }

BagRun runOf(const Pattern& p, const std::vector<std::size_t>& order, int bags)
{
    BagRun out{bags, batchesOf(p, order)};
    const double once = double(out.batches.size()) * p.workshop.setUp;
    double work = 0;
    for (const auto& batch : out.batches)
        work += batch.minutes;
    out.setUp = once, out.work = bags * work, out.waiting = waitingOf(p, order, bags);
    out.bagByBag = bags * (once + work + waitingOf(p, order, 1));
    return out;
}

} // namespace tectonis
