// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/rules.hpp"

#include "sequence/order.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace tectonis {
namespace {

template <class Item> bool has(const std::vector<Item>& list, const Item& item)
{
    return std::find(list.begin(), list.end(), item) != list.end();
}

template <class A, class B> bool shares(const std::vector<A>& a, const std::vector<B>& b)
{
    return std::any_of(a.begin(), a.end(), [&](const A& x) { return has(b, B(x)); });
}

bool sews(const Step& s)
{
    return s.kind == StepKind::Seam || s.kind == StepKind::Baste || s.kind == StepKind::Topstitch
        || s.kind == StepKind::Flat;
}

/// A rule says of two steps, @p first done before @p second, what is wrong with that; empty if nothing.
struct Rule {
    const char* name;
    StepKind second; ///< the kind of step that must not come second
    Message (*reason)(const Pattern&, const Step& first, const Step& second);
};

const std::vector<Rule>& rules()
{
    static const std::vector<Rule> all{
        {"interlining first", StepKind::Interline,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                if (sews(first) && shares(first.pieces, second.pieces))
                    return say(
                        "interlinings go on before a piece is joined: afterwards they cannot reach into the seams.");
                return {};
            }},
        {"one-layer hardware first", StepKind::Hardware,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const bool snap = std::any_of(p.fittings.begin(), p.fittings.end(),
                    [&](const Fitting& f) { return f.kind == Fitting::Kind::Snap && has(second.fittings, f.key); });
                if (snap && first.kind == StepKind::Seam && shares(first.pieces, second.pieces))
                    return say(
                        "a snap goes through one layer and its patch: it is set before the second layer is sewn on.");
                return {};
            }},
        {"flat work while flat", StepKind::Flat,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                if (first.kind == StepKind::Seam
                    && shares(first.pieces, second.consumes)) // what it is sewn onto is a piece still
                    return say("pockets and windows are sewn while the piece lies flat.");
                return {};
            }},
        {"baste what is trapped", StepKind::Baste,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                if (first.kind != StepKind::Seam)
                    return {};
                for (const auto& key : first.seams)
                    if (const Seam* seam = p.seam(key); seam && shares(seam->trapped, second.pieces))
                        return say("what a seam traps is basted before that seam is sewn.");
                return {};
            }},
        {"clip before the curve", StepKind::Clip,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                const bool curveSeam = first.kind == StepKind::Seam && first.pieces.size() > 1;
                if (curveSeam && shares(first.pieces, second.pieces) && first.yields != second.yields)
                    return say("a straight edge is clipped before it is pinned round a curve.");
                return {};
            }},
        {"board before closing", StepKind::Hardware,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const bool board = std::any_of(second.pieces.begin(), second.pieces.end(),
                    [&](const PieceId& k) { return p.piece(k) && p.piece(k)->role == "board"; });
                if (board && first.kind == StepKind::CloseOpening)
                    return say("the board goes in before the opening is closed.");
                return {};
            }},
        {"opening closed last", StepKind::Turn,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                if (first.kind == StepKind::CloseOpening && second.turnsThrough)
                    return say("the bag turns through that opening: it is closed last.");
                return {};
            }},
        {"topstitch before the next seam", StepKind::Topstitch,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                // Only where the proposed order topstitches first: a seam that was meant to come later has come too
                // early.
                if ((first.kind != StepKind::Seam && first.kind != StepKind::Baste)
                    || !shares(first.pieces, second.pieces))
                    return {};
                return &first - p.steps.data() > &second - p.steps.data()
                    ? say("a seam is pressed and topstitched before another seam crosses it.")
                    : Message();
            }},
    };
    return all;
}

} // namespace

std::vector<BrokenRule> brokenRules(const Pattern& p, const std::vector<std::size_t>& order)
{
    std::vector<BrokenRule> out;
    std::vector<std::size_t> at(p.steps.size(), 0);
    for (std::size_t i = 0; i < order.size(); ++i)
        at[order[i]] = i;
    std::set<std::pair<std::size_t, std::size_t>> told;
    for (std::size_t k = 1; k < order.size(); ++k)
        for (const auto& rule : rules()) {
            if (rule.second != p.steps[order[k]].kind)
                continue;
            for (std::size_t i = 0; i < k; ++i)
                if (const auto reason = rule.reason(p, p.steps[order[i]], p.steps[order[k]]);
                    !reason.empty() && told.insert({order[i], order[k]}).second)
                    out.push_back({rule.name, order[i], order[k], reason});
        }
    for (const auto& link : linksOf(p))
        if (at[link.before] > at[link.after] && told.insert({link.after, link.before}).second)
            out.push_back({"uses what is made", link.after, link.before,
                say("it needs “{}” as that step leaves it.", link.part)});
    return out;
}

std::vector<DryState> dryRun(const Pattern& p, const std::vector<std::size_t>& order)
{
    const auto broken = brokenRules(p, order);
    std::vector<DryState> out;
    std::set<WorkId> parts;
    std::set<PieceId> lined;
    for (const auto& piece : p.pieces)
        parts.insert(piece.key);
    Label opening, zip;
    for (const auto index : order) {
        const Step& s = p.steps[index];
        DryState state;
        for (const auto& part : s.consumes)
            parts.erase(part);
        if (!s.yields.empty())
            parts.insert(s.yields);
        if (s.kind == StepKind::Interline)
            lined.insert(s.pieces.begin(), s.pieces.end());
        for (const auto& key : s.seams)
            if (const Seam* seam = p.seam(key); seam && seam->open > 0 && s.kind == StepKind::Seam)
                opening = label("open");
        if (s.kind == StepKind::CloseOpening)
            opening = label("closed");
        if (std::any_of(p.fittings.begin(), p.fittings.end(),
                [&](const Fitting& f) { return f.kind == Fitting::Kind::Zip && has(s.fittings, f.key); }))
            zip = label("in, closed");
        if (!s.opensZips.empty())
            zip = label("open");
        if (!s.closesZips.empty())
            zip = label("in, closed");
        if (s.turnsThrough && opening != "open" && zip != "open")
            state.problems.push_back(say("there is no open seam or zip to turn the bag through."));
        for (const auto& rule : broken)
            if (rule.early == index)
                state.problems.push_back(say("before “{}”: {}", p.steps[rule.late].title, rule.reason));
        state.parts.assign(parts.begin(), parts.end());
        state.layers.assign(lined.begin(), lined.end());
        state.opening = opening, state.zip = zip;
        out.push_back(std::move(state));
    }
    return out;
}

} // namespace tectonis
