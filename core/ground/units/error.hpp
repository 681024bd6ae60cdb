// SPDX-License-Identifier: GPL-3.0-or-later
// The one exception for input that cannot be taken: typed text, a file, a formula.
#pragma once

#include "words/language.hpp"

#include <stdexcept>

namespace tectonis {

/// Something the user gave cannot be accepted. Nothing has been changed when it is thrown.
/// place() says where ("width in size L", "bag.tectonis, line 4"), problem() what is wrong; said() is both, the whole
/// sentence, and what() that in English.
class InputError : public std::runtime_error {
public:
    InputError(Message place, Message problem)
        : std::runtime_error(words(both(place, problem))), m_place(std::move(place)), m_problem(std::move(problem))
    {}
    /// @p place: a name: of a dimension, a file, an option of the command line.
    InputError(const std::string& place, Message problem)
        : InputError(place.empty() ? Message() : naming(place), std::move(problem))
    {}
    const Message& place() const { return m_place; }
    const Message& problem() const { return m_problem; }
    Message said() const { return both(m_place, m_problem); }

    /// The same at @p place, which the thrower did not know.
    InputError at(Message place) const { return {std::move(place), m_problem}; }
    InputError at(const std::string& place) const { return {place, m_problem}; }

private:
    static Message both(const Message& place, const Message& problem)
    {
        return place.empty() ? problem : say("{}: {}", place, problem);
    }
    Message m_place, m_problem;
};

/// What is wrong with a @p value that does not lie between @p least and @p most. @p unit: "mm" for lengths, else a word
/// that label() collects, or "".
Message outside(double value, double least, double most, const char* unit = "mm");

} // namespace tectonis
