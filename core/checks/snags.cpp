// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/snags.hpp"

#include "design/edits.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <algorithm>
#include <tuple>

namespace tectonis {

std::vector<Snag> snagsOf(const Findings& findings)
{
    std::map<std::tuple<std::string, std::string, std::string, std::string>, std::size_t> known;
    std::vector<Snag> out;
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const Finding& f = findings[i];
        const auto [at, fresh] = known.try_emplace({f.check, f.subject, f.key, f.about}, out.size());
        if (fresh)
            out.push_back({i, {}});
        auto& sizes = out[at->second].sizes;
        if (std::find(sizes.begin(), sizes.end(), f.size) == sizes.end())
            sizes.push_back(f.size);
    }
    return out;
}

SnagCount countSnags(const Findings& findings, const std::string& stage, const std::string& size)
{
    SnagCount count;
    for (const auto& snag : snagsOf(findings)) {
        const Finding& f = findings[snag.first];
        if ((stage.empty() || f.stage == stage) && (size.empty() || std::find(snag.sizes.begin(), snag.sizes.end(), size) != snag.sizes.end()))
            ++(f.severity == Severity::Error ? count.toMend : count.doubtful);
    }
    return count;
}

void applyRepair(Design& design, const Finding& finding)
{
    if (!finding.repair)
        throw InputError(finding.subject, "there is no repair in one stroke for this");
    Design next = design;
    if (finding.repair->proposedOrder)
        next.stepOrder.clear();
    for (const auto& a : finding.repair->assignments) {
        const auto equals = a.find('=');
        const std::string name = a.substr(0, equals), value = a.substr(equals + 1);
        if (!next.dimensions.contains(name)) {
            assign(next, a);
            continue;
        }
        try {
            setDimension(next, name, value, {}, Unit::Mm, finding.size);
        } catch (const InputError&) {
            // Another size cannot take it: the others keep what they have.
            const DesignSpec& spec = specOf(design);
            for (std::size_t i = 0; i < design.sizes.size(); ++i)
                if (design.sizes[i] != finding.size)
                    next.dimensions[name].bySize.try_emplace(design.sizes[i], formatNumber(evaluate(design, spec, i).at(name), 6));
            setDimension(next, name, value, {}, Unit::Mm, finding.size);
        }
    }
    validate(next);
    design = std::move(next);
}

std::string whyNotMend(const Design& design, const Finding& finding)
{
    try {
        Design copy = design;
        applyRepair(copy, finding);
        return {};
    } catch (const InputError& e) {
        return e.what();
    }
}

} // namespace tectonis
