// SPDX-License-Identifier: GPL-3.0-or-later
// Identities: what a piece, a seam, a part is called by the program. A kind of thing has its own type of id, so that
// one is never taken for another, and an id knows its owner, so that two owners can use one name. What people read is a
// label, never an id.
#pragma once

#include <fmt/core.h>

#include <compare>
#include <concepts>
#include <iosfwd>
#include <string>
#include <string_view>
#include <type_traits>

namespace tectonis {

namespace detail {
/// Kept once for the life of the program: ids are compared and copied as pointers to these.
struct Identity {
    std::string owner, name;
    std::string text; ///< "flap.outer"
};
/// May be called by several threads at once.
const Identity* identity(std::string_view owner, std::string_view name);
const Identity* nobody();
} // namespace detail

template <class Kind> class Id;
using PartId = Id<struct PartKind>; ///< of a part of the design: a flap, a pocket
template <class Kind> struct TakesAnyId : std::false_type {};

/// A name within an owner, before it is said what it is the name of: it becomes the id of a piece, a seam, a step.
class OwnName {
public:
    /// @p owner: id of a part; empty: the form. @p name: empty: the part's main one.
    OwnName(std::string_view owner, std::string_view name) : m_is(detail::identity(owner, name)) {}
    const std::string& text() const { return m_is->text; }

private:
    template <class Kind> friend class Id;
    explicit OwnName(const detail::Identity* is) : m_is(is) {}
    const detail::Identity* m_is;
};

/// An id of something of the kind @p Kind. Its text, "flap.outer" or "back.lower", is what files hold; it is unique
/// among the things of one owner.
template <class Kind> class Id {
public:
    Id() : m_is(detail::nobody()) {}
    /// Of something that the form owns.
    Id(const char* name) : m_is(detail::identity({}, name)) {}
    Id(const std::string& name) : m_is(detail::identity({}, name)) {}
    Id(const PartId& owner, std::string_view name);
    Id(const OwnName& own) : m_is(own.m_is) {}
    /// A part's main piece, seam or step is called as the part. Parts and pieces are also parts on the table.
    template <class Other>
    requires(!std::same_as<Other, Kind> && (std::same_as<Other, PartKind> || TakesAnyId<Kind>::value))
        Id(const Id<Other>& other);

    const std::string& text() const { return m_is->text; }
    /// Within its owner.
    const std::string& name() const { return m_is->name; }
    /// The part that it belongs to; empty: the form.
    PartId owner() const;
    bool empty() const { return m_is == detail::nobody(); }
    explicit operator bool() const { return !empty(); }
    /// What has come of it: "back" and "lower" give "back.lower", of the same owner.
    Id sub(std::string_view part) const
    {
        const std::string joined = name().empty() ? std::string(part) : name() + "." + std::string(part);
        return Id(detail::identity(m_is->owner, joined));
    }
    /// The same name of the same owner, for something of another kind.
    template <class Other> Id<Other> as() const { return OwnName(m_is); }

    friend bool operator==(const Id& a, const Id& b) { return a.m_is == b.m_is; }
    friend bool operator==(const Id& a, const OwnName& b) { return a == Id(b); }
    friend bool operator==(const Id& a, const char* text) { return a.text() == text; }
    friend bool operator==(const Id& a, const std::string& text) { return a.text() == text; }
    friend std::strong_ordering operator<=>(const Id& a, const Id& b)
    {
        if (a.m_is == b.m_is)
            return std::strong_ordering::equal;
        if (const auto byText = a.text() <=> b.text(); byText != 0)
            return byText;
        return a.m_is->owner <=> b.m_is->owner;
    }

private:
    explicit Id(const detail::Identity* is) : m_is(is) {}
    const detail::Identity* m_is;
};

template <class Kind> Id<Kind>::Id(const PartId& owner, std::string_view name)
    : m_is(detail::identity(owner.text(), name))
{}

template <class Kind> template <class Other>
requires(!std::same_as<Other, Kind> && (std::same_as<Other, PartKind> || TakesAnyId<Kind>::value)) Id<Kind>::Id(
    const Id<Other>& other)
    : Id(std::same_as<Other, PartKind> ? Id(detail::identity(other.text(), {})) : other.template as<Kind>())
{}

template <class Kind> PartId Id<Kind>::owner() const { return PartId(m_is->owner); }

} // namespace tectonis

namespace tectonis {
template <class Kind> std::ostream& operator<<(std::ostream& out, const Id<Kind>& id) { return out << id.text(); }
/// In JSON an id is its text.
template <class Json, class Kind> void to_json(Json& json, const Id<Kind>& id) { json = id.text(); }
} // namespace tectonis

template <class Kind> struct std::hash<tectonis::Id<Kind>> {
    std::size_t operator()(const tectonis::Id<Kind>& id) const { return std::hash<const void*>{}(&id.text()); }
};

template <class Kind> struct fmt::formatter<tectonis::Id<Kind>> : fmt::formatter<std::string_view> {
    template <class Context> auto format(const tectonis::Id<Kind>& id, Context& context) const
    {
        return fmt::formatter<std::string_view>::format(id.text(), context);
    }
};
