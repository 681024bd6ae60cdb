// SPDX-License-Identifier: GPL-3.0-or-later
// The cut line lies at each edge's own allowance, measured from the stitch line by distance alone.
#include "drawn.hpp"
#include "every_design.hpp"

using namespace tectonis;

namespace {

/// Between the corners, every edge of every piece has its allowance; within twice the widest of a corner the neighbour
/// may rule.
void checkAllowances(const Pattern& p, int& measured)
{
    for (const auto& piece : p.pieces) {
        double widest = 0;
        for (const auto& e : piece.edges)
            widest = std::max({widest, e.allowance, e.allowanceAtEnd.value_or(0)});
        const Polyline cut = flattened(piece.cut, 0.01), stitch = flattened(piece.stitch(), 0.01);
        for (const auto& e : piece.edges) {
            const double n = e.length(), clear = 2 * widest + 1;
            if (n < 2 * clear || e.allowance <= 0)
                continue;
            for (const double along : {clear, n / 2, n - clear}) {
                const double wanted = std::lerp(e.allowance, e.allowanceAtEnd.value_or(e.allowance), along / n);
                const Point at = pointAlong(e.stitch, along);
                // Where a piece is narrow, or a neighbour turns back, another edge may lie nearer.
                bool lonely = true;
                for (const auto& other : piece.edges)
                    lonely &= &other == &e || distanceTo(flattened(other.stitch, 0.01), at) > 2 * widest;
                if (!lonely)
                    continue;
                ++measured;
                INFO("piece " << piece.key << ", edge " << e.name << " at " << along << " of " << n);
                CHECK(distanceTo(cut, at)
                    == Approx(wanted).margin(0.06)); // a widening allowance is measured square to the stitch line
            }
        }
    }
}

} // namespace

TEST_CASE(
    "Every edge has its own allowance all along: all forms and parts, and each allowance at both ends of its range")
{
    int measured = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        checkAllowances(medium(d), measured);
    });
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        const Values values = evaluate(plain, specOf(plain), 1);
        for (const auto& spec : specOf(plain).dimensions) {
            if (spec.name.find("allowance") == std::string::npos)
                continue;
            for (const double share : {0.0, 0.3, 0.5, 0.8, 1.0}) {
                Design d = plain;
                const Range range = rangeOf(spec, values);
                try {
                    assign(d, spec.name + "=" + std::to_string(std::lerp(range.min, range.max, share)));
                } catch (const InputError&) {
                    continue;
                }
                INFO(form->id() << ", " << spec.name << " at " << share << " of its range");
                checkAllowances(medium(d), measured);
            }
        }
    }
    CHECK(measured > 10000);
}
