// SPDX-License-Identifier: GPL-3.0-or-later
// What a library holds as JSON, for its own file and for what a design carries of it.
#pragma once

#include "library/library.hpp"
#include "words/message.hpp"

#include <nlohmann/json.hpp>

#include <functional>

namespace tectonis {

nlohmann::json toJson(const Library::Contents& contents);

/// Told of each problem: the JSON pointer to it, relative to @p j, and what is wrong.
using TellProblem = std::function<void(const std::string& pointer, const Message& problem)>;

/// Reads what is sound and tells of the rest.
Library::Contents libraryFromJson(const nlohmann::json& j, const TellProblem& tell);

} // namespace tectonis
