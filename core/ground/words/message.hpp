// SPDX-License-Identifier: GPL-3.0-or-later
// Sentences as values: the English source with its arguments. Who reads them words them in his language and unit.
#pragma once

#include "ids/id.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace tectonis {

class Message;

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
};

/// An argument: a length, a number, a label, another message, or a name, which is nobody's to translate.
using MessageArgument = std::variant<Len, Num, Label, std::string, std::vector<Message>>;

/// One whole sentence, a heading or a name. In the source "{}" stands for the arguments in their order; a translation
/// may name them, "{1} … {0}". Sources are literals of the program: they are not copied.
class Message {
public:
    Message() = default;
    Message(const char* source, std::vector<MessageArgument> arguments)
        : m_source(source), m_arguments(std::move(arguments))
    {}
    bool empty() const { return m_source.empty(); }
    std::string_view source() const { return m_source; }
    /// What is said of one thing has another source than what is said of several: source() is for one, this for more.
    std::string_view ofMany() const { return m_ofMany; }
    long count() const { return m_count; }
    const std::vector<MessageArgument>& arguments() const { return m_arguments; }
    /// Does it stand inside another one? Languages that write names small there do so: "the lining front".
    bool isWithin() const { return m_within; }

    static Message counted(const char* one, const char* many, long count, std::vector<MessageArgument> arguments)
    {
        Message out(one, std::move(arguments));
        out.m_ofMany = many;
        out.m_count = count;
        return out;
    }
    /// The same sentence of other things.
    Message withArguments(std::vector<MessageArgument> arguments) const
    {
        Message out = *this;
        out.m_arguments = std::move(arguments);
        return out;
    }
    friend Message within(Message m)
    {
        m.m_within = true;
        return m;
    }

    bool operator==(const Message&) const = default;

private:
    std::string_view m_source, m_ofMany;
    long m_count = 1;
    bool m_within = false;
    std::vector<MessageArgument> m_arguments;
};

namespace detail {
inline MessageArgument argument(const Message& m)
{
    return MessageArgument(std::in_place_type<std::vector<Message>>, 1, m);
}
inline MessageArgument argument(const Len& a) { return a; }
inline MessageArgument argument(const Num& a) { return a; }
inline MessageArgument argument(const Label& a) { return a; }
inline MessageArgument argument(const char* name) { return std::string(name); }
inline MessageArgument argument(const std::string& name) { return name; }
template <class Kind> MessageArgument argument(const Id<Kind>& id) { return id.text(); }
inline MessageArgument argument(int n) { return Num(n, 0); }
inline MessageArgument argument(long n) { return Num(double(n), 0); }
inline MessageArgument argument(std::size_t n) { return Num(double(n), 0); }
/// Not from an initializer list, which would copy every argument once more.
template <class... Args> std::vector<MessageArgument> list(const Args&... arguments)
{
    std::vector<MessageArgument> out;
    out.reserve(sizeof...(Args));
    (out.push_back(argument(arguments)), ...);
    return out;
}
} // namespace detail

/// say("it is {} wide", Len(w)): the source is a literal, so that it is collected for translators
/// (data/languages/collect).
template <class... Args> Message say(const char* source, const Args&... arguments)
{
    return {source, detail::list(arguments...)};
}

/// The same of a number of things: saySome("one place", "{} places", n, n).
template <class... Args> Message saySome(const char* one, const char* many, long count, const Args&... arguments)
{
    return Message::counted(one, many, count, detail::list(arguments...));
}

/// label("front"): a literal, collected like that of say().
inline Label label(const char* source) { return {source}; }

/// A label alone.
inline Message labelled(const Label& label) { return {"{}", {label}}; }
inline Message within(const Label& label) { return within(labelled(label)); }

/// A name alone.
inline Message naming(const std::string& name) { return {"{}", {name}}; }

/// Sentences one after the other; empty ones are passed over.
inline Message together(const Message& first, const Message& second)
{
    return first.empty() ? second
        : second.empty() ? first
                         : Message("{} {}", {std::vector{first}, std::vector{second}});
}
template <class... More> Message together(const Message& first, const Message& second, const More&... more)
{
    return together(together(first, second), more...);
}

} // namespace tectonis
