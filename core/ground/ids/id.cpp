// SPDX-License-Identifier: GPL-3.0-or-later
#include "ids/id.hpp"

#include <array>
#include <cstdint>
#include <mutex>
#include <unordered_map>

namespace tectonis::detail {
namespace {

using Named = std::pair<std::string_view, std::string_view>; ///< owner and name

struct Hash {
    std::size_t operator()(const Named& n) const
    {
        const std::hash<std::string_view> of;
        return of(n.first) * 31 + of(n.second);
    }
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
    // Most names are literals, which lie where they lay the last time: what was found for that place is right if it
    // reads the same.
    thread_local std::array<const Identity*, 2048> lately{};
    const auto place = (std::uintptr_t(name.data()) * 31 + std::uintptr_t(owner.data()) + name.size()) * 0x9E3779B1u;
    const Identity*& last = lately[(place >> 12) % lately.size()];
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
