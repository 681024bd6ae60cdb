// SPDX-License-Identifier: GPL-3.0-or-later
// What the benchmarks share: time taken, and the demo grown to many pieces and sizes.
#pragma once

#include "editing/edits.hpp"
#include "formats/design_file.hpp"

#include <algorithm>
#include <chrono>
#include <functional>
#include <vector>

namespace tectonis {

inline double milliseconds(const std::function<void()>& work)
{
    const auto start = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

/// The least disturbed of @p rounds of each work. They take turns, so that a slow spell of the machine meets all of
/// them.
inline std::vector<double> best(int rounds, const std::vector<std::function<void()>>& works)
{
    std::vector<double> least(works.size(), 1e300);
    for (int i = 0; i < rounds; ++i)
        for (std::size_t k = 0; k < works.size(); ++k)
            least[k] = std::min(least[k], milliseconds(works[k]));
    return least;
}

/// A satchel grown to about @p pieces by pockets outside and in, in @p sizes sizes.
inline Design grown(const Design& demo, std::size_t pieces, std::size_t sizes)
{
    Design d = demo;
    std::vector<std::string> names;
    for (std::size_t i = 0; i < sizes; ++i)
        names.push_back("N" + std::to_string(i + 1));
    for (auto& [name, dimension] : d.dimensions)
        if (dimension.rule.kind == SizeRule::Kind::Step)
            dimension.rule.amount = 4;
    setSizes(d, names, names[sizes / 2]);
    // Small bellows pockets with flaps, each four pieces, three to a face.
    const std::vector<std::string> faces{"front", "back", "lining front", "lining back"};
    for (const char* id : {"slip", "zip", "snap"})
        removeFeature(d, id);
    for (std::size_t i = 0; i < 12 && draftAll(d).front().pieces.size() < pieces; ++i) {
        const std::string id = addFeature(d, "patch-pocket");
        for (const auto& [name, value] :
            {std::pair{".body", std::string("bellows")}, {".lid", "yes"}, {".site", faces[i % 4]}, {".depth", "6"},
                {".width", "60"}, {".height", "40"}, {".flap", "20"}, {".drop", std::to_string(50 + 62 * int(i / 4))}})
            assign(d, id + name + "=" + value);
    }
    return d;
}

} // namespace tectonis
