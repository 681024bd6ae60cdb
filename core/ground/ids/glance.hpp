// SPDX-License-Identifier: GPL-3.0-or-later
// A quick hash for names, which are short and told apart by their ends.
#pragma once

#include <algorithm>
#include <bit>
#include <cstdint>
#include <cstring>
#include <string_view>

namespace tectonis {

/// The length of a text and its letters at both ends, mixed. The upper bits are mixed best.
inline std::uint64_t glance(std::string_view text)
{
    if (text.empty())
        return 0;
    std::uint64_t first = 0, last = 0;
    const std::size_t n = std::min(text.size(), sizeof first);
    std::memcpy(&first, text.data(), n);
    std::memcpy(&last, text.data() + text.size() - n, n);
    return (first ^ std::rotl(last, 29) ^ text.size()) * 0x9E3779B97F4A7C15u;
}

/// For maps by name that are asked with texts of any kind.
struct GlanceHash {
    using is_transparent = void;
    std::size_t operator()(std::string_view text) const
    {
        const std::uint64_t mixed = glance(text);
        return mixed ^ mixed >> 32;
    }
};

} // namespace tectonis
