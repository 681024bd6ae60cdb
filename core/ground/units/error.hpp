// SPDX-License-Identifier: GPL-3.0-or-later
// The one exception for input that cannot be taken: typed text, a file, a formula.
#pragma once

#include <stdexcept>
#include <string>

namespace tectonis {

/// Something the user gave cannot be accepted. Nothing has been changed when it is thrown.
/// @c place says where ("width in size L", "bag.tectonis, line 4"); what() is the whole sentence.
class InputError : public std::runtime_error {
public:
    InputError(std::string place, const std::string& problem)
        : std::runtime_error(place.empty() ? problem : place + ": " + problem),
          m_place(std::move(place)),
          m_problem(problem)
    {}
    const std::string& place() const { return m_place; }
    const std::string& problem() const { return m_problem; }

private:
    std::string m_place;
    std::string m_problem;
};

} // namespace tectonis
