// SPDX-License-Identifier: GPL-3.0-or-later
// The command line in the test language (data/languages/test-language.py): what it says by itself is not English.
#include "process.hpp"

#include <catch2/catch.hpp>

#include <regex>
#include <set>

namespace {

/// In a folder that holds a copy of the demo.
Ran spokenCli(const std::string& arguments)
{
    static const Scratch home("spoken");
    static const bool copied = std::filesystem::copy_file(
        std::string(TECTONIS_DATA) + "/demos/tuners-satchel.tectonis", home / "demo.tectonis");
    REQUIRE(copied);
    return shell("cd '" + (home / "") + "' && TECTONIS_LANGUAGE='" TECTONIS_TEST_LANGUAGE "' XDG_DATA_HOME='"
        + (home / "data") + "' " TECTONIS_CLI " " + arguments);
}

/// Words of four plain letters or more; letters with accents are no plain ones, and what stands beside them is not.
std::set<std::string> plainWords(const std::string& text)
{
    static const std::regex word("[A-Za-z\\x80-\\xff][A-Za-z0-9_./\\x80-\\xff-]*");
    std::set<std::string> out;
    for (auto it = std::sregex_iterator(text.begin(), text.end(), word); it != std::sregex_iterator(); ++it)
        if (const std::string found = it->str(); std::regex_match(found, std::regex("[A-Za-z]{4,}")))
            out.insert(found);
    return out;
}

/// The words that @p arguments print, but those that the command prints in no language: what is typed, names, keys.
std::string english(const std::string& arguments, const std::set<std::string>& names)
{
    const Ran ran = spokenCli(arguments);
    REQUIRE(!(ran.out + ran.err).empty());
    std::string out;
    for (const auto& word : plainWords(ran.out + "\n" + ran.err))
        if (!names.contains(word))
            out += word + " ";
    return out;
}

} // namespace

TEST_CASE("The command line in the test language is not English: findings and walks and help and refusals")
{
    std::set<std::string> typed{"tectonis", "Tectonis", "NAME", "VALUE", "RULE", "ROLE", "SIZE", "KEY", "KIND", "ID",
        "file", "values", "names", "rules", "form", "what", "sheets", "booklet", "html", "HTML", "TITLE", "FIRST",
        "THEN", "pieces", "figures", "cutlist", "specification", "specification-pages", "cost", "purchases",
        "measures"};
    CHECK(english("check demo.tectonis", typed).empty());
    // Keys of seams stand in brackets; they are typed.
    const Ran walked = spokenCli("walk demo.tectonis");
    CHECK(walked.out.find("⟦") != std::string::npos);
    for (const auto& word : plainWords(std::regex_replace(walked.out, std::regex("\\[[^\\]]*\\]"), "")))
        FAIL_CHECK(word);
    for (const char* wrong : {"set demo.tectonis width=-3", "set demo.tectonis width=abc",
             "set demo.tectonis width=nothing+1", "set demo.tectonis x=1", "part demo.tectonis --add teapot",
             "measure /nowhere.tectonis", "check demo.tectonis --size huge", "walk demo.tectonis --seam 5",
             "rule demo.tectonis width=grow", "export demo.tectonis teapot -o x",
             "export demo.tectonis sheets -o x --paper B99", "carry demo.tectonis --add A --measures 1x2"}) {
        INFO(wrong);
        const Ran ran = spokenCli(wrong);
        CHECK(ran.code == 2);
        CHECK(ran.err.find("⟦") != std::string::npos);
    }
    for (const char* verb :
        {"new", "set", "sizes", "rule", "part", "layer", "carry", "order", "trial", "library", "export"}) {
        const Ran help = spokenCli(std::string(verb) + " --help");
        INFO(help.out);
        CHECK(help.code == 0);
        for (const auto& word : plainWords(
                 std::regex_replace(help.out, std::regex("--?[a-z-]+"), ""))) // but for what is typed as it stands
            if (word != verb && !typed.contains(word))
                FAIL_CHECK(word);
        CHECK(help.out.find("Print this") == std::string::npos);
        CHECK(help.out.find("Usage:") == std::string::npos);
        CHECK(help.out.find("Options:") == std::string::npos);
    }
}
