// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/table.hpp"

#include "sequence/minutes.hpp"
#include "sequence/rules.hpp"

#include <algorithm>
#include <map>
#include <set>

namespace tectonis {
namespace {

using Verb = Act::Verb;

template <class Item> bool holds(const std::vector<Item>& list, const Item& item)
{
    return std::find(list.begin(), list.end(), item) != list.end();
}

bool touches(const Step& s, const ZipId& zip)
{
    return holds(s.fittings, zip.as<FittingKind>())
        || std::any_of(s.acts.begin(), s.acts.end(), [&](const Act& a) { return holds(a.zips, zip); });
}

/// Goes through an order step by step.
class DryRun {
public:
    DryRun(const Pattern& pattern, const std::vector<std::size_t>& order)
        : p(pattern), m_broken(brokenRules(pattern, order))
    {
        for (const auto& piece : p.pieces)
            m_parts.insert(piece.key);
        for (const auto& zip : p.zips)
            m_zips.emplace_back(zip.key, Label{});
        for (const auto i : order) // what is turned by some step lies wrong side out before
            for (const auto& act : p.steps[i].acts)
                if (act.verb == Verb::Turn)
                    m_turned.insert(act.seams.begin(), act.seams.end());
                else if (act.verb == Verb::TurnBag)
                    m_bagTurns = true;
    }

    DryState after(std::size_t index)
    {
        const Step& s = p.steps[index];
        DryState state;
        state.waited = waitFor(s);
        m_clock += state.waited;
        m_minutes += minutesOf(p, s).result;
        m_clock += minutesOf(p, s).result;
        for (const auto& part : s.consumes)
            m_parts.erase(part);
        if (!s.yields.empty())
            m_parts.insert(s.yields);
        if (std::any_of(s.acts.begin(), s.acts.end(), [](const Act& act) { return !act.layers.empty(); }))
            m_lined.insert(s.pieces.begin(), s.pieces.end());
        openings(s);
        zips(s);
        sides(s);
        dries(s);
        const bool zipOpen = std::any_of(
            m_zips.begin(), m_zips.end(), [](const auto& z) { return z.second == "open"; });
        if (s.turnsThrough && m_opening != "open" && !zipOpen)
            state.problems.push_back(say("there is no open seam or zip to turn the bag through."));
        for (const auto& rule : m_broken)
            if (rule.early == index)
                state.problems.push_back(say("before “{}”: {}", p.steps[rule.late].title, rule.reason));
        state.parts.assign(m_parts.begin(), m_parts.end());
        state.layers.assign(m_lined.begin(), m_lined.end());
        state.opening = m_opening, state.zips = m_zips, state.minutes = m_minutes;
        state.sliders.assign(m_sliders.begin(), m_sliders.end());
        state.wrongSideOut.assign(m_wrong.begin(), m_wrong.end());
        for (const auto& [part, until] : m_wet)
            if (until > m_clock && m_parts.contains(part))
                state.wet.push_back({part, until - m_clock});
        state.reach = outOfReach(p, s);
        return state;
    }

private:
    void openings(const Step& s)
    {
        for (const auto& key : s.seams)
            if (const Seam* seam = p.seam(key); seam && seam->open > 0 && s.kind == StepKind::Seam)
                m_opening = label("open");
        if (s.kind == StepKind::CloseOpening)
            m_opening = label("closed");
    }

    void zips(const Step& s)
    {
        for (auto& [zip, now] : m_zips) {
            if (touches(s, zip) && now.empty())
                now = label("closed");
            if (holds(s.opensZips, zip))
                now = label("open");
            if (holds(s.closesZips, zip))
                now = label("closed");
        }
        for (const auto& act : s.acts)
            if (act.verb == Verb::SliderOn || act.verb == Verb::InsertZip) // what is bought in a length has its slider
                m_sliders.insert(act.zips.begin(), act.zips.end());
    }

    void sides(const Step& s)
    {
        for (const auto& part : s.consumes)
            if (part != s.yields)
                m_wrong.erase(part);
        for (const auto& act : s.acts) {
            if (act.verb == Verb::Sew && !s.yields.empty()
                && std::any_of(
                    act.seams.begin(), act.seams.end(), [&](const SeamId& key) { return m_turned.contains(key); }))
                m_wrong.insert(s.yields);
            if ((act.verb == Verb::JoinCoats || act.verb == Verb::Sew) && s.yields == WorkId("bag") && m_bagTurns)
                m_wrong.insert(s.yields);
            if (act.verb == Verb::Turn || act.verb == Verb::TurnBag)
                m_wrong.erase(s.yields);
        }
    }

    void dries(const Step& s)
    {
        for (const auto& [part, drying] : wetAfter(p, s))
            m_wet[part] = m_clock + drying;
    }

    /// How long until all that a step takes up is dry.
    double waitFor(const Step& s) const
    {
        double until = m_clock;
        const auto dry = [&](const WorkId& part) {
            if (const auto wet = m_wet.find(part); wet != m_wet.end())
                until = std::max(until, wet->second);
        };
        std::for_each(s.consumes.begin(), s.consumes.end(), dry);
        if (s.kind == StepKind::Interline) // its pieces are not taken up by it
            std::for_each(s.pieces.begin(), s.pieces.end(), dry);
        return until - m_clock;
    }

    const Pattern& p;
    std::vector<BrokenRule> m_broken;
    std::set<WorkId> m_parts, m_wrong;
    std::set<PieceId> m_lined;
    std::set<ZipId> m_sliders;
    std::set<SeamId> m_turned;
    bool m_bagTurns = false;
    Label m_opening;
    std::vector<std::pair<ZipId, Label>> m_zips;
    std::map<WorkId, double> m_wet; ///< until when, in minutes of the clock
    double m_clock = 0, m_minutes = 0;
};

} // namespace

std::vector<DryState> dryRun(const Pattern& p, const std::vector<std::size_t>& order)
{
    DryRun run(p, order);
    std::vector<DryState> out;
    for (const auto index : order)
        out.push_back(run.after(index));
    return out;
}

std::vector<std::pair<WorkId, double>> wetAfter(const Pattern& p, const Step& s)
{
    double drying = 0;
    for (const auto& act : s.acts)
        drying = std::max(drying, dryingOf(p, act));
    std::vector<std::pair<WorkId, double>> out;
    if (drying <= 0)
        return out;
    if (s.kind == StepKind::Interline)
        for (const auto& piece : s.pieces)
            out.emplace_back(piece, drying);
    else if (!s.yields.empty())
        out.emplace_back(s.yields, drying);
    else if (!s.pieces.empty())
        out.emplace_back(s.pieces.front(), drying);
    return out;
}

double dryingOf(const Pattern& p, const Act& act)
{
    constexpr double adhesive = 15, paint = 45, washed = 240;
    switch (act.verb) {
    case Verb::Glue:
    case Verb::WrapOver: return adhesive;
    case Verb::Paint: return paint;
    case Verb::Preshrink: return washed;
    case Verb::Interline:
        return std::any_of(p.pieces.begin(), p.pieces.end(),
                   [&](const Piece& piece) {
                       return std::any_of(piece.layers.begin(), piece.layers.end(),
                           [&](const Layer& l) { return l.fixing == "glued" && holds(act.layers, l.id); });
                   })
            ? adhesive
            : 0;
    default: return 0;
    }
}

Message outOfReach(const Pattern& p, const Step& step)
{
    for (const auto& act : step.acts) {
        // The mouth and what is bound round it are sewn on the finished tube.
        const bool round = act.verb == Verb::DropIn || act.verb == Verb::Topstitch || act.verb == Verb::Roll
            || act.verb == Verb::Bind || act.verb == Verb::Hem || act.verb == Verb::Rows;
        if (!round)
            continue;
        for (const auto& key : act.seams)
            if (const Seam* seam = p.seam(key);
                seam && seam->mouth && !seam->flat && seam->lengthA > 0 && seam->lengthA < p.workshop.leastRound)
                return say("the mouth is {} round; the machine sews all round from {}. Take a free-arm machine, or sew "
                           "this row by hand.",
                    Len(seam->lengthA), Len(p.workshop.leastRound));
    }
    return {};
}

} // namespace tectonis
