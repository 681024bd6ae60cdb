// SPDX-License-Identifier: GPL-3.0-or-later
// All checks. A new one: one file with its function, and one line here.
#include "checks/finding.hpp"

#include "parallel/parallel.hpp"

#include <algorithm>
#include <iterator>

namespace tectonis {

void checkBulk(const CheckInput& in, Findings& out);
void checkCarried(const CheckInput& in, Findings& out);
void checkFittings(const CheckInput& in, Findings& out);
void checkHeat(const CheckInput& in, Findings& out);
void checkJoins(const CheckInput& in, Findings& out);
void checkOutlines(const CheckInput& in, Findings& out);
void checkPlaces(const CheckInput& in, Findings& out);
void checkSeams(const CheckInput& in, Findings& out);
void checkSequence(const CheckInput& in, Findings& out);
void checkSnaps(const CheckInput& in, Findings& out);
void checkStock(const CheckInput& in, Findings& out);
void checkStraps(const CheckInput& in, Findings& out);
void checkTurning(const CheckInput& in, Findings& out);
void checkWidths(const CheckInput& in, Findings& out);
void checkZips(const CheckInput& in, Findings& out);
void checkSizes(const std::vector<Pattern>& patterns, Findings& out); // all sizes beside one another

Findings check(const CheckInput& in)
{
    Findings out;
    for (const auto run : {checkSeams, checkJoins, checkOutlines, checkCarried, checkPlaces, checkFittings, checkSnaps, checkZips, checkStock, checkStraps, checkTurning, checkBulk, checkHeat, checkWidths, checkSequence})
        run(in, out);
    for (auto& f : out)
        f.size = in.pattern.size;
    return out;
}

Findings checkAll(const Design& design, const std::vector<Pattern>& patterns, Unit unit)
{
    const DesignSpec& spec = specOf(design);
    std::vector<Findings> each(patterns.size());
    forEachIndex(patterns.size(), [&](std::size_t i) { each[i] = check({design, spec, patterns[i], unit}); });
    Findings out;
    for (auto& findings : each)
        std::move(findings.begin(), findings.end(), std::back_inserter(out));
    checkSizes(patterns, out);
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

} // namespace tectonis
