// SPDX-License-Identifier: GPL-3.0-or-later
// Sentences as values: the English source with its arguments. Who reads them words them in his language and unit.
#pragma once

#include "ids/id.hpp"

#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace tectonis {

/// A length in mm. @c than: one that it is set beside; it is then written in full where rounding would make the two
/// look alike.
struct Len {
    explicit Len(double length) : mm(length) {}
    Len(double length, double other) : mm(length), than(other) {}
    double mm;
    std::optional<double> than;
    bool operator==(const Len&) const = default;
};

/// A plain number, with at most so many decimals.
struct Num {
    explicit Num(double number, int most = 2) : value(number), decimals(most) {}
    double value;
    int decimals;
    bool operator==(const Num&) const = default;
};

/// A word of the program that stands by itself: "Flap width". It is translated as a whole.
struct Label {
    std::string source;
    bool operator==(const Label&) const = default;
    bool operator==(const char* english) const { return source == english; }
    bool empty() const { return source.empty(); }
};

struct MessageArgument;

/// One whole sentence, a heading or a name. In the source "{}" stands for the arguments in their order; a translation
/// may name them, "{1} … {0}". Sources are literals of the program: they are not copied. Copies share the arguments.
class Message {
public:
    Message() = default;
    Message(const char* source, std::vector<MessageArgument> arguments);
    /// Of arguments that are given over, without one more copy.
    template <class... Args> static Message of(const char* source, Args&&... arguments);

    bool empty() const { return m_source.empty(); }
    std::string_view source() const { return m_source; }
    /// What is said of one thing has another source than what is said of several: source() is for one, this for more.
    std::string_view ofMany() const { return m_ofMany; }
    long count() const { return m_count; }
    std::span<const MessageArgument> arguments() const;
    /// Does it stand inside another one? Languages that write names small there do so: "the lining front".
    bool isWithin() const { return m_within; }

    /// The same as what is said of @p count things.
    Message counted(const char* many, long count) const
    {
        Message out = *this;
        out.m_ofMany = many;
        out.m_count = count;
        return out;
    }
    /// The same sentence of other things.
    Message withArguments(std::vector<MessageArgument> arguments) const;
    friend Message within(Message m)
    {
        m.m_within = true;
        return m;
    }

    bool operator==(const Message&) const;

private:
    std::string_view m_source, m_ofMany;
    std::shared_ptr<const MessageArgument[]> m_arguments;
    long m_count = 1;
    std::uint16_t m_argumentCount = 0;
    bool m_within = false;
};

/// An argument: a length, a number, a label, another message, or a name, which is nobody's to translate.
struct MessageArgument : std::variant<Len, Num, Label, std::string, Message> {
    using variant::variant;
    MessageArgument() : variant(Num(0)) {}
    MessageArgument(const char* name) : variant(std::string(name)) {}
    MessageArgument(std::string_view name) : variant(std::string(name)) {}
    MessageArgument(int n) : variant(Num(n, 0)) {}
    MessageArgument(double n) : variant(Num(n)) {}
    MessageArgument(long n) : variant(Num(double(n), 0)) {}
    MessageArgument(long long n) : variant(Num(double(n), 0)) {}
    MessageArgument(std::size_t n) : variant(Num(double(n), 0)) {}
    template <class Kind> MessageArgument(const Id<Kind>& id) : variant(id.text()) {}
};

inline std::span<const MessageArgument> Message::arguments() const { return {m_arguments.get(), m_argumentCount}; }

template <class... Args> Message Message::of(const char* source, Args&&... arguments)
{
    Message out;
    out.m_source = source;
    if constexpr (sizeof...(Args) > 0) {
        auto kept = std::make_shared<MessageArgument[]>(sizeof...(Args));
        std::size_t i = 0;
        ((kept[i++] = MessageArgument(std::forward<Args>(arguments))), ...);
        out.m_arguments = std::move(kept);
        out.m_argumentCount = sizeof...(Args);
    }
    return out;
}

/// say("it is {} wide", Len(w)): the source is a literal, so that it is collected for translators
/// (data/languages/collect).
template <class... Args> Message say(const char* source, Args&&... arguments)
{
    return Message::of(source, std::forward<Args>(arguments)...);
}

/// The same of a number of things: saySome("one place", "{} places", n, n).
template <class... Args> Message saySome(const char* one, const char* many, long count, Args&&... arguments)
{
    return Message::of(one, std::forward<Args>(arguments)...).counted(many, count);
}

/// label("front"): a literal, collected like that of say().
inline Label label(const char* source) { return {source}; }

/// A label alone.
inline Message labelled(const Label& label) { return say("{}", label); }
inline Message within(const Label& label) { return within(labelled(label)); }

/// A name alone.
inline Message naming(const std::string& name) { return say("{}", name); }

/// Sentences one after the other; empty ones are passed over.
inline Message together(const Message& first, const Message& second)
{
    return first.empty() ? second : second.empty() ? first : say("{} {}", first, second);
}
template <class... More> Message together(const Message& first, const Message& second, const More&... more)
{
    return together(together(first, second), more...);
}

} // namespace tectonis
