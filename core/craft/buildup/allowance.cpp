// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/allowance.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kBeside = 3, kFrayed = 2.5, kHeld = 1, kTorn = 1; // mm (common practice, no source)

double frayed(const LeastAllowance& a) { return !a.frays ? 0 : a.held ? kHeld : kFrayed; }
constexpr double kInside = 2; // mm that a layer reaches into the allowance, to be counted

} // namespace

Working LeastAllowance::working(const SubjectId& subject) const
{
    Working out{subject, "allowance.least", say("Seam allowance, at least"), "beside + frayed + torn + 2*thick",
        {{"beside", kBeside}, {"frayed", frayed(*this)}, {"torn", holes ? kTorn : 0}, {"thick", thick}}, least,
        Working::Kind::Trade, "mm", why()};
    return out;
}

Message LeastAllowance::why() const
{
    const Message cloth = frays && holes ? say("frays, and needle holes stay")
        : frays && held                  ? say("frays little, fused or turned in")
        : frays                          ? say("frays at its edge")
        : holes                          ? say("does not fray, but needle holes stay")
                                         : say("does not fray");
    return say("{}; {} thick where it turns", cloth, Len(thick));
}

LeastAllowance leastAllowance(const Pattern& pattern, const Piece& piece, const EdgeId& edge, bool turnedIn)
{
    LeastAllowance out;
    out.held = turnedIn;
    const auto role = pattern.materials.find(piece.material);
    if (role == pattern.materials.end())
        return out;
    const Material& cloth = pattern.material(role->second);
    out.frays = cloth.frays(), out.holes = cloth.keepsHoles(), out.thick = cloth.underFoot();
    for (const auto& layer : piece.layers)
        if (const double* reach = layer.reachAt(edge);
            reach && *reach > kInside && (layer.fixing == "fused" || layer.fixing == "quilted"))
            out.thick += pattern.material(layer.material).underFoot(), out.held |= layer.fixing == "fused";
    out.least = kBeside + frayed(out) + (out.holes ? kTorn : 0) + 2 * out.thick;
    return out;
}

LeastAllowance leastAllowance(const Pattern& pattern, const Seam& seam)
{
    const bool turnedIn = std::any_of(pattern.steps.begin(), pattern.steps.end(), [&](const Step& step) {
        return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
            return act.verb == Act::Verb::Turn
                && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
        });
    });
    LeastAllowance out;
    for (const auto* side : {&seam.a, &seam.b})
        for (const auto& use : *side)
            if (const Piece* piece = pattern.piece(use.piece))
                if (const LeastAllowance each = leastAllowance(pattern, *piece, use.edge, turnedIn);
                    each.least > out.least)
                    out = each;
    return out;
}

LeastAllowance leastAllowance(const Pattern& pattern, Coat coat)
{
    LeastAllowance out;
    for (const auto& seam : pattern.seams) {
        const Piece* piece = seam.a.empty() ? nullptr : pattern.piece(seam.a.front().piece);
        if (seam.stitch != "construction" || seam.mouth || !piece || piece->coat != coat)
            continue;
        if (const LeastAllowance each = leastAllowance(pattern, seam); each.least > out.least)
            out = each;
    }
    return out;
}

} // namespace tectonis
