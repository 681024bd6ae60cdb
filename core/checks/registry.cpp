// SPDX-License-Identifier: GPL-3.0-or-later
// All checks. A new one: one file with its function, and one line here.
#include "checks/finding.hpp"

#include <algorithm>

namespace tectonis {

void checkBulk(const CheckInput& in, Findings& out);
void checkCarried(const CheckInput& in, Findings& out);
void checkHeat(const CheckInput& in, Findings& out);
void checkOutlines(const CheckInput& in, Findings& out);
void checkPlaces(const CheckInput& in, Findings& out);
void checkSeams(const CheckInput& in, Findings& out);
void checkSequence(const CheckInput& in, Findings& out);
void checkSnaps(const CheckInput& in, Findings& out);
void checkStraps(const CheckInput& in, Findings& out);
void checkTurning(const CheckInput& in, Findings& out);
void checkWidths(const CheckInput& in, Findings& out);
void checkZips(const CheckInput& in, Findings& out);

Findings check(const CheckInput& in)
{
    Findings out;
    for (const auto run : {checkSeams, checkOutlines, checkCarried, checkPlaces, checkSnaps, checkZips, checkStraps, checkTurning, checkBulk, checkHeat, checkWidths, checkSequence})
        run(in, out);
    for (auto& f : out)
        f.size = in.pattern.size;
    return out;
}

Findings checkAll(const Design& design, const std::vector<Pattern>& patterns, Unit unit)
{
    const DesignSpec& spec = specOf(design);
    Findings out;
    for (const auto& p : patterns)
        for (auto& f : check({design, spec, p, unit}))
            out.push_back(std::move(f));
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

} // namespace tectonis
