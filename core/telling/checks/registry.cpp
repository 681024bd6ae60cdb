// SPDX-License-Identifier: GPL-3.0-or-later
// All checks. A new one: one file with its function, and one line here.
#include "checks/finding.hpp"

#include "features/spec_of.hpp"

#include "parallel/parallel.hpp"
#include "units/error.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <iterator>
#include <optional>

namespace tectonis {

// In the order in which they are told.
#define TECTONIS_CHECKS(CHECK)                                                                                         \
    CHECK(checkSeams)                                                                                                  \
    CHECK(checkAllowances)                                                                                             \
    CHECK(checkJoins)                                                                                                  \
    CHECK(checkOutlines)                                                                                               \
    CHECK(checkCarried)                                                                                                \
    CHECK(checkPlaces)                                                                                                 \
    CHECK(checkFittings)                                                                                               \
    CHECK(checkFlaps)                                                                                                  \
    CHECK(checkSnaps)                                                                                                  \
    CHECK(checkZips)                                                                                                   \
    CHECK(checkPocketBags)                                                                                             \
    CHECK(checkStock)                                                                                                  \
    CHECK(checkStraps)                                                                                                 \
    CHECK(checkFinish)                                                                                                 \
    CHECK(checkTurning)                                                                                                \
    CHECK(checkBulk)                                                                                                   \
    CHECK(checkRawEdges)                                                                                               \
    CHECK(checkLining)                                                                                                 \
    CHECK(checkStretch)                                                                                                \
    CHECK(checkHeat)                                                                                                   \
    CHECK(checkLayers)                                                                                                 \
    CHECK(checkWorkshop)                                                                                               \
    CHECK(checkLibrary)                                                                                                \
    CHECK(checkWidths)                                                                                                 \
    CHECK(checkWhole)                                                                                                  \
    CHECK(checkSequence)                                                                                               \
    CHECK(checkOwnOrder)

#define DECLARED(name) void name(const CheckInput& in, Findings& out);
TECTONIS_CHECKS(DECLARED)
#undef DECLARED
void checkSizes(const std::vector<Pattern>& patterns, Findings& out); // all sizes beside one another

namespace {

/// A repair in one stroke is offered only if every dimension that it sets exists and every value then lies in its
/// range, in this size.
bool takes(const CheckInput& in, const Repair& repair)
{
    Design copy = in.design;
    for (const auto& a : repair.assignments) {
        const auto equals = a.find('=');
        const std::string name = a.substr(0, equals), value = a.substr(equals + 1);
        if (name.starts_with("layers.") || name.starts_with("good.") || name.starts_with("seam.")
            || name.starts_with("end."))
            continue; // layers, goods, seams and strap ends have no ranges
        if (const auto it = copy.dimensions.find(name); it != copy.dimensions.end())
            it->second.bySize[in.pattern.size] = value;
        else if (const ChoiceSpec* choice = in.spec.choice(name); !choice
                 || std::none_of(
                     choice->options.begin(), choice->options.end(), [&](const auto& o) { return o.first == value; }))
            return false;
    }
    try {
        evaluate(copy, in.spec, in.pattern.sizeAt);
        return true;
    } catch (const InputError&) {
        return false;
    }
}

} // namespace

Findings check(const CheckInput& in)
{
    Findings out;
#define RUN(name) name(in, out);
    TECTONIS_CHECKS(RUN)
    for (auto& f : out) {
        f.size = in.pattern.size;
        if (f.repair && !f.repair->assignments.empty() && !takes(in, *f.repair))
            f.repair.reset();
        std::erase_if(f.others, [&](const Repair& other) { return !takes(in, other); });
    }
    return out;
}

namespace {

/// How far a repair moves the one dimension that it sets, in the finding's size; none for other repairs.
std::optional<double> movesBy(const Finding& f, const std::vector<Pattern>& patterns)
{
    if (!f.repair || f.repair->assignments.size() != 1)
        return {};
    const std::string& all = f.repair->assignments.front();
    const auto equals = all.find('=');
    const auto pattern = std::find_if(
        patterns.begin(), patterns.end(), [&](const Pattern& p) { return p.size == f.size; });
    double to = 0;
    if (equals == std::string::npos || pattern == patterns.end()
        || std::from_chars(all.data() + equals + 1, all.data() + all.size(), to).ptr != all.data() + all.size())
        return {};
    const auto now = pattern->values.find(all.substr(0, equals));
    return now == pattern->values.end() ? std::nullopt : std::optional(std::abs(to - now->second));
}

/// Of one fault in several sizes, that comes first which is mended by most: its repair mends the others as well.
void worstSizeFirst(Findings& findings, const std::vector<Pattern>& patterns)
{
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const auto own = movesBy(findings[i], patterns);
        if (!own)
            continue;
        std::size_t worst = i;
        double most = *own;
        for (std::size_t k = i + 1; k < findings.size(); ++k) {
            const Finding &a = findings[i], &b = findings[k];
            if (a.check != b.check || a.key != b.key || a.about != b.about || a.severity != b.severity
                || a.size == b.size || !(words(a.subject) == words(b.subject)))
                continue;
            if (const auto other = movesBy(b, patterns); other && *other > most + 1e-9)
                worst = k, most = *other;
        }
        std::swap(findings[i], findings[worst]);
    }
}

} // namespace

Findings checkAll(const Design& design, const std::vector<Pattern>& patterns)
{
    const DesignSpec& spec = specOf(design);
    std::vector<Findings> each(patterns.size());
    forEachIndex(patterns.size(), [&](std::size_t i) { each[i] = check({design, spec, patterns[i]}); });
    Findings out;
    for (auto& findings : each)
        std::move(findings.begin(), findings.end(), std::back_inserter(out));
    checkSizes(patterns, out);
    std::stable_sort(
        out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    worstSizeFirst(out, patterns);
    return out;
}

} // namespace tectonis
