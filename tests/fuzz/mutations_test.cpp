// SPDX-License-Identifier: GPL-3.0-or-later
// The fuzzer's kept corpus and half a minute of seeded mutations, as a plain test: a hostile text costs a message.
#include "readers.hpp"

#include "process.hpp"

#include <catch2/catch.hpp>

#include <chrono>
#include <filesystem>
#include <random>
#include <vector>

using namespace tectonis;

namespace {

std::vector<std::string> corpus()
{
    std::vector<std::string> out;
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_CORPUS))
        out.push_back(slurp(entry.path().string()));
    for (const auto& entry : std::filesystem::directory_iterator(std::string(TECTONIS_DATA) + "/demos"))
        out.push_back(std::string(1, '\0') + slurp(entry.path().string()));
    return out;
}

std::string mutated(std::string s, std::mt19937& random)
{
    static const char* words[] = {"1e999", "-1", "0", "null", "\"\"", "[]", "{}", "inf", "nan", "1e308", "\"front\"",
        "\"lining\"", "\xff", "\\u0000", "[[[[[[[[", "9999999999999", "/0", "pi", "in", "½", "width", "\"slip\"",
        "true", "-0", "1e-320", ",", "}"};
    const auto at = [&](std::size_t n) { return n == 0 ? 0 : random() % n; };
    for (std::size_t i = 0, n = 1 + random() % 4; i < n && s.size() > 1; ++i) {
        const std::size_t p = 1 + at(s.size() - 1);
        switch (random() % 6) {
        case 0: s[p] = char(random()); break;
        case 1: s.erase(p, 1 + at(40)); break;
        case 2: s.insert(p, words[random() % std::size(words)]); break;
        case 3: s.insert(p, s.substr(1 + at(s.size() - 1), at(200))); break;
        case 4: {
            // A value is replaced as a whole: the text stays JSON.
            const auto colon = s.find(": ", p);
            const auto end = colon == std::string::npos ? colon : s.find_first_of(",\n", colon);
            if (end != std::string::npos)
                s.replace(colon + 2, end - colon - 2, words[random() % std::size(words)]);
            break;
        }
        default: s[p] = char(s[p] ^ (1 << random() % 8));
        }
    }
    return s;
}

} // namespace

TEST_CASE("The kept corpus: every text that once did harm, and one of each kind")
{
    for (const auto& text : corpus()) {
        INFO(text.substr(0, 200));
        CHECK_NOTHROW(readAnything(text));
    }
}

TEST_CASE("Half a minute of seeded mutations of designs and of everything that is typed")
{
    std::mt19937 random(20261125);
    const auto all = corpus();
    const auto end = std::chrono::steady_clock::now() + std::chrono::seconds(30);
    int tried = 0;
    while (std::chrono::steady_clock::now() < end)
        for (int k = 0; k < 50; ++k, ++tried) {
            const std::string text = mutated(all[random() % all.size()], random);
            try {
                readAnything(text);
            } catch (const std::exception& e) {
                FAIL(e.what() << " at mutation " << tried << ": " << text.substr(0, 4000));
            }
        }
    CHECK(tried > 500);
    WARN(tried << " mutations");
}
