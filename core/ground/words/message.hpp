// SPDX-License-Identifier: GPL-3.0-or-later
// Sentences as values: the English source with its arguments. Who reads them words them in his language and unit.
#pragma once

#include "ids/id.hpp"

#include <optional>
#include <string>
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
};

/// An argument: a length, a number, a label, another message, or a name, which is nobody's to translate.
using MessageArgument = std::variant<Len, Num, Label, std::string, std::vector<Message>>;

/// One whole sentence, or a heading. In the source "{}" stands for the arguments in their order; a translation may name
/// them, "{1} … {0}".
class Message {
public:
    Message() = default;
    Message(std::string source, std::vector<MessageArgument> arguments)
        : m_source(std::move(source)), m_arguments(std::move(arguments))
    {}
    bool empty() const { return m_source.empty(); }
    const std::string& source() const { return m_source; }
    /// What is said of one thing has another source than what is said of several: source() is for one, this for more.
    const std::string& ofMany() const { return m_ofMany; }
    long count() const { return m_count; }
    const std::vector<MessageArgument>& arguments() const { return m_arguments; }

    static Message counted(std::string one, std::string many, long count, std::vector<MessageArgument> arguments)
    {
        Message out(std::move(one), std::move(arguments));
        out.m_ofMany = std::move(many);
        out.m_count = count;
        return out;
    }

    bool operator==(const Message&) const = default;

private:
    std::string m_source, m_ofMany;
    long m_count = 1;
    std::vector<MessageArgument> m_arguments;
};

namespace detail {
inline MessageArgument argument(const Message& m) { return std::vector<Message>{m}; }
inline MessageArgument argument(const Len& a) { return a; }
inline MessageArgument argument(const Num& a) { return a; }
inline MessageArgument argument(const Label& a) { return a; }
inline MessageArgument argument(const std::string& name) { return name; }
template <class Kind> MessageArgument argument(const Id<Kind>& id) { return id.text(); }
inline MessageArgument argument(int n) { return Num(n, 0); }
inline MessageArgument argument(long n) { return Num(double(n), 0); }
inline MessageArgument argument(std::size_t n) { return Num(double(n), 0); }
} // namespace detail

/// say("it is {} wide", Len(w)): the source is a literal, so that it is collected for translators
/// (data/languages/collect).
template <class... Args> Message say(const char* source, const Args&... arguments)
{
    return {source, {detail::argument(arguments)...}};
}

/// The same of a number of things: saySome("one place", "{} places", n, n).
template <class... Args> Message saySome(const char* one, const char* many, long count, const Args&... arguments)
{
    return Message::counted(one, many, count, {detail::argument(arguments)...});
}

/// label("front"): a literal, collected like that of say().
inline Label label(const char* source) { return {source}; }

/// A label alone.
inline Message labelled(const Label& label) { return {"{}", {label}}; }

/// A name alone.
inline Message naming(const std::string& name) { return {"{}", {name}}; }

/// Sentences one after the other.
inline Message together(const Message& first, const Message& second)
{
    return first.empty() ? second
        : second.empty() ? first
                         : Message("{} {}", {std::vector{first}, std::vector{second}});
}

} // namespace tectonis
