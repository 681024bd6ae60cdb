// SPDX-License-Identifier: GPL-3.0-or-later
// The verbs of the command line. A new one: one function in a file in verbs/, one line in main.cpp.
#pragma once

#include "design/design.hpp"
#include "languages.hpp"
#include "pattern/pattern.hpp"
#include "units/error.hpp"

#include <CLI/App.hpp>
#include <CLI/Config.hpp>
#include <CLI/Formatter.hpp>

#include <fmt/format.h>

#include <filesystem>
#include <functional>

namespace tectonis::cli {

/// A subcommand with its options, and what it does if it is the one given; returns the exit code.
struct Verb {
    CLI::App* command;
    std::function<int()> run;
};

/// All verbs, in the order in which help tells them. The last makes a completion script for bash of those before it.
#define TECTONIS_VERBS(VERB)                                                                                           \
    VERB(formsVerb)                                                                                                    \
    VERB(newVerb)                                                                                                      \
    VERB(formVerb)                                                                                                     \
    VERB(setVerb)                                                                                                      \
    VERB(sizesVerb)                                                                                                    \
    VERB(ruleVerb)                                                                                                     \
    VERB(partVerb)                                                                                                     \
    VERB(layerVerb)                                                                                                    \
    VERB(carryVerb)                                                                                                    \
    VERB(orderVerb)                                                                                                    \
    VERB(trialVerb)                                                                                                    \
    VERB(libraryVerb)                                                                                                  \
    VERB(measureVerb)                                                                                                  \
    VERB(walkVerb)                                                                                                     \
    VERB(changesVerb)                                                                                                  \
    VERB(checkVerb)                                                                                                    \
    VERB(exportVerb)                                                                                                   \
    VERB(completionVerb)

#define DECLARED(name) Verb name(CLI::App& app);
TECTONIS_VERBS(DECLARED)
#undef DECLARED

/// Writes to standard output. @throws InputError if that fails (a full disk, a closed pipe).
void print(const std::string& text);
/// The command line's own words in the reader's language; the source is a literal, collected like that of say().
template <class... Args> std::string spoken(const char* source, const Args&... arguments)
{
    return words(say(source, arguments...), Unit::Mm, readersLanguage());
}

/// A line on standard error.
void tell(const Message& message);

/// The design in a file, with the user's library; what the reader should know is told.
Design opened(const std::filesystem::path& file);

/// Reads, changes and saves a file while nobody else does: two runs at once lose nothing. @p change returns whether
/// there is anything to save; the design is validated by edit() within.
Design changedFile(const std::filesystem::path& file, const std::function<bool(Design&)>& change);

/// Patterns of all sizes, or of one. @throws InputError if there is no such size.
std::vector<Pattern> drafted(const Design& design, const std::string& size);
/// The pattern of the base size.
Pattern base(const Design& design);

/// Takes the thing with that number, counted from 1, out of a list; 0: none.
/// @throws InputError if there are not so many.
template <class T> void takeOut(std::vector<T>& list, std::size_t number)
{
    if (number > list.size())
        throw InputError("--remove", say("there are {}", list.size()));
    if (number > 0)
        list.erase(list.begin() + std::ptrdiff_t(number - 1));
}

} // namespace tectonis::cli
