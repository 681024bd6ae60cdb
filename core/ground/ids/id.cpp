// SPDX-License-Identifier: GPL-3.0-or-later
#include "ids/id.hpp"

#include "ids/glance.hpp"

#include <array>
#include <bit>
#include <cstdint>
#include <mutex>
#include <unordered_map>

namespace tectonis::detail {
namespace {

using Named = std::pair<std::string_view, std::string_view>; ///< owner and name

struct Hash {
    std::size_t operator()(const Named& n) const { return GlanceHash()(n.first) * 31 + GlanceHash()(n.second); }
};
using Known = std::unordered_map<Named, const Identity*, Hash>;

/// Asks all threads' list; what is new is added. The views in it are those of the identities.
const Identity* asked(Named named)
{
    static std::mutex mutex;
    static Known& all = *new Known; // never destroyed: ids may outlive it
    const std::lock_guard lock(mutex);
    if (const auto it = all.find(named); it != all.end())
        return it->second;
    const std::string owner(named.first), name(named.second);
    const auto* made = new Identity{owner, name, owner.empty() || name.empty() ? owner + name : owner + "." + name};
    all.emplace(Named{made->owner, made->name}, made);
    return made;
}

} // namespace

const Identity* identity(std::string_view owner, std::string_view name)
{
    // What was asked for lately lies where a glance at the names says, if it reads the same.
    constexpr int bits = 12;
    thread_local std::array<const Identity*, 1 << bits> lately{};
    const std::uint64_t place = (glance(name) ^ std::rotl(glance(owner), 41)) * 0xC2B2AE3D27D4EB4Fu;
    const Identity*& last = lately[place >> (64 - bits)]; // a product's upper bits come of all that was mixed
    if (last && last->name == name && last->owner == owner)
        return last;
    thread_local Known seen; // so that no thread waits for another while it drafts
    const Named named{owner, name};
    auto it = seen.find(named);
    if (it == seen.end()) {
        const Identity* found = asked(named);
        it = seen.emplace(Named{found->owner, found->name}, found).first;
    }
    return last = it->second;
}

const Identity* nobody()
{
    static const Identity* const none = identity({}, {});
    return none;
}

} // namespace tectonis::detail
