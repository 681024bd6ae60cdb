// SPDX-License-Identifier: GPL-3.0-or-later
// The list of sizes: as it is typed, and a new one in place of the old.
#include "editing/edits.hpp"

#include <algorithm>

namespace tectonis {

std::vector<std::string> sizeNames(const std::string& typed)
{
    const char between = typed.find(',') == std::string::npos ? ' ' : ',';
    std::vector<std::string> out;
    for (std::size_t at = 0; at <= typed.size();) {
        const auto end = std::min(typed.find(between, at), typed.size());
        const auto from = typed.find_first_not_of(' ', at), to = typed.find_last_not_of(' ', end == 0 ? 0 : end - 1);
        if (from < end && to != std::string::npos && to >= from)
            out.push_back(typed.substr(from, to - from + 1));
        at = end + 1;
    }
    return out;
}

std::string sizesText(const std::vector<std::string>& sizes)
{
    const bool comma = std::any_of(
        sizes.begin(), sizes.end(), [](const std::string& s) { return s.find(' ') != std::string::npos; });
    std::string out;
    for (const auto& s : sizes)
        out += (out.empty() ? "" : comma ? ", " : " ") + s;
    return out + (comma && sizes.size() == 1 ? "," : "");
}

namespace {

/// Sizes that got another name: where as many names went between two that stay as came, they are the same sizes.
std::map<std::string, std::string> renamed(
    const std::vector<std::string>& before, const std::vector<std::string>& after)
{
    using Stretches = std::map<std::string,
        std::vector<std::string>>; // names that the other list does not have, by the common name before them
    const auto stretches = [](const std::vector<std::string>& list, const std::vector<std::string>& other) {
        Stretches out;
        std::string last;
        for (const auto& s : list) {
            if (std::find(other.begin(), other.end(), s) != other.end())
                last = s;
            else
                out[last].push_back(s);
        }
        return out;
    };
    std::map<std::string, std::string> out;
    const Stretches fresh = stretches(after, before);
    for (const auto& [last, gone] : stretches(before, after))
        if (const auto came = fresh.find(last); came != fresh.end() && came->second.size() == gone.size())
            for (std::size_t i = 0; i < gone.size(); ++i)
                out[gone[i]] = came->second[i];
    return out;
}

} // namespace

void change::sizes(Design& design, const std::vector<std::string>& sizes, const std::string& base)
{
    const auto names = renamed(design.sizes, sizes);
    const auto nameNow = [&](const std::string& s) {
        const auto it = names.find(s);
        return it == names.end() ? s : it->second;
    };
    const std::string baseNow = nameNow(design.baseSize);
    design.sizes = sizes;
    design.baseSize = !base.empty() ? base : baseNow;
    if (base.empty() && !sizes.empty() && std::find(sizes.begin(), sizes.end(), design.baseSize) == sizes.end())
        design.baseSize = sizes.front();
    for (auto& [name, d] : design.dimensions) {
        std::map<std::string, std::string> own;
        for (auto& [size, value] : d.bySize)
            if (const std::string now = nameNow(size); std::find(sizes.begin(), sizes.end(), now) != sizes.end())
                own[now] = value;
        d.bySize = std::move(own);
    }
    std::map<std::string, int> run;
    for (const auto& [size, bags] : design.run)
        if (const std::string now = nameNow(size); std::find(sizes.begin(), sizes.end(), now) != sizes.end())
            run[now] = bags;
    design.run = std::move(run);
    for (auto& trial : design.trials)
        trial.size = nameNow(trial.size);
}

void setSizes(Design& design, const std::vector<std::string>& sizes, const std::string& base)
{
    edit(design, [&](Design& next) { change::sizes(next, sizes, base); });
}

} // namespace tectonis
