// SPDX-License-Identifier: GPL-3.0-or-later
// Design files as earlier Tectonis wrote them (tests/older: every shape that the demos have had), and what becomes of
// them when they are damaged.
#include "drawn.hpp"

#include "checks/finding.hpp"
#include "files/files.hpp"
#include "formats/design_file.hpp"
#include "units/error.hpp"

#include <nlohmann/json.hpp>

#include <filesystem>
#include <random>

using namespace tectonis;
using nlohmann::json;

namespace {

std::vector<std::filesystem::path> olderFiles()
{
    std::vector<std::filesystem::path> out;
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_OLDER))
        out.push_back(entry.path());
    std::sort(out.begin(), out.end());
    return out;
}

/// One value somewhere in the file: gone, of another kind, out of its range, or twice.
void damage(json& j, std::mt19937& random)
{
    json* at = &j;
    for (int depth = 0; depth < 6; ++depth) {
        if (!at->is_structured() || at->empty())
            break;
        auto it = at->begin();
        std::advance(it, random() % at->size());
        const bool go = it->is_structured() && !it->empty() && random() % 4 != 0;
        if (go) {
            at = &*it;
            continue;
        }
        static const json odd[] = {nullptr, -1, 1e308, "", "nonsense", "1e9", json::array(), json::object(), true, 0,
            "sqrt(-1)", "../x", std::string(500, 'a')};
        switch (random() % 4) {
        case 0: at->erase(it); break;
        case 1:
            if (at->is_array())
                at->push_back(json(*it));
            else
                (*at)[it.key() + "2"] = json(*it);
            break;
        default: *it = odd[random() % std::size(odd)];
        }
        return;
    }
}

} // namespace

TEST_CASE("Every older shape of a design file opens, holds in all sizes, and is the same once it is saved")
{
    const auto files = olderFiles();
    REQUIRE(files.size() >= 27);
    for (const auto& file : files) {
        INFO(file.filename().string());
        const ReadDesign read = readDesign(readWhole(file), file.filename().string());
        const json before = json::parse(readWhole(file));
        for (const Pattern& p : draftAll(read.design))
            for (const auto& seam : p.seams)
                CHECK(std::abs(seam.difference()) < 0.01);
        // What it said stays said.
        CHECK(read.design.name == before["name"]);
        for (const auto& [name, d] : before["dimensions"].items()) {
            INFO(name);
            REQUIRE(read.design.dimensions.contains(name));
            CHECK(read.design.dimensions.at(name).value == d["value"]);
        }
        const std::string saved = designText(read.design);
        CHECK(designText(designFromText(saved, "again")) == saved);
        CHECK(designFromText(saved, "again") == read.design);
        CHECK(readDesign(saved, "again").told.empty());
    }
}

TEST_CASE("1,000 damaged older files: each is refused with its place, or opens, checks and saves like any other")
{
    std::vector<json> good;
    for (const auto& file : olderFiles())
        good.push_back(json::parse(readWhole(file)));
    std::mt19937 random(20261126);
    int refused = 0, opened = 0;
    for (int i = 0; i < 1000; ++i) {
        json j = good[random() % good.size()];
        for (unsigned n = 1 + random() % 3; n > 0; --n)
            damage(j, random);
        const std::string text = j.dump(1);
        try {
            const Design d = designFromText(text, "damaged.tectonis");
            ++opened;
            checkAll(d, draftAll(d));
            INFO(text);
            CHECK(designFromText(designText(d), "again") == d);
        } catch (const InputError& e) {
            ++refused;
            CHECK(std::string(e.what()).starts_with("damaged.tectonis"));
            CHECK(words(e.problem()).size() > 10);
        } catch (const std::exception& e) {
            FAIL(e.what() << ": " << text);
        }
    }
    CHECK(refused > 100);
    CHECK(opened > 100);
}
