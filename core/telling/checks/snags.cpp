// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/snags.hpp"

#include <algorithm>
#include <tuple>

namespace tectonis {

std::vector<Snag> snagsOf(const Findings& findings)
{
    std::map<std::tuple<std::string, std::string, std::string, std::string>, std::size_t> known;
    std::vector<Snag> out;
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const Finding& f = findings[i];
        const auto [at, fresh] = known.try_emplace({f.check, words(f.subject), f.key.text(), f.about}, out.size());
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
        if ((stage.empty() || f.stage == stage)
            && (size.empty() || std::find(snag.sizes.begin(), snag.sizes.end(), size) != snag.sizes.end()))
            ++(f.severity == Severity::Error ? count.toMend : count.doubtful);
    }
    return count;
}

} // namespace tectonis
