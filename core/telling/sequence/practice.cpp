// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/practice.hpp"

#include <algorithm>
#include <map>
#include <set>

namespace tectonis {
namespace {

std::vector<std::size_t> movedTo(std::vector<std::size_t> order, std::size_t from, std::size_t to)
{
    const std::size_t step = order[from];
    order.erase(order.begin() + std::ptrdiff_t(from));
    order.insert(order.begin() + std::ptrdiff_t(to), step);
    return order;
}

/// Visits every rule that a move breaks, for moves of which all that is broken is about the step moved.
template <class Visit> void forEachMistake(const Pattern& p, const std::vector<std::size_t>& order,
    const std::vector<std::pair<std::size_t, std::size_t>>& moves, const Visit& visit)
{
    for (const auto& [from, to] : moves) {
        const std::size_t step = order[from];
        const auto changed = movedTo(order, from, to);
        const auto broken = brokenRules(p, changed);
        if (std::all_of(broken.begin(), broken.end(),
                [&, step = step](const BrokenRule& b) { return b.early == step || b.late == step; }))
            for (const auto& b : broken)
                visit(PlantedMistake{changed, b, step});
    }
}

std::vector<std::pair<std::size_t, std::size_t>> allMoves(std::size_t steps)
{
    std::vector<std::pair<std::size_t, std::size_t>> out;
    for (std::size_t from = 0; from < steps; ++from)
        for (std::size_t to = 0; to < steps; ++to)
            if (from != to)
                out.emplace_back(from, to);
    return out;
}

} // namespace

std::optional<PlantedMistake> plantMistake(const Pattern& p, const std::vector<std::size_t>& order,
    std::mt19937& random, const std::vector<std::string>& lately)
{
    auto moves = allMoves(order.size());
    std::shuffle(moves.begin(), moves.end(), random);
    std::map<std::string, PlantedMistake> byRule;
    forEachMistake(p, order, moves, [&](PlantedMistake mistake) {
        byRule.emplace(mistake.broken.rule, std::move(mistake)); // the first of each, which is one by chance
    });
    std::vector<std::string> fresh, all;
    for (const auto& [rule, mistake] : byRule) {
        all.push_back(rule);
        if (std::find(lately.begin(), lately.end(), rule) == lately.end())
            fresh.push_back(rule);
    }
    const auto& choice = fresh.empty() ? all : fresh;
    if (choice.empty())
        return {};
    return byRule.at(choice[random() % choice.size()]);
}

std::vector<std::string> mistakesFor(const Pattern& p, const std::vector<std::size_t>& order)
{
    std::set<std::string> rules;
    forEachMistake(
        p, order, allMoves(order.size()), [&](const PlantedMistake& mistake) { rules.insert(mistake.broken.rule); });
    return {rules.begin(), rules.end()};
}

std::optional<Shuffled> shuffle(
    const Pattern& p, const std::vector<std::size_t>& order, std::size_t count, std::mt19937& random)
{
    count = std::min(count, order.size());
    for (int attempt = 0; attempt < 60; ++attempt) {
        Shuffled out{order, random() % (order.size() - count + 1), count};
        const auto first = out.order.begin() + std::ptrdiff_t(out.from);
        std::shuffle(first, first + std::ptrdiff_t(count), random);
        if (!brokenRules(p, out.order).empty())
            return out;
    }
    return {};
}

} // namespace tectonis
